"""The darkroom card as a PDF at true size; what one side does not hold stands on the next."""

from __future__ import annotations

import re
from collections.abc import Callable
from functools import lru_cache
from io import BytesIO
from typing import TYPE_CHECKING, Any
from xml.sax.saxutils import escape

from vadrin.formats.reports.card import CARD_SIZES, Card
from vadrin.formats.reports.pdf_typeface import BOLD, MM, REGULAR, register_fonts

if TYPE_CHECKING:
    from reportlab.lib.styles import ParagraphStyle
    from reportlab.pdfgen.canvas import Canvas
    from reportlab.platypus import Flowable

    from vadrin.formats.reports.sheet_picture import SheetPicture

_INK, _SOFT = (0.078, 0.129, 0.169), (0.337, 0.404, 0.451)
_MARGIN = 6.0
_FOOT = 9.0
"""Millimetres at the foot of a side that belong to the caution."""
_ANSWER, _TITLE, _BODY, _SMALL = 32.0, 15.0, 9.2, 8.0
"""Sizes of letters on the larger card."""
_SCALES = (1.12, 0.96, 0.86)
"""Tried in turn until one side holds the card: smaller letters are not read from a wall, and
what does not fit then stands on the next side."""
_OVERFLOWING = 0.96
_MOST_ON_A_SIDE = 24
"""Rows of tables from which no scale is tried that will not hold them."""


def _wide(words: str, font: str, size: float) -> float:
    """Points that words take in a line."""
    from reportlab.pdfbase.pdfmetrics import stringWidth

    return float(stringWidth(words, font, size))


_LONGEST_WORDS = 4000
"""Letters of one cell or paragraph; no card holds more that anybody could read."""


def _bounded(words: str) -> str:
    """Words as a card takes them: what is endless is cut, and shows it."""
    return words if len(words) <= _LONGEST_WORDS else f"{words[:_LONGEST_WORDS]} …"


class _Setting:
    """The parts of a card, set in letters of one scale for a side of one width.

    Parameters
    ----------
    card : Card
    room : float
        Width between the margins, points.
    scale, large : float
        Of all letters, and of the answer and the title beside them.
    """

    def __init__(self, card: Card, room: float, scale: float, large: float) -> None:
        self._card, self._room, self._scale, self._large = card, room, scale, large

    def parts(self) -> list[Flowable]:
        """Everything from top to bottom."""
        card = self._card
        made = [self._head(), *self._under_the_head(), self._rule()]
        made += self._own_answer() if card.says else [self._index_and_time()]
        if card.steps:
            made += [self._gap(2), self._steps()]
        if card.rows:
            made += [self._gap(2), self._pushes()]
        for table in card.tables:
            made += [self._gap(2), self._table(table)]
        return [*made, self._gap(2), self._rule(), *self._notes()]

    def pictures(self, shown: tuple[SheetPicture, ...]) -> list[Flowable]:
        """Pictures in a row, each with what it is of."""
        from reportlab.platypus import Image, Table

        from vadrin.formats.pictures.picture_file import png_of

        if not shown:
            return []
        wide = self._room / len(shown)
        cells = []
        for picture in shown:
            if picture.levels is None:
                continue
            width = min(wide - 4, 0.5 * self._room)
            image = Image(BytesIO(png_of(picture.levels, {})), width, width * 2 / 3)
            cells.append([image, self._said(picture.caption, _SMALL, bold=picture.framed)])
        style = [*_tight(), ("RIGHTPADDING", (0, 0), (-1, -1), 4)]
        return [self._gap(4), Table([cells], [wide] * len(shown), style=style, hAlign="LEFT")]

    def _style(
        self,
        size: float,
        bold: bool = False,
        soft: bool = False,
        right: bool = False,
        after: float = 0.0,
    ) -> ParagraphStyle:
        from reportlab.lib.colors import Color
        from reportlab.lib.styles import ParagraphStyle

        return ParagraphStyle(
            "card",
            fontName=BOLD if bold else REGULAR,
            fontSize=size,
            leading=1.22 * size,
            textColor=Color(*(_SOFT if soft else _INK)),
            alignment=2 if right else 0,
            spaceAfter=after,
        )

    def _said(self, words: str, size: float = _BODY, **how: Any) -> Flowable:
        """A paragraph, in letters of a size on the scale."""
        from reportlab.platypus import Paragraph

        return Paragraph(
            escape(_BEFORE_UNIT.sub("\N{NO-BREAK SPACE}", _bounded(words))),
            self._style(size * self._scale, **how),
        )

    def _gap(self, high: float) -> Flowable:
        from reportlab.platypus import Spacer

        return Spacer(1, high * self._scale)

    def _rule(self) -> Flowable:
        from reportlab.lib.colors import Color
        from reportlab.platypus import HRFlowable

        return HRFlowable("100%", 0.4, color=Color(*_SOFT), spaceBefore=2, spaceAfter=3)

    def _fitted(self, words: str, size: float, room: float) -> float:
        """A size at which bold words stand in one line, but never under that of the text."""
        fits = size * room / max(_wide(words, BOLD, size), 1e-6)
        return max(_BODY * self._scale, min(size, fits))

    def _line_that_fits(self, words: str, size: float, room: float) -> Flowable:
        from reportlab.platypus import Paragraph

        words = _bounded(words)
        fitted = self._fitted(words, size * self._large, room)
        return Paragraph(escape(words), self._style(fitted, bold=True))

    def _beside(self, cells: list[Any], widths: list[float]) -> Flowable:
        from reportlab.platypus import Table

        style = [*_tight(), ("RIGHTPADDING", (0, 0), (-1, -1), 0), _AT_THE_FOOT]
        return Table([cells], widths, style=style, hAlign="LEFT", splitInRow=1)

    def _head(self) -> Flowable:
        card, size = self._card, _SMALL * self._scale
        right = min(_wide(card.status, REGULAR, size) + 4, 0.4 * self._room)
        left = self._room - right
        film = self._line_that_fits(card.film, _TITLE, left - 6)
        return self._beside(
            [film, self._said(card.status, _SMALL, soft=True, right=True)], [left, right]
        )

    def _under_the_head(self) -> list[Flowable]:
        card = self._card
        at = ", ".join(
            words
            for words in (
                f"in {card.developer}" if card.developer else "",
                card.temperature,
                f"agitation: {card.agitation}" if card.agitation else "",
            )
            if words
        )
        said = [at[:1].upper() + at[1:] if at else "", card.purpose]
        return [self._said(words, soft=True) for words in said if words]

    def _index_and_time(self) -> Flowable:
        card, half = self._card, self._room / 2
        spread = f"min {card.temperature}" + (f", {card.time_range}" if card.time_range else "")
        left = [
            self._line_that_fits(f"EI {card.exposure_index}", _ANSWER, half - 4),
            self._said(card.index_range, soft=True),
        ]
        right = [self._line_that_fits(card.time, _ANSWER, half - 4), self._said(spread, soft=True)]
        return self._beside([left, right], [half, half])

    def _own_answer(self) -> list[Flowable]:
        card = self._card
        made = [self._line_that_fits(card.says, 0.8 * _ANSWER, self._room)]
        return [*made, self._said(card.says_how)] if card.says_how else made

    def _steps(self) -> Flowable:
        from reportlab.platypus import Table

        names = [name for name, _ in self._card.steps]
        size = _BODY * self._scale
        left = min(max(_wide(name, BOLD, size) for name in names) + 8, 0.4 * self._room)
        cells = [
            [self._said(name, bold=True), self._said(words)] for name, words in self._card.steps
        ]
        return Table(cells, [left, self._room - left], style=_tight(), hAlign="LEFT", splitInRow=1)

    def _pushes(self) -> Flowable:
        card = self._card
        heads = ("", "Shoot at EI", "Develop", "Shadow detail", "Shadows")
        rows = [(r.name, r.exposure_index, r.time, r.shadow, r.verdict) for r in card.rows]
        bold = {place for place, row in enumerate(card.rows, 1) if row.normal}
        return self._table((heads, *rows), bold)

    def _table(
        self, lines: tuple[tuple[str, ...], ...], bold: set[int] | frozenset[int] = frozenset()
    ) -> Flowable:
        from reportlab.platypus import Table

        share, widths = _columns(lines, _BODY * self._scale, self._room)
        cells = [
            [
                self._said(words, _BODY * share, soft=place == 0, bold=place in bold)
                for words in line
            ]
            for place, line in enumerate(lines)
        ]
        return Table(cells, widths, style=_tight(), hAlign="LEFT", repeatRows=1, splitInRow=1)

    def _notes(self) -> list[Flowable]:
        card = self._card
        keeps = f" Push times keep the {card.rule}." if card.rows and card.rule else ""
        said = [
            *(f"Mind: {words}" for words in card.mind),
            *(f"Note: {words}" for words in card.diagnostics),
            f"{card.basis}{keeps}".strip(),
            card.signed,
        ]
        return [self._said(words, _SMALL, soft=True, after=1.5) for words in said if words]


_BEFORE_UNIT = re.compile(r"(?<=\d) (?=(?:°C|min|s|stops?)\b)")
"""Where a line may not end: a figure and its unit stay together."""
_AT_THE_FOOT = ("VALIGN", (0, 0), (-1, -1), "BOTTOM")


def _tight() -> list[Any]:
    """The style of a table without lines, its columns as far apart as letters need."""
    return [
        ("LEFTPADDING", (0, 0), (-1, -1), 0),
        ("RIGHTPADDING", (0, 0), (-1, -1), 5),
        ("TOPPADDING", (0, 0), (-1, -1), 0.5),
        ("BOTTOMPADDING", (0, 0), (-1, -1), 0.5),
        ("VALIGN", (0, 0), (-1, -1), "TOP"),
    ]


def _columns(
    lines: tuple[tuple[str, ...], ...], size: float, room: float
) -> tuple[float, list[float]]:
    """The share of its size a table is set in, and how wide each column is, in points.

    No column is narrower than its longest word; what is over is taken from the widest, whose
    words go on in a second line. Letters shrink only where the longest words alone are too wide.
    """
    gap = 6.0
    columns = list(zip(*lines, strict=True))

    def widest(parts: Callable[[str], list[str]], share: float) -> list[float]:
        return [
            max(_wide(part, BOLD, size * share) for cell in column for part in parts(cell)) + gap
            for column in columns
        ]

    share = 1.0
    least = widest(lambda cell: cell.split() or [""], share)
    while sum(least) > room and share > 0.6:
        share -= 0.05
        least = widest(lambda cell: cell.split() or [""], share)
    wide = widest(lambda cell: [cell], share)
    while sum(wide) > room + 1e-6:
        spare = [w - least[i] for i, w in enumerate(wide)]
        most = max(range(len(wide)), key=lambda i: wide[i] if spare[i] > 0.5 else 0.0)
        if spare[most] <= 0.5:
            break
        wide[most] -= min(spare[most], max(1.0, 0.1 * (sum(wide) - room)), sum(wide) - room)
    return share, wide


@lru_cache(maxsize=16)
def card_pdf(card: Card, size: str = "A6", pictures: tuple[SheetPicture, ...] = ()) -> bytes:
    """Draw a card.

    Parameters
    ----------
    card : Card
    size : str
        A key of `CARD_SIZES`.
    pictures : tuple of SheetPicture
        Small ones under everything else.

    Returns
    -------
    bytes
        A PDF at true size: one side, or as many as it takes. Nothing is cut off.
    """
    many = sum(len(table) for table in card.tables) > _MOST_ON_A_SIDE
    sides, smallest = _set(card, size, _SCALES[-1], pictures)
    if many:
        return smallest
    if sides > 1:
        # What needs another side in any case is set in letters that are read from further away.
        return _set(card, size, _OVERFLOWING, pictures)[1]
    for scale in _SCALES[:-1]:
        sides, document = _set(card, size, scale, pictures)
        if sides == 1:
            return document
    return smallest


def _set(
    card: Card, size: str, scale: float, pictures: tuple[SheetPicture, ...]
) -> tuple[int, bytes]:
    """How many sides a card takes in letters of a scale, and the document."""
    from reportlab.platypus import BaseDocTemplate, Frame, PageTemplate

    register_fonts()
    width, height = (side * MM for side in CARD_SIZES[size])
    room, target = width - 2 * _MARGIN * MM, BytesIO()
    said = card.says or f"EI {card.exposure_index}, {card.time}"
    document = BaseDocTemplate(
        target,
        pagesize=(width, height),
        invariant=1,
        title=f"{card.film} in {card.developer}: {said}",
        creator="Vadrin",
    )

    def around(canvas: Canvas, _document: object) -> None:
        _around(canvas, card, (width, height))

    foot, top = _FOOT * MM, 4 * MM
    frames = [
        Frame(
            _MARGIN * MM,
            foot,
            room,
            height - foot - head,
            leftPadding=0,
            rightPadding=0,
            topPadding=0,
            bottomPadding=0,
        )
        for head in (top, top + 4 * MM)
    ]
    document.addPageTemplates(
        [
            PageTemplate("front", frames[0], onPageEnd=around, autoNextPageTemplate="back"),
            PageTemplate("back", frames[1], onPageEnd=around),
        ]
    )
    large = min(width / (148.0 * MM), height / (105.0 * MM)) * min(scale, 1.0)
    setting = _Setting(card, room, scale, large)
    document.build([*setting.parts(), *setting.pictures(pictures)])
    return document.page, target.getvalue()


def _around(canvas: Canvas, card: Card, page: tuple[float, float]) -> None:
    """The caution at the foot of a side, and on a later side what card it is of."""
    left, right, place = _MARGIN * MM, page[0] - _MARGIN * MM, canvas.getPageNumber()
    canvas.setFillColorRGB(*_SOFT)
    small = 7.0
    care = min(small, small * (right - left) / max(_wide(card.care, REGULAR, small), 1e-6))
    canvas.setFont(REGULAR, care)
    canvas.drawString(left, 4.5 * MM, card.care)
    canvas.setFont(REGULAR, small)
    top = page[1] - 6 * MM
    if place > 1:
        canvas.drawString(left, top, f"{card.film} in {card.developer}")
        canvas.drawRightString(right, top, f"side {place}")

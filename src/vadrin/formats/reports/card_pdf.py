"""The darkroom card as a PDF page at true size."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from io import BytesIO
from pathlib import Path
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from reportlab.pdfgen.canvas import Canvas

MM = 72 / 25.4
CARD_SIZES = {"A6": (148.0, 105.0), "Index card 5 × 3 in": (127.0, 76.2)}
"""Paper sizes in millimetres, width first."""

_INK = (0.078, 0.129, 0.169)
_SOFT = (0.337, 0.404, 0.451)
_MARGIN = 6.0
_REGULAR, _BOLD = "Vadrin-400", "Vadrin-700"


@dataclass(frozen=True)
class CardRow:
    """One push or pull on the card, in words ready to print."""

    name: str
    exposure_index: str
    time: str
    shadow: str
    verdict: str
    normal: bool = False


@dataclass(frozen=True)
class Card:
    """Everything printed on a card, in words ready to print."""

    film: str
    developer: str
    temperature: str
    agitation: str
    status: str
    care: str
    exposure_index: str = ""
    index_range: str = ""
    time: str = ""
    time_range: str = ""
    rows: tuple[CardRow, ...] = ()
    rule: str = ""
    basis: str = ""
    diagnostics: tuple[str, ...] = ()
    says: str = ""
    """What stands in the place of EI and time, where the test asked for something else."""
    says_how: str = ""
    lines: tuple[tuple[str, ...], ...] = ()
    """Rows under it, the heads first."""


_LEADING, _SHARES = 0.43, (1.0, 0.92, 0.84, 0.76, 0.7)
_SMALLEST_SHARE = 0.8
"""Of its usual size: smaller letters are not read from a wall."""


@cache
def register_fonts() -> tuple[str, str]:
    """Names of the program's typeface, regular and bold, ready for a PDF."""
    from reportlab.pdfbase import pdfmetrics
    from reportlab.pdfbase.ttfonts import TTFont

    folder = Path(str(files("vadrin") / "fonts"))
    for name, weight in ((_REGULAR, 400), (_BOLD, 700)):
        pdfmetrics.registerFont(TTFont(name, folder / f"AtkinsonHyperlegibleNext-{weight}.ttf"))
    return _REGULAR, _BOLD


class _Page:
    """A canvas with millimetres from the top left corner."""

    def __init__(self, canvas: Canvas, width: float, height: float) -> None:
        self.canvas, self.width, self.height = canvas, width, height

    def text(
        self,
        x: float,
        y: float,
        words: str,
        size: float,
        bold: bool = False,
        colour: tuple[float, float, float] = _INK,
        right: bool = False,
    ) -> None:
        self.canvas.setFillColorRGB(*colour)
        self.canvas.setFont(_BOLD if bold else _REGULAR, size)
        draw = self.canvas.drawRightString if right else self.canvas.drawString
        draw(x * MM, (self.height - y) * MM, words)

    def rule(self, y: float) -> None:
        self.canvas.setStrokeColorRGB(*_SOFT)
        self.canvas.setLineWidth(0.3)
        level = (self.height - y) * MM
        self.canvas.line(_MARGIN * MM, level, (self.width - _MARGIN) * MM, level)

    def paragraph(self, y: float, words: str, size: float, most: int) -> float:
        """Words in the room of so many lines: in smaller type where they need more."""
        from reportlab.lib.utils import simpleSplit

        room, high = (self.width - 2 * _MARGIN) * MM, most * size * _LEADING
        for share in _SHARES:
            lines = simpleSplit(words, _REGULAR, size * share, room)
            fit = round(high // (size * share * _LEADING) + 1e-6)
            if len(lines) <= fit:
                break
        if len(lines) > fit:
            lines = [*lines[: fit - 1], f"{lines[fit - 1]} …"]
        for line in lines:
            self.text(_MARGIN, y, line, size * share, colour=_SOFT)
            y += size * share * _LEADING
        return y

    def cut(self, words: str, size: float, room: float) -> str:
        from reportlab.pdfbase.pdfmetrics import stringWidth

        shown = words
        while shown and stringWidth(shown, _REGULAR, size) > room * MM + 0.1:
            shown = shown[:-1]
        return words if shown == words else f"{shown[:-1].rstrip()}…"

    def letters_that_fit(
        self, lines: list[tuple[str, ...]], usual: float, room: float, gap: float
    ) -> float:
        """The size at which a table needs no cutting, but never too small for the wall."""
        gaps = gap * len(lines[0])
        need = sum(self.columns(lines, usual, 1e9, gap)) - gaps
        return usual * max(_SMALLEST_SHARE, min(1.0, (room - gaps) / max(need, 1e-6)))

    def columns(
        self, lines: list[tuple[str, ...]], size: float, room: float, gap: float
    ) -> list[float]:
        """Widths of columns by what stands in them; what is too wide is cut from the widest."""
        from reportlab.pdfbase.pdfmetrics import stringWidth

        wide = [
            max(float(stringWidth(w, _REGULAR, size)) for w in column) / MM + gap
            for column in zip(*lines, strict=True)
        ]
        while sum(wide) > room + 1e-6:
            widest = max(wide)
            next_to_it = max((w for w in wide if w < widest - 1e-6), default=0.0)
            many = sum(w > widest - 1e-6 for w in wide)
            less = min(widest - next_to_it, (sum(wide) - room) / many)
            wide = [w - less if w > widest - 1e-6 else w for w in wide]
        return wide

    def fitted(self, words: str, size: float, room: float) -> float:
        from reportlab.pdfbase.pdfmetrics import stringWidth

        width = float(stringWidth(words, _BOLD, size))
        return min(size, size * room * MM / max(width, 1e-6))


def _draw(page: _Page, card: Card) -> None:
    k = min(page.width / 148.0, page.height / 105.0)
    right = page.width - _MARGIN
    title = page.fitted(card.film, 15 * k, page.width - 2 * _MARGIN - 26)
    page.text(_MARGIN, 11 * k, card.film, title, bold=True)
    page.text(right, 11 * k, card.status, 8 * k, colour=_SOFT, right=True)
    page.text(_MARGIN, 16.5 * k, f"in {card.developer}", 10 * k, colour=_SOFT)
    page.rule(19.5 * k)
    if card.says:
        _draw_own_answer(page, card, k)
    else:
        _draw_index_and_time(page, card, k)
    y = page.height - 21 * k
    page.rule(y - 4 * k)
    keeps = f" Push times keep the {card.rule}." if card.rows and card.rule else ""
    notes = card.basis + keeps + "".join(f" Note: {w}" for w in card.diagnostics)
    if card.agitation:
        notes = f"Agitation: {card.agitation}. {notes}"
    y = page.paragraph(y, notes, 7.5 * k, 3)
    page.paragraph(page.height - 5.5 * k, card.care, 7 * k, 1)


def _draw_index_and_time(page: _Page, card: Card, k: float) -> None:
    middle = page.width / 2
    page.text(_MARGIN, 32 * k, f"EI {card.exposure_index}", 34 * k, True)
    page.text(_MARGIN, 37.5 * k, card.index_range, 8.5 * k, colour=_SOFT)
    page.text(middle, 32 * k, card.time, 34 * k, bold=True)
    spread = f"min {card.temperature}" + (f", {card.time_range}" if card.time_range else "")
    page.text(middle, 37.5 * k, spread, 8.5 * k, colour=_SOFT)
    page.rule(41 * k)
    if card.rows:
        _table(page, card, 46 * k, k)


def _draw_own_answer(page: _Page, card: Card, k: float) -> None:
    """What the test says in its own words, and its rows as far as there is room."""
    room = page.width - 2 * _MARGIN
    page.text(_MARGIN, 31 * k, card.says, page.fitted(card.says, 28 * k, room), True)
    y = page.paragraph(36.5 * k, card.says_how, 8.5 * k, 3)
    if not card.lines:
        return
    y += 2.5 * k
    usual = (8.5 if max(len(line) for line in card.lines) < 6 else 7.5) * k
    heads: tuple[str, ...] = ()
    for line in card.lines[: int((page.height - 26 * k - y) / (4.4 * k))]:
        if len(line) != len(heads):
            # The first line of a table: another has other columns.
            heads = line
            alike = [c for c in card.lines if len(c) == len(line)]
            size = page.letters_that_fit(alike, usual, room, 2 * k)
            widths = page.columns(alike, size, room, 2 * k)
        x = _MARGIN
        for words, wide in zip(line, widths, strict=True):
            shown = page.cut(words, size, wide - 2 * k)
            page.text(x, y, shown, size, colour=_SOFT if line is heads else _INK)
            x += wide
        y += 4.4 * k


def _table(page: _Page, card: Card, y: float, k: float) -> None:
    columns = [_MARGIN, _MARGIN + 30 * k, _MARGIN + 52 * k, _MARGIN + 78 * k, _MARGIN + 106 * k]
    for x, words in zip(
        columns, ("", "Shoot at EI", "Develop", "Shadow detail", "Shadows"), strict=True
    ):
        page.text(x, y, words, 8 * k, colour=_SOFT)
    for row in card.rows[:5]:
        y += 6.4 * k
        cells = (row.name, row.exposure_index, row.time, row.shadow, row.verdict)
        for x, words in zip(columns, cells, strict=True):
            page.text(x, y, words, 11 * k, bold=row.normal)


def card_pdf(card: Card, size: str = "A6") -> bytes:
    """Draw a card.

    Parameters
    ----------
    card : Card
    size : str
        A key of `CARD_SIZES`.

    Returns
    -------
    bytes
        A PDF of one page at true size.
    """
    from reportlab.pdfgen.canvas import Canvas

    register_fonts()
    width, height = CARD_SIZES[size]
    target = BytesIO()
    canvas = Canvas(target, pagesize=(width * MM, height * MM), invariant=True)
    said = card.says or f"EI {card.exposure_index}, {card.time}"
    canvas.setTitle(f"{card.film} in {card.developer}: {said}")
    canvas.setCreator("Vadrin")
    _draw(_Page(canvas, width, height), card)
    canvas.showPage()
    canvas.save()
    return target.getvalue()

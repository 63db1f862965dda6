"""The script of a test on paper: A4 with boxes to tick, or folded to fit a pocket."""

from __future__ import annotations

from dataclasses import dataclass
from io import BytesIO

from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.lib.utils import simpleSplit
from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.pdfgen.canvas import Canvas

from vadrin.formats.reports.pdf_typeface import register_fonts

ScriptRow = tuple[str, str, str, str, str]
"""Number, strip, setting, offset, what changed; without a number, words that head a part."""


@dataclass(frozen=True)
class Script:
    """What goes on the paper."""

    title: str
    lines: tuple[str, ...]
    rows: tuple[ScriptRow, ...]


@dataclass(frozen=True)
class _Panel:
    """A rectangle of the page to write into, in points from its lower left."""

    x: float
    y: float
    width: float
    height: float


def script_pdf(sheet: Script, pocket: bool = False) -> bytes:
    """The script as PDF.

    Parameters
    ----------
    sheet : ScriptSheet
    pocket : bool
        Four panels on one A4, to be folded twice to A6.
    """
    regular, bold = register_fonts()
    buffer = BytesIO()
    canvas = Canvas(buffer, pagesize=A4)
    canvas.setTitle(sheet.title)
    width, height = A4
    if pocket:
        half = _Panel(0, 0, width / 2, height / 2)
        panels = [
            _Panel(x * half.width, y * half.height, half.width, half.height)
            for y in (1, 0)
            for x in (0, 1)
        ]
        size, columns = 7.5, 1
    else:
        panels = [_Panel(0, 0, width, height)]
        size, columns = 10.0, 2
    rows = list(sheet.rows)
    while rows:
        for place, panel in enumerate(panels):
            if not rows:
                break
            _panel(canvas, panel, sheet, rows, size, columns, (regular, bold), place == 0)
        if pocket:
            _folds(canvas, width, height)
        canvas.showPage()
    canvas.save()
    return buffer.getvalue()


def _folds(canvas: Canvas, width: float, height: float) -> None:
    canvas.setDash(2, 4)
    canvas.setLineWidth(0.3)
    canvas.line(width / 2, 0, width / 2, height)
    canvas.line(0, height / 2, width, height / 2)
    canvas.setDash()


def _panel(
    canvas: Canvas,
    panel: _Panel,
    sheet: Script,
    rows: list[ScriptRow],
    size: float,
    columns: int,
    faces: tuple[str, str],
    first: bool,
) -> None:
    margin = 8 * mm if columns == 1 else 14 * mm
    x, top = panel.x + margin, panel.y + panel.height - margin
    canvas.setFont(faces[1], size * 1.4)
    canvas.drawString(x, top - size, sheet.title)
    top -= size * 2.2
    canvas.setFont(faces[0], size)
    for line in sheet.lines if first else ():
        canvas.drawString(x, top - size, line)
        top -= size * 1.45
    top -= size * 0.8
    room = panel.width - 2 * margin
    step = size * (2.0 if columns == 1 else 2.7)
    fit = max(1, int((top - panel.y - margin) / step))
    for column in range(columns):
        left = x + column * (room + 6 * mm) / columns
        for place in range(fit):
            if not rows:
                return
            width = room / columns - (3 * mm if columns > 1 else 0)
            _row(canvas, rows.pop(0), left, top - (place + 1) * step, width, size, faces)


def _row(
    canvas: Canvas,
    row: ScriptRow,
    x: float,
    y: float,
    width: float,
    size: float,
    faces: tuple[str, str],
) -> None:
    number, strip, setting, offset, changed = row
    if not number:
        _head(canvas, setting, x, y, width, size, faces[1])
        return
    box = size * 1.1
    canvas.setLineWidth(0.7)
    canvas.rect(x, y - size * 0.2, box, box)
    canvas.setFont(faces[0], size * 0.9)
    canvas.drawRightString(x + box + size * 2.0, y, number)
    canvas.drawString(x + box + size * 2.5, y, strip)
    canvas.setFont(faces[1] if changed else faces[0], size)
    canvas.drawString(x + box + size * 4.2, y, setting)
    canvas.setFont(faces[0], size * 0.9)
    canvas.drawRightString(x + width, y, offset)
    canvas.setLineWidth(0.2)
    canvas.line(x, y - size * 0.6, x + width, y - size * 0.6)


def _head(
    canvas: Canvas, words: str, x: float, y: float, width: float, size: float, face: str
) -> None:
    """Words that head a roll or a strip, on up to two lines of one row."""
    lines = simpleSplit(words, face, size * 0.85, width)[:2]
    canvas.setFont(face, size * 0.85)
    for place, line in enumerate(lines):
        canvas.drawString(x, y + size * (0.9 * (len(lines) - 1) - 0.9 * place), line)


@dataclass(frozen=True)
class CassetteLabel:
    """What stands on a cassette that was shot."""

    stock: str
    lines: tuple[str, ...]


def label_pdf(labels: tuple[CassetteLabel, ...]) -> bytes:
    """Labels of 55 by 22 mm, to be cut out, on A4."""
    regular, bold = register_fonts()
    buffer = BytesIO()
    canvas = Canvas(buffer, pagesize=A4)
    canvas.setTitle("cassette labels")
    wide, high = 55 * mm, 22 * mm
    across = 3
    for place, label in enumerate(labels):
        row, column = divmod(place % 33, across)
        if place and place % 33 == 0:
            canvas.showPage()
        x = 15 * mm + column * (wide + 4 * mm)
        y = A4[1] - 15 * mm - (row + 1) * (high + 3 * mm)
        canvas.setLineWidth(0.3)
        canvas.rect(x, y, wide, high)
        canvas.setFont(bold, 11)
        canvas.drawString(x + 2 * mm, y + high - 5.2 * mm, label.stock)
        for line, words in enumerate(label.lines[:4]):
            # Everything on it counts in the dark: small print rather than cut words.
            fits = (wide - 4 * mm) / max(1.0, stringWidth(words, regular, 8))
            canvas.setFont(regular, 8 * min(1.0, fits))
            canvas.drawString(x + 2 * mm, y + high - (9.2 + 3.6 * line) * mm, words)
    canvas.save()
    return buffer.getvalue()

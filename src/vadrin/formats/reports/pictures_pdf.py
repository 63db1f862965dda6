"""A sheet of pictures to take to the darkroom: rows of them, each with what it is of."""

from __future__ import annotations

from io import BytesIO

from PIL import Image
from reportlab.lib.pagesizes import A4, landscape
from reportlab.lib.units import mm
from reportlab.lib.utils import ImageReader, simpleSplit
from reportlab.pdfgen.canvas import Canvas

from vadrin.formats.reports.pdf_typeface import register_fonts
from vadrin.formats.reports.sheet_picture import SheetPicture

_SIZE, _GAP = 8.0, 4 * mm


def pictures_pdf(title: str, small_print: str, rows: list[list[SheetPicture]]) -> bytes:
    """The sheet on A4, lying."""
    regular, bold = register_fonts()
    buffer = BytesIO()
    page = landscape(A4)
    canvas = Canvas(buffer, pagesize=page)
    canvas.setTitle(title)
    margin = 12 * mm
    canvas.setFont(bold, _SIZE * 1.6)
    canvas.drawString(margin, page[1] - margin - _SIZE, title)
    foot = simpleSplit(small_print, regular, _SIZE, page[0] - 2 * margin)
    low = margin + 1.4 * _SIZE * len(foot) + _GAP
    high = page[1] - margin - 3 * _SIZE
    columns = max(len(row) for row in rows)
    caption = 2.8 * _SIZE
    tall = min((high - low) / len(rows) - caption - _GAP,
               ((page[0] - 2 * margin) / columns - _GAP) * 2 / 3)  # fmt: skip
    for number, row in enumerate(rows):
        top = high - number * (tall + caption + _GAP)
        for column, picture in enumerate(row):
            x = margin + column * (tall * 1.5 + _GAP)
            _draw(canvas, picture, (x, top - tall, tall * 1.5, tall), (regular, bold))
    canvas.setFont(regular, _SIZE)
    for number, words in enumerate(reversed(foot)):
        canvas.drawString(margin, margin + 1.4 * _SIZE * number, words)
    canvas.save()
    return buffer.getvalue()


def _draw(
    canvas: Canvas,
    picture: SheetPicture,
    box: tuple[float, float, float, float],
    faces: tuple[str, str],
) -> None:
    x, y, wide, tall = box
    regular, bold = faces
    if picture.levels is not None:
        image = ImageReader(Image.fromarray(picture.levels))
        canvas.drawImage(image, x, y, wide, tall, preserveAspectRatio=True, anchor="nw")
    canvas.setLineWidth(2.2 if picture.framed else 0.4)
    canvas.rect(x, y, wide, tall)
    canvas.setFont(bold if picture.framed else regular, _SIZE)
    canvas.drawString(x, y - 1.3 * _SIZE, picture.caption)
    canvas.setFont(regular, _SIZE)
    if picture.levels is not None:
        canvas.drawString(x, y - 2.5 * _SIZE, picture.note)
        return
    for line, words in enumerate(simpleSplit(picture.note, regular, _SIZE, wide - 8)):
        canvas.drawString(x + 4, y + tall - 14 - 1.3 * _SIZE * line, words)

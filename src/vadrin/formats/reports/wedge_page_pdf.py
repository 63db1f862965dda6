"""A page for making a step wedge from one's own exposed film: where each frame goes, and what it
measured."""

from __future__ import annotations

from io import BytesIO

from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.lib.utils import simpleSplit
from reportlab.pdfgen.canvas import Canvas

from vadrin.formats.reports.pdf_typeface import register_fonts

_STEPS, _SIZE = 12, 10.0
_HOW = (
    "Photograph an even wall out of focus, a stop apart, from six stops under the meter to five "
    "over; keep one frame blank. Develop it as you usually do.",
    "Cut the frames apart and tape them by their edges into the windows below, the blank one "
    "first, then from thin to dense. Cut the windows out, so that light passes.",
    "Have each step measured once, by anyone who owns a densitometer, in the visual channel, and "
    "write what it read beneath. A scan beside a bought wedge does too.",
    "Type the figures at Read, Scan, as the wedge's densities. Keep the page flat, dry and out of "
    "the sun; have it measured again after a year.",
)


def wedge_page_pdf(width_mm: float = 24.0, height_mm: float = 14.0) -> bytes:
    """The page on A4, with windows of a size in millimetres."""
    regular, bold = register_fonts()
    buffer = BytesIO()
    canvas = Canvas(buffer, pagesize=A4)
    canvas.setTitle("a wedge of your own")
    margin, wide = 16 * mm, A4[0] - 32 * mm
    y = A4[1] - margin
    canvas.setFont(bold, _SIZE * 1.6)
    canvas.drawString(margin, y - _SIZE, "A step wedge of your own")
    y -= _SIZE * 3
    for place, words in enumerate(_HOW, start=1):
        for line in simpleSplit(f"{place}. {words}", regular, _SIZE, wide):
            canvas.setFont(regular, _SIZE)
            canvas.drawString(margin, y, line)
            y -= 1.4 * _SIZE
        y -= 0.4 * _SIZE
    columns = 4
    across = wide / columns
    for step in range(_STEPS):
        x = margin + (step % columns) * across
        top = y - 8 * mm - (step // columns) * (height_mm + 18) * mm
        canvas.setLineWidth(0.8)
        canvas.rect(x, top - height_mm * mm, width_mm * mm, height_mm * mm)
        canvas.setFont(bold, _SIZE)
        canvas.drawString(x, top + 1.5 * mm, "blank" if step == 0 else f"step {step}")
        canvas.setFont(regular, _SIZE)
        canvas.drawString(x, top - height_mm * mm - 6 * mm, "D")
        canvas.line(
            x + 5 * mm,
            top - height_mm * mm - 6.5 * mm,
            x + width_mm * mm,
            top - height_mm * mm - 6.5 * mm,
        )
    canvas.setFont(regular, _SIZE * 0.9)
    canvas.drawString(margin, margin, "Measured by                                   on")
    canvas.save()
    return buffer.getvalue()

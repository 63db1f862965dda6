"""A sheet for the dark in large print, to be read, learnt and left outside."""

from __future__ import annotations

from io import BytesIO

from reportlab.lib.pagesizes import A5
from reportlab.lib.units import mm
from reportlab.lib.utils import simpleSplit
from reportlab.pdfgen.canvas import Canvas

from vadrin.formats.reports.pdf_typeface import register_fonts

_SMALL, _LARGE = 11.0, 17.0


def lights_off_pdf(title: str, before: tuple[str, ...], dark: tuple[str, ...]) -> bytes:
    """The sheet on A5: small what is done in the light, large what is done in the dark."""
    regular, bold = register_fonts()
    buffer = BytesIO()
    canvas = Canvas(buffer, pagesize=A5)
    canvas.setTitle("lights off")
    margin, wide = 14 * mm, A5[0] - 28 * mm
    y = A5[1] - margin
    lines = [(title, bold, _SMALL + 2), *((w, regular, _SMALL) for w in before)]
    lines += [("Lights off", bold, _LARGE), *((w, regular, _LARGE) for w in dark)]
    for words, face, size in lines:
        for line in simpleSplit(words, face, size, wide):
            y -= 1.35 * size
            if y < margin:
                canvas.showPage()
                y = A5[1] - margin - size
            canvas.setFont(face, size)
            canvas.drawString(margin, y, line)
        y -= 0.5 * size
    canvas.save()
    return buffer.getvalue()

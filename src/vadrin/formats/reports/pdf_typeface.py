"""The program's typeface in a PDF."""

from __future__ import annotations

from functools import cache
from importlib.resources import files
from pathlib import Path

MM = 72 / 25.4
"""Points in a millimetre."""
REGULAR, BOLD = "Vadrin-400", "Vadrin-700"


@cache
def register_fonts() -> tuple[str, str]:
    """Names of the typeface, regular and bold, ready for a PDF."""
    from reportlab.pdfbase import pdfmetrics
    from reportlab.pdfbase.ttfonts import TTFont

    folder = Path(str(files("vadrin") / "fonts"))
    for name, weight in ((REGULAR, 400), (BOLD, 700)):
        pdfmetrics.registerFont(TTFont(name, folder / f"AtkinsonHyperlegibleNext-{weight}.ttf"))
    return REGULAR, BOLD

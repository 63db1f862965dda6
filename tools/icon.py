"""Draws the program's icon as PNG in every size a desktop asks for: ``python tools/icon.py``."""

from __future__ import annotations

from pathlib import Path

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QGuiApplication, QImage, QPainter
from PyQt6.QtSvg import QSvgRenderer

SIZES = (16, 24, 32, 48, 64, 128, 256, 512)
FOLDER = Path(__file__).parents[1] / "src" / "vadrin" / "icons"


def main() -> None:
    """Draw each size beside the drawing."""
    _application = QGuiApplication(["icon", "-platform", "offscreen"])
    drawing = QSvgRenderer(str(FOLDER / "vadrin.svg"))
    for size in SIZES:
        image = QImage(size, size, QImage.Format.Format_ARGB32)
        image.fill(Qt.GlobalColor.transparent)
        painter = QPainter(image)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        drawing.render(painter)
        painter.end()
        image.save(str(FOLDER / f"vadrin-{size}.png"))


if __name__ == "__main__":
    main()

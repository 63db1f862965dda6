"""The typeface and its sizes, at the text scale the person chose."""

from __future__ import annotations

from pathlib import Path

from PyQt6.QtGui import QFont, QFontDatabase

import vadrin
from vadrin.ui.theme.roles import Role

FAMILIES = ["Atkinson Hyperlegible Next", "Noto Sans"]
TYPE_SIZES = (12, 13, 15, 17, 30, 46)
"""Pixels at scale 1."""

_scale = 1.0


def load_fonts() -> None:
    """Register the fonts shipped with the program."""
    for path in sorted((Path(vadrin.__path__[0]) / "fonts").glob("*.ttf")):
        QFontDatabase.addApplicationFont(str(path))


def set_scale(scale: float) -> None:
    """Choose the text scale, 1 to 2."""
    global _scale
    _scale = min(2.0, max(1.0, scale))


def scale() -> float:
    """The text scale in force."""
    return _scale


def px(size: float) -> int:
    """Pixels of a length given at scale 1."""
    return round(size * _scale)


def role_font(role: Role, bold: bool = False) -> QFont:
    """The typeface as a role has it, or heavier, to stand out among its like."""
    return font(role.size, 700 if bold else role.weight)


def font(size: int, weight: int = 400) -> QFont:
    """The typeface at a size given at scale 1, with tabular figures."""
    face = QFont()
    face.setFamilies(FAMILIES)
    face.setPixelSize(px(size))
    face.setWeight(QFont.Weight(weight))
    face.setFeature(QFont.Tag("tnum"), 1)
    return face

"""Words drawn as the desktop's region writes numbers and days."""

from __future__ import annotations

from typing import Any

from PyQt6.QtCore import QLocale
from PyQt6.QtGui import QPainter

from vadrin.app.display.region import PLAIN, Region, local, region_of


def desktop_region() -> Region:
    """How this desktop writes them; points and ISO where it has no region set."""
    here = QLocale.system()
    if here.language() == QLocale.Language.C:
        return PLAIN
    american = here.measurementSystem() == QLocale.MeasurementSystem.ImperialUSSystem
    return region_of(here.decimalPoint(), here.dateFormat(QLocale.FormatType.ShortFormat), american)


def write(painter: QPainter, *place_and_words: Any) -> None:
    """Draw words as `QPainter.drawText` does, the words last, as they are shown here."""
    *place, words = place_and_words
    draw: Any = painter.drawText
    draw(*place, local(words))

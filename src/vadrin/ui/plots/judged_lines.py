"""What an eye told, drawn on characteristic curves: a line at the shadow point, in its range."""

from __future__ import annotations

import pyqtgraph as pg
from PyQt6.QtCore import Qt
from PyQt6.QtGui import QColor

from vadrin.app.curves.places_by_eye import PlaceByEye
from vadrin.app.display.region import local
from vadrin.ui.theme.look import Look
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import role_font

_VEIL = 40
"""How much of a range covers the paper below, of 255."""


def judged_items(places: tuple[PlaceByEye, ...], look: Look, top: float) -> list[object]:
    """The items of some judged places, for a plot as high as that; named from the top down."""
    made: list[object] = []
    for row, place in enumerate(places):
        veil = QColor(look.soft)
        veil.setAlpha(_VEIL)
        band = pg.LinearRegionItem(
            (place.low, place.high), movable=False, brush=veil, pen=pg.mkPen(None)
        )
        band.setZValue(-4)
        line = pg.InfiniteLine(
            place.log_h, pen=pg.mkPen(look.soft, width=1.5, style=Qt.PenStyle.DashLine)
        )
        line.setZValue(-3)
        name = pg.TextItem(local(f"{place.strip}: {place.words}"), color=look.soft, anchor=(0, 0))
        name.setFont(role_font(Role.CAPTION))
        name.setPos(place.low, top * (0.995 - 0.07 * row))
        made += [band, line, name]
    return made

"""A speed test's frames over the methods."""

from __future__ import annotations

from PyQt6.QtWidgets import QWidget

from vadrin.app.test_types.speed import speed_rows
from vadrin.ui.stations.finding.answer_views import with_film
from vadrin.ui.stations.station import ViewState


def view(scene: ViewState) -> QWidget:
    """The frames in the order of their EIs, over the methods."""
    return with_film(scene, speed_rows(scene.loaded) if scene.loaded is not None else (), "")

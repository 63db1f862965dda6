"""Pushes as film over their table."""

from __future__ import annotations

from PyQt6.QtWidgets import QWidget

from vadrin.app.test_types.push import over_developed_proof, push_rows
from vadrin.ui.stations.finding.answer_views import with_film
from vadrin.ui.stations.station import ViewState


def view(scene: ViewState) -> QWidget:
    """A row of film for each push, and what a longer development proves, over the tables."""
    loaded = scene.loaded
    rows = push_rows(loaded) if loaded is not None else ()
    return with_film(scene, rows, over_developed_proof(loaded) if loaded is not None else "")

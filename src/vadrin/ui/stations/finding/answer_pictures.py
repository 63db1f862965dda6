"""Under an answer's headline, what it makes of a scene."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtWidgets import QVBoxLayout, QWidget

from vadrin.app.document.workbench import Workbench
from vadrin.app.pictures.beside_pictures import shown_pictures
from vadrin.app.pictures.looking import Looking, paper_used
from vadrin.ui.jobs import Jobs
from vadrin.ui.pictures.picture_rows import PictureRows
from vadrin.ui.stations.station import ViewState
from vadrin.ui.theme.typeface import px, scale

_SMALL = 4
"""Points of a scene along each side that become one of the pictures beside the answer."""
_ROOMY_TYPE = 1.3
"""Text scale up to which an answer's pictures have room in one row."""
_FEW, _HIGH = 4, 250
"""Pictures under which they are no higher than so many pixels at scale 1: the answer counts."""


def add_pictures(
    view: QWidget,
    scene: ViewState,
    bench: Workbench,
    jobs: Jobs,
    looking: Looking,
    large: Callable[[], None],
) -> None:
    """Put an answer's pictures under its headline; nothing where it has none.

    Parameters
    ----------
    view : QWidget
        The answer, a column.
    scene : ViewState
    bench : Workbench
    jobs : Jobs
    looking : Looking
    large : callable
        Shows them large, when one was clicked.
    """
    column, state = view.layout(), scene.state
    if state is None or scene.analysis is None or not isinstance(column, QVBoxLayout):
        return
    pictures = shown_pictures(bench.notebook, state)
    if not pictures:
        return
    rows = PictureRows(jobs, "pictures of the answer")
    rows.wanted_large.connect(lambda _: large())
    column.insertWidget(1, rows)
    across = len(pictures) if scale() <= _ROOMY_TYPE else 2
    lines = tuple(pictures[n : n + across] for n in range(0, len(pictures), across))
    paper = paper_used(bench.notebook, state)
    rows.show_pictures(lines, looking.unmarked(), paper, scene.look, _SMALL)
    if len(pictures) < across or len(pictures) < _FEW:
        rows.fit(px(_HIGH))

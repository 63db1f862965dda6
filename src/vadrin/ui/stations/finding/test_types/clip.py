"""A clip beside a good one."""

from __future__ import annotations

from PyQt6.QtWidgets import QVBoxLayout, QWidget

from vadrin.app.process.clip_judging import clip_answer, clip_pieces
from vadrin.ui.plots.two_greys import TwoGreys
from vadrin.ui.stations.station import ViewState
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.labels import text


def view(scene: ViewState) -> QWidget:
    """A clip and a good one as two greys side by side, and what that says."""
    body = QWidget()
    column = QVBoxLayout(body)
    column.setContentsMargins(0, 0, px(6), 0)
    if scene.loaded is not None:
        greys = TwoGreys()
        greys.show_pieces(clip_pieces(scene.loaded), scene.look)
        answer = clip_answer(scene.loaded)
        column.addWidget(greys)
        column.addWidget(text(answer.says, Role.INDEX))
        column.addWidget(text(answer.words, Role.LEAD, wrap=True))
        column.addWidget(text(answer.act, Role.LEAD_STRONG, wrap=True))
    column.addStretch(1)
    return body

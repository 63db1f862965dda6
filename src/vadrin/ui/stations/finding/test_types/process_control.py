"""The control strips of a batch over their runs."""

from __future__ import annotations

from PyQt6.QtWidgets import QVBoxLayout, QWidget

from vadrin.app.descriptions import own_answer
from vadrin.app.process.control_strips import chart_lanes, chart_words, control_rows
from vadrin.ui.plots.control_chart import ControlChart
from vadrin.ui.stations.station import ViewState
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.labels import text


def view(scene: ViewState) -> QWidget:
    """The strips of a batch over their runs."""
    body = QWidget()
    column = QVBoxLayout(body)
    column.setContentsMargins(0, 0, px(6), 0)
    answer = own_answer(scene.state) if scene.state is not None else None
    if answer is not None and answer.says:
        column.addWidget(text(answer.says, Role.TIME, wrap=True))
    if scene.loaded is not None:
        column.addWidget(text(chart_words(scene.loaded), Role.LEAD, wrap=True))
        chart = ControlChart()
        chart.show_lanes(chart_lanes(scene.loaded), scene.look)
        column.addWidget(chart, 1)
        for row in control_rows(scene.loaded):
            tone = "trouble" if row.out else None
            column.addWidget(text(f"{row.name}: {row.standing}", Role.BODY, wrap=True, tone=tone))
    return body

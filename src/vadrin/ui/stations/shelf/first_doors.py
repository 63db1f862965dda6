"""What somebody sees first: a finished notebook, a practice film, or their own first roll."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtWidgets import QGridLayout, QSizePolicy, QWidget

from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.labels import text

Door = tuple[str, str, Callable[[], object]]
"""Words of its button, what lies behind it, and what opens it."""


class FirstDoors(QWidget):
    """Doors on an empty shelf; they go with the first test.

    Parameters
    ----------
    doors : tuple of Door
    """

    def __init__(self, doors: tuple[Door, ...]) -> None:
        super().__init__()
        grid = QGridLayout(self)
        grid.setContentsMargins(0, px(8), 0, 0)
        grid.setHorizontalSpacing(px(18))
        grid.setVerticalSpacing(px(10))
        for row, (words, behind, act) in enumerate(doors):
            grid.addWidget(button(words, act), row, 0)
            grid.addWidget(text(behind, Role.BODY, wrap=True), row, 1)
        grid.setColumnStretch(1, 1)
        self.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Maximum)

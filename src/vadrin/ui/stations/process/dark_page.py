"""What is done in the dark: how the strips are pulled, in words that can be learnt by heart."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from vadrin.app.document.workbench import Workbench
from vadrin.app.entry.stepping import chooser
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.process.lights_off import WAYS, lights_off, pull_way, set_pull_way, write_lights_off
from vadrin.ui.stations.station import ViewState
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.labels import rule, text
from vadrin.ui.widgets.sentence import sentence


class DarkPage(QWidget):
    """The way strips are pulled, what is done before, and each act in the dark.

    Parameters
    ----------
    bench : Workbench
    refuse : callable
        Says why something was not taken or not written.
    """

    def __init__(self, bench: Workbench, refuse: Callable[[str], None]) -> None:
        super().__init__()
        self.bench, self._refuse = bench, refuse
        self._loaded: LoadedTest | None = None
        self.way = WordField(
            "how the strips are pulled", self._choose, chooser(lambda: list(WAYS)), role=Role.LEAD
        )
        self.way.refused.connect(refuse)
        self._before = text("", Role.LEAD, wrap=True)
        self._dark = text("", Role.TIME, wrap=True)
        self.write = button("Save lights-off sheet as PDF", self.write_lights_off)
        row = QHBoxLayout()
        row.addWidget(self.write)
        row.addStretch(1)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(px(10))
        column.addWidget(sentence("The strips are", self.way, ".", role=Role.LEAD))
        column.addWidget(self._before)
        column.addWidget(rule())
        column.addWidget(self._dark)
        column.addLayout(row)
        column.addStretch(1)

    def show_state(self, scene: ViewState) -> None:
        """Show the sheet of a test."""
        loaded = scene.loaded
        if loaded is None:
            return
        self._loaded = loaded
        self.way.show_value(pull_way(loaded).value)
        made = lights_off(loaded)
        self._before.setText(" ".join(made.before) or "No strip waits to be developed.")
        self._dark.setText("\n".join(made.dark))
        self.write.setVisible(bool(made.dark))

    def _choose(self, words: str) -> None:
        loaded = self._loaded
        if loaded is not None:
            self.bench.edit_or_raise(lambda book: set_pull_way(book, loaded, words))

    def write_lights_off(self) -> None:
        """Write the sheet beside the notebook."""
        loaded, folder = self._loaded, self.bench.notebook.path.parent
        if loaded is None:
            return
        try:
            written = write_lights_off(folder, self.bench.notebook, loaded)
            self.bench.said.emit(f"Written: {written}")
        except OSError as error:
            self._refuse(f"{folder}: {(error.strerror or '').lower()}. Choose another folder.")

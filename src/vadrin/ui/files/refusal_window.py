"""What is shown where a notebook that was opened from the file manager cannot be."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from pathlib import Path

from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from vadrin.app.library import notebook_exchange
from vadrin.errors import NotebookError
from vadrin.ui.theme.roles import Role
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.labels import text


class RefusalWindow(QWidget):
    """Says why a notebook cannot be opened, with what can still be done.

    Parameters
    ----------
    path : Path
        Of the notebook.
    error : NotebookError
    opened : callable
        Called with the notebook to open instead.
    """

    def __init__(self, path: Path, error: NotebookError, opened: Callable[[Path], object]) -> None:
        super().__init__()
        self.setWindowTitle(f"{path.name} – Vadrin")
        self._path, self._opened = path, opened
        self.words = text(f"{error}", Role.ALARM, wrap=True)
        self.more = text("", wrap=True)
        acts = QHBoxLayout()
        for words, act in self._acts(error):
            acts.addWidget(button(words, act))
        acts.addStretch(1)
        column = QVBoxLayout(self)
        column.setContentsMargins(24, 24, 24, 24)
        for part in (self.words, self.more):
            column.addWidget(part)
        column.addStretch(1)
        column.addLayout(acts)
        self.resize(720, 240)

    def _acts(self, error: NotebookError) -> list[tuple[str, Callable[[], object]]]:
        acts: list[tuple[str, Callable[[], object]]] = []
        if error.damaged:
            backup = notebook_exchange.newest_backup(self._path)
            if backup is not None:
                acts.append(("Open a copy of the newest backup", partial(self._revive, backup)))
            acts.append(("Save what can be recovered as a copy", self._recover))
        return [*acts, ("Close", self.close)]

    def _revive(self, backup: Path) -> None:
        try:
            self._go_on(notebook_exchange.copy_of_backup(self._path, backup))
        except OSError as error:
            self.more.setText(f"The copy was not written: {error.strerror}.")

    def _recover(self) -> None:
        try:
            target, _ = notebook_exchange.recovered_copy(self._path)
        except (NotebookError, OSError) as error:
            self.more.setText(f"{error}.")
            return
        self._go_on(target)

    def _go_on(self, target: Path) -> None:
        try:
            self._opened(target)
        except NotebookError as error:
            self.more.setText(f"{error}")
            return
        self.close()

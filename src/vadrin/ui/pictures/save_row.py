"""Where pictures are saved to: a line with the file, and the button."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from vadrin.app.document.workbench import Workbench
from vadrin.errors import VadrinError
from vadrin.ui.jobs import Jobs
from vadrin.ui.kept import OfTest
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import role_font
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.labels import text
from vadrin.ui.widgets.line_field import Field


class SaveRow(QWidget):
    """Saves beside the work, and says what came of it.

    Parameters
    ----------
    bench : Workbench
    jobs : Jobs
    refuse : callable
        Says beside the row why nothing was saved.
    """

    file: OfTest[str] = OfTest(str)
    said: OfTest[str] = OfTest(str)

    def __init__(self, bench: Workbench, jobs: Jobs, refuse: Callable[[str], None]) -> None:
        super().__init__()
        self.bench, self._jobs, self._refuse = bench, jobs, refuse
        self._work: Callable[[Path], str] | None = None
        self.path = Field()
        self.path.setFont(role_font(Role.BODY))
        self.path.setAccessibleName("file to save the pictures to")
        self.path.textEdited.connect(self._name_file)
        self.path.returnPressed.connect(self.save)
        self._told = text("", Role.DONE, wrap=True)
        row = QHBoxLayout()
        row.addWidget(self.path, 1)
        row.addWidget(button("Save pictures", self.save))
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(self._told)
        column.addLayout(row)

    def offer(self, usual: str, work: Callable[[Path], str]) -> None:
        """Offer to save under a usual name; the work gives what was saved in a sentence."""
        self._work = work
        self.path.setText(self.file or str(self.bench.notebook.path.parent / usual))
        self._tell(self.said)

    def _name_file(self, words: str) -> None:
        self.file = words

    def save(self) -> None:
        """Save where the line says."""
        work = self._work
        if work is None or not self.isVisible():
            return
        path = Path(self.path.text().strip()).expanduser()
        self._refuse("")
        self._tell("Saving …")
        self._jobs.run("pictures to a file", lambda _: work(path), self._tell, self._not_saved)

    def _tell(self, words: str) -> None:
        self.said = words
        self._told.setText(words)
        self._told.setVisible(bool(words))

    def _not_saved(self, error: Exception) -> None:
        if not isinstance(error, OSError | VadrinError):
            raise error
        self._tell("")
        self._refuse(f"Not saved: {error}")

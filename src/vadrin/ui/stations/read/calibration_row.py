"""What tells a scan's values: a wedge beside the strip, one in another picture, or a bracket of
the bare light."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from pathlib import Path

from PyQt6.QtWidgets import QVBoxLayout, QWidget

from vadrin.app.document.workbench import Workbench
from vadrin.app.scans.picture_files import PICTURES_OR_RAW
from vadrin.app.scans.scan_calibration import bracket_of_pictures, bracket_typed, wedge_of_picture
from vadrin.app.scans.step_wedge import (
    StepWedge,
    keep_steps,
    steps_kept,
    wedge_typed,
    write_wedge_page,
)
from vadrin.errors import VadrinError
from vadrin.ui.jobs import Jobs
from vadrin.ui.kept import OfTest
from vadrin.ui.theme.roles import Role
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.labels import text
from vadrin.ui.widgets.sentence import sentence

_NONE = "none"


class CalibrationRow(QWidget):
    """A sentence for the wedge, and two other ways.

    Parameters
    ----------
    bench : Workbench
    refuse : callable
        Says why something was not taken.
    jobs : Jobs
        Opens pictures off the screen's thread.
    ask_file : callable
    """

    _bracket: OfTest[str] = OfTest(str)

    def __init__(
        self,
        bench: Workbench,
        refuse: Callable[[str], None],
        jobs: Jobs,
        ask_file: Callable[[str, str, Callable[[Path], object]], None],
    ) -> None:
        super().__init__()
        self.bench, self._refuse, self._jobs = bench, refuse, jobs
        self.wedge = WordField("densities of the wedge", self._type_wedge, role=Role.LEAD)
        self.bracket = WordField("times of the bracket", self._type_bracket, role=Role.LEAD)
        for field in (self.wedge, self.bracket):
            field.refused.connect(refuse)
        ask_wedge = partial(ask_file, "Open the wedge picture", PICTURES_OR_RAW, self.wedge_from)
        ask_light = partial(
            ask_file, "Open the bracket's first", PICTURES_OR_RAW, self.bracket_from
        )
        self.other = button("Open another wedge picture …", ask_wedge, link=True)
        self.page = button("Save a wedge template as PDF", self.print_page, link=True)
        self.light = button("Open first bracket picture …", ask_light, link=True)
        self._source = text("", Role.CAPTION, wrap=True)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(sentence("The wedge has", self.wedge, ".", role=Role.LEAD))
        column.addWidget(
            sentence(
                "Or pictures of the bare light at",
                self.bracket,
                ".",
                self.light,
                self.other,
                self.page,
                role=Role.LEAD,
            )
        )
        column.addWidget(self._source)
        self.light.hide()

    def show_known(self) -> None:
        """Show what the cupboard knows."""
        kept = steps_kept(self.bench.notebook)
        bracket = kept.source.startswith("a bracket")
        shown = " ".join(f"{s:.2f}" for s in kept.densities)
        self.wedge.show_value(shown if shown and not bracket else _NONE)
        self.bracket.show_value(self._bracket or _NONE)
        self.light.setVisible(bool(self._bracket))
        self.other.setVisible(bool(shown) and not bracket)
        self._source.setText(
            f"As seen in {kept.source}, with the same settings." if kept.source else ""
        )
        self._source.setVisible(bool(kept.source))

    def _type_wedge(self, words: str) -> None:
        plain = words.strip().lower() in ("", _NONE)
        self._keep(StepWedge() if plain else StepWedge(wedge_typed(words)))

    def _type_bracket(self, words: str) -> None:
        plain = words.strip().lower() in ("", _NONE)
        if not plain:
            bracket_typed(words)
        self._bracket = "" if plain else words.strip()
        self.light.setVisible(bool(self._bracket))

    def _keep(self, known: StepWedge) -> None:
        self.bench.edit_or_raise(lambda book: keep_steps(book, known))
        self.show_known()

    def print_page(self) -> None:
        """Write the page for a wedge of one's own beside the notebook."""
        try:
            written = write_wedge_page(self.bench.notebook.path.parent)
        except OSError as error:
            self._refuse(f"the page cannot be written there: {error.strerror}")
            return
        self.bench.said.emit(f"Written: {written}")

    def wedge_from(self, path: Path) -> None:
        """Take the wedge's values from a picture of it alone."""
        densities = steps_kept(self.bench.notebook).densities
        self._work(lambda: wedge_of_picture(path, densities))

    def bracket_from(self, path: Path) -> None:
        """Take values from pictures of the bare light, the longest time first."""
        times = bracket_typed(self._bracket)
        self._work(lambda: bracket_of_pictures(path, times))

    def _work(self, make: Callable[[], StepWedge]) -> None:
        self._refuse("")
        self._jobs.run("known steps", lambda _said: make(), self._keep, self._failed)

    def _failed(self, error: Exception) -> None:
        if not isinstance(error, VadrinError):
            raise error
        self._refuse(str(error))

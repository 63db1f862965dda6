"""Patches of a colour chart: what each measures or looks like on the selected strip."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QVBoxLayout, QWidget

from vadrin.app.read.patch_entry import keep_patch, patch_typed, patches_of
from vadrin.app.test_sheet import StripSheet
from vadrin.app.workbench import Workbench
from vadrin.ui.stations.station import Scene
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.labels import text
from vadrin.ui.widgets.sentence import sentence

_HOW = (
    "From a calibrated positive or the print, L* a* b* under D50, the same frame of every strip; "
    "or by eye, what the patch looks like. The normal strip is the reference. ↑ ↓ go along the "
    "film, and so to another strip."
)


class PatchPage(QWidget):
    """One line a patch, strip by strip.

    Parameters
    ----------
    bench : Workbench
    refuse : callable
        Says why something typed was not taken.
    """

    def __init__(self, bench: Workbench, refuse: Callable[[str], None]) -> None:
        super().__init__()
        self._bench = bench
        self._strip: StripSheet | None = None
        self.patch = WordField("a patch of this strip", self._take, role=Role.LEAD)
        self.patch.refused.connect(refuse)
        self._head = text("", Role.HEADING)
        self._known = text("", Role.BODY, wrap=True)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(px(8))
        column.addWidget(self._head)
        column.addWidget(text(_HOW, Role.NOTE, wrap=True))
        column.addWidget(
            sentence("Its patch", self.patch, "(red 52 60 40, or: red looks orange).",
                     role=Role.LEAD)
        )  # fmt: skip
        column.addWidget(self._known)
        column.addStretch(1)

    def show_scene(self, scene: Scene) -> None:
        """Show the patches of the strip whose frame is selected."""
        place = self._bench.selected()
        if scene.sheet is None or place is None:
            return
        self._strip = place[0]
        pushed = f", pushed {self._strip.strip.push:g}" if self._strip.strip.push else ""
        self._head.setText(f"Strip {self._strip.strip.label}{pushed}")
        known = patches_of(self._strip)
        lines = [f"{name}: {patch.shown}" for name, patch in known.items()]
        self._known.setText("\n".join(lines) or "No patch of this strip is known yet.")
        self.patch.show_value("—")

    def _take(self, words: str) -> None:
        strip = self._strip
        if strip is not None and words.strip() not in ("", "—"):
            patch = patch_typed(words)
            self._bench.edit(lambda book: keep_patch(book, strip, patch))

    def take_key(self, _event: QKeyEvent) -> bool:
        """Nothing is asked by a key here."""
        return False

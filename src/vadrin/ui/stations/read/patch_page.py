"""Patches of a colour chart: typed, named by eye, or read off a picture of the positive."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QVBoxLayout, QWidget

from vadrin.app.read.patch_entry import keep_patch, keep_patches, patch_typed, patches_of
from vadrin.app.read.patch_names import USUAL_NAMES, names_shown, names_typed
from vadrin.app.test_sheet import StripSheet
from vadrin.app.workbench import Workbench
from vadrin.errors import EntryError, VadrinError
from vadrin.ui.jobs import Jobs
from vadrin.ui.stations.read.known_steps import PICTURES
from vadrin.ui.stations.station import Scene
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.labels import text
from vadrin.ui.widgets.sentence import flowing, sentence

if TYPE_CHECKING:
    from vadrin.app.read.patch_picture import PatchPicture, Place
    from vadrin.ui.stations.read.pointed_picture import PointedPicture

_HOW = (
    "L* a* b* under D50, the same frame of every strip; or by eye, what the patch looks like. "
    "The first strip is the reference."
)
_SURE = (
    "Colours {}: how far strips lie apart is told well if all were scanned with the same settings, "
    "what each colour is only as well as the scanner is profiled."
)
_KEYS = (
    "Click, or move the cross with the arrows (Shift: ten pixels) and press Enter. Backspace takes "
    "the last one back, Esc puts the picture away."
)


class PatchPage(QWidget):
    """One line a patch, strip by strip, or a picture of the chart that is pointed at.

    Parameters
    ----------
    bench : Workbench
    refuse : callable
        Says why something was not taken.
    jobs : Jobs
        Opens pictures off the screen's thread.
    ask_file : callable
    into_view : callable
        Scrolls to a part of the page.
    """

    def __init__(
        self, bench: Workbench, refuse: Callable[[str], None], jobs: Jobs,
        ask_file: Callable[[str, str, Callable[[Path], object]], None],
        into_view: Callable[[QWidget], None],
    ) -> None:  # fmt: skip
        super().__init__()
        self._bench, self._refuse, self._jobs = bench, refuse, jobs
        self._into_view = into_view
        self._strip: StripSheet | None = None
        self._look: Look = DAY
        self._named = USUAL_NAMES
        self.picture: PatchPicture | None = None
        self.view: PointedPicture | None = None
        self.patch = WordField("a patch of this strip", self._take, role=Role.LEAD)
        self.names = WordField("names of the patches in order", self._type_names, role=Role.LEAD)
        for field in (self.patch, self.names):
            field.refused.connect(refuse)
        ask = partial(ask_file, "Open the chart's picture", PICTURES, self.open)
        self.choose = button("Read them off a picture …", ask)
        self.undo = button("Take the last back", self._back)
        self.take = button("Take these patches", self.keep, primary=True)
        self._head, self._asks = text("", Role.HEADING), text("", Role.LEAD_STRONG, wrap=True)
        self._known = text("", Role.BODY, wrap=True)
        self._keys = text("", Role.CAPTION, wrap=True)
        self._typed = sentence("Its patch", self.patch, "(red 52 60 40, or: red looks orange).",
                               role=Role.LEAD)  # fmt: skip
        self._lay_out()

    def _lay_out(self) -> None:
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(px(8))
        column.addWidget(self._head)
        column.addWidget(text(_HOW, Role.NOTE, wrap=True))
        column.addWidget(self._typed)
        column.addWidget(sentence("In a picture of the chart they are, in this order,", self.names,
                                  ".", role=Role.LEAD))  # fmt: skip
        column.addWidget(flowing(self.choose, self.undo, self.take, gap=8))
        column.addWidget(self._asks)
        self._place = QVBoxLayout()
        column.addLayout(self._place, 100)
        column.addWidget(self._keys)
        column.addWidget(self._known)
        column.addStretch(1)

    @property
    def pointing(self) -> bool:
        """Whether the arrows move the crosshair of a picture."""
        return self.picture is not None

    def show_scene(self, scene: Scene) -> None:
        """Show the patches of the strip whose frame is selected."""
        place = self._bench.selected()
        if scene.sheet is None or place is None:
            return
        if self._strip is not None and self._strip.strip.id != place[0].strip.id:
            # Each strip has a picture of its own.
            self.picture = None
        self._strip, self._look = place[0], scene.look
        self._show()

    def _show(self) -> None:
        strip, picture = self._strip, self.picture
        if strip is None:
            return
        pushed = f", pushed {strip.strip.push:g}" if strip.strip.push else ""
        self._head.setText(f"Strip {strip.strip.label}{pushed}")
        known = patches_of(strip)
        lines = [f"{name}: {patch.shown}" for name, patch in known.items()]
        self._known.setText("\n".join(lines) or "No patch of this strip is known yet.")
        self.patch.show_value("—")
        self.names.show_value(names_shown(self._named))
        self._asks.setText(picture.asks if picture else "")
        self._keys.setText(f"{_KEYS} {_SURE.format(picture.to_lab.words)}" if picture else "")
        self._show_picture()

    def _show_picture(self) -> None:
        picture = self.picture
        if picture is not None:
            from vadrin.ui.stations.read.pointed_picture import Mark, PointedPicture

            if self.view is None:
                self.view = PointedPicture("picture of the chart", self._pointed)
                self._place.addWidget(self.view, 1)
            marks = tuple(Mark(at, name) for at, name in picture.labels)
            self.view.show_picture(picture.picture, self._look, marks)
        pointed: tuple[QWidget | None, ...] = (
            self.undo, self.take, self._asks, self._keys, self.view)  # fmt: skip
        typed: tuple[QWidget | None, ...] = (self._known, self._typed)
        for parts, shown in ((pointed, picture is not None), (typed, picture is None)):
            for part in parts:
                if part is not None:
                    part.setVisible(shown)

    def _take(self, words: str) -> None:
        strip = self._strip
        if strip is not None and words.strip() not in ("", "—"):
            patch = patch_typed(words)
            self._bench.edit(lambda book: keep_patch(book, strip, patch))

    def _type_names(self, words: str) -> None:
        self._named = names_typed(words)
        if self.picture is not None:
            self.picture = replace(self.picture, names=self._named, places=())
        self._show()

    def open(self, path: Path) -> None:
        """Open a picture of the chart on the selected strip."""
        from vadrin.app.read.patch_picture import patch_picture

        self._refuse("")
        named = self._named
        self._jobs.run("patches", lambda _said: patch_picture(path, named), self._opened,
                       self._failed)  # fmt: skip

    def _opened(self, picture: PatchPicture) -> None:
        self.picture = picture
        self._show()
        self._into_view(self._asks)
        if self.view is not None:
            self._into_view(self.view)

    def _failed(self, error: Exception) -> None:
        if not isinstance(error, VadrinError):
            raise error
        self._refuse(str(error))

    def _pointed(self, at: Place) -> None:
        if self.picture is None:
            return
        try:
            self.picture = self.picture.placed(at)
            self._refuse("")
        except EntryError as error:
            self._refuse(str(error))
        self._show()

    def _back(self) -> None:
        if self.picture is not None:
            self.picture = self.picture.back()
            self._show()

    def _put_away(self) -> None:
        self.picture = None
        self._show()

    def keep(self) -> None:
        """Take what was pointed at as the patches of the strip."""
        strip, picture = self._strip, self.picture
        if strip is None or picture is None:
            return
        if not picture.places:
            self._refuse(f"nothing was pointed at yet: begin with {picture.names[0]}")
            return
        self._refuse("")
        self.picture = None
        found = picture.patches()
        self._bench.edit(lambda book: keep_patches(book, strip, found))

    def take_key(self, event: QKeyEvent) -> bool:
        """Arrows move the cross, Enter points, Backspace takes back, Esc puts the picture away."""
        if self.picture is None or self.view is None:
            return False
        acts = {Qt.Key.Key_Backspace: self._back, Qt.Key.Key_Escape: self._put_away}
        return self.view.take_key(event, acts)

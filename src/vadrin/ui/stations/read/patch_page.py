"""Patches of a colour chart: typed, named by eye, or read off a picture of the positive."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QVBoxLayout, QWidget

from vadrin.app.read.patch_entry import keep_patch, keep_patches, patch_typed, patches_of
from vadrin.app.read.patch_names import USUAL_NAMES, names_shown, names_typed
from vadrin.app.read.patch_picture import patch_picture
from vadrin.ui.kept import OfTest
from vadrin.ui.stations.read.pointed_picture import Mark
from vadrin.ui.stations.read.pointing_page import PointingPage
from vadrin.ui.stations.station import StationContext, ViewState
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.labels import text
from vadrin.ui.widgets.sentence import flowing, sentence

if TYPE_CHECKING:
    from vadrin.app.read.patch_picture import PatchPicture

_HOW = (
    "L* a* b* under D50, the same frame of every strip; or by eye, what the patch looks like. "
    "The first strip is the reference."
)
_SURE = (
    "Colours {}. Differences between strips are reliable if all were scanned with the same "
    "settings; absolute colours depend on the scanner profile."
)
_KEYS = (
    "Click, or move the cross with the arrows (Shift: ten pixels) and press Enter. Backspace takes "
    "the last one back, Esc puts the picture away."
)


class PatchPage(PointingPage["PatchPicture"]):
    """One line a patch, strip by strip, or a picture of the chart that is pointed at; for its
    parameters see `PointingPage`."""

    _named: OfTest[tuple[str, ...]] = OfTest(lambda: USUAL_NAMES)

    def __init__(
        self,
        given: StationContext,
        refuse: Callable[[str], None],
        into_view: Callable[[QWidget], None],
    ) -> None:
        super().__init__(
            given, refuse, into_view, "chart", "Read them off a picture …", "Take these patches"
        )
        self.patch = WordField("a patch of this strip", self._take, role=Role.LEAD)
        self.names = WordField("names of the patches in order", self._type_names, role=Role.LEAD)
        for field in (self.patch, self.names):
            field.refused.connect(refuse)
        self._known = text("", Role.BODY, wrap=True)
        self._typed = sentence(
            "Its patch", self.patch, "(red 52 60 40, or: red looks orange).", role=Role.LEAD
        )
        self._lay_out()

    def _lay_out(self) -> None:
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(px(8))
        column.addWidget(self._head)
        column.addWidget(text(_HOW, Role.NOTE, wrap=True))
        column.addWidget(self._typed)
        column.addWidget(
            sentence(
                "In a picture of the chart they are, in this order,",
                self.names,
                ".",
                role=Role.LEAD,
            )
        )
        column.addWidget(flowing(self.choose, self.undo, self.take, gap=8))
        column.addWidget(self._asks)
        column.addLayout(self._place, 100)
        column.addWidget(self._keys)
        column.addWidget(self._known)
        column.addStretch(1)

    def show_state(self, scene: ViewState) -> None:
        """Show the patches of the strip whose frame is selected."""
        place = self.bench.selected()
        if scene.loaded is None or place is None:
            return
        self._strip, self._look = place[0], scene.look
        self.show_steps()

    def show_steps(self) -> None:
        """Show the picture that is pointed at, or what is known of the strip."""
        strip, picture = self._strip, self.steps
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
        picture = self.steps
        if picture is not None:
            marks = tuple(Mark(at, name) for at, name in picture.labels)
            self.the_view().show_picture(picture.picture, self._look, marks)
        pointed: tuple[QWidget | None, ...] = (
            self.undo,
            self.take,
            self._asks,
            self._keys,
            self.view,
        )
        typed: tuple[QWidget | None, ...] = (self._known, self._typed)
        for parts, shown in ((pointed, picture is not None), (typed, picture is None)):
            for part in parts:
                if part is not None:
                    part.setVisible(shown)

    def _take(self, words: str) -> None:
        strip = self._strip
        if strip is not None and words.strip() not in ("", "—"):
            patch = patch_typed(words)
            self.bench.edit(lambda book: keep_patch(book, strip, patch))

    def _type_names(self, words: str) -> None:
        self._named = names_typed(words)
        if self.steps is not None:
            self.steps = replace(self.steps, names=self._named, places=())
        self.show_steps()

    def opened_from(self, path: Path) -> PatchPicture:
        """Read a picture of the chart on the selected strip."""
        return patch_picture(path, self._named)

    def _put_away(self) -> None:
        self.steps = None
        self.show_steps()

    def keep(self) -> None:
        """Take what was pointed at as the patches of the strip."""
        strip, picture = self._strip, self.steps
        if strip is None or picture is None:
            return
        if not picture.places:
            self._refuse(f"nothing was pointed at yet: begin with {picture.names[0]}")
            return
        self._refuse("")
        self.steps = None
        found = picture.patches()
        self.bench.edit(lambda book: keep_patches(book, strip, found))

    def acts(self) -> dict[Qt.Key, Callable[[], None]]:
        """Backspace takes back, Esc puts the picture away."""
        return {**super().acts(), Qt.Key.Key_Escape: self._put_away}

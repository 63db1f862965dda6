"""Expose: one frame at a time, in type that can be read from two metres."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QKeyEvent, QResizeEvent
from PyQt6.QtWidgets import QWidget

from vadrin.app.display.words import counted
from vadrin.app.expose.exposing import mark_frame
from vadrin.app.expose.film_words import film_words, second_light_words, shots_of
from vadrin.app.expose.meter_words import meter_first
from vadrin.app.expose.papers import write_labels, write_script
from vadrin.app.expose.script import shot_of, then_words
from vadrin.app.expose.wrong_setting import wrong_setting_words
from vadrin.app.loaded.frame_order import last_exposed, next_to_expose
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.core.frames import FrameState
from vadrin.errors import EditRefusedError
from vadrin.ui.actions import Action
from vadrin.ui.kept import OfTest
from vadrin.ui.stations.expose.prompts import ExposePrompts
from vadrin.ui.stations.station import Station, StationContext, ViewState
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.ask_line import Asked, AskLine
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.labels import text
from vadrin.ui.widgets.sentence import flowing

if TYPE_CHECKING:
    from vadrin.notebook.records import Frame
    from vadrin.notebook.store import Notebook

_SETTING_PX = 132


class ExposeStation(Station):
    """The next frame to take, what to set and what to do."""

    says_its_frame = True
    _asked: OfTest[Asked | None] = OfTest(lambda: None)

    def __init__(self, given: StationContext) -> None:
        super().__init__(given)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName("expose")
        self.cue = given.ears.cue
        self._counter = text("", Role.LARGE_NOTE)
        self._place = text("", Role.LARGE_NOTE)
        self.column.addWidget(flowing(self._counter, self._place, gap=40))
        self.column.addStretch(2)
        self._setting = text("", Role.DISPLAY)
        self._aperture = text("", Role.DISPLAY_LIGHT)
        self._offset = text("", Role.ASIDE)
        self.column.addWidget(self._setting)
        self.column.addWidget(flowing(self._aperture, self._offset, gap=28))
        self.column.addStretch(1)
        self._turn = text("", Role.HEADING, wrap=True)
        self._then = text("", Role.LARGE_NOTE, wrap=True)
        self.column.addWidget(self._turn)
        self.column.addWidget(self._then)
        self.column.addStretch(1)
        self.asked = AskLine(
            lambda: self._asked, partial(setattr, self, "_asked"), self.refuse, self.take_focus
        )
        self._asks = ExposePrompts(self.bench, self.asked, self.cue, self._next)
        self.column.addWidget(self.asked)
        self.column.addWidget(self.refusal)
        self.column.addStretch(1)
        takes = self._take_actions()
        self.offer(*takes, *self._paper_actions())
        self._keys = self._key_row(takes)
        self.column.addWidget(self._keys)

    def _take_actions(self) -> tuple[Action, ...]:
        asks = self._asks
        return (
            Action(
                "expose.taken",
                "taken: on to the next frame",
                partial(self._mark, FrameState.EXPOSED),
                ("Space",),
                label="taken",
            ),
            Action(
                "expose.back",
                "undo the last frame",
                self._take_back,
                ("Backspace",),
                label="take it back",
            ),
            Action(
                "expose.skipped",
                "skipped: wound on without an exposure",
                partial(self._mark, FrameState.SKIPPED),
                ("S",),
                label="skipped",
            ),
            Action(
                "expose.doubled",
                "double exposure",
                partial(self._mark, FrameState.DOUBLED),
                ("D",),
                label="doubled",
            ),
            Action(
                "expose.otherwise",
                "other setting: another shutter, aperture or offset",
                asks.ask_otherwise,
                ("O",),
                label="otherwise",
            ),
            Action("expose.meter", "meter reading now", asks.ask_meter, ("M",), label="meter"),
            Action(
                "expose.counter",
                "the frame counter shows another number",
                asks.ask_counter,
                ("C",),
                label="counter",
            ),
        )

    def _paper_actions(self) -> tuple[Action, ...]:
        return (
            Action("expose.note", "a note on this frame", self._asks.ask_note, ("N",)),
            Action("expose.ticks", "enter a ticked script", self._asks.ask_ticks, ("T",)),
            Action(
                "expose.script",
                "save the script as PDF, A4",
                partial(self._write, partial(write_script, pocket=False)),
                ("P",),
            ),
            Action(
                "expose.folded",
                "save the pocket script as PDF",
                partial(self._write, partial(write_script, pocket=True)),
                ("Shift+P",),
            ),
            Action(
                "expose.labels",
                "save the cassette labels as PDF",
                partial(self._write, write_labels),
                ("L",),
            ),
            Action("expose.sounds", "sounds on or off", self._sounds, ("V",)),
        )

    @staticmethod
    def _key_row(actions: tuple[Action, ...]) -> QWidget:
        row = []
        for action in actions:
            key = action.key_text if len(action.key_text) == 1 else action.key_text.lower()
            made = button(f"{key}  {action.label}", action.act)
            made.setFocusPolicy(Qt.FocusPolicy.NoFocus)
            row.append(made)
        return flowing(*row, gap=6)

    def show_state(self, scene: ViewState) -> None:
        """Show the next frame of the script, and say it to who does not see it."""
        loaded = scene.loaded
        if loaded is None:
            return
        self._show_next(loaded)
        setting = (self._counter, self._place, self._setting, self._aperture, self._offset)
        first = ", ".join(label.text() for label in setting if label.text())
        said = (first, self._turn.text(), self._then.text())
        words = ". ".join(part.rstrip(".") for part in said if part)
        if words != self.accessibleDescription():
            self.setAccessibleDescription(words)

    def _show_next(self, loaded: LoadedTest) -> None:
        self._size_setting()
        self.asked.show_asked()
        place = next_to_expose(loaded)
        self._keys.setVisible(loaded.on_film)
        if place is None:
            self._show_done(loaded)
            return
        strip, frame = place
        shots = shots_of(loaded)
        number = [f.frame.id for _, f in shots].index(frame.frame.id)
        before = shots[number - 1][1] if number else None
        rolls = len({s.strip.roll for s in loaded.strips})
        film = film_words(loaded)
        on = f", {film.piece} {strip.strip.roll}" if rolls > 1 else ""
        on_what = "Cell" if film.given_s else f"Strip {strip.strip.label}, frame"
        self._counter.setText(f"{on_what} {frame.number} of {len(strip.frames)}{on}")
        taken = sum(f.frame.state != FrameState.PLANNED for _, f in shots)
        self._place.setText(f"{frame.name} · {taken} taken, {len(shots) - taken} to go")
        shot = shot_of(frame, before, film, loaded.test.even_target)
        self._setting.setText(shot.setting)
        # What changes is bold; what stays is light.
        self._aperture.setFont(role_font(Role.DISPLAY_LIGHT, bold="aperture" in shot.changed))
        self._aperture.setText(shot.aperture)
        self._aperture.setVisible(bool(shot.aperture))
        self._offset.setText(shot.offset)
        self._turn.setText(shot.turn)
        after = shots[number + 1] if number + 1 < len(shots) else None
        said = then_words(after, strip, film)
        first = meter_first(self.bench.notebook, loaded, shots, number)
        self._then.setText(f"{first}{said}")

    def _size_setting(self) -> None:
        """As large as two metres ask for, and as the window lets it."""
        size = role_font(Role.DISPLAY)
        whole = self.window()
        room = max(whole.height() // 5 if whole else 0, px(Role.DISPLAY.size))
        size.setPixelSize(min(px(_SETTING_PX), room))
        self._setting.setFont(size)

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """Fit the setting to the window."""
        super().resizeEvent(event)
        self._size_setting()

    def _show_done(self, loaded: LoadedTest) -> None:
        if not loaded.on_film:
            self._show_nothing_to_do()
            return
        lost = sum(f.frame.state == FrameState.SKIPPED for _, f in loaded.frames())
        self._counter.setText(counted(len(loaded.frames()), "frame"))
        self._place.setText("")
        self._setting.setText("done")
        self._aperture.setText("")
        self._aperture.hide()
        self._offset.setText("")
        pushed = wrong_setting_words(self.bench.notebook, loaded)
        self._turn.setText(
            pushed or "All frames are taken. Rewind, label the film (L) and go to the darkroom."
        )
        skipped = f"{lost} skipped." if lost else "None skipped."
        self._then.setText(second_light_words(loaded) or skipped)

    def _show_nothing_to_do(self) -> None:
        for label in (self._counter, self._place, self._setting, self._aperture, self._offset):
            label.setText("")
        self._aperture.hide()
        self._turn.setText("Nothing is exposed for a data sheet.")
        self._then.setText("Type its times at Process, and trace its curves at Read.")

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """A number picks a way that was asked for; Esc leaves it so."""
        if event is None or event.isAutoRepeat():
            return
        if self.asked.isVisible() and event.key() == Qt.Key.Key_Escape:
            self.asked.close_line()
        elif not self.asked.isVisible() or not self.asked.pick(event.key() - Qt.Key.Key_0):
            super().keyPressEvent(event)

    def take_focus(self) -> None:
        """One key takes a frame."""
        self.setFocus()

    def _next(self) -> Frame | None:
        """Select the frame that is next; None where all are taken."""
        following = next_to_expose(self.bench.loaded) if self.bench.loaded else None
        if following is None:
            return None
        self.bench.select(following[1].frame.id)
        return following[1].frame

    def _mark(self, state: FrameState) -> None:
        loaded = self.bench.loaded
        place = next_to_expose(loaded) if loaded else None
        if place is None:
            return
        frame = place[1].frame
        try:
            self.bench.edit_or_raise(lambda notebook: mark_frame(notebook, frame, state))
        except EditRefusedError as refusal:
            self.refuse(str(refusal))
            return
        self.refuse("")
        following = self._next()
        turned = following is not None and following.aperture != frame.aperture
        self.cue.next(turned=turned)

    def _take_back(self) -> None:
        loaded = self.bench.loaded
        place = last_exposed(loaded) if loaded else None
        if place is None:
            return
        frame = place[1].frame
        if place[1].readings:
            self.bench.said.emit("That frame has a reading already; undo the reading first.")
            return
        self.bench.edit(lambda notebook: mark_frame(notebook, frame, FrameState.PLANNED))
        self.bench.select(frame.id)

    def _write(self, write: Callable[[Path, Notebook, LoadedTest], Path]) -> None:
        loaded, folder = self.bench.loaded, self.bench.notebook.path.parent
        if loaded is None:
            return
        try:
            self.bench.said.emit(f"Written: {write(folder, self.bench.notebook, loaded)}")
        except OSError as error:
            self.refuse(f"{folder}: {(error.strerror or '').lower()}. Choose another folder.")

    def _sounds(self) -> None:
        self.cue.toggle(self.bench.said.emit)

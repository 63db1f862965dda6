"""Expose: one frame at a time, in type that can be read from two metres."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QHBoxLayout, QWidget

from vadrin.app.expose.exposing import Place, last_exposed, mark_frame, next_to_expose
from vadrin.app.expose.roll_entry import afterwards
from vadrin.app.expose.script import shot_of, then_words
from vadrin.app.plan.compared_materials import on_twins
from vadrin.app.test_sheet import TestSheet
from vadrin.app.workbench import Workbench
from vadrin.core.exposure.arithmetic import shutter_name
from vadrin.notebook.records.all_records import DOUBLED, EXPOSED, PLANNED, SKIPPED
from vadrin.ui.stations.expose.papers import write_labels, write_script
from vadrin.ui.stations.expose.prompts import ExposePrompts
from vadrin.ui.stations.station import Scene, Station
from vadrin.ui.theme.typeface import font, px
from vadrin.ui.widgets.ask_line import AskLine
from vadrin.ui.widgets.parts import button, text
from vadrin.ui.widgets.sound_cues import Cue


class ExposeStation(Station):
    """The next frame to take, what to set and what to do."""

    keys = (
        ("Space", "taken: on to the next frame"),
        ("Backspace", "take the last one back"),
        ("S", "skipped: wound on without an exposure"),
        ("D", "doubled: two exposures on one piece of film"),
        ("O", "taken otherwise: another shutter, aperture or offset"),
        ("M", "what the meter says now"),
        ("C", "the camera's counter says something else"),
        ("N", "a note on this frame"),
        ("T", "enter a ticked sheet"),
        ("P, Shift+P", "the script on paper: A4, or folded for the pocket"),
        ("L", "labels for the cassettes"),
        ("V", "sounds on or off"),
    )

    def __init__(self, bench: Workbench) -> None:
        super().__init__(bench)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName("expose")
        self._cue = Cue()
        top = QHBoxLayout()
        self._counter = text("", 17, tone="soft")
        self._place = text("", 17, tone="soft")
        top.addWidget(self._counter)
        top.addStretch(1)
        top.addWidget(self._place)
        self.column.addLayout(top)
        self.column.addStretch(2)
        self._setting = text("", 46, 700)
        self._aperture = text("", 46, 500)
        self._offset = text("", 30, tone="soft")
        middle = QHBoxLayout()
        middle.setSpacing(px(28))
        middle.addWidget(self._aperture)
        middle.addWidget(self._offset)
        middle.addStretch(1)
        self.column.addWidget(self._setting)
        self.column.addLayout(middle)
        self.column.addStretch(1)
        self._turn = text("", 17, 700, wrap=True)
        self._then = text("", 17, tone="soft", wrap=True)
        self.column.addWidget(self._turn)
        self.column.addWidget(self._then)
        self.column.addStretch(1)
        self.asked = AskLine(self.refuse, self.take_focus)
        self._asks = ExposePrompts(bench, self.asked, self._cue, self._next)
        self.column.addWidget(self.asked)
        self.column.addWidget(self.refusal)
        self.column.addStretch(1)
        self.column.addWidget(self._key_row())

    def _key_row(self) -> QWidget:
        row = QWidget()
        line = QHBoxLayout(row)
        line.setContentsMargins(0, 0, 0, 0)
        acts = (
            ("space  taken", lambda: self._mark(EXPOSED)),
            ("backspace  take it back", self._take_back),
            ("S  skipped", lambda: self._mark(SKIPPED)),
            ("D  doubled", lambda: self._mark(DOUBLED)),
            ("O  otherwise", self._asks.ask_otherwise),
            ("M  meter", self._asks.ask_meter),
            ("C  counter", self._asks.ask_counter),
        )
        for words, act in acts:
            made = button(words, act)
            made.setFocusPolicy(Qt.FocusPolicy.NoFocus)
            line.addWidget(made)
        line.addStretch(1)
        return row

    def show_scene(self, scene: Scene) -> None:
        """Show the next frame of the script."""
        sheet = scene.sheet
        if sheet is None:
            return
        size = font(46, 700)
        size.setPixelSize(px(132))
        self._setting.setFont(size)
        place = next_to_expose(sheet)
        if place is None:
            self._show_done(sheet)
            return
        strip, frame = place
        shots = sheet.shots()
        number = [f.frame.id for _, f in shots].index(frame.frame.id)
        before = shots[number - 1][1] if number else None
        rolls = len({s.strip.roll for s in sheet.strips})
        on = f", roll {strip.strip.roll}" if rolls > 1 else ""
        self._counter.setText(f"Frame {number + 1} of {len(shots)}{on}")
        position = list(strip.frames).index(frame) + 1
        self._place.setText(f"strip {strip.strip.label}, frame {position} of {len(strip.frames)}")
        shot = shot_of(frame, before)
        self._setting.setText(shot.setting)
        # What changes is bold; what stays is light.
        self._aperture.setFont(font(46, 700 if "aperture" in shot.changed else 400))
        self._aperture.setText(shot.aperture)
        self._aperture.setVisible(bool(shot.aperture))
        self._offset.setText(shot.offset)
        self._turn.setText(shot.turn)
        after = shots[number + 1] if number + 1 < len(shots) else None
        said = then_words(after, strip)
        self._then.setText(f"{_meter_first(sheet, shots, number)}{said}")

    def _show_done(self, sheet: TestSheet) -> None:
        lost = sum(f.frame.state == SKIPPED for _, f in sheet.frames())
        self._counter.setText(f"{len(sheet.frames())} frames")
        self._place.setText("")
        self._setting.setText("done")
        self._aperture.setText("")
        self._aperture.hide()
        self._offset.setText("")
        pushed = afterwards(self.bench.notebook, sheet)
        self._turn.setText(
            pushed or "All frames are taken. Rewind, label the film (L) and go to the darkroom."
        )
        self._then.setText(f"{lost} skipped." if lost else "None skipped.")

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """One key, one act."""
        if event is None or event.isAutoRepeat():
            return
        key = event.key()
        if key == Qt.Key.Key_Escape and self.asked.isVisible():
            self.asked.close_line()
            return
        if self.asked.isVisible() and self.asked.pick(key - Qt.Key.Key_0):
            return
        paper = event.modifiers() & Qt.KeyboardModifier.ShiftModifier
        acts: dict[int, Callable[[], object]] = {
            Qt.Key.Key_Space: lambda: self._mark(EXPOSED),
            Qt.Key.Key_Backspace: self._take_back,
            Qt.Key.Key_S: lambda: self._mark(SKIPPED),
            Qt.Key.Key_D: lambda: self._mark(DOUBLED),
            Qt.Key.Key_O: self._asks.ask_otherwise,
            Qt.Key.Key_M: self._asks.ask_meter,
            Qt.Key.Key_C: self._asks.ask_counter,
            Qt.Key.Key_N: self._asks.ask_note,
            Qt.Key.Key_T: self._asks.ask_ticks,
            Qt.Key.Key_P: lambda: self._write(lambda f, s: write_script(f, s, bool(paper))),
            Qt.Key.Key_L: lambda: self._write(write_labels),
            Qt.Key.Key_V: self._sounds,
        }
        if key in acts:
            acts[key]()
        else:
            super().keyPressEvent(event)

    def take_focus(self) -> None:
        """Show on the film which frame is next."""
        self.setFocus()
        place = next_to_expose(self.bench.sheet) if self.bench.sheet else None
        if place is not None:
            self.bench.select(place[1].frame.id)

    def _next(self) -> None:
        following = next_to_expose(self.bench.sheet) if self.bench.sheet else None
        if following:
            self.bench.select(following[1].frame.id)

    def _mark(self, state: str) -> None:
        sheet = self.bench.sheet
        place = next_to_expose(sheet) if sheet else None
        if place is None:
            return
        frame, aperture = place[1].frame, self._aperture.text()
        self.bench.edit(lambda notebook: mark_frame(notebook, frame, state))
        self._next()
        self._cue.next(turned=self._aperture.text() != aperture)

    def _take_back(self) -> None:
        sheet = self.bench.sheet
        place = last_exposed(sheet) if sheet else None
        if place is None:
            return
        frame = place[1].frame
        if place[1].readings:
            self.bench.said.emit("That frame has a reading already; undo the reading first.")
            return
        self.bench.edit(lambda notebook: mark_frame(notebook, frame, PLANNED))
        self.bench.select(frame.id)

    def _write(self, write: Callable[[Path, TestSheet], Path]) -> None:
        sheet, folder = self.bench.sheet, self.bench.notebook.path.parent
        if sheet is None:
            return
        try:
            self.bench.said.emit(f"Written: {write(folder, sheet)}")
        except OSError as error:
            self.refuse(f"{folder}: {(error.strerror or '').lower()}. Choose another folder.")

    def _sounds(self) -> None:
        self.bench.said.emit(self._cue.toggle())


def _meter_first(sheet: TestSheet, shots: list[Place], number: int) -> str:
    """The meter is asked before the first frame, and again when a new roll begins."""
    t, n = shutter_name(sheet.test.metered_seconds), f"f/{sheet.test.aperture:g}"
    if number == 0:
        return f"First meter the target: the plan counts on {t} at {n} (M). "
    begun = {s.strip.roll for s, _ in shots[:number]}
    if on_twins(sheet.test):
        return ""
    if shots[number][0].strip.roll not in begun:
        return f"A new roll: meter again, the plan counts on {t} at {n} (M). "
    return ""

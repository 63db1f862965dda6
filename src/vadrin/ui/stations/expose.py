"""Expose: one frame at a time, in type that can be read from two metres."""

from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QHBoxLayout, QWidget

from vadrin.app.darkroom import last_exposed, mark_frame, next_to_expose
from vadrin.app.sheet import FrameSheet, StripSheet, TestSheet
from vadrin.app.workbench import Workbench
from vadrin.core.exposure import shutter_for, shutter_name, stops_text
from vadrin.notebook.records import DOUBLED, EXPOSED, PLANNED, SKIPPED
from vadrin.ui.parts import button, text
from vadrin.ui.stations.station import Scene, Station
from vadrin.ui.type import font, px


def setting_of(sheet: TestSheet, frame: FrameSheet) -> str:
    """The shutter mark for a frame; the cap for a blank."""
    if frame.frame.blank or frame.frame.stops is None:
        return "cap on"
    return shutter_name(shutter_for(sheet.test.metered_seconds, frame.frame.stops))


def _offset_words(stops: float) -> str:
    if stops == 0:
        return "as the meter says"
    size = stops_text(abs(stops))
    unit = "stop" if abs(stops) <= 1 else "stops"
    return f"{size} {unit} {'over' if stops > 0 else 'under'} the meter"


def _turn_words(sheet: TestSheet, frame: FrameSheet, before: FrameSheet | None) -> str:
    now = setting_of(sheet, frame)
    if frame.frame.blank:
        return "Put the cap on and wind on: this frame stays blank."
    if before is None or before.frame.blank or before.frame.stops is None:
        return f"Cap off, focus at infinity, set {now}."
    if setting_of(sheet, before) == now:
        return "Change nothing."
    return f"Turn only the shutter, from {setting_of(sheet, before)} to {now}."


class ExposeStation(Station):
    """The next frame to take, what to set and what to do."""

    keys = (
        ("Space", "taken: on to the next frame"),
        ("Backspace", "take the last one back"),
        ("S", "skipped: the frame was lost"),
        ("D", "doubled: exposed twice"),
    )

    def __init__(self, bench: Workbench) -> None:
        super().__init__(bench)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName("expose")
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
        self._then = text("", 17, tone="soft")
        self.column.addWidget(self._turn)
        self.column.addWidget(self._then)
        self.column.addStretch(2)
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
        frames = sheet.frames()
        number = [f.frame.id for _, f in frames].index(frame.frame.id)
        before = frames[number - 1][1] if number else None
        self._counter.setText(f"Frame {number + 1} of {len(frames)}")
        position = list(strip.frames).index(frame) + 1
        self._place.setText(f"strip {strip.strip.label}, frame {position} of {len(strip.frames)}")
        self._setting.setText(setting_of(sheet, frame))
        blank = frame.frame.blank
        self._aperture.setText("" if blank else f"f/{sheet.test.aperture:g}")
        stops = frame.frame.stops
        self._offset.setText("blank frame" if blank or stops is None else _offset_words(stops))
        self._turn.setText(_turn_words(sheet, frame, before))
        after = frames[number + 1] if number + 1 < len(frames) else None
        self._then.setText(self._then_words(sheet, strip, after))

    @staticmethod
    def _then_words(sheet: TestSheet, strip: StripSheet,
                    after: tuple[StripSheet, FrameSheet] | None) -> str:  # fmt: skip
        if after is None:
            return "This is the last frame."
        words = f"Then {setting_of(sheet, after[1])}"
        return (
            f"{words}, on strip {after[0].strip.label}." if after[0] is not strip else words + "."
        )

    def _show_done(self, sheet: TestSheet) -> None:
        spoilt = sum(f.frame.state in (SKIPPED, DOUBLED) for _, f in sheet.frames())
        self._counter.setText(f"{len(sheet.frames())} frames")
        self._place.setText("")
        self._setting.setText("done")
        self._aperture.setText("")
        self._offset.setText("")
        self._turn.setText("All frames are taken. Rewind, label the film and go to the darkroom.")
        self._then.setText(f"{spoilt} spoilt." if spoilt else "None spoilt.")

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Tick, take back, skip, double."""
        if event is None:
            return
        acts = {
            Qt.Key.Key_Space: lambda: self._mark(EXPOSED),
            Qt.Key.Key_Backspace: self._take_back,
            Qt.Key.Key_S: lambda: self._mark(SKIPPED),
            Qt.Key.Key_D: lambda: self._mark(DOUBLED),
        }
        if event.key() in acts and not event.isAutoRepeat():
            acts[Qt.Key(event.key())]()
        else:
            super().keyPressEvent(event)

    def take_focus(self) -> None:
        """Show on the film which frame is next."""
        self.setFocus()
        place = next_to_expose(self.bench.sheet) if self.bench.sheet else None
        if place is not None:
            self.bench.select(place[1].frame.id)

    def _mark(self, state: str) -> None:
        sheet = self.bench.sheet
        place = next_to_expose(sheet) if sheet else None
        if place is None:
            return
        frame = place[1].frame
        self.bench.edit(lambda notebook: mark_frame(notebook, frame, state))
        following = next_to_expose(self.bench.sheet) if self.bench.sheet else None
        self.bench.select(following[1].frame.id if following else frame.id)

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

"""Questions while the film is in the camera: the light, the counter, what went otherwise."""

from __future__ import annotations

from collections.abc import Callable

from vadrin.app.display.marks import shutter_name, stops_counted
from vadrin.app.display.words import counted
from vadrin.app.document.workbench import Workbench
from vadrin.app.entry.exposures import otherwise_typed
from vadrin.app.entry.numbers import count_typed
from vadrin.app.entry.times import seconds_typed
from vadrin.app.expose.exposing import (
    DRIFT_TOLD,
    note_light,
    rescale_rest,
    spoil_since_last_reading,
    take_otherwise,
    write_note,
)
from vadrin.app.expose.frame_counter import CounterRemedy, counter_remedies, frames_wound
from vadrin.app.expose.ticked_script import SCRIPT_HINT, tick_script
from vadrin.app.loaded.frame_order import next_to_expose
from vadrin.ui.widgets.ask_line import Asked, AskLine
from vadrin.ui.widgets.sound_cues import Cue

MOST_FRAMES = 999


class ExposePrompts:
    """Asks on a station's line, and hands the answers on as edits.

    Parameters
    ----------
    bench : Workbench
    asked : AskLine
    cue : Cue
    go_on : callable
        Shows the frame that is next, after an answer took one.
    """

    def __init__(
        self, bench: Workbench, asked: AskLine, cue: Cue, go_on: Callable[[], object]
    ) -> None:
        self.bench, self.asked, self._cue, self._go_on = bench, asked, cue, go_on
        asked.acts = {
            "otherwise": self._otherwise,
            "meter": self._meter,
            "rescale": self._rescale,
            "spoil": self._spoil,
            "count": self._count,
            "remedy": self._remedy,
            "note": self._take_note,
            "tick": self._tick,
        }

    def ask_otherwise(self) -> None:
        """What was set instead of what the script asked for."""
        words = "What did you set instead? A shutter (1/60), an aperture (f/8) or stops (+2):"
        self.asked.ask(Asked(words, takes="otherwise"))

    def _otherwise(self, words: str) -> None:
        place = next_to_expose(self.bench.loaded) if self.bench.loaded else None
        if place is not None:
            frame, done = place[1].frame, otherwise_typed(words)
            self.bench.edit_or_raise(lambda book: take_otherwise(book, frame, **done))
            self._go_on()

    def ask_meter(self) -> None:
        """What the meter says now."""
        loaded = self.bench.loaded
        if loaded is not None:
            begin = shutter_name(loaded.test.metered_seconds)
            words = f"At f/{loaded.test.aperture:g} the meter says now:"
            self.asked.ask(Asked(words, begin, "meter"))

    def _meter(self, words: str) -> None:
        loaded = self.bench.loaded
        if loaded is None:
            return
        seconds = seconds_typed(words)
        moved = self.bench.edit_or_raise(lambda book: note_light(book, loaded, seconds)) or 0.0
        if abs(moved) <= DRIFT_TOLD + 1e-6:
            self.bench.said.emit(f"The light holds to {stops_counted(round(moved * 6) / 6)}.")
            return
        self._cue.error()
        way = "brighter" if moved > 0 else "dimmer"
        self.asked.ask(
            Asked(
                f"The light is {stops_counted(round(abs(moved) * 3) / 3)} {way} than planned.",
                ways=(
                    ("recalculate the remaining frames", "rescale", ()),
                    ("mark frames since the last reading as spoilt", "spoil", ()),
                ),
            )
        )

    def _rescale(self) -> None:
        loaded = self.bench.loaded
        if loaded is not None:
            count = self.bench.edit(lambda book: rescale_rest(book, loaded))
            self.bench.said.emit(f"Set for the light as it is: {counted(count or 0, 'frame')}.")

    def _spoil(self) -> None:
        loaded = self.bench.loaded
        if loaded is not None:
            count = self.bench.edit(lambda book: spoil_since_last_reading(book, loaded))
            self.bench.said.emit(f"{counted(count or 0, 'frame')} marked as spoilt by the light.")

    def ask_counter(self) -> None:
        """What the camera's counter says."""
        if self.bench.loaded is not None:
            ours = frames_wound(self.bench.loaded)
            are = "frame is" if ours == 1 else "frames are"
            words = f"The script says {ours} {are} done on this roll. The camera says:"
            self.asked.ask(Asked(words, str(ours), "count"))

    def _count(self, words: str) -> None:
        if self.bench.loaded is None:
            return
        found = counter_remedies(
            self.bench.loaded, count_typed(words, 0, MOST_FRAMES, "a counter shows 0 to 999 frames")
        )
        if not found:
            self.bench.said.emit("Camera and script agree.")
            return
        ways = tuple((remedy.words, "remedy", (remedy,)) for remedy in found)
        self.asked.ask(Asked("Possible causes, most likely first:", ways=ways))

    def _remedy(self, remedy: CounterRemedy) -> None:
        self.bench.edit(remedy.act)
        self._go_on()
        self.bench.said.emit(f"Corrected: {remedy.words}.")

    def ask_note(self) -> None:
        """Words about the frame that is next."""
        self.asked.ask(Asked("A note on this frame:", takes="note"))

    def _take_note(self, words: str) -> None:
        loaded, place = self.bench.loaded, None
        if loaded is not None:
            place = next_to_expose(loaded)
            test_id, frame_id = loaded.test.id, place[1].frame.id if place else None
            self.bench.edit(lambda book: write_note(book, test_id, frame_id, words))

    def ask_ticks(self) -> None:
        """What was ticked on paper."""
        self.asked.ask(Asked(f"Ticked on paper: {SCRIPT_HINT}", "all", "tick"))

    def _tick(self, words: str) -> None:
        loaded = self.bench.loaded
        if loaded is not None:
            count = self.bench.edit_or_raise(lambda book: tick_script(book, loaded, words))
            self.bench.said.emit(f"{counted(count or 0, 'frame')} entered from the script.")

"""A densitometer on a line: one press, one frame, on to the next."""

from __future__ import annotations

import json
from collections.abc import Mapping
from dataclasses import replace

from vadrin.app.document.workbench import Workbench
from vadrin.app.instruments import DENSITOMETER
from vadrin.app.instruments.film_under import unsteadiness
from vadrin.app.instruments.instrument_line import InstrumentLine, instrument_on_a_line
from vadrin.app.instruments.instrument_type import InstrumentType
from vadrin.app.loaded.frame_order import next_to_read
from vadrin.app.loaded.loaded_test import LoadedFrame, LoadedTest
from vadrin.app.read.entering_readings import add_reading
from vadrin.core.channels import LAYERS, Channel
from vadrin.core.wording import counted
from vadrin.errors import EntryError
from vadrin.instruments.simulated import DENSITOMETER_LINE, SimulatedDensitometer
from vadrin.notebook.records import Instrument, Reading
from vadrin.notebook.store import Notebook

ZERO, PATCH = "zero", "patch"
"""What the next reading is of, where it is of no frame."""
_HIGHEST = 6.0
_ZERO_EVERY = 20
_PATCH = 1.52
"""Density of the stand-in's reference patch."""
_FALL = 0.03
"""A zero that reads so far off is said."""


class DensitometerLine:
    """A densitometer that is listened to, with the zero it was set on.

    Parameters
    ----------
    kept : Instrument
        The one in the cupboard.
    noise, drift : float
        Of the stand-in: standard deviation of a reading, and of its zero with each.

    Raises
    ------
    EntryError
        If its port or its line does not do.
    """

    def __init__(self, kept: Instrument, noise: float = 0.006, drift: float = 0.0) -> None:
        self._line = InstrumentLine(
            kept, DENSITOMETER_LINE, lambda rng: SimulatedDensitometer(rng, noise, drift)
        )
        self.name = kept.name
        self.zero: float | None = None
        """What it said of no film last; None before it was asked."""
        self.awaited = ""
        """`ZERO` or `PATCH`, where the next reading is of that; empty for a frame."""
        self._kept = kept
        self._taken: list[int] = []
        self._drift = 0.0
        self._layers_of: tuple[int, set[Channel]] = 0, set()

    @property
    def simulated(self) -> bool:
        """Whether it is the stand-in, whose button is on the screen."""
        return self._line.stand_in is not None

    def press(self, densities: Mapping[Channel, float]) -> None:
        """Press the stand-in's button on film of densities, by their channels."""
        if self._line.stand_in is not None:
            self._line.stand_in.press(densities)

    def press_on(self, what: str) -> None:
        """Press the stand-in's button with no film under it, or on its reference patch."""
        if self._line.stand_in is not None:
            self._line.stand_in.press({Channel.VISUAL: _PATCH if what == PATCH else 0.0})

    def news(self) -> list[tuple[float, Channel]]:
        """The densities that came since the last time, the zero's drift taken out."""
        off = self.zero or 0.0
        said = [(r.value - off, r.channel or Channel.VISUAL) for r in self._line.take_all()]
        return [(density, channel) for density, channel in said if -0.1 <= density <= _HIGHEST]

    def hear(self, bench: Workbench) -> bool:
        """Take what came to the frames, one each."""
        news = self.news()
        for density, channel in news:
            self._take(bench, density, channel)
        return bool(news)

    def _take(self, bench: Workbench, density: float, channel: Channel) -> None:
        """A frame each, and on to the next; or the zero, or the patch, where that was asked for."""
        asked, self.awaited = self.awaited, ""
        if asked == ZERO:
            bench.said.emit(self.set_zero(density))
            return
        if asked == PATCH:
            bench.said.emit(bench.edit(lambda book: self.check_patch(book, density)) or "")
            return
        place = bench.selected()
        if place is None or not place[1].readable:
            return
        frame, read = self._frame_of(bench, place[1], channel), max(density, 0.0)
        made = bench.edit(lambda book: add_reading(book, frame, read, channel))
        due = self.note(made.id) if made is not None else ""
        if due:
            bench.said.emit(due)
        self._layers_of = frame.frame.id, {*self._layers_so_far(frame), channel}
        if channel in LAYERS and not self._layers_of[1].issuperset(LAYERS):
            # Of colour film a press tells three numbers, a line each: the others are still to come.
            return
        self._layers_of = 0, set()
        self._go_on(bench, frame)

    def _layers_so_far(self, frame: LoadedFrame) -> set[Channel]:
        """Layers of a frame that came in this press."""
        told, layers = self._layers_of
        return layers if told == frame.frame.id else set()

    def _frame_of(self, bench: Workbench, frame: LoadedFrame, channel: Channel) -> LoadedFrame:
        """The frame a line is of: of one layer alone the next line is that of the next frame."""
        so_far = self._layers_so_far(frame)
        if channel in so_far:
            return self._go_on(bench, frame) or frame
        return frame

    def _go_on(self, bench: Workbench, frame: LoadedFrame) -> LoadedFrame | None:
        """Go on to the next frame to read; None where there is none."""
        loaded = bench.loaded
        following = next_to_read(loaded, frame.frame.id) if loaded is not None else None
        if following is not None:
            bench.select(following.frame.id)
        return following

    def set_zero(self, density: float) -> str:
        """Take what it says of no film as its zero; says how far that has drifted."""
        # What news() gave had the old zero taken out already.
        first = self.zero is None
        self.zero = (self.zero or 0.0) + density
        self._drift = 0.0 if first else density
        if first or abs(density) < _FALL:
            self._taken = []
            return f"{self.name} stands at {self.zero:+.2f} without film. This is subtracted."
        return (
            f"{self.name} has drifted by {abs(density):.2f} since zeroing. New "
            "readings are corrected. Correct earlier readings, or read them again."
        )

    def note(self, reading_id: int) -> str:
        """Count a reading; says when the zero should be looked at again."""
        self._taken.append(reading_id)
        if self.zero is None and len(self._taken) == 1:
            return f"{self.name} was not zeroed yet: zero it on nothing first."
        if len(self._taken) % _ZERO_EVERY:
            return ""
        return f"{counted(len(self._taken), 'reading')} since its zero: zero it again."

    @property
    def drifted(self) -> int:
        """How many readings a drift can be taken out of."""
        return len(self._taken) if abs(self._drift) >= _FALL else 0

    def take_out_drift(self, notebook: Notebook) -> str:
        """Take the drift out of what was read since the zero, the more the later it was read."""
        taken, drift = self._taken, self._drift
        with notebook.change("the densitometer's drift"):
            for place, reading_id in enumerate(taken, start=1):
                reading = notebook.get(Reading, reading_id)
                if reading is not None:
                    mended = max(0.0, reading.density - drift * place / len(taken))
                    notebook.put(replace(reading, density=round(mended, 4)))
        self._taken, self._drift = [], 0.0
        return f"Taken out of {counted(len(taken), 'reading')}, the more the later it was read."

    def check_patch(self, notebook: Notebook, density: float) -> str:
        """What it reads of a patch that is always the same, beside the first time."""
        known = _patch_of(self._kept)
        if known is None:
            with notebook.change("the reference patch"):
                words = json.dumps({"patch": round(density, 3)})
                self._kept = notebook.put(replace(self._kept, calibration=words))
            return f"The reference patch reads {density:.2f}: it is remembered."
        off = density - known
        words = "as before" if abs(off) < _FALL else "check the instrument"
        return f"The reference patch reads {density:.2f}, {off:+.2f} from {known:.2f}: {words}."

    @property
    def trouble(self) -> str:
        """Why nothing comes, in words; empty while all is well."""
        return self._line.trouble("type the densities")

    def close(self) -> None:
        """Listen no more."""
        self._line.close()


def _patch_of(kept: Instrument) -> float | None:
    """Density of the reference patch; None before it was read."""
    try:
        return float(json.loads(kept.calibration)["patch"])
    except (ValueError, KeyError, TypeError):
        return None


def densitometer_of(notebook: Notebook, loaded: LoadedTest) -> Instrument:
    """The test's own densitometer where it has a port, else the first in the cupboard with one.

    Raises
    ------
    EntryError
        If there is none with a port.
    """
    return instrument_on_a_line(notebook, DENSITOMETER, loaded.instrument)


def _begin(bench: Workbench) -> DensitometerLine:
    if bench.loaded is None:
        raise EntryError("open a test first: a densitometer reads its frames")
    kept = densitometer_of(bench.notebook, bench.loaded)
    return DensitometerLine(kept, *unsteadiness(bench.notebook.path))


TYPE = InstrumentType(
    DENSITOMETER, "Connect the densitometer", "Disconnect {name}", _begin, own_place=True
)

"""One test as a whole, taken from the notebook as frozen data."""

from __future__ import annotations

from dataclasses import dataclass

from vadrin.core import readings as core
from vadrin.core.analysis import Settings
from vadrin.core.exposure import log_h_of_frame, stops_text
from vadrin.core.family import Target
from vadrin.notebook.records import (
    DOUBLED,
    EXPOSED,
    PLANNED,
    SKIPPED,
    Batch,
    Developer,
    Finding,
    Frame,
    Reading,
    Stock,
    Strip,
    Test,
)
from vadrin.notebook.store import Notebook

SPOILT = (DOUBLED, SKIPPED)
"""States of a frame that cannot be read."""


@dataclass(frozen=True)
class FrameSheet:
    """A frame with its readings, and the name it goes by on the film."""

    frame: Frame
    readings: tuple[Reading, ...]

    @property
    def density(self) -> float | None:
        """Mean of the readings that count; None before the first."""
        used = [r.density for r in self.readings if not r.left_out]
        return sum(used) / len(used) if used else None

    @property
    def name(self) -> str:
        """``blank``, the stops from the meter, or the frame's own name."""
        if self.frame.blank:
            return "blank"
        if self.frame.stops is not None:
            return stops_text(self.frame.stops, signed=True)
        return self.frame.name

    def log_h(self, meter_constant: float) -> float | None:
        """Lg exposure; None for a blank."""
        if self.frame.log_h is not None:
            return self.frame.log_h
        if self.frame.exposure_index is None:
            return None
        stops = self.frame.stops or 0.0
        return float(log_h_of_frame(self.frame.exposure_index, stops, meter_constant))


@dataclass(frozen=True)
class StripSheet:
    """A strip with its frames in the order shot."""

    strip: Strip
    frames: tuple[FrameSheet, ...]

    @property
    def minutes(self) -> float | None:
        """The real development time, or the planned one before that."""
        return self.strip.time_min or self.strip.planned_min


@dataclass(frozen=True)
class TestSheet:
    """Everything of one test."""

    __test__ = False

    test: Test
    stock: Stock
    batch: Batch | None
    developer: Developer
    strips: tuple[StripSheet, ...]
    findings: tuple[Finding, ...]

    def frames(self) -> list[tuple[StripSheet, FrameSheet]]:
        """All frames in the order shot, each with its strip."""
        return [(s, f) for s in self.strips for f in s.frames]

    def place_of(self, frame_id: int) -> tuple[StripSheet, FrameSheet] | None:
        """The strip and frame with a frame id."""
        found = [(s, f) for s, f in self.frames() if f.frame.id == frame_id]
        return found[0] if found else None

    def exposed(self) -> int:
        """Number of frames that are not waiting to be taken."""
        return sum(f.frame.state != PLANNED for _, f in self.frames())

    def processed(self) -> int:
        """Number of strips with a real development time."""
        return sum(s.strip.time_min is not None for s in self.strips)

    def read(self) -> int:
        """Number of frames with a reading that counts."""
        return sum(f.density is not None for _, f in self.frames())

    def readable(self) -> int:
        """Number of frames that can be read."""
        return sum(f.frame.state not in SPOILT for _, f in self.frames())

    @property
    def title(self) -> str:
        """The stock's name."""
        return self.stock.name

    @property
    def process(self) -> str:
        """Developer, dilution and temperature in a phrase."""
        where = f"in {self.developer.name} {self.developer.dilution}".strip()
        return where if self.developer.name else "developer not named yet"


def load_sheet(notebook: Notebook, test_id: int) -> TestSheet | None:
    """Take one test from the notebook; None if it is not there."""
    test = notebook.get(Test, test_id)
    if test is None:
        return None
    strips = notebook.all(Strip, test_id=test_id)
    frames = notebook.all_of(Frame, "strip_id", [s.id for s in strips])
    readings = notebook.all_of(Reading, "frame_id", [f.id for f in frames])
    by_frame: dict[int, list[Reading]] = {}
    for reading in readings:
        by_frame.setdefault(reading.frame_id, []).append(reading)
    by_strip: dict[int, list[FrameSheet]] = {}
    for frame in frames:
        sheet = FrameSheet(frame, tuple(by_frame.get(frame.id, ())))
        by_strip.setdefault(frame.strip_id, []).append(sheet)
    return TestSheet(
        test,
        notebook.get(Stock, test.stock_id) or Stock(),
        notebook.get(Batch, test.batch_id) if test.batch_id else None,
        notebook.get(Developer, test.developer_id) or Developer(),
        tuple(StripSheet(s, tuple(by_strip.get(s.id, ()))) for s in strips),
        tuple(notebook.all(Finding, test_id=test_id)),
    )


def channel_of(sheet: TestSheet) -> str:
    """The channel a test is worked out in: visual, or the first that was read."""
    used = {r.channel for _, f in sheet.frames() for r in f.readings}
    order = ("visual", "red", "green", "blue", "uv")
    return next((c for c in order if c in used), "visual")


def readings_of(sheet: TestSheet) -> tuple[core.StripReadings, ...]:
    """The readings that count, as the core wants them."""
    channel = channel_of(sheet)
    strips = []
    for strip in sheet.strips:
        rows = tuple(
            core.Reading(f.frame.name, f.log_h(sheet.test.meter_constant), r.density)
            for f in strip.frames
            if f.frame.state not in SPOILT
            for r in f.readings
            if not r.left_out and r.channel == channel
        )
        if rows:
            temperature = strip.strip.temperature_c
            label = strip.strip.label
            strips.append(core.StripReadings(label, strip.minutes, temperature, rows, channel))
    return tuple(strips)


def settings_of(sheet: TestSheet, draws: int = 256) -> Settings:
    """How a test is to be worked out."""
    target = Target(sheet.test.target_kind, sheet.test.target_value)
    return Settings(
        target=target,
        school=sheet.test.school,
        meter_constant=sheet.test.meter_constant,
        draws=draws,
    )


__all__ = [
    "EXPOSED",
    "FrameSheet",
    "StripSheet",
    "TestSheet",
    "channel_of",
    "load_sheet",
    "readings_of",
    "settings_of",
]

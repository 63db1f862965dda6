"""One test as a whole, taken from the notebook as frozen data."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

from vadrin.core.channels import Channel
from vadrin.core.exposure.arithmetic import exact_ei, log_h_of_frame, stops_text
from vadrin.core.frames import FrameRole, FrameState
from vadrin.core.planning.test_types import Metering, type_of
from vadrin.notebook.records import (
    Batch,
    Bottle,
    ControlStrip,
    Developer,
    Exposure,
    Finding,
    Frame,
    Instrument,
    Judgement,
    LightMeter,
    MakerTime,
    Note,
    PrintSetup,
    PrintStrip,
    Process,
    ProcessStep,
    Reading,
    Stock,
    Strip,
    Test,
)

SPOILT = (FrameState.SKIPPED,)
"""States of a frame that holds nothing; one exposed twice holds the sum, and can be read."""


THE_FRAME = "the frame"
"""Asked of a frame where what is answered is whether it can be used."""
ON_PAPER = "contact sheet"
"""How a frame was looked at whose contact print was judged; anything else was on the film."""
FAULT = "fault"
"""Asked of a frame where what is answered is a fault of it."""

_SHOWN_FIRST = (Channel.VISUAL, Channel.GREEN, Channel.BLUE, Channel.RED, Channel.UV)
"""Channels in which a frame is drawn, where none was chosen."""

_MANY_FRAMES = 1000
_PIECES = ("leader", "holder", "cut")
"""Pieces of film that carry no exposure of the test, by what they go to."""
SCAN = "scan"
"""How a frame was read whose density comes off a picture, by the wedge in it."""
NOT_TRACED = "not traced"
"""What stands for the points of a sheet's curve until it is traced."""

_BY_INDEX = "EI "
"""How frames are called that differ by their EI and by nothing else."""
_AS_ASKED = 0.3
"""Stops within which a frame still goes by what was asked for; cameras miss by so much."""


@dataclass(frozen=True)
class LoadedFrame:
    """A frame with its readings, and the name it goes by on the film."""

    frame: Frame
    readings: tuple[Reading, ...]
    number: str = ""
    """Its place on its strip, counted from the first frame; what a file called it, else."""
    taken: tuple[Exposure, ...] = ()
    judgements: tuple[Judgement, ...] = ()
    """What an eye said of it, the oldest first."""
    channel: str = ""
    """The channel it is shown in, where it was read in that; empty for visual."""
    by_print: bool = False
    """Whether the test rates by contact prints, rather than by what is seen on the film."""

    @property
    def called(self) -> str:
        """Number and name: ``frame 4 (−3)``, ``frame 1 (blank)``."""
        return f"frame {self.number}" + (f" ({self.name})" if self.name != self.number else "")

    @cached_property
    def density(self) -> float | None:
        """Mean of the readings that count, in one channel; None before the first."""
        used = [r for r in self.readings if not r.left_out]
        # Densities of red, green and blue have no mean that means anything.
        for channel in (self.channel, *_SHOWN_FIRST):
            mine = [r.density for r in used if r.channel == channel]
            if mine:
                return sum(mine) / len(mine)
        return None

    @cached_property
    def name(self) -> str:
        """``blank``, the stops from the meter, or the frame's own name."""
        if self.frame.blank:
            return "blank"
        if self.frame.role in (FrameRole.FOGGED, FrameRole.LOST):
            plain = self.frame.name.rstrip("0123456789")
            if plain == "sheet":
                return NOT_TRACED
            return plain if plain in _PIECES else self.frame.role
        if self.frame.role == FrameRole.CHECK:
            return "again"
        if self.pictorial:
            return "picture"
        if self.frame.name.startswith(_BY_INDEX):
            return self.frame.name
        wanted, got = self.frame.wanted_stops, self.frame.stops
        if wanted is not None and (got is None or abs(got - wanted) <= _AS_ASKED):
            return stops_text(wanted, signed=True)
        if self.frame.stops is not None:
            return stops_text(self.frame.stops, signed=True)
        return self.frame.name

    @cached_property
    def verdict(self) -> str:
        """What was last said of the frame as a whole; empty for nothing.

        What was seen on the film and on its contact print are kept apart: the one that the test
        rates by counts, the other only where that one is silent.
        """
        return self.said(THE_FRAME, self.by_print) or self.said(THE_FRAME, not self.by_print)

    def said(self, asked: str, on_paper: bool) -> str:
        """What was last said of its print, or of the film itself; empty for nothing."""
        said = [
            j
            for j in self.judgements
            if j.asked == asked and not j.left_out and (j.way == ON_PAPER) is on_paper
        ]
        return max(said, key=lambda j: j.id).answer if said else ""

    @cached_property
    def readable(self) -> bool:
        """Whether there is something on the film to read."""
        kept = self.frame.role == FrameRole.LOST or self.frame.name.startswith("leader")
        return self.frame.state not in SPOILT and not kept

    @property
    def pictorial(self) -> bool:
        """Whether it carries a picture, whose exposure nobody measured."""
        return self.frame.role == FrameRole.PICTURE

    @cached_property
    def counts(self) -> bool:
        """Whether its readings belong to the curve; clips only tell development."""
        apart = (FrameRole.FOGGED, FrameRole.PICTURE)
        return self.readable and self.frame.role not in apart

    def log_h(self, meter_constant: float) -> float | None:
        """Lg exposure; None for a blank."""
        if self.frame.log_h is not None:
            return self.frame.log_h
        if self.frame.exposure_index is None:
            return None
        stops = self.frame.stops or 0.0
        return log_h_of_frame(exact_ei(self.frame.exposure_index), stops, meter_constant)


@dataclass(frozen=True)
class LoadedStrip:
    """A strip with its frames in the order shot, and what an eye said of it as a whole."""

    strip: Strip
    frames: tuple[LoadedFrame, ...]
    judgements: tuple[Judgement, ...] = ()
    routine: Process | None = None
    """The kept process it went through, where it is not the test's."""

    @property
    def minutes(self) -> float | None:
        """The real development time, or the planned one before that."""
        return self.strip.time_min or self.strip.planned_min

    @property
    def looked_at(self) -> bool:
        """Whether a density of it was read, or an eye said something of it that counts."""
        seen = (j for f in self.frames for j in f.judgements)
        return any(f.density is not None for f in self.frames) or any(not j.left_out for j in seen)

    @property
    def other(self) -> str:
        """What it is, where film or chemistry is not the test's own; empty where they are."""
        mine = self.strip
        return mine.note if mine.stock_id or mine.batch_id or mine.developer_id else ""


@dataclass(frozen=True)
class LoadedTest:
    """Everything of one test."""

    __test__ = False

    test: Test
    stock: Stock
    batch: Batch | None
    developer: Developer
    strips: tuple[LoadedStrip, ...]
    findings: tuple[Finding, ...]
    notes: tuple[Note, ...] = ()
    instrument: Instrument | None = None
    routine: Process | None = None
    """The kept process it follows."""
    baths: tuple[ProcessStep, ...] = ()
    """The steps of that process which the laboratory keeps as its own, in their order."""
    makers: tuple[MakerTime, ...] = ()
    """The maker's table of its film in its developer."""
    controls: tuple[ControlStrip, ...] = ()
    """Control strips of the process it follows, with those of other tests."""
    beside: object = None
    """What its type of test lays it beside of the rest of the notebook, and alone understands."""
    setups: tuple[PrintSetup, ...] = ()
    """Its series of prints."""
    covered: tuple[PrintStrip, ...] = ()
    """Half-covered strips of paper, of every series."""
    run_ids: frozenset[int] = frozenset()
    """Its runs by the clock."""
    bottle: Bottle | None = None
    """The mixed bottle its strips went into."""
    meter: LightMeter | None = None

    @cached_property
    def _notes_by_frame(self) -> dict[int, str]:
        kept: dict[int, list[str]] = {}
        for _, loaded in self.frames():
            if loaded.frame.note:
                kept.setdefault(loaded.frame.id, []).append(loaded.frame.note)
            for seen in loaded.judgements:
                if seen.asked == FAULT:
                    where = f" ({seen.place})" if seen.place else ""
                    kept.setdefault(loaded.frame.id, []).append(f"{seen.answer}{where}")
        for note in self.notes:
            if note.frame_id is not None:
                kept.setdefault(note.frame_id, []).append(note.words)
        return {frame_id: "; ".join(words) for frame_id, words in kept.items()}

    def notes_on(self, frame_id: int) -> str:
        """Words kept about a frame, while it was taken and afterwards."""
        return self._notes_by_frame.get(frame_id, "")

    def noted(self) -> list[tuple[str, str]]:
        """Every frame that words are kept about, as it is called, with the words."""
        about_all = [("the test", n.words) for n in self.notes if n.frame_id is None]
        kept = [(s, f, self.notes_on(f.frame.id)) for s, f in self.frames()]
        return [*about_all, *((self.called(s, f), words) for s, f, words in kept if words)]

    def judged(self, asked: str) -> list[Judgement]:
        """What was answered to a question of the test's strips as a whole, the oldest first."""
        found = [j for s in self.strips for j in s.judgements if j.asked == asked]
        return sorted(found, key=lambda j: (j.judged_at, j.id))

    def frames(self) -> list[tuple[LoadedStrip, LoadedFrame]]:
        """All frames strip by strip, each with its strip."""
        return [(s, f) for s in self.strips for f in s.frames]

    def shots(self) -> list[tuple[LoadedStrip, LoadedFrame]]:
        """All frames in the order shot, which may change between strips."""
        return sorted(self.frames(), key=lambda place: place[1].frame.turn)

    def place_of(self, frame_id: int) -> tuple[LoadedStrip, LoadedFrame] | None:
        """The strip and frame with a frame id."""
        return self._places.get(frame_id)

    @cached_property
    def _places(self) -> dict[int, tuple[LoadedStrip, LoadedFrame]]:
        return {f.frame.id: (s, f) for s, f in reversed(self.frames())}

    def called(self, strip: LoadedStrip, frame: LoadedFrame) -> str:
        """A frame as it is spoken of; with its strip, where there are several."""
        alone = len(self.strips) == 1
        return frame.called if alone else f"strip {strip.strip.label}, {frame.called}"

    def material_of(self, strip: LoadedStrip) -> str:
        """Which film in which chemistry a strip is; empty for the test's own."""
        mine = strip.strip
        other = {"stock": mine.stock_id, "batch": mine.batch_id, "developer": mine.developer_id}
        if mine.process_id != self.test.process_id:
            other["process"] = mine.process_id
        words = ", ".join(f"{name} {value}" for name, value in other.items() if value)
        if mine.agitation and mine.agitation != self.test.agitation:
            words = f"{words}, {mine.agitation}".removeprefix(", ")
        kind = type_of(self.test.kind)
        if words or kind is None or not kind.materials_apart or mine.position == 0:
            return words
        return f"strip {mine.label}"

    def others(self) -> set[str]:
        """Labels of the strips that are of another film or chemistry than the test's own."""
        return {s.strip.label for s in self.strips if self.material_of(s)}

    def only_planned(self) -> tuple[str, ...]:
        """Labels of strips that were read, or judged by eye, though nobody noted their time.

        Their planned times stand in for what they got; those off a maker's sheet are its own.
        """
        kind = type_of(self.test.kind)
        if kind is None or not kind.scripted or kind.metering is Metering.ENLARGER:
            return ()
        return tuple(
            s.strip.label
            for s in self.strips
            if s.strip.time_min is None and s.strip.planned_min is not None and s.looked_at
        )

    @property
    def on_film(self) -> bool:
        """Whether film is exposed for it; nothing is for a data sheet."""
        kind = type_of(self.test.kind)
        return kind is None or kind.scripted

    @property
    def density_falls(self) -> bool:
        """Whether more exposure gives less density."""
        kind = type_of(self.test.kind)
        return kind is not None and kind.density_falls

    def exposed(self) -> int:
        """Number of frames that are not waiting to be taken."""
        return sum(f.frame.state != FrameState.PLANNED for _, f in self.frames())

    def processed(self) -> int:
        """Number of strips with a real development time."""
        return sum(s.strip.time_min is not None for s in self.strips)

    @cached_property
    def is_long(self) -> bool:
        """Whether it has so many frames that whatever is made of all of them takes its time."""
        return sum(len(s.frames) for s in self.strips) > _MANY_FRAMES

    def read(self) -> int:
        """Number of frames with a reading that counts."""
        return sum(f.density is not None for _, f in self.frames())

    def readable(self) -> int:
        """Number of frames that can be read."""
        return sum(f.readable for _, f in self.frames())

    @property
    def title(self) -> str:
        """The stock's name."""
        return self.stock.name

    @property
    def process(self) -> str:
        """Developer, dilution and temperature in a phrase."""
        return f"in {self.developer.bath}" if self.developer.name else "developer not named yet"

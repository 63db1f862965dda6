"""What a test costs before it is begun: film, developments, hours of work, and the kit."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from vadrin.app.descriptions import TestDescription, description_of
from vadrin.app.display.words import counted
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.plan.strip_drawing import beginning_of
from vadrin.core.frames import FrameRole
from vadrin.core.planning.plan_request import FilmUnit
from vadrin.core.planning.test_types import Metering, TestType

ROLL_FRAMES = 36
"""Of a roll, where nobody said what film there is."""

_SET_UP_MIN = 15.0
_EXPOSE_MIN, _READ_MIN = 0.75, 0.5
"""A frame: set, wait, fire, tick; laid on the light box or the densitometer, and noted."""
_AROUND_MIN = 25.0
"""Of a development: loading, stop, fixer, wash; drying needs nobody."""
_PRINT_MIN = 6.0
"""A strip of paper through its trays."""
_TRACE_MIN = 20.0


@dataclass(frozen=True)
class TestNeeds:
    """What a test takes.

    Attributes
    ----------
    frames : int
        Frames of film that are used up, blanks and lost ones among them; 0 where none are.
    rolls : int
        Rolls or sheets they take; 0 for paper.
    piece : str
        What such a piece is called.
    developments : int
        Developments of another time, or in another tank.
    hours : float
        Hours of work by rule of thumb, drying not counted.
    kit : str
        What one must have, in words.
    """

    __test__ = False

    frames: int
    rolls: int
    piece: str
    developments: int
    hours: float
    kit: str

    @property
    def brief(self) -> str:
        """Rolls and hours alone."""
        film = f"{counted(self.rolls, self.piece)}, " if self.rolls else ""
        return film + _hours_text(self.hours).removesuffix(" of work")

    @property
    def words(self) -> str:
        """Film, developments and hours in a line."""
        parts = []
        if self.frames:
            on = f" on {counted(self.rolls, self.piece)}" if self.rolls else ""
            parts.append(counted(self.frames, "frame" if on else "step") + on)
        if self.developments:
            parts.append(counted(self.developments, "development"))
        parts.append(f"about {_hours_text(self.hours)}")
        return ", ".join(parts)


def _hours_text(hours: float) -> str:
    if round(6 * hours) < 6:
        return f"{max(10, 10 * round(6 * hours))} min of work"
    halves = round(2 * hours)
    whole = f"{halves // 2}{'½' if halves % 2 else ''}"
    return f"{whole} {'hour' if whole == '1' else 'hours'} of work"


def _kit(page: TestDescription) -> str:
    if page.kit:
        return page.kit
    if page.kind.metering is Metering.ENLARGER:
        return "enlarger, paper, trays"
    return "camera, meter, tank; light box, scanner or densitometer"


@dataclass(frozen=True)
class _Piece:
    """A strip of a plan: its frames, those of them that are the test's work, its minutes."""

    frames: int
    worked: int
    minutes: float | None


def _needs(page: TestDescription, strips: Sequence[_Piece], rolls: int, on: str = "") -> TestNeeds:
    kind, kit, on = page.kind, _kit(page), on or page.piece
    frames, worked = sum(s.frames for s in strips), sum(s.worked for s in strips)
    if not kind.scripted:
        return TestNeeds(0, 0, on, 0, _TRACE_MIN / 60, kit)
    if kind.metering is Metering.ENLARGER:
        minutes = _SET_UP_MIN + len(strips) * _PRINT_MIN + worked * _READ_MIN
        return TestNeeds(frames, 0, on, 0, minutes / 60, kit)
    times = [s.minutes or 0.0 for s in strips]
    tanks = times if kind.materials_apart else sorted(set(times))
    minutes = _SET_UP_MIN + worked * (_EXPOSE_MIN + _READ_MIN)
    minutes += sum(time + _AROUND_MIN for time in tanks)
    return TestNeeds(frames, rolls, on, len(tanks), minutes / 60, kit)


def _rolls(kind: TestType, strips: Sequence[_Piece], planned: int) -> int:
    """Rolls of the usual length, where nobody said what film there is."""
    if kind.own_rolls:
        return len(strips)
    return max(planned, math.ceil(sum(s.frames for s in strips) / ROLL_FRAMES))


def needs_to_begin(page: TestDescription) -> TestNeeds:
    """What a type of test takes as it is first planned, on rolls of 36."""
    plan = beginning_of(page)
    strips = [
        _Piece(len(s.frames), sum(f.role is not FrameRole.PICTURE for f in s.frames), s.time_min)
        for s in plan
    ]
    return _needs(page, strips, _rolls(page.kind, strips, len({s.roll for s in plan})))


def needs_of(loaded: LoadedTest) -> TestNeeds:
    """What a plan takes as it stands."""
    page, film = description_of(loaded.test.kind), loaded.test.film
    planned = len({s.strip.roll for s in loaded.strips})
    strips = [
        _Piece(
            len(s.frames),
            sum(f.frame.role is not FrameRole.PICTURE for f in s.frames),
            s.strip.planned_min,
        )
        for s in loaded.strips
    ]
    if page.kind.on_one_sheet(loaded.test.options):
        return _needs(page, strips, 1, "sheet")
    if film is None:
        return _needs(page, strips, _rolls(page.kind, strips, planned))
    if film.unit is FilmUnit.SHEETS:
        return _needs(page, strips, sum(s.frames for s in strips), "sheet")
    return _needs(page, strips, planned)

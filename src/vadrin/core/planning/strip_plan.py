"""Planned strips and frames, and the pieces every kind of test lays its strips out of."""

from __future__ import annotations

import string
from dataclasses import dataclass

from vadrin.core.exposure.arithmetic import STOP, bracket
from vadrin.core.frames import FrameRole
from vadrin.core.planning.plan_request import PlanRequest


@dataclass(frozen=True)
class PlannedFrame:
    """One frame: what it is for, EI on the meter and stops from it; `turn` orders the shooting.

    `seconds` is fixed only where the time itself is the question.
    """

    role: FrameRole
    name: str
    exposure_index: float | None = None
    stops: float | None = None
    seconds: float | None = None
    turn: int = 0


@dataclass(frozen=True)
class StripPlan:
    """One strip: minutes of development and stops of push where the kind fixes them.

    `metered_anew` where the meter is read again for it, so that no marks can be told before;
    `agitation` where it is not that of the test.
    """

    label: str
    frames: tuple[PlannedFrame, ...]
    time_min: float | None = None
    push: float | None = None
    roll: int = 1
    note: str = ""
    metered_anew: bool = False
    agitation: str = ""


def strip_labels(count: int) -> tuple[str, ...]:
    """A, B, C … and on with A2, B2 … ."""
    letters = string.ascii_uppercase
    return tuple(letters[i % 26] + (str(i // 26 + 1) if i >= 26 else "") for i in range(count))


def blank_frames(count: int) -> list[PlannedFrame]:
    """Frames kept from light."""
    return [PlannedFrame(FrameRole.BLANK, f"b{i + 1}") for i in range(count)]


def fogged_frames(count: int) -> list[PlannedFrame]:
    """Frames given full light."""
    return [PlannedFrame(FrameRole.FOGGED, f"f{i + 1}") for i in range(count)]


def bracket_frames(request: PlanRequest, index: float) -> list[PlannedFrame]:
    """The bracket at an EI, or the steps of the tablet in contact."""
    if request.tablet:
        stops = [round(request.last - density / STOP, 4) for density in request.tablet]
    else:
        stops = list(bracket(request.first, request.last, request.step))
    return [
        PlannedFrame(FrameRole.BRACKET, str(i + 1), index, offset) for i, offset in enumerate(stops)
    ]


SERIES_STOPS = (0.0, 3.0, -4.0)
"""What each EI of a series is given: as metered, a highlight, and a shadow that must just show."""


def series_frames(indexes: tuple[float, ...]) -> list[PlannedFrame]:
    """Three exposures at each EI, the slowest first."""
    return [
        PlannedFrame(FrameRole.BRACKET, f"{index:g} {_OF_SERIES[stops]}", index, stops)
        for index in sorted(indexes)
        for stops in SERIES_STOPS
    ]


_OF_SERIES = {0.0: "meter", 3.0: "+3", -4.0: "−4"}


def usual_frames(request: PlanRequest, fogged: int = 0) -> tuple[PlannedFrame, ...]:
    """Blanks, the bracket at the test's own EI, then clips."""
    shots = bracket_frames(request, request.exposure_index)
    return tuple(blank_frames(request.blanks) + shots + fogged_frames(fogged))


def strips_for_times(request: PlanRequest, frames: tuple[PlannedFrame, ...]) -> list[StripPlan]:
    """The same frames on a strip for every development time."""
    names = strip_labels(len(request.times))
    return [StripPlan(n, frames, t) for n, t in zip(names, request.times, strict=True)]

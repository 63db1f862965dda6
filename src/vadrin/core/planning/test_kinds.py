"""Which frames every kind of test takes, strip by strip, in the order they are shot."""

from __future__ import annotations

import string
from collections.abc import Callable
from dataclasses import dataclass

from vadrin.core.exposure.arithmetic import STOP, bracket

BRACKET, BLANK, FOGGED, CHECK, LOST = "bracket", "blank", "fogged", "check", "lost"
MIRRORED, INTERLEAVED = "mirrored", "interleaved"
PUSH_SHARE = 0.3
"""Share of time a stop of push is planned with, before anything was measured."""


class PlanError(ValueError):
    """A plan that cannot be; the text says why and what would help."""


@dataclass(frozen=True)
class PlannedFrame:
    """One frame: what it is for, EI on the meter and stops from it; `turn` orders the shooting.

    `seconds` is fixed only where the time itself is the question.
    """

    role: str
    name: str
    exposure_index: float | None = None
    stops: float | None = None
    seconds: float | None = None
    turn: int = 0


@dataclass(frozen=True)
class StripPlan:
    """One strip: minutes of development and stops of push where the kind fixes them."""

    label: str
    frames: tuple[PlannedFrame, ...]
    time_min: float | None = None
    push: float | None = None
    roll: int = 1
    note: str = ""


@dataclass(frozen=True)
class PlanRequest:
    """What a tester asks a plan for.

    Attributes
    ----------
    kind : str
        A key of `KINDS`.
    exposure_index : float
    first, last, step : float
        The bracket in stops.
    blanks : int
    times : tuple of float
        Minutes; as many strips as times where development is the question.
    second : tuple of float
        The other factor: pushes, EIs, long times, or what a strip gets.
    check : bool
        Repeat the first exposure at the end.
    arrangement : str
        ``mirrored``, ``interleaved`` or empty for one strip after the other.
    film_form : str
        ``36 frames``, ``10 sheets``, ``5 m``, ``30 m cine``, ``36 frames after 14`` where another
        test has the beginning of the roll; empty for as much as it takes.
    tablet : tuple of float
        Densities of a step tablet in contact with the film: each step gets the last exposure
        of the bracket less its density.
    leader : int
        Frames at the head of every roll that loading fogs; they serve for a clip.
    holder : int
        Frames at the head of every strip that the reel or clip holds.
    others : int
        How many materials are compared with the reference.
    own_rolls : bool
        Whether each strip is on a roll of its own, as different films are.
    """

    kind: str
    exposure_index: float
    first: float
    last: float
    step: float
    blanks: int
    times: tuple[float, ...]
    second: tuple[float, ...] = ()
    check: bool = False
    arrangement: str = ""
    film_form: str = ""
    tablet: tuple[float, ...] = ()
    leader: int = 0
    holder: int = 0
    others: int = 1
    own_rolls: bool = False


def labels(count: int) -> tuple[str, ...]:
    """A, B, C … and on with A2, B2 … ."""
    letters = string.ascii_uppercase
    return tuple(letters[i % 26] + (str(i // 26 + 1) if i >= 26 else "") for i in range(count))


def _blanks(count: int) -> list[PlannedFrame]:
    return [PlannedFrame(BLANK, f"b{i + 1}") for i in range(count)]


def _fogged(count: int) -> list[PlannedFrame]:
    return [PlannedFrame(FOGGED, f"f{i + 1}") for i in range(count)]


def _bracket(
    request: PlanRequest, index: float, first: float | None = None, last: float | None = None
) -> list[PlannedFrame]:
    if request.tablet:
        return [
            PlannedFrame(BRACKET, str(i + 1), index, round(request.last - density / STOP, 4))
            for i, density in enumerate(request.tablet)
        ]
    start = request.first if first is None else first
    end = request.last if last is None else last
    return [
        PlannedFrame(BRACKET, str(i + 1), index, stops)
        for i, stops in enumerate(bracket(start, end, request.step))
    ]


def _same(request: PlanRequest, fogged: int = 0) -> tuple[PlannedFrame, ...]:
    shots = _bracket(request, request.exposure_index)
    return tuple(_blanks(request.blanks) + shots + _fogged(fogged))


def _speed(request: PlanRequest) -> list[StripPlan]:
    return [StripPlan("A", _same(request), request.times[0])]


def _time(request: PlanRequest) -> list[StripPlan]:
    names = labels(len(request.times))
    return [StripPlan(n, _same(request), t) for n, t in zip(names, request.times, strict=True)]


def _push(request: PlanRequest) -> list[StripPlan]:
    pushes = request.second or (0.0, 1.0, 2.0)
    strips = []
    for name, push in zip(labels(len(pushes)), pushes, strict=True):
        index = request.exposure_index * 2.0**push
        frames = tuple(_blanks(request.blanks) + _bracket(request, index))
        time = request.times[0] * (1 + PUSH_SHARE) ** push
        strips.append(StripPlan(name, frames, round(time * 4) / 4, push))
    return strips


def _mixed(request: PlanRequest) -> list[StripPlan]:
    indexes = request.second or tuple(request.exposure_index * 2.0**s for s in range(-2, 4))
    frames = _blanks(request.blanks) + [
        PlannedFrame(BRACKET, str(i + 1), index, 0.0) for i, index in enumerate(indexes)
    ]
    times = (*request.times, request.times[-1])[:2]
    notes = ("left long without agitation", "the normal process, on the twin")
    return [
        StripPlan(name, tuple(frames), time, roll=roll, note=note)
        for name, time, roll, note in zip(("A", "B"), times, (1, 2), notes, strict=True)
    ]


def _rescue(request: PlanRequest) -> list[StripPlan]:
    return [
        StripPlan(name, _same(request, fogged=2), time)
        for name, time in zip(labels(len(request.times)), request.times, strict=True)
    ]


def _compare(request: PlanRequest) -> list[StripPlan]:
    one, times = _same(request), request.times
    return [
        StripPlan(name, one, times[min(place, len(times) - 1)],
                  note="another" if place else "the reference")
        for place, name in enumerate(labels(1 + max(1, request.others)))
    ]  # fmt: skip


def _clip(request: PlanRequest) -> list[StripPlan]:
    frames = tuple(_blanks(max(1, request.blanks)) + _fogged(2))
    return [
        StripPlan("A", frames, request.times[0], note="a piece known to be good"),
        StripPlan("B", frames, request.times[0], note="the piece in question"),
    ]


def _reciprocity(request: PlanRequest) -> list[StripPlan]:
    longs = request.second or (1.0, 4.0, 15.0, 60.0, 240.0)
    frames = _blanks(request.blanks)
    frames.append(PlannedFrame(BRACKET, "short", request.exposure_index, 0.0))
    for seconds in longs:
        for extra in (0.0, 1.0, 2.0):
            name = f"{seconds:g}s+{extra:g}"
            frames.append(
                PlannedFrame(BRACKET, name, request.exposure_index, extra, seconds * 2.0**extra)
            )
    return [StripPlan("A", tuple(frames), request.times[0])]


def _reversal(request: PlanRequest) -> list[StripPlan]:
    factors = request.second or (-1.0, 0.0, 1.0)
    return [
        StripPlan(name, _same(request), request.times[0], note=f"second factor {factor:+g}")
        for name, factor in zip(labels(len(factors)), factors, strict=True)
    ]


def _paper(request: PlanRequest) -> list[StripPlan]:
    frames = tuple(_bracket(request, request.exposure_index))
    return [StripPlan("A", frames, None, note="through clear film")]


def _control(request: PlanRequest) -> list[StripPlan]:
    count = max(1, round(request.second[0])) if request.second else 6
    shots = [
        PlannedFrame(BRACKET, name, request.exposure_index, stops)
        for name, stops in (("low", -2.0), ("middle", 0.0), ("high", 3.0))
    ]
    frames = tuple(_blanks(max(1, request.blanks)) + shots)
    return [StripPlan(name, frames, request.times[0]) for name in labels(count)]


KINDS: dict[str, Callable[[PlanRequest], list[StripPlan]]] = {
    "speed": _speed, "time": _time, "push": _push, "mixed roll": _mixed, "rescue": _rescue,
    "compare": _compare, "clip": _clip, "reciprocity": _reciprocity, "colour": _push,
    "reversal": _reversal, "paper": _paper, "process control": _control,
}  # fmt: skip
"""How the strips of each kind are laid out."""

NO_BLANK = ("paper",)
NO_CHECK = ("clip", "paper", "process control", "reciprocity", "mixed roll")
"""Kinds whose frames are so few, or so unlike, that a repeat of the first tells nothing."""
OWN_ROLLS = ("mixed roll",)

"""Exposures of a test strip of paper, and the times as they must be given to it."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from itertools import pairwise
from math import isfinite, log2

MOST_PIECES = 24
_SHORTEST_S, _LONGEST_S = 0.2, 3600.0
_FINE_PIECES = 4
"""A third of a stop from section to section: an eye tells no finer on a paper's shoulder."""
_EYE_STOPS = 0.1
"""Stops an eye may miss the section by at each end: 0.004 of density on a paper's shoulder."""


class StepUnit(StrEnum):
    """What the steps of a strip are even in."""

    SECONDS = "seconds"
    STOPS = "stops"


class Covering(StrEnum):
    """How the sections of a strip come to their different times."""

    ADDING = "adding up under a mask"
    APART = "separate sections"


@dataclass(frozen=True)
class StripExposures:
    """A strip as it is asked for.

    Attributes
    ----------
    base_s : float
        Seconds of the first section, the lightest.
    step : float
        From section to section, in seconds or stops.
    unit : StepUnit
    sections : int

    Raises
    ------
    ValueError
        In words, where it is no strip.
    """

    base_s: float
    step: float
    unit: StepUnit = StepUnit.STOPS
    pieces: int = 6

    def __post_init__(self) -> None:
        if not isfinite(self.base_s) or self.base_s <= 0:
            raise ValueError("the first section needs a time above 0, such as 2 s")
        if not isfinite(self.step) or self.step <= 0:
            raise ValueError("each section needs more than the one before: a step above 0")
        if not 2 <= self.pieces <= MOST_PIECES:
            raise ValueError(f"a strip has 2 to {MOST_PIECES} sections")
        if self.base_s < _SHORTEST_S:
            raise ValueError(
                f"exposures under {_SHORTEST_S:g} s cannot be timed reliably: stop the lens down"
            )
        if self.total_s(self.pieces) > _LONGEST_S:
            raise ValueError("the last section would take over an hour: open the lens")

    def total_s(self, piece: int) -> float:
        """Seconds a section has in all, counted from 1."""
        if self.unit is StepUnit.SECONDS:
            return self.base_s + self.step * (piece - 1)
        return float(self.base_s * 2.0 ** (self.step * (piece - 1)))

    def totals(self) -> tuple[float, ...]:
        """Seconds of every section."""
        return tuple(self.total_s(piece) for piece in range(1, self.pieces + 1))

    def given(self, way: Covering) -> tuple[float, ...]:
        """Times as they are given: each on top of those before, or each to its own section."""
        totals = self.totals()
        if way is Covering.APART:
            return totals
        return (totals[0], *(b - a for a, b in pairwise(totals)))

    def finer(self, chosen: int) -> StripExposures:
        """A strip inside the two neighbours of a chosen section, in even fractions of a stop."""
        low = self.total_s(max(1, chosen - 1))
        high = self.total_s(min(self.pieces, chosen + 1))
        return StripExposures(
            low, log2(high / low) / (_FINE_PIECES - 1), StepUnit.STOPS, _FINE_PIECES
        )

    def further(self, darker: bool) -> StripExposures:
        """The next strip where the wanted section lies past this one's end."""
        reach = self.total_s(self.pieces) / self.base_s
        base = self.total_s(self.pieces - 1) if darker else self.base_s / reach * 2.0**0.5
        step = log2(reach) / (self.pieces - 1)
        return StripExposures(max(base, _SHORTEST_S), step, StepUnit.STOPS, self.pieces)


@dataclass(frozen=True)
class PickedTime:
    """A time picked on a strip, with the range its steps leave.

    Attributes
    ----------
    seconds, low, high : float
    why : str
        Why the range has no end on one side; empty where it has both.
    """

    seconds: float
    low: float
    high: float
    why: str = ""


def first_black(strip: StripExposures, *chosen: int) -> PickedTime:
    """The shortest time for maximum black: the first section that can't be told from the next one.

    It lies between that section and the one before; the middle on a scale of stops stands for it,
    and the mean of those middles where such a strip was looked at more than once. An eye is not
    the same from look to look, so that the range reaches a little beyond.

    Parameters
    ----------
    strip : StripExposures
    *chosen : int
        The section of each look, counted from 1.

    Raises
    ------
    ValueError
        For a section that is not on the strip.
    """
    if not all(1 <= piece <= strip.pieces for piece in chosen):
        raise ValueError(f"the strip has sections 1 to {strip.pieces}")
    last = chosen[-1]
    if last == 1:
        why = "even the first section is black: begin with less"
        return PickedTime(strip.total_s(1), 0.0, strip.total_s(1), why)
    why = (
        "black only at the last section: a darker one was not tried"
        if (last == strip.pieces)
        else ""
    )
    looks = [_between(strip, piece) for piece in chosen if piece > 1]
    middle = sum(0.5 * (low + high) for low, high in looks) / len(looks)
    reach = sum(0.5 * (high - low) for low, high in looks) / len(looks) + _EYE_STOPS
    return PickedTime(2.0**middle, 2.0 ** (middle - reach), 2.0 ** (middle + reach), why)


def step_of_range(low_s: float | None, high_s: float | None) -> float | None:
    """Stops between the sections that a time for maximum black was picked on, by its range; None
    where it has none.

    Parameters
    ----------
    low_s, high_s : float or None
        As `first_black` gives them.
    """
    if not low_s or not high_s or high_s <= low_s:
        return None
    return float(min(max(log2(high_s / low_s) - 2 * _EYE_STOPS, 1 / 12), 1.0))


def _between(strip: StripExposures, piece: int) -> tuple[float, float]:
    """Stops of a section and of the one before."""
    return log2(strip.total_s(piece - 1)), log2(strip.total_s(piece))


def time_of_piece(strip: StripExposures, chosen: int) -> PickedTime:
    """The time of a section that looks best, with half a step to each side."""
    if not 1 <= chosen <= strip.pieces:
        raise ValueError(f"the strip has sections 1 to {strip.pieces}")
    here = strip.total_s(chosen)
    below = strip.total_s(chosen - 1) if chosen > 1 else here**2 / strip.total_s(2)
    above = strip.total_s(chosen + 1)
    why = "at the strip's end: one further was not tried" if chosen in (1, strip.pieces) else ""
    return PickedTime(here, (below * here) ** 0.5, (above * here) ** 0.5, why)


def for_other_base(seconds: float, base_fog: float, other_base_fog: float) -> float:
    """Printing time through another film: the density its base has more is to be made up."""
    return float(seconds * 10.0 ** (other_base_fog - base_fog))


def for_other_size(seconds: float, long_side: float, other_long_side: float) -> float:
    """Printing time at another size of the image, from its long sides; approximate.

    Light falls on an area that grows with the square; the lens moves too, which this leaves out.

    Raises
    ------
    ValueError
        For sizes that are none.
    """
    if long_side <= 0 or other_long_side <= 0:
        raise ValueError("an image has a size above 0")
    return seconds * (other_long_side / long_side) ** 2

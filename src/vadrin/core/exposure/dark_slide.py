"""Exposures of one sheet whose cells are covered one after the other by its dark slide.

The whole sheet gets the least exposure; then the slide goes in over a cell at a time, and what
is still open gets as much again as it has. In whole stops every exposure given is a shutter mark.
"""

from __future__ import annotations

from dataclasses import dataclass
from itertools import accumulate
from math import log2

from vadrin.core.exposure.camera import CameraLimits, effective_shutter
from vadrin.core.exposure.shutter_dial import exact_shutter
from vadrin.errors import PlanError

_MISS = 1 / 6
"""Stops by which the nearest mark may miss what a cell is to be given."""


@dataclass(frozen=True)
class SlideExposure:
    """One cell: the mark it is given last, what that makes in all, and in stops from the meter."""

    given_s: float
    total_s: float
    stops: float


def slide_exposures(
    limits: CameraLimits, metered_s: float, aperture: float, first: float, cells: int
) -> tuple[SlideExposure, ...]:
    """The exposures of cells in whole stops, the least first.

    Parameters
    ----------
    limits : CameraLimits
        Its aperture stays at the metered one.
    metered_s, aperture : float
        What the meter asks for, as marks.
    first : float
        Stops from the meter of the cell that is covered first.
    cells : int

    Raises
    ------
    PlanError
        If the shutter has no marks for them.
    """
    start = exact_shutter(metered_s)
    wanted = start * 2.0 ** (first + limits.light_loss)
    given = [_mark(limits, wanted)]
    given += [_mark(limits, given[0] * 2.0**n) for n in range(cells - 1)]
    real = list(accumulate(effective_shutter(limits, mark) for mark in given))
    total = list(accumulate(given))
    # The aperture stays, so that times alone tell the stops.
    return tuple(
        SlideExposure(mark, whole, round(log2(worth / start) - limits.light_loss, 4))
        for mark, whole, worth in zip(given, total, real, strict=True)
    )


def _mark(limits: CameraLimits, seconds: float) -> float:
    nearest = min(limits.shutters, key=lambda mark: abs(log2(mark / seconds)))
    if abs(log2(nearest / seconds)) > _MISS:
        longer = seconds > limits.shutters[0]
        help_words = "open the lens" if longer else "stop the lens down"
        raise PlanError(
            f"the shutter has no mark for {seconds:.3g} s: {help_words}, or take fewer cells"
        )
    return nearest

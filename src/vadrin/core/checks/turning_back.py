"""Film that turns back: so much light that more of it gives less density."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.diagnostic import Diagnostic, Severity
from vadrin.core.exposure.arithmetic import STOP, stops_text
from vadrin.core.readings import StripReadings

_LEAST_EXPOSURES = 8
_LEAST_BEYOND = 2
"""A single frame that is thinner than the one before is more likely misread."""
_LEAST_FALL = 0.15
_WAVERS = 0.03
"""Density by which readings on the way down may rise again."""
_LEAST_RISE = 0.6
_FAR_UP = 2.0
"""Lg units from the first frame clear of the fog to the peak: no film turns back sooner."""
_CLEAR = 0.1


@dataclass(frozen=True)
class TurnedBack:
    """Where a strip turns back.

    Attributes
    ----------
    strip : str
    frames : tuple of str
        Those beyond the peak.
    peak_log_h, peak_density : float
        The exposure of the greatest density, and that density.
    stops : float
        From the first frame clear of the fog to the peak.
    """

    strip: str
    frames: tuple[str, ...]
    peak_log_h: float
    peak_density: float
    stops: float


def _turn(x: Array, density: Array) -> tuple[int, int] | None:
    """Places of the first mean clear of the fog and of the greatest, in the order of exposure;
    None where film does not turn."""
    top = int(np.argmax(density))
    down = density[top:]
    clear = np.flatnonzero(density > density[0] + _CLEAR)
    if (
        len(down) <= _LEAST_BEYOND
        or down[0] - down[-1] < _LEAST_FALL
        or down[0] - density[0] < _LEAST_RISE
        or np.diff(down).max() > _WAVERS
        or x[top] - x[clear[0]] < _FAR_UP
    ):
        return None
    return int(clear[0]), top


def turned_back(strip: StripReadings) -> TurnedBack | None:
    """Where a strip turns back; None where it does not."""
    x, density = strip.exposed()
    places, where = np.unique(np.round(x, 3), return_inverse=True)
    if len(places) < _LEAST_EXPOSURES:
        return None
    means = np.bincount(where, weights=density) / np.bincount(where)
    turn = _turn(places, means)
    if turn is None:
        return None
    first, top = turn
    names = strip.exposed_names()
    beyond = tuple(dict.fromkeys(names[i] for i in np.flatnonzero(where > top)))
    stops = float(places[top] - places[first]) / STOP
    return TurnedBack(strip.label, beyond, float(places[top]), float(means[top]), stops)


def before_the_turn(strip: StripReadings, turn: TurnedBack) -> StripReadings:
    """A strip without the frames beyond its peak: no curve goes there."""
    kept = tuple(
        r for r in strip.readings if r.log_h is None or r.log_h <= turn.peak_log_h + STOP / 100
    )
    return replace(strip, readings=kept)


def turned_diagnostic(turn: TurnedBack) -> Diagnostic:
    """What is said of a strip that turns back."""
    frames = f"frame{'s' if len(turn.frames) > 1 else ''} {', '.join(turn.frames)}"
    return Diagnostic(
        "turned back",
        Severity.CAUTION,
        f"Strip {turn.strip} turns back: {turn.peak_density:.2f} is the densest it gets, "
        f"{stops_text(round(turn.stops))} stops over its first grey, and more light gives less. "
        f"No curve goes there: {frames} stand aside.",
        "If those frames got less light than the record says, put that right; else keep "
        "highlights under the peak.",
        turn.strip,
        turn.frames,
    )

"""The net density of film that prints just lighter than clear film does.

At the shortest time for maximum black clear film itself lies at the eye's limit. So a frame's print
is laid beside that of clear film at the same time, and it counts where it is 0.04 lighter. Near
its black a paper misses a density g that shrinks by e^(-k x); a frame of net density n prints
g (e^(k n) - 1) lighter than clear film. The time was picked where two sections of a strip, a
step s apart, could not be told: g (1 - e^(-k s)) is what the eye tells, or a part of a step less.
"""

from __future__ import annotations

import numpy as np

from vadrin.core.exposure.arithmetic import STOP
from vadrin.core.printing.paper_curve import PaperCurve, shoulder_steepness

USUAL_STEP = 1 / 3
"""Stops between the sections of the strip that a time for maximum black is picked on."""
EYES_APART = 0.12
"""Spread of what eyes tell, as a share: of one against the 0.04 that counts."""

_SOFTEST, _HARDEST = 4.0, 14.0
"""Steepness of shoulders that are not known."""
_MEASURED_APART = 0.15
_WAVERS = 0.10
"""Spread of what one eye tells from look to look, as a share."""
_LATE = 1.1
"""An eye that wavers sees a difference once more than it should: the time it picks is longer."""
_DRAWN = np.linspace(-1.6, 1.6, 5)


def print_threshold(
    curve: PaperCurve | None, step_stops: float = USUAL_STEP
) -> tuple[float, float]:
    """Net density that prints 0.04 lighter than clear film, and its standard deviation.

    Parameters
    ----------
    curve : PaperCurve or None
        None for a paper nobody measured.
    step_stops : float
        Between the sections on which the time for maximum black was picked.
    """
    known = shoulder_steepness(curve) if curve is not None else None
    steep = np.geomspace(_SOFTEST, _HARDEST, 9)
    if known is not None:
        steep = known * np.exp(_MEASURED_APART * _DRAWN)
    step = step_stops * STOP
    into, waver = np.linspace(0.0, 1.0, 9), np.exp(_WAVERS * _DRAWN)
    k, u, e = np.meshgrid(steep, into, waver, indexing="ij")
    missing = np.exp(-k * step * (u - 0.5)) / -np.expm1(-k * step)
    net = _LATE * np.log1p(e / missing) / k
    return float(net.mean()), float(net.std())

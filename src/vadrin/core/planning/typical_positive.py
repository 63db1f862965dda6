"""The curve a positive is likely to have before one of its kind was tested."""

from __future__ import annotations

import numpy as np

from vadrin.core.curves.shape import GRID, Curves
from vadrin.core.exposure.arithmetic import METER_CONSTANT, meter_point

_BASE, _RANGE, _STEEPNESS = 0.12, 1.95, 1.6
"""Of a made-up positive of usual contrast: its white, its black over that, and how fast it falls
between the two in powers of ten of exposure."""
_TOE_UNDER = 2.0


def typical_positive(exposure_index: float, meter_constant: float = METER_CONSTANT) -> Curves:
    """A curve that falls, its middle at the meter's point of an EI.

    Parameters
    ----------
    exposure_index : float
    meter_constant : float
        k in lux seconds.

    Returns
    -------
    Curves
        Batch shape (). Its `net` falls, and `slope` is below 0: it is drawn, never fitted.
    """
    middle = meter_point(exposure_index, meter_constant)
    toe = middle - _TOE_UNDER
    net = _RANGE / (1.0 + 10.0 ** (_STEEPNESS * (toe + GRID - middle)))
    return Curves(np.asarray(_BASE), np.asarray(toe), net, np.gradient(net, GRID))

"""Figures of characteristic curves, for any batch of curves at once.

Each function takes `Curves` of batch shape (...) and returns an array of that shape, NaN
where the curve has no such figure. Whether the readings reach far enough for a figure is
judged in `strip_metrics`, not here.
"""

from __future__ import annotations

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.curves.shape import GRID, STEP, Curves, log_h_at, log_h_at_each, net_density_at
from vadrin.core.exposure.arithmetic import METER_CONSTANT, STOP, ZONE_I_STOPS

SPEED_DENSITY = 0.10
"""Net density of the speed point, ISO 6."""

ISO_RANGE = 1.30
ISO_DELTA_D = 0.80
ISO_TOLERANCE = 0.05
GRADIENT_RANGE = 1.5
ZONE_VIII_RANGE = 7 * STOP


def _rise(curves: Curves, x: Array, span: float) -> Array:
    return net_density_at(curves, (x + span)[..., None])[..., 0]


def speed_point(curves: Curves, density: float = SPEED_DENSITY) -> Array:
    """Lg exposure (lg lux s) at a net density, 0.10 by ISO 6."""
    return log_h_at(curves, density)


def delta_d(curves: Curves, x_m: Array) -> Array:
    """Density gained over 1.30 lg units above the speed point (ISO 6)."""
    return np.asarray(_rise(curves, x_m, ISO_RANGE) - SPEED_DENSITY)


def arithmetic_speed(x_m: Array) -> Array:
    """0.8 / H_M, the ISO speed where the contrast is the standard's (ISO 6)."""
    return np.asarray(0.8 / 10.0**x_m)


def zone_ei(x_z: Array, meter_constant: float = METER_CONSTANT) -> Array:
    """EI that puts the exposure four stops under the meter on the speed density."""
    return np.asarray(meter_constant / 2**ZONE_I_STOPS / 10.0**x_z)


def fractional_gradient_speed(x_m: Array, delta: Array) -> Array:
    """Fractional gradient speed by the Delta-X relation (Nelson and Simonds 1956)."""
    shift = 0.83 - 0.86 * delta + 0.24 * delta**2
    return np.asarray(arithmetic_speed(x_m) * 10.0 ** (shift - 0.2956))


def average_gradient(curves: Curves, x_m: Array) -> Array:
    """Mean slope over 1.5 lg units from the speed point."""
    return np.asarray((_rise(curves, x_m, GRADIENT_RANGE) - SPEED_DENSITY) / GRADIENT_RANGE)


def scene_gradient(curves: Curves, x_a: Array, stops: float) -> Array:
    """Mean slope over a scene range in stops from the shadow point."""
    span = stops * STOP
    shadow = net_density_at(curves, x_a[..., None])[..., 0]
    return np.asarray((_rise(curves, x_a, span) - shadow) / span)


def zone8_density(curves: Curves, x_z: Array) -> Array:
    """Net density seven stops above the Zone I exposure."""
    return _rise(curves, x_z, ZONE_VIII_RANGE)


_CROSSINGS = np.array([0.2, 2.2])
_SETTLED = 1e-3
"""Last step in angle from which a secant's answer is far nearer than that."""


def contrast_index(curves: Curves) -> tuple[Array, Array]:
    """Contrast index, and the lg exposure of its upper crossing.

    The line starts on the base-plus-fog line and crosses the curve at distances 0.2 and
    2.2 from there, so its angle a solves x(2.2 sin a) - x(0.2 sin a) = 2 cos a.
    """

    def gap(angle: Array) -> Array:
        both = log_h_at_each(curves, np.sin(angle)[..., None] * _CROSSINGS)
        return np.asarray(both[..., 1] - both[..., 0] - 2.0 * np.cos(angle))

    start = average_gradient(curves, speed_point(curves))
    before = np.arctan(np.nan_to_num(start, nan=0.5))
    angle, last = 0.97 * before, gap(before)
    for _ in range(4):
        here = gap(angle)
        step = (angle - before) * here / np.where(here == last, np.inf, here - last)
        before, last = angle, here
        angle = np.clip(angle - step, 0.02, 1.4)
        if not (np.abs(step) > _SETTLED).any():
            break
    crossing = log_h_at(curves, 2.2 * np.sin(angle))
    settled = np.abs(angle - before) < _SETTLED
    return np.where(settled, np.tan(angle), np.nan), np.where(settled, crossing, np.nan)


def gamma(curves: Curves, last: Array) -> tuple[Array, Array, Array]:
    """Slope of the straight line, and where it starts and ends (lg lux s).

    Least squares over the longest stretch around the steepest place whose local slope
    stays within 5 % of the maximum, not beyond the last reading.

    Parameters
    ----------
    curves : Curves
    last : ndarray, shape (...)
        Lg exposure of the densest reading.
    """
    inside = (last - curves.toe)[..., None] >= GRID
    slope = np.where(inside, curves.slope, 0.0)
    peak = np.argmax(slope, axis=-1)[..., None]
    steep = slope >= 0.95 * np.take_along_axis(slope, peak, -1)
    place = np.arange(len(GRID))
    before = np.where(~steep & (place < peak), place, -1).max(-1)[..., None]
    after = np.where(~steep & (place > peak), place, len(GRID)).min(-1)[..., None]
    mine = (place > before) & (place < after)
    count = mine.sum(-1)
    mean_u = (mine * GRID).sum(-1) / count
    centred = (GRID - mean_u[..., None]) * mine
    spread = (centred * GRID).sum(-1)
    fallback = np.take_along_axis(slope, peak, -1)[..., 0]
    fitted = np.where(spread > 0, (centred * curves.net).sum(-1) / np.maximum(spread, 1e-9), 0)
    slope_of_line = np.where(count >= 3, fitted, fallback)
    start = curves.toe + GRID[0] + STEP * (before[..., 0] + 1)
    return slope_of_line, start, curves.toe + GRID[0] + STEP * (after[..., 0] - 1)

"""Finer figures of a curve: where slope is enough, toe, shoulder, range, maximum."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vadrin.core.arrays import Array
from vadrin.core.curves import metrics
from vadrin.core.curves.shape import GRID, STEP, Curves, at_grid, net_density_at
from vadrin.core.exposure.arithmetic import STOP

FRACTION = 0.3
"""Share of the average slope that a shadow must keep (Nelson and Simonds 1956)."""

_SHOULDER_SHARE = 0.8
_FLAT = 0.05


@dataclass(frozen=True)
class Detail:
    """Batch arrays of the curves' shape (...); NaN where a figure does not exist.

    Attributes
    ----------
    fractional_x : ndarray
        Lg exposure where the slope is 0.3 of the mean slope over the next 1.5.
    toe_share : ndarray
        Slope over the first 0.3 from the speed point as a share of gamma.
    shoulder_x : ndarray
        Lg exposure where the slope falls below 0.8 gamma after the straight line.
    usable_stops : ndarray
        From the fractional gradient point to the shoulder.
    max_density : ndarray
        Net density, where the slope at the last reading is below 0.05.
    """

    fractional_x: Array
    toe_share: Array
    shoulder_x: Array
    usable_stops: Array
    max_density: Array


def _first_place(hit: NDArray[np.bool_]) -> tuple[NDArray[np.intp], NDArray[np.bool_]]:
    """Index of the first true value along the last axis, and whether there is one."""
    return np.asarray(hit.argmax(-1)), np.asarray(hit.any(-1))


def _crossing(values: Array, place: NDArray[np.intp], found: NDArray[np.bool_]) -> Array:
    """Grid coordinate where values pass zero just before a place."""
    high = np.clip(place, 1, len(GRID) - 1)[..., None]
    v1 = np.take_along_axis(values, high, -1)[..., 0]
    v0 = np.take_along_axis(values, high - 1, -1)[..., 0]
    gap = np.where(np.abs(v1 - v0) < 1e-12, 1.0, v1 - v0)
    u = GRID[0] + STEP * (high[..., 0] - np.clip(v1 / gap, 0.0, 1.0))
    return np.where(found, u, np.nan)


def fractional_gradient_point(curves: Curves) -> Array:
    """Lg exposure where local slope is 0.3 of the mean slope over the next 1.5 lg units."""
    ahead = at_grid(curves.net, curves.slope, GRID + metrics.GRADIENT_RANGE)
    mean = (ahead - curves.net) / metrics.GRADIENT_RANGE
    excess = curves.slope - FRACTION * mean
    # Far below the toe both vanish, so the search starts where there is some density.
    seen = curves.net > 0.005
    place, found = _first_place((excess >= 0) & seen)
    return curves.toe + _crossing(excess, place, found)


def detail_of(curves: Curves, last: Array, line: tuple[Array, Array] | None = None) -> Detail:
    """Work out the finer figures.

    Parameters
    ----------
    curves : Curves
    last : ndarray, shape (...)
        Lg exposure of the densest reading; nothing beyond it counts.
    line : tuple of ndarray, optional
        Gamma and the end of the straight line, where they are known already.
    """
    if line is None:
        slope_of_line, _, end = metrics.gamma(curves, last)
    else:
        slope_of_line, end = line
    x_m = metrics.speed_point(curves)
    toe_rise = net_density_at(curves, (x_m + 0.3)[..., None])[..., 0] - metrics.SPEED_DENSITY
    fractional = fractional_gradient_point(curves)
    past = (end - curves.toe)[..., None] < GRID
    inside = (last - curves.toe)[..., None] >= GRID
    short = _SHOULDER_SHARE * slope_of_line[..., None] - curves.slope
    place, found = _first_place((short >= 0) & past & inside)
    shoulder = curves.toe + _crossing(short, place, found)
    at_last = net_density_at(curves, last[..., None])[..., 0]
    before = net_density_at(curves, (last - 0.05)[..., None])[..., 0]
    flat = (at_last - before) / 0.05 < _FLAT
    return Detail(
        fractional,
        toe_rise / 0.3 / slope_of_line,
        shoulder,
        (shoulder - fractional) / STOP,
        np.where(flat, at_last, np.nan),
    )

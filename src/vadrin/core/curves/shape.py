"""The shape of a characteristic curve: toe, straight line and shoulder.

The local slope is a logistic rise (toe) times a logistic fall (shoulder), times a smooth
positive factor that lets the readings bend it where they insist:

    dD/dx = g * s((x - x_t) / a_t) * s((x_s - x) / a_s) * exp(sum_j b_j B_j(x - x_t))

with s the logistic function. Net density is its integral, so it never falls. All curves
live on one grid of u = x - x_t, which makes thousands of them one array expression.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vadrin.core.arrays import Array

STEP = 0.05
GRID: Array = np.arange(-2.0, 6.0 + STEP / 2, STEP)
"""u = x - x_t in lg units, shape (K,)."""

SLOPE_CENTRES = np.arange(-0.9, 3.91, 0.3)
BASIS: Array = np.exp(-0.5 * ((GRID[None, :] - SLOPE_CENTRES[:, None]) / 0.3) ** 2)
"""Smooth bumps of the slope factor on the grid, shape (m, K)."""
SLOPE_WEIGHTS = len(SLOPE_CENTRES)

FOG, LN_G, TOE, LN_TOE_WIDTH, SPAN, LN_SHOULDER_WIDTH = range(6)
"""Places in a parameter row: base plus fog, ln g, x_t, ln a_t, x_s - x_t, ln a_s."""
PARAMETERS = 6


@dataclass(frozen=True)
class Curves:
    """A batch of characteristic curves on `GRID`.

    Attributes
    ----------
    fog : ndarray, shape (...)
        Base plus fog.
    toe : ndarray, shape (...)
        x_t, the lg exposure at grid coordinate 0.
    net : ndarray, shape (..., K)
        Net density, never falling.
    slope : ndarray, shape (..., K)
        dD/dx.
    """

    fog: Array
    toe: Array
    net: Array
    slope: Array


def logistic(z: Array) -> Array:
    """1 / (1 + exp(-z)), safe for any finite z."""
    return np.asarray(0.5 * (1.0 + np.tanh(0.5 * z)))


def _tail(rows: Array, first_slope: Array) -> Array:
    """Net density below the grid, where the toe is exponential."""
    return np.asarray(np.exp(rows[..., LN_TOE_WIDTH]) * first_slope)


def running_integral(values: Array) -> Array:
    """Cumulative integral along the last axis of grid values, starting at 0.

    Trapezoids with the first Euler-Maclaurin correction.
    """
    out = np.empty_like(values)
    out[..., 0] = 0.0
    np.cumsum(values[..., 1:] + values[..., :-1], axis=-1, out=out[..., 1:])
    out *= STEP / 2
    change = np.empty_like(values)
    change[..., 1:-1] = values[..., 2:] - values[..., :-2]
    change[..., 0] = change[..., 1]
    change[..., -1] = change[..., -2]
    out -= (STEP / 24) * (change - change[..., :1])
    return out


def _slope_parts(rows: Array, slope_weights: Array) -> tuple[Array, Array, Array]:
    """Toe and shoulder factors, and the slope itself, each of shape (..., K)."""
    toe = logistic(GRID * np.exp(-rows[..., LN_TOE_WIDTH, None]))
    to_shoulder = rows[..., SPAN, None] - GRID
    shoulder = logistic(to_shoulder * np.exp(-rows[..., LN_SHOULDER_WIDTH, None]))
    factor = np.exp(np.clip(slope_weights @ BASIS, -4.0, 4.0))
    return toe, shoulder, toe * shoulder * (np.exp(rows[..., LN_G, None]) * factor)


def local_slope(rows: Array, slope_weights: Array) -> Array:
    """Slope on the grid.

    Parameters
    ----------
    rows : ndarray, shape (..., 6)
        Parameter rows.
    slope_weights : ndarray, shape (..., m) or (m,)
        Weights of the smooth slope factor; broadcast against the rows.

    Returns
    -------
    ndarray, shape (..., K)
    """
    return _slope_parts(rows, slope_weights)[2]


def curves_of(rows: Array, slope_weights: Array) -> Curves:
    """Integrate parameter rows into curves; see `local_slope` for the shapes."""
    slope = local_slope(rows, slope_weights)
    net = running_integral(slope) + _tail(rows, slope[..., 0])[..., None]
    np.maximum.accumulate(net, axis=-1, out=net)
    return Curves(rows[..., FOG], rows[..., TOE], net, slope)


def _places(u: Array) -> tuple[NDArray[np.intp], Array]:
    known = np.where(np.isnan(u), GRID[0], u)
    position = np.minimum(np.maximum((known - GRID[0]) / STEP, 0.0), len(GRID) - 1.001)
    index = position.astype(np.intp)
    return index, position - index


def at_index(values: Array, index: NDArray[np.intp]) -> Array:
    """Values of rows (..., K) at places (..., q) of each row: shape (..., q).

    What `numpy.take_along_axis` does, at a fraction of its cost for single curves.
    """
    long = values.shape[-1]
    if values.size == long:
        return np.asarray(values.reshape(-1).take(index))
    starts = np.arange(0, values.size, long)
    places = index.reshape(len(starts), -1) + starts[:, None]
    return np.asarray(values.reshape(-1).take(places).reshape(index.shape))


def net_density_at(curves: Curves, x: Array) -> Array:
    """Net density at lg exposures.

    Parameters
    ----------
    curves : Curves
        Batch shape (...).
    x : ndarray, shape (..., q)
        Broadcast against the batch.

    Returns
    -------
    ndarray, shape (..., q)
    """
    return at_grid(curves.net, curves.slope, x - curves.toe[..., None])


def at_grid(values: Array, slopes: Array, u: Array) -> Array:
    """Cubic Hermite interpolation of grid values, shape (..., K), at u, shape (..., q).

    NaN where u is NaN.
    """
    index, s = _places(np.broadcast_to(u, (*values.shape[:-1], u.shape[-1])))
    f0, f1 = at_index(values, index), at_index(values, index + 1)
    m0, m1 = at_index(slopes, index) * STEP, at_index(slopes, index + 1) * STEP
    rise = s * s * (3 - 2 * s)
    r = 1 - s
    between = f0 + (f1 - f0) * rise + s * r * (r * m0 - s * m1)
    return np.where(np.isnan(u), np.nan, between)


def log_h_at(curves: Curves, net_density: Array | float) -> Array:
    """Lg exposure at which a net density is reached.

    Parameters
    ----------
    curves : Curves
        Batch shape (...).
    net_density : ndarray, shape (...), or float
        One density a curve.

    Returns
    -------
    ndarray, shape (...)
        NaN where the curve never reaches the density on the grid.
    """
    wanted = np.broadcast_to(np.asarray(net_density, dtype=np.float64), curves.toe.shape)
    return log_h_at_each(curves, wanted[..., None])[..., 0]


def log_h_at_each(curves: Curves, net_density: Array) -> Array:
    """The same for several densities a curve, shape (..., q) in and out."""
    wanted = net_density
    index = np.stack(
        [(curves.net < wanted[..., i, None]).sum(-1) for i in range(wanted.shape[-1])], -1
    )
    reached = (index > 0) & (index < len(GRID))
    low = np.minimum(np.maximum(index, 1), len(GRID) - 1) - 1
    d0, d1 = at_index(curves.net, low), at_index(curves.net, low + 1)
    m0, m1 = at_index(curves.slope, low) * STEP, at_index(curves.slope, low + 1) * STEP
    part = _share((wanted - d0) / np.maximum(d1 - d0, 1e-12))
    for _ in range(2):
        rest = 1 - part
        value = d0 + (d1 - d0) * part**2 * (3 - 2 * part) + part * rest * (rest * m0 - part * m1)
        rise = 6 * (d1 - d0) * part * rest + m0 * rest * (1 - 3 * part) + m1 * part * (3 * part - 2)
        part = _share(part - (value - wanted) / np.maximum(rise, 1e-9))
    u = GRID[0] + STEP * (low + part)
    return np.where(reached, curves.toe[..., None] + u, np.nan)


def _share(part: Array) -> Array:
    return np.asarray(np.minimum(np.maximum(part, 0.0), 1.0))


def design(rows: Array, slope_weights: Array, x: Array) -> tuple[Array, Array]:
    """Density and its derivatives at readings of several strips at once.

    Parameters
    ----------
    rows : ndarray, shape (n, 6)
    slope_weights : ndarray, shape (n, m)
    x : ndarray, shape (n, q)
        Lg exposures of the readings; NaN for blanks and for places without one.

    Returns
    -------
    density : ndarray, shape (n, q)
        Base plus fog and net density.
    derivatives : ndarray, shape (n, q, 6 + m)
        By the six parameters, then by the weights of the slope factor.
    """
    toe, shoulder, slope = _slope_parts(rows, slope_weights)
    toe_width = np.exp(rows[:, LN_TOE_WIDTH])[:, None]
    shoulder_width = np.exp(rows[:, LN_SHOULDER_WIDTH])[:, None]
    stack = np.empty((len(rows), 4 + SLOPE_WEIGHTS, len(GRID)))
    stack[:, 0] = slope
    stack[:, 1] = slope * (1 - toe) * (GRID / -toe_width)
    stack[:, 2] = slope * (1 - shoulder) / shoulder_width
    stack[:, 3] = stack[:, 2] * (GRID - rows[:, SPAN, None])
    np.multiply(slope[:, None, :], BASIS, out=stack[:, 4:])
    areas = running_integral(stack)
    tail = toe_width * slope[:, :1]
    areas[:, 0] += tail
    areas[:, 1] += tail * (1 + (1 - toe[:, :1]) * (-GRID[0] / toe_width))
    index, part = _places(x - rows[:, TOE, None])
    values = _hermite(areas, stack, index, part)
    lit = np.isfinite(x)
    derivatives = np.zeros((*x.shape, PARAMETERS + SLOPE_WEIGHTS))
    derivatives[..., LN_G] = values[:, 0]
    low, high = at_index(slope, index), at_index(slope, index + 1)
    derivatives[..., TOE] = -(low + part * (high - low))
    derivatives[..., LN_TOE_WIDTH : LN_SHOULDER_WIDTH + 1] = values[:, 1:4].swapaxes(1, 2)
    derivatives[..., PARAMETERS:] = values[:, 4:].swapaxes(1, 2)
    derivatives[~lit] = 0.0
    derivatives[..., FOG] = 1.0
    return rows[:, FOG, None] + np.where(lit, values[:, 0], 0.0), derivatives


def _hermite(values: Array, slopes: Array, index: NDArray[np.intp], s: Array) -> Array:
    """Cubic interpolation of rows (n, r, K) at places (n, q) of each strip: shape (n, r, q)."""
    strip = np.arange(len(values))[:, None]
    # Gathering strip and place first keeps the rows together: (n, q, r), one copy each.
    f0, f1 = values[strip, :, index], values[strip, :, index + 1]
    r = 1 - s
    rise = (s * s * (3 - 2 * s))[..., None]
    lean = STEP * s * r
    early, late = (lean * r)[..., None], (lean * s)[..., None]
    between = f0 + (f1 - f0) * rise + slopes[strip, :, index] * early
    return np.asarray((between - slopes[strip, :, index + 1] * late).swapaxes(1, 2))

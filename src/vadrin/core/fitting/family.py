"""Curves and figures at any development time of one film, for draws and for the best fit."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from vadrin.core.arrays import Array
from vadrin.core.curves import metrics
from vadrin.core.curves.shape import Curves, curves_of, net_density_at
from vadrin.core.fitting import development_model
from vadrin.core.fitting.fit import Fit


@dataclass(frozen=True)
class Family:
    """Curves of a film over a ladder of development times.

    Attributes
    ----------
    times : ndarray, shape (T,)
        Minutes at the reference temperature, a little beyond the tested ones both ways.
    curves : Curves
        Batch shape (..., T).
    meter_constant : float
    """

    times: Array
    curves: Curves
    meter_constant: float

    @cached_property
    def x_m(self) -> Array:
        """Speed point at each time, shape (..., T)."""
        return metrics.speed_point(self.curves)

    @cached_property
    def gradient(self) -> Array:
        """Average gradient at each time, shape (..., T)."""
        return metrics.average_gradient(self.curves, self.x_m)

    @cached_property
    def ln_zone_ei(self) -> Array:
        """Natural log of the Zone I EI at each time, shape (..., T)."""
        return np.asarray(np.log(metrics.zone_ei(self.x_m, self.meter_constant)))

    def density_at(self, x: Array) -> Array:
        """Net density at one lg exposure a member, for every time.

        Parameters
        ----------
        x : ndarray, shape (...)

        Returns
        -------
        ndarray, shape (..., T)
        """
        return net_density_at(self.curves, x[..., None, None])[..., 0]


def time_grid(fit: Fit, steps: int) -> Array:
    """Times for a family: steps between a fifth under and a quarter over the tested ones."""
    low, high = fit.model.times.min(), fit.model.times.max()
    return np.asarray(np.geomspace(low * 0.8, high * 1.25, steps))


def family_of(
    of: development_model.DevelopmentModel, phi: Array, times: Array, meter_constant: float
) -> Family:
    """Curves at every time for parameter vectors of shape (..., P) of a law."""
    rows = development_model.curve_parameters(of, phi, times)
    slope_weights = development_model.slope_weights_at(of, phi, times)
    return Family(times, curves_of(rows, slope_weights), meter_constant)


def time_reaching(family: Family, rising: Array, wanted: Array | float) -> Array:
    """Time at which a figure that rises with development reaches a value.

    Parameters
    ----------
    family : Family
    rising : ndarray, shape (..., T)
    wanted : ndarray, shape (...), or float

    Returns
    -------
    ndarray, shape (...)
        Minutes; minus or plus infinity where the value lies below or above the ladder.
    """
    steady = np.maximum.accumulate(np.nan_to_num(rising, nan=-1e9), axis=-1)
    goal = np.broadcast_to(np.asarray(wanted, dtype=np.float64), steady.shape[:-1])
    index = (steady < goal[..., None]).sum(-1)
    high = np.clip(index, 1, len(family.times) - 1)[..., None]
    f1 = np.take_along_axis(steady, high, -1)[..., 0]
    f0 = np.take_along_axis(steady, high - 1, -1)[..., 0]
    part = np.clip((goal - f0) / np.maximum(f1 - f0, 1e-12), 0.0, 1.0)
    ln_times = np.log(family.times)
    low_t, high_t = ln_times[high[..., 0] - 1], ln_times[high[..., 0]]
    found = np.exp(low_t + part * (high_t - low_t))
    found = np.where(index == 0, -np.inf, found)
    return np.where(index == len(family.times), np.inf, found)


def figure_at_time(family: Family, figure: Callable[[Curves], Array], minutes: Array) -> Array:
    """A figure of curves worked out at one time a member only, shape (...).

    The same as `at_time` of the figure over the whole ladder, for figures that cost much.
    """
    below, above, part = curves_around(family, minutes)
    low, high = figure(below), figure(above)
    return np.asarray(low + part * (high - low))


def curves_around(family: Family, minutes: Array) -> tuple[Curves, Curves, Array]:
    """The curves of the ladder under and over one time a member, and how far between it lies."""
    index, part = _grid_position(family, minutes)

    def on(rung: NDArray[np.intp]) -> Curves:
        c, place = family.curves, rung[..., None]
        long = place[..., None]
        return Curves(
            np.take_along_axis(c.fog, place, -1)[..., 0],
            np.take_along_axis(c.toe, place, -1)[..., 0],
            np.take_along_axis(c.net, long, -2)[..., 0, :],
            np.take_along_axis(c.slope, long, -2)[..., 0, :],
        )

    return on(index), on(index + 1), part


def at_time(family: Family, values: Array, minutes: Array) -> Array:
    """A figure of shape (..., T) read at one time a member, shape (...).

    Times off the ladder take the value at its end.
    """
    index, part = _grid_position(family, minutes)
    low = np.take_along_axis(values, index[..., None], -1)[..., 0]
    high = np.take_along_axis(values, index[..., None] + 1, -1)[..., 0]
    return np.asarray(low + part * (high - low))


def _grid_position(family: Family, minutes: Array) -> tuple[NDArray[np.intp], Array]:
    """Step of the ladder below each time, and how far above it the time lies."""
    ln_times = np.log(family.times)
    step = (ln_times[-1] - ln_times[0]) / (len(ln_times) - 1)
    with np.errstate(divide="ignore"):
        position = (np.log(np.maximum(minutes, 1e-6)) - ln_times[0]) / step
    position = np.clip(np.nan_to_num(position), 0, len(ln_times) - 1.001)
    index = np.asarray(position.astype(np.intp))
    return index, position - index

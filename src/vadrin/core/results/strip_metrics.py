"""The figures of each strip, with reasons where a reading is out of reach."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.curves import metrics
from vadrin.core.curves.detail import detail_of
from vadrin.core.curves.foot import NO_FOOT, foot_is_flat
from vadrin.core.curves.shape import Curves, net_density_at
from vadrin.core.exposure.arithmetic import STOP, ZONE_I_STOPS
from vadrin.core.figure import Figure, absent
from vadrin.core.fitting.fit import Fit, curves_of_strips
from vadrin.core.fitting.intervals import linear_figure, ratio_figure
from vadrin.core.interruption import checkpoint
from vadrin.core.readings import StripReadings

_SLACK = 0.03
"""Lg units by which a figure may lie past the last reading."""
_CLEAR = 0.02
"""Density by which the densest frame must pass the speed density: no error of reading does it."""

NOT_THIN = "every exposed frame is denser than 0.10 over base plus fog: expose thinner frames"
NOT_REACHED = "no frame reaches 0.10 over base plus fog: expose more"
NOT_DENSE = "the readings end before this density: expose denser frames"
NOT_STRAIGHT = "the slope still rises at the densest frame: expose denser frames"


@dataclass(frozen=True)
class StripMetrics:
    """Everything reported of one strip.

    Attributes
    ----------
    label : str
    time_min, temperature_c : float or None
        As it was; `restated_min` is at the reference temperature.
    curve : Curves
        Batch shape ().
    first, last : float
        Lg exposures of the thinnest and the densest exposed reading.
    """

    label: str
    time_min: float | None
    temperature_c: float | None
    restated_min: float | None
    channel: str
    curve: Curves
    first: float
    last: float
    base_fog: Figure
    log_h_m: Figure
    delta_d: Figure
    speed: Figure
    iso_valid: bool
    zone_ei: Figure
    fractional_gradient_speed: Figure
    average_gradient: Figure
    contrast_index: Figure
    gamma: Figure
    gamma_stops: Figure
    zone8_density: Figure
    gradient_search_speed: Figure
    toe_share: Figure
    shoulder_stops: Figure
    usable_stops: Figure
    max_density: Figure


def _one(curves: Curves, place: int) -> Curves:
    return Curves(
        curves.fog[..., place],
        curves.toe[..., place],
        curves.net[..., place, :],
        curves.slope[..., place, :],
    )


def _all_figures(curves: Curves, last: Array, meter_constant: float) -> dict[str, Array]:
    """Every figure of curves of batch shape (..., n), read up to last, shape (n,)."""
    x_m = metrics.speed_point(curves)
    delta = metrics.delta_d(curves, x_m)
    index, crossing = metrics.contrast_index(curves)
    reach = np.broadcast_to(last, curves.toe.shape)
    slope, start, end = metrics.gamma(curves, reach)
    fine = detail_of(curves, reach, (slope, end))
    return {
        "base_fog": curves.fog,
        "log_h_m": x_m,
        "delta_d": delta,
        "speed": metrics.arithmetic_speed(x_m),
        "zone_ei": metrics.zone_ei(x_m, meter_constant),
        "fractional_gradient_speed": metrics.fractional_gradient_speed(x_m, delta),
        "average_gradient": metrics.average_gradient(curves, x_m),
        "contrast_index": index,
        "crossing": crossing,
        "densest": net_density_at(curves, last[:, None])[..., 0],
        "gamma": slope,
        "gamma_end": end,
        "gamma_stops": (end - start) / STOP,
        "zone8_density": metrics.zone8_density(curves, x_m),
        "gradient_search_speed": 0.8 / 10.0 ** (fine.fractional_x + 0.2956),
        "toe_share": fine.toe_share,
        "shoulder_stops": (fine.shoulder_x - x_m) / STOP - ZONE_I_STOPS,
        "usable_stops": fine.usable_stops,
        "max_density": fine.max_density,
    }


_RATIOS = {"speed", "zone_ei", "fractional_gradient_speed", "gradient_search_speed"}
_MISSING = {
    "shoulder_stops": "no shoulder within the readings: expose denser frames to find it",
    "usable_stops": "no shoulder within the readings, so the range has no upper end",
    "max_density": "density still rises at the last reading",
}
_REACH = {
    "delta_d": metrics.ISO_RANGE,
    "fractional_gradient_speed": metrics.ISO_RANGE,
    "average_gradient": metrics.GRADIENT_RANGE,
    "gradient_search_speed": metrics.GRADIENT_RANGE,
    "toe_share": metrics.GRADIENT_RANGE / 2,
    "zone8_density": metrics.ZONE_VIII_RANGE,
}
"""Lg units above the speed point up to which each figure needs readings."""


def _reason(name: str, best: dict[str, Array], first: float, last: float, foot: bool) -> str:
    """Why a figure is out of reach of the readings; empty where it is not."""
    x_m = float(best["log_h_m"])
    if not foot and name not in ("gamma", "gamma_stops"):
        return NO_FOOT
    if name == "base_fog":
        return ""
    if name == "contrast_index":
        crossing = float(best["crossing"])
        return "" if crossing <= last + _SLACK else NOT_DENSE
    if name in ("gamma", "gamma_stops"):
        still_rising = float(best["gamma_end"]) > last - 0.1 and float(best["gamma_stops"]) < 1
        return NOT_STRAIGHT if still_rising else ""
    if not np.isfinite(x_m) or float(best["densest"]) < metrics.SPEED_DENSITY + _CLEAR:
        return NOT_REACHED
    if x_m < first - _SLACK:
        return NOT_THIN
    return NOT_DENSE if x_m + _REACH.get(name, 0.0) > last + _SLACK else ""


def _strip(
    strip: StripReadings,
    restated: float | None,
    curve: Curves,
    best: dict[str, Array],
    cloud: dict[str, Array] | None,
    ends: tuple[float, float],
    freedom: float,
    foot: bool,
) -> StripMetrics:
    first, last = ends
    reported: dict[str, Figure] = {}
    for name in best.keys() - {"crossing", "gamma_end", "densest"}:
        reason = _reason(name, best, first, last, foot)
        make = ratio_figure if name in _RATIOS else linear_figure
        value = float(best[name])
        draws = None if cloud is None else cloud[name]
        reported[name] = (
            absent(reason) if reason else make(value, draws, freedom, _MISSING.get(name, NOT_DENSE))
        )
    delta = reported["delta_d"].value
    valid = delta is not None and abs(delta - metrics.ISO_DELTA_D) <= metrics.ISO_TOLERANCE
    return StripMetrics(
        strip.label,
        strip.time_min,
        strip.temperature_c,
        restated,
        strip.channel,
        curve,
        first,
        last,
        iso_valid=valid,
        **reported,
    )


def metrics_of_strips(
    strips: tuple[StripReadings, ...],
    fit: Fit,
    draws: Array | None,
    meter_constant: float,
    sign: float = 1.0,
) -> tuple[StripMetrics, ...]:
    """Report every strip of a fit.

    Parameters
    ----------
    strips : tuple of StripReadings
        Those the fit was made from, in the same order.
    fit : Fit
    draws : ndarray, shape (B, P), or None
        None leaves the intervals out.
    meter_constant : float
    sign : float
        As given to the fit.
    """
    # Fog follows development time, so the blank of one strip speaks for the others.
    fog_known = any(len(strip.blanks()) for strip in strips)
    made: list[StripMetrics] = []
    for start in range(0, len(strips), _AT_ONCE):
        checkpoint()
        which = slice(start, start + _AT_ONCE)
        made += _block(strips, fit, draws, meter_constant, sign, fog_known, which)
    return tuple(made)


_AT_ONCE = 16
"""Strips whose drawn curves are held in memory together."""


def _block(
    strips: tuple[StripReadings, ...],
    fit: Fit,
    draws: Array | None,
    meter_constant: float,
    sign: float,
    fog_known: bool,
    which: slice,
) -> list[StripMetrics]:
    curves = curves_of_strips(fit, fit.phi, which)
    read = [(sign * x, density) for x, density in (strip.exposed() for strip in strips[which])]
    last = np.array([x.max() for x, _ in read])
    best = _all_figures(curves, last, meter_constant)
    drawn = None
    if draws is not None:
        drawn = _all_figures(curves_of_strips(fit, draws, which), last, meter_constant)
    return [
        _strip(
            strip,
            float(time) if strip.time_min else None,
            _one(curves, i),
            {name: values[i] for name, values in best.items()},
            None if drawn is None else {name: values[:, i] for name, values in drawn.items()},
            (float(read[i][0].min()), float(last[i])),
            fit.freedom,
            fog_known or foot_is_flat(*read[i], curves, i),
        )
        for i, (strip, time) in enumerate(zip(strips[which], fit.model.times[which], strict=True))
    ]

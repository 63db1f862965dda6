"""Colour material and stain: speeds from several layers, and the density a print sees."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.curves.foot import foot_is_flat
from vadrin.core.curves.shape import log_h_at
from vadrin.core.figure import Figure, absent
from vadrin.core.fitting.fit import curves_of_strips, draws_of, fit_strips
from vadrin.core.fitting.intervals import ratio_figure
from vadrin.core.readings import StripReadings

NEGATIVE_DENSITY = 0.15
"""Over D_min, status M (ISO 5800)."""

REVERSAL_LOW, REVERSAL_HIGH = 0.20, 2.0
"""Over D_min (ISO 2240)."""


_SLACK = 0.03
_NO_EXPOSURE = 1.5
"""Lg units under the least exposure at which a frame without any is drawn."""


@dataclass(frozen=True)
class _Layer:
    best: float
    drawn: Array
    freedom: float


def _layer(
    strip: StripReadings, density: float, sign: float, rng: np.random.Generator
) -> _Layer | None:
    """Lg exposure at a density over D_min, best and drawn; None where it is not reached."""
    if sign < 0:
        strip = blanks_as_least_exposed(strip)
    try:
        fit = fit_strips((strip,), sign=sign)
    except ValueError:
        return None
    best = float(log_h_at(curves_of_strips(fit, fit.phi), density)[0])
    drawn = log_h_at(curves_of_strips(fit, draws_of(fit, 200, rng)), density)[:, 0]
    x, read = strip.exposed()
    curves = curves_of_strips(fit, fit.phi)
    top = float(read.max() - curves.fog[0])
    blank = sign > 0 and len(strip.blanks()) > 0
    foot = blank or foot_is_flat(sign * x, read, curves, 0)
    inside = best > float((sign * x).min()) - _SLACK
    if not np.isfinite(best) or density > top + 0.02 or not foot or not inside:
        return None
    return _Layer(sign * best, sign * drawn, fit.freedom)


def blanks_as_least_exposed(strip: StripReadings) -> StripReadings:
    """On reversal material a frame without exposure has the greatest density."""
    x, _ = strip.exposed()
    if not len(x):
        return strip
    least = float(x.min()) - _NO_EXPOSURE
    rows = tuple(r if r.log_h is not None else replace(r, log_h=least) for r in strip.readings)
    return replace(strip, readings=rows)


def colour_negative_speed(
    green: StripReadings, others: tuple[StripReadings, ...], rng: np.random.Generator
) -> Figure:
    """Speed of a colour negative, sqrt(2) / sqrt(H_green H_slowest) (ISO 5800).

    Parameters
    ----------
    green : StripReadings
    others : tuple of StripReadings
        The red and blue readings of the same strip.
    rng : numpy.random.Generator
        For the interval.
    """
    layers = [_layer(strip, NEGATIVE_DENSITY, 1.0, rng) for strip in (green, *others)]
    known = [layer for layer in layers if layer is not None]
    if len(known) < 3 or layers[0] is None:
        return absent(
            "all three layers must begin at their minimum and reach 0.15 over it: read red, "
            "green, blue"
        )
    slowest = max(known, key=lambda layer: layer.best)
    return _mean_speed(np.sqrt(2.0), layers[0], slowest)


def colour_reversal_speed(strip: StripReadings, rng: np.random.Generator) -> Figure:
    """Speed of reversal material, 10 / sqrt(H_S H_T) (ISO 2240).

    Density falls with exposure; T lies 0.20 and S 2.0 over D_min. Absent, with the reason,
    where the maximum does not reach 2.0 over D_min.
    """
    light = _layer(strip, REVERSAL_LOW, -1.0, rng)
    dark = _layer(strip, REVERSAL_HIGH, -1.0, rng)
    if light is None:
        return absent("the frames end before the minimum: expose more")
    if dark is None:
        return absent("the maximum does not reach 2.0 over the minimum")
    return _mean_speed(10.0, light, dark)


def _mean_speed(constant: float, first: _Layer, second: _Layer) -> Figure:
    best = constant / 10.0 ** (0.5 * (first.best + second.best))
    cloud = constant / 10.0 ** (0.5 * (first.drawn + second.drawn))
    return ratio_figure(float(best), cloud, min(first.freedom, second.freedom), "")


def density_falls(strip: StripReadings) -> bool:
    """Whether density falls as exposure rises, as on reversal material."""
    x, density = strip.exposed()
    if len(x) < 4 or np.ptp(x) == 0:
        return False
    order = np.argsort(x)
    third = max(1, len(x) // 3)
    return bool(density[order[:third]].mean() - density[order[-third:]].mean() > 0.3)


def stain(visual: Array, blue: Array) -> Array:
    """Stain density: blue (or UV) reading less the visual one, frame by frame (ISO 5-3).

    Parameters
    ----------
    visual, blue : ndarray, shape (n,)
        Densities of the same frames. The blue one is what paper sees.
    """
    return np.asarray(blue - visual)

"""The figures of each strip, with reasons where a reading is out of reach."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.curves import metrics
from vadrin.core.curves.foot import NO_FOOT, foot_is_flat
from vadrin.core.curves.shape import Curves
from vadrin.core.figure import Figure, absent
from vadrin.core.fitting.fit import Fit, curves_of_strips
from vadrin.core.fitting.intervals import linear_figure, ratio_figure
from vadrin.core.interruption import checkpoint
from vadrin.core.readings import StripReadings
from vadrin.core.results.strip_figures import STRIP_FIGURES, CurveRead, Reach, StripFigure


class _FigureOf:
    """A figure the program itself reckons with, by the name of its key."""

    def __set_name__(self, owner: type, name: str) -> None:
        self.key = name

    def __get__(self, strip: StripMetrics, owner: type | None = None) -> Figure:
        return strip.figures[self.key]


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
    iso_valid : bool
    figures : dict of str to Figure
        Every one of `STRIP_FIGURES`, by its key.
    """

    label: str
    time_min: float | None
    temperature_c: float | None
    restated_min: float | None
    channel: str
    curve: Curves
    first: float
    last: float
    iso_valid: bool
    figures: dict[str, Figure]

    base_fog = _FigureOf()
    log_h_m = _FigureOf()
    delta_d = _FigureOf()
    speed = _FigureOf()
    zone_ei = _FigureOf()
    fractional_gradient_speed = _FigureOf()
    average_gradient = _FigureOf()
    contrast_index = _FigureOf()
    gamma = _FigureOf()
    zone8_density = _FigureOf()
    gradient_search_speed = _FigureOf()
    toe_share = _FigureOf()
    shoulder_stops = _FigureOf()
    max_density = _FigureOf()


def _one(curves: Curves, place: int) -> Curves:
    return Curves(
        curves.fog[..., place],
        curves.toe[..., place],
        curves.net[..., place, :],
        curves.slope[..., place, :],
    )


def _values(read: CurveRead) -> dict[str, Array]:
    """Every figure of curves, by its key."""
    return {figure.key: figure.of(read) for figure in STRIP_FIGURES}


def _why_not(figure: StripFigure, reach: Reach, foot: bool) -> str:
    """Why a figure is out of reach of the readings; empty where it is not."""
    return NO_FOOT if figure.needs_foot and not foot else figure.limit(reach)


def _figures(
    best: dict[str, Array], cloud: dict[str, Array] | None, reach: Reach, freedom: float, foot: bool
) -> dict[str, Figure]:
    reported: dict[str, Figure] = {}
    for figure in STRIP_FIGURES:
        why = _why_not(figure, reach, foot)
        make = ratio_figure if figure.ratio else linear_figure
        draws = None if cloud is None else cloud[figure.key]
        value = float(best[figure.key])
        told = absent(why) if why else make(value, draws, freedom, figure.missing)
        reported[figure.key] = _narrowed(told, figure.spread)
    return reported


def _narrowed(told: Figure, spread: float) -> Figure:
    """A figure whose range reaches a share as far to either side."""
    if spread == 1.0 or told.value is None or told.low is None or told.high is None:
        return told
    low, high = (told.value + spread * (end - told.value) for end in (told.low, told.high))
    return replace(told, low=low, high=high)


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
    best = CurveRead.of(curves, last, meter_constant)
    values, drawn = _values(best), None
    if draws is not None:
        drawn = _values(CurveRead.of(curves_of_strips(fit, draws, which), last, meter_constant))
    made = []
    for i, (strip, time) in enumerate(zip(strips[which], fit.model.times[which], strict=True)):
        reach = _reach(best, i, float(read[i][0].min()), float(last[i]))
        figures = _figures(
            {name: value[i] for name, value in values.items()},
            None if drawn is None else {name: value[:, i] for name, value in drawn.items()},
            reach,
            fit.freedom,
            fog_known or foot_is_flat(*read[i], curves, i),
        )
        made.append(
            StripMetrics(
                strip.label,
                strip.time_min,
                strip.temperature_c,
                float(time) if strip.time_min else None,
                strip.channel,
                _one(curves, i),
                reach.first,
                reach.last,
                _iso_valid(figures["delta_d"]),
                figures,
            )
        )
    return made


def _reach(best: CurveRead, place: int, first: float, last: float) -> Reach:
    return Reach(
        first,
        last,
        float(best.x_m[place]),
        float(best.crossing[place]),
        float(best.densest[place]),
        float(best.gamma_end[place]),
        float(best.gamma_stops[place]),
    )


def _iso_valid(delta: Figure) -> bool:
    """Whether a strip was developed as the standard of film speed asks."""
    return (
        delta.value is not None and abs(delta.value - metrics.ISO_DELTA_D) <= metrics.ISO_TOLERANCE
    )

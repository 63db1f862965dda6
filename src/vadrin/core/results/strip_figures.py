"""Every figure of a strip, declared once: how it is read off the curve, and how it is shown."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.curves import metrics
from vadrin.core.curves.detail import Detail, detail_of
from vadrin.core.curves.shape import Curves, net_density_at
from vadrin.core.exposure.arithmetic import STOP, ZONE_I_STOPS

NOT_THIN = "every exposed frame is denser than 0.10 over base plus fog: give less exposure"
NOT_REACHED = "no frame reaches 0.10 over base plus fog: expose more"
NOT_DENSE = "the readings end before this density: give more exposure"
NOT_STRAIGHT = "the slope still rises at the densest frame: give more exposure"

_SLACK = 0.03
"""Lg units by which a figure may lie past the last reading."""
_CLEAR = 0.02
"""Density by which the densest frame must pass the speed density: no error of reading does it."""
_NO_SHOULDER = "no shoulder within the readings"


@dataclass(frozen=True)
class CurveRead:
    """Curves of batch shape (..., n) with what several figures need of them, shape (..., n).

    Attributes
    ----------
    curves : Curves
    meter_constant : float
    x_m, delta : ndarray
        Lg exposure of the speed point, and the density range above it.
    index, crossing : ndarray
        Contrast index, and the lg exposure up to which it reads.
    gamma, gamma_stops, gamma_end : ndarray
    densest : ndarray
        Net density at the last reading.
    fine : Detail
    """

    curves: Curves
    meter_constant: float
    x_m: Array
    delta: Array
    index: Array
    crossing: Array
    gamma: Array
    gamma_stops: Array
    gamma_end: Array
    densest: Array
    fine: Detail

    @classmethod
    def of(cls, curves: Curves, last: Array, meter_constant: float) -> CurveRead:
        """Read curves up to ``last``, shape (n,)."""
        x_m = metrics.speed_point(curves)
        index, crossing = metrics.contrast_index(curves)
        reach = np.broadcast_to(last, curves.toe.shape)
        slope, start, end = metrics.gamma(curves, reach)
        return cls(
            curves=curves,
            meter_constant=meter_constant,
            x_m=x_m,
            delta=metrics.delta_d(curves, x_m),
            index=index,
            crossing=crossing,
            gamma=slope,
            gamma_stops=(end - start) / STOP,
            gamma_end=end,
            densest=net_density_at(curves, last[:, None])[..., 0],
            fine=detail_of(curves, reach, (slope, end)),
        )


@dataclass(frozen=True)
class Reach:
    """How far one strip was read: lg exposures of its thinnest and its densest frame, and the
    best estimates that tell what lies within.
    """

    first: float
    last: float
    x_m: float
    crossing: float
    densest: float
    gamma_end: float
    gamma_stops: float


Limit = Callable[[Reach], str]
"""Why a figure is out of reach of the readings; empty where it is not."""


def above_speed_point(span: float) -> Limit:
    """A figure read off up to so many lg units above the speed point."""

    def why(reach: Reach) -> str:
        if not np.isfinite(reach.x_m) or reach.densest < metrics.SPEED_DENSITY + _CLEAR:
            return NOT_REACHED
        if reach.x_m < reach.first - _SLACK:
            return NOT_THIN
        return NOT_DENSE if reach.x_m + span > reach.last + _SLACK else ""

    return why


def _always(_: Reach) -> str:
    return ""


def _crossing(reach: Reach) -> str:
    return "" if reach.crossing <= reach.last + _SLACK else NOT_DENSE


def _straight(reach: Reach) -> str:
    still_rising = reach.gamma_end > reach.last - 0.1 and reach.gamma_stops < 1
    return NOT_STRAIGHT if still_rising else ""


AT_SPEED_POINT = above_speed_point(0.0)


@dataclass(frozen=True)
class StripFigure:
    """One figure of a strip.

    Attributes
    ----------
    key : str
        Its key in a report.
    of : callable
        Reads it off curves.
    limit : callable
        Why the readings do not reach it.
    ratio : bool
        Whether its range is of ratios: speeds and EIs.
    missing : str
        Why there is none where the curve itself does not tell.
    needs_foot : bool
        Whether it is measured from base plus fog.
    name : str
        As it is shown of a strip; empty for a figure that is only reported.
    places : int or None
        Decimals; None for an EI, which is shown as the dial marks it.
    rank : int
        Its place among those that are shown.
    spread : float
        What its range is of that of the draws: those of a curve's ends wander further than films
        of known curves bear out.
    """

    key: str
    of: Callable[[CurveRead], Array]
    limit: Limit = AT_SPEED_POINT
    ratio: bool = False
    missing: str = NOT_DENSE
    needs_foot: bool = True
    name: str = ""
    places: int | None = None
    rank: int = 0
    spread: float = 1.0


RANGE_STOPS = (5, 7, 9)
"""Stops of scene over which a negative's density range is given."""


def _range_over(stops: int) -> StripFigure:
    """Density a negative has more at so many stops above the speed point than there."""

    def of(read: CurveRead) -> Array:
        above = (read.x_m + stops * STOP)[..., None]
        return net_density_at(read.curves, above)[..., 0] - metrics.SPEED_DENSITY

    return StripFigure(f"density_range_{stops}", of, above_speed_point(stops * STOP))


STRIP_FIGURES = (
    StripFigure(
        "base_fog", lambda c: c.curves.fog, _always, name="base plus fog", places=3, rank=9
    ),
    StripFigure("log_h_m", lambda c: c.x_m, name="log H at speed point", places=2, rank=8),
    StripFigure(
        "delta_d",
        lambda c: c.delta,
        above_speed_point(metrics.ISO_RANGE),
        name="ΔD",
        places=2,
        rank=7,
    ),
    StripFigure(
        "speed", lambda c: metrics.arithmetic_speed(c.x_m), ratio=True, name="speed 0.8/H", rank=2
    ),
    StripFigure(
        "zone_ei",
        lambda c: metrics.zone_ei(c.x_m, c.meter_constant),
        ratio=True,
        name="Zone I EI",
        rank=1,
    ),
    StripFigure(
        "fractional_gradient_speed",
        lambda c: metrics.fractional_gradient_speed(c.x_m, c.delta),
        above_speed_point(metrics.ISO_RANGE),
        ratio=True,
    ),
    StripFigure(
        "average_gradient",
        lambda c: metrics.average_gradient(c.curves, c.x_m),
        above_speed_point(metrics.GRADIENT_RANGE),
        name="average gradient",
        places=3,
        rank=3,
    ),
    StripFigure(
        "contrast_index", lambda c: c.index, _crossing, name="contrast index", places=3, rank=4
    ),
    StripFigure(
        "gamma", lambda c: c.gamma, _straight, needs_foot=False, name="gamma", places=3, rank=5
    ),
    StripFigure("gamma_stops", lambda c: c.gamma_stops, _straight, needs_foot=False),
    StripFigure(
        "zone8_density",
        lambda c: metrics.zone8_density(c.curves, c.x_m),
        above_speed_point(metrics.ZONE_VIII_RANGE),
        name="Zone VIII density",
        places=2,
        rank=6,
    ),
    StripFigure(
        "gradient_search_speed",
        lambda c: 0.8 / 10.0 ** (c.fine.fractional_x + 0.2956),
        above_speed_point(metrics.GRADIENT_RANGE),
        ratio=True,
    ),
    StripFigure(
        "toe_share", lambda c: c.fine.toe_share, above_speed_point(metrics.GRADIENT_RANGE / 2)
    ),
    StripFigure(
        "shoulder_stops",
        lambda c: (c.fine.shoulder_x - c.x_m) / STOP - ZONE_I_STOPS,
        missing=f"{_NO_SHOULDER}: give more exposure to find it",
    ),
    StripFigure(
        "usable_stops",
        lambda c: c.fine.usable_stops,
        spread=0.8,
        missing=f"{_NO_SHOULDER}, so the range has no upper end",
    ),
    StripFigure("max_density", lambda c: c.fine.max_density, missing="no maximum reached"),
    *(_range_over(stops) for stops in RANGE_STOPS),
)
"""In the order of a report. One more line here is reported, and shown where it has a name."""

"""What a plan is going to tell, before a frame is spent.

The film's likely curves are exposed and developed as planned, and the curvature of the fit
those readings would get is asked for its uncertainty: the same arithmetic as behind the
intervals of a finished test, to first order, with the noise of the instrument and the usual
straying of films and strips assumed instead of learnt.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from vadrin.core import law as laws
from vadrin.core.analysis import Settings
from vadrin.core.family import Family
from vadrin.core.figure import Figure, absent
from vadrin.core.finding import ONE_STRIP, Finding, Sample, find
from vadrin.core.law import Law
from vadrin.core.likely import Likely, carried, likely_curve
from vadrin.core.misreads import factor_of
from vadrin.core.propagation import Moment, Normal, held_push, normal_of
from vadrin.core.push import push_table
from vadrin.core.quantile import t_quantile
from vadrin.core.shape import Array, curves_of, net_density_at
from vadrin.core.solver import Scales, Table, model, precision_of

USUAL_BEND, USUAL_STRAY = 0.17, 0.08
"""Freedoms with which forecasts for films of the simulator came true; strips developed with
less care stray more, and the finished test then says so."""
_FREEDOM, _STEPS = 400.0, 49
_FEWEST, _USUAL_MIN = 4, 8.0


@dataclass(frozen=True)
class PlannedStrip:
    """One strip of a plan: its minutes (None where not fixed), and lg exposures; NaN is blank.

    Strips of one material are worked out together, others apart.
    """

    label: str
    time_min: float | None
    log_h: tuple[float, ...]
    material: str = ""


@dataclass(frozen=True)
class Prediction:
    """Expected answers with the intervals to expect; `why` where nothing can be answered.

    Attributes
    ----------
    zone_ei, time_min : Figure
    push_times : tuple of Figure
        Minutes that hold the mid-tone, for each push asked for.
    """

    zone_ei: Figure
    time_min: Figure
    push_times: tuple[Figure, ...] = ()

    @property
    def ei_spread(self) -> float | None:
        """Expected RMS error of the EI in stops."""
        return _spread(self.zone_ei, 2.0)

    @property
    def time_spread(self) -> float | None:
        """Expected RMS error of the time as a share of it."""
        return _spread(self.time_min, float(np.e))


def _spread(figure: Figure, base: float) -> float | None:
    if figure.low is None or figure.high is None or figure.low <= 0:
        return None
    return float(np.log(figure.high / figure.low) / np.log(base) / (2 * 1.96))


@dataclass(frozen=True)
class _Posed:
    """A plan as the fit would see it: law, parameters, covariance, the exposures' ends."""

    law: Law
    phi: Array
    covariance: Array
    thinnest: float
    densest: float

    def spread(self, by_vector: Array) -> float:
        return float(np.sqrt(by_vector @ self.covariance @ by_vector))


def _clear(likely: Likely, strip: PlannedStrip) -> bool:
    """Whether enough frames of a strip rise out of the fog to draw a curve through."""
    x = np.array(strip.log_h)
    x = x[np.isfinite(x)]
    if len(x) < _FEWEST:
        return False
    net = net_density_at(likely_curve(likely, strip.time_min or _USUAL_MIN), x)
    return bool(np.ptp(net) > 0.15)


def _posed(likely: Likely, strips: tuple[PlannedStrip, ...], noise: float) -> _Posed:
    law = laws.law_for(np.array([s.time_min or _USUAL_MIN for s in strips]))
    phi = carried(likely, law)
    x = np.concatenate([s.log_h for s in strips])
    place = np.concatenate([np.full(len(s.log_h), i) for i, s in enumerate(strips)])
    table = Table(place, x, np.zeros(len(x)), ())
    _, jacobian = model(law, phi, table)
    _, spread = laws.prior(law, 0.0, 0.0)
    precision = precision_of(law, spread, Scales(noise, USUAL_BEND, USUAL_STRAY))
    hessian = jacobian.T @ jacobian / noise**2 + np.diag(precision)
    root = np.linalg.inv(factor_of(hessian))
    thinnest = float(np.median([np.nanmin(s.log_h) for s in strips]))
    densest = float(np.median([np.nanmax(s.log_h) for s in strips]))
    return _Posed(law, phi, root.T @ root, thinnest, densest)


def predict(
    likely: Likely, plan: tuple[PlannedStrip, ...], noise: float, settings: Settings | None = None
) -> Prediction:
    """Expected answers of a plan.

    Parameters
    ----------
    likely : Likely
        The film's likely curves: its own last ones, or those of a typical film of its speed.
    plan : tuple of PlannedStrip
    noise : float
        Standard deviation of one density reading.
    settings : Settings, optional

    Returns
    -------
    Prediction
        Never raises: what the plan cannot answer is absent with the reason.
    """
    settings = settings or Settings()
    strips = tuple(s for s in plan if _clear(likely, s))
    if not strips:
        why = "too few frames rise out of the fog; a curve takes four on one strip"
        return Prediction(absent(why), absent(why))
    posed = _posed(likely, strips, noise)
    if posed.law.distinct < 2:
        return _of_one_time(posed, strips[0], settings)
    return _of_family(likely, posed, settings)


def _figure(value: float, spread: float) -> Figure:
    """A figure even in its logarithm."""
    reach = t_quantile(0.975, _FREEDOM) * spread
    return Figure(value, float(value * np.exp(-reach)), float(value * np.exp(reach)))


def _of_one_time(posed: _Posed, strip: PlannedStrip, settings: Settings) -> Prediction:
    minutes = float(posed.law.times[0])
    moment = Moment(posed.law, posed.phi, minutes, settings.meter_constant, 0)
    index = moment.ln_zone_ei()
    x_m = moment.speed_point
    lit = [x for x in strip.log_h if np.isfinite(x)]
    if not np.isfinite(index.value) or not min(lit) - 0.03 <= x_m <= max(lit):
        why = "no frame is as thin as the speed point, or none is as dense: move the bracket"
        return Prediction(absent(why), absent(ONE_STRIP))
    zone = _figure(float(np.exp(index.value)), posed.spread(index.by_vector))
    return Prediction(zone, absent(ONE_STRIP))


def _sample(posed: _Posed, rows: Array, times: Array, settings: Settings) -> Sample:
    curves = curves_of(rows, laws.bends_of(posed.phi)[None, :])
    family = Family(times, curves, settings.meter_constant)
    low, high = float(posed.law.times.min()), float(posed.law.times.max())
    return Sample(family, None, low, high, posed.thinnest, posed.densest, _FREEDOM)


def _line_misses(
    likely: Likely, posed: _Posed, found: Finding, times: Array, settings: Settings
) -> tuple[float, float]:
    """By how much two strips, joined by a straight line, miss EI and time, both in ln."""
    if posed.law.distinct > 2:
        return 0.0, 0.0
    real = _sample(posed, laws.rows_at(likely.law, likely.phi, times), times, settings)
    true, _ = find(real, settings.target)
    if true.time_min.value is None or true.zone_ei.value is None:
        return 0.0, 0.0
    index = float(np.log(found.zone_ei.known() / true.zone_ei.value))
    return index, float(np.log(found.time_min.known() / true.time_min.value))


def _of_family(likely: Likely, posed: _Posed, settings: Settings) -> Prediction:
    low, high = posed.law.times.min(), posed.law.times.max()
    times = np.geomspace(low * 0.8, high * 1.25, _STEPS)
    sample = _sample(posed, laws.rows_at(posed.law, posed.phi, times), times, settings)
    finding, _ = find(sample, settings.target)
    if finding.time_min.value is None or finding.zone_ei.value is None:
        return Prediction(finding.zone_ei, finding.time_min)
    at = Moment(posed.law, posed.phi, finding.time_min.value, settings.meter_constant)
    normal = normal_of(at, settings.target)
    index_off, time_off = _line_misses(likely, posed, finding, times, settings)
    return Prediction(
        _figure(finding.zone_ei.value, np.hypot(posed.spread(normal.ln_zone_ei), index_off)),
        _figure(finding.time_min.value, np.hypot(posed.spread(normal.ln_time), time_off)),
        _push_times(posed, sample, finding, at, normal, settings),
    )


def _push_times(
    posed: _Posed, sample: Sample, finding: Finding, at: Moment, normal: Normal,
    settings: Settings,
) -> tuple[Figure, ...]:  # fmt: skip
    made = []
    for row in push_table(sample, finding, None, settings.pushes):
        time = row.hold_midtone.time_min
        if time.value is not None:
            there = Moment(posed.law, posed.phi, time.value, settings.meter_constant)
            by_vector = held_push(normal, at, there, row.stops)
            time = _figure(time.value, posed.spread(by_vector))
        made.append(time)
    return tuple(made)

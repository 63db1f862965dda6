"""What a plan is going to tell, before a frame is spent.

The film's likely curves are exposed and developed as planned, and the curvature of the fit
those readings would get is asked for its uncertainty: the same arithmetic as behind the
intervals of a finished test, to first order, with the noise of the instrument and the usual
deviation of films and strips assumed instead of learnt.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.curves.shape import curves_of, net_density_at
from vadrin.core.figure import Figure, absent
from vadrin.core.fitting import development_model
from vadrin.core.fitting.bridges import bridges_of
from vadrin.core.fitting.development_model import SHARED, DevelopmentModel
from vadrin.core.fitting.family import Family
from vadrin.core.fitting.freedoms import even_scales, precision_of
from vadrin.core.fitting.normal_equations import Uncertainty, normal_equations
from vadrin.core.fitting.problem import Table, predicted_densities
from vadrin.core.fitting.student_t import t_quantile
from vadrin.core.planning.delta_method import (
    CurveAtTime,
    NormalDerivatives,
    held_push,
    normal_derivatives,
)
from vadrin.core.planning.film_prior import FilmPrior, prior_curve, prior_parameters
from vadrin.core.results.analysis_result import Settings
from vadrin.core.results.finding import ONE_STRIP, FamilyEstimate, Finding, find
from vadrin.core.results.push import midtone_time

USUAL_NOISE = 0.012
"""Of a density, with an instrument of which nothing is known."""
USUAL_BEND, USUAL_BEND_OF_ONE, USUAL_DEVIATION = 0.22, 0.10, 0.135
"""Freedoms with which forecasts for films of the simulator came true; strips developed with
less care deviate more, and the finished test then says so."""
_FREEDOM, _STEPS = 400.0, 49
_FEWEST, _USUAL_MIN, _SLACK = 4, 8.0, 0.03


@dataclass(frozen=True)
class PlannedStrip:
    """One strip of a plan: its minutes (None where not fixed), and lg exposures; NaN is blank.

    Strips of one material are worked out together, others apart.
    """

    label: str
    time_min: float | None
    log_h: tuple[float, ...]
    material: str = ""


_NO_EI = absent("not asked for")


@dataclass(frozen=True)
class Forecast:
    """Expected answers with the intervals to expect; `why` where nothing can be answered.

    Attributes
    ----------
    zone_ei, time_min : Figure
    push_times : tuple of Figure
        Minutes that hold the mid-tone, for each push asked for.
    without_thinnest, without_densest : Figure
        The EI, were that frame of each strip left out.
    """

    zone_ei: Figure
    time_min: Figure
    push_times: tuple[Figure, ...] = ()
    without_thinnest: Figure = _NO_EI
    without_densest: Figure = _NO_EI

    @property
    def ei_spread(self) -> float | None:
        """Expected RMS error of the EI in stops."""
        return spread_of_ei(self.zone_ei)

    @property
    def time_spread(self) -> float | None:
        """Expected RMS error of the time as a share of it."""
        return _spread(self.time_min, float(np.e))


def spread_of_ei(figure: Figure) -> float | None:
    """RMS error in stops behind the interval of an EI."""
    return _spread(figure, 2.0)


def _spread(figure: Figure, base: float) -> float | None:
    if figure.low is None or figure.high is None or figure.low <= 0:
        return None
    return float(np.log(figure.high / figure.low) / np.log(base) / (2 * 1.96))


@dataclass(frozen=True)
class _Posed:
    """A plan as the fit would see it: law, parameters, and what each exposure would tell."""

    model: DevelopmentModel
    phi: Array
    jacobian: Array
    precision: Array
    unseen: Array
    table: Table
    weights: Array

    @cached_property
    def uncertainty(self) -> Uncertainty:
        laid = self.table.laid(self.weights)
        seen = normal_equations(self.jacobian, laid, self.precision, SHARED)
        return Uncertainty(seen, self.unseen)

    def spread(self, by_vector: Array) -> float:
        return self.uncertainty.spread(by_vector)

    def _ends(self, end: Callable[[Array], float]) -> Array:
        """The thinnest or the densest exposure of each strip."""
        lit = np.where(self.weights > 0, self.table.x, np.nan)
        return np.array([end(row) for row in self.table.laid(lit, np.nan)])

    @property
    def thinnest(self) -> float:
        return float(np.median(self._ends(np.nanmin)))

    @property
    def densest(self) -> float:
        return float(np.median(self._ends(np.nanmax)))

    def without(self, end: Callable[[Array], float]) -> _Posed:
        """The plan without the thinnest or the densest exposure of each strip."""
        kept = self.table.x != self._ends(end)[self.table.strip.astype(np.intp)]
        return replace(self, weights=self.weights * kept)


def _clear(prior: FilmPrior, strip: PlannedStrip) -> bool:
    """Whether enough frames of a strip rise out of the fog to draw a curve through."""
    x = np.array(strip.log_h)
    x = x[np.isfinite(x)]
    if len(x) < _FEWEST:
        return False
    net = net_density_at(prior_curve(prior, strip.time_min or _USUAL_MIN), x)
    return bool(np.ptp(net) > 0.15)


def _posed(prior: FilmPrior, strips: tuple[PlannedStrip, ...], noise: float) -> _Posed:
    model = development_model.model_for(np.array([s.time_min or _USUAL_MIN for s in strips]))
    phi = prior_parameters(prior, model)
    x = np.concatenate([s.log_h for s in strips])
    place = np.repeat(np.arange(len(strips)), [len(s.log_h) for s in strips])
    table = Table(place.astype(np.float64), x, np.zeros(len(x)), ())
    _, jacobian = predicted_densities(model, phi, table)
    blank = not np.isfinite(x).all()
    _, spread = development_model.parameter_prior(model, 0.0, 0.0, blank)
    bend = USUAL_BEND if model.distinct > 1 else USUAL_BEND_OF_ONE
    scales = even_scales(noise, bend, USUAL_DEVIATION)
    precision = precision_of(model, spread, scales)
    phi[model.own_end :], free = bridges_of(model, phi)
    return _Posed(model, phi, jacobian, precision, free**-2, table, np.full(len(x), noise**-2))


def forecast(
    prior: FilmPrior,
    plan: tuple[PlannedStrip, ...],
    noise: float,
    settings: Settings | None = None,
    fewer: bool = False,
) -> Forecast:
    """Expected answers of a plan.

    Parameters
    ----------
    prior : FilmPrior
        The film's likely curves: its own last ones, or those of a typical film of its speed.
    plan : tuple of PlannedStrip
    noise : float
        Standard deviation of one density reading.
    settings : Settings, optional
    fewer : bool
        Whether the EI without the thinnest and without the densest frames is wanted too.

    Returns
    -------
    Prediction
        Never raises: what the plan cannot answer is absent with the reason.
    """
    settings = settings or Settings()
    strips = tuple(s for s in plan if _clear(prior, s))
    if not strips:
        why = "too few frames denser than base plus fog"
        return Forecast(absent(why), absent(why))
    posed = _posed(prior, strips, noise)
    if posed.model.distinct < 2:
        return _of_one_time(posed, settings, fewer)
    return _of_family(posed, settings, fewer)


def _figure(value: float, spread: float) -> Figure:
    """A figure even in its logarithm."""
    reach = t_quantile(0.975, _FREEDOM) * spread
    return Figure(value, float(value * np.exp(-reach)), float(value * np.exp(reach)))


def _of_one_time(posed: _Posed, settings: Settings, fewer: bool) -> Forecast:
    minutes = float(posed.model.times[0])
    moment = CurveAtTime(posed.model, posed.phi, minutes, settings.meter_constant, 0)
    index = moment.ln_zone_ei()

    def answer(plan: _Posed) -> Figure:
        if not plan.thinnest - _SLACK <= moment.speed_point <= plan.densest:
            return absent("no frame is as thin as the speed point, or none as dense")
        return _figure(float(np.exp(index.value)), plan.spread(index.by_vector))

    return Forecast(answer(posed), absent(ONE_STRIP), (), *_less(posed, answer, fewer))


def _less(posed: _Posed, answer: Callable[[_Posed], Figure], wanted: bool) -> tuple[Figure, Figure]:
    """The EI without the thinnest, and without the densest frame of each strip."""
    if not wanted:
        return _NO_EI, _NO_EI
    return answer(posed.without(np.nanmin)), answer(posed.without(np.nanmax))


def _sample(posed: _Posed, rows: Array, times: Array, settings: Settings) -> FamilyEstimate:
    curves = curves_of(rows, development_model.slope_weights_at(posed.model, posed.phi, times))
    family = Family(times, curves, settings.meter_constant)
    low, high = float(posed.model.times.min()), float(posed.model.times.max())
    return FamilyEstimate(family, None, low, high, posed.thinnest, posed.densest, _FREEDOM)


def _of_family(posed: _Posed, settings: Settings, fewer: bool) -> Forecast:
    low, high = posed.model.times.min(), posed.model.times.max()
    times = np.geomspace(low * 0.8, high * 1.25, _STEPS)
    estimate = _sample(
        posed, development_model.curve_parameters(posed.model, posed.phi, times), times, settings
    )
    finding, _ = find(estimate, settings.target)
    if finding.time_min.value is None or finding.zone_ei.value is None:
        return Forecast(finding.zone_ei, finding.time_min)
    at = CurveAtTime(posed.model, posed.phi, finding.time_min.value, settings.meter_constant)
    normal = normal_derivatives(at, settings.target)

    def index(plan: _Posed) -> Figure:
        there = replace(estimate, thinnest=plan.thinnest, densest=plan.densest)
        zone = find(there, settings.target)[0].zone_ei
        if zone.value is None:
            return zone
        return _figure(zone.value, plan.spread(normal.ln_zone_ei))

    return Forecast(
        index(posed),
        _figure(finding.time_min.value, posed.spread(normal.ln_time)),
        _push_times(posed, estimate, finding, at, normal, settings),
        *_less(posed, index, fewer),
    )


def _push_times(
    posed: _Posed,
    estimate: FamilyEstimate,
    finding: Finding,
    at: CurveAtTime,
    normal: NormalDerivatives,
    settings: Settings,
) -> tuple[Figure, ...]:
    made = []
    for stops in settings.pushes:
        time = midtone_time(estimate, finding.time_min.known(), stops)
        if time.value is not None:
            there = CurveAtTime(posed.model, posed.phi, time.value, settings.meter_constant)
            by_vector = held_push(normal, at, there, stops)
            time = _figure(time.value, posed.spread(by_vector))
        made.append(time)
    return tuple(made)

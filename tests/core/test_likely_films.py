"""Likely films: carried from test to plan, and how far forecasts from them can be trusted."""

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from vadrin.core.curves import metrics
from vadrin.core.curves.shape import SLOPE_WEIGHTS
from vadrin.core.exposure.arithmetic import STOP
from vadrin.core.fitting import development_model
from vadrin.core.fitting.family import family_of
from vadrin.core.fitting.fit import fit_strips
from vadrin.core.fitting.intervals import DRAWN_SHARE
from vadrin.core.planning.film_prior import (
    prior_curve,
    prior_of_film,
    prior_of_fit,
    prior_parameters,
    shifted_prior,
)
from vadrin.core.planning.forecast import PlannedStrip, _posed, forecast
from vadrin.core.results.analysis_result import Settings
from vadrin.core.results.criteria import Target
from vadrin.core.results.finding import FamilyEstimate, find
from vadrin.core.results.push import pushes_of
from vadrin.core.simulation.film import (
    Densitometer,
    curve_at,
    expose_and_develop,
    invent_film,
    typical_film,
)

X = math.log10(8.125 / 100) + STOP * np.arange(-6, 5.01, 0.5)
TYPICAL = prior_of_film(typical_film(100.0))
_BENT = TYPICAL.phi.copy()
_BENT[development_model.TILTS] += 0.05 * np.sin(np.arange(SLOPE_WEIGHTS))
TILTED = replace(TYPICAL, phi=_BENT)
"""A film whose curves bend more the longer they are developed."""


def lay_out_plan(times, x=X):
    return tuple(
        PlannedStrip(n, t, (math.nan, math.nan, *x)) for n, t in zip("ABCDE", times, strict=False)
    )


@given(times=st.lists(st.floats(3, 25), min_size=3, max_size=6, unique=True))
@settings(max_examples=60, deadline=None)
def test_a_film_carried_to_other_times_keeps_its_curves(times):
    model = development_model.model_for(np.array(sorted(times)))
    there = development_model.parameters_at(model, prior_parameters(TYPICAL, model), model.times)
    here = development_model.parameters_at(TYPICAL.model, TYPICAL.phi, model.times)
    if model.distinct > 2:
        assert there == pytest.approx(here, abs=2e-3)
    else:
        # A line through two times meets both; repeats lie within two hundredths of them.
        assert there == pytest.approx(here, abs=0.02)
    bent = development_model.slope_weights_at(TILTED.model, TILTED.phi, model.times)
    carried = development_model.slope_weights_at(
        model, prior_parameters(TILTED, model), model.times
    )
    assert carried == pytest.approx(bent, abs=1e-9)


@pytest.mark.parametrize("count", [2, 4])
def test_a_films_own_readings_give_its_own_curves_back(count):
    rng = np.random.default_rng(count)
    film = invent_film(rng, 100.0)
    times = (6.0, 11.0) if count == 2 else (5.0, 7.5, 11.0, 16.0)
    strips = tuple(
        expose_and_develop(film, n, X, t, rng, Densitometer(0.008, 0.0, 3))
        for n, t in zip("ABCD", times, strict=False)
    )
    own = prior_of_fit(fit_strips(strips))
    for minutes in (times[0], 8.5, times[-1]):
        mine, true = prior_curve(own, minutes), curve_at(film, minutes)
        x_m, x_true = metrics.speed_point(mine), metrics.speed_point(true)
        assert float(x_m) == pytest.approx(float(x_true), abs=0.2 * STOP)
        slope = float(metrics.average_gradient(mine, x_m))
        assert slope == pytest.approx(float(metrics.average_gradient(true, x_true)), rel=0.04)
    faster = shifted_prior(own, -STOP)
    gain = metrics.speed_point(prior_curve(own, 8.0)) - metrics.speed_point(
        prior_curve(faster, 8.0)
    )
    assert float(gain) == pytest.approx(STOP)


@pytest.mark.parametrize(
    ("target", "times"),
    [
        (Target(), (5.0, 7.0, 10.0, 14.0)),
        (Target("zone8", 1.2), (5.0, 8.0, 13.0)),
        (Target("scene", 7.0), (4.0, 6.0, 9.0, 13.0)),
        (Target("iso", 0.8), (6.0, 12.0)),
    ],
)
def test_carried_uncertainty_is_that_of_draws(target, times):
    """First order against brute force: draws so close by that the answers are straight there."""
    told = forecast(TILTED, lay_out_plan(times), 0.012, Settings(target=target, pushes=(0.5,)))
    posed = _posed(TILTED, lay_out_plan(times), 0.012)
    rng = np.random.default_rng(4)
    near = 8.0
    away = posed.uncertainty.drawn(rng.standard_normal((1200, posed.uncertainty.size)))
    draws = posed.phi + away / near
    time_grid = np.geomspace(min(times) * 0.8, max(times) * 1.25, 41)
    best, drawn = (family_of(posed.model, p, time_grid, 8.125) for p in (posed.phi, draws))
    estimate = FamilyEstimate(
        best, drawn, min(times), max(times), posed.thinnest, posed.densest, 400.0
    )
    finding, minutes = find(estimate, target)
    rows = pushes_of(estimate, finding, minutes, (0.5,))
    pairs = [(told.zone_ei, finding.zone_ei), (told.time_min, finding.time_min)]
    if rows[0].hold_midtone.time_min.present:
        pairs.append((told.push_times[0], rows[0].hold_midtone.time_min))
    assert len(pairs) >= 2
    for mine, brute in pairs:
        assert mine.value == pytest.approx(brute.value, rel=2e-3)
        wide = math.log(mine.high / mine.low) / math.log(brute.high / brute.low)
        wide /= near * DRAWN_SHARE
        assert 0.93 < wide < 1.07


def test_more_film_is_never_less_sure():
    wide = [
        forecast(TYPICAL, lay_out_plan(times), 0.012).ei_spread
        for times in ((6.0, 9.0), (6.0, 7.5, 9.0), (6.0, 7.0, 8.0, 9.0))
    ]
    assert wide == sorted(wide, reverse=True)
    coarse = forecast(TYPICAL, lay_out_plan((6.0, 9.0), X[::2]), 0.012).ei_spread
    assert coarse > wide[0]
    noisy = forecast(TYPICAL, lay_out_plan((6.0, 9.0)), 0.03).ei_spread
    assert noisy > 1.5 * wide[0]

"""The curve on its grid: integration, inverse, monotone slope, and the law over time."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.integrate import quad

from vadrin.core.curves.detail import detail_of, fractional_gradient_point
from vadrin.core.curves.metrics import average_gradient, contrast_index, gamma, speed_point
from vadrin.core.curves.shape import (
    GRID,
    SLOPE_WEIGHTS,
    curves_of,
    design,
    log_h_at,
    net_density_at,
)
from vadrin.core.fitting import development_model
from vadrin.core.fitting.family import Family, at_time, figure_at_time, time_reaching
from vadrin.core.simulation.film import curve_at, invent_film, time_for_delta_d

ROW = np.array([0.2, np.log(0.62), -1.9, np.log(0.14), 2.8, np.log(0.33)])
STRAIGHT = np.zeros(SLOPE_WEIGHTS)

rows = st.tuples(
    st.floats(0.0, 0.5),
    st.floats(-1.5, 0.5),
    st.floats(-4.0, 1.0),
    st.floats(-2.8, -1.0),
    st.floats(1.5, 4.0),
    st.floats(-2.0, 0.0),
).map(np.array)
slope_weights = st.lists(st.floats(-0.5, 0.5), min_size=SLOPE_WEIGHTS, max_size=SLOPE_WEIGHTS).map(
    np.array
)


def slope_of_row(x, row=ROW):
    _, ln_g, toe, a, span, b = row
    u = x - toe
    return np.exp(ln_g) / (1 + np.exp(-u / np.exp(a))) / (1 + np.exp(-(span - u) / np.exp(b)))


@pytest.mark.parametrize("x", [-2.4, -1.9, -1.2, 0.3, 1.4])
def test_net_density_is_the_integral_of_the_slope(x):
    curves = curves_of(ROW, STRAIGHT)
    exact, _ = quad(slope_of_row, -8.0, x, epsabs=1e-10)
    assert float(net_density_at(curves, np.array([x]))[0]) == pytest.approx(exact, abs=2e-4)


@given(row=rows, slope_weight=slope_weights, share=st.floats(0.02, 0.9))
@settings(max_examples=60, deadline=None)
def test_density_never_falls_and_the_inverse_returns(row, slope_weight, share):
    curves = curves_of(row, slope_weight)
    assert (curves.slope >= 0).all()
    assert (np.diff(curves.net) >= 0).all()
    goal = float(share * curves.net[-1])
    if goal <= curves.net[0]:
        return
    x = log_h_at(curves, goal)
    assert float(net_density_at(curves, np.array([x]))[0]) == pytest.approx(goal, abs=1e-3)
    assert np.isnan(log_h_at(curves, float(curves.net[-1]) + 0.1))


@given(row=rows, slope_weight=slope_weights)
@settings(max_examples=25, deadline=None)
def test_derivatives_are_those_of_the_model(row, slope_weight):
    x = row[2] + np.linspace(-0.8, 3.5, 9)
    other = row + 0.05

    def both(rows, at=x):
        """Two strips side by side, the second with one frame less and a blank."""
        two = np.stack([at, np.append(at[:-1], np.nan)])
        values, derivatives = design(np.stack([rows, other]), np.stack([slope_weight] * 2), two)
        assert values[1, -1] == pytest.approx(other[0], abs=1e-12)
        assert np.count_nonzero(derivatives[1, -1]) == 1
        return values[0], derivatives[0]

    _, derivatives = both(row)
    step = 1e-5
    for place in range(6):
        moved = [row.copy(), row.copy()]
        moved[0][place] -= step
        moved[1][place] += step
        low, high = (both(m)[0] for m in moved)
        numeric = (high - low) / (2 * step)
        near = 0.02 * max(1.0, float(np.abs(numeric).max()))
        assert derivatives[:, place] == pytest.approx(numeric, abs=near)


def test_batches_are_the_same_as_single_curves():
    many = np.stack([ROW, ROW + np.array([0.1, 0.2, 0.3, 0.1, -0.2, 0.1])])
    both = curves_of(many, STRAIGHT)
    for place in range(2):
        one = curves_of(many[place], STRAIGHT)
        assert both.net[place] == pytest.approx(one.net)
        for figure in (speed_point, fractional_gradient_point):
            assert figure(both)[place] == pytest.approx(float(figure(one)))
        assert contrast_index(both)[0][place] == pytest.approx(float(contrast_index(one)[0]))


def test_gamma_is_the_slope_of_the_straight_line():
    slope, start, end = gamma(curves_of(ROW, STRAIGHT), np.asarray(3.0))
    assert float(slope) == pytest.approx(0.62, rel=0.02)
    assert float(end - start) > 1.0
    assert slope_of_row(float(start)) / 0.62 == pytest.approx(0.95, abs=0.04)


def test_detail_stops_at_the_last_reading():
    curves = curves_of(ROW, STRAIGHT)
    short = detail_of(curves, np.asarray(0.0))
    assert np.isnan(float(short.shoulder_x))
    assert np.isnan(float(short.max_density))
    whole = detail_of(curves, np.asarray(3.9))
    assert float(whole.max_density) == pytest.approx(float(curves.net[-1]), abs=0.02)
    assert 0 < float(whole.toe_share) < 1


def test_the_law_is_first_order_in_time():
    model = development_model.model_for(np.array([5.0, 8.0, 12.0]))
    mean, _ = development_model.parameter_prior(model, 0.2, -2.0, blank=True)
    phi = np.zeros(model.size)
    phi[: development_model.MODEL_PARAMETERS] = mean
    times = np.array([5.0, 8.0, 12.0, 500.0])
    contrast = np.exp(development_model.parameters_at(model, phi, times)[:, 1])
    assert (np.diff(contrast) > 0).all()
    rate = np.exp(mean[development_model.G_RATE]) / model.anchor
    delay = mean[development_model.G_DELAY] * 5.0
    shape = 1 - np.exp(-rate * (times - delay))
    assert contrast / contrast[-1] == pytest.approx(shape / shape[-1])


def test_strays_are_the_strips_own_and_run_between_them():
    model = development_model.model_for(np.array([5.0, 8.0, 12.0]))
    phi = np.zeros(model.size)
    phi[development_model.SHARED + 1] = 2.0
    deviations = development_model.deviations_at(model, phi, np.array([2.0, 5.0, 8.0, 12.0]))[:, 1]
    assert deviations == pytest.approx(
        [2 * development_model.DEVIATION_UNIT[1], 2 * development_model.DEVIATION_UNIT[1], 0, 0],
        abs=1e-4,
    )


def test_repeated_times_count_as_one():
    assert development_model.model_for(np.array([8.0, 8.0, 8.05])).distinct == 1
    assert development_model.model_for(np.array([8.0, 12.0, 8.0])).distinct == 2


def made_up_family():
    times = np.geomspace(4.0, 16.0, 41)
    film = invent_film(np.random.default_rng(3), 100.0)
    curves = [curve_at(film, t) for t in times]
    parts = [np.stack([getattr(c, n) for c in curves]) for n in ("fog", "toe", "net", "slope")]
    return film, Family(times, type(curves[0])(*parts), 8.125)


def test_a_time_is_found_on_the_ladder_and_read_back():
    film, family = made_up_family()
    minutes = time_reaching(family, family.gradient, 0.58)
    curve = curve_at(film, float(minutes))
    assert float(average_gradient(curve, speed_point(curve))) == pytest.approx(0.58, abs=1e-3)
    assert float(at_time(family, family.gradient, minutes)) == pytest.approx(0.58, abs=1e-3)
    assert float(figure_at_time(family, speed_point, minutes)) == pytest.approx(
        float(at_time(family, family.x_m, minutes))
    )
    assert time_reaching(family, family.gradient, 0.01) == -np.inf
    assert time_reaching(family, family.gradient, 9.0) == np.inf


@pytest.mark.parametrize("speed", [25.0, 100.0, 1600.0])
def test_an_invented_film_has_the_speed_asked_for(speed):
    film = invent_film(np.random.default_rng(8), speed)
    curve = curve_at(film, time_for_delta_d(film))
    assert 0.8 / 10 ** float(speed_point(curve)) == pytest.approx(speed, rel=0.01)
    assert (np.diff(curve.net) >= 0).all()
    assert len(curve.net) == len(GRID)

"""Films of the shapes real stocks have: right, sure of it rightly, and silent where it must be."""

import math
from dataclasses import replace

import numpy as np
import pytest

from oracles.closed_form import STOP, ClosedForm
from oracles.film_shapes import SHAPES, Reversal, ThreeLayers, varied
from vadrin.core.fitting.development_model import (
    bridge_shares,
    model_for,
    natural_cubic,
    strip_shares,
)
from vadrin.core.fitting.fit import draws_of, fit_strips
from vadrin.core.fitting.intervals import DRAWN_SHARE
from vadrin.core.materials.colour import colour_negative_speed, colour_reversal_speed
from vadrin.core.readings import Reading, StripReadings
from vadrin.core.results.analysis import analyse
from vadrin.core.results.analysis_result import Settings

TIMES = (4.5, 6.25, 8.75, 12.0, 16.75)
PLAIN = ClosedForm()
QUICK = Settings(draws=0)


def noisy(name, seed, times=TIMES, noise=0.012, grow=0.0, step=0.5):
    rng = np.random.default_rng(seed)
    film = varied(SHAPES[name], rng)
    return film, film.strips(times, step=step, noise=noise, rng=rng, grow=grow)


def moved(strips, by):
    """The same strips with every exposure shifted, to reach other parts of a curve."""
    return tuple(
        replace(
            s,
            readings=tuple(
                r if r.log_h is None else replace(r, log_h=r.log_h + by) for r in s.readings
            ),
        )
        for s in strips
    )


def named(answer, key):
    return [w.strip for w in answer.diagnostics if w.key == key]


@pytest.mark.parametrize("name", SHAPES)
def test_exact_readings_of_any_shape_give_its_figures(name):
    film = SHAPES[name]
    for strip in analyse(film.strips(TIMES), QUICK).strips:
        true = 0.8 / 10 ** film.x_m(strip.time_min)
        if strip.speed.value is not None:
            assert abs(math.log2(strip.speed.value / true)) < 0.05
        if strip.average_gradient.value is not None:
            truth = film.gradient(strip.time_min)
            assert strip.average_gradient.value == pytest.approx(truth, abs=0.006)


@pytest.mark.parametrize("name", ["two emulsions", "compensating", "late acceleration"])
def test_ranges_hold_the_truth_on_shapes_the_model_does_not_assume(name):
    held, wide, missed = [], [], []
    for seed in range(10):
        film, strips = noisy(name, seed)
        for strip in analyse(strips).strips:
            true = 0.8 / 10 ** film.x_m(strip.time_min)
            held.append(strip.speed.low <= true <= strip.speed.high)
            wide.append(0.5 * math.log2(strip.speed.high / strip.speed.low))
            missed.append(math.log2(strip.speed.value / true))
    assert np.mean(held) >= 0.8, "ten films, whose strips miss together"
    assert np.sqrt(np.mean(np.square(missed))) < 0.075
    assert np.median(wide) < 0.25, "and say something"


@pytest.mark.parametrize("name", ["late acceleration", "exhausting"])
def test_a_time_between_strips_is_found_where_contrast_is_not_first_order(name):
    film = SHAPES[name]
    finding = analyse(film.strips(TIMES)).finding
    truth = film.time_for(film.gradient, 0.58)
    assert finding.time_min.value == pytest.approx(truth, rel=0.02)
    assert finding.time_min.low <= truth <= finding.time_min.high


def test_between_two_strips_a_curve_lies_between_theirs():
    model = model_for(np.array([4.0, 8.0, 16.0]))
    between = np.geomspace(4.0, 16.0, 9)
    assert strip_shares(model, between).sum(-1) == pytest.approx(1.0)
    assert strip_shares(model, model.times) == pytest.approx(np.eye(3), abs=1e-9)
    assert bridge_shares(model, model.times) == pytest.approx(np.zeros((3, 2)), abs=1e-9)
    assert bridge_shares(model, np.array([4 * 2**0.5]))[0] == pytest.approx([1.0, 0.0])
    assert natural_cubic(np.array([0.0, 1.0]), np.array([0.25]))[0] == pytest.approx([0.75, 0.25])


def test_two_strips_know_that_a_line_is_not_a_curve():
    held = []
    for seed in range(8):
        film, strips = noisy("plain", seed, (6.0, 12.0))
        finding = analyse(strips).finding
        truth = film.time_for(film.gradient, 0.58)
        if finding.time_min.value is not None:
            held.append(finding.time_min.low <= truth <= finding.time_min.high)
    assert len(held) >= 5
    assert np.mean(held) >= 0.85


def test_noise_that_grows_with_density_is_seen_and_is_no_misreading():
    growths, alarms = [], 0
    for seed in range(6):
        _, strips = noisy("plain", seed, noise=0.008, grow=0.010)
        fit = fit_strips(strips)
        growths.append(fit.scales.growth)
        alarms += bool(fit.outliers)
    assert 0.5 < np.mean(growths) < 2.5
    assert alarms <= 1
    even = [fit_strips(noisy("plain", seed)[1]).scales.growth for seed in range(4)]
    assert np.mean(even) < 0.4


def test_a_wrong_time_is_told_from_a_film_that_bends():
    for name in SHAPES:
        if name != "exhausting":
            # One that runs dry within the strips looks like a last strip cut short.
            assert not named(analyse(noisy(name, 3)[1]), "off the family"), name
    for place in (0, 2, 4):
        _, strips = noisy("plain", 4)
        wrong = replace(strips[place], time_min=strips[place].time_min * 2 / 3)
        spoilt = (*strips[:place], wrong, *strips[place + 1 :])
        assert named(analyse(spoilt), "off the family") == ["ABCDE"[place]]


def test_without_a_blank_and_above_the_foot_nothing_is_guessed():
    whole = PLAIN.strips(TIMES, blanks=0)
    assert analyse(whole, QUICK).finding.zone_ei.present, "a foot that shows will do"
    above = tuple(
        replace(s, readings=tuple(r for r in s.readings if r.log_h > -1.75)) for s in whole
    )
    for strips in (above, above[:2], above[:1]):
        answer = analyse(strips)
        figures = [s.speed for s in answer.strips] + [s.average_gradient for s in answer.strips]
        figures += [answer.finding.zone_ei, answer.finding.time_min, answer.push[0].exposure_index]
        assert not any(f.present for f in figures)
        assert "read a blank frame" in answer.strips[0].speed.why
        assert answer.strips[0].gamma.present, "its slope needs no base"
    one_blank = (
        replace(above[0], readings=(Reading("b", None, PLAIN.base_fog(4.5)), *above[0].readings)),
        *above[1:],
    )
    assert "give less exposure" in analyse(one_blank, QUICK).strips[2].speed.why


def test_a_long_toe_is_read_without_a_blank():
    missed = []
    for seed in range(8):
        rng = np.random.default_rng(seed)
        film = varied(SHAPES["long toe"], rng)
        strips = film.strips(TIMES, noise=0.012, rng=rng, blanks=0)
        for strip in analyse(strips, QUICK).strips:
            true = 0.8 / 10 ** film.x_m(strip.time_min)
            missed += [math.log2(strip.speed.value / true)] if strip.speed.present else []
    assert len(missed) >= 20
    assert np.sqrt(np.mean(np.square(missed))) < 0.15
    assert abs(np.mean(missed)) < 0.07, "its toe ends: base plus fog is not put too low"


def test_a_bracket_that_never_reaches_the_speed_density_says_so():
    answer = analyse(moved(PLAIN.strips(TIMES, step=0.25), 0.0)[:3], QUICK)
    assert answer.strips[0].speed.present
    thin = tuple(
        replace(s, readings=tuple(r for r in s.readings if r.log_h is None or r.log_h < -1.75))
        for s in PLAIN.strips(TIMES, step=0.25)
    )
    for strip in analyse(thin, QUICK).strips:
        net = strip.curve.net.max()
        assert strip.speed.value is None or net >= 0.10


def reversal(step=0.15, last=1.01, blanks=0, low=0.05):
    x = np.arange(-3.0, last, step)
    falling = low + 2.6 / (1 + 10 ** (1.6 * (x + 1.0)))
    rows = [Reading(f"b{i}", None, low + 2.6) for i in range(blanks)]
    rows += [
        Reading(str(i), float(v), float(d)) for i, (v, d) in enumerate(zip(x, falling, strict=True))
    ]
    return StripReadings("A", 6.0, 20.0, tuple(rows))


def test_reversal_with_unexposed_blanks_has_its_speed():
    rng = np.random.default_rng(1)
    plain = colour_reversal_speed(reversal(), rng)
    assert colour_reversal_speed(reversal(blanks=2), rng).value == pytest.approx(
        plain.value, rel=0.03
    )
    twins = tuple(replace(reversal(blanks=2), time_min=None, label=n) for n in "AB")
    assert analyse(twins).reversal_speed.value == pytest.approx(plain.value, rel=0.03)
    short = colour_reversal_speed(reversal(last=-0.6), rng)
    assert not short.present
    assert "expose more" in short.why


def test_speeds_of_reversal_film_and_of_three_layers_hold_the_truth():
    rng = np.random.default_rng(7)
    x = [None, None, *np.arange(-3.6, 1.9, 0.15)]

    def read(film, channel):
        rows = tuple(
            Reading(str(i), v, film.density(v, 8.0) + 0.012 * rng.standard_normal())
            for i, v in enumerate(x)
        )
        return StripReadings("A", 8.0, 20.0, rows, channel)

    layers = {name: read(film, name) for name, film in ThreeLayers().layers().items()}
    for found, true in (
        (colour_reversal_speed(read(Reversal(), "visual"), rng), Reversal().speed(8.0)),
        (
            colour_negative_speed(layers["green"], (layers["red"], layers["blue"]), rng),
            ThreeLayers().speed(8.0),
        ),
    ):
        assert found.low < true < found.high
        assert math.log2(found.high / found.low) < 0.5


def test_a_colour_layer_that_begins_too_dense_is_absent():
    rng = np.random.default_rng(1)
    (strip,) = PLAIN.strips((8.0,))
    layers = [replace(strip, channel=c) for c in ("green", "red", "blue")]
    assert colour_negative_speed(layers[0], tuple(layers[1:]), rng).present
    bare = tuple(r for r in strip.readings if r.log_h is None or r.log_h > -1.5)
    late = replace(layers[0], readings=bare)
    assert not colour_negative_speed(late, tuple(layers[1:]), rng).present


def test_a_strip_without_a_time_changes_no_other():
    _, strips = noisy("plain", 5)
    lost = replace(strips[2], time_min=None, label="lost")
    without, mixed = analyse(strips[:2] + strips[3:]), analyse((*strips[:2], lost, *strips[3:]))
    assert mixed.finding == without.finding
    assert mixed.push == without.push
    assert [s.label for s in mixed.strips] == ["A", "B", "lost", "D", "E"]
    assert np.array_equal(mixed.strips[0].curve.net, without.strips[0].curve.net)
    assert named(mixed, "no time") == ["lost"]
    none = analyse(tuple(replace(s, time_min=None) for s in strips))
    alone = [analyse((replace(s, time_min=None),)).strips[0].speed for s in strips]
    assert [s.speed for s in none.strips] == alone
    assert "development time" in none.finding.time_min.why


def test_the_order_of_strips_changes_nothing_ranges_included():
    _, strips = noisy("two emulsions", 6)
    forth, back = analyse(strips), analyse(strips[::-1])
    assert back.finding == forth.finding
    assert [s.speed for s in back.strips] == [s.speed for s in forth.strips][::-1]
    assert [s.label for s in back.strips] == list("EDCBA")


def test_readings_pasted_twice_are_said():
    _, strips = noisy("plain", 7)
    double = replace(strips[1], readings=strips[1].readings * 2)
    assert named(analyse((strips[0], double, *strips[2:]), QUICK), "pasted twice") == ["B"]
    again = tuple(replace(r, density=r.density + 0.004) for r in strips[1].readings)
    repeated = replace(strips[1], readings=strips[1].readings + again)
    assert not named(analyse((strips[0], repeated, *strips[2:]), QUICK), "pasted twice")


def test_nothing_is_lost_where_nothing_is_pushed():
    answer = analyse(noisy("plain", 8)[1], Settings(pushes=(0.0, 1.0)))
    for row in (answer.push[0].hold_midtone, answer.push[0].hold_highlight):
        assert (row.shadow_loss_stops.value, row.shadow_loss_stops.high) == (0.0, 0.0)
        assert row.time_min == answer.finding.time_min
    assert answer.push[1].hold_highlight.shadow_loss_stops.value > 0.3


def test_draws_have_the_spread_of_the_fit_whatever_the_seed():
    fit = fit_strips(noisy("plain", 9)[1])
    halves = fit.uncertainty.drawn(np.eye(fit.uncertainty.size))
    wanted = halves.T @ halves
    for seed in (1, 2):
        draws = draws_of(fit, 200, np.random.default_rng(seed))
        away = (draws - fit.phi) / DRAWN_SHARE
        assert away.T @ away / len(draws) == pytest.approx(wanted, abs=1e-9)
        assert away.mean(0) == pytest.approx(np.zeros(len(fit.phi)), abs=1e-12)


def test_a_bracket_of_a_film_much_faster_is_read_as_well():
    strips = moved(PLAIN.strips(TIMES), -4 * STOP)
    found, plain = analyse(strips, QUICK).finding, analyse(PLAIN.strips(TIMES), QUICK).finding
    assert math.log2(found.zone_ei.value / plain.zone_ei.value) == pytest.approx(4.0, abs=0.01)

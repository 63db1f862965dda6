"""Films and developers set side by side: each by itself, the difference with its interval."""

import math
from dataclasses import replace

import numpy as np
import pytest

from oracles.closed_form import ClosedForm
from vadrin.core.curves import metrics
from vadrin.core.exposure.arithmetic import STOP
from vadrin.core.figure import Basis
from vadrin.core.results.analysis import analyse
from vadrin.core.results.analysis_result import Settings
from vadrin.core.simulation.film import Densitometer, curve_at, expose_and_develop, invent_film

X = math.log10(8.125 / 100) + STOP * np.arange(-6, 5.01, 1.0)
METER = Densitometer(0.010, 0.0, 3)


def shot(film, label, minutes, rng, material=""):
    strip = expose_and_develop(film, label, X, minutes, rng, METER)
    return replace(strip, material=material)


def answers(film, minutes):
    curve = curve_at(film, minutes)
    x_m = metrics.speed_point(curve)
    return float(metrics.zone_ei(x_m)), float(metrics.average_gradient(curve, x_m))


def test_each_material_is_worked_out_by_itself():
    rng = np.random.default_rng(3)
    known, other = invent_film(rng, 100.0), invent_film(rng, 320.0)
    strips = (
        shot(known, "A", 7.0, rng),
        shot(other, "B", 9.0, rng, "other"),
        shot(known, "C", 11.0, rng),
        shot(other, "D", 14.0, rng, "other"),
    )
    both = analyse(strips)
    apart = analyse(strips[::2]), analyse(strips[1::2])
    assert [s.label for s in both.strips] == list("ABCD")
    assert both.finding == apart[0].finding
    assert both.strips[1].zone_ei == apart[1].strips[0].zone_ei
    assert [(c.strip, c.reference) for c in both.compared] == [("B", "A"), ("D", "C")]
    assert analyse(strips[::2]).compared == ()


def test_a_material_that_cannot_be_read_takes_nothing_from_the_reference():
    rng = np.random.default_rng(5)
    known = invent_film(rng, 100.0)
    blank = replace(shot(known, "B", 8.0, rng, "other"), readings=())
    alone = analyse((shot(known, "A", 8.0, np.random.default_rng(6)),))
    both = analyse((shot(known, "A", 8.0, np.random.default_rng(6)), blank))
    assert [s.zone_ei for s in both.strips] == [s.zone_ei for s in alone.strips]
    assert both.compared == ()
    assert any("Strip B" in w.sentence for w in both.diagnostics)


def test_differences_hold_the_truth_as_often_as_they_say():
    """Forty pairs of films: intervals that mean it hold 38 of them, 36 at the very least."""
    held = {"speed": 0, "contrast": 0}
    for seed in range(40):
        rng = np.random.default_rng([77, seed])
        one, two = invent_film(rng, 100.0), invent_film(rng, 125.0)
        found = analyse((shot(one, "A", 8.0, rng), shot(two, "B", 8.0, rng, "other")), Settings())
        (pair,) = found.compared
        (index, slope), (other_index, other_slope) = answers(one, 8.0), answers(two, 8.0)
        gain = math.log2(other_index / index)
        held["speed"] += pair.speed_stops.low <= gain <= pair.speed_stops.high
        held["contrast"] += pair.contrast.low <= other_slope / slope <= pair.contrast.high
        rule = pair.time_factor
        assert rule.basis is Basis.RULE
        assert (rule.value > 1) == (pair.contrast.value < 1)
        assert rule.low < rule.value < rule.high
    assert min(held.values()) >= 36, held


def test_twice_the_same_film_shows_no_difference():
    rng = np.random.default_rng(9)
    film = invent_film(rng, 100.0)
    (pair,) = analyse((shot(film, "A", 8.0, rng), shot(film, "B", 8.0, rng, "twin"))).compared
    assert pair.speed_stops.low < 0 < pair.speed_stops.high
    assert pair.contrast.low < 1 < pair.contrast.high
    assert pair.base_fog.value == pytest.approx(0.0, abs=0.02)


def test_a_film_tried_at_several_times_has_a_measured_time_for_the_references_contrast():
    reference, other = ClosedForm(), ClosedForm(speed_level=-2.2, contrast=1.25, rate=0.11)
    rng = np.random.default_rng(8)
    held = 0
    for _ in range(20):
        mine = reference.strips((8.0,), noise=0.012, rng=rng)
        theirs = other.strips((5.5, 8.0, 11.5), noise=0.012, rng=rng)
        theirs = tuple(
            replace(s, label=label, material="another")
            for s, label in zip(theirs, "BCD", strict=True)
        )
        found = analyse((*mine, *theirs), Settings(draws=60)).compared
        truth = other.time_for(other.gradient, reference.gradient(8.0))
        assert {c.match_min.value for c in found} == {found[0].match_min.value}
        assert found[0].match_min.value == pytest.approx(truth, rel=0.06)
        held += found[0].match_min.low <= truth <= found[0].match_min.high
    assert held >= 17
    alone = analyse((*mine, theirs[1]), Settings(draws=0)).compared
    assert not alone[0].match_min.present
    assert alone[0].time_factor.present, "one time tells a rule of thumb alone"

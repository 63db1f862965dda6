"""Film that gets less dense with more light: told, kept off the curve, and no misreading."""

import re
from dataclasses import replace

import numpy as np
import pytest

from oracles.film_shapes import SHAPES
from vadrin.core.readings import Reading, StripReadings
from vadrin.core.results.analysis import analyse

STOP, TOE = 0.30103, -2.2
PLAIN = SHAPES["plain"]


def strip(density, stops=range(-6, 15), label="A", minutes=8.0, noise=0.0, seed=1):
    rng = np.random.default_rng(seed)
    lit = [
        Reading(str(n), -1.0 + STOP * n, density(-1.0 + STOP * n) + noise * rng.standard_normal())
        for n in stops
    ]
    return StripReadings(label, minutes, 20.0, (Reading("b", None, density(None)), *lit))


def turning(x, peak=1.4, loss=0.35):
    """A curve that ends at a shoulder and falls by `loss` a lg unit beyond `peak`."""
    if x is None:
        return 0.22
    rise = 2.1 / (1 + np.exp(-2.4 * (x + 0.6)))
    over = max(0.0, x - peak)
    return 0.22 + rise - loss * over - 0.1 * over**2


def told(answer, key):
    return [d for d in answer.diagnostics if d.key == key]


def test_film_that_turns_back_is_told_with_its_greatest_density():
    for seed in range(12):
        answer = analyse((strip(turning, noise=0.01, seed=seed),))
        (said,) = told(answer, "turned back")
        assert not told(answer, "misread")
        # The peak lies at frame 8; its neighbours are as dense as readings tell.
        assert set(said.frames) | {"8", "9"} == {str(n) for n in range(8, 15)}
        densest = float(re.search(r"([\d.]+) is the densest", said.sentence)[1])
        assert densest == pytest.approx(0.22 + 2.1, abs=0.05)
        assert answer.strips[0].max_density.value == pytest.approx(2.1, abs=0.06)


def test_what_is_found_under_the_peak_is_as_if_nothing_lay_beyond_it():
    whole, cut = (analyse((strip(turning, stops),)) for stops in (range(-6, 15), range(-6, 9)))
    for key in ("zone_ei", "average_gradient", "base_fog"):
        mine, other = whole.strips[0].figures[key], cut.strips[0].figures[key]
        assert mine.value == pytest.approx(other.value, rel=1e-3), key


@pytest.mark.parametrize(
    "spoil",
    [
        lambda n, d: d,
        lambda n, d: d - 0.5 if n == 14 else d,
        lambda n, d: d + 0.02 * (-1) ** n,
        lambda n, d: min(d, 2.0),
    ],
)
def test_film_that_goes_on_rising_is_not_said_to_turn(spoil):
    plain = strip(lambda x: PLAIN.density(x, 8.0))
    readings = [
        r if r.log_h is None else replace(r, density=float(spoil(int(r.frame), r.density)))
        for r in plain.readings
    ]
    assert not told(analyse((replace(plain, readings=tuple(readings)),)), "turned back")


def test_a_short_bracket_that_falls_is_asked_about_frame_by_frame():
    fallen = {4: 0.3, 5: 0.6}
    low = strip(lambda x: PLAIN.density(x, 8.0), range(-6, 6))
    readings = [
        r if r.log_h is None else replace(r, density=r.density - fallen.get(int(r.frame), 0.0))
        for r in low.readings
    ]
    answer = analyse((replace(low, readings=tuple(readings)),))
    assert not told(answer, "turned back"), "no film turns back so soon"
    assert told(answer, "misread")

"""Intervals hold the truth as often as they say, on films the fit does not assume."""

import math
from dataclasses import replace

import numpy as np

from oracles.film_shapes import SHAPES, varied
from vadrin.core.curves import metrics
from vadrin.core.readings import Reading, StripReadings
from vadrin.core.results.analysis import analyse
from vadrin.core.results.analysis_result import Settings
from vadrin.core.simulation.film import (
    Densitometer,
    curve_at,
    expose_and_develop,
    invent_film,
    time_for_delta_d,
)

FILMS = 16
STOP = math.log10(2)


def simulated(seed):
    rng = np.random.default_rng(seed)
    film = invent_film(rng, 100)
    times = time_for_delta_d(film) * np.array([0.55, 0.78, 1.08, 1.5, 2.1])
    x = math.log10(8.125 / 100) + STOP * np.arange(-6, 6.01, 0.5)
    meter = Densitometer(0.012, 0.0, 4)
    strips = tuple(
        expose_and_develop(film, label, x, float(t), rng, meter)
        for label, t in zip("ABCDE", times, strict=True)
    )
    return film, analyse(strips, Settings(draws=200))


def test_intervals_hold_the_truth_and_errors_are_small():
    held, speed_errors, gradient_errors, halves = [], [], [], []
    for seed in range(700, 700 + FILMS):
        film, answer = simulated(seed)
        for strip in answer.strips:
            curve = curve_at(film, strip.time_min)
            x_m = metrics.speed_point(curve)
            truth = float(metrics.arithmetic_speed(x_m))
            gradient = float(metrics.average_gradient(curve, x_m))
            held.append(strip.speed.low <= truth <= strip.speed.high)
            held.append(strip.average_gradient.low <= gradient <= strip.average_gradient.high)
            speed_errors.append(math.log2(strip.speed.value / truth))
            halves.append(0.5 * math.log2(strip.speed.high / strip.speed.low))
            gradient_errors.append(strip.average_gradient.value - gradient)
    assert np.mean(held) >= 0.88
    off = np.sqrt(np.mean(np.square(speed_errors)))
    assert off < 0.10
    assert 0.7 < np.median(halves) / (1.96 * off) < 1.5, "as wide as the errors warrant"
    assert np.sqrt(np.mean(np.square(gradient_errors))) < 0.010


def test_more_readings_make_a_narrower_interval():
    rng = np.random.default_rng(4)
    film = invent_film(rng, 100)
    x = math.log10(8.125 / 100) + STOP * np.arange(-6, 6.01, 1.0)
    widths = []
    for repeats in (1, 4):
        strips = tuple(
            expose_and_develop(film, label, np.repeat(x, repeats), t, rng, blanks=2 * repeats)
            for label, t in (("A", 5.0), ("B", 8.0), ("C", 12.0))
        )
        figure = analyse(strips).finding.zone_ei
        widths.append(math.log(figure.high / figure.low))
    assert widths[1] < 0.8 * widths[0]


def test_a_light_box_firms_up_what_a_wedge_told_coarsely():
    """Films matched between steps 0.15 apart; then an eye says where their shadow begins."""
    narrower, held = [], []
    for seed in range(12):
        rng = np.random.default_rng(seed)
        film = varied(SHAPES["plain"], rng)
        point = film.x_m(8.0)
        places = [None, *(point + STOP * (np.arange(-5, 6) + rng.uniform(-0.5, 0.5)))]
        steps = [0.15 * int(film.density(x, 8.0) / 0.15) for x in places]
        rows = [
            Reading(str(n), x, low + 0.075, 0.15 / math.sqrt(12))
            for n, (x, low) in enumerate(zip(places, steps, strict=True))
        ]
        eye = point + 0.14 * rng.standard_normal()
        seen = Reading("light box", eye, 0.1, 0.45 * 0.14, net=True)
        coarse, firm = (
            analyse((StripReadings("A", 8.0, 20.0, tuple(r)),)).strips[0].zone_ei
            for r in (rows, [*rows, seen])
        )
        narrower.append(math.log(firm.high / firm.low) / math.log(coarse.high / coarse.low))
        held += [f.low <= 8.125 / 16 / 10**point <= f.high for f in (coarse, firm)]
    assert np.median(narrower) < 0.9
    assert np.mean(held) >= 0.88


def test_an_error_that_a_picture_gives_all_its_frames_is_in_the_ranges():
    """A scanner that reads every density 3 % too high: times are off by more than noise says."""
    held, apart, count = 0, 0, 12
    for seed in range(count):
        rng = np.random.default_rng([21, seed])
        film = varied(SHAPES["plain"], rng)
        too_steep = 1.0 + rng.choice([-1, 1]) * 0.03
        read = [
            replace(
                strip,
                readings=tuple(
                    replace(r, density=r.density * too_steep + 0.003 * rng.standard_normal())
                    for r in strip.readings
                ),
            )
            for strip in film.strips((4.5, 6.5, 9.0, 13.0))
        ]
        true = film.time_for(film.gradient, 0.58)
        plain = analyse(tuple(read), Settings()).finding.time_min
        apart += plain.low <= true <= plain.high
        shared = tuple(replace(strip, scale_error=0.02) for strip in read)
        told = analyse(shared, Settings()).finding.time_min
        assert told.value == plain.value
        held += told.low <= true <= told.high
    assert apart <= count // 2, "noise alone does not explain it"
    assert held >= 0.85 * count

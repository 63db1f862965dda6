"""How near the core comes to the truth, over films it has never seen: ``accuracy.py [FILMS]``.

Prints root mean square errors beside what single strips could do at best, how often the 95 %
intervals hold the truth, their width beside what the errors warrant, and how often one
misread frame is named.
"""

import math
import sys
from collections import defaultdict
from dataclasses import replace

import numpy as np

from vadrin.core.curves import metrics
from vadrin.core.curves.shape import Curves
from vadrin.core.fitting.family import Family
from vadrin.core.fitting.fit import fit_strips
from vadrin.core.results.analysis import analyse
from vadrin.core.results.analysis_result import Settings
from vadrin.core.results.criteria import Target
from vadrin.core.results.finding import FamilyEstimate, find
from vadrin.core.results.push import pushes_of
from vadrin.core.results.strip_metrics import metrics_of_strips
from vadrin.core.simulation.film import (
    Densitometer,
    Film,
    curve_at,
    expose_and_develop,
    invent_film,
    time_for_delta_d,
)

NOISE = 0.012
STOP = math.log10(2)
SINGLE_STRIP_LIMIT = {"speed, stops": 0.068 * 1.2, "average gradient": 0.007 * 1.2}
"""Cramér-Rao limits of one strip, scaled to this noise."""


def simulated(seed, count=5, step=0.5, reach=6, blanks=2):
    """A film and its readings."""
    rng = np.random.default_rng(seed)
    film = invent_film(rng, 100)
    times = time_for_delta_d(film) * np.array([0.55, 0.78, 1.08, 1.5, 2.1])
    times = times[2:3] if count == 1 else times
    x = math.log10(8.125 / 100) + STOP * np.arange(-reach, reach + 0.01, step)
    meter = Densitometer(NOISE, 0.0, 4)
    strips = tuple(
        expose_and_develop(film, label, x, round(float(t) * 4) / 4, rng, meter, blanks=blanks)
        for label, t in zip("ABCDE", times, strict=False)
    )
    return film, strips, rng


def truth_of(film: Film, strips) -> FamilyEstimate:
    """The true family as a sample without draws."""
    low, high = strips[0].time_min, strips[-1].time_min
    times = np.geomspace(low, high, 121)
    curves = [curve_at(film, t) for t in times]
    parts = [np.stack([getattr(c, n) for c in curves]) for n in ("fog", "toe", "net", "slope")]
    return FamilyEstimate(Family(times, Curves(*parts), 8.125), None, low, high, -9.0, 9.0, 50.0)


class Score:
    """Errors, hits and widths of one kind of figure."""

    def __init__(self):
        self.errors, self.held, self.widths = [], [], []

    def take(self, figure, true, apart):
        if figure.value is None:
            return
        self.errors.append(apart(figure.value, true))
        self.held.append(figure.low <= true <= figure.high)
        self.widths.append(0.5 * abs(apart(figure.high, figure.low)))

    def line(self, name):
        rms = math.sqrt(np.mean(np.square(self.errors)))
        warranted = float(np.median(self.widths)) / 1.96 / rms
        limit = SINGLE_STRIP_LIMIT.get(name)
        beside = f"  one strip's limit {limit:.4f}" if limit else ""
        return (
            f"{name:<24}n {len(self.errors):>5}  rms {rms:.4f}  held {np.mean(self.held):.3f}"
            f"  width {warranted:.2f} of warranted{beside}"
        )


def relative(a, b):
    return math.log(a / b)


def stops(a, b):
    return math.log2(a / b)


def score_films(films):
    """Score speed, gradient, finding and push times."""
    scores = defaultdict(Score)
    for seed in range(films):
        film, strips, _ = simulated(seed)
        answer, true = analyse(strips), truth_of(film, strips)
        for strip in answer.strips:
            curve = curve_at(film, strip.time_min)
            x_m = metrics.speed_point(curve)
            speed = float(metrics.arithmetic_speed(x_m))
            scores["speed, stops"].take(strip.speed, speed, stops)
            gradient = float(metrics.average_gradient(curve, x_m))
            scores["average gradient"].take(strip.average_gradient, gradient, lambda a, b: a - b)
        found, _ = find(true, Target())
        if not found.tested:
            continue
        scores["finding time"].take(answer.finding.time_min, found.time_min.value, relative)
        scores["finding EI, stops"].take(answer.finding.zone_ei, found.zone_ei.value, stops)
        for mine, theirs in zip(
            answer.push, pushes_of(true, found, None, (-1, 0, 1, 2)), strict=True
        ):
            for name in ("hold_midtone", "hold_highlight"):
                row, want = getattr(mine, name), getattr(theirs, name)
                if theirs.stops and want.tested:
                    scores["push time"].take(row.time_min, want.time_min.value, relative)
    for name, score in scores.items():
        print(score.line(name))


def spoilt(kind, strip, rng):
    """A strip with one misread frame, and the names that would be right to name."""
    rows = list(strip.readings)
    i = int(rng.integers(3, len(rows) - 2))
    here, after = rows[i], rows[i + 1]
    if kind == "swapped":
        rows[i], rows[i + 1] = (
            replace(here, density=after.density),
            replace(after, density=here.density),
        )
        return replace(strip, readings=tuple(rows)), {here.frame, after.frame}
    if kind == "wrong digit":
        rows[i] = replace(here, density=here.density + (1 if here.density < 1.05 else -1))
        return replace(strip, readings=tuple(rows)), {here.frame}
    rows[i + 1] = replace(after, density=here.density)
    return replace(strip, readings=tuple(rows)), {after.frame}


def score_misreads(films, count):
    """How often a misread frame that matters is named, and how often a clean test alarms."""
    alarms, matters, named = 0, 0, 0
    quick = Settings(draws=0)
    for seed in range(5000, 5000 + films):
        _, strips, rng = simulated(seed, count)
        clean = analyse(strips, quick)
        alarms += any(w.key == "misread" for w in clean.diagnostics)
        for kind in ("swapped", "wrong digit", "read twice"):
            k = int(rng.integers(len(strips)))
            bad, frames = spoilt(kind, strips[k], rng)
            changed = (*strips[:k], bad, *strips[k + 1 :])
            blind = metrics_of_strips(
                changed, fit_strips(changed, exclude_outliers=False), None, 8.125
            )
            before, after = clean.strips[k].speed.value, blind[k].speed.value
            if after is not None and abs(stops(after, before)) <= 1 / 6:
                continue
            told = analyse(changed, quick).diagnostics
            matters += 1
            named += any(set(w.frames) & frames for w in told if w.key == "misread")
    print(
        f"{count} strips: {named} of {matters} misreadings that matter named; "
        f"{alarms} of {films} clean tests alarmed"
    )


def main():
    films = int(sys.argv[1]) if len(sys.argv) > 1 else 100
    score_films(films)
    thin = Score()
    for seed in range(2000, 2000 + films):
        film, strips, _ = simulated(seed, 1, 1.0, 4, 1)
        curve = curve_at(film, strips[0].time_min)
        true = float(metrics.arithmetic_speed(metrics.speed_point(curve)))
        thin.take(analyse(strips).strips[0].speed, true, stops)
    print(thin.line("speed of 9 whole stops"))
    for count in (5, 1):
        score_misreads(films, count)


if __name__ == "__main__":
    main()

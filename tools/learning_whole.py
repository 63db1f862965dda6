"""EI, time and pushes of a film of which few strips are read, from a notebook that has learnt.

Part of ``learning_trial.py``: whole films by their physics, what each test of them told, and how
often the ranges of the next film's figures held, and how wide they were.
"""

from __future__ import annotations

from collections import defaultdict
from dataclasses import dataclass

import numpy as np

from oracles.developers import Whole
from vadrin.core.learning.contrast_law import ContrastSeen, learnt_law, time_for_contrast
from vadrin.core.learning.push_times import learnt_push, push_time
from vadrin.core.learning.speed_law import SpeedSeen, index_at_contrast, learnt_slope

_WANTED = 0.58
_READ, _SPEED, _PUSHED = 0.015, 0.06, 0.03
"""How well contrast (ln), speed (stops) and a push's share (ln) of a tested film are known."""
_ABOVE = 3
"""Stops over the meter of the density that a push holds."""
PUSHES = (-1.0, 1.0, 2.0)


@dataclass(frozen=True)
class Told:
    """What a test of a film told."""

    contrast: ContrastSeen
    speed: SpeedSeen
    pushes: dict[float, float]


def _normal(film, evening):
    return film.time_for(_WANTED) / evening


def told_by(rng, film, evening, minutes):
    """Strips of a film read as well as usual, and its pushes."""
    n = len(minutes)
    contrast = film.gradient(minutes * evening) * np.exp(_READ * rng.standard_normal(n))
    stops = film.stops(minutes * evening) + _SPEED * rng.standard_normal(n)
    pushes = {}
    normal = _normal(film, evening) * evening
    for push in PUSHES:
        share = film.push_time(normal, push, _ABOVE) / normal
        pushes[push] = float(np.log(share) + _PUSHED * rng.standard_normal())
    return Told(
        ContrastSeen(minutes, contrast, np.full(n, _READ)),
        SpeedSeen(contrast, stops, np.full(n, _SPEED)),
        pushes,
    )


def _drawn(rng, population, number):
    """A film that reaches the contrast, and its pushes, and the evening it is tested on."""
    while True:
        film, evening = population.drawn(rng), population.evening(rng, number)
        normal = _normal(film, evening)
        pushed = [film.push_time(normal * evening, push, _ABOVE) for push in PUSHES]
        if 3.0 < normal < 20.0 and np.isfinite(pushed).all():
            return film, evening, normal


def one(seed: int, population: Whole, tests: int, strips: int):
    """By figure: whether its range held, and half its width (ln, or stops for the EI)."""
    rng = np.random.default_rng([381, seed, tests, strips])
    told = []
    for number in range(tests):
        film, evening, normal = _drawn(rng, population, number)
        minutes = np.sort(normal * np.exp(rng.uniform(-0.5, 0.6, int(rng.integers(3, 6)))))
        told.append(told_by(rng, film, evening, minutes))
    film, evening, normal = _drawn(rng, population, tests)
    minutes = np.sort(normal * np.exp(rng.uniform(-0.4, 0.4, strips)))
    mine = told_by(rng, film, evening, minutes)
    time = time_for_contrast(learnt_law(tuple(t.contrast for t in told)), mine.contrast, _WANTED)
    slope = learnt_slope(tuple(t.speed for t in told))
    index = index_at_contrast(slope, mine.speed, _WANTED, _READ)
    # What more strips would have shown, developed along with these.
    true, normal = normal, normal * evening
    figures = {"time": (time, true), "EI": (index, 2.0 ** film.stops(normal))}
    for push in PUSHES:
        factors = np.array([t.pushes[push] for t in told])
        learnt = learnt_push(factors, np.full(tests, _PUSHED), push)
        pushed = true * film.push_time(normal, push, _ABOVE) / normal
        figures[f"push {push:+.0f}"] = (push_time(learnt, time), pushed)
    return {
        name: (f.low <= true <= f.high, 0.5 * float(np.log(f.high / f.low)))
        for name, (f, true) in figures.items()
        if f.value is not None
    }


def rows(population: Whole, tests: int, strips: int, count: int):
    """Lines of a population, and the lowest share of ranges that held."""
    by = defaultdict(list)
    for seed in range(count):
        for name, row in one(seed, population, tests, strips).items():
            by[name].append(row)
    words, least = [], 1.0
    for name, known in by.items():
        share = sum(held for held, _ in known) / len(known)
        wide = float(np.median([half for _, half in known]))
        width = f"± {wide / np.log(2):.2f} stop" if name == "EI" else f"± {100 * wide:.0f} %"
        words.append(f"{name} {100 * share:.0f} of 100 {width}")
        least = min(least, share)
    return f"{population.name}: {tests} tests, {strips} of the next: {', '.join(words)}", least

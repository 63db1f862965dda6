"""Developers and the films put through them, as populations: how contrast comes with time.

Written from what developers do, each by a law of its own, and none by the one a reader assumes.
"""

from __future__ import annotations

import numpy as np


class Population:
    """Films of one tester in one developer.

    A film is a function of minutes to its average gradient; `drawn` gives a new one.
    """

    name = ""

    def drawn(self, rng):
        """A film."""
        raise NotImplementedError

    def evening(self, rng, number):
        """By how much an evening's minutes count for more or less: strength, warmth."""
        return np.exp(0.02 * rng.standard_normal())


class Saturating(Population):
    """Development begins after an induction and runs out: each film towards its own end."""

    name = "saturating"

    def drawn(self, rng):
        top, rate = rng.uniform(0.75, 1.3), np.exp(rng.normal(np.log(0.13), 0.2))
        begins = rng.uniform(0.2, 0.9)
        return lambda t: top * -np.expm1(-rate * np.maximum(t - begins, 0.0))


class Straight(Population):
    """Contrast goes straight with the logarithm of time, by a slope of each film's own."""

    name = "straight in ln t"

    def drawn(self, rng):
        at8, slope = rng.uniform(0.45, 0.72), rng.normal(0.27, 0.04)
        return lambda t: np.maximum(at8 + slope * np.log(t / 8.0), 0.05)


class Mixed(Population):
    """Two kinds of film: cubic grain that comes slowly, tabular grain that runs away."""

    name = "two kinds of film"

    def drawn(self, rng):
        if rng.random() < 0.5:
            at8, power = rng.uniform(0.5, 0.65), rng.normal(0.45, 0.04)
        else:
            at8, power = rng.uniform(0.5, 0.75), rng.normal(0.75, 0.05)
        return lambda t: at8 * (t / 8.0) ** power


class Ageing(Saturating):
    """The bottle loses three percent of its strength from test to test."""

    name = "a bottle that ages"

    def evening(self, rng, number):
        return 0.97**number * np.exp(0.02 * rng.standard_normal())


class Warm(Straight):
    """A thermometer that reads a degree low on half of the evenings: a tenth more happens."""

    name = "a thermometer a degree off"

    def evening(self, rng, number):
        return (1.1 if rng.random() < 0.5 else 1.0) * np.exp(0.02 * rng.standard_normal())


class Outside(Population):
    """Hardly answers to time at all: nothing the tester has seen."""

    name = "a film from outside"

    def drawn(self, rng):
        at8 = rng.uniform(0.5, 0.65)
        return lambda t: at8 * (t / 8.0) ** 0.2


POPULATIONS = (Saturating(), Straight(), Mixed(), Ageing(), Warm())

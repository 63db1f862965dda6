"""Developers and the films put through them, as populations: how contrast comes with time.

Written from what developers do, each by a law of its own, and none by the one a reader assumes.
"""

from __future__ import annotations

import numpy as np

from oracles.film_shapes import SHAPES, varied


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


class WholeFilm:
    """A film's contrast, speed and pushes over time, looked up between times laid closely.

    Parameters
    ----------
    shape : FilmShape
    """

    def __init__(self, shape):
        self._minutes = np.geomspace(1.5, 60.0, 70)
        self._x = np.linspace(-4.0, 2.4, 481)
        self._net = np.array([shape.net(self._x, t) for t in self._minutes])
        self._x_m = np.array([self._reached(row, 0.10) for row in self._net])
        shadows = zip(self._net, self._x_m, strict=True)
        ends = np.array([np.interp(x + 1.5, self._x, row) for row, x in shadows])
        self._gradient = (ends - 0.10) / 1.5

    def _reached(self, net, density):
        """The exposure of a density."""
        at = int(np.argmax(net >= density))
        low, high = net[at - 1], net[at]
        return self._x[at - 1] + (density - low) / (high - low) * (self._x[at] - self._x[at - 1])

    def gradient(self, minutes):
        return np.interp(np.log(minutes), np.log(self._minutes), self._gradient)

    def stops(self, minutes):
        """Speed as log2 of the EI that puts the speed density four stops under the meter."""
        x_m = np.interp(np.log(minutes), np.log(self._minutes), self._x_m)
        return np.log2(8.125 / 16) - x_m / np.log10(2)

    def _first(self, values, wanted):
        over = values >= wanted
        if over[0] or not over.any():
            return np.nan
        at, lg = int(np.argmax(over)), np.log(self._minutes)
        share = (wanted - values[at - 1]) / (values[at] - values[at - 1])
        return float(np.exp(lg[at - 1] + share * (lg[at] - lg[at - 1])))

    def time_for(self, gradient):
        """The first time of a gradient; nan where it is not reached."""
        return self._first(self._gradient, gradient)

    def push_time(self, normal, stops, above):
        """The time that holds the density `above` stops over the meter at another EI."""
        meter = np.log10(8.125) - self.stops(normal) * np.log10(2)
        at = (meter + (above - (0.0, stops)[k]) * np.log10(2) for k in (0, 1))
        normally, pushed = ([np.interp(x, self._x, row) for row in self._net] for x in at)
        held = np.interp(np.log(normal), np.log(self._minutes), normally)
        return self._first(np.array(pushed), held)


class Whole:
    """Whole films of one tester: shapes of which contrast, speed and pushes all follow.

    Parameters
    ----------
    name : str
    shapes : tuple of str
        One is drawn for each film.
    drift : float
        By how much the bottle loses strength from test to test (ln).
    warm : float
        By how much more happens on half of the evenings (ln).
    """

    def __init__(self, name, shapes, drift=0.0, warm=0.0):
        self.name, self._shapes, self._drift, self._warm = name, shapes, drift, warm

    def drawn(self, rng):
        """A film."""
        return WholeFilm(varied(SHAPES[self._shapes[int(rng.integers(len(self._shapes)))]], rng))

    def evening(self, rng, number):
        """By how much an evening's minutes count for more or less."""
        warm = self._warm if rng.random() < 0.5 else 0.0
        return np.exp(warm - self._drift * number + 0.02 * rng.standard_normal())


WHOLE = (
    Whole("plain films", ("plain",)),
    Whole("two kinds of film", ("plain", "two emulsions")),
    Whole("films whose speed moves", ("speed gains", "speed falls")),
    Whole("every shape", tuple(name for name in SHAPES if name != "compensating")),
    Whole("a bottle that ages", ("plain", "growing fog"), drift=0.02),
    Whole("a thermometer a degree off", ("plain", "long toe"), warm=0.1),
)

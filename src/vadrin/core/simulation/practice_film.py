"""Films for practice: their truth is drawn from many shapes, and told by root finding alone.

Nothing here is shared with what reads film. A film is grains of different thresholds (Hurter and
Driffield's curve as softened corners; several emulsions as a sum), developed by a law of its own.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from math import log10

import numpy as np
from scipy.optimize import brentq

from vadrin.core.arrays import Array

STOP = log10(2.0)
METER_CONSTANT = 8.125
SHAPES = (
    "a usual toe",
    "a long toe",
    "a hard corner",
    "two emulsions",
    "density that saturates",
    "contrast that still rises",
    "fog that grows",
    "development that starts late",
    "a developer that exhausts itself",
    "speed that gains with time",
    "speed that falls with time",
)
_ZONE_I, _GRADIENT_RANGE, _GRADIENT = 0.10, 1.5, 0.58
_LOG_H, _MINUTES = np.linspace(-6.0, 4.0, 200), np.geomspace(1.0, 120.0, 48)
"""Places between which a crossing is looked for."""
_MARKS = np.array(
    [12, 16, 20, 25, 32, 40, 50, 64, 80, 100, 125, 160, 200, 250, 320, 400, 500, 640, 800, 1000]
)
"""Speeds as they stand on boxes."""
_HIGHLIGHT = 3


@dataclass(frozen=True)
class PracticeFilm:
    """A film in one developer.

    Attributes
    ----------
    shape : str
        One of `SHAPES`.
    box_speed : float
        As marked; what it is in this developer, it does not say.
    speed_point : float
        Lg lux seconds at which density begins after a very long time.
    speed_gain : float
        Lg units by which speed still lacks at the shortest times, falling off with time.
    contrast, rate_a_minute, delay_min : float
        Greatest slope, how fast it is reached, and when development starts.
    toe, shoulder, span : float
        Widths of the corners and length of the straight part, lg units.
    fog, fog_a_minute : float
    q10 : float
        How much faster development goes for each 10 K.
    bath_c : float
        At which its minutes count as they are: 20 °C, but for film of a warm process.
    """

    shape: str
    box_speed: float
    speed_point: float
    speed_gain: float = 0.3
    contrast: float = 1.1
    rate_a_minute: float = 0.12
    delay_min: float = 0.4
    toe: float = 0.15
    shoulder: float = 0.35
    span: float = 3.0
    fog: float = 0.2
    fog_a_minute: float = 0.005
    q10: float = 2.5
    bath_c: float = 20.0

    def minutes_at_20(self, minutes: float, temperature_c: float) -> float:
        """Minutes at 20 °C, or in the bath of its process, that do as much."""
        return float(minutes * self.q10 ** ((temperature_c - self.bath_c) / 10.0))

    def base_fog(self, minutes: float) -> float:
        """Base plus fog after a development at 20 °C."""
        more = 1.5 if self.shape == SHAPES[6] else 1.0
        return float(self.fog + self.fog_a_minute * minutes**more)

    def net(self, log_h: Array | float, minutes: float) -> Array:
        """Density over base plus fog at lg exposures, after minutes at 20 °C."""
        x = np.asarray(log_h, dtype=np.float64)
        plain = self._emulsion(x, minutes, self.toe, 0.0, self.rate_a_minute)
        if self.shape == SHAPES[1]:
            offsets = np.linspace(0.0, 1.6, 9)
            parts = [
                self._emulsion(x + 0.5 - o, minutes, self.toe, 0.0, self.rate_a_minute)
                for o in offsets
            ]
            return np.asarray(np.mean(parts, axis=0))
        if self.shape == SHAPES[3]:
            slow = self._emulsion(x, minutes, self.toe, 0.9, 0.6 * self.rate_a_minute)
            return np.asarray(0.55 * plain + 0.7 * slow)
        if self.shape == SHAPES[4]:
            return np.asarray(2.0 * -np.expm1(-plain / 2.0))
        if self.shape == SHAPES[5]:
            return np.asarray(plain * (1.0 + 0.09 * plain))
        if self.shape == SHAPES[8]:
            return np.asarray(plain / (1.0 + 0.12 * plain))
        return plain

    def _emulsion(self, x: Array, minutes: float, toe: float, apart: float, rate: float) -> Array:
        done = -np.expm1(-rate * max(minutes - self.delay_min, 0.02))
        if self.shape == SHAPES[7]:
            done = done**1.7
        start = self.speed_point + apart + self.speed_gain * np.exp(-0.13 * minutes)
        width = 0.03 if self.shape == SHAPES[2] else toe
        low = width * np.logaddexp(0.0, (x - start) / width)
        high = self.shoulder * np.logaddexp(0.0, (x - start - self.span) / self.shoulder)
        return np.asarray(self.contrast * done * (low - high))

    def log_h_m(self, minutes: float) -> float | None:
        """Lg exposure at which net density is 0.10; None where it is never reached."""
        over = self.net(_LOG_H, minutes) - _ZONE_I
        return _root(lambda x: float(self.net(x, minutes)) - _ZONE_I, _LOG_H, over)

    def zone_ei(self, minutes: float) -> float | None:
        """EI by the shadow, after minutes at 20 °C."""
        x = self.log_h_m(minutes)
        return None if x is None else METER_CONSTANT / 16.0 / 10.0**x

    def average_gradient(self, minutes: float) -> float | None:
        """Slope of the chord over 1.5 lg units from the speed point."""
        x = self.log_h_m(minutes)
        if x is None:
            return None
        return (float(self.net(x + _GRADIENT_RANGE, minutes)) - _ZONE_I) / _GRADIENT_RANGE

    def time_for_gradient(self, value: float = _GRADIENT) -> float | None:
        """Minutes at 20 °C to an average gradient; None where none reaches it."""

        def over(minutes: float) -> float:
            return (self.average_gradient(minutes) or 0.0) - value

        return _root(over, _MINUTES, np.array([over(float(t)) for t in _MINUTES]))

    def push_minutes(self, normal: float, stops: float, above: int = _HIGHLIGHT) -> float | None:
        """Minutes that hold the density `above` stops over the meter, so many stops pushed."""
        index = self.zone_ei(normal)
        if index is None:
            return None
        meter = log10(METER_CONSTANT / index)
        held = float(self.net(meter + above * STOP, normal))
        at = meter + (above - stops) * STOP

        def over(minutes: float) -> float:
            return float(self.net(at, minutes)) - held

        return _root(over, _MINUTES, np.array([over(float(t)) for t in _MINUTES]))


def _root(of: Callable[[float], float], places: Array, values: Array) -> float | None:
    """Where a function first crosses zero from below, between two of its places; None for
    nowhere."""
    crossing = np.flatnonzero((values[:-1] < 0) & (values[1:] >= 0))
    if not len(crossing):
        return None
    at = int(crossing[0])
    return float(brentq(of, float(places[at]), float(places[at + 1]), xtol=1e-12))


def draw_film(rng: np.random.Generator, shape: str | None = None) -> PracticeFilm:
    """A film of any shape, of an EI between 12 and 1600, that reaches its contrast.

    Parameters
    ----------
    rng : numpy.random.Generator
    shape : str, optional
        One of `SHAPES`; any where none is named.
    """
    for _ in range(200):
        film = _drawn(rng, shape or SHAPES[int(rng.integers(len(SHAPES)))])
        normal = film.time_for_gradient()
        if normal is not None and 3.5 <= normal <= 16.0:
            return _marked(film, normal, rng)
    raise ValueError("no film of this shape reaches its contrast")


def _drawn(rng: np.random.Generator, shape: str) -> PracticeFilm:
    gain = float(rng.uniform(0.1, 0.4))
    if shape in (SHAPES[9], SHAPES[10]):
        gain = 0.8 if shape == SHAPES[9] else -0.35
    return PracticeFilm(
        shape,
        100.0,
        float(-1.6 - STOP * rng.uniform(-2.0, 4.0)),
        gain,
        float(rng.uniform(0.9, 1.35)),
        float(rng.uniform(0.07, 0.17)),
        float(rng.uniform(0.2, 0.8)),
        float(rng.uniform(0.09, 0.22)),
        float(rng.uniform(0.25, 0.45)),
        float(rng.uniform(2.4, 3.4)),
        float(rng.uniform(0.12, 0.35)),
        float(rng.uniform(0.002, 0.009)),
        float(rng.uniform(2.2, 2.8)),
    )


def _marked(film: PracticeFilm, normal: float, rng: np.random.Generator) -> PracticeFilm:
    """The film with a speed on its box, which a maker likes to see a little high."""
    index = film.zone_ei(normal) or 100.0
    wanted = index * 2.0 ** rng.uniform(0.0, 1.0)
    return replace(film, box_speed=float(_MARKS[np.argmin(np.abs(np.log(_MARKS / wanted)))]))

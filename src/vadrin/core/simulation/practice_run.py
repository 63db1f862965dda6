"""A film test as a tester would have run it for practice: readings, and what went wrong in it."""

from __future__ import annotations

from dataclasses import dataclass
from math import log10

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.simulation.practice_film import METER_CONSTANT, STOP, PracticeFilm
from vadrin.core.simulation.practice_level import Level

_SPREAD = (0.62, 0.8, 1.0, 1.4, 2.0)
"""Times of the strips beside about what the film asks for."""
_BLANKS = 2


@dataclass(frozen=True)
class Practised:
    """One strip as it was read: what the tester notes, and the density of each frame.

    Attributes
    ----------
    label : str
    time_min, temperature_c : float
        As they were noted.
    real_min_20 : float
        What it really got, in minutes at 20 °C.
    stops : tuple of float or None
        From the meter at the box speed; None for a blank.
    densities : tuple of float
    """

    label: str
    time_min: float
    temperature_c: float
    real_min_20: float
    stops: tuple[float | None, ...]
    densities: tuple[float, ...]


@dataclass(frozen=True)
class PracticeTest:
    """A practice test: its film, its strips, and in words what went wrong."""

    film: PracticeFilm
    strips: tuple[Practised, ...]
    traps: tuple[str, ...]


@dataclass(frozen=True)
class _Trouble:
    """What goes wrong, drawn once for a test."""

    noise: float
    noise_of_density: float = 0.0
    light_stops: float = 0.0
    warmer_strip: int = -1
    warmer_k: float = 0.0
    swapped: tuple[int, int] = (-1, 0)
    short_strip: int = -1


def _trouble(rng: np.random.Generator, level: Level) -> _Trouble:
    if level is Level.ANY:
        level = Level(str(rng.choice([Level.PLAIN, Level.USUAL, Level.HARD])))
    if level in (Level.PLAIN, Level.FIRST):
        return _Trouble(0.006)
    swapped, short = (int(rng.integers(5)), int(rng.integers(14, 22))), int(rng.integers(5))
    if level is Level.USUAL:
        # What whoever looks at the readings can see.
        return _Trouble(0.010, 0.004, swapped=swapped, short_strip=short)
    light = float(rng.uniform(0.08, 0.2) * rng.choice((-1.0, 1.0)))
    warmer = int(rng.integers(5)), float(rng.choice((-1.0, 1.0)))
    return _Trouble(0.012, 0.008, light, *warmer, swapped, short)


def _told(trouble: _Trouble) -> tuple[str, ...]:
    """What went wrong, in words for the envelope."""
    labels = "ABCDE"
    said = []
    if trouble.light_stops:
        way = "brighter" if trouble.light_stops > 0 else "darker"
        said.append(f"the light got {abs(trouble.light_stops):.2f} stop {way} over each strip")
    if trouble.warmer_k:
        way = "warmer" if trouble.warmer_k > 0 else "colder"
        said.append(f"the bath of strip {labels[trouble.warmer_strip]} was 1 °C {way} than noted")
    if trouble.swapped[0] >= 0:
        strip, frame = trouble.swapped
        first = frame + _BLANKS + 1
        said.append(f"frames {first} and {first + 1} of strip {labels[strip]} were read swapped")
    if trouble.short_strip >= 0:
        said.append(f"strip {labels[trouble.short_strip]} was cut four frames short")
    return tuple(said)


def run_practice(film: PracticeFilm, level: Level, rng: np.random.Generator) -> PracticeTest:
    """Expose, develop and read a film as a tester would.

    Parameters
    ----------
    film : PracticeFilm
    level : Level
    rng : numpy.random.Generator

    Returns
    -------
    PracticeTest
        Five strips of two blanks and 25 frames, half a stop apart around the box speed.
    """
    trouble = _trouble(rng, level)
    about = (film.time_for_gradient() or 8.0) * float(rng.uniform(0.85, 1.2))
    times = [max(1.5, round(4.0 * about * share) / 4.0) for share in _SPREAD]
    strips = tuple(_strip(film, trouble, place, t, rng) for place, t in enumerate(times))
    return PracticeTest(film, strips, _told(trouble))


def _set_on_a_meter(marked: float) -> float:
    """What a meter really reckons with at a mark: thirds of a stop from 100."""
    return float(100.0 * 2.0 ** (round(3.0 * np.log2(marked / 100.0)) / 3.0))


def _strip(
    film: PracticeFilm, trouble: _Trouble, place: int, minutes: float, rng: np.random.Generator
) -> Practised:
    stops = np.arange(-6.0, 6.01, 0.5)
    real_c = 20.0 + (trouble.warmer_k if place == trouble.warmer_strip else 0.0)
    worth = film.minutes_at_20(minutes, real_c)
    drift = trouble.light_stops * np.linspace(0.0, 1.0, len(stops))
    x = log10(METER_CONSTANT / _set_on_a_meter(film.box_speed)) + STOP * (stops + drift)
    true: Array = film.base_fog(worth) + film.net(x, worth)
    if trouble.swapped[0] == place:
        at = trouble.swapped[1]
        true[[at, at + 1]] = true[[at + 1, at]]
    if trouble.short_strip == place:
        stops, true = stops[:-4], true[:-4]
    whole = np.concatenate([np.full(_BLANKS, film.base_fog(worth)), true])
    deviation = trouble.noise + trouble.noise_of_density * whole
    read = np.maximum(whole + deviation * rng.standard_normal(len(whole)), 0.0)
    return Practised(
        "ABCDE"[place],
        minutes,
        20.0,
        worth,
        (*[None] * _BLANKS, *(float(s) for s in stops)),
        tuple(round(float(d), 2) for d in read),
    )

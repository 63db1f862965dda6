"""What the core says where readings can't answer: ``absent_answers.py [TESTS A CASE]``.

Films of every shape, one to five strips, read so that a figure is out of reach. Counted are the
answers given all the same, and those among them whose range does not hold the truth.
"""

from __future__ import annotations

import sys
from pathlib import Path

import numpy as np

ROOT = Path(__file__).parents[1]
sys.path[:0] = [str(ROOT), str(ROOT / "src")]

from oracles.film_shapes import SHAPES, varied  # noqa: E402
from tools.colour_shapes import LayersTest, ReversalTest, read  # noqa: E402
from vadrin.core.readings import Reading, StripReadings  # noqa: E402
from vadrin.core.results.analysis import analyse  # noqa: E402
from vadrin.core.results.analysis_result import Settings  # noqa: E402

NOISE = (0.012, 0.0)
MINUTES = (5.0, 6.5, 8.5, 11.0, 14.5)


def where(film, minutes, density):
    """Lg exposure of a net density."""
    x = np.linspace(-5, 3, 4001)
    return float(np.interp(density, film.net(x, minutes), x))


def strips_of(film, count, places, blanks, rng):
    """Strips read at the same places."""
    made = []
    for label, minutes in zip("ABCDE", MINUTES[:count], strict=False):
        at = [None] * blanks + [float(x) for x in places]
        true = np.array([film.density(x, minutes) for x in at])
        seen = true + NOISE[0] * rng.standard_normal(len(true))
        rows = tuple(
            Reading(str(i), x, round(float(d), 3))
            for i, (x, d) in enumerate(zip(at, seen, strict=True))
        )
        made.append(StripReadings(label, minutes, 20.0, rows))
    return tuple(made)


def answers(film, strips):
    """Speeds given, with the truth."""
    answer = analyse(strips, Settings(draws=64))
    return [
        (m.speed, 0.8 / 10 ** film.x_m(s.time_min))
        for m, s in zip(answer.strips, strips, strict=False)
    ]


def starts_above_the_toe(film, rng):
    count = int(rng.integers(1, 6))
    first = where(film, MINUTES[0], rng.uniform(0.15, 0.5))
    return answers(film, strips_of(film, count, first + np.arange(0, 2.2, 0.15), 0, rng))


def begins_without_a_flat_foot(film, rng):
    count = int(rng.integers(1, 6))
    first = where(film, MINUTES[0], rng.uniform(0.05, 0.09))
    return answers(film, strips_of(film, count, first + np.arange(0, 2.6, 0.15), 0, rng))


def never_reaches_the_speed_density(film, rng):
    last = where(film, MINUTES[0], rng.uniform(0.04, 0.08))
    places = last - np.arange(0, 2.0, 0.15)[::-1]
    return answers(film, strips_of(film, 1, places, 2, rng))


def reversal_ends_before_its_minimum(_, rng):
    kind = ReversalTest()
    film = kind.film(rng)
    last = where(film, 8.0, float(film.net(6.0, 8.0)) - rng.uniform(0.1, 1.0))
    kind.x = last - np.arange(0, 3.0, 0.15)[::-1]
    strips = read(kind, film, int(rng.integers(0, 3)), NOISE, rng)
    return [(kind.found(strips, rng), film.speed(8.0))]


def a_layer_begins_too_dense(_, rng):
    kind = LayersTest()
    film = kind.film(rng)
    first = where(film.green, 8.0, rng.uniform(0.18, 0.5))
    kind.x = first + np.arange(0, 2.4, 0.15)
    strips = read(kind, film, 0, NOISE, rng)
    return [(kind.found(strips, rng), film.speed(8.0))]


CASES = (
    starts_above_the_toe,
    begins_without_a_flat_foot,
    never_reaches_the_speed_density,
    reversal_ends_before_its_minimum,
    a_layer_begins_too_dense,
)


def main():
    count = int(sys.argv[1]) if len(sys.argv) > 1 else 40
    for case in CASES:
        given = wrong = asked = 0
        for seed in range(count):
            rng = np.random.default_rng(seed)
            film = varied(list(SHAPES.values())[seed % len(SHAPES)], rng)
            for figure, true in case(film, rng):
                asked += 1
                if figure.value is not None:
                    given += 1
                    wrong += figure.low is None or not figure.low <= true <= figure.high
        print(f"{case.__name__:<36}asked {asked:>4}  given {given:>4}  of those wrong {wrong}")


if __name__ == "__main__":
    main()

"""Whether what is learnt of baths may be believed: ``python tools/bath_trial.py 100``.

Films of populations by their own laws, in a bath whose factor is drawn and known here; each film
is developed on one evening at the usual temperature and on another away from it. How often the
range held the factor and how wide it was, of those that would be claimed: from three films on that
foretell each other. Leaves with 1 where a row lies under 90 of 100.
"""

from __future__ import annotations

import sys
from pathlib import Path

import numpy as np

sys.path[:0] = [str(Path(__file__).parents[1]), str(Path(__file__).parents[1] / "src")]

from oracles.developers import POPULATIONS, Population  # noqa: E402
from vadrin.core.learning.bath_effect import AGITATION, WARMTH, BathSeen, learnt_effect  # noqa: E402

_READ = 0.015
_FILMS = (1, 3, 6)


def film_seen(
    rng: np.random.Generator, population: Population, effect: float, away: float
) -> BathSeen:
    """A film's strips of two evenings, one of them in the other bath."""
    film = population.drawn(rng)
    counts = int(rng.integers(2, 5)), int(rng.integers(1, 4))
    minutes, contrast, where, evenings = [], [], [], []
    for number, (count, x) in enumerate(zip(counts, (0.0, away), strict=True)):
        evening = population.evening(rng, int(rng.integers(0, 6)))
        worth = 8.0 * np.exp(rng.uniform(-0.5, 0.5, count))
        clock = worth / np.exp(effect * x)
        minutes += list(clock)
        contrast += [float(film(t * evening)) for t in worth]
        where += [x] * count
        evenings += [number] * count
    read = np.array(contrast) * np.exp(_READ * rng.standard_normal(len(contrast)))
    deviation = np.full(len(read), _READ)
    return BathSeen(np.array(minutes), np.array(where), read, deviation, np.array(evenings))


def row(population: Population, films: int, warm: bool, count: int) -> tuple[str, float]:
    """A line of the table, and the share that held."""
    widths, held = [], 0
    usual = WARMTH if warm else AGITATION
    for seed in range(count):
        rng = np.random.default_rng([381, seed, films, warm])
        true = rng.uniform(np.log(1.9), np.log(3.4)) if warm else rng.uniform(-0.3, 0.3)
        seen = tuple(
            film_seen(
                rng,
                population,
                true + 0.03 * rng.standard_normal(),
                rng.uniform(0.2, 0.6) * rng.choice([-1, 1]) if warm else 1.0,
            )
            for _ in range(films)
        )
        told = learnt_effect(seen, usual)
        if films > 2 and told.held < 0.9 * films:
            continue
        _, low, high = told.times
        held += low <= np.exp(true) <= high
        widths.append(0.5 * np.log(high / low))
    what = "warmth" if warm else "agitation"
    words = (
        f"{population.name}, {what}, {films} films: {held} of {len(widths)} held, "
        f"± {100 * float(np.median(widths)):.0f} %, {count - len(widths)} not claimed"
    )
    return words, held / len(widths)


def main(count: int) -> int:
    """Print a row each."""
    wrong = False
    for population in POPULATIONS:
        for warm in (True, False):
            for films in _FILMS:
                words, least = row(population, films, warm, count)
                print(words, flush=True)
                wrong |= least < 0.9
    return int(wrong)


if __name__ == "__main__":
    sys.exit(main(int(sys.argv[1])))

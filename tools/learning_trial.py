"""Whether a notebook may learn: ``PYTHONPATH=src python tools/learning_trial.py 100``.

Notebooks of made-up tests, from populations of films and developers that are none of the reader's
own; for one and two strips of the next film, how often the range of its time held the truth, and
how wide it was. Then whole films by their physics: time, EI and pushes from one, two and three
strips. Leaves with 1 where a row lies under 90 of 100, or two strips of a film from
outside all of them were neither held nor named in 85. From one strip nobody can tell such a film:
its rows are printed and held against nothing.
"""

from __future__ import annotations

import sys
from itertools import product
from pathlib import Path

import numpy as np
from scipy.optimize import brentq

sys.path[:0] = [str(Path(__file__).parents[1]), str(Path(__file__).parents[1] / "src")]

from oracles.developers import POPULATIONS, WHOLE, Outside, Population  # noqa: E402
from tools.learning_whole import rows as whole_rows  # noqa: E402
from vadrin.core.learning.contrast_law import (  # noqa: E402
    UNLIKE,
    ContrastSeen,
    learnt_law,
    rate_that_surprises,
    time_for_contrast,
)

_WANTED = 0.58
_READ = 0.015
"""By how much ln contrast of a strip is read off, as usual with a bracket of a dozen frames."""
_TESTS = (0, 3, 10, 30)


def seen(
    rng: np.random.Generator, film: object, minutes: np.ndarray, evening: float
) -> ContrastSeen:
    """Strips of a film, developed on one evening and read."""
    true = np.array([film(t * evening) for t in minutes])  # type: ignore[operator]
    read = true * np.exp(_READ * rng.standard_normal(len(minutes)))
    return ContrastSeen(minutes, read, np.full(len(minutes), _READ))


def one(
    seed: int, population: Population, tests: int, strips: int, last: Population
) -> tuple[bool, float, bool] | None:
    """Whether the range held, half its width in ln t, and whether the film was named as unlike
    the others; None where no time was told."""
    rng = np.random.default_rng([38, seed, tests, strips])
    films = tuple(
        seen(
            rng,
            population.drawn(rng),
            np.sort(8.0 * np.exp(rng.uniform(-0.6, 0.6, int(rng.integers(3, 6))))),
            population.evening(rng, number),
        )
        for number in range(tests)
    )
    law = learnt_law(films)
    film, evening = last.drawn(rng), population.evening(rng, tests)

    def over(t: float) -> float:
        return float(film(t * evening)) - _WANTED

    if over(1.0) > 0 or over(60.0) < 0:
        return None
    true = float(brentq(over, 1.0, 60.0))
    minutes = np.sort(true * np.exp(rng.uniform(-0.45, 0.45, strips)))
    mine = seen(rng, film, minutes, evening)
    told = time_for_contrast(law, mine, _WANTED)
    named = strips > 1 and rate_that_surprises(law, mine) < UNLIKE
    if told.value is None or told.low is None or told.high is None:
        return None
    return told.low <= true <= told.high, 0.5 * float(np.log(told.high / told.low)), named


def main(count: int) -> int:
    """Print a row each."""
    wrong = False
    for population in POPULATIONS:
        for strips in (1, 2):
            for tests in _TESTS:
                rows = [one(n, population, tests, strips, population) for n in range(count)]
                known = [row for row in rows if row is not None]
                held, wide = sum(r[0] for r in known), float(np.median([r[1] for r in known]))
                share = held / max(1, len(known))
                wrong |= share < 0.9
                print(
                    f"{population.name}: {tests} tests, {strips} of the next film: {held} of "
                    f"{len(known)} held ({100 * share:.0f} of 100), ± {100 * wide:.0f} %"
                )
    for whole, strips, tests in product(WHOLE, (1, 2, 3), _TESTS):
        words, least = whole_rows(whole, tests, strips, count)
        print(words, flush=True)
        wrong |= least < 0.9
    for population in POPULATIONS:
        for strips in (1, 2):
            rows = [one(n, population, 10, strips, Outside()) for n in range(count)]
            known = [row for row in rows if row is not None]
            well = sum(r[0] or r[2] for r in known)
            wrong |= strips > 1 and well < 0.85 * len(known)
            print(
                f"{Outside.name} among {population.name}, {strips} strips: held or named "
                f"{well} of {len(known)}, named {sum(r[2] for r in known)}"
            )
    return int(wrong)


if __name__ == "__main__":
    sys.exit(main(int(sys.argv[1])))

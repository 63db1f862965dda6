"""How the print room holds: ``PYTHONPATH=src python tools/print_room.py 200``.

Made-up papers and testers: whether the shortest time for full black is found within half a step of
its strip, and how often the range of the paper method's EI holds the truth.
"""

from __future__ import annotations

import sys
from pathlib import Path

import numpy as np

sys.path[:0] = [str(Path(__file__).parents[1]), str(Path(__file__).parents[1] / "src")]

from oracles.film_shapes import SHAPES, varied  # noqa: E402
from oracles.papers import Paper  # noqa: E402
from vadrin.core.judging.eye_answers import EyeVerdict, SeenFrame, Viewing  # noqa: E402
from vadrin.core.judging.light_box import LightBox  # noqa: E402
from vadrin.core.printing.paper_curve import FIRST_GREY, paper_curve, print_threshold  # noqa: E402
from vadrin.core.printing.strip_exposures import StepUnit, StripExposures, first_black  # noqa: E402

_EYE_SD = 0.004
"""Reflection density by which an eye differs from look to look."""


def black_found(rng: np.random.Generator) -> tuple[bool, bool, bool]:
    """Whether the time was within half a step of the coarse strip and of the fine one, and
    whether its range held."""
    paper, black_lg = Paper(rng.uniform(0.6, 1.4)), rng.uniform(0.5, 1.1)
    top = paper.density(9.0)
    # The tester's own black: the first that lies within so much of the paper's.
    eye = rng.uniform(0.03, 0.05)
    at = paper.at(float(top - 0.06 - eye))
    true = 10**black_lg

    def look(strip: StripExposures) -> int:
        lg = np.log10(strip.totals()) - black_lg + at
        seen = top - paper.density(lg) + _EYE_SD * rng.standard_normal(len(lg))
        return int(np.argmax(seen < eye)) + 1 if (seen < eye).any() else strip.pieces

    coarse = StripExposures(2.0, 0.5, StepUnit.STOPS, 8)
    chosen = look(coarse)
    first = first_black(coarse, chosen)
    fine = coarse.finer(chosen) if 1 < chosen < coarse.pieces else coarse
    found = first_black(fine, look(fine), look(fine))
    off, rough = (abs(np.log2(f.seconds / true)) for f in (found, first))
    return rough <= 0.25, off <= 0.5 * fine.step, found.low <= true <= found.high


def index_held(rng: np.random.Generator, measured: bool) -> tuple[bool, bool, float]:
    """Whether an EI was found, whether its range held the truth, and its half range in stops."""
    film, paper = varied(SHAPES["plain"], rng), Paper(rng.uniform(0.7, 1.4))
    x = np.arange(-2.4, 2.41, 0.1) * 1.2
    curve = paper_curve(x, paper.density(x) + 0.01 * rng.standard_normal(len(x)), 0.0)
    asked = print_threshold(curve if measured else None)
    top = float(paper.density(9.0))
    threshold = paper.at(top - 0.06 - FIRST_GREY) - paper.at(top - 0.06 - 2 * FIRST_GREY)
    fog = film.density(None, 8.0)
    places = film.x_m(8.0) + rng.uniform(-0.15, 0.15) + 0.30103 * np.arange(-4, 5)
    box = LightBox(places, Viewing.SIDE_BY_SIDE, np.random.default_rng(5), 8.125, asked)
    answers: tuple[SeenFrame, ...] = ()
    while (wanted := box.next_frame(answers, blanks=False)) is not None:
        net = film.density(wanted, 8.0) - fog + rng.normal(0, 0.008)
        told = EyeVerdict.YES if net > threshold else EyeVerdict.NO
        answers = (*answers, SeenFrame(wanted, told, asked))
    fine = np.linspace(film.x_m(8.0) - 2, film.x_m(8.0) + 1, 3001)
    nets = np.array([film.density(v, 8.0) - fog for v in fine])
    true = 8.125 / 16 / 10 ** float(fine[np.argmax(nets >= threshold)])
    found = box.told_index(answers)
    if found.low is None or found.high is None:
        return False, False, 0.0
    return True, found.low <= true <= found.high, 0.5 * float(np.log2(found.high / found.low))


def main(count: int) -> None:
    """Print both."""
    black = [black_found(np.random.default_rng([1, seed])) for seed in range(count)]
    coarse, fine, held = (sum(c) for c in zip(*black, strict=True))
    print(
        f"black time: {coarse} of {count} within half a step of the coarse strip, {fine} of the "
        f"fine one made twice; {held} held by the range"
    )
    for measured in (True, False):
        rows = [index_held(np.random.default_rng([2, seed]), measured) for seed in range(count)]
        known = [r for r in rows if r[0]]
        print(
            f"EI of the paper method, paper {'measured' if measured else 'not measured'}: "
            f"{sum(r[1] for r in known)} of {len(known)} held, "
            f"± {np.median([r[2] for r in known]):.2f} stop"
        )


if __name__ == "__main__":
    main(int(sys.argv[1]))

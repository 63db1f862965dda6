"""How the print room holds: ``PYTHONPATH=src python tools/print_room.py 200``.

Made-up papers and testers: whether the shortest time for maximum black is found within half a step
of its strip, and how often the range of the paper method's EI holds the truth.
"""

from __future__ import annotations

import sys
from itertools import product
from pathlib import Path

import numpy as np

sys.path[:0] = [str(Path(__file__).parents[1]), str(Path(__file__).parents[1] / "src")]

from oracles.dark_prints import (  # noqa: E402
    PAPER_SHAPES,
    BlackPaper,
    PrintEye,
    first_section_like_the_next,
    just_lighter,
)
from oracles.film_shapes import SHAPES, varied  # noqa: E402
from oracles.papers import Paper  # noqa: E402
from vadrin.core.judging.eye_answers import PRINTS, EyeVerdict, SeenFrame, Viewing  # noqa: E402
from vadrin.core.judging.light_box import LightBox  # noqa: E402
from vadrin.core.printing.paper_curve import paper_curve  # noqa: E402
from vadrin.core.printing.print_threshold import EYES_APART, print_threshold  # noqa: E402
from vadrin.core.printing.strip_exposures import (  # noqa: E402
    StepUnit,
    StripExposures,
    first_black,
    step_of_range,
)

_TOLD = {True: EyeVerdict.YES, False: EyeVerdict.NO}
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


def index_held(seed: int, measured: bool, fine: str) -> tuple[bool, float, float] | None:
    """Whether the range of the EI by half-covered strips held the truth, how many stops its
    middle was off, and half its width; None where no time or EI was found.

    Parameters
    ----------
    seed : int
        Of paper, film, eye and all they do; kinds of paper, eyes and shapes of film take turns.
    measured : bool
        Whether the paper's curve was read.
    fine : str
        What the time for maximum black was picked on: ``half``, ``quarter`` or ``third`` stops.
    """
    rng = np.random.default_rng([7, seed])
    kind = list(PAPER_SHAPES)[seed % len(PAPER_SHAPES)]
    paper = BlackPaper(kind, rng.uniform(0.7, 1.35), rng.uniform(1.9, 2.2))
    eye = PrintEye((0.03, 0.04, 0.05)[seed % 3])
    light = rng.uniform(0, 0.3) + paper.scale - 1.0

    def look(strip: StripExposures) -> int:
        return first_section_like_the_next(rng, eye, paper, np.log10(strip.totals()) + light)

    strip = StripExposures(2.0, 0.5, StepUnit.STOPS, 10)
    chosen = look(strip)
    if fine != "half" and 1 < chosen < strip.pieces:
        begin = strip.total_s(chosen - 1)
        quarters = StripExposures(begin, 0.25, StepUnit.STOPS, 8)
        strip = strip.finer(chosen) if fine == "third" else quarters
        chosen = look(strip)
    black = first_black(strip, chosen)
    if black.why:
        return None
    at = np.log10(black.seconds) + light
    film = varied(SHAPES[list(SHAPES)[seed % len(SHAPES)]], rng)
    fog, curve = film.density(None, 8.0), None
    if measured:
        x = np.linspace(-0.8, 1.6, 25) * paper.scale
        read = paper.density(x) + 0.01 * rng.standard_normal(len(x))
        curve = paper_curve(x, read, 0.01)
    asked = print_threshold(curve, step_of_range(black.low, black.high) or strip.step)
    places = film.x_m(8.0) + rng.uniform(-0.15, 0.15) + 0.30103 * np.arange(-5, 5)
    box = LightBox(places, Viewing.SIDE_BY_SIDE, np.random.default_rng(5), 8.125, asked)
    answers: tuple[SeenFrame, ...] = ()
    while (wanted := box.next_frame(answers, blanks=False, looks=PRINTS)) is not None:
        dense = paper.density(at - (film.density(wanted, 8.0) - fog))
        seen = eye.lighter(rng, dense, paper.density(at))
        answers = (*answers, SeenFrame(wanted, _TOLD[seen], asked))
    found = box.told_index(answers, EYES_APART)
    if found.value is None or found.low is None or found.high is None:
        return None
    every = np.linspace(film.x_m(8.0) - 2.5, film.x_m(8.0) + 1.5, 4001)
    nets = np.array([film.density(v, 8.0) - fog for v in every])
    true = 8.125 / 16 / 10 ** float(every[np.argmax(nets >= just_lighter(paper, at))])
    off = float(np.log2(found.value / true))
    return found.low <= true <= found.high, off, 0.5 * float(np.log2(found.high / found.low))


def main(count: int) -> int:
    """Print both; 1 where a range holds too rarely or too often, or an EI is off by design."""
    black = [black_found(np.random.default_rng([1, seed])) for seed in range(count)]
    coarse, fine, held = (sum(c) for c in zip(*black, strict=True))
    print(
        f"black time: {coarse} of {count} within half a step of the coarse strip, {fine} of the "
        f"fine one made twice; {held} held by the range"
    )
    wrong = False
    for measured, fine in product((True, False), ("half", "quarter", "third")):
        rows = [t for n in range(count) if (t := index_held(n, measured, fine)) is not None]
        held, bias = sum(r[0] for r in rows), float(np.mean([r[1] for r in rows]))
        share = held / len(rows)
        wrong |= not 0.88 <= share <= 0.99 or abs(bias) > 0.1
        print(
            f"EI by half-covered strips, paper {'measured' if measured else 'not measured'}, "
            f"black picked on {fine} stops: {held} of {len(rows)} held ({100 * share:.0f} of 100), "
            f"off by {bias:+.2f} stop on average, ± {np.median([r[2] for r in rows]):.2f}"
        )
    return int(wrong)


if __name__ == "__main__":
    sys.exit(main(int(sys.argv[1])))

"""Eyes as they are at a light box: ``python tools/eyes.py [FILMS] [SEED] [CONDITION …]``.

Made-up films are judged by eyes that drift over an evening, slip, are blinded a little by the
light round the frame, say yes too soon, or answer the wrong way round once or twice. How often the
EI's range holds the truth is told for each, in how many questions, and how often the answers are
said to contradict each other. Leaves with 1 where fewer than 90 of 100 hold and nothing is said.
"""

from __future__ import annotations

import sys
from pathlib import Path

import numpy as np

sys.path[:0] = [str(Path(__file__).parents[1]), str(Path(__file__).parents[1] / "src")]

from oracles.film_shapes import SHAPES, varied  # noqa: E402
from vadrin.core.judging.eye_answers import EyeVerdict, SeenFrame, Viewing  # noqa: E402
from vadrin.core.judging.light_box import LightBox  # noqa: E402

_K, _MINUTES = 8.125, 8.0
CONDITIONS = (
    "steady",
    "drifts",
    "slips 3 of 100",
    "slips 10 of 100",
    "too soon",
    "glare",
    "one inverted",
    "two inverted",
)


class Eye:
    """One person's eye on one evening."""

    def __init__(self, rng: np.random.Generator, condition: str) -> None:
        self._rng, self._condition = rng, condition
        self._threshold = max(0.012, float(rng.normal(0.045, 0.012)))
        self._noise = float(rng.uniform(0.004, 0.014))
        self._drift = float(rng.choice([-1, 1])) * 0.012 if condition == "drifts" else 0.0
        if condition == "too soon":
            self._threshold = max(0.012, self._threshold - 0.01)
        count = {"one inverted": 1, "two inverted": 2}.get(condition, 0)
        self._inverted = set(rng.choice(6, count, replace=False).tolist())
        self._looks = 0

    def says(self, net: float) -> EyeVerdict:
        """An answer to a frame of a net density beside clear film."""
        at = self._looks
        self._looks += 1
        seen = net * (0.8 if self._condition == "glare" else 1.0)
        away = (
            seen - self._threshold - self._drift * (at / 6 - 0.5) + self._rng.normal(0, self._noise)
        )
        lapses = {"slips 3 of 100": 0.03, "slips 10 of 100": 0.10}.get(self._condition, 0.0)
        if self._rng.random() < lapses:
            return self._rng.choice(np.array([EyeVerdict.YES, EyeVerdict.NO]))  # type: ignore[no-any-return]
        if abs(away) < self._rng.uniform(0, 0.007):
            return EyeVerdict.UNSURE
        yes = (away > 0) != (at in self._inverted)
        return EyeVerdict.YES if yes else EyeVerdict.NO


def judged(seed: int, condition: str) -> tuple[bool | None, float, int, bool]:
    """Whether the range held (None where none was given), half its width in stops, the questions
    asked, and whether a contradiction was said."""
    rng = np.random.default_rng((3, seed))
    film = varied(SHAPES["plain"], rng)
    point = float(film.x_m(_MINUTES))
    x = point - 0.30103 * rng.uniform(2.0, 4.0) + 0.30103 * np.arange(11)
    fog = film.density(None, _MINUTES)
    eye = Eye(rng, condition)
    box = LightBox(x, Viewing.SIDE_BY_SIDE, np.random.default_rng(1), _K)
    answers: tuple[SeenFrame, ...] = ()
    while (wanted := box.next_frame(answers, blanks=True)) is not None:
        blank = np.isnan(wanted)
        net = 0.0 if blank else film.density(wanted, _MINUTES) - fog
        answers += (SeenFrame(None if blank else float(wanted), eye.says(float(net))),)
    result = box.result(answers)
    index = result.zone_ei
    said = result.doubted is not None
    if index.low is None or index.high is None:
        return None, 0.0, len(answers), True
    true = _K / 16 / 10**point
    return (
        index.low <= true <= index.high,
        0.5 * np.log2(index.high / index.low),
        len(answers),
        said,
    )


def main(films: int = 100, seed: int = 0, *only: str) -> int:
    """Print a line for each kind of eye."""
    bad = 0
    for condition in only or CONDITIONS:
        rows = [judged(seed * 100_000 + n, condition) for n in range(films)]
        given = [r for r in rows if r[0] is not None]
        held = sum(bool(r[0]) for r in given)
        unsaid = sum(not r[0] and not r[3] for r in given)
        bad += unsaid > 0.1 * len(given)
        print(
            f"{condition:<18}{held:>4} of {len(given)} held, {unsaid} missed with nothing said, "
            f"± {np.median([r[1] for r in given]):.2f} stop, {max(r[2] for r in rows)} questions, "
            f"contradictions said {sum(r[3] for r in given)}, no range {films - len(given)}",
            flush=True,
        )
    return int(bad > 0)


if __name__ == "__main__":
    sys.exit(main(*(int(w) if w.isdigit() else w for w in sys.argv[1:])))  # type: ignore[arg-type]

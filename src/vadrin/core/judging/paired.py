"""Paired judgements: less or more than the reference, and whether that many could be chance."""

from __future__ import annotations

from dataclasses import dataclass
from math import comb

SCALE = ("less", "a little less", "same", "a little more", "more")
"""Of the other beside the reference, from least to most."""
QUALITIES = (
    "grain",
    "sharpness",
    "shadow separation",
    "highlight separation",
    "contrast",
    "base and fog",
)
_CHANCE = 0.05


def worth_of(answer: str) -> int:
    """−2 to 2 of an answer.

    Raises
    ------
    ValueError
        For one that is not on the scale.
    """
    return SCALE.index(answer) - 2


@dataclass(frozen=True)
class PairedResult:
    """What all looks at one quality come to.

    Attributes
    ----------
    mean : float
        −2 to 2.
    less, same, more : int
    chance : float
        Probability that so many go one way where there is no difference (exact sign test, two
        sided; looks at which both were the same are left out).
    """

    mean: float
    less: int
    same: int
    more: int
    chance: float

    @property
    def told(self) -> bool:
        """Whether it is more than chance."""
        return self.chance <= _CHANCE


def paired_result(answers: tuple[str, ...]) -> PairedResult:
    """Count judgements.

    Parameters
    ----------
    answers : tuple of str
        Each of `SCALE`.

    Raises
    ------
    ValueError
        For none, or one that is not on the scale.
    """
    if not answers:
        raise ValueError("nothing was judged yet")
    worth = [worth_of(a) for a in answers]
    less, more = sum(w < 0 for w in worth), sum(w > 0 for w in worth)
    decided, fewer = less + more, min(less, more)
    tail = sum(comb(decided, k) for k in range(fewer + 1)) / 2**decided
    return PairedResult(
        sum(worth) / len(worth), less, len(worth) - decided, more, min(1.0, 2 * tail)
    )

"""Rules of thumb as they are told, what they predict, and what is left of them after trials."""

from __future__ import annotations

import math
import statistics
from dataclasses import dataclass
from enum import StrEnum

_ENOUGH = 5
_CLOSE, _ROUGH = 0.10 + 1e-9, 0.25 + 1e-9


class RuleFormula(StrEnum):
    """How a rule comes from what is given to minutes."""

    FACTOR = "given times"
    SHARE = "share more a stop"
    DEGREE = "share less a degree"


@dataclass(frozen=True)
class Trial:
    """One prediction with the answer that was measured, both in minutes."""

    predicted_min: float
    measured_min: float


class RuleVerdict(StrEnum):
    """What trials say of a rule."""

    UNTRIED = "not tried yet"
    HOLDS = "holds"
    ROUGH = "rough"
    FAILS = "fails"


@dataclass(frozen=True)
class Score:
    """What trials say of a rule.

    Attributes
    ----------
    verdict : RuleVerdict
    count : int
    close, rough : int
        How many came within 10 and 25 % of what was measured.
    ratio : float or None
        Median of predicted over measured.
    spread : float or None
        Standard deviation of its logarithm; None for fewer than two trials.
    """

    verdict: RuleVerdict
    count: int
    close: int
    rough: int
    ratio: float | None
    spread: float | None


def predicted_minutes(
    formula: RuleFormula, amount: float, given: float, usual_min: float | None = None
) -> float:
    """What a rule says.

    Parameters
    ----------
    formula : RuleFormula
    amount : float
        Its factor, or its share.
    given : float
        Seconds of a drop test, stops of push, degrees above the reference.
    usual_min : float, optional
        The usual time, which shares are of.

    Raises
    ------
    ValueError
        In words, where it says nothing.
    """
    if formula is RuleFormula.FACTOR:
        minutes = given * amount
    elif usual_min is None or usual_min <= 0:
        raise ValueError("this rule is a share of the usual time: give that too")
    elif formula is RuleFormula.SHARE:
        minutes = usual_min * (1.0 + amount) ** given
    else:
        minutes = usual_min * (1.0 - amount) ** given
    if not math.isfinite(minutes) or not 0 < minutes <= 10_000:
        raise ValueError("this rule gives an impossible time")
    return minutes


def score_of(trials: tuple[Trial, ...]) -> Score:
    """What is left of a rule.

    It holds where all of at least five came within 10 %, is rough where all came within 25 %, and
    fails else.
    """
    if not trials:
        return Score(RuleVerdict.UNTRIED, 0, 0, 0, None, None)
    ratio = [t.predicted_min / t.measured_min for t in trials]
    off = [abs(r - 1.0) for r in ratio]
    close, rough = sum(o <= _CLOSE for o in off), sum(o <= _ROUGH for o in off)
    verdict = RuleVerdict.FAILS
    if rough == len(trials):
        holds = close == len(trials) >= _ENOUGH
        verdict = RuleVerdict.HOLDS if holds else RuleVerdict.ROUGH
    spread = statistics.stdev(math.log(r) for r in ratio) if len(trials) > 1 else None
    return Score(verdict, len(trials), close, rough, statistics.median(ratio), spread)

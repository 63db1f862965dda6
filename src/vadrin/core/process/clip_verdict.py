"""A clip beside a known good one: whether the bath is alive, and the time if it is not.

Fully exposed film gains density as development goes on, D' = D'max (1 - exp(-a)) with a the
product of rate and time (first-order development, as the family over time has it). A weak bath
has a smaller rate; how far along the good clip was is not known, so its usual range goes into the
answer's.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from enum import StrEnum

_ALONG = (0.8, 1.3, 2.0)
"""Rate times time of a usual development: least, typical, most."""
_GO_WITHIN = 0.08
_SPENT = 0.35
_MOST_FACTOR = 2.5


class ClipVerdict(StrEnum):
    """What a clip says."""

    GO = "go"
    LONGER = "develop longer"
    SHORTER = "develop less"
    UNSURE = "look again"
    SPENT = "do not use it"


class SeenThrough(StrEnum):
    """How print looks behind the piece, beside the good one."""

    SAME = "same"
    A_LITTLE_CLEARER = "a little clearer"
    CLEARER = "clearer"
    DARKER = "darker"


@dataclass(frozen=True)
class ClipAnswer:
    """What a clip says.

    Attributes
    ----------
    verdict : ClipVerdict
    factor : float or None
        On the time that is meant; None where no number can be claimed.
    low, high : float or None
        Its 95 % range.
    why : str
        The reason where there is no number.
    next_try : float or None
        Share of the time for the next piece, where an eye tells no factor.
    """

    verdict: ClipVerdict
    factor: float | None = None
    low: float | None = None
    high: float | None = None
    why: str = ""
    next_try: float | None = None


def _factor(share: float, along: float) -> float:
    """Time needed over time given, for a share of the good density; 0 where no time is so long."""
    left = 1.0 - share * (1.0 - math.exp(-along))
    if left <= 0:
        return 0.0
    return math.inf if left >= 1 else -along / math.log(left)


def _end(middle: float, share: float, off: float) -> float:
    """One end of the range of a factor: what the readings and the usual range make, together.

    Both go 95 of 100 of the way and are independent, so their logarithms add as squares.
    """
    by_reading = _factor(share + off, _ALONG[1])
    by_range = [_factor(share, along) for along in (_ALONG[0], _ALONG[2])]
    outer = min(by_range) if off > 0 else max(by_range)
    if off > 0 and outer == 0.0:
        # A good clip so far along cannot have been outdone: how much shorter nobody knows.
        return 0.0
    if not min(by_reading, outer, middle) > 0 or not math.isfinite(max(by_reading, outer, middle)):
        return by_reading
    apart = math.hypot(*(math.log(end / middle) for end in (by_reading, outer)))
    return middle * math.exp(-apart if off > 0 else apart)


def clip_of_densities(
    clip: float, good: float, base: float, clip_sd: float = 0.02, good_sd: float = 0.02
) -> ClipAnswer:
    """The answer from two densities, read or matched.

    Parameters
    ----------
    clip, good : float
        Densities of the piece in question and of the good one.
    base : float
        Base plus fog.
    clip_sd, good_sd : float
        Their standard deviations.

    Raises
    ------
    ValueError
        If the good clip is no denser than the base.
    """
    if good - base < 0.3:
        raise ValueError("the good clip is hardly denser than the base: it was not fogged")
    share = (clip - base) / (good - base)
    sd = math.hypot(clip_sd, share * good_sd) / (good - base)
    if share < _SPENT:
        return ClipAnswer(ClipVerdict.SPENT, why="developer almost inactive")
    middle = _factor(share, _ALONG[1])
    low, high = (_end(middle, share, 1.96 * way * sd) for way in (1, -1))
    if middle > _MOST_FACTOR or not math.isfinite(high):
        return ClipAnswer(ClipVerdict.SPENT, why="too weak to correct by time: discard")
    if abs(middle - 1) <= _GO_WITHIN:
        return ClipAnswer(ClipVerdict.GO, middle, low, high)
    if low <= 1 <= high:
        why = "it may be as good as the good one: read it again, or more finely"
        return ClipAnswer(ClipVerdict.UNSURE, middle, low, high, why)
    if low <= 0:
        why = "too much denser for a factor: try a clip at ⅔ of the time"
        return ClipAnswer(ClipVerdict.SHORTER, why=why)
    verdict = ClipVerdict.LONGER if middle > 1 else ClipVerdict.SHORTER
    return ClipAnswer(verdict, middle, low, high)


def clip_seen_through(looks: SeenThrough) -> ClipAnswer:
    """The answer from print seen through both pieces: go or not, and never a number."""
    if looks is SeenThrough.SAME:
        return ClipAnswer(ClipVerdict.GO, next_try=1.0)
    said = {
        SeenThrough.A_LITTLE_CLEARER: (ClipVerdict.LONGER, "try a second clip a fifth longer", 1.2),
        SeenThrough.CLEARER: (ClipVerdict.LONGER, "try a second clip half as long again", 1.5),
        SeenThrough.DARKER: (ClipVerdict.SHORTER, "try a second clip a fifth shorter", 0.8),
    }
    verdict, act, share = said[looks]
    why = f"the eye gives no factor: {act} and compare again"
    return ClipAnswer(verdict, why=why, next_try=share)

"""What an eye tells, learnt from frames it judged that were read as well.

Each answer is a noisy comparison of a known net density with the eye's threshold, with a share of
slips (the same psychometric function as where the density is not known).
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.special import ndtr

from vadrin.core.arrays import Array
from vadrin.core.judging.eye_answers import Viewing

_THRESHOLDS = np.linspace(0.008, 0.16, 153)
_NOISES = np.linspace(0.004, 0.016, 5)
_SLIPS = 0.08
_UNSURE = 0.007
_READ = 0.008
"""How well the net density of a frame is read."""


@dataclass(frozen=True)
class KnownEye:
    """The net density that an eye tells.

    Attributes
    ----------
    threshold, deviation : float
    looks : int
        How many it was learnt from.
    """

    threshold: float
    deviation: float
    looks: int


def known_eye(net: Array, yes: Array, no: Array, viewing: Viewing) -> KnownEye:
    """The threshold that answers tell of.

    Parameters
    ----------
    net : ndarray, shape (n,)
        Net densities of the frames that were judged.
    yes, no : ndarray of bool, shape (n,)
        What was said of each; neither where it could not be told.
    viewing : Viewing
        What eyes tell that look so, before anything is known of this one.
    """
    middle, spread = viewing.threshold
    belief = -0.5 * ((_THRESHOLDS[:, None] - middle) / spread) ** 2 + 0.0 * _NOISES[None, :]
    noise = np.hypot(_NOISES, _READ)[None, :, None]
    away = net[None, None, :] - _THRESHOLDS[:, None, None]
    seen = ndtr((away - _UNSURE) / noise)
    unseen = ndtr((-away - _UNSURE) / noise)
    likely = np.where(yes, seen, np.where(no, unseen, 1.0 - seen - unseen))
    told = np.log((1.0 - _SLIPS) * np.maximum(likely, 0.0) + _SLIPS / 3.0)
    belief = belief + told.sum(-1)
    weight = np.exp(belief - belief.max()).sum(1)
    weight = weight / weight.sum()
    threshold = float(weight @ _THRESHOLDS)
    deviation = float(np.sqrt(weight @ (_THRESHOLDS - threshold) ** 2))
    return KnownEye(threshold, deviation, len(net))

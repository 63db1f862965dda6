"""Identical exposures in two baths: what the pairs differ by, and what stain adds to each."""

from __future__ import annotations

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.figure import Figure, absent
from vadrin.core.fitting.student_t import t_quantile

LEAST_PAIRS = 3
_LEAST_RANGE = 0.3
"""Visual density over which stain must be known before a line through it means something."""


def paired_difference(one: Array, other: Array) -> Figure:
    """Mean of the differences of pairs, with its 95 % range by Student's t.

    Parameters
    ----------
    one, other : ndarray, shape (n,)
        Net densities of the same exposures.
    """
    apart = np.asarray(other, dtype=np.float64) - np.asarray(one, dtype=np.float64)
    if len(apart) < LEAST_PAIRS:
        return absent(f"{LEAST_PAIRS} pairs that both were read are wanted")
    reach = t_quantile(0.975, len(apart) - 1) * float(apart.std(ddof=1)) / np.sqrt(len(apart))
    middle = float(apart.mean())
    return Figure(middle, middle - reach, middle + reach)


def stain_share(visual: Array, printing: Array) -> Figure:
    """Stain gained for each unit of visual density, with its 95 % range.

    The slope of a straight line through printing less visual density (ISO 5-3) against visual
    density; general stain, which lies over the whole film, stays in the line's foot.

    Parameters
    ----------
    visual, printing : ndarray, shape (n,)
        Densities of the same frames; the printing one through blue or ultraviolet.
    """
    seen = np.asarray(visual, dtype=np.float64)
    added = np.asarray(printing, dtype=np.float64) - seen
    if len(seen) < LEAST_PAIRS + 1 or np.ptp(seen) < _LEAST_RANGE:
        return absent("stain needs four frames read by both filters, over 0.3 of density")
    spread = float(((seen - seen.mean()) ** 2).sum())
    slope = float(((seen - seen.mean()) * added).sum() / spread)
    left = added - added.mean() - slope * (seen - seen.mean())
    freedom = len(seen) - 2
    reach = t_quantile(0.975, freedom) * float(np.sqrt((left**2).sum() / freedom / spread))
    return Figure(slope, slope - reach, slope + reach)

"""Quantiles of Student's t."""

from __future__ import annotations

from functools import lru_cache

from scipy import special


@lru_cache(maxsize=256)
def t_quantile(share: float, freedom: float) -> float:
    """Value that a t variable stays below in a share of cases.

    Parameters
    ----------
    share : float
        Between 0 and 1.
    freedom : float
        Degrees of freedom, above 0.
    """
    # This import alone takes a fifth of a second, which the window's start can't spare.
    return float(special.stdtrit(freedom, share))

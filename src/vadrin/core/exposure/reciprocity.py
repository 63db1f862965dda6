"""Long exposures: the time to give, and the time a long exposure was worth.

Corrected time t_c = t_m + a t_m**p (additive), t_m**p (power), or a table in between.
Sources: the additive form is fitted to pairs of metered and working times; the power form
is the usual one on makers' sheets.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import lru_cache
from math import inf, log, log2

import numpy as np
from scipy.optimize import least_squares

from vadrin.core.arrays import Array
from vadrin.core.figure import Figure, absent

FORMS = ("additive", "power", "table")

LONG_S = 1.0
"""Seconds beyond which an exposure counts as long."""


@dataclass(frozen=True)
class Reciprocity:
    """How much longer a film must be exposed than the meter says.

    Attributes
    ----------
    form : str
        ``additive``, ``power`` or ``table``.
    factor, exponent : float
        a and p; the power form has no factor.
    threshold_s : float
        Metered seconds up to which nothing is added.
    table : tuple of (float, float)
        Metered and corrected seconds, rising, for the table form.
    """

    form: str = "additive"
    factor: float = 0.0
    exponent: float = 1.3
    threshold_s: float = 1.0
    table: tuple[tuple[float, float], ...] = ()


def _lengthened(metered_s: Array | float, factor: float, exponent: float) -> Array | float:
    """The additive form, over its threshold."""
    return metered_s + factor * metered_s**exponent


def corrected_time(reciprocity: Reciprocity, metered_s: float) -> float:
    """Seconds to expose where the meter asks for `metered_s`.

    Raises
    ------
    ValueError
        For a time that is not positive, a form that is not known, or an empty table.
    """
    if metered_s <= 0:
        raise ValueError("an exposure time is above 0")
    if reciprocity.form not in FORMS:
        raise ValueError(f"no such form of reciprocity: {reciprocity.form}")
    if metered_s <= reciprocity.threshold_s:
        return metered_s
    if reciprocity.form == "additive":
        return float(_lengthened(metered_s, reciprocity.factor, reciprocity.exponent))
    if reciprocity.form == "power":
        return float(max(metered_s, metered_s**reciprocity.exponent))
    if not reciprocity.table:
        raise ValueError("a reciprocity table without rows")
    known = np.log(
        np.array([(reciprocity.threshold_s, reciprocity.threshold_s), *reciprocity.table])
    )
    slope = (known[-1, 1] - known[-2, 1]) / max(known[-1, 0] - known[-2, 0], 1e-9)
    beyond = max(log(metered_s) - known[-1, 0], 0.0)
    inside = float(np.interp(log(metered_s), known[:, 0], known[:, 1]))
    return float(np.exp(inside + beyond * slope))


_USUAL_EXPONENT = 1.3


@lru_cache(maxsize=8192)
def effective_time(reciprocity: Reciprocity, exposed_s: float) -> float:
    """The metered seconds a real exposure was worth: the time whose corrected time it is."""
    low, high = reciprocity.threshold_s, exposed_s
    if exposed_s <= reciprocity.threshold_s:
        return exposed_s
    for _ in range(60):
        middle = (low * high) ** 0.5
        low, high = (
            (middle, high) if corrected_time(reciprocity, middle) < exposed_s else (low, middle)
        )
    return float((low * high) ** 0.5)


def stops_lost(reciprocity: Reciprocity, exposed_s: float) -> float:
    """Stops of exposure that a long time loses."""
    return log2(exposed_s / effective_time(reciprocity, exposed_s))


def fit_reciprocity(
    metered_s: Array, needed_s: Array, threshold_s: float = 1.0
) -> tuple[Reciprocity, Figure]:
    """Fit the additive form to a tester's own pairs.

    Parameters
    ----------
    metered_s, needed_s : ndarray, shape (n,)
        Seconds metered, and seconds that gave the same density.
    threshold_s : float

    Returns
    -------
    law : Reciprocity
    misfit : Figure
        Root mean square error in stops; absent with fewer than two long pairs.
    """
    long = metered_s > threshold_s
    t, needed = metered_s[long], needed_s[long]
    if not (needed > t * 1.001).any():
        return Reciprocity(factor=0.0, threshold_s=inf), absent("no extra exposure was needed")

    def law(ln_factor: float, exponent: float) -> Reciprocity:
        factor = float(np.exp(ln_factor))
        return replace(Reciprocity(), factor=factor, exponent=exponent, threshold_s=threshold_s)

    def missed(shape: Array) -> Array:
        exponent = shape[1] if len(shape) > 1 else _USUAL_EXPONENT
        return np.asarray(np.log2(_lengthened(t, float(np.exp(shape[0])), exponent) / needed))

    # Pairs that needed nothing say how late it begins, and count like the others.
    extra = np.maximum(needed - t, 0.02 * t)
    start = [float(np.mean(np.log(extra) - _USUAL_EXPONENT * np.log(t))), _USUAL_EXPONENT]
    free = len(t) > 1 and np.ptp(np.log(t)) > 0.3
    found = least_squares(missed, start if free else start[:1], xtol=1e-14, ftol=1e-14, gtol=1e-14)
    reciprocity = law(found.x[0], float(found.x[1]) if free else _USUAL_EXPONENT)
    if len(t) < 2:
        return reciprocity, absent("add a second long exposure: one is not enough for a correction")
    return reciprocity, Figure(float(np.sqrt(np.mean(np.square(missed(found.x))))))

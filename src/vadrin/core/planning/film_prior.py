"""The curves a film is likely to give: its own as they were measured, or a typical film's.

Whatever they come from is kept as a law of development with the bends of its curves, so that
any plan can be asked about them without a reading.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from vadrin.core.curves.shape import BENDS, Array, Curves, curves_of
from vadrin.core.fitting import development_model as laws
from vadrin.core.fitting.development_model import (
    FOG_LEVEL,
    FOG_RATE,
    FOG_RISE,
    G_DELAY,
    G_LEVEL,
    G_RATE,
    LAW,
    X_LEVEL,
    X_RATE,
    X_RISE,
    Law,
)
from vadrin.core.fitting.fit import Fit, fit_expected
from vadrin.core.fitting.solver import Scales
from vadrin.core.readings import Reading, StripReadings
from vadrin.core.simulation.film import Film, densities

_CLOSE = Scales(0.002, 0.3, 0.3)
_SEEN = np.arange(-5.2, 3.21, 0.1)
_TIMES = (4.5, 6.5, 9.0, 12.5, 17.0)
_LEAST_RATE, _MOST_RATE = 0.05, 8.0


@dataclass(frozen=True, eq=False)
class Likely:
    """How a film follows development, by parameters of a law.

    Attributes
    ----------
    law : Law
        With the times it was learnt from.
    phi : ndarray, shape (12 + m,)
        Law parameters and bends.
    """

    law: Law
    phi: Array


def likely_of_fit(fit: Fit) -> Likely:
    """A film as a fit of its own readings has it, without the straying of single strips."""
    return Likely(fit.law, fit.phi[: LAW + BENDS].copy())


def likely_of_film(film: Film) -> Likely:
    """A film of the simulator, by the law that comes nearest to it."""
    x = film.toe + _SEEN + 2.0
    strips = []
    for minutes in _TIMES:
        true = densities(film, minutes, x)
        rows = tuple(
            Reading(str(i), float(at), float(d))
            for i, (at, d) in enumerate(zip(x, true, strict=True))
        )
        strips.append(StripReadings(f"{minutes:g}", minutes, None, rows))
    return likely_of_fit(fit_expected(tuple(strips), _CLOSE, 100.0))


def moved(likely: Likely, by: float) -> Likely:
    """The same film slower or faster: its curves moved along lg exposure."""
    phi = likely.phi.copy()
    phi[X_LEVEL] += by
    return replace(likely, phi=phi)


def likely_curve(likely: Likely, minutes: float) -> Curves:
    """The curve after a development, batch shape ()."""
    row = laws.rows_at(likely.law, likely.phi, np.array([minutes]))[0]
    return curves_of(row, laws.bends_of(likely.phi))


def carried(likely: Likely, law: Law) -> Array:
    """The same curves as parameters of the law of other strips, which do not stray.

    Parameters
    ----------
    likely : Likely
    law : Law
        Of the strips planned.

    Returns
    -------
    ndarray, shape (law.size,)
    """
    at = law.anchor
    here, near = laws.rows_at(likely.law, likely.phi, np.array([at, at * 1.001]))
    rise = (near - here) / 0.001
    phi = np.zeros(law.size)
    phi[: LAW + BENDS] = likely.phi
    phi[FOG_LEVEL], phi[G_LEVEL], phi[X_LEVEL] = here[:3]
    if law.distinct == 2:
        low, high = float(law.times.min()), float(law.times.max())
        first, last = laws.rows_at(likely.law, likely.phi, np.array([low, high]))
        rates = ((last - first) / np.log(high / low))[:3]
        phi[[FOG_RISE, G_RATE, X_RISE]] = rates
        phi[[FOG_LEVEL, G_LEVEL, X_LEVEL]] = first[:3] + rates * np.log(at / low)
    elif law.distinct > 2:
        phi[[FOG_RISE, X_RISE]] = rise[0], rise[2]
        _carry_rates(likely, law, phi, float(rise[1]))
    return phi


def _carry_rates(likely: Likely, law: Law, phi: Array, growth: float) -> None:
    """Rates count in units of the anchor, the delay in units of the shortest time."""
    if likely.law.distinct > 2:
        faster = np.log(law.anchor / likely.law.anchor)
        phi[[FOG_RATE, X_RATE, G_RATE]] = likely.phi[[FOG_RATE, X_RATE, G_RATE]] + faster
        phi[G_DELAY] = likely.phi[G_DELAY] * likely.law.times.min() / law.times.min()
        return
    # Two strips tell no rate: the usual ones, with the growth of contrast as it was found.
    mean, _ = laws.prior(law, 0.0, 0.0)
    phi[[FOG_RATE, X_RATE, G_DELAY]] = mean[[FOG_RATE, X_RATE, G_DELAY]]
    grown = 1.0 - mean[G_DELAY] * law.times.min() / law.anchor
    rates = np.geomspace(_LEAST_RATE, _MOST_RATE, 200)
    steep = rates * np.exp(-rates * grown) / -np.expm1(-rates * grown)
    phi[G_RATE] = np.log(rates[np.argmin(np.abs(steep - growth))])

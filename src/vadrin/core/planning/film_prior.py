"""The curves a film is likely to give: its own as they were measured, or a typical film's.

Whatever they come from is kept as a development model with the bends of its curves, so that
any plan can be asked about them without a reading.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.curves.shape import Curves, curves_of
from vadrin.core.fitting import development_model
from vadrin.core.fitting.development_model import (
    BEND_ROOT,
    BENDS,
    FOG_LEVEL,
    FOG_RATE,
    FOG_RISE,
    G_DELAY,
    G_LEVEL,
    G_RATE,
    SHARED,
    X_LEVEL,
    X_RATE,
    X_RISE,
    DevelopmentModel,
)
from vadrin.core.fitting.fit import Fit, fit_expected
from vadrin.core.fitting.freedoms import even_scales
from vadrin.core.readings import Reading, StripReadings
from vadrin.core.simulation.film import Film, densities

_CLOSE = even_scales(0.002, 0.3, 0.3)
_SEEN = np.arange(-5.2, 3.21, 0.1)
_TIMES = (4.5, 6.5, 9.0, 12.5, 17.0)
_LEAST_RATE, _MOST_RATE = 0.05, 8.0


@dataclass(frozen=True, eq=False)
class FilmPrior:
    """How a film follows development, by parameters of a law.

    Attributes
    ----------
    law : Law
        With the times it was learnt from.
    phi : ndarray, shape (12 + m,)
        Law parameters and bends.
    """

    model: DevelopmentModel
    phi: Array


def prior_of_fit(fit: Fit) -> FilmPrior:
    """A film as a fit of its own readings has it, without the deviation of single strips."""
    return FilmPrior(fit.model, fit.phi[:SHARED].copy())


def prior_of_film(film: Film) -> FilmPrior:
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
    return prior_of_fit(fit_expected(tuple(strips), _CLOSE, 100.0))


def shifted_prior(prior: FilmPrior, by: float) -> FilmPrior:
    """The same film slower or faster: its curves moved along lg exposure."""
    phi = prior.phi.copy()
    phi[X_LEVEL] += by
    return replace(prior, phi=phi)


def prior_curve(prior: FilmPrior, minutes: float) -> Curves:
    """The curve after a development, batch shape ()."""
    row = development_model.parameters_at(prior.model, prior.phi, np.array([minutes]))[0]
    weights = development_model.slope_weights_at(prior.model, prior.phi, np.array([minutes]))[0]
    return curves_of(row, weights)


def prior_parameters(prior: FilmPrior, model: DevelopmentModel) -> Array:
    """The same curves as parameters of the model of other strips, which do not deviate.

    Parameters
    ----------
    prior : FilmPrior
    model : DevelopmentModel
        Of the strips planned.

    Returns
    -------
    ndarray, shape (model.size,)
    """
    at = model.anchor
    here, near = development_model.parameters_at(prior.model, prior.phi, np.array([at, at * 1.001]))
    rise = (near - here) / 0.001
    phi = np.zeros(model.size)
    phi[:SHARED] = prior.phi
    # Bends are those at the anchor, which is another one here.
    bends = development_model.slope_weights_at(prior.model, prior.phi, np.array([at]))[0]
    phi[BENDS] = np.linalg.solve(BEND_ROOT, bends)
    phi[FOG_LEVEL], phi[G_LEVEL], phi[X_LEVEL] = here[:3]
    if model.distinct == 2:
        low, high = float(model.times.min()), float(model.times.max())
        first, last = development_model.parameters_at(prior.model, prior.phi, np.array([low, high]))
        rates = ((last - first) / np.log(high / low))[:3]
        phi[[FOG_RISE, G_RATE, X_RISE]] = rates
        phi[[FOG_LEVEL, G_LEVEL, X_LEVEL]] = first[:3] + rates * np.log(at / low)
    elif model.distinct > 2:
        phi[[FOG_RISE, X_RISE]] = rise[0], rise[2]
        _carry_rates(prior, model, phi, float(rise[1]))
    return phi


def _carry_rates(prior: FilmPrior, model: DevelopmentModel, phi: Array, growth: float) -> None:
    """Rates count in units of the anchor, the delay in units of the shortest time."""
    if prior.model.distinct > 2:
        faster = np.log(model.anchor / prior.model.anchor)
        phi[[X_RATE, G_RATE]] = prior.phi[[X_RATE, G_RATE]] + faster
        phi[FOG_RATE] = prior.phi[FOG_RATE] * np.exp(faster)
        phi[G_DELAY] = prior.phi[G_DELAY] * prior.model.times.min() / model.times.min()
        return
    # Two strips tell no rate: the usual ones, with the growth of contrast as it was found.
    mean, _ = development_model.parameter_prior(model, 0.0, 0.0, blank=True)
    phi[[FOG_RATE, X_RATE, G_DELAY]] = mean[[FOG_RATE, X_RATE, G_DELAY]]
    grown = 1.0 - mean[G_DELAY] * model.times.min() / model.anchor
    rates = np.geomspace(_LEAST_RATE, _MOST_RATE, 200)
    steep = rates * np.exp(-rates * grown) / -np.expm1(-rates * grown)
    phi[G_RATE] = np.log(rates[np.argmin(np.abs(steep - growth))])

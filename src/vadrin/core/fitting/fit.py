"""Fit the curves of all strips of one film together.

Penalised nonlinear least squares: the development model, a smooth factor on the slope and
each strip's own deviation are all unknown, and how far the last two may go is read from the
data by maximising the evidence (MacKay, Neural Computation 4, 1992). The curvature at the
solution gives the joint uncertainty of everything.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.curves.shape import Curves, curves_of
from vadrin.core.fitting import development_model
from vadrin.core.fitting import outliers as outlier_tests
from vadrin.core.fitting.bridges import bridges_of
from vadrin.core.fitting.development_model import MODEL_PARAMETERS, SHARED, DevelopmentModel
from vadrin.core.fitting.freedom_averaging import AveragedUncertainty, averaged
from vadrin.core.fitting.freedoms import Scales, precision_of, starting_scales
from vadrin.core.fitting.interval_readings import own_deviations
from vadrin.core.fitting.intervals import DRAWN_SHARE
from vadrin.core.fitting.normal_equations import Uncertainty, normal_equations
from vadrin.core.fitting.problem import Problem, Solution, Table
from vadrin.core.fitting.solver import noise_growth, solve
from vadrin.core.limits import CURVE_NEEDS, CURVE_RULE
from vadrin.core.readings import Outlier, StripReadings
from vadrin.core.restated_time import restated_time

_MOST_KNOWN = 16.0
"""Degrees of freedom behind a range at most: real films are of no family, and how far they stray
is learnt from about so many numbers."""
_MOST_EXACT = 160
"""Parameters up to which draws are made to have exactly the covariance wanted."""
_MOST_AVERAGED = 240
"""Parameters up to which the uncertainty is averaged over freedoms: more strips tell theirs."""
INSTRUMENT_NOISE = 0.004
"""Standard deviation a densitometer brings at its best."""


@dataclass(frozen=True)
class Fit:
    """A joint fit.

    Attributes
    ----------
    model : DevelopmentModel
    phi : ndarray, shape (P,)
        Whole parameter vector at the solution.
    uncertainty : Uncertainty
        Of the vector.
    noise : float
        Standard deviation of a reading at density 1, not below the instrument's.
    freedom : float
        Degrees of freedom behind ranges.
    outliers : tuple of Outlier
    scales : Scales
    """

    model: DevelopmentModel
    phi: Array
    uncertainty: Uncertainty | AveragedUncertainty
    noise: float
    freedom: float
    outliers: tuple[Outlier, ...]
    scales: Scales


def table_of(strips: tuple[StripReadings, ...], sign: float) -> Table:
    """Flatten strips; `sign` is -1 for material whose density falls with exposure."""
    rows = [(i, r) for i, s in enumerate(strips) for r in s.readings]
    x = [np.nan if r.log_h is None else sign * r.log_h for _, r in rows]
    return Table(
        np.array([i for i, _ in rows]),
        np.array(x, dtype=np.float64),
        np.array([r.density for _, r in rows], dtype=np.float64),
        tuple(r.frame for _, r in rows),
        np.array([r.net for _, r in rows]) if any(r.net for _, r in rows) else None,
    )


def _starting_toe(table: Table, fog: float) -> float:
    """Lg exposure where the readings first rise clear of the fog."""
    exposed = np.isfinite(table.x)
    clear = exposed & (table.density > fog + 0.12)
    if not clear.any():
        return float(np.max(table.x[exposed]))
    order = np.sort(table.x[clear])
    return float(order[min(len(order) - 1, len(order) // 20)] - 0.15)


def _starting_fog(table: Table) -> float:
    blank = ~np.isfinite(table.x)
    if blank.any():
        return float(np.median(table.density[blank]))
    return float(np.min(table.density))


def _misread(problem: Problem, solution: Solution) -> tuple[tuple[int, ...], str]:
    """Places of the readings least fit to stay, and why; none where all may stay."""
    table, keep = problem.table, problem.keep
    # How noise grows is not known so well that a thin frame may be blamed by it alone.
    own = (problem.own / solution.scales.noise) ** 2
    blamed = np.maximum(problem.relative**2, 0.5 * (problem.relative**2 + 1))
    relative = np.sqrt(blamed + own)
    noise = solution.scales.noise * relative
    fitted = solution.normal.quadratic(solution.jacobian)[table.there]
    size = keep * outlier_tests.deleted_residuals(
        solution.residual / relative, fitted / relative**2, solution.scales.noise, solution.freedom
    )
    worst = int(np.argmax(size))
    far = abs(float(solution.residual[worst])) >= outlier_tests.least_gap(solution.freedom)
    if far and size[worst] >= outlier_tests.limit(len(keep), solution.freedom):
        return (worst,), "does not fit its neighbours"
    seen = (table.strip, table.x, table.density, solution.residual, keep, noise)
    pair = outlier_tests.swapped_pair(*seen)
    if pair is not None:
        return pair, "would fit if it changed places with its neighbour"
    # Neighbours found in one step of a wedge are no sign of anything.
    figures = keep * (problem.own == 0)
    twice = outlier_tests.read_twice(*seen[:4], figures, noise)
    if twice is not None:
        return (twice,), "repeats its neighbour's reading"
    return (), ""


def _dropped(
    table: Table,
    strips: tuple[StripReadings, ...],
    place: int,
    expected: float,
    sign: float,
    why: str,
) -> Outlier:
    return Outlier(
        strips[int(table.strip[place])].label,
        table.frame[place],
        float(sign * table.x[place]),
        float(table.density[place]),
        expected,
        why,
    )


def fit_strips(
    strips: tuple[StripReadings, ...],
    sign: float = 1.0,
    instrument_noise: float = INSTRUMENT_NOISE,
    exclude_outliers: bool = True,
) -> Fit:
    """Fit all strips of one film jointly.

    Parameters
    ----------
    strips : tuple of StripReadings
        Each with at least one exposed reading. Strips with no time share one.
    sign : float
        +1 for negatives, -1 where density falls with exposure.
    instrument_noise : float
        Floor of the reading noise in the reported uncertainty.
    exclude_outliers : bool
        Leave out, and name, readings that cannot belong to the curve.

    Returns
    -------
    Fit

    Raises
    ------
    ValueError
        If there is no exposed reading, or the exposures do not differ.
    """
    problem, start, scales = _posed(strips, sign)
    solution = solve(problem, start, scales, robust=True)
    growth = noise_growth(problem, solution)
    problem = problem.with_growth(growth)
    scales = replace(solution.scales, growth=growth)
    solution = solve(problem, solution.phi, scales, robust=True)
    outliers: list[Outlier] = []
    for _ in range(max(2, len(problem.keep) // 10) if exclude_outliers else 0):
        places, why = _misread(problem, solution)
        if not places:
            break
        problem.keep[list(places)] = 0.0
        solution = solve(problem, solution.phi, solution.scales, robust=False)
        for place in places:
            expected = float(problem.table.density[place] - solution.residual[place])
            outliers.append(_dropped(problem.table, strips, place, expected, sign, why))
    if not outliers:
        solution = solve(problem, solution.phi, solution.scales, robust=False)
    return _finished(problem, solution, instrument_noise, tuple(outliers))


def refit(strips: tuple[StripReadings, ...], near: Fit, sign: float = 1.0) -> Fit:
    """Fit readings that hardly changed, fast enough to follow a drag.

    Noise and freedoms are kept as they were found, nothing is left out, and the uncertainty
    is the earlier fit's.

    Parameters
    ----------
    strips : tuple of StripReadings
        As many strips as `near` was made from.
    near : Fit
    sign : float
        As given to `fit_strips`.
    """
    problem, _, _ = _posed(strips, sign)
    problem = problem.with_growth(near.scales.growth)
    solution = solve(problem, near.phi, near.scales, robust=False, learn=False)
    return Fit(
        near.model, solution.phi, near.uncertainty, near.noise, near.freedom, (), near.scales
    )


def fit_expected(strips: tuple[StripReadings, ...], scales: Scales, freedom: float) -> Fit:
    """The fit that readings not yet taken would give, with scales assumed instead of learnt.

    Parameters
    ----------
    strips : tuple of StripReadings
        With the densities to be expected, free of noise.
    scales : Scales
        Noise of a reading and typical freedoms.
    freedom : float
        Degrees of freedom to report intervals with.
    """
    problem, start, _ = _posed(strips, 1.0)
    solution = solve(problem, start, scales, robust=False, learn=False)
    made = _finished(problem, solution, scales.noise, ())
    return replace(made, noise=scales.noise, freedom=freedom, scales=scales)


def _posed(strips: tuple[StripReadings, ...], sign: float) -> tuple[Problem, Array, Scales]:
    """The problem, where to start, and the scales to start with."""
    table = table_of(strips, sign)
    exposed = np.isfinite(table.x)
    if exposed.sum() < CURVE_NEEDS or np.ptp(table.x[exposed]) < 0.25:
        raise ValueError(CURVE_RULE)
    times = np.array(
        [
            restated_time(s.time_min, s.temperature_c, s.reference_c, s.q10) if s.time_min else 1.0
            for s in strips
        ]
    )
    model = development_model.model_for(times)
    fog = _starting_fog(table)
    toe = _starting_toe(table, fog)
    mean, spread = development_model.parameter_prior(
        model, fog, toe, blank=not exposed.all(), falling=sign < 0
    )
    start = np.zeros(model.size)
    start[:MODEL_PARAMETERS] = mean
    every = np.ones(len(table.x))
    problem = Problem(model, table, every, mean, spread, every, own_deviations(strips))
    return problem, start, starting_scales(model)


def _finished(
    problem: Problem, solution: Solution, instrument_noise: float, outliers: tuple[Outlier, ...]
) -> Fit:
    noise = max(solution.scales.noise, instrument_noise)
    weights = problem.table.laid(problem.keep / (noise**2 * problem.variance(noise)))
    precision = precision_of(problem.model, problem.spread, solution.scales)
    seen = normal_equations(solution.jacobian, weights, precision, SHARED)
    phi = solution.phi.copy()
    # What no reading lies on is as it is believed.
    phi[problem.model.own_end :], free = bridges_of(problem.model, phi)
    if seen.size > _MOST_AVERAGED:
        # So many strips tell their freedoms themselves.
        unsure: Uncertainty | AveragedUncertainty = Uncertainty(seen, free**-2)
    else:
        unsure = averaged(problem, solution, seen, weights, precision, free)
    freedom = min(solution.freedom, _MOST_KNOWN)
    return Fit(problem.model, phi, unsure, noise, freedom, outliers, solution.scales)


def curves_of_strips(fit: Fit, phi: Array, which: slice = slice(None)) -> Curves:
    """Curves of the strips for parameter vectors (..., P): batch shape (..., n)."""
    rows = development_model.strip_parameters(fit.model, phi)[..., which, :]
    times = fit.model.times[which]
    return curves_of(rows, development_model.slope_weights_at(fit.model, phi, times))


def draws_of(fit: Fit, count: int, rng: np.random.Generator) -> Array:
    """Draws of the whole vector from its uncertainty, shape (about count / 2, P).

    They go `DRAWN_SHARE` of the way out, so short that one to each side of the best is as good
    as a pair: there are half as many as asked for. But for very many strips they have exactly
    the mean and the covariance wanted, so that the width of a range does not hang on the seed;
    for that there may be more of them.
    """
    size = fit.uncertainty.size
    rows = max(count // 2, size + 2) if size < _MOST_EXACT else count // 2
    z = rng.standard_normal((rows, size))
    if rows > size + 1:
        z = np.linalg.qr(z - z.mean(0))[0] * np.sqrt(rows)
    return np.asarray(fit.phi + DRAWN_SHARE * fit.uncertainty.drawn(z))

"""Fit the curves of all strips of one film together.

Penalised nonlinear least squares: the law of development, a smooth factor on the slope and
each strip's own straying are all unknown, and how far the last two may go is read from the
data by maximising the evidence (MacKay, Neural Computation 4, 1992). The curvature at the
solution gives the joint uncertainty of everything.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from vadrin.core import law as laws
from vadrin.core import misreads
from vadrin.core.law import LAW, STRAY, Law
from vadrin.core.readings import Dropped, StripReadings, restated_time
from vadrin.core.shape import BENDS, PARAMETERS, Array, design

INSTRUMENT_NOISE = 0.004
"""Standard deviation a densitometer brings at its best."""

_ITERATIONS = 40
_NOISE_FLOOR = 1e-5
_STRAY_BOUNDS = (0.03, 3.0)
_BEND_BOUNDS = (0.10, 1.0)


@dataclass(frozen=True)
class Table:
    """Readings of all strips as flat arrays; blanks carry NaN as exposure.

    Attributes
    ----------
    strip : ndarray of int, shape (N,)
    x, density : ndarray, shape (N,)
    frame : tuple of str
    """

    strip: Array
    x: Array
    density: Array
    frame: tuple[str, ...]


@dataclass(frozen=True)
class Scales:
    """What the evidence decides: noise, freedom of the bends, freedom of the strips."""

    noise: float
    bend: float
    stray: float


@dataclass(frozen=True)
class Fit:
    """A joint fit.

    Attributes
    ----------
    law : Law
    phi : ndarray, shape (P,)
        Whole parameter vector at the solution.
    root : ndarray, shape (P, P)
        A square root of the covariance: draws are phi + root @ z.
    noise : float
        Standard deviation of a reading, not below the instrument's.
    freedom : float
        Degrees of freedom left for the noise.
    dropped : tuple of Dropped
    """

    law: Law
    phi: Array
    root: Array
    noise: float
    freedom: float
    dropped: tuple[Dropped, ...]
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


def _model(law: Law, phi: Array, table: Table) -> tuple[Array, Array]:
    """Modelled densities (N,) and their derivatives by the whole vector (N, P)."""
    rows = laws.strip_rows(law, phi)
    bends = laws.bends_of(phi)
    on_law = laws.rows_at(law, phi, law.times)
    nudged = phi[:LAW] + 1e-5 * np.eye(LAW)
    by_law = (laws.rows_at(law, nudged, law.times) - on_law) / 1e-5
    values = np.empty(len(table.x))
    jacobian = np.zeros((len(table.x), law.size))
    for i in range(len(law.times)):
        mine = table.strip == i
        exposed = mine & np.isfinite(table.x)
        blank = mine & ~exposed
        values[exposed], by_row = design(rows[i], bends, table.x[exposed])
        values[blank] = rows[i, 0]
        start = LAW + BENDS + PARAMETERS * i
        jacobian[exposed, :LAW] = by_row[:, :PARAMETERS] @ by_law[:, i].T
        jacobian[exposed, LAW : LAW + BENDS] = by_row[:, PARAMETERS:]
        jacobian[exposed, start : start + PARAMETERS] = by_row[:, :PARAMETERS] * STRAY
        jacobian[blank, :LAW] = by_law[:, i, 0]
        jacobian[blank, start] = STRAY[0]
    return values, jacobian


def _precision(law: Law, spread: Array, scales: Scales) -> Array:
    weight = np.empty(law.size)
    weight[:LAW] = spread**-2
    weight[LAW : LAW + BENDS] = scales.bend**-2
    weight[LAW + BENDS :] = scales.stray**-2
    return weight


def _evidence_step(
    law: Law, phi: Array, residual: Array, weights: Array, hessian: Array, scales: Scales
) -> tuple[Scales, float]:
    """One fixed-point update of the scales, and the freedom left for the noise."""
    variance = np.diag(np.linalg.inv(hessian))
    bend = slice(LAW, LAW + BENDS)
    stray = slice(LAW + BENDS, law.size)

    def updated(part: slice, scale: float, bounds: tuple[float, float]) -> tuple[float, float]:
        told = max((1 - variance[part] / scale**2).sum(), 1e-3)
        size = np.sqrt((phi[part] ** 2).sum() / told * scale**2) ** 0.5
        return float(np.clip(size, *bounds)), told

    bend_scale, bends_told = updated(bend, scales.bend, _BEND_BOUNDS)
    stray_scale, strays_told = scales.stray, 0.0
    if law.distinct >= 3:
        stray_scale, strays_told = updated(stray, scales.stray, _STRAY_BOUNDS)
    told = bends_told + strays_told + 4 + 3 * min(law.distinct, 3)
    freedom = max(weights.sum() - told, 2.0)
    noise = np.sqrt((weights * residual**2).sum() / freedom)
    return Scales(max(float(noise), _NOISE_FLOOR), bend_scale, stray_scale), float(freedom)


def _huber(residual: Array) -> Array:
    scale = max(1.4826 * float(np.median(np.abs(residual))), _NOISE_FLOOR)
    return np.minimum(1.0, 2.5 * scale / np.maximum(np.abs(residual), 1e-12))


@dataclass(frozen=True)
class _Problem:
    """Readings, which of them count, and what is believed before they are seen."""

    law: Law
    table: Table
    keep: Array
    mean: Array
    spread: Array

    def pull(self, phi: Array) -> Array:
        """Distance from what is believed beforehand."""
        away = phi.copy()
        away[:LAW] -= self.mean
        return away


@dataclass(frozen=True)
class _Point:
    """A parameter vector with its modelled densities and their derivatives."""

    phi: Array
    residual: Array
    jacobian: Array


@dataclass(frozen=True)
class _Solution:
    phi: Array
    hessian: Array
    residual: Array
    jacobian: Array
    scales: Scales
    freedom: float


def _at(problem: _Problem, phi: Array) -> _Point:
    values, jacobian = _model(problem.law, phi, problem.table)
    return _Point(phi, problem.table.density - values, jacobian)


def _cost(problem: _Problem, point: _Point, scaled: Array, precision: Array) -> float:
    missed = (scaled * point.residual**2).sum()
    return float(missed + (precision * problem.pull(point.phi) ** 2).sum())


def _step(
    problem: _Problem, here: _Point, hessian: Array, scaled: Array, precision: Array,
    damping: float,
) -> tuple[_Point, float, float] | None:  # fmt: skip
    """The next point, the cost saved, and the damping that got there; None at the bottom."""
    gradient = here.jacobian.T @ (scaled * here.residual) - precision * problem.pull(here.phi)
    cost = _cost(problem, here, scaled, precision)
    for _ in range(8):
        move = np.linalg.solve(hessian + damping * np.diag(np.diag(hessian)), gradient)
        trial = _at(problem, here.phi + np.clip(move, -2.0, 2.0))
        saved = cost - _cost(problem, trial, scaled, precision)
        if saved >= -1e-12 * cost:
            return trial, saved, damping
        damping = min(damping * 8, 1e6)
    return None


def _solve(
    problem: _Problem, start: Array, scales: Scales, robust: bool, learn: bool = True
) -> _Solution:
    """Damped Gauss-Newton steps; the scales are learnt on the way unless told otherwise."""
    point, damping, freedom, settled = _at(problem, start), 1e-3, 2.0, 0
    for step in range(_ITERATIONS):
        weights = problem.keep * (_huber(point.residual) if robust else 1.0)
        scaled = weights / scales.noise**2
        precision = _precision(problem.law, problem.spread, scales)
        hessian = (point.jacobian * scaled[:, None]).T @ point.jacobian + np.diag(precision)
        moved = _step(problem, point, hessian, scaled, precision, damping)
        if moved is None:
            break
        point, saved, damping = moved
        if learn and (step >= 3 or settled):
            scales, freedom = _evidence_step(
                problem.law, point.phi, point.residual, weights, hessian, scales
            )
        damping = max(damping / 6, 1e-9)
        settled = settled + 1 if abs(saved) < 0.02 else 0
        if (settled >= 2 and step >= 3) or (settled and not learn):
            break
    return _Solution(point.phi, hessian, point.residual, point.jacobian, scales, freedom)


def _misread(problem: _Problem, solution: _Solution) -> tuple[tuple[int, ...], str]:
    """Places of the readings least fit to stay, and why; none where all may stay."""
    table, keep, noise = problem.table, problem.keep, solution.scales.noise
    size = keep * misreads.deleted_residuals(
        solution.residual, solution.jacobian, solution.hessian, noise, solution.freedom
    )
    size /= 1 + misreads.NOISE_GROWTH * np.maximum(table.density, 0.0)
    worst = int(np.argmax(size))
    far = abs(float(solution.residual[worst])) >= misreads.LEAST_GAP
    if far and size[worst] >= misreads.limit(len(keep), solution.freedom):
        return (worst,), "does not fit its neighbours"
    seen = (table.strip, table.x, table.density, solution.residual, keep, noise)
    pair = misreads.swapped_pair(*seen)
    if pair is not None:
        return pair, "would fit if it changed places with its neighbour"
    twice = misreads.read_twice(*seen)
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
) -> Dropped:  # fmt: skip
    return Dropped(
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
    drop: bool = True,
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
    drop : bool
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
    solution = _solve(problem, start, scales, robust=True)
    dropped: list[Dropped] = []
    for _ in range(max(2, len(problem.keep) // 10) if drop else 0):
        places, why = _misread(problem, solution)
        if not places:
            break
        problem.keep[list(places)] = 0.0
        solution = _solve(problem, solution.phi, solution.scales, robust=False)
        for place in places:
            expected = float(problem.table.density[place] - solution.residual[place])
            dropped.append(_dropped(problem.table, strips, place, expected, sign, why))
    if not dropped:
        solution = _solve(problem, solution.phi, solution.scales, robust=False)
    return _finished(problem, solution, instrument_noise, tuple(dropped))


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
    solution = _solve(problem, near.phi, near.scales, robust=False, learn=False)
    return Fit(near.law, solution.phi, near.root, near.noise, near.freedom, (), near.scales)


def _posed(strips: tuple[StripReadings, ...], sign: float) -> tuple[_Problem, Array, Scales]:
    """The problem, where to start, and the scales to start with."""
    table = table_of(strips, sign)
    exposed = np.isfinite(table.x)
    if exposed.sum() < 3 or np.ptp(table.x[exposed]) < 0.25:
        raise ValueError("a curve needs at least three exposures that differ")
    times = np.array(
        [restated_time(s.time_min, s.temperature_c) if s.time_min else 1.0 for s in strips]
    )
    law = laws.law_for(times)
    fog = _starting_fog(table)
    mean, spread = laws.prior(law, fog, _starting_toe(table, fog))
    start = np.zeros(law.size)
    start[:LAW] = mean
    problem = _Problem(law, table, np.ones(len(table.x)), mean, spread)
    return problem, start, Scales(0.02, 0.1, 0.3 if law.distinct >= 3 else 0.03)


def _finished(
    problem: _Problem, solution: _Solution, instrument_noise: float, dropped: tuple[Dropped, ...]
) -> Fit:
    noise = max(solution.scales.noise, instrument_noise)
    weighted = solution.jacobian * (problem.keep / noise**2)[:, None]
    hessian = weighted.T @ solution.jacobian
    hessian += np.diag(_precision(problem.law, problem.spread, solution.scales))
    root = np.asarray(np.linalg.inv(misreads.factor_of(hessian)).T, dtype=np.float64)
    freedom, scales = solution.freedom, solution.scales
    return Fit(problem.law, solution.phi, root, noise, freedom, dropped, scales)


def draws_of(fit: Fit, count: int, rng: np.random.Generator) -> Array:
    """Antithetic draws of the whole vector from its uncertainty, shape (count, P)."""
    half = rng.standard_normal((count // 2, len(fit.phi)))
    z = np.concatenate([half, -half])
    return np.asarray(fit.phi + z @ fit.root.T)

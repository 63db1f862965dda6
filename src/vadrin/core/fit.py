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
from vadrin.core.law import LAW, STRAY, Law
from vadrin.core.quantile import t_quantile
from vadrin.core.readings import Dropped, StripReadings, restated_time
from vadrin.core.shape import BENDS, PARAMETERS, Array, design

INSTRUMENT_NOISE = 0.004
"""Standard deviation a densitometer brings at its best."""

_ITERATIONS = 40
_NOISE_FLOOR = 1e-5
_LEAST_GAP = 0.025
"""Nothing nearer than this to its curve is called misread: readings are rounded."""
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
class _Solution:
    phi: Array
    hessian: Array
    residual: Array
    jacobian: Array
    scales: Scales
    freedom: float


def _solve(
    law: Law,
    table: Table,
    keep: Array,
    mean: Array,
    spread: Array,
    start: Array,
    scales: Scales,
    robust: bool,
) -> _Solution:
    """Damped Gauss-Newton steps with the scales updated on the way."""
    centre = np.zeros(law.size)
    centre[:LAW] = mean
    phi, damping, freedom, settled = start, 1e-3, 2.0, 0
    values, jacobian = _model(law, phi, table)
    for step in range(_ITERATIONS):
        residual = table.density - values
        weights = keep * (_huber(residual) if robust else 1.0)
        scaled = weights / scales.noise**2
        precision = _precision(law, spread, scales)
        hessian = (jacobian * scaled[:, None]).T @ jacobian + np.diag(precision)
        gradient = jacobian.T @ (scaled * residual) - precision * (phi - centre)
        cost = (scaled * residual**2).sum() + (precision * (phi - centre) ** 2).sum()
        for _ in range(8):
            move = np.linalg.solve(hessian + damping * np.diag(np.diag(hessian)), gradient)
            trial = phi + np.clip(move, -2.0, 2.0)
            new_values, new_jacobian = _model(law, trial, table)
            new_residual = table.density - new_values
            new_cost = (scaled * new_residual**2).sum()
            new_cost += (precision * (trial - centre) ** 2).sum()
            if new_cost <= cost * (1 + 1e-12):
                break
            damping = min(damping * 8, 1e6)
        else:
            break
        phi, values, jacobian = trial, new_values, new_jacobian
        if step >= 3:
            scales, freedom = _evidence_step(law, phi, new_residual, weights, hessian, scales)
        damping = max(damping / 6, 1e-9)
        settled = settled + 1 if abs(cost - new_cost) < 0.02 else 0
        if settled >= 2 and step >= 8:
            break
    residual = table.density - values
    return _Solution(phi, hessian, residual, jacobian, scales, freedom)


def _least_likely(solution: _Solution, keep: Array) -> tuple[int, float]:
    """The kept reading that fits worst, as a deleted residual in standard deviations."""
    scale = solution.scales.noise
    half = np.linalg.solve(hessian_factor(solution.hessian), solution.jacobian.T)
    leverage = np.clip((half**2).sum(0) / scale**2, 0.0, 0.98)
    size = np.abs(solution.residual) / (scale * np.sqrt(1 - leverage)) * keep
    worst = int(np.argmax(size))
    inner = min(size[worst] ** 2 / max(solution.freedom, 3.0), 0.999)
    deleted = size[worst] * np.sqrt((1 - 1 / max(solution.freedom, 3.0)) / (1 - inner))
    return worst, float(deleted)


def hessian_factor(hessian: Array) -> Array:
    """Lower Cholesky factor, with a jitter where rounding spoils positive definiteness."""
    jitter = 1e-10 * np.diag(hessian)
    return np.asarray(np.linalg.cholesky(hessian + np.diag(jitter)))


def _limit(count: int, freedom: float) -> float:
    """Deleted residual that one clean test in forty would show."""
    return t_quantile(1 - 0.0125 / count, max(freedom - 1, 3.0))


def _dropped(table: Table, strips: tuple[StripReadings, ...], place: int, expected: float,
             sign: float) -> Dropped:  # fmt: skip
    return Dropped(
        strips[int(table.strip[place])].label,
        table.frame[place],
        float(sign * table.x[place]),
        float(table.density[place]),
        expected,
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
    phi = np.zeros(law.size)
    phi[:LAW] = mean
    keep = np.ones(len(table.x))
    scales = Scales(0.02, 0.1, 0.3 if law.distinct >= 3 else 0.03)
    solution = _solve(law, table, keep, mean, spread, phi, scales, robust=True)
    solution = _solve(law, table, keep, mean, spread, solution.phi, solution.scales, drop)
    dropped: list[Dropped] = []
    for _ in range(max(2, len(table.x) // 10) if drop else 0):
        worst, size = _least_likely(solution, keep)
        gap = abs(float(solution.residual[worst]))
        if size < _limit(len(table.x), solution.freedom) or gap < _LEAST_GAP:
            break
        keep[worst] = 0.0
        solution = _solve(law, table, keep, mean, spread, solution.phi, solution.scales, False)
        expected = float(table.density[worst] - solution.residual[worst])
        dropped.append(_dropped(table, strips, worst, expected, sign))
    if drop:
        solution = _solve(law, table, keep, mean, spread, solution.phi, solution.scales, False)
    return _finished(law, table, keep, spread, solution, instrument_noise, tuple(dropped))


def _finished(
    law: Law, table: Table, keep: Array, spread: Array, solution: _Solution,
    instrument_noise: float, dropped: tuple[Dropped, ...],
) -> Fit:  # fmt: skip
    noise = max(solution.scales.noise, instrument_noise)
    weighted = solution.jacobian * (keep / noise**2)[:, None]
    hessian = weighted.T @ solution.jacobian
    hessian += np.diag(_precision(law, spread, solution.scales))
    root = np.asarray(np.linalg.inv(hessian_factor(hessian)).T, dtype=np.float64)
    return Fit(law, solution.phi, root, noise, solution.freedom, dropped)


def draws_of(fit: Fit, count: int, rng: np.random.Generator) -> Array:
    """Antithetic draws of the whole vector from its uncertainty, shape (count, P)."""
    half = rng.standard_normal((count // 2, len(fit.phi)))
    z = np.concatenate([half, -half])
    return np.asarray(fit.phi + z @ fit.root.T)

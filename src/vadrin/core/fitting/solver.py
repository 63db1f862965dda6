"""The numerical work of a fit: the model of all strips, and the way down to its best point."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from vadrin.core.curves.shape import BENDS, PARAMETERS, Array, design
from vadrin.core.fitting import development_model as laws
from vadrin.core.fitting.development_model import LAW, STRAY, Law

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


def model(law: Law, phi: Array, table: Table) -> tuple[Array, Array]:
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


def precision_of(law: Law, spread: Array, scales: Scales) -> Array:
    """Inverse variances believed before the readings, shape (P,)."""
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
class Problem:
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
class Point:
    """A parameter vector with its modelled densities and their derivatives."""

    phi: Array
    residual: Array
    jacobian: Array


@dataclass(frozen=True)
class Solution:
    """Where the way down ended, with what is needed to say how sure that is."""

    phi: Array
    hessian: Array
    residual: Array
    jacobian: Array
    scales: Scales
    freedom: float


def _at(problem: Problem, phi: Array) -> Point:
    values, jacobian = model(problem.law, phi, problem.table)
    return Point(phi, problem.table.density - values, jacobian)


def _cost(problem: Problem, point: Point, scaled: Array, precision: Array) -> float:
    missed = (scaled * point.residual**2).sum()
    return float(missed + (precision * problem.pull(point.phi) ** 2).sum())


def _step(
    problem: Problem, here: Point, hessian: Array, scaled: Array, precision: Array,
    damping: float,
) -> tuple[Point, float, float] | None:  # fmt: skip
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


def solve(
    problem: Problem, start: Array, scales: Scales, robust: bool, learn: bool = True
) -> Solution:
    """Damped Gauss-Newton steps; the scales are learnt on the way unless told otherwise."""
    point, damping, freedom, settled = _at(problem, start), 1e-3, 2.0, 0
    for step in range(_ITERATIONS):
        weights = problem.keep * (_huber(point.residual) if robust else 1.0)
        scaled = weights / scales.noise**2
        precision = precision_of(problem.law, problem.spread, scales)
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
    return Solution(point.phi, hessian, point.residual, point.jacobian, scales, freedom)

"""The way down to the best point of a fit, learning noise and freedoms as it goes."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.fitting.development_model import MODEL_PARAMETERS, SHARED
from vadrin.core.fitting.freedoms import Scales, learnt_freedoms, precision_of
from vadrin.core.fitting.normal_equations import NormalEquations, normal_equations, seen_by
from vadrin.core.fitting.problem import (
    Point,
    Problem,
    Solution,
    predicted_densities,
    relative_noise,
)
from vadrin.core.interruption import checkpoint

_ITERATIONS = 40
_NOISE_FLOOR = 1e-5
_GROWTHS = np.array([0.0, 0.25, 0.5, 1.0, 2.0, 4.0])
_LEAST_FOR_GROWTH = 6
_GROWTHS_BELIEVED = np.log([0.35, 0.2, 0.15, 0.15, 0.1, 0.05])


def noise_growth(problem: Problem, solution: Solution) -> float:
    """How the noise grows with density, from what the readings miss their curves by.

    The mean over growths, each weighted by how likely it makes the residuals, repeats among
    them; leverage is allowed for.
    """
    quadratic = solution.normal.quadratic(solution.jacobian)[problem.table.there]
    leverage = quadratic / (solution.scales.noise * problem.relative) ** 2
    # What brings its own uncertainty tells nothing of the instrument's.
    seen = (problem.keep > 0) & (problem.own == 0)
    if seen.sum() < _LEAST_FOR_GROWTH:
        return 0.0
    fitted = problem.table.density - solution.residual
    square = (solution.residual**2 / (1 - np.clip(leverage, 0.0, 0.9)))[seen]
    likely = np.empty(len(_GROWTHS))
    for place, growth in enumerate(_GROWTHS):
        relative = relative_noise(fitted[seen], float(growth))
        mean = float((square / relative**2).mean())
        likely[place] = -np.log(relative).sum() - 0.5 * solution.freedom * np.log(mean)
    share = np.exp(likely + _GROWTHS_BELIEVED - (likely + _GROWTHS_BELIEVED).max())
    return float((share * _GROWTHS).sum() / share.sum())


def _learnt(
    problem: Problem, point: Point, weights: Array, normal: NormalEquations, scales: Scales
) -> tuple[Scales, float]:
    """One update of the scales, and the freedom left for the noise."""
    model = problem.model
    variance = normal.variances()
    made, told = learnt_freedoms(model, point.phi, variance, scales)
    of_model = variance[:MODEL_PARAMETERS] / problem.spread**2
    told += float(np.clip(1 - of_model, 0.0, 1.0).sum())
    # Weights that spare far readings count for less; those of thin ones do not count for more.
    freedom = max(float((weights * problem.variance(scales.noise)).sum()) - told, 2.0)
    noise = np.sqrt((weights * point.residual**2).sum() / freedom)
    return replace(made, noise=max(float(noise), _NOISE_FLOOR)), float(freedom)


def _huber(residual: Array) -> Array:
    scale = max(1.4826 * float(np.median(np.abs(residual))), _NOISE_FLOOR)
    return np.minimum(1.0, 2.5 * scale / np.maximum(np.abs(residual), 1e-12))


def _at(problem: Problem, phi: Array) -> Point:
    values, jacobian = predicted_densities(problem.model, phi, problem.table)
    return Point(phi, problem.table.density - values, jacobian)


def _cost(problem: Problem, point: Point, scaled: Array, precision: Array) -> float:
    missed = (scaled * point.residual**2).sum()
    return float(missed + (precision * problem.pull(point.phi) ** 2).sum())


def _step(
    problem: Problem,
    here: Point,
    normal: NormalEquations,
    scaled: Array,
    precision: Array,
    damping: float,
) -> tuple[Point, float, float] | None:
    """The next point, the cost saved, and the damping that got there; None at the bottom."""
    weighted = problem.table.laid(scaled * here.residual)
    gradient = seen_by(here.jacobian, weighted, SHARED) - precision * problem.pull(here.phi)
    cost = _cost(problem, here, scaled, precision)
    for _ in range(8):
        move = normal.damped(damping).solve(gradient)
        phi = here.phi.copy()
        phi[: len(move)] += np.clip(move, -2.0, 2.0)
        trial = _at(problem, phi)
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
        checkpoint()
        variance = problem.variance(scales.noise)
        weights = problem.keep / variance
        if robust:
            weights = weights * _huber(point.residual / np.sqrt(variance))
        scaled = weights / scales.noise**2
        precision = precision_of(problem.model, problem.spread, scales)
        laid = problem.table.laid(scaled)
        normal = normal_equations(point.jacobian, laid, precision, SHARED)
        moved = _step(problem, point, normal, scaled, precision, damping)
        if moved is None:
            break
        point, saved, damping = moved
        if learn and (step >= 3 or settled):
            scales, freedom = _learnt(problem, point, weights, normal, scales)
        damping = max(damping / 6, 1e-9)
        settled = settled + 1 if abs(saved) < 0.02 else 0
        if (settled >= 2 and step >= 3) or (settled and not learn):
            break
    return Solution(point.phi, normal, point.residual, point.jacobian, scales, freedom)

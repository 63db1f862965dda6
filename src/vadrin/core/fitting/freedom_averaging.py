"""Uncertainty averaged over how free the bends and the strips may be.

The evidence names one best freedom for each group of parameters, but knows it only as well as
the readings tell. So the fit is also asked at freedoms to either side, each with its own best
point and its own curvature, and the covariance of the whole is the mean of theirs with what
their best points differ by. Source: MacKay, Neural Computation 11 (1999), on what is lost by
fixing such scales; the design is the eight-run fraction of two levels (Box and Hunter,
Technometrics 3, 1961).
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.fitting.development_model import SHARED, TOE_WIDTH
from vadrin.core.fitting.freedoms import freedoms_around, precision_of
from vadrin.core.fitting.normal_equations import NormalEquations, factor_of, normal_equations
from vadrin.core.fitting.problem import Problem, Solution, predicted_densities

_DESIGN = np.array(
    [[a, b, c, a * b, a * c, b * c] for a in (-1, 1) for b in (-1, 1) for c in (-1, 1)],
    dtype=np.float64,
)
"""Which freedoms are greater and which less, shape (8, 6): no two of them go together."""
_FEW = 2
_TOE_TO_EITHER_SIDE, _FARTHEST = 1.05, 0.4
"""Of one or two strips the toe is hardly known, and a toe taken for sharp looks well known: so
many standard deviations to either side, and no farther in the logarithm of its width, it is
looked at again (``tools/shapes.py``)."""


@dataclass(frozen=True)
class AveragedUncertainty:
    """How unsure a whole vector is, freedoms unsure too.

    Attributes
    ----------
    root : ndarray, shape (S, S)
        Lower Cholesky factor of the covariance of what readings see.
    unseen : ndarray
        Standard deviations of the rest of the vector.
    """

    root: Array
    unseen: Array

    @property
    def size(self) -> int:
        """Length of the vector."""
        return len(self.root) + len(self.unseen)

    def drawn(self, z: Array) -> Array:
        """Deviations of the vector, of independent normal numbers (B, size)."""
        near, rest = z[:, : len(self.root)], z[:, len(self.root) :]
        return np.concatenate([near @ self.root.T, rest * self.unseen], -1)


def averaged(
    problem: Problem,
    solution: Solution,
    best: NormalEquations,
    weights: Array,
    usual: Array,
    unseen: Array,
) -> AveragedUncertainty:
    """The mean over freedoms around the best.

    Parameters
    ----------
    problem : Problem
    solution : Solution
    best : NormalEquations
        At the solution, with the noise that is reported.
    weights, usual : ndarray
        Of the readings, laid side by side, and the inverse variances believed, both as in `best`.
    unseen : ndarray
        Standard deviations of what no reading lies on.
    """
    variance = solution.normal.variances()
    around = freedoms_around(problem.model, solution.phi, variance, solution.scales, _DESIGN)
    precisions = np.array([precision_of(problem.model, problem.spread, s) for s in around])
    inverse = np.linalg.inv(best.dense() + _diagonals(precisions - usual))
    pull = problem.pull(solution.phi)
    moves = np.einsum("kij,kj->ki", inverse, (usual - precisions) * pull)
    covariance = inverse.mean(0) + moves.T @ moves / len(moves)
    if problem.model.distinct <= _FEW:
        others = _at_other_toes(problem, solution, covariance, weights, usual)
        covariance = (covariance + 2 * others) / 3
    return AveragedUncertainty(factor_of(0.5 * (covariance + covariance.T)), unseen)


def _at_other_toes(
    problem: Problem, solution: Solution, covariance: Array, weights: Array, precision: Array
) -> Array:
    """The mean covariance where the toe is sharper and where it is softer, shape (S, S)."""
    spread = float(np.sqrt(covariance[TOE_WIDTH, TOE_WIDTH]))
    away = min(_TOE_TO_EITHER_SIDE, _FARTHEST / spread) * covariance[:, TOE_WIDTH] / spread
    total = np.zeros_like(covariance)
    for side in (1, -1):
        phi = solution.phi.copy()
        phi[: len(away)] += side * away
        _, jacobian = predicted_densities(problem.model, phi, problem.table)
        total += np.linalg.inv(normal_equations(jacobian, weights, precision, SHARED).dense())
    return total / 2


def _diagonals(rows: Array) -> Array:
    """Diagonal matrices of rows (K, S): shape (K, S, S)."""
    made = np.zeros((*rows.shape, rows.shape[-1]))
    at = np.arange(rows.shape[-1])
    made[:, at, at] = rows
    return made

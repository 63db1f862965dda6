"""The normal equations of strips that share some parameters and have some of their own.

Two strips meet only in what they share, so the matrix is an arrow: eliminating each strip's own
block leaves a small system of the shared parameters (its Schur complement). Time and memory
grow with the number of strips, not with its square.
Source: Bjorck, Numerical Methods for Least Squares Problems (1996), section 6.3.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from vadrin.core.arrays import Array

_JITTER, _MOST_JITTER = 1e-10, 1e-2


def _firm(matrix: Array, jitter: float = _JITTER) -> Array:
    """The matrices with their diagonals raised where rounding spoils positive definiteness."""
    at = np.arange(matrix.shape[-1])
    firm = matrix.copy()
    firm[..., at, at] *= 1 + jitter
    return firm


def factor_of(hessian: Array) -> Array:
    """Lower Cholesky factor, with as much jitter as rounding asks for.

    Raises
    ------
    numpy.linalg.LinAlgError
        If the matrix is far from positive definite.
    """
    jitter = _JITTER
    while True:
        try:
            return np.asarray(np.linalg.cholesky(_firm(hessian, jitter)))
        except np.linalg.LinAlgError:
            # Readings met without noise leave so little that a difference rounds below zero.
            jitter *= 100
            if jitter > _MOST_JITTER:
                raise


@dataclass(frozen=True)
class NormalEquations:
    """The blocks of the arrow that are not zero.

    Attributes
    ----------
    shared : ndarray, shape (s, s)
    border : ndarray, shape (n, s, p)
        Between what is shared and each strip's own.
    own : ndarray, shape (n, p, p)
    """

    shared: Array
    border: Array
    own: Array

    @property
    def size(self) -> int:
        """Number of unknowns, s + n p."""
        strips, each, _ = self.own.shape
        return int(len(self.shared) + strips * each)

    def split(self, vector: Array) -> tuple[Array, Array]:
        """What is shared (..., s), and each strip's own (..., n, p), of vectors (..., size)."""
        shared = len(self.shared)
        own = vector[..., shared:].reshape(*vector.shape[:-1], *self.own.shape[:2])
        return vector[..., :shared], own

    def dense(self) -> Array:
        """The whole matrix, shape (size, size)."""
        shared = len(self.shared)
        made = np.zeros((self.size, self.size))
        made[:shared, :shared] = self.shared
        for strip, (border, own) in enumerate(zip(self.border, self.own, strict=True)):
            start = shared + strip * len(own)
            mine = slice(start, start + len(own))
            made[:shared, mine], made[mine, :shared], made[mine, mine] = border, border.T, own
        return made

    def damped(self, share: float) -> NormalEquations:
        """With the diagonal raised by a share of itself."""
        raised = self.shared + share * np.diag(np.diag(self.shared))
        at = np.arange(self.own.shape[-1])
        own = self.own.copy()
        own[:, at, at] *= 1 + share
        return NormalEquations(raised, self.border, own)

    @cached_property
    def _own_inverse(self) -> Array:
        return np.asarray(np.linalg.inv(_firm(self.own)))

    @cached_property
    def _carried(self) -> Array:
        """How each strip's own follow what is shared, shape (n, p, s)."""
        return np.asarray(self._own_inverse @ self.border.swapaxes(1, 2))

    @cached_property
    def _complement(self) -> Array:
        return np.asarray(self.shared - (self.border @ self._carried).sum(0))

    @cached_property
    def _shared_covariance(self) -> Array:
        inverse = np.linalg.inv(factor_of(self._complement))
        return np.asarray(inverse.T @ inverse)

    def solve(self, right: Array) -> Array:
        """The vector that the matrix turns into `right`, both of shape (size,)."""
        shared, own = self.split(right)
        alone = (self._own_inverse @ own[..., None])[..., 0]
        rest = shared - np.tensordot(alone, self._carried_back, 2)
        found = np.linalg.solve(_firm(self._complement), rest)
        return np.concatenate([found, (alone - self._carried @ found).ravel()])

    @cached_property
    def _carried_back(self) -> Array:
        return np.asarray(self.border.swapaxes(1, 2))

    def variances(self) -> Array:
        """Diagonal of the inverse, shape (size,)."""
        from_shared = ((self._carried @ self._shared_covariance) * self._carried).sum(-1)
        own = np.diagonal(self._own_inverse, axis1=1, axis2=2) + from_shared
        return np.concatenate([np.diag(self._shared_covariance), own.ravel()])

    def quadratic(self, rows: Array) -> Array:
        """r' inverse r for rows (n, q, s + p) that see what is shared and one strip's own."""
        shared, own = rows[..., : len(self.shared)], rows[..., len(self.shared) :]
        left = shared - own @ self._carried
        return np.asarray(
            ((own @ self._own_inverse) * own).sum(-1)
            + ((left @ self._shared_covariance) * left).sum(-1)
        )

    def drawn(self, z: Array) -> Array:
        """Vectors whose covariance is the inverse, of independent normal ones, shape (B, size)."""
        of_shared, of_own = self.split(z)
        shared = of_shared @ np.linalg.inv(factor_of(self._complement))
        roots = np.linalg.inv(factor_of(self.own))
        own = np.einsum("bnp,npr->bnr", of_own, roots)
        own -= np.einsum("nps,bs->bnp", self._carried, shared)
        return np.concatenate([shared, own.reshape(len(z), -1)], -1)


def normal_equations(
    jacobian: Array, weights: Array, precision: Array, shared: int
) -> NormalEquations:
    """J' W J and what is believed beforehand.

    Parameters
    ----------
    jacobian : ndarray, shape (n, q, s + p)
        Of each strip's readings by what is shared, then by its own.
    weights : ndarray, shape (n, q)
        0 where a strip has no reading.
    precision : ndarray, shape (s + n p,)
        Inverse variances before the readings.
    shared : int
        s, how many are shared.
    """
    gram = (jacobian * weights[..., None]).swapaxes(1, 2) @ jacobian
    own = gram[:, shared:, shared:].copy()
    at = np.arange(own.shape[-1])
    own[:, at, at] += precision[shared:].reshape(own.shape[:2])
    return NormalEquations(
        gram[:, :shared, :shared].sum(0) + np.diag(precision[:shared]),
        gram[:, :shared, shared:],
        own,
    )


def seen_by(jacobian: Array, weighted: Array, shared: int) -> Array:
    """J' r for r of shape (n, q): shape (s + n p,)."""
    each = (weighted[:, None, :] @ jacobian)[:, 0]
    return np.concatenate([each[:, :shared].sum(0), each[:, shared:].ravel()])


@dataclass(frozen=True)
class Uncertainty:
    """How unsure a whole vector is: what readings see, and what stays as it was believed.

    Attributes
    ----------
    seen : NormalEquations
    unseen : ndarray
        Inverse variances of the rest of the vector.
    """

    seen: NormalEquations
    unseen: Array

    @property
    def size(self) -> int:
        """Length of the vector."""
        return self.seen.size + len(self.unseen)

    def drawn(self, z: Array) -> Array:
        """Deviations of the vector, of independent normal numbers (B, size)."""
        near, rest = z[:, : self.seen.size], z[:, self.seen.size :]
        return np.concatenate([self.seen.drawn(near), rest * self.unseen**-0.5], -1)

    def spread(self, by_vector: Array) -> float:
        """Standard deviation of what changes by so much with each of the vector."""
        near, rest = by_vector[: self.seen.size], by_vector[self.seen.size :]
        told = float(near @ self.seen.solve(near))
        return float(np.sqrt(told + float((rest**2 / self.unseen).sum())))

"""What a fit is asked: readings laid out, what counts, and where on the way down it stands."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from vadrin.core.arrays import Array
from vadrin.core.curves.shape import PARAMETERS, design
from vadrin.core.fitting import development_model
from vadrin.core.fitting.development_model import (
    BEND_ROOT,
    BENDS,
    DEVIATION_UNIT,
    MODEL_PARAMETERS,
    SHARED,
    TILT_ROOT,
    TILTS,
    DevelopmentModel,
)
from vadrin.core.fitting.freedoms import Scales
from vadrin.core.fitting.normal_equations import NormalEquations

_AT_ONCE = 16
"""Strips worked out together: as many as the cache of a processor holds."""


@dataclass(frozen=True)
class Table:
    """Readings of all strips as flat arrays, strip after strip; blanks carry NaN as exposure.

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
    net: Array | None = None
    """Which readings count from base plus fog, shape (N,); None for none."""

    @cached_property
    def there(self) -> NDArray[np.bool_]:
        """Which places of strips laid side by side hold a reading, shape (n, q)."""
        counts = np.bincount(self.strip.astype(np.intp))
        return np.asarray(np.arange(counts.max()) < counts[:, None])

    @cached_property
    def side_by_side(self) -> Array:
        """Lg exposures of the strips laid side by side, shape (n, q); NaN for blanks, and where
        a strip has fewer readings than the longest."""
        return self.laid(self.x, np.nan)

    def laid(self, values: Array, elsewhere: float = 0.0) -> Array:
        """One value a reading, laid side by side, shape (n, q)."""
        laid = np.full(self.there.shape, elsewhere)
        laid[self.there] = values
        return laid


def predicted_densities(model: DevelopmentModel, phi: Array, table: Table) -> tuple[Array, Array]:
    """Modelled densities (N,), and their derivatives (n, q, s + p), strips side by side.

    By what is shared, then by the strip's own; on the bridges between strips no reading lies.
    """
    rows = development_model.strip_parameters(model, phi)
    weights = development_model.slope_weights_at(model, phi, model.times)
    late = np.log(model.times / model.anchor)[:, None, None]
    on_model = development_model.parameters_at(model, phi, model.times)
    nudged = phi[:MODEL_PARAMETERS] + 1e-5 * np.eye(MODEL_PARAMETERS)
    by_model = (development_model.parameters_at(model, nudged, model.times) - on_model) / 1e-5
    blocks = [slice(i, i + _AT_ONCE) for i in range(0, len(rows), _AT_ONCE)]
    parts = [design(rows[b], weights[b], table.side_by_side[b]) for b in blocks]
    values, by_row = (np.concatenate(part) for part in zip(*parts, strict=True))
    if table.net is not None:
        net = table.laid(table.net.astype(np.float64)) > 0
        values = values - net * rows[:, :1]
        by_row[net, 0] = 0.0
    seen = np.zeros((*values.shape, SHARED + PARAMETERS))
    seen[..., :MODEL_PARAMETERS] = by_row[..., :PARAMETERS] @ by_model.transpose(1, 2, 0)
    seen[..., BENDS] = by_row[..., PARAMETERS:] @ BEND_ROOT
    seen[..., TILTS] = by_row[..., PARAMETERS:] @ TILT_ROOT * late
    seen[..., SHARED:] = by_row[..., :PARAMETERS] * DEVIATION_UNIT
    return values[table.there], seen


def relative_noise(density: Array, growth: float) -> Array:
    """Standard deviation of readings as a share of that at density 1, shape (N,)."""
    return np.asarray((1 + growth * np.maximum(density, 0.0)) / (1 + growth))


@dataclass(frozen=True)
class Problem:
    """Readings, which of them count, and what is believed before they are seen."""

    model: DevelopmentModel
    table: Table
    keep: Array
    mean: Array
    spread: Array
    relative: Array
    own: Array
    """Standard deviations that readings bring themselves, beside the noise, shape (N,)."""

    def variance(self, noise: float) -> Array:
        """Variance of each reading over that of one at density 1, shape (N,)."""
        return np.asarray(self.relative**2 + (self.own / noise) ** 2)

    def with_growth(self, growth: float) -> Problem:
        """The same problem with noise that grows with density."""
        return replace(self, relative=relative_noise(self.table.density, growth))

    def pull(self, phi: Array) -> Array:
        """Distance of what readings can see from what is believed beforehand."""
        away = phi[: self.model.own_end].copy()
        away[:MODEL_PARAMETERS] -= self.mean
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
    normal: NormalEquations
    residual: Array
    jacobian: Array
    scales: Scales
    freedom: float

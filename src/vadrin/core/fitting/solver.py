"""The numerical work of a fit: the model of all strips, and the way down to its best point."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from vadrin.core.arrays import Array
from vadrin.core.curves.shape import PARAMETERS, design
from vadrin.core.fitting import development_model
from vadrin.core.fitting.development_model import (
    BENDS,
    BRIDGED,
    DEVIATION_UNIT,
    MODEL_PARAMETERS,
    SHARED,
    TILTS,
    DevelopmentModel,
)
from vadrin.core.fitting.normal_equations import NormalEquations, normal_equations, seen_by
from vadrin.core.interruption import checkpoint

_ITERATIONS = 40
_NOISE_FLOOR = 1e-5
_AT_ONCE = 16
"""Strips worked out together: as many as the cache of a processor holds."""


class _Belief(NamedTuple):
    """What is believed of a freedom before the readings: its usual size, with a weight."""

    usual: float
    weight: float
    bounds: tuple[float, float]


# Set so that ranges hold on films of every shape while a plain film loses next to nothing:
# tools/shapes.py and tools/accuracy.py tell.
_BEND = _Belief(0.16, 3.0, (0.03, 1.5))
_TILT = _Belief(0.01, 1.0, (0.002, 1.0))
_DEVIATIONS = (
    _Belief(0.06, 1.0, (0.003, 6.0)),
    _Belief(0.06, 1.0, (0.003, 6.0)),
    _Belief(0.06, 1.0, (0.003, 6.0)),
    _Belief(0.06, 1.0, (0.003, 3.0)),
)
"""Of fog, contrast, place of the toe and shape, in units of deviation."""


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


_GROUPS = (0, 1, 2, 3, 3, 3)
"""Group of each curve parameter's deviation: fog, contrast, place of the toe, shape."""


@dataclass(frozen=True)
class Scales:
    """What the evidence decides: noise, and the freedom of each group of parameters.

    Attributes
    ----------
    noise : float
        Standard deviation of a reading at density 1.
    bend, tilt : float
        Of the weights of the slope factor, and of how they change with ln t.
    deviations : tuple of float, length 4
        Of single strips from the model: fog, contrast, place of the toe, shape of the curve.
    growth : float
        Of the noise: its standard deviation goes as 1 + growth * density.
    """

    noise: float
    bend: float
    tilt: float
    deviations: tuple[float, float, float, float]
    growth: float = 0.0

    @property
    def deviation_row(self) -> Array:
        """Freedom of each of a strip's curve parameters, shape (6,)."""
        return np.array([self.deviations[g] for g in _GROUPS])


def even_scales(noise: float, bend: float, deviation: float, tilt: float = 0.02) -> Scales:
    """Scales with one freedom for every group of deviations."""
    return Scales(noise, bend, tilt, (deviation, deviation, deviation, deviation))


def starting_scales(model: DevelopmentModel) -> Scales:
    """Where learning begins."""
    if model.distinct < 3:
        return even_scales(0.02, 0.3, 0.03, 0.02 if model.distinct == 1 else 0.1)
    return even_scales(0.02, 0.3, 0.3, 0.1)


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
    seen[..., BENDS] = by_row[..., PARAMETERS:]
    seen[..., TILTS] = by_row[..., PARAMETERS:] * late
    seen[..., SHARED:] = by_row[..., :PARAMETERS] * DEVIATION_UNIT
    return values[table.there], seen


def precision_of(model: DevelopmentModel, spread: Array, scales: Scales) -> Array:
    """Inverse variances believed before the readings, of all that they can see."""
    weight = np.empty(model.own_end)
    weight[:MODEL_PARAMETERS] = spread**-2
    weight[BENDS] = scales.bend**-2
    weight[TILTS] = scales.tilt**-2
    weight[SHARED:] = np.tile(scales.deviation_row**-2, len(model.times))
    return weight


_BRIDGE = 0.6
"""How far a curve may bow between strips, as a share of what strips deviate, over a gap of 1."""


def _gaps(model: DevelopmentModel) -> Array:
    """Lengths of the gaps between different times in ln t, shape (gaps, 1)."""
    return np.asarray(np.diff(np.unique(np.round(np.log(model.times), 4)))[:, None])


_U = np.geomspace(8.0, 0.01, 200)
_GROWTH = _U / np.expm1(_U)
_BOW_OF_FIRST_ORDER = _GROWTH * (_U + _GROWTH - 1)
"""How far ln G bows in ln t, minus its second derivative, where G grows as (1 - exp(-u)) does:
the faster it still grows, the nearer it is to its beginning, where it is straight."""
_BOW_OF_TWO = np.array([-0.03, 0.0, 0.0])
_BOW_OF_TWO_SPREAD = np.array([0.05, 0.05, 0.15])
"""Of fog, ln contrast and lg speed, which two strips can't show."""
_BOW_SHARE = 0.6
"""How unsure the bow of contrast is, as a share of its growth: some developers gather pace."""


def bridges_of(model: DevelopmentModel, phi: Array, scales: Scales) -> tuple[Array, Array]:
    """How curves bow between strips, on which no reading lies: mean and freedom, (gaps * 3,)."""
    gap = _gaps(model)
    if model.distinct != 2:
        free = np.maximum(_BRIDGE * gap**2, 1e-3) * scales.deviation_row[:BRIDGED]
        return np.zeros(free.size), free.ravel()
    growth = float(np.clip(phi[development_model.G_RATE], 0.0, 1.5))
    bow, spread = _BOW_OF_TWO.copy(), _BOW_OF_TWO_SPREAD.copy()
    bow[1] = np.interp(growth, _GROWTH, _BOW_OF_FIRST_ORDER)
    spread[1] += _BOW_SHARE * growth
    high = gap**2 / 8 / DEVIATION_UNIT[:BRIDGED]
    return (high * bow).ravel(), (high * spread + 1e-3).ravel()


def _learnt(phi: Array, variance: Array, scale: float, belief: _Belief) -> tuple[float, float]:
    """One fixed-point update of a group's freedom, and how many of it the readings tell.

    Source: MacKay, Neural Computation 4 (1992), with an inverse gamma belief about the freedom.
    """
    told = float(np.clip(1 - variance / scale**2, 0.0, 1.0).sum())
    square = float((phi**2).sum()) + belief.weight * belief.usual**2
    size = np.sqrt(square / max(told + belief.weight, 1e-3))
    return float(np.clip(size, *belief.bounds)), told


def _evidence_step(
    problem: Problem, point: Point, weights: Array, normal: NormalEquations, scales: Scales
) -> tuple[Scales, float]:
    """One fixed-point update of the scales, and the freedom left for the noise."""
    model, phi, residual = problem.model, point.phi, point.residual
    variance = normal.variances()
    bend, told = _learnt(phi[BENDS], variance[BENDS], scales.bend, _BEND)
    tilt, deviations = scales.tilt, list(scales.deviations)
    if model.distinct >= 2:
        tilt, of_tilt = _learnt(phi[TILTS], variance[TILTS], scales.tilt, _TILT)
        told += of_tilt
    if model.distinct >= 3:
        own, unsure = (
            part[SHARED : model.own_end].reshape(-1, PARAMETERS) for part in (phi, variance)
        )
        for group, belief in enumerate(_DEVIATIONS):
            mine = np.array(_GROUPS) == group
            deviations[group], of_group = _learnt(
                own[:, mine].ravel(), unsure[:, mine].ravel(), deviations[group], belief
            )
            told += of_group
    told += 4 + 3 * min(model.distinct, 3)
    # Weights that spare far readings count for less; those of thin ones do not count for more.
    freedom = max(float((weights * problem.variance(scales.noise)).sum()) - told, 2.0)
    noise = np.sqrt((weights * residual**2).sum() / freedom)
    fog, contrast, toe, shape = deviations
    made = Scales(
        max(float(noise), _NOISE_FLOOR), bend, tilt, (fog, contrast, toe, shape), scales.growth
    )
    return made, float(freedom)


def relative_noise(density: Array, growth: float) -> Array:
    """Standard deviation of readings as a share of that at density 1, shape (N,)."""
    return np.asarray((1 + growth * np.maximum(density, 0.0)) / (1 + growth))


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


def _huber(residual: Array) -> Array:
    scale = max(1.4826 * float(np.median(np.abs(residual))), _NOISE_FLOOR)
    return np.minimum(1.0, 2.5 * scale / np.maximum(np.abs(residual), 1e-12))


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


def _at(problem: Problem, phi: Array) -> Point:
    values, jacobian = predicted_densities(problem.model, phi, problem.table)
    return Point(phi, problem.table.density - values, jacobian)


def _cost(problem: Problem, point: Point, scaled: Array, precision: Array) -> float:
    missed = (scaled * point.residual**2).sum()
    return float(missed + (precision * problem.pull(point.phi) ** 2).sum())


def _step(
    problem: Problem, here: Point, normal: NormalEquations, scaled: Array, precision: Array,
    damping: float,
) -> tuple[Point, float, float] | None:  # fmt: skip
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
            scales, freedom = _evidence_step(problem, point, weights, normal, scales)
        damping = max(damping / 6, 1e-9)
        settled = settled + 1 if abs(saved) < 0.02 else 0
        if (settled >= 2 and step >= 3) or (settled and not learn):
            break
    return Solution(point.phi, normal, point.residual, point.jacobian, scales, freedom)

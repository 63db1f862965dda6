"""How free the bends and the strips are: believed beforehand, and learnt from the readings."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import NamedTuple

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.curves.shape import PARAMETERS
from vadrin.core.fitting.development_model import (
    BENDS,
    MODEL_PARAMETERS,
    SHARED,
    TILTS,
    DevelopmentModel,
)


class _Belief(NamedTuple):
    """What is believed of a freedom before the readings: its usual size, with a weight."""

    usual: float
    weight: float
    bounds: tuple[float, float]


# Set so that ranges hold on films of every shape while a plain film loses next to nothing:
# tools/shapes.py and tools/accuracy.py tell.
_BEND = _Belief(0.12, 3.0, (0.03, 1.5))
_TILT = _Belief(0.02, 1.0, (0.002, 1.0))
_TILT_OF_FEW = _Belief(0.03, 1.0, (0.002, 1.0))
_SHAPE_OF_TWO = 0.5
_DEVIATIONS = (
    _Belief(0.06, 1.0, (0.003, 6.0)),
    _Belief(0.06, 1.0, (0.003, 6.0)),
    _Belief(0.06, 1.0, (0.003, 6.0)),
    _Belief(0.06, 1.0, (0.003, 3.0)),
)
"""Of fog, contrast, place of the toe and shape, in units of deviation."""


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
    if model.distinct == 1:
        return even_scales(0.02, 0.3, 0.03)
    if model.distinct == 2:
        # The straight line meets both; the shapes of their curves are two all the same.
        return Scales(0.02, 0.3, 0.1, (0.03, 0.03, 0.03, _SHAPE_OF_TWO))
    return even_scales(0.02, 0.3, 0.3, 0.1)


def precision_of(model: DevelopmentModel, spread: Array, scales: Scales) -> Array:
    """Inverse variances believed before the readings, of all that they can see."""
    weight = np.empty(model.own_end)
    weight[:MODEL_PARAMETERS] = spread**-2
    weight[BENDS] = scales.bend**-2
    weight[TILTS] = scales.tilt**-2
    weight[SHARED:] = np.tile(scales.deviation_row**-2, len(model.times))
    return weight


class _Group(NamedTuple):
    """Parameters that share a freedom: what they are, how unsure, and what is believed."""

    values: Array
    variance: Array
    scale: float
    belief: _Belief

    @property
    def told(self) -> float:
        """How many of them the readings tell."""
        return float(np.clip(1 - self.variance / self.scale**2, 0.0, 1.0).sum())

    @property
    def learnt(self) -> float:
        """The freedom after one fixed-point update.

        Source: MacKay, Neural Computation 4 (1992), with an inverse gamma belief about it.
        """
        belief = self.belief
        square = float((self.values**2).sum()) + belief.weight * belief.usual**2
        return float(np.clip(np.sqrt(square / (self.told + belief.weight)), *belief.bounds))

    def around(self, deviations: Array) -> Array:
        """Freedoms so many standard deviations from the best.

        The evidence falls off with the square of the freedom's logarithm, twice as fast for each
        number that the readings tell; a belief counts as its weight.
        """
        apart = (2 * (self.told + self.belief.weight)) ** -0.5
        return np.asarray(np.clip(self.scale * np.exp(apart * deviations), *self.belief.bounds))


def _groups_of(
    model: DevelopmentModel, phi: Array, variance: Array, scales: Scales
) -> list[_Group]:
    """Those learnt from strips of so many times: bends, tilts, the four kinds of deviation."""
    groups = [_Group(phi[BENDS], variance[BENDS], scales.bend, _BEND)]
    if model.distinct >= 2:
        belief = _TILT_OF_FEW if model.distinct <= 3 else _TILT
        groups.append(_Group(phi[TILTS], variance[TILTS], scales.tilt, belief))
    if model.distinct >= 3:
        own, unsure = (
            part[SHARED : model.own_end].reshape(-1, PARAMETERS) for part in (phi, variance)
        )
        for group, belief in enumerate(_DEVIATIONS):
            mine = np.array(_GROUPS) == group
            scale = scales.deviations[group]
            groups.append(_Group(own[:, mine].ravel(), unsure[:, mine].ravel(), scale, belief))
    return groups


def _with_freedoms(scales: Scales, freedoms: list[float]) -> Scales:
    """The scales with the first of bend, tilt and deviations replaced."""
    kept = (scales.bend, scales.tilt, *scales.deviations)[len(freedoms) :]
    bend, tilt, fog, contrast, toe, shape = (*freedoms, *kept)
    return replace(scales, bend=bend, tilt=tilt, deviations=(fog, contrast, toe, shape))


def learnt_freedoms(
    model: DevelopmentModel, phi: Array, variance: Array, scales: Scales
) -> tuple[Scales, float]:
    """Freedoms after one update, and how many numbers the readings tell of all groups."""
    groups = _groups_of(model, phi, variance, scales)
    return _with_freedoms(scales, [g.learnt for g in groups]), sum(g.told for g in groups)


def freedoms_around(
    model: DevelopmentModel, phi: Array, variance: Array, scales: Scales, design: Array
) -> list[Scales]:
    """Freedoms to either side of the best, as far as the evidence leaves them open.

    Parameters
    ----------
    model : DevelopmentModel
    phi, variance : ndarray
        The solution, and how unsure each of it is.
    scales : Scales
        The best.
    design : ndarray, shape (K, 6)
        In standard deviations, for bend, tilt and the four groups of deviations.
    """
    groups = _groups_of(model, phi, variance, scales)
    moved = np.stack([g.around(design[:, place]) for place, g in enumerate(groups)], -1)
    return [_with_freedoms(scales, row) for row in moved.tolist()]

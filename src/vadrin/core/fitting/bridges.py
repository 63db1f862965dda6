"""How curves bow between strips, where no reading lies."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.fitting import development_model
from vadrin.core.fitting.development_model import BRIDGED, DEVIATION_UNIT, DevelopmentModel

_BRIDGE = 0.3
"""How far a curve may bow between strips off the smooth line through what they deviate by, as a
share of what that line bows off straight ones: films that gather pace and films that stop in
mid-gap (``tools/shapes.py``) miss it by as much."""
_LEAST_BRIDGE = 1e-3
_OF_GROWTH = 0.42
"""Share of the model's own bow that contrast may miss it by between three strips: the model's three
numbers meet them whatever the film does in mid-gap, so that no deviation shows."""


def _gaps(model: DevelopmentModel) -> Array:
    """Lengths of the gaps between different times in ln t, shape (gaps, 1)."""
    return np.asarray(np.diff(development_model.different_times(model))[:, None])


_U = np.geomspace(8.0, 0.01, 200)
_GROWTH = _U / np.expm1(_U)
_BOW_OF_FIRST_ORDER = _GROWTH * (_U + _GROWTH - 1)
"""How far ln G bows in ln t, minus its second derivative, where G grows as (1 - exp(-u)) does:
the faster it still grows, the nearer it is to its beginning, where it is straight."""
_BOW_OF_TWO = np.array([-0.03, 0.0, 0.0])
_BOW_OF_TWO_SPREAD = np.array([0.05, 0.05, 0.2])
"""Of fog, ln contrast and lg speed, which two strips can't show."""
_BOW_SHARE = 0.6
"""How unsure the bow of contrast is, as a share of its growth: some developers gather pace."""


def _off_straight(model: DevelopmentModel, at: Callable[[Array], Array]) -> Array:
    """How far what is asked for at times bows off straight lines between strips, in mid-gap."""
    ends = np.exp(development_model.different_times(model))
    middle, on_ends = np.sqrt(ends[1:] * ends[:-1]), at(ends)
    return np.asarray(at(middle) - 0.5 * (on_ends[1:] + on_ends[:-1]))


def _bows(model: DevelopmentModel, phi: Array) -> Array:
    """How far deviations bow off straight lines between strips, shape (gaps, 3).

    Half what they do in the gap itself, half the mean square of all: where a line turns it bows
    nowhere.
    """
    own = development_model.strip_deviations(model, phi)[:, :BRIDGED]
    square = _off_straight(model, lambda t: development_model.strip_shares(model, t) @ own) ** 2
    return np.asarray(np.sqrt(0.5 * (square + square.mean(0)))) if len(square) else square


def _growth_bows(model: DevelopmentModel, phi: Array) -> Array:
    """How far the model's own ln contrast bows off straight lines between strips, shape (gaps,)."""
    bow = _off_straight(model, lambda t: development_model.parameters_at(model, phi, t)[:, 1])
    return np.asarray(np.abs(bow) / DEVIATION_UNIT[1])


def bridges_of(model: DevelopmentModel, phi: Array) -> tuple[Array, Array]:
    """How curves bow between strips, on which no reading lies: mean and freedom, (gaps * 3,)."""
    gap = _gaps(model)
    if model.distinct != 2:
        free = np.maximum(_BRIDGE * _bows(model, phi), _LEAST_BRIDGE)
        if model.distinct == 3:
            free[:, 1] = np.hypot(free[:, 1], _OF_GROWTH * _growth_bows(model, phi))
        return np.zeros(free.size), free.ravel()
    growth = float(np.clip(phi[development_model.G_RATE], 0.0, 1.5))
    bow, spread = _BOW_OF_TWO.copy(), _BOW_OF_TWO_SPREAD.copy()
    bow[1] = np.interp(growth, _GROWTH, _BOW_OF_FIRST_ORDER)
    spread[1] += _BOW_SHARE * growth
    high = gap**2 / 8 / DEVIATION_UNIT[:BRIDGED]
    return (high * bow).ravel(), (high * spread + _LEAST_BRIDGE).ravel()

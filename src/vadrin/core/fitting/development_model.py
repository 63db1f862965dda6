"""How the curve of one film follows development time.

Contrast follows first-order development, G(t) = G_max (1 - exp(-k (t - t0))); speed and fog
take the same exponential form. With two times a straight line in ln t stands in, with one
there is no model. Every strip may deviate from the model by an amount that the readings decide.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.interpolate import CubicSpline

from vadrin.core.arrays import Array
from vadrin.core.curves.shape import PARAMETERS, SLOPE_CENTRES, SLOPE_WEIGHTS

(
    FOG_LEVEL,
    FOG_RISE,
    FOG_RATE,
    G_LEVEL,
    G_RATE,
    G_DELAY,
    X_LEVEL,
    X_RISE,
    X_RATE,
    TOE_WIDTH,
    SPAN,
    SHOULDER_WIDTH,
) = range(12)
MODEL_PARAMETERS = 12
SHARED = MODEL_PARAMETERS + 2 * SLOPE_WEIGHTS
"""Length of what all strips share: the model, the bends, and how the bends tilt with ln t."""
BENDS = slice(MODEL_PARAMETERS, MODEL_PARAMETERS + SLOPE_WEIGHTS)
BRIDGED = 3
"""Curve parameters that may bow between strips: fog, contrast, place of the toe."""
TILTS = slice(MODEL_PARAMETERS + SLOPE_WEIGHTS, SHARED)

DEVIATION_UNIT = np.array([0.01, 0.03, 0.03, 0.12, 0.15, 0.12])
"""Unit of deviation of a strip from the model, for each curve parameter."""


def _smooth_root(reach: float) -> Array:
    """What turns independent numbers into weights that follow their neighbours, shape (m, m).

    Their correlation falls off over a reach in lg units, as that of a line without corners:
    what bends a real curve, a second emulsion or a ceiling, bends a stretch of it.
    Source: Rasmussen and Williams, Gaussian Processes for Machine Learning (2006), (4.17).
    """
    apart = np.sqrt(3) * np.abs(SLOPE_CENTRES[:, None] - SLOPE_CENTRES) / reach
    alike = (1 + apart) * np.exp(-apart) + 1e-4 * np.eye(SLOPE_WEIGHTS)
    return np.asarray(np.linalg.cholesky(alike))


BEND_ROOT, TILT_ROOT = _smooth_root(0.9), _smooth_root(3.0)
"""Of the bends, and of how they change with ln t, which is smoother still."""

_PRIOR_MEAN = np.array(
    [
        0.2,
        0.04,
        0.3,
        np.log(0.6),
        np.log(1.1),
        0.10,
        -2.0,
        -0.15,
        np.log(1.2),
        np.log(0.08),
        2.9,
        np.log(0.35),
    ]
)
_PRIOR_SPREAD = np.array([0.3, 0.08, 0.6, 0.6, 0.5, 0.12, 1.5, 0.3, 0.6, 1.0, 0.8, 0.5])


@dataclass(frozen=True)
class DevelopmentModel:
    """The times a law is anchored to.

    Attributes
    ----------
    times : ndarray, shape (n,)
        Development time of each strip, restated at the reference temperature.
    anchor : float
        Geometric mean of the times.
    distinct : int
        Number of times that differ by more than 2 %.
    """

    times: Array
    anchor: float
    distinct: int

    @property
    def size(self) -> int:
        """Length of the whole vector: what is shared, a row a strip, a bridge a gap."""
        return self.own_end + BRIDGED * self.gaps

    @property
    def own_end(self) -> int:
        """Where the deviations of strips end and the bridges between them begin."""
        return SHARED + PARAMETERS * len(self.times)

    @property
    def gaps(self) -> int:
        """Number of gaps between different times."""
        return len(_knots(self)[0]) - 1


def model_for(times: Array) -> DevelopmentModel:
    """Anchor a law to the development times of the strips, shape (n,)."""
    ordered = np.sort(times)
    distinct = 1 + int(np.sum(np.diff(np.log(ordered)) > 0.02))
    return DevelopmentModel(times, float(np.exp(np.mean(np.log(times)))), distinct)


_TOE_OF_FEW = np.log(0.12), 0.6
"""A toe that one or two strips alone must tell is taken for a usual one; more may show a corner."""
_TOE_WITHOUT_BLANK = np.log(0.09), 0.45
"""Without a blank nothing shows where a toe ends: a broad one would go on below the thinnest frame
for ever, and take the fog along. A long toe is told by the bends then."""
_TOE_OF_FALLING = np.log(0.3)
"""Where density falls with exposure the thin end is the dense end of a negative, and as soft."""


def parameter_prior(
    model: DevelopmentModel, fog: float, toe: float, blank: bool, falling: bool = False
) -> tuple[Array, Array]:
    """Mean and spread of the model's parameters before a reading is seen, each (12,).

    Parameters
    ----------
    model : DevelopmentModel
    fog, toe : float
        Base plus fog, and the lg exposure of the toe.
    blank : bool
        Whether an unexposed frame was read.
    falling : bool
        Whether density falls with exposure.
    """
    mean, spread = _PRIOR_MEAN.copy(), _PRIOR_SPREAD.copy()
    mean[FOG_LEVEL], mean[X_LEVEL] = fog, toe
    if model.distinct < 3:
        mean[TOE_WIDTH], spread[TOE_WIDTH] = _TOE_OF_FEW
    elif not (blank or falling):
        mean[TOE_WIDTH], spread[TOE_WIDTH] = _TOE_WITHOUT_BLANK
    if falling:
        mean[TOE_WIDTH] = _TOE_OF_FALLING
    if model.distinct == 2:
        mean[G_RATE], spread[G_RATE] = 0.6, 0.4
    return mean, spread


def _exponential(rate: Array, part: Array) -> Array:
    """(1 - exp(-r s)) / r, which is s for a vanishing rate; it quickens for a negative one."""
    safe = np.where(np.abs(rate) < 1e-6, 1e-6, rate)
    return np.asarray(-np.expm1(-np.clip(safe * part, -8.0, 8.0)) / safe)


def parameters_at(model: DevelopmentModel, phi: Array, times: Array) -> Array:
    """Curve parameters at development times, on the law itself.

    Parameters
    ----------
    model : DevelopmentModel
    phi : ndarray, shape (..., 12 or more)
        Parameters of the model.
    times : ndarray, shape (T,)

    Returns
    -------
    ndarray, shape (..., T, 6)
    """
    rows = np.empty((*phi.shape[:-1], len(times), PARAMETERS))
    q = phi[..., :MODEL_PARAMETERS, None]
    part = times / model.anchor - 1.0
    if model.distinct == 1:
        rise, wane = np.zeros_like(times), np.zeros_like(times)
        ln_g = q[..., G_LEVEL, :] + np.zeros_like(times)
    elif model.distinct == 2:
        rise = wane = np.log(times / model.anchor)
        ln_g = q[..., G_LEVEL, :] + q[..., G_RATE, :] * rise
    else:
        rise = _exponential(q[..., FOG_RATE, :], part)
        wane = _exponential(np.exp(q[..., X_RATE, :]), part)
        rate = np.exp(q[..., G_RATE, :])
        delay = q[..., G_DELAY, :] * model.times.min() / model.anchor
        grown = -np.expm1(-rate * np.maximum(part + 1.0 - delay, 0.02))
        ln_g = q[..., G_LEVEL, :] + np.log(grown / -np.expm1(-rate * np.maximum(1 - delay, 0.02)))
    rows[..., 0] = q[..., FOG_LEVEL, :] + q[..., FOG_RISE, :] * rise
    rows[..., 1] = ln_g
    rows[..., 2] = q[..., X_LEVEL, :] + q[..., X_RISE, :] * wane
    rows[..., 3:] = phi[..., None, TOE_WIDTH:MODEL_PARAMETERS]
    return rows


def strip_shares(model: DevelopmentModel, times: Array) -> Array:
    """The share each strip's own deviation has in a curve at other times, shape (T, n).

    A natural cubic through the strips in ln t, constant beyond the ends; repeats share alike.
    """
    knots, member, repeats = _knots(model)
    if len(knots) == 1:
        between = np.ones((len(times), 1))
    else:
        at = np.clip(np.log(times), knots[0], knots[-1])
        between = natural_cubic(knots, at)
    return np.asarray((between / repeats)[:, member])


def bridge_shares(model: DevelopmentModel, times: Array) -> Array:
    """How far each gap between two times lets a curve bow from its neighbours, shape (T, gaps)."""
    knots, _, _ = _knots(model)
    place = (np.log(times)[:, None] - knots[:-1]) / np.diff(knots)
    return np.where((place > 0) & (place < 1), 4 * place * (1 - place), 0.0)


def natural_cubic(knots: Array, at: Array) -> Array:
    """Weights of the knots' values in their natural cubic spline, shape (len(at), len(knots))."""
    return np.asarray(CubicSpline(knots, np.eye(len(knots)), bc_type="natural")(at))


def different_times(model: DevelopmentModel) -> Array:
    """The ln times that differ, rising, shape (gaps + 1,)."""
    return _knots(model)[0]


def _knots(model: DevelopmentModel) -> tuple[Array, NDArray[np.intp], NDArray[np.intp]]:
    """The different ln times, which of them each strip has, and how many strips have it."""
    ln_times = np.asarray(np.log(model.times), dtype=np.float64)
    near, member, repeats = np.unique(
        np.round(ln_times, 4), return_inverse=True, return_counts=True
    )
    knots = np.bincount(member, ln_times, len(near)) / repeats
    return knots, np.asarray(member, dtype=np.intp), np.asarray(repeats, dtype=np.intp)


def deviations_at(model: DevelopmentModel, phi: Array, times: Array) -> Array:
    """How far curves at any times deviate from the model, between the strips' own deviations.

    Parameters
    ----------
    model : DevelopmentModel
    phi : ndarray, shape (..., P)
        Whole parameter vectors.
    times : ndarray, shape (T,)

    Returns
    -------
    ndarray, shape (..., T, 6)
        See `strip_shares`; between strips a curve may also bow by what its gap allows.
    """
    own = strip_shares(model, times) @ strip_deviations(model, phi)
    bridges = phi[..., model.own_end :].reshape(*phi.shape[:-1], model.gaps, BRIDGED)
    own[..., :BRIDGED] += bridge_shares(model, times) @ bridges
    return np.asarray(own * DEVIATION_UNIT)


def curve_parameters(model: DevelopmentModel, phi: Array, times: Array) -> Array:
    """Curve parameters between and beyond the strips, deviations and all, shape (..., T, 6)."""
    return np.asarray(parameters_at(model, phi, times) + deviations_at(model, phi, times))


def strip_deviations(model: DevelopmentModel, phi: Array) -> Array:
    """Deviations of the strips from the model in units of `DEVIATION_UNIT`, shape (..., n, 6)."""
    own = phi[..., SHARED : model.own_end]
    return np.asarray(own.reshape(*phi.shape[:-1], len(model.times), PARAMETERS))


def strip_parameters(model: DevelopmentModel, phi: Array) -> Array:
    """Curve parameters of the strips themselves, shape (..., n, 6)."""
    return np.asarray(
        parameters_at(model, phi, model.times) + strip_deviations(model, phi) * DEVIATION_UNIT
    )


def slope_weights_at(model: DevelopmentModel, phi: Array, times: Array) -> Array:
    """Weights of the smooth slope factor at development times, shape (..., T, m).

    They change with ln t: two emulsions grow at different rates, density saturates.
    """
    late = np.log(times / model.anchor)[:, None]
    bends, tilts = phi[..., BENDS] @ BEND_ROOT.T, phi[..., TILTS] @ TILT_ROOT.T
    return np.asarray(bends[..., None, :] + late * tilts[..., None, :])

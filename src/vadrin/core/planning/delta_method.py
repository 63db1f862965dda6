"""How the uncertainty of a fit's parameters carries over to its answers, to first order.

Every answer is differentiated by the whole parameter vector, with the time it is read at
following the target (implicit differentiation), and the covariance is taken through that.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.curves.shape import PARAMETERS, SLOPE_WEIGHTS, curves_of
from vadrin.core.exposure.arithmetic import STOP
from vadrin.core.fitting import development_model
from vadrin.core.fitting.development_model import (
    BEND_ROOT,
    BENDS,
    BRIDGED,
    DEVIATION_UNIT,
    MODEL_PARAMETERS,
    SHARED,
    TILT_ROOT,
    TILTS,
    DevelopmentModel,
    curve_parameters,
)
from vadrin.core.fitting.family import Family
from vadrin.core.results.criteria import Target

_NUDGE = 1e-4
_LN10 = float(np.log(10))
Quantity = Callable[[Family], Array]


@dataclass(frozen=True)
class Derivatives:
    """A quantity with its derivatives: by the whole vector (P,), and by ln time."""

    value: float
    by_vector: Array
    by_time: float


@dataclass(frozen=True)
class CurveAtTime:
    """The curve at one development time, ready to be differentiated.

    Attributes
    ----------
    law : Law
    phi : ndarray, shape (P,)
    minutes : float
    meter_constant : float
    strip : int or None
        The strip whose own curve it is; None for the family, between the strips.
    """

    model: DevelopmentModel
    phi: Array
    minutes: float
    meter_constant: float
    strip: int | None = None

    @cached_property
    def _family(self) -> Family:
        """The curve itself, then with each row parameter and bend nudged, then a bit later."""
        times = np.array([self.minutes, self.minutes * (1 + _NUDGE)])
        of = development_model.parameters_at if self.strip is not None else curve_parameters
        rows = of(self.model, self.phi, times)
        weights = development_model.slope_weights_at(self.model, self.phi, times)
        count = PARAMETERS + SLOPE_WEIGHTS
        all_rows = np.tile(rows[0], (count + 2, 1))
        all_bends = np.tile(weights[0], (count + 2, 1))
        all_rows[1 : PARAMETERS + 1] += _NUDGE * np.eye(PARAMETERS)
        all_bends[PARAMETERS + 1 : count + 1] += _NUDGE * np.eye(SLOPE_WEIGHTS)
        all_rows[-1], all_bends[-1] = rows[1], weights[1]
        curves = curves_of(all_rows[:, None, :], all_bends[:, None, :])
        return Family(times[:1], curves, self.meter_constant)

    @cached_property
    def _rows_by_vector(self) -> Array:
        """Derivatives of the row parameters and bends by the whole vector, shape (6 + m, P)."""
        model, at = self.model, np.array([self.minutes])
        made = np.zeros((PARAMETERS + SLOPE_WEIGHTS, model.size))
        nudged = self.phi[:MODEL_PARAMETERS] + 1e-5 * np.eye(MODEL_PARAMETERS)
        on_model = development_model.parameters_at(model, self.phi, at)
        made[:PARAMETERS, :MODEL_PARAMETERS] = (
            (development_model.parameters_at(model, nudged, at) - on_model)[:, 0] / 1e-5
        ).T
        made[PARAMETERS:, BENDS] = BEND_ROOT
        made[PARAMETERS:, TILTS] = TILT_ROOT * np.log(self.minutes / model.anchor)
        for place, weight in enumerate(self._weights()):
            start = SHARED + PARAMETERS * place
            made[:PARAMETERS, start : start + PARAMETERS] = np.diag(DEVIATION_UNIT * weight)
        if self.strip is None:
            for place, bow in enumerate(development_model.bridge_shares(model, at)[0]):
                start = model.own_end + BRIDGED * place
                made[:BRIDGED, start : start + BRIDGED] = np.diag(DEVIATION_UNIT[:BRIDGED] * bow)
        return made

    def _weights(self) -> Array:
        """The share each strip's own deviation has in this curve, shape (n,)."""
        if self.strip is not None:
            return np.asarray(np.eye(len(self.model.times))[self.strip])
        return np.asarray(development_model.strip_shares(self.model, np.array([self.minutes]))[0])

    def slopes(self, quantity: Quantity) -> Derivatives:
        """Differentiate a quantity of this curve; it takes a family of one time."""
        values = quantity(self._family)[..., 0]
        by_rows = (values[1:-1] - values[0]) / _NUDGE
        later = float((values[-1] - values[0]) / _NUDGE)
        return Derivatives(float(values[0]), by_rows @ self._rows_by_vector, later)

    @property
    def speed_point(self) -> float:
        """Lg exposure of the speed point."""
        return float(self._family.x_m[0, 0])

    def density_slope(self, x: float) -> float:
        """Local slope of the curve at a lg exposure."""
        two = [float(self._density(self._family, at)[0, 0]) for at in (x - 0.01, x + 0.01)]
        return (two[1] - two[0]) / 0.02

    @staticmethod
    def _density(family: Family, x: float) -> Array:
        return family.density_at(np.full(family.curves.toe.shape[:-1], x))

    def density(self, x: float) -> Derivatives:
        """Net density at a lg exposure."""
        return self.slopes(lambda family: self._density(family, x))

    def ln_zone_ei(self) -> Derivatives:
        """Natural log of the Zone I EI."""
        return self.slopes(lambda family: family.ln_zone_ei)

    def ln_time_of(self, target: Target) -> Array:
        """Derivative, shape (P,), of the ln time at which a target is reached here."""
        contrast = self.slopes(lambda family: target.contrast(family)[0])
        return np.asarray(-contrast.by_vector / contrast.by_time)


@dataclass(frozen=True)
class NormalDerivatives:
    """The EI and the time found, each by the whole vector, shape (P,)."""

    ln_time: Array
    ln_zone_ei: Array


def normal_derivatives(moment: CurveAtTime, target: Target) -> NormalDerivatives:
    """Differentiate the finding at the moment where its target is reached."""
    ln_time = moment.ln_time_of(target)
    index = moment.ln_zone_ei()
    return NormalDerivatives(ln_time, index.by_vector + index.by_time * ln_time)


def held_push(
    normal: NormalDerivatives, at: CurveAtTime, pushed: CurveAtTime, stops: float
) -> Array:
    """Derivative, shape (P,), of the ln time of a push that holds the mid-tone.

    Parameters
    ----------
    normal : Normal
    at : Moment
        The normal's own.
    pushed : Moment
        At the time the push was found to take.
    stops : float
    """
    meter = (np.log(at.meter_constant) - at.ln_zone_ei().value) / _LN10
    x = float(meter - stops * STOP)
    moved = -normal.ln_zone_ei / _LN10
    held, there = at.density(float(meter)), pushed.density(x)
    wanted = held.by_vector + held.by_time * normal.ln_time
    wanted = wanted + at.density_slope(float(meter)) * moved
    reached = there.by_vector + pushed.density_slope(x) * moved
    return np.asarray((wanted - reached) / there.by_time)

"""What contrast to develop to: every measure of it as one object."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np

from vadrin.core.curves import metrics
from vadrin.core.exposure.arithmetic import STOP
from vadrin.core.figure import Figure, absent

if TYPE_CHECKING:
    from vadrin.core.arrays import Array
    from vadrin.core.fitting.family import Family
    from vadrin.core.results.strip_metrics import StripMetrics

DENSITY_RANGE_DIFFUSE = 1.05
"""Negative density range a medium grade takes under diffuse light."""

_CONTRAST_INDEX_SPAN = 1.9


@dataclass(frozen=True)
class ContrastMeasure:
    """One way to say how steep a negative is to be.

    Attributes
    ----------
    key : str
        Its name on the command line, in reports and in the notebook.
    name, pattern : str
        In words, alone and with its value.
    usual, lowest, highest, step : float
        Value to begin with, bounds of what can be typed, and one press of an arrow key.
    figure : str
        Which of a strip's metrics it is.
    given : bool
        Whether it is the time itself, so that the time is told and no contrast is looked for.
    """

    key: str
    name: str
    pattern: str
    usual: float
    figure: str
    lowest: float = 0.1
    highest: float = 3.0
    step: float = 0.01
    given: bool = False

    def at_each_time(self, family: Family, value: float) -> Array:
        """The measure at every time of a family, shape (..., T)."""
        raise NotImplementedError

    def wanted(self, value: float) -> float:
        """What `at_each_time` must reach for a value."""
        return value

    def span(self, value: float) -> float:
        """Lg units above the speed point up to which readings are needed."""
        raise NotImplementedError

    def of_strip(self, strip: StripMetrics) -> Figure:
        """The measure of one strip."""
        found: Figure = getattr(strip, self.figure)
        return found


class _AverageGradient(ContrastMeasure):
    def at_each_time(self, family: Family, value: float) -> Array:
        return family.gradient

    def span(self, value: float) -> float:
        return metrics.GRADIENT_RANGE


class _ZoneEight(ContrastMeasure):
    def at_each_time(self, family: Family, value: float) -> Array:
        return metrics.zone8_density(family.curves, family.x_m)

    def span(self, value: float) -> float:
        return metrics.ZONE_VIII_RANGE


class _Iso(ContrastMeasure):
    def at_each_time(self, family: Family, value: float) -> Array:
        return metrics.delta_d(family.curves, family.x_m)

    def span(self, value: float) -> float:
        return metrics.ISO_RANGE


class _ContrastIndex(ContrastMeasure):
    def at_each_time(self, family: Family, value: float) -> Array:
        return metrics.contrast_index(family.curves)[0]

    def span(self, value: float) -> float:
        return _CONTRAST_INDEX_SPAN


class _SceneRange(ContrastMeasure):
    def at_each_time(self, family: Family, value: float) -> Array:
        return metrics.scene_gradient(family.curves, family.x_m, value)

    def wanted(self, value: float) -> float:
        return DENSITY_RANGE_DIFFUSE / (STOP * value)

    def span(self, value: float) -> float:
        return STOP * value


class _OwnTime(ContrastMeasure):
    """A time one has always developed for: what film is at it, whatever contrast that gives."""

    def at_each_time(self, family: Family, value: float) -> Array:
        return np.broadcast_to(family.times, family.gradient.shape)

    def span(self, value: float) -> float:
        return 0.0

    def of_strip(self, strip: StripMetrics) -> Figure:
        minutes = strip.restated_min
        return absent("the strip has no time") if minutes is None else Figure(minutes)


AVERAGE_GRADIENT = _AverageGradient(
    "average_gradient", "average gradient", "average gradient {:.2f}", 0.58, "average_gradient"
)
ZONE_VIII = _ZoneEight(
    "zone8", "Zone VIII density", "Zone VIII density {:.2f}", 1.30, "zone8_density"
)
ISO = _Iso(
    "iso", "delta D", "the standard's contrast, delta D {:.2f}", metrics.ISO_DELTA_D, "delta_d"
)
CONTRAST_INDEX = _ContrastIndex(
    "contrast_index", "contrast index", "contrast index {:.2f}", 0.56, "contrast_index"
)
SCENE_RANGE = _SceneRange(
    "scene",
    "scene range in stops",
    "a scene of {:g} stops",
    7.0,
    "average_gradient",
    highest=15.0,
    step=1.0,
)
OWN_TIME = _OwnTime(
    "time",
    "my own time in minutes",
    "my own time, {} min",
    8.0,
    "restated_min",
    highest=480.0,
    step=0.25,
    given=True,
)

MEASURES: dict[str, ContrastMeasure] = {
    measure.key: measure
    for measure in (AVERAGE_GRADIENT, ZONE_VIII, ISO, CONTRAST_INDEX, SCENE_RANGE, OWN_TIME)
}
"""Every measure by its key."""


@dataclass(frozen=True)
class Target:
    """What contrast to develop to.

    Attributes
    ----------
    kind : str
        Key of a measure.
    value : float
        Gradient, density, delta D, stops or minutes, as the measure has it.
    """

    kind: str = AVERAGE_GRADIENT.key
    value: float = AVERAGE_GRADIENT.usual

    @property
    def measure(self) -> ContrastMeasure:
        """The measure it is given in.

        Raises
        ------
        ValueError
            If there is none of that key.
        """
        if self.kind not in MEASURES:
            raise ValueError(f"no such target: {self.kind}")
        return MEASURES[self.kind]

    def contrast(self, family: Family) -> tuple[Array, float]:
        """Contrast at each time in this measure, and the value wanted."""
        measure = self.measure
        return np.asarray(measure.at_each_time(family, self.value)), measure.wanted(self.value)

    @property
    def span(self) -> float:
        """Lg units above the speed point up to which readings are needed."""
        return self.measure.span(self.value)


ISO_TARGET = Target(ISO.key, ISO.usual)

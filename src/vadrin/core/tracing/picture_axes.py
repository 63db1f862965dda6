"""The axes of a picture of a curve, set by two places on each."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from vadrin.core.arrays import Array

_LEAST_APART = 10.0
"""Pixels between the two places of an axis, under which a click's error is most of it."""
_LEAST_ANGLE = 0.5
"""Sine of the angle between the axes, under which they are no axes."""


@dataclass(frozen=True)
class AxisMark:
    """A place on an axis, in pixels from the top left, with what stands there."""

    across: float
    down: float
    value: float


@dataclass(frozen=True)
class PictureAxes:
    """Two marks on the exposure axis and two on the density axis; the picture may lie askew.

    Raises
    ------
    ValueError
        In words, where they make no axes.
    """

    exposure: tuple[AxisMark, AxisMark]
    density: tuple[AxisMark, AxisMark]

    def __post_init__(self) -> None:
        for name, marks in (("exposure", self.exposure), ("density", self.density)):
            if marks[0].value == marks[1].value:
                raise ValueError(f"the two marks of the {name} axis need different values")
            if float(np.hypot(*_between(marks))) < _LEAST_APART:
                raise ValueError(f"the two marks of the {name} axis lie on each other")
        one, other = _between(self.exposure), _between(self.density)
        sine = abs(one[0] * other[1] - one[1] * other[0]) / np.hypot(*one) / np.hypot(*other)
        if sine < _LEAST_ANGLE:
            raise ValueError("the two axes run the same way: mark one along, the other up")

    def values(self, places: Array) -> Array:
        """Exposure and density of places, shape (n, 2), from pixels across and down."""
        units = np.column_stack([_unit(self.exposure), _unit(self.density)])
        found = np.empty((len(places), 2))
        for column, marks in enumerate((self.exposure, self.density)):
            start = np.array([marks[0].across, marks[0].down])
            away = np.linalg.solve(units, (np.asarray(places, dtype=np.float64) - start).T)
            found[:, column] = marks[0].value + away[column]
        return found


def _between(marks: tuple[AxisMark, AxisMark]) -> tuple[float, float]:
    return marks[1].across - marks[0].across, marks[1].down - marks[0].down


def _unit(marks: tuple[AxisMark, AxisMark]) -> Array:
    """Pixels across and down for one unit of an axis."""
    return np.array(_between(marks)) / (marks[1].value - marks[0].value)

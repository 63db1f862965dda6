"""Tracing a picture step by step: four marks on its axes, then the points of a curve."""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from pathlib import Path
from typing import TYPE_CHECKING

import numpy as np

from vadrin.app.read.data_sheet_axes import AXIS_ENDS
from vadrin.app.read.data_sheet_tracing import followed, picture_values, traced_points
from vadrin.core.tracing.picture_axes import AxisMark, PictureAxes
from vadrin.core.wording import counted
from vadrin.errors import EntryError
from vadrin.formats.pictures.picture_reader import checksum

if TYPE_CHECKING:
    from vadrin.core.arrays import Array

Place = tuple[float, float]
USUAL_VALUES = {"left": -3.0, "right": 1.0, "lower": 0.0, "upper": 3.0}
_ASKED = {
    "left": "Point at the left mark of the exposure axis",
    "right": "Point at its right mark",
    "lower": "Point at the lower mark of the density axis",
    "upper": "Point at its upper mark",
}


@dataclass(frozen=True)
class Trace:
    """How far the tracing of a picture has come.

    Attributes
    ----------
    path : Path
    picture : ndarray, shape (h, w, 3)
    digest : str
        Checksum of the file.
    values : dict of str to float
        What stands at each end of the axes.
    marks, points : tuple of (float, float)
        Pixels across and down.
    """

    path: Path
    picture: Array
    digest: str
    values: dict[str, float] = field(default_factory=lambda: dict(USUAL_VALUES))
    marks: tuple[Place, ...] = ()
    points: tuple[Place, ...] = ()

    @property
    def asks(self) -> str:
        """What to do next."""
        if len(self.marks) < len(AXIS_ENDS):
            end = AXIS_ENDS[len(self.marks)]
            return f"{_ASKED[end]}, where {self.values[end]:g} stands.".replace("-", "−")
        if not self.points:
            return "Point at the curve and follow its colour (F), or set its points one by one."
        return f"{counted(len(self.points), 'point')} set; take them, or set more."

    def placed(self, at: Place) -> Trace:
        """The next mark, or another point of the curve."""
        if len(self.marks) < len(AXIS_ENDS):
            return replace(self, marks=(*self.marks, at))
        return replace(self, points=(*self.points, at))

    def back(self) -> Trace:
        """Without the last point, or the last mark."""
        if self.points:
            return replace(self, points=self.points[:-1])
        return replace(self, marks=self.marks[:-1])

    def following(self, at: Place) -> Trace:
        """With the points of the line that is pointed at, in the place of those before.

        Raises
        ------
        EntryError
            In words, if no line is there or the axes are not marked yet.
        """
        if len(self.marks) < len(AXIS_ENDS):
            raise EntryError("mark the axes first: two places along, two up")
        found = followed(self.picture, at)
        return replace(self, points=tuple((float(x), float(y)) for x, y in found))

    def curve(self) -> Array:
        """Exposure and density of its points.

        Raises
        ------
        EntryError
            In words, if the marks make no axes or the points no curve.
        """
        if len(self.marks) < len(AXIS_ENDS):
            raise EntryError("mark the axes first: two places along, two up")
        left, right, lower, upper = (
            AxisMark(*at, self.values[end]) for end, at in zip(AXIS_ENDS, self.marks, strict=True)
        )
        try:
            axes = PictureAxes((left, right), (lower, upper))
        except ValueError as error:
            raise EntryError(str(error)) from error
        return traced_points(axes, np.array(self.points).reshape(-1, 2))


def opened(path: Path) -> Trace:
    """A picture that nothing was pointed at on yet; takes its time with a large file.

    Raises
    ------
    FormatError
        If it cannot be read.
    """
    return Trace(path, picture_values(path), checksum(path))

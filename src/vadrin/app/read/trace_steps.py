"""Tracing a picture step by step: four marks on its axes, then the points of its line."""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from math import log2
from pathlib import Path
from typing import TYPE_CHECKING

import numpy as np

from vadrin.app.read.data_sheet_axes import AXIS_ENDS
from vadrin.app.read.data_sheet_tracing import followed, picture_values, traced_points
from vadrin.app.read.sheet_pictures import CURVE, SheetPicture
from vadrin.core.tracing.picture_axes import AxisMark, PictureAxes
from vadrin.core.wording import counted
from vadrin.errors import EntryError
from vadrin.formats.pictures.picture_reader import checksum

if TYPE_CHECKING:
    from vadrin.core.arrays import Array

Place = tuple[float, float]


@dataclass(frozen=True)
class Trace:
    """How far the tracing of a picture has come.

    Attributes
    ----------
    path : Path
    picture : ndarray, shape (h, w, 3)
    digest : str
        Checksum of the file.
    shows : SheetPicture
    values : dict of str to float
        What stands at each end of the axes.
    marks, points : tuple of (float, float)
        Pixels across and down.
    """

    path: Path
    picture: Array
    digest: str
    shows: SheetPicture = CURVE
    values: dict[str, float] = field(default_factory=lambda: dict(CURVE.usual))
    marks: tuple[Place, ...] = ()
    points: tuple[Place, ...] = ()

    @property
    def asks(self) -> str:
        """What to do next."""
        if len(self.marks) < len(AXIS_ENDS):
            end = AXIS_ENDS[len(self.marks)]
            return f"{self.shows.asked[end]}, where {self.values[end]:g} stands.".replace("-", "−")
        if not self.points:
            return "Point at the line and follow its colour (F), or set its points one by one."
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

    def showing(self, shows: SheetPicture) -> Trace:
        """As a picture of another sort, whose axes are marked otherwise."""
        return self if shows is self.shows else replace(self, shows=shows, values=dict(shows.usual))

    def traced(self) -> Array:
        """What its points lie at: exposure and density, or minutes and EI.

        Raises
        ------
        EntryError
            In words, if the marks make no axes or the points no curve.
        """
        if len(self.marks) < len(AXIS_ENDS):
            raise EntryError("mark the axes first: two places along, two up")
        try:
            axes = PictureAxes(self._marks("left", "right"), self._marks("lower", "upper"))
        except ValueError as error:
            raise EntryError(str(error)) from error
        return traced_points(axes, np.array(self.points).reshape(-1, 2), self.shows)

    def _marks(self, *ends: str) -> tuple[AxisMark, AxisMark]:
        """The two marks of an axis; of one in even stops, by the logarithm of what stands there."""
        places = dict(zip(AXIS_ENDS, self.marks, strict=True))
        upward = self.shows.in_stops and "upper" in ends
        one, other = (
            AxisMark(*places[end], log2(self.values[end]) if upward else self.values[end])
            for end in ends
        )
        return one, other


def opened(path: Path) -> Trace:
    """A picture that nothing was pointed at on yet; takes its time with a large file.

    Raises
    ------
    FormatError
        If it cannot be read.
    """
    return Trace(path, picture_values(path), checksum(path))

"""Patches of a colour chart read off a picture of the positive or the print: pointed at in turn."""

from __future__ import annotations

from dataclasses import dataclass, replace
from pathlib import Path
from typing import TYPE_CHECKING

import numpy as np

from vadrin.app.read.data_sheet_tracing import picture_values
from vadrin.app.read.patch_entry import OF_A_PICTURE, Patch
from vadrin.app.read.patch_names import USUAL_NAMES
from vadrin.core.materials.hues import Lab
from vadrin.core.wording import counted
from vadrin.errors import EntryError

if TYPE_CHECKING:
    from vadrin.core.arrays import Array
    from vadrin.formats.pictures.colour_profile import LabTransform

Place = tuple[float, float]
_SHARE = 0.008
"""Half a side of the square that is looked at, as a share of the picture's longer side."""
_UNEVEN = 14.0
"""Standard deviation, of 255, from which a square lies across an edge."""


@dataclass(frozen=True)
class PatchPicture:
    """How far the patches of a picture were pointed at.

    Attributes
    ----------
    path : Path
    picture : ndarray, shape (h, w, 3)
        From 0 to 255.
    to_lab : LabTransform
        What its numbers mean: by the profile in the file, or as sRGB.
    names : tuple of str
        In the order they are asked for.
    places : tuple of (float, float)
        Pixels across and down.
    """

    path: Path
    picture: Array
    to_lab: LabTransform
    names: tuple[str, ...] = USUAL_NAMES
    places: tuple[Place, ...] = ()

    @property
    def complete(self) -> bool:
        """Whether every patch was pointed at."""
        return len(self.places) == len(self.names)

    @property
    def asks(self) -> str:
        """What to do next."""
        if self.complete:
            return f"{counted(len(self.places), 'patch')} pointed at: take them."
        return f"Point at the middle of {self.names[len(self.places)]}."

    @property
    def labels(self) -> tuple[tuple[Place, str], ...]:
        """Where each patch was pointed at, with its name."""
        return tuple(zip(self.places, self.names, strict=False))

    def placed(self, at: Place) -> PatchPicture:
        """With the next patch pointed at.

        Raises
        ------
        EntryError
            If the place lies across an edge, or nothing more is asked for.
        """
        if self.complete:
            raise EntryError("every patch was pointed at: take them, or take the last back")
        square = self._square(at)
        if float(square.std(axis=(0, 1)).max()) > _UNEVEN:
            raise EntryError(
                f"that is no even patch: point at the middle of {self.names[len(self.places)]}"
            )
        return replace(self, places=(*self.places, at))

    def back(self) -> PatchPicture:
        """Without the last place."""
        return replace(self, places=self.places[:-1])

    def _square(self, at: Place) -> Array:
        high, wide = self.picture.shape[:2]
        half = max(2, round(_SHARE * max(high, wide)))
        x, y = round(at[0]), round(at[1])
        rows = slice(max(y - half, 0), min(y + half + 1, high))
        return self.picture[rows, max(x - half, 0) : min(x + half + 1, wide)]

    def patches(self) -> tuple[Patch, ...]:
        """The colours of the patches pointed at."""
        return tuple(
            Patch(
                name,
                Lab(*self.to_lab.of(np.median(self._square(at), axis=(0, 1)))),
                "",
                OF_A_PICTURE,
            )
            for at, name in self.labels
        )


def patch_picture(path: Path, names: tuple[str, ...]) -> PatchPicture:
    """Open a picture of a chart.

    Raises
    ------
    FormatError
        If it cannot be read.
    """
    from vadrin.formats.pictures.colour_profile import to_lab_of

    return PatchPicture(path, picture_values(path), to_lab_of(path), names)

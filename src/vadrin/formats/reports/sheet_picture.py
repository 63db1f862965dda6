"""A picture as it goes on paper, with what it is of."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray


@dataclass(frozen=True, eq=False)
class SheetPicture:
    """A picture of a sheet; without levels an empty frame with the reason.

    Attributes
    ----------
    levels : ndarray of uint8 or None
    caption, note : str
    framed : bool
        Whether it is the finding's own.
    """

    levels: NDArray[np.uint8] | None
    caption: str
    note: str
    framed: bool

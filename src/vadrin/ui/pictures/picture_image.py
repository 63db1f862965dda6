"""A picture's levels as an image of the screen, with what is lost hatched."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray
from PyQt6.QtGui import QImage

from vadrin.app.pictures.seen import Seen
from vadrin.core.pictures.picture import GROUNDS, Ground
from vadrin.ui.theme.look import Look

_PERIOD, _THICK, _DOTS = 9, 2, 4


def image_of(picture: Seen, look: Look, marked: bool) -> QImage:
    """The picture as it is shown.

    What lies outside the readings is always dotted; lost shadows and blocked highlights are
    hatched, each its own way, where they are to be marked.
    """
    levels = picture.levels
    if look.red_only and levels.ndim == 3:
        levels = levels.mean(axis=-1).astype(np.uint8)
    levels = _hatched(levels, picture, marked)
    rows, columns = levels.shape[:2]
    if look.red_only:
        red = np.zeros((rows, columns, 3), dtype=np.uint8)
        red[..., 0] = levels
        levels = red
    grey = levels.ndim == 2
    form = QImage.Format.Format_Grayscale8 if grey else QImage.Format.Format_RGB888
    made = QImage(levels.tobytes(), columns, rows, columns * (1 if grey else 3), form)
    return made.copy()


def _hatched(levels: NDArray[np.uint8], picture: Seen, marked: bool) -> NDArray[np.uint8]:
    shown = levels.copy()
    # Only where dots may stand is looked at: a sixteenth of the picture.
    dots = shown[::_DOTS, ::_DOTS]
    unread = picture.ground_of(slice(None, None, _DOTS)) == GROUNDS.index(Ground.UNREAD)
    dots[unread] = np.where(dots[unread] > 127, 120, 140)
    if marked:
        ground = picture.ground
        rows, columns = np.ogrid[: ground.shape[0], : ground.shape[1]]
        falling = (rows - columns) % _PERIOD < _THICK
        rising = (rows + columns) % _PERIOD < _THICK
        shown[(ground == GROUNDS.index(Ground.BLACK)) & rising] = 205
        shown[(ground == GROUNDS.index(Ground.WHITE)) & falling] = 60
    return shown

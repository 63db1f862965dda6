"""Film that lies askew in its picture: how far it is tilted, and the picture made straight."""

from __future__ import annotations

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.scanning.film_bands import FILM_SHARE, bare_light, ground_of

MOST_SKEW = 0.105
"""Rows a column at which film is given up: six degrees."""
_LEAST_SKEW = 0.02
"""What finding the frames allows for by itself."""
_COARSE, _FINE = 43, 21
_ROUGHLY, _CLOSELY = (120, 160), (400, 300)
"""Rows and columns that are looked at: all tell no more."""


def skew_of(picture: Array) -> float:
    """How far film is tilted, in rows down for each column to the right.

    Edges of film are straight: rows are the least like their neighbours when they run along them.

    Parameters
    ----------
    picture : ndarray, shape (h, w)
        Values that rise with light, the bare light in it.

    Returns
    -------
    float
        0 where film lies as straight as it needs to.
    """
    bare = bare_light(picture)
    rough = _sharpest(picture, bare, np.linspace(-MOST_SKEW, MOST_SKEW, _COARSE), _ROUGHLY)
    step = 2 * MOST_SKEW / (_COARSE - 1)
    if abs(rough) + step < _LEAST_SKEW:
        return 0.0
    found = _sharpest(picture, bare, rough + np.linspace(-step, step, _FINE), _CLOSELY)
    return found if abs(found) > _LEAST_SKEW else 0.0


def _sharpest(picture: Array, bare: float, skews: Array, most: tuple[int, int]) -> float:
    """The skew along which rows differ most from those beside them."""
    down, along = (max(1, n // m) for n, m in zip(picture.shape, most, strict=True))
    film = (picture[::down, ::along] < FILM_SHARE * bare).astype(np.float64)
    columns = np.arange(film.shape[1])
    off, rows = (columns - columns.mean()) * along / down, np.arange(film.shape[0])[:, None]
    told = []
    for skew in skews:
        place = np.clip(rows + np.rint(skew * off).astype(np.intp), 0, len(rows) - 1)
        told.append(float((np.diff(film[place, columns].mean(axis=1)) ** 2).sum()))
    return float(skews[int(np.argmax(told))])


def straightened(picture: Array, skew: float) -> tuple[Array, float]:
    """A picture whose columns were moved so that film lies along its rows, and its first row.

    Parameters
    ----------
    picture : ndarray, shape (h, w)
    skew : float
        As `skew_of` gives it.

    Returns
    -------
    straight : ndarray, shape (h + |skew| w, w)
        The picture's ground where nothing was seen.
    top : float
        Row y of column x is row y + `top` + `skew` x of the picture.
    """
    high, wide = picture.shape
    columns = np.arange(wide)
    down = np.rint(skew * columns).astype(np.intp)
    top = -int(down.max()) if skew > 0 else 0
    tall = high + int(np.abs(down).max())
    rows = np.arange(tall)[:, None] + top + down
    inside = (rows >= 0) & (rows < high)
    straight = picture[np.clip(rows, 0, high - 1), columns]
    return np.where(inside, straight, ground_of(picture)), float(top)

"""A line of one colour followed through a picture, column by column, from a place on it."""

from __future__ import annotations

import numpy as np

from vadrin.core.arrays import Array

_ALIKE = 60.0
"""Distance in values of 0 to 255 up to which a pixel has the line's colour."""
_REACH = 7
"""Rows a line may climb from column to column beside its slope so far."""
_GAP = 12
"""Columns a line may be hidden, by a mark or another line."""
_SLOPE_MEMORY = 0.7


def follow_line(picture: Array, across: int, down: int) -> Array:
    """Follow a line both ways.

    Parameters
    ----------
    picture : ndarray, shape (h, w, 3)
        Values from 0 to 255.
    across, down : int
        A pixel on the line.

    Returns
    -------
    ndarray, shape (n, 2)
        Middle of the line in each column it was found in, across and down, from left to right.

    Raises
    ------
    ValueError
        In words, if there is no line there.
    """
    high, wide = picture.shape[:2]
    if not (0 <= across < wide and 0 <= down < high):
        raise ValueError("that place is not in the picture")
    colour = _colour_at(picture, across, down)
    alike = np.sqrt(((picture - colour) ** 2).sum(axis=2)) < _ALIKE
    if alike.mean() > 0.3:
        raise ValueError("that is the paper, not a line: point at the curve itself")
    right = _one_way(alike, across, down, 1)
    left = _one_way(alike, across, down, -1)
    found = [*reversed(left[1:]), *right]
    if len(found) < _GAP:
        raise ValueError("no line goes on from there: point at the curve itself")
    return np.array(found, dtype=np.float64)


def _colour_at(picture: Array, across: int, down: int) -> Array:
    """The colour that differs most from the paper near a place."""
    near = picture[max(0, down - 2) : down + 3, max(0, across - 2) : across + 3].reshape(-1, 3)
    paper = np.median(picture.reshape(-1, 3)[:: max(1, picture.size // 30_000)], axis=0)
    return np.asarray(near[int(np.argmax(((near - paper) ** 2).sum(axis=1)))], dtype=np.float64)


def _one_way(alike: Array, across: int, down: int, way: int) -> list[tuple[float, float]]:
    """Places along a line from one of them, to the right or to the left."""
    row, slope, missed = float(down), 0.0, 0
    found: list[tuple[float, float]] = []
    column = across
    while 0 <= column < alike.shape[1] and missed <= _GAP:
        aim = row + (slope if found else 0.0) * (missed + 1)
        low = max(0, int(aim) - _REACH)
        rows = low + np.flatnonzero(alike[low : int(aim) + _REACH + 1, column])
        if len(rows):
            at = float(rows[np.abs(rows - aim) <= np.abs(rows - aim).min() + _REACH].mean())
            if found:
                slope = _SLOPE_MEMORY * slope + (1 - _SLOPE_MEMORY) * (at - row) / (missed + 1)
            row, missed = at, 0
            found.append((float(column), at))
        else:
            missed += 1
        column += way
    return found


def thinned(points: Array, most: int = 24) -> Array:
    """Points evenly spread along a line, at most so many, each the mean of its neighbours.

    The two ends stay where they are: what a line reaches is read off them.
    """
    if len(points) <= most:
        return np.asarray(points, dtype=np.float64)
    made = np.array([part.mean(axis=0) for part in np.array_split(points, most)])
    made[0], made[-1] = points[0], points[-1]
    return made

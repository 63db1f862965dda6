"""Two films judged on the light box by one eye: how much faster one is than the other.

An eye that tells early tells both films early. So possibilities of the two are laid together only
where the eye is the same; what is not known of each film's toe stays its own.
"""

from __future__ import annotations

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.exposure.arithmetic import STOP
from vadrin.core.figure import Figure, absent
from vadrin.core.judging.eye_answers import SeenFrame
from vadrin.core.judging.light_box import LightBox, weighted_range

_NEIGHBOURS = 24
"""Possibilities to either side, in the order of their eyes, that count as the same eye."""
_LEAST = 1e-5
"""Share of the likeliest pair from which a pair is kept."""


def stops_faster(
    film: LightBox,
    film_told: tuple[SeenFrame, ...],
    reference: LightBox,
    reference_told: tuple[SeenFrame, ...],
) -> Figure:
    """Stops by which a film is faster than the reference, with its 95 % range.

    Parameters
    ----------
    film, reference : LightBox
    film_told, reference_told : tuple of SeenFrame
        What one eye said of each.

    Returns
    -------
    Figure
        Absent, with the reason, where either bracket does not hold the point.
    """
    for box, told in ((reference, reference_told), (film, film_told)):
        index = box.result(told).zone_ei
        if not index.present:
            return absent(index.why)
    mine, other = _by_eye(film, film_told), _by_eye(reference, reference_told)
    count = min(len(mine[0]), len(other[0]))
    apart, weight = [], []
    for shift in (*range(-_NEIGHBOURS, 0), *range(1, _NEIGHBOURS + 1)):
        here = slice(max(0, shift), count + min(0, shift))
        there = slice(max(0, -shift), count + min(0, -shift))
        apart.append(other[0][there] - mine[0][here])
        weight.append(mine[1][here] * other[1][there])
    stops, likely = np.concatenate(apart) / STOP, np.concatenate(weight)
    kept = likely > _LEAST * likely.max()
    low, middle, high = weighted_range(stops[kept], likely[kept] / likely[kept].sum())
    return Figure(middle, low, high)


def _by_eye(box: LightBox, told: tuple[SeenFrame, ...]) -> tuple[Array, Array]:
    """Speed points and how likely they are, in the order of how early their eyes tell."""
    order = np.argsort(box.person)
    return box.speed_point[order], box.weights(told)[order]

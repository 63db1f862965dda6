"""Bands of film in a picture: strips, a step wedge beside them, and the bare light round both."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from vadrin.core.arrays import Array

FILM_SHARE = 0.9
"""Of the bare light: what is darker is film."""
_WEDGE_SHARE = 0.98
"""Of the bare light at its brightest: the thinnest step of a wedge is darker."""
_BARE_SHARE = 0.93
"""Of the brightest pixels: what is as bright is bare light."""
_AS_WIDE = 0.85
"""Share of the widest band that another must have to be a strip too."""
_UNEVEN = 0.15
"""Change within a step, beside that to the next one, that steps placed rightly do not have."""
_DARK_GROUND = 0.25
"""Of the brightest pixels: film on bare light has no ground as dark."""
_LIGHT_PARTS, _DARKEST_CORNER = 12, 0.6


def bare_light(picture: Array) -> float:
    """Value of the bare light of a picture: the middle of its bright end.

    The very brightest pixels are noise, or what a scanning program put on top of borders.
    """
    seen = picture[::5, ::5]
    return float(np.median(seen[seen >= _BARE_SHARE * np.percentile(seen, 99)]))


@dataclass(frozen=True)
class FilmBands:
    """Bands of film that lie along a picture, as (first row, last row).

    Attributes
    ----------
    strips : tuple of (int, int)
        From the top, with light round each.
    wedge : (int, int) or None
    """

    strips: tuple[tuple[int, int], ...]
    wedge: tuple[int, int] | None


def ground_of(picture: Array) -> float:
    """Value of what lies along the edges of a picture."""
    deep, wide = (max(1, n // 60) for n in picture.shape)
    edges = (picture[:deep], picture[-deep:], picture[:, :wide], picture[:, -wide:])
    return float(np.median(np.concatenate([part.ravel() for part in edges])))


def _on_bare_light(picture: Array) -> None:
    """Refuse a picture whose ground is dark: a holder lies there, or it was inverted."""
    if ground_of(picture) < _DARK_GROUND * float(np.percentile(picture[::5, ::5], 99)):
        raise ValueError(
            "the ground round the film is dark: lay it on the bare light without a holder, and "
            "save the picture as it is, not inverted"
        )


def film_bands(picture: Array, with_wedge: bool) -> FilmBands:
    """Rows of the strips, with light round them, and of a wedge beside them.

    Strips are as wide as each other; a wedge is narrower, or the second of two bands.

    Parameters
    ----------
    picture : ndarray, shape (h, w)
    with_wedge : bool
        Whether a band of another film is looked for.

    Raises
    ------
    ValueError
        If nothing darker than the light lies there.
    """
    _on_bare_light(picture)
    bare = bare_light(picture)
    film = np.percentile(picture[:, ::3], 12, axis=1) < FILM_SHARE * bare
    edges = np.flatnonzero(np.diff(np.concatenate([[0], film.astype(int), [0]])))
    bands = [(int(a), int(b)) for a, b in zip(edges[::2], edges[1::2], strict=True) if b - a > 4]
    if not bands:
        raise ValueError("no strip was found: lay it along the picture, with light round it")
    widest = max(b - a for a, b in bands)
    strips = [band for band in bands if band[1] - band[0] >= _AS_WIDE * widest]
    narrow = [band for band in bands if band not in strips]
    wedge = max(narrow, key=lambda band: band[1] - band[0], default=None) if with_wedge else None
    if with_wedge and wedge is None and len(strips) > 1:
        wedge = strips.pop(1 if len(strips) == 2 else -1)
    return FilmBands(tuple(_with_light(s, bands, picture.shape[0]) for s in strips), wedge)


def _with_light(
    band: tuple[int, int], bands: list[tuple[int, int]], height: int
) -> tuple[int, int]:
    """A band with as much light round it as its neighbours leave."""
    top, bottom = band
    room = [abs(b[0] - bottom) if b[0] >= bottom else abs(top - b[1]) for b in bands if b != band]
    margin = min([max(4, (bottom - top) // 6), *(max(1, r // 2) for r in room)])
    return max(0, top - margin), min(height, bottom + margin)


def light_along(picture: Array) -> Array:
    """How bright the bare light is along a picture, as a share of its mean, shape (w,).

    A parabola through the brightest rows of a dozen parts: what lies beside the film. Ones where
    light does not lie beside it everywhere.
    """
    even = np.ones(picture.shape[1])
    if picture.shape[1] < 4 * _LIGHT_PARTS:
        return even
    parts = np.array_split(np.arange(picture.shape[1]), _LIGHT_PARTS)
    # Every fourth column tells as much as all.
    rows = [np.median(picture[:, part[::4]], axis=1) for part in parts]
    seen = np.array([np.percentile(row, 95) for row in rows])
    if seen.min() < _DARKEST_CORNER * seen.max():
        return even
    middles = np.array([part.mean() for part in parts]) / picture.shape[1]
    curve = np.polyval(np.polyfit(middles, seen, 2), np.arange(picture.shape[1]) / picture.shape[1])
    return np.asarray(curve / curve.mean())


def wedge_values(picture: Array, rows: tuple[int, int], count: int) -> Array:
    """Values of the steps of a wedge that lies in some rows, from left to right.

    As many as are seen: fewer or more than `count` where that many steps fit far better.

    Raises
    ------
    ValueError
        If it is too small for so many steps, or not whole.
    """
    part = picture[rows[0] : rows[1]]
    inside = part[len(part) // 4 : max(len(part) // 4 + 1, 3 * len(part) // 4)]
    film = np.median(inside, axis=0) < _WEDGE_SHARE * bare_light(picture)
    edges = np.flatnonzero(np.diff(np.concatenate([[0], film.astype(int), [0]])))
    runs = sorted(zip(edges[::2], edges[1::2], strict=True), key=lambda r: r[1] - r[0])
    if not runs or runs[-1][1] - runs[-1][0] < 3 * count:
        raise ValueError("the wedge is too small in the picture to show that many steps")
    ends = float(runs[-1][0]), float(runs[-1][1])
    level = np.log(np.maximum(np.median(inside, axis=0), 1e-9))
    uneven = {n: _uneven_steps(level, ends, n) for n in range(max(4, count - 3), count + 4)}
    likeliest = min(uneven, key=lambda n: uneven[n])
    if uneven[count] > _UNEVEN:
        if uneven[likeliest] > _UNEVEN:
            raise ValueError("the wedge's steps are not even: is it whole, and nothing on it?")
        count = likeliest
    wide = (ends[1] - ends[0]) / count
    middles = ends[0] + (np.arange(count) + 0.5) * wide
    return np.array(
        [np.median(inside[:, int(m - 0.3 * wide) : int(m + 0.3 * wide) + 1]) for m in middles]
    )


def _uneven_steps(level: Array, ends: tuple[float, float], count: int) -> float:
    """How far levels change within steps, beside how far from step to step: 0 where they lie so."""
    wide = (ends[1] - ends[0]) / count

    def between(low: float, high: float) -> Array:
        starts = ends[0] + (np.arange(count) + low) * wide
        long = max(1, int((high - low) * wide))
        return np.array([np.median(level[int(at) : int(at) + long]) for at in starts])

    first, last, whole = between(0.15, 0.4), between(0.6, 0.85), between(0.3, 0.7)
    rise = np.abs(np.gradient(whole))
    plain = rise > 0.3 * np.percentile(rise, 90)
    return float(np.mean(np.abs(last - first)[plain] / rise[plain]))

"""Where the frames of a strip lie in its picture, counted against what was shot."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from vadrin.core.arrays import Array

_FILM_SHARE = 0.9
"""Of the bare light: what is darker is film."""
_WEDGE_SHARE = 0.945
"""Of the bare light at its brightest: the thinnest step of a wedge is darker."""
_BARE_SHARE = 0.93
"""Of the brightest pixels: what is as bright is bare light."""
_INNER = 0.5
GAP = 0.06
"""Width of the gap between frames, as a share of their pitch."""
_SURE = 0.55
_PITCHES, _COARSE = (0.72, 1.02), 101
"""Shares of the strip's length over its frames that a pitch may be, and how many are tried."""
_LEAST_FRAME = 0.08
"""Density over the base that some frame must have, or nothing tells where frames lie."""
_DENSEST = 1e-4
"""Share of the bare light that tells film apart; a value of 0 is not endless density."""
_MOST_SKEW = 0.06
_AS_WIDE = 0.85
"""Share of the widest band that another must have to be a strip too."""
_LIGHT_PARTS, _DARKEST_CORNER = 12, 0.6


@dataclass(frozen=True)
class StripPlace:
    """A strip that lies along a picture, in pixels of that picture.

    Attributes
    ----------
    top, bottom : float
        Edges of the film at the picture's left.
    skew : float
        Pixels down for each to the right.
    start, pitch : float
        Left end of the first frame, and from frame to frame.
    count : int
    sureness : float
        How much of what differs along the strip the frames explain, 0 to 1.
    gap : float
        Between frames, as a share of their pitch.
    """

    top: float
    bottom: float
    skew: float
    start: float
    pitch: float
    count: int
    sureness: float = 1.0
    gap: float = GAP
    moved: tuple[tuple[int, float, float], ...] = ()
    """Frames set by hand: which, how far along, and how much wider, in shares of the pitch."""

    @property
    def sure(self) -> bool:
        """Whether the frames were found, rather than guessed."""
        return self.sureness >= _SURE

    def scaled(self, by: float) -> StripPlace:
        """The same in a picture so many times as large."""
        return replace(
            self, top=self.top * by, bottom=self.bottom * by, start=self.start * by,
            pitch=self.pitch * by,
        )  # fmt: skip

    def box(self, frame: int, inner: float = 0.6) -> tuple[int, int, int, int]:
        """Left, top, right, bottom of the middle of a frame, its perforations left out."""
        along, wider = self._by_hand(frame)
        middle = self.start + (frame + 0.5 + along) * self.pitch
        wide = 0.5 * (inner * (1 - self.gap) + wider) * self.pitch
        down = 0.5 * (self.top + self.bottom) + self.skew * middle
        high = 0.5 * inner * _INNER * (self.bottom - self.top) / 0.6
        return (round(middle - wide), round(down - high), round(middle + wide), round(down + high))

    def _by_hand(self, frame: int) -> tuple[float, float]:
        return next(((a, w) for f, a, w in self.moved if f == frame), (0.0, 0.0))

    def with_frame(self, frame: int, along: float, wider: float = 0.0) -> StripPlace:
        """One frame moved, and set wider, by so much more, in shares of the pitch.

        It stays within half a pitch of its place, and between a fifth and the whole of its width.
        """
        before = self._by_hand(frame)
        now = (min(max(before[0] + along, -0.5), 0.5), min(max(before[1] + wider, -0.4), 0.3))
        others = tuple(m for m in self.moved if m[0] != frame)
        return replace(self, moved=(*others, (frame, *now)))


def bare_light(picture: Array) -> float:
    """Value of the bare light of a picture: the middle of its bright end.

    The very brightest pixels are noise, or what a scanning program put on top of borders.
    """
    seen = picture[::3, ::3]
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
    bare = bare_light(picture)
    film = np.percentile(picture[:, ::3], 12, axis=1) < _FILM_SHARE * bare
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
    """Values of the steps of a wedge that lies in some rows, from left to right, shape (count,).

    Raises
    ------
    ValueError
        If it is too small for so many steps.
    """
    part = picture[rows[0] : rows[1]]
    inside = part[len(part) // 4 : max(len(part) // 4 + 1, 3 * len(part) // 4)]
    film = np.median(inside, axis=0) < _WEDGE_SHARE * bare_light(picture)
    edges = np.flatnonzero(np.diff(np.concatenate([[0], film.astype(int), [0]])))
    runs = sorted(zip(edges[::2], edges[1::2], strict=True), key=lambda r: r[1] - r[0])
    if not runs or runs[-1][1] - runs[-1][0] < 3 * count:
        raise ValueError("the wedge is too small in the picture for so many steps")
    left, right = (float(x) for x in runs[-1])
    wide = (right - left) / count
    middles = left + (np.arange(count) + 0.5) * wide
    return np.array(
        [np.median(inside[:, int(m - 0.3 * wide) : int(m + 0.3 * wide) + 1]) for m in middles]
    )


def _edges(picture: Array, bare: float) -> tuple[float, float] | None:
    """First and last row of film in a part of a picture; None where there is none."""
    film = np.flatnonzero(np.median(picture, axis=1) < _FILM_SHARE * bare)
    return (float(film[0]), float(film[-1] + 1)) if len(film) > 4 else None


def _band(picture: Array) -> tuple[float, float, float, float]:
    """Edges of the film at the left, its skew, and the value of the bare light."""
    bare = bare_light(picture)
    third = picture.shape[1] // 3
    ends = [_edges(picture[:, :third], bare), _edges(picture[:, -third:], bare)]
    if ends[0] is None or ends[1] is None:
        raise ValueError("no strip was found: lay it along the picture, with light round it")
    top, bottom = ends[0]
    top_right, bottom_right = ends[1]
    apart = picture.shape[1] - third
    skew = 0.5 * (top_right - top + bottom_right - bottom) / apart
    if abs(skew) > _MOST_SKEW:
        raise ValueError("the strip lies too crooked: turn it by hand and scan again")
    left = third / 2
    return top - skew * left, bottom - skew * left, skew, bare


def _profile(picture: Array, top: float, bottom: float, skew: float, bare: float) -> Array:
    """Density over the bare light along the middle of the film, column by column."""
    columns = np.arange(picture.shape[1])
    high = max(2, int(0.25 * (bottom - top)))
    middle = 0.5 * (top + bottom) + skew * columns
    rows = np.clip((middle[None, :] + np.arange(-high, high + 1)[:, None]).round(), 0,
                   picture.shape[0] - 1).astype(np.intp)  # fmt: skip
    level = np.median(picture[rows, columns[None, :]], axis=0)
    return np.asarray(-np.log10(np.maximum(level / bare, _DENSEST)))


def find_frames(picture: Array, count: int, gap: float = GAP) -> StripPlace:
    """Find a strip that lies along a picture, and its frames.

    Frames are as far apart as each other, so that thin ones are found by the dense ones; the fit
    is of levels that are even within frames and fall to the base between them.

    Parameters
    ----------
    picture : ndarray, shape (h, w)
        Values that rise with light, reduced to at most some thousand columns.
    count : int
        How many frames the strip has.
    gap : float
        Between them, as a share of their pitch; none on paper.

    Raises
    ------
    ValueError
        In words, where there is no strip.
    """
    if count < 2 or min(picture.shape) < 16 or not np.isfinite(picture).all():
        raise ValueError("a strip has two frames or more, in a picture of some size")
    top, bottom, skew, bare = _band(np.asarray(picture, dtype=np.float64))
    profile = _profile(picture, top, bottom, skew, bare)
    film = np.flatnonzero(profile > -np.log10(_FILM_SHARE))
    if len(film) < 4 * count:
        raise ValueError("the strip is too small in the picture: scan it at a finer resolution")
    left, right = float(film[0]), float(film[-1] + 1)
    seen = _Profile(profile, left, right)
    start, pitch, sureness = _comb(seen, count, gap)
    if seen.level(start, pitch, count).max() - seen.base < _LEAST_FRAME:
        sureness = 0.0
    return StripPlace(top, bottom, skew, start, pitch, count, sureness, gap)


class _Profile:
    """A density profile along film, with running sums to ask stretches of it fast."""

    def __init__(self, profile: Array, left: float, right: float) -> None:
        self.left, self.right = left, right
        inside = profile[int(left) : int(right)]
        self.base = float(np.percentile(inside, 5))
        self.spread = float(((inside - self.base) ** 2).sum())
        self._sums = np.concatenate([[0.0], np.cumsum(profile)])
        self._squares = np.concatenate([[0.0], np.cumsum(profile**2)])

    def _between(self, low: Array, high: Array, table: Array) -> Array:
        return np.asarray(self._up_to(high, table) - self._up_to(low, table))

    def _up_to(self, ends: Array, table: Array) -> Array:
        """A running sum up to places between columns; by index, since every column has one."""
        place = np.clip(ends, self.left, self.right)
        under = np.minimum(place.astype(np.intp), len(table) - 2)
        return np.asarray(table[under] + (place - under) * (table[under + 1] - table[under]))

    def uneven(self, low: Array, high: Array) -> Array:
        """What a level of its own leaves unexplained of stretches."""
        total = self._between(low, high, self._sums)
        return np.asarray(
            self._between(low, high, self._squares) - total**2 / np.maximum(high - low, 1e-9)
        )

    def level(self, start: float, pitch: float, count: int) -> Array:
        """Mean density of each frame, shape (count,)."""
        edge: Array = start + pitch * np.arange(count, dtype=np.float64)
        return np.asarray(self._between(edge, edge + pitch, self._sums) / pitch)

    def over_base(self, low: Array, high: Array) -> Array:
        """What the base leaves unexplained of stretches."""
        long = np.clip(high, self.left, self.right) - np.clip(low, self.left, self.right)
        total = self._between(low, high, self._sums)
        squares = self._between(low, high, self._squares)
        return np.asarray(squares - 2 * self.base * total + self.base**2 * long)


def _comb(seen: _Profile, count: int, gap: float) -> tuple[float, float, float]:
    """Start and pitch of evenly spaced frames that explain a profile best, and how well."""
    longest = (seen.right - seen.left) / count
    best = (np.inf, seen.left, longest)
    for pitch in np.linspace(*_PITCHES, _COARSE) * longest:
        first, last = seen.left - 0.05 * pitch, seen.right - (count - 0.1) * pitch
        best = min(best, _best_start(seen, np.arange(first, last, 0.03 * pitch), pitch, count, gap))
    _, start, near = best
    for pitch in near * np.linspace(0.994, 1.006, 25):
        starts = start + np.linspace(-0.18, 0.18, 49) * pitch
        best = min(best, _best_start(seen, starts, pitch, count, gap))
    return best[1], best[2], float(np.clip(1 - best[0] / max(seen.spread, 1e-9), 0.0, 1.0))


def _best_start(
    seen: _Profile, starts: Array, pitch: float, count: int, gap: float
) -> tuple[float, float, float]:
    """What is left unexplained at the best of some starts, that start, and the pitch."""
    if len(starts) == 0:
        return (np.inf, seen.left, float(pitch))
    cost = _unexplained(seen, starts, float(pitch), count, gap)
    place = int(np.argmin(cost))
    return (float(cost[place]), float(starts[place]), float(pitch))


def _unexplained(seen: _Profile, starts: Array, pitch: float, count: int, gap: float) -> Array:
    """What frames of a pitch leave unexplained, for several starts, shape (len(starts),)."""
    edge, half = starts[:, None] + pitch * np.arange(count), 0.5 * gap * pitch
    within = seen.uneven(edge + half, edge + pitch - half).sum(1)
    gaps = seen.over_base(edge - half, edge + half).sum(1)
    end = starts + count * pitch - half
    before = seen.over_base(np.full_like(starts, seen.left), np.maximum(starts - half, seen.left))
    after = seen.over_base(end, np.full_like(starts, seen.right))
    return np.asarray(within + gaps + before + after)

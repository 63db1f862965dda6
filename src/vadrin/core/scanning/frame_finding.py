"""Where the frames of a strip lie in its picture, counted against what was shot."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.scanning.film_bands import FILM_SHARE, bare_light

_INNER = 0.5
GAP = 0.06
"""Width of the gap between frames, as a share of their pitch."""
_SURE = 0.55
_PITCHES, _COARSE = (0.70, 1.16), 155
"""Shares of the strip's length over its frames that a pitch may be, and how many are tried."""
_MOST_SPARE = 6
"""Frames that could lie on clear film before the first and after the last."""
_OUTSIDE = 0.02
"""Share of what differs along a strip that a frame beyond its end must explain, to be believed."""
_BETTER, _MATTERS = 0.5, 0.01
"""Share of what is left unexplained, and of all, by which another number of frames is better."""
_SLIPS = np.array([[-1.0], [0.0], [1.0]])
_SPARE = 0.7
"""Of a frame: clear film beside the first or the last that could hold another."""
_DENSE, _MET = 0.15, 0.7
"""Density over the base of a frame beside which a gap is seen, and share of gaps that must be."""
_LEAST_FRAME = 0.08
"""Density over the base that some frame must have, or nothing tells where frames lie."""
_DENSEST = 1e-4
"""Share of the bare light that tells film apart; a value of 0 is not endless density."""
_MOST_SKEW = 0.06


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
    seen: int = 0
    """Frames that are seen, where they are not as many as the strip should have."""
    cut: tuple[int, ...] = ()
    """Frames that the film does not hold whole."""

    @property
    def sure(self) -> bool:
        """Whether the frames were found, rather than guessed."""
        return self.sureness >= _SURE

    def scaled(self, by: float) -> StripPlace:
        """The same in a picture so many times as large."""
        return replace(
            self,
            top=self.top * by,
            bottom=self.bottom * by,
            start=self.start * by,
            pitch=self.pitch * by,
        )

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


def _edges(picture: Array, bare: float) -> tuple[float, float] | None:
    """First and last row of film in a part of a picture; None where there is none."""
    film = np.flatnonzero(np.median(picture, axis=1) < FILM_SHARE * bare)
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
        raise ValueError("strip too tilted: straighten it and scan again")
    left = third / 2
    return top - skew * left, bottom - skew * left, skew, bare


def _profile(picture: Array, top: float, bottom: float, skew: float, bare: float) -> Array:
    """Density over the bare light along the middle of the film, column by column."""
    columns = np.arange(picture.shape[1])
    high = max(2, int(0.25 * (bottom - top)))
    middle = 0.5 * (top + bottom) + skew * columns
    rows = np.clip(
        (middle[None, :] + np.arange(-high, high + 1)[:, None]).round(), 0, picture.shape[0] - 1
    ).astype(np.intp)
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
    film = np.flatnonzero(profile > -np.log10(FILM_SHARE))
    if len(film) < 4 * count:
        raise ValueError("the strip is too small in the picture: scan it at a finer resolution")
    left, right = float(film[0]), float(film[-1] + 1)
    profiles = _Profile(profile, left, right), _Profile(profile, left, right, finely=False)
    near = _coarse(profiles[1], count, gap)
    start, pitch, sureness = _comb(profiles[0], near, count, gap)
    if profiles[0].level(start, pitch, count).max() - profiles[0].base < _LEAST_FRAME:
        sureness = 0.0
    if gap and not _gaps_met(profiles[0], profile, start, pitch, count):
        sureness = 0.0
    seen = _frames_seen(profiles[1], count, gap, near[0])
    spare = max(start - left, right - (start + (count - gap) * pitch))
    if not seen and spare > _SPARE * pitch:
        seen = count + max(1, round(spare / pitch))
    cut = _cut_off(left, right, start, pitch, count)
    return StripPlace(top, bottom, skew, start, pitch, count, sureness, gap, (), seen, cut)


def _gaps_met(seen: _Profile, profile: Array, start: float, pitch: float, count: int) -> bool:
    """Whether film is clear where gaps should be between frames that are dense; true where no
    two dense frames lie beside each other."""
    level = seen.level(start, pitch, count) - seen.base
    met = []
    for frame in range(1, count):
        thinner = min(level[frame - 1], level[frame])
        at, near = start + frame * pitch, max(1.0, 0.035 * pitch)
        dip = profile[max(0, int(at - near)) : int(at + near) + 1]
        if thinner > _DENSE and len(dip):
            met.append(float(dip.min()) - seen.base < 0.5 * thinner)
    return len(met) < 3 or float(np.mean(met)) > _MET


def _frames_seen(roughly: _Profile, count: int, gap: float, left_over: float) -> int:
    """Another number of frames that leaves far less of a strip unexplained; 0 where none does."""
    best, found = _BETTER * left_over, 0
    for other in (count - 1, count + 1, count - 2, count + 2):
        unexplained = _coarse(roughly, other, gap)[0] if other >= 2 else np.inf
        if unexplained < best and left_over - unexplained > _MATTERS * roughly.spread:
            best, found = unexplained, other
    return found


def _cut_off(left: float, right: float, start: float, pitch: float, count: int) -> tuple[int, ...]:
    """Frames whose middle the film does not hold."""
    ends = [(start + (i + 0.2) * pitch, start + (i + 0.8) * pitch) for i in range(count)]
    return tuple(i for i, (a, b) in enumerate(ends) if a < left or b > right)


class _Profile:
    """A density profile along film, with running sums to ask stretches of it fast; to whole
    columns where it need not be fine."""

    def __init__(self, profile: Array, left: float, right: float, finely: bool = True) -> None:
        self.left, self.right, self._finely = left, right, finely
        inside = profile[int(left) : int(right)]
        self.base = float(np.percentile(inside, 5))
        self.spread = float(((inside - self.base) ** 2).sum())
        self._sums = np.concatenate([[0.0], np.cumsum(profile)])

    def _up_to(self, ends: Array) -> tuple[Array, Array]:
        """The running sum up to places, and how far those lie on the film; by index, since every
        column has one."""
        place = np.clip(ends, self.left, self.right)
        under = place.astype(np.intp)
        if not self._finely:
            return self._sums[under], under.astype(np.float64)
        under = np.minimum(under, len(self._sums) - 2)
        before = self._sums[under]
        return before + (place - under) * (self._sums[under + 1] - before), place

    def explained(self, low: Array, high: Array) -> Array:
        """What levels of their own explain of stretches, beyond what the base does.

        Squares over a stretch: sum (p - b)^2 - (sum p^2 - (sum p)^2 / n), whose own squares cancel.
        """
        (first, begin), (last, end) = self._up_to(low), self._up_to(high)
        total, base = last - first, self.base
        own = total**2 / np.maximum(high - low, 1e-9)
        return np.asarray(own - 2 * base * total + base**2 * (end - begin))

    def level(self, start: float, pitch: float, count: int) -> Array:
        """Mean density of each frame, shape (count,)."""
        edge: Array = start + pitch * np.arange(count, dtype=np.float64)
        return np.asarray((self._up_to(edge + pitch)[0] - self._up_to(edge)[0]) / pitch)


def _coarse(roughly: _Profile, count: int, gap: float) -> tuple[float, float, float]:
    """What evenly spaced frames leave unexplained at best, roughly, their start and pitch."""
    longest = (roughly.right - roughly.left) / count
    # Steps of paper are cut by nobody.
    off = 0.9 if gap else 0.1
    least = max(_PITCHES[0], count / (count + _MOST_SPARE))
    step = (_PITCHES[1] - _PITCHES[0]) / (_COARSE - 1)
    pitches = np.arange(_PITCHES[1], least, -step)[::-1] * longest
    starts = [
        np.arange(roughly.left - off * p, roughly.right - (count - off) * p, 0.03 * p)
        for p in pitches
    ]
    counts = [len(each) for each in starts]
    return _best_start(roughly, np.concatenate(starts), np.repeat(pitches, counts), count, gap)


def _comb(
    seen: _Profile, near: tuple[float, float, float], count: int, gap: float
) -> tuple[float, float, float]:
    """Start and pitch of evenly spaced frames that explain a profile best, and how well.

    Parameters
    ----------
    seen : _Profile
    near : tuple of float
        As `_coarse` gives them.
    count : int
    gap : float
    """
    _, start, roughly = near
    pitches = (roughly * np.linspace(0.994, 1.006, 25))[:, None, None]
    # A frame further on may explain as much, roughly: blank frames are like clear film.
    starts = start + (np.linspace(-0.18, 0.18, 49) + _SLIPS) * pitches
    every = np.broadcast_to(pitches, starts.shape)
    best = _best_start(seen, starts.ravel(), every.ravel(), count, gap)
    return best[1], best[2], float(np.clip(1 - best[0] / max(seen.spread, 1e-9), 0.0, 1.0))


def _best_start(
    seen: _Profile, starts: Array, pitches: Array, count: int, gap: float
) -> tuple[float, float, float]:
    """What is left unexplained at the best of some starts with their pitches, and those two."""
    if len(starts) == 0:
        longest = (seen.right - seen.left) / count
        return (np.inf, seen.left, longest)
    cost = _unexplained(seen, starts, pitches, count, gap)
    place = int(np.argmin(cost))
    return (float(cost[place]), float(starts[place]), float(pitches[place]))


def _unexplained(seen: _Profile, starts: Array, pitches: Array, count: int, gap: float) -> Array:
    """What frames leave unexplained, for several starts each with its pitch, shape (n,)."""
    pitch, half = pitches[:, None], 0.5 * gap * pitches[:, None]
    edge = starts[:, None] + pitch * np.arange(count)
    frames = seen.explained(edge + half, edge + pitch - half).sum(1)
    end = starts + (count - 0.5 * gap) * pitches
    outside = np.maximum(seen.left - starts, 0) + np.maximum(end - seen.right, 0)
    return np.asarray(seen.spread - frames + _OUTSIDE * seen.spread * outside / pitches)

"""From frames exposed long to what a film needed: pairs of metered and needed seconds.

A frame metered at t was exposed t, 2t and 4t; the time that gives the density of the short frame
lies on the line of density over lg time between them.
"""

from __future__ import annotations

from dataclasses import dataclass
from math import log2

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.exposure.reciprocity import Reciprocity, corrected_time, fit_reciprocity
from vadrin.core.figure import Figure, absent

_DRAWS = 120
_LEAST_SLOPE = 0.08
"""Density a stop below which a frame lies too low on its curve to tell a time."""


@dataclass(frozen=True)
class LongFrame:
    """One long frame: what the meter asked for, how long it was held, what it read."""

    metered_s: float
    held_s: float
    density: float


@dataclass(frozen=True)
class NeededTime:
    """Seconds a metered time needed, with its range, or why it is not told."""

    metered_s: float
    needed_s: Figure


@dataclass(frozen=True)
class LongExposureLaw:
    """What long exposures come to.

    Attributes
    ----------
    pairs : tuple of NeededTime
        By metered time.
    law : Reciprocity or None
        None where too little is known.
    table : tuple of (float, Figure)
        Metered seconds and corrected ones, within what was tried and no further.
    contrast : Figure
        Slope at the longest time over that at the shortest.
    """

    pairs: tuple[NeededTime, ...]
    law: Reciprocity | None
    table: tuple[tuple[float, Figure], ...]
    contrast: Figure


TABLE_S = (1.0, 2.0, 4.0, 8.0, 15.0, 30.0, 60.0, 120.0, 240.0, 480.0, 900.0, 1800.0)


def _needed(stops: Array, dense: Array, short: Array) -> tuple[Array, Array]:
    """Seconds that give the short frame's density, and the slope in density a stop there.

    For densities (..., n) at lg2 seconds (n,) and short frames (...); NaN where none does.
    """
    away = stops - stops.mean()
    slope = (dense * away).sum(-1) / (away**2).sum()
    with np.errstate(divide="ignore", invalid="ignore"):
        level = (short - dense.mean(-1)) / slope
        at = np.where(slope > 0, stops.mean() + level, np.nan)
        # On a bent curve the two frames around it tell more than the line through all three.
        for i in reversed(range(len(stops) - 1)):
            low, high = dense[..., i], dense[..., i + 1]
            between = stops[i] + (short - low) / (high - low) * (stops[i + 1] - stops[i])
            at = np.where((low <= short) & (short <= high) & (high > low), between, at)
    return np.asarray(2.0**at), np.asarray(slope)


def _pair(frames: list[LongFrame], short: float, drawn: Array) -> tuple[NeededTime, Array]:
    """What a metered time needed, and draws of it; `drawn` shakes the short and each frame."""
    metered = frames[0].metered_s
    if len(frames) < 2:
        gap = absent("one frame cannot show a slope: hold it a stop longer too")
        return NeededTime(metered, gap), np.full(len(drawn), np.nan)
    stops = np.log2([f.held_s for f in frames])
    dense = np.array([f.density for f in frames])
    best, slope = (float(told) for told in _needed(stops, dense, np.asarray(short)))
    if not np.isfinite(best) or slope < _LEAST_SLOPE:
        gap = absent("too thin or too dense to show a time: expose about the meter")
        return NeededTime(metered, gap), np.full(len(drawn), np.nan)
    if best > 2 * frames[-1].held_s:
        gap = absent("the longest exposure is still too thin: expose longer")
        return NeededTime(metered, gap), np.full(len(drawn), np.nan)
    shaken, _ = _needed(stops, dense + drawn[:, 1 : 1 + len(frames)], short + drawn[:, 0])
    # No exposure needs less than the meter says.
    value, draws = max(best, metered), np.maximum(shaken, metered)
    spread = float(np.nanstd(np.log2(shaken))) * 1.96
    figure = Figure(value, max(metered, best / 2**spread), max(metered, best * 2**spread))
    return NeededTime(metered, figure), draws


def long_exposure_law(
    short_density: float, frames: tuple[LongFrame, ...], noise: float, rng: np.random.Generator
) -> LongExposureLaw:
    """Fit what long exposures take.

    Parameters
    ----------
    short_density : float
        Of the frame exposed short and bright.
    frames : tuple of LongFrame
    noise : float
        Standard deviation of a density.
    rng : numpy.random.Generator
    """
    by_time: dict[float, list[LongFrame]] = {}
    for frame in sorted(frames, key=lambda f: (f.metered_s, f.held_s)):
        by_time.setdefault(round(frame.metered_s, 3), []).append(frame)
    most = 1 + max((len(f) for f in by_time.values()), default=0)
    short = noise * rng.standard_normal(_DRAWS)
    pairs, drawn = [], []
    for own in by_time.values():
        shaken = np.column_stack([short, noise * rng.standard_normal((_DRAWS, most))])
        pair, draws = _pair(own, short_density, shaken)
        pairs.append(pair)
        drawn.append(draws)
    known = [i for i, p in enumerate(pairs) if p.needed_s.present]
    contrast = _contrast([f for f in by_time.values() if len(f) > 1], noise)
    if len(known) < 2:
        return LongExposureLaw(tuple(pairs), None, (), contrast)
    metered = np.array([pairs[i].metered_s for i in known])
    needed = np.array([pairs[i].needed_s.known() for i in known])
    law, _ = fit_reciprocity(metered, needed)
    laws = _moved_laws(metered, needed, np.array([drawn[i] for i in known]))
    return LongExposureLaw(tuple(pairs), law, _table(law, laws, float(metered.max())), contrast)


def _moved_laws(metered: Array, needed: Array, drawn: Array) -> list[Reciprocity]:
    """The law as it would be, were the pairs off by one standard deviation in each of the ways
    they are off together; `drawn` holds their draws, shape (pairs, draws)."""
    finite = drawn[:, np.isfinite(drawn).all(axis=0)]
    if finite.shape[1] < _LEAST_DRAWS:
        return []
    sizes, ways = np.linalg.eigh(np.atleast_2d(np.cov(np.log(finite))))
    moves = (np.sqrt(np.maximum(sizes, 0.0)) * ways).T
    return [fit_reciprocity(metered, np.maximum(metered, needed * np.exp(m)))[0] for m in moves]


_LEAST_DRAWS = 20


def _table(
    law: Reciprocity, laws: list[Reciprocity], longest_s: float
) -> tuple[tuple[float, Figure], ...]:
    made = []
    for seconds in TABLE_S:
        if seconds > 1.5 * longest_s:
            gap = absent(f"nothing over {longest_s:.0f} s was tried")
            made.append((seconds, gap))
            continue
        best = corrected_time(law, seconds)
        stops = np.array([log2(corrected_time(one, seconds) / best) for one in laws])
        spread = 1.96 * float(np.sqrt((stops**2).sum())) if len(stops) else 0.0
        # A law of two numbers is not the film's own: a share of a stop stands for that.
        spread = float(np.hypot(spread, _LAW_STOPS)) if best > seconds else spread
        low = max(seconds, best / 2**spread)
        made.append((seconds, Figure(best, low, best * 2**spread)))
    return tuple(made)


_LAW_STOPS = 0.05


def _contrast(sets: list[list[LongFrame]], noise: float) -> Figure:
    """Slope at the longest time over that at the shortest."""
    if len(sets) < 2:
        return absent("two long times are needed to see the contrast change")

    def slope(frames: list[LongFrame]) -> float:
        return float(
            np.polyfit(np.log2([f.held_s for f in frames]), [f.density for f in frames], 1)[0]
        )

    first, last = slope(sets[0]), slope(sets[-1])
    if first <= _LEAST_SLOPE:
        return absent("the shortest of the long frames are too thin to show a slope")
    ratio = last / first
    reach = 1.96 * noise * float(np.hypot(1 / first, last / first**2)) / 2**0.5
    return Figure(ratio, ratio - reach, ratio + reach)

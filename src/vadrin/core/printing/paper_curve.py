"""A paper's characteristic curve: from reflection densities, or from what an eye tells of steps.

Range and speed as ISO 6846 has them: R = 100 (x at 90 % of the net maximum - x at 0.04), both over
D_min; P = 1000 / H at 0.60 over it.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.interpolate import PchipInterpolator

from vadrin.core.arrays import Array
from vadrin.core.figure import Figure, absent

FIRST_GREY, MID_GREY, BLACK_SHARE = 0.04, 0.60, 0.90
_FLAT = 0.03
"""Density that the last two steps may differ by where the paper has reached its maximum."""


@dataclass(frozen=True)
class PaperCurve:
    """What a paper does.

    Attributes
    ----------
    log_h, density : ndarray, shape (n,)
        Steps in the order of their exposure, densities over the paper's white.
    d_min : float
    d_max : Figure
        Absent where the steps end before it.
    iso_range : Figure
        R; 100 times the exposure scale.
    speed : Figure
        P; absent where exposures are not in lux seconds.
    """

    log_h: Array
    density: Array
    d_min: float
    d_max: Figure
    iso_range: Figure
    speed: Figure

    @property
    def exposure_scale(self) -> Figure:
        """R / 100, in lg H."""
        r = self.iso_range
        if r.value is None or r.low is None or r.high is None:
            return r if r.value is None else Figure(r.value / 100)
        return Figure(r.value / 100, r.low / 100, r.high / 100)


def _rising(density: Array) -> Array:
    """The nearest row that never falls (pool adjacent violators), shape (n,)."""
    blocks: list[list[float]] = []
    for value in density:
        blocks.append([float(value), 1.0])
        while len(blocks) > 1 and blocks[-2][0] > blocks[-1][0]:
            value2, count2 = blocks.pop()
            value1, count1 = blocks.pop()
            total = count1 + count2
            blocks.append([(value1 * count1 + value2 * count2) / total, total])
    return np.concatenate([np.full(int(count), value) for value, count in blocks])


_CLIP = 2e-3
"""Shares of the net maximum nearer to white or black than this tell no place."""


def _crossing(log_h: Array, density: Array, wanted: float) -> float:
    """Lg exposure at a net density: papers are S-shaped, and straight in the logit of their share
    of black, where a curve through the steps is drawn that does not overshoot (PCHIP)."""
    if not density[0] <= wanted <= density[-1] or density[-1] <= 0:
        return float("nan")
    share = np.clip(density / density[-1] / (1 + _CLIP / 4), _CLIP, 1 - _CLIP)
    inside = np.flatnonzero((share > _CLIP) & (share < 1 - _CLIP))
    if len(inside) < 2:
        return float("nan")
    kept = slice(max(0, inside[0] - 1), min(len(share), inside[-1] + 2))
    x, z = log_h[kept], np.log(share[kept] / (1 - share[kept]))
    rising = np.concatenate([[True], np.diff(z) > 1e-9])
    x, z = x[rising], z[rising]
    aim = np.clip(wanted / density[-1] / (1 + _CLIP / 4), _CLIP, 1 - _CLIP)
    if len(x) < 2:
        return float("nan")
    return float(PchipInterpolator(z, x)(np.log(aim / (1 - aim))))


def _figure(best: float, reach: float, why: str) -> Figure:
    if not np.isfinite(best):
        return absent(why)
    return Figure(best, best - reach, best + reach) if np.isfinite(reach) else Figure(best)


def _reaches(log_h: Array, read: Array, white: float, off: Array, pale: Array | None) -> Array:
    """Half the 95 % ranges of what `_answers` gives, were each step off by its deviation.

    The steps called pale tell the paper's white with each other; where it was read apart (None),
    it is off by itself.
    """
    best = np.array(_answers(log_h, _rising(read) - white))
    moved = [
        _answers(
            log_h, _rising(read + step) - white - (step[pale].mean() if pale is not None else 0.0)
        )
        for step in np.diag(off)
    ]
    if pale is None:
        moved.append(_answers(log_h, _rising(read) - white - float(off.max())))
    return np.asarray(1.96 * np.sqrt(((np.array(moved) - best) ** 2).sum(0)))


def paper_curve(
    log_h: Array, density: Array, noise: float, d_min: float | None = None, absolute: bool = False
) -> PaperCurve:
    """Work a paper's steps out.

    Parameters
    ----------
    log_h : ndarray, shape (n,)
        Lg exposure of each step, in lux seconds where `absolute`, else from any zero.
    density : ndarray, shape (n,)
        Reflection densities.
    noise : float
        Standard deviation of one.
    d_min : float, optional
        Of the unexposed paper; the least step where it was not read.
    absolute : bool

    Raises
    ------
    ValueError
        In words, for fewer than four steps, or steps that do not darken.
    """
    x, place, repeats = np.unique(
        np.round(np.asarray(log_h, float), 9), return_inverse=True, return_counts=True
    )
    read = np.bincount(place, np.asarray(density, float)) / repeats
    if len(x) < 4:
        raise ValueError("a paper's curve needs at least four steps that differ")
    if read[-1] - read[0] < 0.5:
        raise ValueError("the steps hardly darken: expose from white to black")
    # The least of many readings is the luckiest of them: all that are as white count.
    pale = read <= read.min() + _FLAT
    white = float(read[pale].mean()) if d_min is None else d_min
    curve = _rising(read) - white
    top, scale, grey = _answers(x, curve)
    reach = _reaches(x, read, white, noise / np.sqrt(repeats), pale if d_min is None else None)
    reached = curve[-1] - curve[-2] <= _FLAT
    why = "the paper is not yet black at the last step: expose more"
    if not reached:
        return PaperCurve(x, curve, white, absent(why), absent(why), absent(why))
    speed = absent("exposures are not in lux seconds")
    if absolute:
        p = 1000 / 10.0**grey
        speed = _figure(p, float(p * np.log(10) * reach[2]), why)
    return PaperCurve(
        x,
        curve,
        white,
        _figure(top + white, float(reach[0]), why),
        _figure(100 * scale, float(100 * reach[1]), why),
        speed,
    )


def _answers(log_h: Array, net: Array) -> tuple[float, float, float]:
    """Net maximum, exposure scale, and lg exposure of mid grey."""
    top = float(net[-1])
    black = _crossing(log_h, net, BLACK_SHARE * top)
    grey = _crossing(log_h, net, FIRST_GREY)
    return top, black - grey, _crossing(log_h, net, MID_GREY)


def scale_by_eye(log_h: Array, first_grey: int, first_black: int, step: float) -> Figure:
    """Exposure range R by eye: from the first step that is grey to the first that is black.

    Parameters
    ----------
    log_h : ndarray, shape (n,)
        Of the steps, rising.
    first_grey, first_black : int
        Counted from 1.
    step : float
        Lg units between steps.

    Raises
    ------
    ValueError
        Where black does not come after grey.
    """
    if not 1 <= first_grey < first_black <= len(log_h):
        raise ValueError("the first black step comes after the first grey one")
    # Each lies somewhere in the step before it; maximum black is darker than 90 % of the maximum.
    middle = float(log_h[first_black - 1] - log_h[first_grey - 1]) * _OF_BLACK
    reach = 1.96 * np.hypot(step / 6**0.5 * _OF_BLACK, _OF_BLACK_SPREAD * middle)
    return Figure(100 * middle, 100 * (middle - float(reach)), 100 * (middle + float(reach)))


_OF_BLACK, _OF_BLACK_SPREAD = 0.78, 0.06
"""Share of the way to what an eye calls maximum black at which 90 % of the net maximum lies, and
how that differs between papers."""


def shoulder_steepness(curve: PaperCurve) -> float | None:
    """How fast a paper comes to its black: by how much the density still missing shrinks, in
    powers of e for a lg unit; None where its steps do not tell."""
    if curve.d_max.value is None:
        return None
    top = float(curve.density[-1])
    black = _crossing(curve.log_h, curve.density, top - FIRST_GREY)
    lighter = _crossing(curve.log_h, curve.density, top - 2 * FIRST_GREY)
    away = black - lighter
    return float(np.log(2.0) / away) if np.isfinite(away) and away > 0 else None

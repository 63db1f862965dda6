"""From the values of a scanner or camera to density, by a step wedge in the same picture.

v = a (10**-D + f)**g: the source seen through film, the light that is scattered over the picture
and fills its dense end, and the picture's own gamma. Fitted in ln v, where noise is about even.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from scipy.optimize import least_squares

from vadrin.core import srgb
from vadrin.core.arrays import Array

_FINEST_STEP = 0.02
"""Density that one code value may be worth; beyond it a picture tells nothing."""
_BEYOND = 0.05
_AT_BEST = 0.005
"""No scan repeats better: light and lens are never quite even."""
_VEIL = 0.3
"""Share of the light scattered over a place that depends on what lies beside it."""
_SURE_TO = 0.05
"""Standard deviation up to which a density is told."""
_GAMMAS = (0.2, 3.0)
_CODED, _LIKE_CODED, _AS_WELL = 0.45, 0.12, 1.6
"""The power that sRGB is like, how near to it a picture is tried as such, and how many times what a
plain power misses it may miss: it is what most programs write, and alone tells the veil."""
_NEAR = 1e-4
_LEAST_STEPS = 4
_COVERED = 0.06
"""Density by which the last step of a wedge is off where something lies on it."""
_DARKENS = 0.004
"""Share by which a step is darker than the one before, if it can be told from it."""


@dataclass(frozen=True)
class ScanCalibration:
    """How values mean density.

    Attributes
    ----------
    white, gamma, flare : float
        a, g and f; flare is a share of the bare light.
    missed : float
        How far the steps lie from the curve alone, before it was bent, in density.
    coded : float
        Value of white where a picture is coded as sRGB and v is what that stands for, else 0.
    deviation : float
        Standard deviation of the steps' densities from the fit.
    highest : float
        Density up to which it can be trusted.
    relative : bool
        Whether densities count from the clear base alone, with nothing to check them.
    steps : tuple of (float, float)
        Known density and what the fit says of it.
    bends : tuple of (float, float)
        What the fit says, and how far a tone curve that is no power bends it away there.
    """

    white: float
    gamma: float
    flare: float
    deviation: float
    highest: float
    relative: bool = False
    steps: tuple[tuple[float, float], ...] = ()
    bends: tuple[tuple[float, float], ...] = ()
    missed: float = 0.0
    coded: float = 0.0

    def density(self, value: Array | float) -> Array:
        """Density of values; NaN at and below the flare."""
        value = np.asarray(value, dtype=np.float64)
        light = self.coded * srgb.decoded(value / self.coded) if self.coded else value
        seen = np.maximum(light / self.white, 0.0)
        through = seen ** (1 / self.gamma) - self.flare
        plain = -np.log10(np.where(through > 0, through, np.nan))
        if not self.bends:
            return np.asarray(plain)
        at, off = np.array(self.bends).T
        return np.asarray(plain - np.interp(plain, at, off))

    def deviation_of(self, density: float) -> float:
        """Standard deviation of a density: the fit's, and in the dense end that of the veil, where
        little light is told from what is scattered there."""
        veil = _VEIL * self.flare
        return float(np.hypot(self.deviation, veil * 10.0**density / np.log(10)))

    def slope(self, density: Array | float) -> Array:
        """How much a value falls for a density more."""
        at = np.asarray(density, dtype=np.float64)
        return (self.value(at - _NEAR) - self.value(at + _NEAR)) / (2 * _NEAR)

    def value(self, density: Array | float) -> Array:
        """Value of densities."""
        through = 10.0 ** -np.asarray(density, dtype=np.float64)
        light = np.asarray(self.white * (through + self.flare) ** self.gamma)
        return self.coded * srgb.coded(light / self.coded) if self.coded else light


def _highest(made: ScanCalibration, known: float) -> float:
    """Density where one code value is worth `_FINEST_STEP`, or the veil's share `_SURE_TO`, but
    not far beyond what was known."""
    at = np.arange(0.0, known + _BEYOND, 0.005)
    fine = _FINEST_STEP * made.slope(at) >= 1.0
    by_code = float(at[np.argmin(fine)]) if not fine.all() else np.inf
    veil = _VEIL * made.flare
    by_veil = float(np.log10(_SURE_TO * np.log(10) / veil)) if veil > 0 else np.inf
    return min(by_code, by_veil, known + _BEYOND)


def calibrated(values: Array, densities: Array, full: float = 0.0) -> ScanCalibration:
    """Fit a wedge: values as a power of light, or as sRGB codes it where that fits about as well.

    Parameters
    ----------
    values, densities : ndarray, shape (n,)
        Of at least four steps that differ.
    full : float
        Value at which the picture is cut off; 0 where that is not known.

    Raises
    ------
    ValueError
        In words, if the steps do not make a wedge.
    """
    order = np.argsort(densities)
    seen, known = np.asarray(values, float)[order], np.asarray(densities, float)[order]
    if len(known) < _LEAST_STEPS or np.ptp(known) < 0.5:
        raise ValueError("a wedge needs at least four steps, over half a density")
    # Steps that drown in scattered light tell nothing; those before them do.
    darker = np.flatnonzero((np.diff(seen) >= -_DARKENS * seen[:-1]) | (seen[1:] <= 0))
    told = int(darker[0]) + 1 if len(darker) else len(seen)
    seen, known = seen[:told], known[:told]
    if len(known) < _LEAST_STEPS or np.ptp(known) < 0.5:
        raise ValueError(
            "the steps do not darken one after the other: they were named in the wrong order, or "
            "the picture was inverted"
        )
    made = _fitted(seen, known)
    if full and abs(made.gamma - _CODED) < _LIKE_CODED:
        coded = _fitted(seen, known, full)
        return coded if coded.missed < _AS_WELL * made.missed else made
    return made


def _fitted(values: Array, known: Array, coded: float = 0.0) -> ScanCalibration:
    """The fit of steps that darken; a last one that is far off is covered, and left out."""
    seen = coded * srgb.decoded(values / coded) if coded else values
    begin = [np.log(seen[0]) + known[0] * np.log(10), 1.0, np.sqrt(0.3 * 10.0 ** -known[-1])]

    def missed(p: Array) -> Array:
        made = p[0] + p[1] * np.log(10.0**-known + p[2] ** 2)
        return np.asarray((made - np.log(seen)) / np.log(10))

    fit = least_squares(missed, begin, loss="soft_l1", f_scale=0.02)
    white, gamma, flare = float(np.exp(fit.x[0])), float(fit.x[1]), float(fit.x[2] ** 2)
    if not _GAMMAS[0] <= gamma <= _GAMMAS[1]:
        raise ValueError("the values do not go with the densities: check the wedge's figures")
    if len(known) > _LEAST_STEPS + 2 and abs(missed(fit.x)[-1]) > _COVERED * gamma:
        return _fitted(values[:-1], known[:-1], coded)
    made = ScanCalibration(white, gamma, flare, 0.0, 0.0, coded=coded)
    made = replace(made, highest=_highest(made, float(known[-1])))
    told = made.density(values)
    trusted = np.isfinite(told) & (known <= made.highest)
    missing = float(np.sqrt(np.mean(missed(fit.x) ** 2)) / gamma)
    made = replace(made, bends=_bends(told[trusted], known[trusted]), missed=missing)
    told = made.density(values)
    off = (told - known)[trusted]
    deviation = max(_AT_BEST, float(np.sqrt((off**2).sum() / max(len(off) - 3, 1))))
    steps = tuple((float(k), float(t)) for k, t in zip(known, told, strict=True))
    return replace(made, deviation=deviation, steps=steps)


def _bends(told: Array, known: Array) -> tuple[tuple[float, float], ...]:
    """How far a fit lies off along a wedge: what neighbours agree on, not one step alone."""
    if len(told) < _LEAST_STEPS:
        return ()
    off = told - known
    padded = np.concatenate([[2 * off[0] - off[1]], off, [2 * off[-1] - off[-2]]])
    agreed = np.median([padded[:-2], padded[1:-1], padded[2:]], axis=0)
    order = np.argsort(told)
    return tuple((float(t), float(o)) for t, o in zip(told[order], agreed[order], strict=True))


def on_clear_base(value: float, highest_value: float) -> ScanCalibration:
    """A linear picture without a wedge: densities over the clear base, and flagged so.

    Parameters
    ----------
    value : float
        Of clear base.
    highest_value : float
        The picture's largest; the base must not be clipped.

    Raises
    ------
    ValueError
        If the base is black or clipped.
    """
    if value <= 0:
        raise ValueError("clear base is black: scan with more exposure")
    if value >= 0.995 * highest_value:
        raise ValueError("clear base is clipped: scan with less exposure")
    made = ScanCalibration(value, 1.0, 0.0, 0.03, 0.0, True)
    return replace(made, highest=min(_highest(made, 3.0), 1.6))

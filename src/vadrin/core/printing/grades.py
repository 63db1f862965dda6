"""The grade that fits a negative, and what it makes of its tones."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.printing.standard_paper import PAPER_WHITE, STANDARD_BLACK, standard_density

_NEAREST = 3


@dataclass(frozen=True)
class GradeFit:
    """One grade beside a negative.

    Attributes
    ----------
    grade : str
    exposure_scale : float
        In lg H.
    over : float
        How much longer its scale is than the negative's range; below 0 it prints too hard.
    measured : bool
    factor : float or None
        Times the exposure that no filter takes; None where nobody measured it.
    """

    grade: str
    exposure_scale: float
    over: float
    measured: bool
    factor: float | None


def nearest_grades(
    density_range: float, known: tuple[tuple[str, float, bool, float | None], ...]
) -> tuple[GradeFit, ...]:
    """The three grades whose scales lie nearest to a negative's range, the best first.

    Parameters
    ----------
    density_range : float
        Of the negative over the scene.
    known : tuple
        Grade, exposure scale, whether it was measured, and its factor, for each.
    """
    fits = [GradeFit(g, scale, scale - density_range, m, f) for g, scale, m, f in known]
    return tuple(sorted(fits, key=lambda fit: abs(fit.over))[:_NEAREST])


def changed_time(seconds: float, factor: float | None, other_factor: float | None) -> float | None:
    """Seconds on another grade; None where one of the factors was never measured."""
    if factor is None or other_factor is None:
        return None
    return seconds * other_factor / factor


def printed_tones(
    net_density: Array,
    exposure_scale: float,
    over_black: float = 0.0,
    d_max: float = STANDARD_BLACK,
) -> Array:
    """Reflection densities of a print at the shortest time for maximum black.

    Parameters
    ----------
    net_density : ndarray
        Of the negative over base plus fog.
    exposure_scale : float
        Of the paper, in lg H.
    over_black : float
        Lg units by which the time is longer than that for maximum black.
    d_max : float
    """
    away = over_black - np.asarray(net_density, dtype=np.float64)
    return PAPER_WHITE + standard_density(away, exposure_scale, d_max)


def under_print_threshold(net_density: float, threshold: float) -> float:
    """How far below what prints lighter than black a tone lies; 0 where it prints."""
    return max(0.0, threshold - net_density)

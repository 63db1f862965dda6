"""Pictures of a scene on a film: as its negative lies on the light box, or as it prints.

All a point of a picture depends on is its own luminance, so that a picture is one table of tones
by code of luminance, looked up at every point.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

import numpy as np
from numpy.typing import NDArray

from vadrin.core import srgb
from vadrin.core.arrays import Array
from vadrin.core.pictures.developed_film import FilmCurve
from vadrin.core.pictures.printing_paper import MID_TONE, PrintingPaper
from vadrin.core.pictures.scene import CODES, Codes
from vadrin.core.printing.paper_curve import FIRST_GREY

USUAL_FLARE = 0.005
"""Share of the mean luminance a lens spreads over the film, where nobody measured it."""


class PrintRule(StrEnum):
    """What the enlarger's time is chosen by."""

    CLEAR_BLACK = "clear film just black"
    MID_TONE_HELD = "mid-tone held"


class Ground(StrEnum):
    """What a point of a picture is, beside its tone."""

    SEEN = "seen"
    BLACK = "lost in black"
    WHITE = "blocked to white"
    UNREAD = "outside what was read"


GROUNDS = tuple(Ground)
"""In the order of their numbers in `Tones.ground`."""


@dataclass(frozen=True, eq=False)
class Tones:
    """What each code of luminance becomes.

    Attributes
    ----------
    log_h : ndarray, shape (CODES,)
        Of the film, in lg lux seconds.
    density : ndarray, shape (CODES,)
        Of the negative over base plus fog.
    reflection : ndarray, shape (CODES,)
        Density of the print over the paper's white.
    ground : ndarray of uint8, shape (CODES,)
        A place in `GROUNDS`.
    over_black : float
        Lg units by which the print is exposed longer than maximum black takes.
    """

    log_h: Array
    density: Array
    reflection: Array
    ground: NDArray[np.uint8]
    over_black: float


def tones_of(
    film: FilmCurve,
    log_h: Array,
    paper: PrintingPaper,
    rule: PrintRule,
    metered_log_h: float,
    longer: float = 0.0,
) -> Tones:
    """Take every code of luminance through film and paper.

    Parameters
    ----------
    film : FilmCurve
    log_h : ndarray, shape (CODES,)
        From `scene.log_h_of_codes`.
    paper : PrintingPaper
    rule : PrintRule
    metered_log_h : float
        Exposure of what the meter read; its tone is the mid-tone that is held.
    longer : float
        Lg units of print exposure beyond the rule.
    """
    net = film.net_density(log_h)
    over = longer
    if rule is PrintRule.MID_TONE_HELD:
        middle = float(film.net_density(np.array([metered_log_h]))[0])
        over += paper.exposure_for(MID_TONE) + middle
    reflection = paper.print_density(over - net)
    ground = np.zeros(CODES, dtype=np.uint8)
    # Just lighter than what clear film prints as: once more what an eye tells apart.
    ground[reflection > paper.black - 2 * FIRST_GREY] = GROUNDS.index(Ground.BLACK)
    ground[reflection < FIRST_GREY] = GROUNDS.index(Ground.WHITE)
    ground[np.logical_not(film.read_at(log_h))] = GROUNDS.index(Ground.UNREAD)
    return Tones(log_h, net, reflection, ground, over)


def screen_levels(density: Array) -> NDArray[np.uint8]:
    """Levels of a display (sRGB) that shine as density 0 does at full white, same shape."""
    light = np.clip(10.0 ** -np.asarray(density), 0.0, 1.0)
    return np.asarray(np.rint(255 * srgb.coded(light)), dtype=np.uint8)


def looked_up(levels: NDArray[np.uint8], codes: Codes) -> NDArray[np.uint8]:
    """A picture in levels of the display, shape of the codes: one table look-up a point."""
    return np.take(levels, codes)

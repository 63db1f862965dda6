"""A scene whose light is known at every point, and what a meter reads of it."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vadrin.core.arrays import Array

CODES_A_STOP = 128
LEAST_STOPS = -18.0
"""Log2 of the luminance of code 0."""
CODES = int(30 * CODES_A_STOP)
"""How many codes there are: thirty stops."""

Codes = NDArray[np.uint16]

CODE_LUMINANCE: Array = 2.0 ** (np.arange(CODES) / CODES_A_STOP + LEAST_STOPS)
"""Luminance of every code, shape (CODES,)."""


def codes_of(luminance: Array) -> Codes:
    """The nearest code of each luminance, same shape; what is darker or brighter is clipped."""
    stops = np.log2(np.maximum(luminance, 2.0 ** (LEAST_STOPS - 1)))
    code = np.rint((stops - LEAST_STOPS) * CODES_A_STOP)
    return np.asarray(np.clip(code, 0, CODES - 1), dtype=np.uint16)


@dataclass(frozen=True)
class Spot:
    """A place a meter may be pointed at.

    Attributes
    ----------
    name : str
    thing : str
        The thing it reads; empty for the whole picture.
    place : tuple of float, optional
        Shares of height and width, where a small circle is read.
    """

    name: str
    thing: str
    place: tuple[float, float] | None = None


@dataclass(frozen=True, eq=False)
class Scene:
    """Light and what it comes from.

    Attributes
    ----------
    name, title : str
    luminance : ndarray of uint16, shape (rows, columns)
        Codes of what a panchromatic film sees.
    layers : ndarray of uint16, shape (3, rows, columns)
        Codes of red, green and blue light, for colour film.
    things : ndarray of uint8, shape (rows, columns)
        Number of the thing at each point, a place in `names`.
    names : tuple of str
    spots : tuple of Spot
        The first is where one would meter.
    unknown : tuple of str
        Things whose light is not known: what a sensor could not say.
    """

    name: str
    title: str
    luminance: Codes
    layers: Codes
    things: NDArray[np.uint8]
    names: tuple[str, ...]
    spots: tuple[Spot, ...]
    unknown: tuple[str, ...] = ()

    def of_thing(self, thing: str) -> NDArray[np.bool_]:
        """Where a thing is seen, shape (rows, columns).

        Raises
        ------
        KeyError
            If nothing of the scene is called so.
        """
        if thing not in self.names:
            raise KeyError(thing)
        return np.asarray(self.things == self.names.index(thing))


def mean_light(codes: Codes) -> float:
    """Mean light of a whole picture, from which a lens' flare comes."""
    counts = np.bincount(codes.ravel(), minlength=CODES)
    return float(counts @ CODE_LUMINANCE / counts.sum())


def light_at(scene: Scene, spot: Spot, layer: int | None = None) -> float:
    """The mean light at a spot: what a meter pointed at it reads, or its red, green or blue part.

    Parameters
    ----------
    scene : Scene
    spot : Spot
    layer : int, optional
        0, 1 or 2; None for luminance.
    """
    codes = scene.luminance if layer is None else scene.layers[layer]
    if spot.place is not None:
        return _in_circle(codes, *spot.place)
    if not spot.thing:
        return mean_light(codes)
    seen = codes[scene.of_thing(spot.thing)]
    return float(CODE_LUMINANCE[seen].mean()) if seen.size else mean_light(codes)


_CIRCLE = 0.012
"""Radius of the circle a meter reads where it is pointed, as a share of the width."""


def _in_circle(codes: Codes, down: float, across: float) -> float:
    high, wide = codes.shape
    rows, columns = np.ogrid[:high, :wide]
    reach = max(1.0, _CIRCLE * wide)
    inside = (rows - down * (high - 1)) ** 2 + (columns - across * (wide - 1)) ** 2 <= reach**2
    return float(CODE_LUMINANCE[codes[inside]].mean())


def log_h_of_codes(
    exposure_index: float, meter_constant: float, metered: float, flare: float, mean: float
) -> Array:
    """Exposure of the film behind each code of luminance.

    H = (k / EI) (L + f L_mean) / L_metered: the meter puts what it reads at k / EI.

    Parameters
    ----------
    exposure_index : float
        Set on the meter.
    meter_constant : float
        k in lux seconds.
    metered : float
        Luminance the meter reads.
    flare : float
        Share of the mean luminance that lens and camera spread over the film.
    mean : float
        Mean luminance of the scene.

    Returns
    -------
    ndarray, shape (CODES,)
        lg lux seconds.
    """
    light = (CODE_LUMINANCE + flare * mean) / metered
    return np.asarray(np.log10(meter_constant / exposure_index * light))

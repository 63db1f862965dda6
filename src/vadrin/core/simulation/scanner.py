"""A made-up scanner: a picture of a strip and a step wedge, with all that goes wrong in one."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.ndimage import gaussian_filter

from vadrin.core.arrays import Array

FULL_SCALE = 65535.0
_SHARPENED_OVER = 1.5
"""Pixels over which a scanning program sharpens."""


@dataclass(frozen=True)
class Scanner:
    """How a scanner sees.

    Attributes
    ----------
    white : float
        Value of the bare light.
    gamma, flare : float
        Of v = white 10**(-gamma D) + flare.
    noise : float
        Standard deviation of a pixel, as a share of its value.
    dust : float
        Share of the area that dust covers.
    skew : float
        Pixels down for each to the right.
    uneven : float
        How much darker the light is at one end.
    sharpened : float
        How much of what a blur takes away is put on top, as scanning programs do.
    """

    white: float = 58000.0
    gamma: float = 1.0
    flare: float = 60.0
    noise: float = 0.01
    dust: float = 0.0
    skew: float = 0.0
    uneven: float = 0.0
    sharpened: float = 0.0


def scanned_strip(
    scanner: Scanner,
    frames: Array,
    base: float,
    rng: np.random.Generator,
    pitch: int = 90,
    wedge: Array | None = None,
) -> tuple[NDArray[np.uint16], tuple[tuple[int, int, int, int], ...]]:
    """A 16-bit picture of a strip, and where its wedge's steps lie.

    Parameters
    ----------
    scanner : Scanner
    frames : ndarray, shape (n,)
        Densities of the frames, base plus fog included.
    base : float
        Density between frames.
    rng : numpy.random.Generator
    pitch : int
        Pixels from frame to frame.
    wedge : ndarray, optional
        Densities of a wedge laid under the strip.

    Returns
    -------
    picture : ndarray of uint16, shape (h, w)
    steps : tuple of boxes
        Left, top, right, bottom of the wedge's steps.
    """
    count, side, high = len(frames), int(0.6 * pitch), int(1.1 * pitch)
    lead = int(rng.uniform(0.15, 0.5) * pitch)
    tail = int(rng.uniform(0.15, 0.5) * pitch)
    wide = 2 * side + lead + tail + count * pitch
    below = int(1.2 * pitch) if wedge is not None else 0
    tall = 2 * side + high + below
    density = np.zeros((tall, wide))
    film = density[side : side + high, side : wide - side]
    film[:] = base
    gap = max(1, round(0.03 * pitch))
    for place, frame in enumerate(frames):
        left = lead + place * pitch
        film[int(0.17 * high) : int(0.83 * high), left + gap : left + pitch - gap] = frame
    holes = np.arange(int(0.1 * pitch), film.shape[1] - int(0.1 * pitch), max(6, pitch // 8))
    for hole in holes:
        for row in (int(0.05 * high), int(0.88 * high)):
            film[row : row + int(0.07 * high), hole : hole + max(3, pitch // 16)] = 0.0
    steps = lay_wedge(density, wedge, side + high + int(0.5 * pitch), side, pitch)
    return seen(scanner, density, rng), steps


def lay_wedge(
    density: Array, wedge: Array | None, top: int, left: int, pitch: int
) -> tuple[tuple[int, int, int, int], ...]:
    """Put the steps of a wedge side by side; gives their boxes."""
    if wedge is None:
        return ()
    wide, boxes = int(0.5 * pitch), []
    for place, step in enumerate(wedge):
        x = left + place * wide
        density[top : top + int(0.6 * pitch), x : x + wide] = step
        boxes.append((x, top, x + wide, top + int(0.6 * pitch)))
    return tuple(boxes)


def seen(scanner: Scanner, density: Array, rng: np.random.Generator) -> NDArray[np.uint16]:
    """The picture a scanner makes of densities."""
    tall, wide = density.shape
    if scanner.skew:
        for x in range(wide):
            density[:, x] = np.roll(density[:, x], round(scanner.skew * (x - wide / 2)))
    light = 1 - scanner.uneven * np.linspace(0, 1, wide)[None, :]
    value = scanner.white * light * 10.0 ** (-scanner.gamma * density) + scanner.flare
    value *= 1 + scanner.noise * rng.standard_normal(value.shape)
    specks = rng.random((tall, wide)) < scanner.dust
    value[specks] *= rng.uniform(0.1, 0.7, int(specks.sum()))
    if scanner.sharpened:
        value += scanner.sharpened * (value - gaussian_filter(value, _SHARPENED_OVER))
    return np.clip(value.round(), 0, FULL_SCALE).astype(np.uint16)

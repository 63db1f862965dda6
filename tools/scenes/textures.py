"""Grain, earth and weave as numbers: linear reflectances, made from noise alone."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray
from scipy import ndimage

Picture = NDArray[np.float64]


def noise(shape: tuple[int, int], cells: tuple[float, float], rng: np.random.Generator) -> Picture:
    """Smooth noise that tiles, of deviation 1; `cells` is the size of a feature in pixels."""
    white = rng.standard_normal(shape)
    smooth = ndimage.gaussian_filter(white, cells, mode="wrap")
    return (smooth - smooth.mean()) / smooth.std()


def grain(rng: np.random.Generator, rings: float = 26.0, size: int = 1024) -> Picture:
    """Wood's darkness from 0 to about 1, (size, size): the grain runs along the columns' axis."""
    wander = noise((size, size), (50, 190), rng) * 0.35 + noise((size, size), (14, 90), rng) * 0.08
    across = np.arange(size)[:, None] / size
    ring = 0.5 + 0.5 * np.sin(2 * np.pi * (np.round(rings) * across + wander))
    ring = ring**2.2
    fibre = noise((size, size), (0.7, 26), rng)
    pores = np.clip(noise((size, size), (0.6, 9), rng) - 1.7, 0, None)
    stain = noise((size, size), (60, 120), rng)
    return np.clip(0.38 * ring + 0.13 * fibre + 0.3 * pores + 0.12 * stain + 0.25, 0, 1.3)


def wood(
    light: tuple[float, float, float],
    dark: tuple[float, float, float],
    rng: np.random.Generator,
    rings: float = 26.0,
) -> Picture:
    """(size, size, 3) linear reflectance between two colours along the grain."""
    how = grain(rng, rings)[..., None]
    return np.clip(np.array(light) * (1 - how) + np.array(dark) * how, 0.008, 0.9)


def earth(rng: np.random.Generator) -> Picture:
    """A trodden floor: dust, shavings' meal, damp."""
    size = 1024
    fine = noise((size, size), (1.2, 1.2), rng)
    patches = noise((size, size), (40, 40), rng) + 0.6 * noise((size, size), (12, 12), rng)
    level = np.clip(0.105 * np.exp(0.28 * fine + 0.32 * patches), 0.02, 0.5)
    return level[..., None] * np.array([1.12, 0.98, 0.82])


def weave(
    colour: tuple[float, float, float], rng: np.random.Generator, threads: int = 180
) -> Picture:
    """Cloth: threads, uneven, and a little soil."""
    size = 1024
    at = np.arange(size) / size
    over = 0.5 + 0.25 * np.sin(2 * np.pi * threads * at[:, None])
    over = over + 0.25 * np.sin(2 * np.pi * threads * at[None])
    uneven = noise((size, size), (0.8, 40), rng) + noise((size, size), (40, 0.8), rng)
    soil = noise((size, size), (60, 60), rng)
    level = np.exp(0.10 * (over - 0.5) + 0.025 * uneven + 0.035 * soil)
    return np.clip(level[..., None] * np.array(colour), 0.004, 0.92)


def sky(
    zenith: tuple[float, float, float],
    horizon: tuple[float, float, float],
    ground: tuple[float, float, float],
    glow: tuple[float, float, float] | None,
    glow_at: float,
    rng: np.random.Generator,
    clouds: float = 0.0,
) -> Picture:
    """An environment (256, 512, 3): sky over ground, a glow about one heading (0 to 1)."""
    rows, columns = 256, 512
    up = np.cos(np.pi * (np.arange(rows) + 0.5) / rows)[:, None]
    heading = (np.arange(columns) + 0.5)[None] / columns
    high = np.clip(up, 0, 1) ** 0.45
    picture = np.array(horizon) * (1 - high[..., None]) + np.array(zenith) * high[..., None]
    picture = np.broadcast_to(picture, (rows, columns, 3)).copy()
    if clouds:
        cloud = noise((rows, columns), (7, 26), rng) + 0.5 * noise((rows, columns), (2.5, 9), rng)
        picture *= np.exp(clouds * cloud)[..., None]
    if glow is not None:
        away = np.abs((heading - glow_at + 0.5) % 1 - 0.5)
        near = np.exp(-((away / 0.13) ** 2)) * np.exp(-(((up - 0.05) / 0.24) ** 2))
        picture += near[..., None] * np.array(glow)
    below = (up < 0)[..., None] & np.ones((rows, columns, 1), bool)
    return np.where(below, np.array(ground), picture)

"""Scenes as files: a 16-bit PNG of light, an 8-bit PNG of what is where, and a JSON of names.

The PNG of light holds the codes of luminance above, and below, at half size, how red (left) and
how blue (right) the light is against its luminance, as codes about `_NEUTRAL`.
"""

from __future__ import annotations

import json
from io import BytesIO
from pathlib import Path

import numpy as np
from numpy.typing import NDArray

from vadrin.core.arrays import Array
from vadrin.core.pictures.scene import CODE_LUMINANCE, CODES_A_STOP, Codes, Scene, Spot, codes_of

_NEUTRAL = 32768
LUMINANCE_SHARES = np.array([0.2126, 0.7152, 0.0722])
"""Shares of red, green and blue in luminance. Source: IEC 61966-2-1 (Rec. 709 primaries)."""


def write_scene(
    folder: Path,
    name: str,
    title: str,
    light: Array,
    things: NDArray[np.uint8],
    names: tuple[str, ...],
    spots: tuple[Spot, ...],
) -> None:
    """Write a scene of even size.

    Parameters
    ----------
    folder : Path
    name, title : str
    light : ndarray, shape (rows, columns, 3)
        Linear red, green and blue; 1 is what the first spot's meter should read.
    things : ndarray of uint8, shape (rows, columns)
    names : tuple of str
    spots : tuple of Spot
    """
    from PIL import Image

    luminance = light @ LUMINANCE_SHARES
    half = light.reshape(light.shape[0] // 2, 2, light.shape[1] // 2, 2, 3).mean((1, 3))
    ground = np.maximum(half @ LUMINANCE_SHARES, 1e-9)
    tint = np.concatenate([_tint(half[..., 0], ground), _tint(half[..., 2], ground)], axis=1)
    whole = np.concatenate([codes_of(luminance), tint])
    Image.fromarray(whole).save(folder / f"{name}.png", optimize=True)
    Image.fromarray(things).save(folder / f"{name}-things.png", optimize=True)
    told = {"title": title, "names": names, "spots": [[s.name, s.thing] for s in spots]}
    (folder / f"{name}.json").write_text(json.dumps(told, indent=1) + "\n", encoding="utf-8")


def _tint(channel: Array, ground: Array) -> Codes:
    # Hue is seen in steps far coarser than light: a sixteenth of a stop.
    ratio = np.log2(np.maximum(channel, ground * 1e-3) / ground)
    coarse = np.rint(ratio * 16) * (CODES_A_STOP // 16)
    return np.asarray(coarse + _NEUTRAL, dtype=np.uint16)


def title_and_spots(told: bytes) -> tuple[str, tuple[Spot, ...]]:
    """What a scene is called and where one may meter in it, from its JSON alone."""
    words = json.loads(told)
    return words["title"], tuple(Spot(*spot) for spot in words["spots"])


def read_scene(name: str, light: bytes, things: bytes, told: bytes) -> Scene:
    """Read a scene from the contents of its three files."""
    from PIL import Image

    whole = np.asarray(Image.open(BytesIO(light)), dtype=np.uint16)
    rows = whole.shape[0] * 2 // 3
    luminance = np.ascontiguousarray(whole[:rows])
    title, spots = title_and_spots(told)
    return Scene(
        name=name,
        title=title,
        luminance=luminance,
        layers=_layers(luminance, whole[rows:]),
        things=np.asarray(Image.open(BytesIO(things)), dtype=np.uint8),
        names=tuple(json.loads(told)["names"]),
        spots=spots,
    )


def _layers(luminance: Codes, tint: Codes) -> Codes:
    fine = np.repeat(np.repeat(tint.astype(np.float64) - _NEUTRAL, 2, axis=0), 2, axis=1)
    wide = luminance.shape[1]
    red, blue = 2.0 ** (fine[:, :wide] / CODES_A_STOP), 2.0 ** (fine[:, wide:] / CODES_A_STOP)
    green = (1 - LUMINANCE_SHARES[0] * red - LUMINANCE_SHARES[2] * blue) / LUMINANCE_SHARES[1]
    light = CODE_LUMINANCE[luminance]
    return np.stack([codes_of(light * np.maximum(part, 1e-3)) for part in (red, green, blue)])

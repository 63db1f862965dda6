"""The scenes that ship with the program, in the sizes they are shown at."""

from __future__ import annotations

from functools import lru_cache
from importlib.resources import files

import numpy as np

from vadrin.core.pictures.scene import CODE_LUMINANCE, Codes, Scene, codes_of
from vadrin.formats.pictures.scene_file import read_scene

SCENE_NAMES = ("shed", "slip", "lamplight")
"""The first is the one shown where nobody chose."""


@lru_cache(maxsize=len(SCENE_NAMES))
def scene_named(name: str) -> Scene:
    """A scene; takes a tenth of a second the first time."""
    folder = files("vadrin") / "scenes"
    contents = (folder / f"{name}{end}" for end in (".png", "-things.png", ".json"))
    return read_scene(name, *(each.read_bytes() for each in contents))


@lru_cache(maxsize=24)
def light_of(name: str, shrunk: int, layer: int | None) -> Codes:
    """The light of a scene at a whole part of its size, averaged.

    Parameters
    ----------
    name : str
    shrunk : int
        How many points of the scene, along each side, become one.
    layer : int, optional
        0, 1 or 2 for red, green or blue light; None for luminance.
    """
    scene = scene_named(name)
    codes = scene.luminance if layer is None else scene.layers[layer]
    if shrunk == 1:
        return codes
    rows, columns = (side // shrunk for side in codes.shape)
    light = CODE_LUMINANCE[codes[: rows * shrunk, : columns * shrunk]]
    blocks = light.reshape(rows, shrunk, columns, shrunk)
    return codes_of(np.asarray(blocks.mean((1, 3))))

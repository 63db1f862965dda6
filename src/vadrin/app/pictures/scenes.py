"""The scenes that ship with the program, in the sizes they are shown at."""

from __future__ import annotations

import re
from functools import lru_cache
from importlib.resources import files
from pathlib import Path

import numpy as np

from vadrin.app.library.recent_files import OWN_SCENES
from vadrin.core.pictures.scene import CODE_LUMINANCE, Codes, Scene, Spot, codes_of
from vadrin.formats.pictures.scene_file import read_scene, title_and_spots

SCENE_NAMES = ("shed", "slip", "lamplight")
"""The first is the one shown where nobody chose."""


_TITLE = 40
"""Letters of a file's name that a scene is called by."""
_own: dict[str, Scene] = {}


def add_own(scene: Scene) -> None:
    """Keep a scene of the tester's own, for as long as the program runs."""
    _own[scene.name] = scene


def scenes_at_hand() -> tuple[str, ...]:
    """The names of all scenes, the tester's own last; of one title the one opened last."""
    newest = {scene.title: name for name, scene in _own.items()}
    return (*SCENE_NAMES, *newest.values())


def own_files() -> dict[str, Path]:
    """Pictures looked at before as scenes, and not read yet, by what they are called."""
    read = {title_of(name) for name in scenes_at_hand()}
    held: dict[str, Path] = {}
    for path in OWN_SCENES.there():
        held.setdefault(own_title(path), path)
    return {title: path for title, path in held.items() if title not in read}


def own_title(path: Path) -> str:
    """What a picture of the tester's own is called as a scene."""
    return path.stem[:_TITLE]


def scene_named(name: str) -> Scene:
    """A scene; one that ships takes a tenth of a second the first time."""
    return _own[name] if name in _own else _shipped(name)


def title_of(name: str) -> str:
    """What a scene is called; its light need not be read for that."""
    return _own[name].title if name in _own else _words_of(name)[0]


def spots_of(name: str) -> tuple[Spot, ...]:
    """Where a meter may be pointed in a scene, the usual place first."""
    return _own[name].spots if name in _own else _words_of(name)[1]


@lru_cache(maxsize=len(SCENE_NAMES))
def _words_of(name: str) -> tuple[str, tuple[Spot, ...]]:
    return title_and_spots((files("vadrin") / "scenes" / f"{name}.json").read_bytes())


def spot_at(down: float, across: float) -> str:
    """The name of a place that is pointed at, in shares of height and width."""
    return f"{100 * across:.0f} % across, {100 * down:.0f} % down"


def spot_named(scene: str, name: str) -> Spot:
    """A spot of a scene, or the place pointed at; the usual one where there is none of it."""
    place = re.fullmatch(r"(\d+) % across, (\d+) % down", name)
    if place is not None:
        return Spot(name, "", (int(place[2]) / 100, int(place[1]) / 100))
    spots = spots_of(scene)
    return next((spot for spot in spots if spot.name == name), spots[0])


@lru_cache(maxsize=len(SCENE_NAMES))
def _shipped(name: str) -> Scene:
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

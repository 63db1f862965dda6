"""A picture of one's own as a scene: a camera's raw file, or a linear TIFF."""

from __future__ import annotations

from pathlib import Path

import numpy as np

from vadrin.app.pictures.scenes import own_title
from vadrin.core.arrays import Array
from vadrin.core.pictures.own_light import light_of_values
from vadrin.core.pictures.scene import Scene, Spot, codes_of
from vadrin.errors import FormatError
from vadrin.formats.pictures.picture_reader import Picture, read_picture
from vadrin.formats.pictures.picture_suffixes import PICTURE_SUFFIXES
from vadrin.formats.pictures.scene_file import LUMINANCE_SHARES

SEEN, CLIPPED, NOISY = "your picture", "too bright for the sensor", "under the sensor's noise"
_WIDEST = 1280


def own_scene(path: Path) -> Scene:
    """Read a picture as a scene.

    Raises
    ------
    FormatError
        In one line, if it can't be read or is not linear.
    """
    picture = read_picture(path)
    raw = path.suffix.lower() not in PICTURE_SUFFIXES
    if picture.values.dtype.itemsize < 2:
        raise FormatError(
            f"{path.name}: pictures of 8 bits are bent by a tone curve; open the camera's raw "
            "file, or a TIFF saved linear with 16 bits"
        )
    told = light_of_values(_small(picture), float(picture.largest))
    light = told.light * (_balance(told.light) if raw else 1.0)
    grey = light @ LUMINANCE_SHARES
    level = float(np.median(grey[~told.clipped])) if (~told.clipped).any() else 0.0
    if level <= 0:
        raise FormatError(f"{path.name}: no light to be read: it is all black or all white")
    things = np.zeros(grey.shape, dtype=np.uint8)
    things[told.noisy], things[told.clipped] = 2, 1
    return Scene(
        # A file that was written anew is another scene.
        name=f"own:{path}:{path.stat().st_mtime_ns}",
        title=own_title(path),
        luminance=codes_of(grey / level),
        layers=np.stack([codes_of(light[..., n] / level) for n in range(3)]),
        things=things,
        names=(SEEN, CLIPPED, NOISY),
        spots=(Spot("whole picture", ""),),
        unknown=(CLIPPED, NOISY),
    )


def _small(picture: Picture) -> Array:
    """Means over squares, three channels, at most so wide and of even sides."""
    values = np.asarray(picture.values)
    by = max(1, -(-values.shape[1] // _WIDEST))
    rows, columns = values.shape[0] // (2 * by) * 2, values.shape[1] // (2 * by) * 2
    small = np.empty((rows, columns, 3))
    # Row by row: a large picture is mapped from its file, and never taken into memory whole.
    for row in range(rows):
        cut = values[row * by : (row + 1) * by, : columns * by].astype(np.float32)
        blocks = cut.reshape(by, columns, by, -1).mean((0, 2))
        small[row] = blocks
    return small


def _balance(light: Array) -> Array:
    """A camera's own channels brought to one mean: nobody told which light it was."""
    means = light.mean((0, 1))
    return np.asarray(means[1] / np.maximum(means, 1e-9))

"""Pictures of a scene as files, with what made them written into each."""

from __future__ import annotations

import json
from io import BytesIO

import numpy as np
import tifffile
from numpy.typing import NDArray
from PIL import Image
from PIL.PngImagePlugin import PngInfo


def png_of(levels: NDArray[np.uint8], told: dict[str, str]) -> bytes:
    """A PNG; what is told stands in its text, key by key.

    Parameters
    ----------
    levels : ndarray of uint8, shape (rows, columns) or (rows, columns, 3)
        In sRGB.
    told : dict of str to str
    """
    kept = PngInfo()
    for key, words in told.items():
        kept.add_itxt(key, words)
    out = BytesIO()
    Image.fromarray(levels).save(out, "png", pnginfo=kept, optimize=True)
    return out.getvalue()


def tiff_of(levels: NDArray[np.uint8], told: dict[str, str]) -> bytes:
    """A TIFF; what is told stands in its description as JSON."""
    out = BytesIO()
    photometric = "rgb" if levels.ndim == 3 else "minisblack"
    described = json.dumps(told, ensure_ascii=True)
    tifffile.imwrite(
        out, levels, photometric=photometric, description=described, metadata=None,
        compression="zlib",
    )  # fmt: skip
    return out.getvalue()

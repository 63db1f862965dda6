"""What the numbers of a colour picture mean: CIE L*a*b* under D50, by the file's own profile."""

from __future__ import annotations

import io
import struct
from dataclasses import dataclass
from pathlib import Path

import numpy as np
import tifffile
from coloraide import Color
from PIL import Image, ImageCms

from vadrin.core.arrays import Array

_MOST_BYTES = 4_000_000
_PROFILE_TAG = 34675


@dataclass(frozen=True)
class LabTransform:
    """From values of 0 to 255 to L*a*b*; `transform` is None where a picture says nothing, and is
    then taken as sRGB."""

    transform: ImageCms.ImageCmsTransform | None = None

    @property
    def words(self) -> str:
        """What the colours rest on."""
        return "by the profile in the picture" if self.transform else "taken as sRGB"

    def of(self, value: Array) -> tuple[float, float, float]:
        """L*, a*, b* of three values from 0 to 255."""
        if self.transform is None:
            lab = Color("srgb", list(np.asarray(value) / 255.0)).convert("lab")
            lightness, a, b = (round(float(v), 1) for v in lab.coords())
            return lightness, a, b
        dot = Image.new("RGB", (1, 1), tuple(round(float(v)) for v in value))
        seen = ImageCms.applyTransform(dot, self.transform)
        if seen is None:
            raise ValueError("the profile gave no colour")
        tone, *turns = seen.tobytes()
        a, b = (float(t - 256 if t > 127 else t) for t in turns)
        return round(tone * 100 / 255, 1), a, b


def to_lab_of(path: Path) -> LabTransform:
    """By the profile a picture carries; a file without one, or with a broken one, is sRGB."""
    profile = _profile_of(path)
    if not profile or len(profile) > _MOST_BYTES:
        return LabTransform()
    try:
        source = ImageCms.ImageCmsProfile(io.BytesIO(profile))
        transform = ImageCms.buildTransform(
            source,
            ImageCms.createProfile("LAB"),
            "RGB",
            "LAB",
            renderingIntent=ImageCms.Intent.RELATIVE_COLORIMETRIC,
        )
    except (ImageCms.PyCMSError, OSError):
        return LabTransform()
    return LabTransform(transform)


def _profile_of(path: Path) -> bytes | None:
    try:
        if path.suffix.lower() in (".tif", ".tiff"):
            with tifffile.TiffFile(path) as file:
                tag = file.pages.first.tags.get(_PROFILE_TAG)
                return bytes(tag.value) if tag is not None else None
        with Image.open(path) as picture:
            found = picture.info.get("icc_profile")
            return found if isinstance(found, bytes) else None
    except (OSError, ValueError, TypeError, struct.error, tifffile.TiffFileError):
        return None

"""Which files are pictures, for a dialog that asks for one and a file that is dropped."""

from __future__ import annotations

from pathlib import Path

from vadrin.formats.pictures.picture_suffixes import PICTURE_SUFFIXES

_EVERY = " ".join(f"*{suffix}" for suffix in PICTURE_SUFFIXES)
PICTURES = f"Pictures ({_EVERY})"
"""What a dialog offers."""
PICTURES_OR_RAW = f"{PICTURES};;Camera raw, or anything else (*)"
"""What a dialog offers where a camera's raw file can be read too."""


def is_picture(path: Path) -> bool:
    """Whether a file is a picture by its ending."""
    return path.suffix.lower() in PICTURE_SUFFIXES

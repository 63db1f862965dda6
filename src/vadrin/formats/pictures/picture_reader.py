"""A scan as an array of values: TIFF of 8, 16 bit or float, PNG, JPEG, camera raw."""

from __future__ import annotations

import hashlib
import lzma
import math
import struct
import zlib
from collections.abc import Callable
from dataclasses import dataclass, replace
from pathlib import Path

import numpy as np
import tifffile
from numpy.typing import NDArray
from PIL import Image, UnidentifiedImageError

from vadrin.core.interruption import checkpoint
from vadrin.errors import FormatError
from vadrin.formats.pictures.picture_suffixes import PICTURE_SUFFIXES

MOST_PIXELS = 250_000_000
LONGEST_SIDE = 60_000
_LEAST_SIDE = 16
_CODES = 65535.0
"""Codes that the values of a picture of floats are told in."""
_LINES = 2
MOST_UNPACKED = 450_000_000
"""Bytes a picture may take in memory that cannot be mapped from its file."""
_BANDS = {"I": 4, "I;16": 2, "I;16B": 2, "I;16L": 2, "RGB": 3, "RGBA": 4, "LA": 2}
"""Bytes a pixel of an image takes, where it is not one."""
_TIFF = (b"II*\x00", b"MM\x00*", b"II+\x00", b"MM\x00+")
_MOST_RAW_BYTES = 300_000_000
_BLOCK = 1 << 22
_UNITS_TO_INCH = {2: 1.0, 3: 2.54}
_PLAIN = ("L", "I", "I;16", "I;16B", "I;16L", "RGB", "RGBA", "LA", "1", "P")


@dataclass(frozen=True)
class Picture:
    """A picture that was read.

    Attributes
    ----------
    name : str
    values : ndarray, shape (h, w) or (h, w, 3)
        As the file has them; mapped from it where that can be.
    largest : float
        Value at which it is cut off.
    per_inch : float or None
        Pixels an inch of film, where the file says so.
    """

    name: str
    values: NDArray[np.generic]
    largest: float
    per_inch: float | None = None

    @property
    def unit(self) -> float:
        """What a picture of floats counts as one code; 1 where values are codes themselves."""
        return self.largest / _CODES if self.values.dtype.kind == "f" else 1.0

    @property
    def full(self) -> float:
        """Value at which it is cut off, in codes."""
        return self.largest / self.unit

    def plane(self, channel: int = 1) -> NDArray[np.generic]:
        """One channel of a colour picture, green unless asked; a grey one as it is."""
        return self.values if self.values.ndim == 2 else self.values[..., channel]

    def reduced(self, most: int = 2400) -> NDArray[np.float64]:
        """A small picture of means over squares, in codes, at most so many pixels along."""
        plane = self.plane()
        by = max(1, -(-max(plane.shape) // most))
        high, wide = (n // by * by for n in plane.shape)
        few = min(by, _LINES)
        small = np.zeros((high // by, wide // by), dtype=np.float32)
        # Some pixels of each square tell as much as all, and cost a part.
        for down in range(few):
            for across in range(few):
                checkpoint()
                small += plane[down:high:by, across:wide:by]
        return np.asarray(small / (few**2 * self.unit), dtype=np.float64)

    def sample(self, most: int = 400) -> NDArray[np.generic]:
        """Some values of the picture as they are, at most so many along each side."""
        plane = self.plane()
        down, across = (max(1, n // most) for n in plane.shape)
        return np.asarray(plane[::down, ::across])


def checksum(path: Path, ask: Callable[[], None] = checkpoint) -> str:
    """What a file is known again by, wherever it went (BLAKE2b, 32 bytes).

    Parameters
    ----------
    path : Path
    ask : callable
        Called often; what it raises stops the work.
    """
    made = hashlib.blake2b(digest_size=32)
    with path.open("rb") as file:
        while block := file.read(_BLOCK):
            ask()
            made.update(block)
    return made.hexdigest()


def _bounded(name: str, high: int, wide: int) -> None:
    if min(high, wide) < _LEAST_SIDE:
        raise FormatError(f"{name}: {wide} by {high} pixels hold no strip; scan it larger")
    if max(high, wide) > LONGEST_SIDE or high * wide > MOST_PIXELS:
        millions = MOST_PIXELS // 1_000_000
        raise FormatError(f"{name}: larger than {millions} megapixels; scan it coarser, or cut it")


def _fits(name: str, size: int) -> None:
    if size > MOST_UNPACKED:
        millions = MOST_UNPACKED // 1_000_000
        raise FormatError(
            f"{name}: more than {millions} MB when unpacked; save it as plain TIFF, or scan it "
            "coarser"
        )


def read_picture(path: Path) -> Picture:
    """Read a picture.

    Raises
    ------
    FormatError
        In one line, if it is none, is damaged, too large, or holds no plain values.
    """
    name = path.name
    try:
        if not path.is_file():
            raise FormatError(f"{name}: no such file; check the path")
        if path.suffix.lower() not in PICTURE_SUFFIXES:
            return _of_raw(path)
        with path.open("rb") as file:
            begins = file.read(4)
        if begins in _TIFF:
            return _of_tiff(path)
        return _of_image(path)
    except FormatError:
        raise
    except (OSError, UnidentifiedImageError, Image.DecompressionBombError) as error:
        raise FormatError(f"{name}: no picture that can be read; save it as TIFF or PNG") from error
    except (
        ValueError,
        TypeError,
        KeyError,
        IndexError,
        MemoryError,
        SyntaxError,
        OverflowError,
        RuntimeError,
        ZeroDivisionError,
        AttributeError,
        AssertionError,
        EOFError,
        zlib.error,
        lzma.LZMAError,
        struct.error,
        tifffile.TiffFileError,
    ) as error:
        raise FormatError(f"{name}: the picture is damaged; save it again") from error


def _of_tiff(path: Path) -> Picture:
    with tifffile.TiffFile(path) as file:
        page = file.pages[0]
        if not isinstance(page, tifffile.TiffPage):
            raise FormatError(f"{path.name}: its first page is no picture")
        _bounded(path.name, page.imagelength, page.imagewidth)
        if page.photometric in (tifffile.PHOTOMETRIC.SEPARATED, tifffile.PHOTOMETRIC.PALETTE):
            raise FormatError(f"{path.name}: printing inks or a palette; save it as grey or RGB")
        if page.samplesperpixel > 4 or page.bitspersample not in (8, 16, 32):
            raise FormatError(
                f"{path.name}: {page.bitspersample} bits in {page.samplesperpixel} channels; save "
                "it with 8 or 16 bits"
            )
        inverted = page.photometric == tifffile.PHOTOMETRIC.MINISWHITE
        values: NDArray[np.generic]
        try:
            values = tifffile.memmap(path, page=0, mode="r")
        except ValueError:
            # Tiled or packed: it has to be unpacked as a whole, a tile at a time.
            tile = math.prod(page.chunks) * np.dtype(page.dtype).itemsize
            _fits(path.name, page.nbytes + tile)
            values = _unpacked(page)
        per_inch = _per_inch(page)
    return replace(_checked(path.name, values, inverted), per_inch=per_inch)


def _unpacked(page: tifffile.TiffPage) -> NDArray[np.generic]:
    """A page that is packed or tiled, piece by piece, so that it can be stopped."""
    made = np.zeros(page.shaped, page.dtype)
    for piece, (apart, deep, down, across, _), shape in page.segments(maxworkers=1):
        checkpoint()
        if piece is None:
            continue
        rows, columns = slice(down, down + shape[1]), slice(across, across + shape[2])
        room = made[apart, deep : deep + shape[0], rows, columns]
        room[...] = piece[: room.shape[0], : room.shape[1], : room.shape[2]]
    return made.reshape(page.shape)


def _per_inch(page: tifffile.TiffPage) -> float | None:
    """Pixels an inch, where a TIFF says so and means it."""
    tag, unit = page.tags.get("XResolution"), page.tags.get("ResolutionUnit")
    if tag is None or unit is None or int(unit.value) not in _UNITS_TO_INCH:
        return None
    over, under = (float(n) for n in tag.value)
    found = over / under * _UNITS_TO_INCH[int(unit.value)] if under else 0.0
    return found if 200 <= found <= 30_000 else None


def _of_raw(path: Path) -> Picture:
    """A camera's raw file, linear, as its sensor saw it; each two by two pixels make one."""
    import rawpy

    if path.stat().st_size > _MOST_RAW_BYTES:
        raise FormatError(f"{path.name}: larger than a camera's raw file; save it as TIFF")
    try:
        with rawpy.imread(str(path)) as raw:
            _bounded(path.name, raw.sizes.raw_height, raw.sizes.raw_width)
            checkpoint()
            values = raw.postprocess(
                gamma=(1, 1),
                no_auto_bright=True,
                output_bps=16,
                use_camera_wb=False,
                user_wb=[1, 1, 1, 1],
                output_color=rawpy.ColorSpace.raw,
                half_size=True,
                user_flip=0,
            )
    except rawpy.LibRawError as error:
        words = f"{path.name}: no picture that can be read; save it as TIFF or PNG"
        raise FormatError(words) from error
    return _checked(path.name, np.asarray(values), False)


def _of_image(path: Path) -> Picture:
    with Image.open(path) as image:
        _bounded(path.name, image.height, image.width)
        if image.mode not in _PLAIN:
            raise FormatError(f"{path.name}: its colours are {image.mode}; save it as grey or RGB")
        _fits(path.name, image.height * image.width * _BANDS.get(image.mode, 1))
        values = np.asarray(image.convert("L") if image.mode in ("P", "1") else image)
    return _checked(path.name, values, False)


def _checked(name: str, values: NDArray[np.generic], inverted: bool) -> Picture:
    """A picture of grey or RGB with its alpha gone, and every value a number."""
    if values.ndim == 3 and values.shape[0] in (1, 3, 4) and values.shape[2] not in (1, 3, 4):
        values = np.moveaxis(values, 0, 2)
    if values.ndim == 3:
        values = values[..., 0] if values.shape[2] in (1, 2) else values[..., :3]
    if values.ndim != 2 and not (values.ndim == 3 and values.shape[2] == 3):
        raise FormatError(f"{name}: no picture of grey or RGB; save it again")
    _bounded(name, values.shape[0], values.shape[1])
    if values.dtype.kind == "f":
        largest = _largest(name, values)
    elif values.dtype.kind == "u" or values.dtype == np.int32:
        largest = float(np.iinfo(np.uint16 if values.dtype.itemsize != 1 else np.uint8).max)
    else:
        raise FormatError(f"{name}: its values are {values.dtype}; save it with 8 or 16 bits")
    if inverted:
        values = (largest - np.asarray(values, dtype=np.float64)).astype(np.float32)
    return Picture(name, values, largest)


def _largest(name: str, values: NDArray[np.generic]) -> float:
    """The largest value of a picture of floats, looked at whole and in pieces.

    Raises
    ------
    FormatError
        If any value is no number.
    """
    largest, rows = 1e-9, max(1, _BLOCK // max(1, values.shape[1]))
    for top in range(0, values.shape[0], rows):
        checkpoint()
        part = np.asarray(values[top : top + rows], dtype=np.float64)
        if not np.isfinite(part).all():
            raise FormatError(f"{name}: it holds values that are no numbers; save it with 16 bits")
        largest = max(largest, float(part.max()))
    return largest

"""Pictures nobody should have to open: ``python tools/hostile_pictures.py [PICTURES] [SEED]``.

Small scans of every format are cut short, have bytes changed and numbers of their heads made
huge, and are opened as a scan is. Each may be read or be refused in one line, within five
seconds and 500 MB. Leaves with 1 where one does worse.
"""

from __future__ import annotations

import sys
import tempfile
from pathlib import Path

import numpy as np
import tifffile
from PIL import Image

from tools.hostile_guard import Counts, faults_in, guarded, limit_memory
from vadrin.formats.pictures.picture_reader import read_picture


def seeds(folder: Path) -> list[bytes]:
    """Whole pictures of every format to begin with."""
    rng = np.random.default_rng(0)
    grey = rng.integers(0, 65535, (60, 200)).astype(np.uint16)
    colour = rng.integers(0, 255, (60, 200, 3)).astype(np.uint8)
    made = []
    for name, write in (
        ("plain.tif", lambda p: tifffile.imwrite(p, grey)),
        ("float.tif", lambda p: tifffile.imwrite(p, grey.astype(np.float32) / 65535)),
        ("deflate.tif", lambda p: tifffile.imwrite(p, grey, compression="zlib")),
        ("tiled.tif", lambda p: tifffile.imwrite(p, grey, tile=(32, 32), compression="zlib")),
        ("colour.tif", lambda p: tifffile.imwrite(p, colour, photometric="rgb")),
        ("grey.png", lambda p: Image.fromarray(grey).save(p)),
        ("colour.png", lambda p: Image.fromarray(colour).save(p)),
        ("colour.jpg", lambda p: Image.fromarray(colour).save(p, quality=80)),
    ):
        path = folder / name
        write(path)
        made.append(path.read_bytes())
    return made


def hurt(whole: bytes, rng: np.random.Generator) -> bytes:
    """A picture cut, changed in places, or with a number of its head made huge."""
    made = bytearray(whole)
    way = int(rng.integers(4))
    if way == 0:
        return bytes(made[: int(rng.integers(4, len(made)))])
    if way == 1:
        for _ in range(int(rng.integers(1, 30))):
            made[int(rng.integers(len(made)))] = int(rng.integers(256))
    elif way == 2:
        for _ in range(int(rng.integers(1, 6))):
            made[int(rng.integers(min(len(made), 400)))] = int(rng.integers(256))
    else:
        at = int(rng.integers(4, min(len(made) - 8, 600)))
        made[at : at + 4] = int(rng.choice([0xFFFFFFFF, 0x7FFFFFFF, 60_000, 13_000])).to_bytes(
            4, "little"
        )
    return bytes(made)


def main(pictures: int = 400, seed: int = 1) -> int:
    """Open them, and print what came of it."""
    counts = Counts()
    with tempfile.TemporaryDirectory() as scratch:
        folder = Path(scratch)
        begun = seeds(folder)
        limit_memory()
        for number in range(pictures):
            rng = np.random.default_rng((seed, number))
            path = folder / f"hurt.{('tif', 'png', 'jpg')[int(rng.integers(3))]}"
            path.write_bytes(hurt(begun[number % len(begun)], rng))

            def look(at: Path = path) -> object:
                picture = read_picture(at)
                counts.add("read")
                return float(np.asarray(picture.plane()).sum())

            guarded(look, counts, f"picture {number}")
    print("\n".join(counts.lines()))
    return int(faults_in(counts) > 0)


if __name__ == "__main__":
    sys.exit(main(*(int(word) for word in sys.argv[1:])))

"""A made-up scan of a demo strip, for pictures and for practice."""

from __future__ import annotations

from pathlib import Path

import numpy as np
import tifffile

from vadrin.app.loaded.loaded_test import LoadedStrip
from vadrin.core.simulation.scanner import Scanner, scanned_strip

_WEDGE = tuple(round(0.05 + 0.15 * step, 2) for step in range(20))
_PITCH = 90


def write_demo_scan(path: Path, strip: LoadedStrip, seed: int = 3) -> tuple[float, ...]:
    """Write a picture of a strip as it was read, a wedge beside it; gives the wedge's densities."""
    frames = np.array([f.density or 0.2 for f in strip.frames])
    scanner = Scanner(flare=90.0, dust=0.002, skew=0.008)
    rng = np.random.default_rng(seed)
    base = float(frames.min())
    picture, _ = scanned_strip(scanner, frames, base, rng, _PITCH, np.array(_WEDGE))
    tifffile.imwrite(path, picture)
    return _WEDGE

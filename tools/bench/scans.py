"""How long a large scan takes, beside reading its file and forming one mean."""

from __future__ import annotations

import resource
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

import numpy as np
import tifffile

from vadrin.app.scans.scan_reading import open_scan
from vadrin.app.scans.step_wedge import StepWedge
from vadrin.core.simulation.scanner import Scanner, scanned_strip

_TALL, _WIDE, _PITCH = 8700, 11_500, 300
_FRAMES = 36


def _large_scan(path: Path) -> tuple[float, ...]:
    """A picture of 100 megapixels with a strip and a wedge in it; gives the wedge's densities."""
    rng = np.random.default_rng(1)
    wedge = np.round(np.arange(0.05, 3.1, 0.15), 2)
    frames = np.concatenate([[0.25] * 2, 0.25 + np.linspace(0, 1.8, _FRAMES - 2)])
    strip, _ = scanned_strip(Scanner(), frames, 0.25, rng, _PITCH, wedge)
    picture = np.full((_TALL, _WIDE), 58_000, np.uint16)
    picture[: strip.shape[0], : strip.shape[1]] = strip[:, :_WIDE]
    tifffile.imwrite(path, picture)
    return tuple(float(w) for w in wedge)


def _median_ms(work: Callable[[], object]) -> float:
    """Milliseconds of the middle of five runs."""
    taken = []
    for _ in range(5):
        begun = time.perf_counter()
        work()
        taken.append(1000 * (time.perf_counter() - begun))
    return sorted(taken)[2]


def scan_rows() -> list[str]:
    """The row of a scan of 100 megapixels, with the memory it took beyond the program's."""
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "large.tif"
        wedge = StepWedge(_large_scan(path))
        before = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
        ours = _median_ms(lambda: open_scan(path, _FRAMES, wedge))
        more = (resource.getrusage(resource.RUSAGE_SELF).ru_maxrss - before) / 1024
        plain = _median_ms(lambda: float(tifffile.imread(path).mean()))
    name = f"scan of {_TALL * _WIDE / 1e6:.0f} megapixels to {_FRAMES} densities, + {more:.0f} MB"
    return [f"{name:<58}{ours:>9.1f}{plain:>10.1f}{ours / plain:>8.1f}"]

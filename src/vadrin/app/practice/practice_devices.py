"""What the practice room shows of its film: on the light box, on paper, in a scan."""

from __future__ import annotations

from collections.abc import Sequence
from pathlib import Path

import numpy as np

from vadrin.app.loaded.loaded_test import LoadedFrame, LoadedStrip, LoadedTest
from vadrin.app.practice.practised_film import base_on, density_on, world_of
from vadrin.app.printing.print_setups import present_room
from vadrin.app.scans.step_wedge import StepWedge, keep_steps, steps_kept
from vadrin.core.simulation.scanner import Scanner, scanned_strip
from vadrin.errors import EntryError, FormatError
from vadrin.notebook.store import Notebook

_WEDGE = tuple(round(0.05 + 0.15 * step, 2) for step in range(20))
_GONE = 0.02
"""Density of what lies in a scan where film was cut off: hardly anything."""
_FLARE = 70.0


def beside_the_blank(
    notebook: Path, loaded: LoadedTest, strip: LoadedStrip, frame: LoadedFrame
) -> tuple[float, float]:
    """True densities of a frame and of the blank it lies beside.

    Raises
    ------
    EntryError
        If the strip is not developed yet, or there is no film there.
    """
    return density_on(notebook, loaded, strip, frame), base_on(notebook, loaded, strip)


def printed(notebook: Path, seconds: Sequence[float], film: Sequence[float]) -> tuple[float, ...]:
    """Reflection densities that the practice paper gets through film of densities."""
    paper = world_of(notebook.parent).paper
    return tuple(float(d) for d in paper.density(np.array(seconds), np.array(film)))


def section_tones(
    notebook: Path, loaded: LoadedTest, seconds: Sequence[float], for_black: bool
) -> tuple[float, ...]:
    """What the sections of a test strip have become, printed through the first developed strip:
    its clear film, or the frame that was metered.

    Raises
    ------
    EntryError
        If nothing is developed yet.
    """
    strip = next((s for s in loaded.strips if s.strip.time_min is not None), None)
    if strip is None:
        raise EntryError("develop a strip first: there is no film to print through")
    film = base_on(notebook, loaded, strip)
    metered = [f for f in strip.frames if f.frame.stops is not None and not f.frame.blank]
    if not for_black and metered:
        nearest = min(metered, key=lambda f: abs(f.frame.stops or 0.0))
        film = density_on(notebook, loaded, strip, nearest)
    return printed(notebook, seconds, [film] * len(seconds))


def halves(
    book: Notebook, loaded: LoadedTest, strip: LoadedStrip, frame: LoadedFrame
) -> tuple[float, float] | None:
    """Reflection densities of a half-covered strip: under the frame, and under the blank; None
    before the time for maximum black is known.

    Raises
    ------
    EntryError
        If the strip is not developed yet, or there is no film there.
    """
    seconds = present_room(book, loaded).setup.black_s
    if seconds is None:
        return None
    film = beside_the_blank(book.path, loaded, strip, frame)
    one, other = printed(book.path, (seconds, seconds), film)
    return one, other


def write_scan(book: Notebook, loaded: LoadedTest, strip: LoadedStrip) -> Path:
    """Scan a developed strip with the practice scanner, a wedge beside it, into its folder.

    Raises
    ------
    EntryError
        If the strip is not developed yet.
    FormatError
        If the picture cannot be written.
    """
    import tifffile

    folder, base = book.path.parent, base_on(book.path, loaded, strip)
    frames = []
    for frame in strip.frames:
        try:
            frames.append(density_on(book.path, loaded, strip, frame))
        except EntryError:
            frames.append(_GONE)
    if not steps_kept(book).densities:
        keep_steps(book, StepWedge(_WEDGE))
    rng = np.random.default_rng([strip.strip.id, len(frames)])
    scanner = Scanner(flare=_FLARE, dust=world_of(folder).dust)
    wedge = np.array(steps_kept(book).densities)
    picture, _ = scanned_strip(scanner, np.array(frames), base, rng, wedge=wedge)
    path = folder / f"scan of strip {strip.strip.label}.tif"
    try:
        tifffile.imwrite(path, picture)
    except OSError as error:
        raise FormatError(f"{path}: cannot be written; free the disk") from error
    return path

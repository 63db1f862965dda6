"""A scan of a strip: opened, calibrated, its frames found and read, and taken as readings."""

from __future__ import annotations

import json
from collections.abc import Callable
from dataclasses import replace
from pathlib import Path
from typing import TYPE_CHECKING

import numpy as np

from vadrin.app.loaded.loaded_test import SCAN, LoadedStrip
from vadrin.app.pictures.measured_grain import GRANULARITY
from vadrin.app.scans.kept_scans import keep_scan, preview_of
from vadrin.app.scans.scan_calibration import calibration_of, calibration_words
from vadrin.app.scans.scan_frames import Scan, frames_of_scan, measured
from vadrin.app.scans.step_wedge import StepWedge
from vadrin.app.stamps import now
from vadrin.core.interruption import interruptible
from vadrin.core.scanning.film_bands import film_bands, light_along
from vadrin.core.scanning.frame_finding import GAP, find_frames
from vadrin.core.scanning.frame_values import FrameValue, suspicions
from vadrin.core.scanning.sharpening import sharpened
from vadrin.core.scanning.straightening import skew_of, straightened
from vadrin.core.wording import counted, list_text
from vadrin.errors import EntryError
from vadrin.formats.pictures.picture_reader import Picture, checksum, read_picture
from vadrin.notebook.records import Reading
from vadrin.notebook.store import Notebook

if TYPE_CHECKING:
    from vadrin.core.arrays import Array

Said = Callable[[int, int], None]
"""Told how much of how much is done; raises to stop the work."""
_INTO_GAP, _INTO_NEXT, _EVERY_ROW = 0.3, 0.1, 2
"""How far past a border is looked: a share of the gap, or of the next step where there is none."""
_STEPS = 4


def open_scan(
    path: Path,
    count: int,
    known: StepWedge | None = None,
    which: int = 0,
    said: Said = lambda _done, _total: None,
    edge_to_edge: bool = False,
    absent: tuple[int, ...] = (),
) -> Scan:
    """Open a picture, find a strip and its frames in it, and read them.

    Its file's checksum, which takes as long as all the rest, is made by `summed` afterwards.

    Parameters
    ----------
    path : Path
    count : int
        Frames of the strip.
    known : StepWedge, optional
        What tells its values; none for the bare light alone.
    which : int
        Which strip of the picture, counted from the top.
    said : callable
        Told how far it is, and raises to stop it.
    edge_to_edge : bool
        Whether its frames lie without a gap, as the steps of paper do.
    absent : tuple of int
        Frames of the strip, from 0, that are not in the picture.

    Raises
    ------
    FormatError
        If the picture cannot be read.
    EntryError
        If no strip, no frames or no wedge is found in it.
    """
    step = [0]

    def reached(number: int) -> None:
        step[0] = number
        said(number, _STEPS)

    def ask() -> None:
        said(step[0], _STEPS)

    with interruptible(ask):
        picture = read_picture(path)
        reached(1)
        small = picture.reduced()
        reached(2)
        there = count - len(absent)
        scan = _found(picture, small, there, known or StepWedge(), which, edge_to_edge)
        scan = replace(scan, absent=absent)
        reached(3)
        return replace(_edges_looked_at(measured(scan)), path=path)


def summed(scan: Scan, said: Said = lambda _done, _total: None) -> Scan:
    """A scan with the checksum its file is known again by.

    Raises
    ------
    OSError
        If the file cannot be read any more.
    """
    return replace(scan, digest=checksum(scan.path, lambda: said(_STEPS, _STEPS)))


def _found(
    picture: Picture, small: Array, count: int, known: StepWedge, which: int, edge_to_edge: bool
) -> Scan:
    """Where the strip and its frames lie, and what values mean."""
    by = picture.plane().shape[1] / small.shape[1]
    upright = small.shape[0] > small.shape[1]
    small = small.T if upright else small
    try:
        skew = skew_of(small)
        straight, first = straightened(small, skew) if skew else (small, 0.0)
        light = light_along(straight)
        small = small / light
        straight = straight / light if skew else small
        bands = film_bands(straight, bool(known.densities) and not known.values)
        top, bottom = bands.strips[min(which, len(bands.strips) - 1)]
        place = find_frames(straight[top:bottom], count, 0.0 if edge_to_edge else GAP)
        down = top + first
        place = replace(
            place, top=place.top + down, bottom=place.bottom + down, skew=place.skew + skew
        )
        calibration, doubts = calibration_of(straight, picture, known, bands.wedge)
    except ValueError as error:
        raise EntryError(str(error)) from error
    if len(bands.strips) > 1:
        doubts += (
            f"{counted(len(bands.strips), 'strip')} lie in it: this is number "
            f"{min(which, len(bands.strips) - 1) + 1} from the top",
        )
    doubts += suspicions(picture.sample(), picture.largest)
    return Scan(
        picture,
        upright,
        small,
        by,
        place.scaled(by),
        calibration,
        (),
        False,
        doubts,
        "",
        known,
        which,
        len(bands.strips),
        light,
    )


def _edges_looked_at(scan: Scan) -> Scan:
    """A scan with what its frames' borders tell of the program that made it."""
    plane = scan.picture.plane()
    plane = plane.T if scan.upright else plane
    past = _INTO_GAP * scan.place.gap or _INTO_NEXT
    profiles = []
    for frame in range(scan.place.count):
        left, top, right, bottom = (max(0, n) for n in scan.place.box(frame))
        middle, reach = (left + right) // 2, round((0.5 + past) * scan.place.pitch)
        for way in (-1, 1):
            ends = sorted((middle, max(0, middle + way * reach)))
            values = np.asarray(plane[top:bottom:_EVERY_ROW, slice(*ends)], dtype=np.float64)
            if min(values.shape) > 0:
                profiles.append(np.median(values, axis=0)[::way])
    if not sharpened(profiles):
        return scan
    words = "edges look sharpened: turn sharpening off and scan again"
    return replace(scan, noticed=(*scan.noticed, words))


def _grain(value: FrameValue) -> dict[str, float]:
    return {} if value.granularity is None else {GRANULARITY: round(value.granularity, 2)}


def take_scan(notebook: Notebook, strip: LoadedStrip, scan: Scan) -> str:
    """Keep what the frames read, as one edit, and where the picture lies; says what was kept and
    what was not."""
    frames, refused = frames_of_scan(strip), []
    source: dict[str, str | float] = {"scan": scan.picture.name, "checksum": scan.digest}
    with notebook.change(f"scan of strip {strip.strip.label}"):
        kept = 0
        for place, frame in enumerate(frames[: scan.place.count + len(scan.absent)]):
            value = scan.value_of(place)
            if not frame.readable:
                continue
            if value.density is None:
                refused.append(frame.called)
                continue
            notebook.add(
                Reading(
                    frame_id=frame.frame.id,
                    position=len(frame.readings),
                    density=round(max(value.density, 0.0), 4),
                    read_at=now(),
                    way=SCAN,
                    deviation=value.deviation,
                    extra=json.dumps(source | _grain(value)),
                )
            )
            kept += 1
        keep_scan(notebook, strip, scan.path, scan.digest, preview_of(scan.small))
    said = f"{counted(kept, 'frame')} read from {scan.picture.name}."
    return said + (f" Not read: {list_text(refused)}." if refused else "")


def calibrated_words(scan: Scan) -> str:
    """How values mean density, how far they can be trusted, and the grain where it is known."""
    words = calibration_words(scan.calibration, scan.known)
    grains = [(v.density, v.granularity) for v in scan.values if v.density and v.granularity]
    if not grains:
        return words
    density, grain = min(grains, key=lambda pair: abs(pair[0] - 1.0))
    return f"{words} Grain {grain:.0f} at D {density:.2f} (RMS, through 48 µm)."

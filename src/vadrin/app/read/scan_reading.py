"""A scan of a strip: opened, calibrated, its frames found and read, and taken as readings."""

from __future__ import annotations

import json
from collections.abc import Callable
from dataclasses import dataclass, replace
from pathlib import Path
from typing import TYPE_CHECKING

import numpy as np

from vadrin.app.read.kept_scans import keep_scan, preview_of
from vadrin.app.read.scan_calibration import calibration_of, calibration_words
from vadrin.app.read.step_wedge import StepWedge
from vadrin.app.sheets.test_sheet import FrameSheet, StripSheet, TestSheet
from vadrin.app.stamps import now
from vadrin.core.interruption import checkpoint, interruptible
from vadrin.core.planning.test_types import type_of
from vadrin.core.scanning.calibration import ScanCalibration
from vadrin.core.scanning.film_bands import film_bands, light_along
from vadrin.core.scanning.frame_finding import GAP, StripPlace, find_frames
from vadrin.core.scanning.frame_values import FrameValue, frame_value, suspicions
from vadrin.core.scanning.grain import rms_granularity
from vadrin.core.scanning.sharpening import sharpened
from vadrin.core.wording import counted, list_text
from vadrin.errors import EntryError
from vadrin.formats.pictures.picture_reader import Picture, checksum, read_picture
from vadrin.notebook.records import Reading
from vadrin.notebook.store import Notebook

if TYPE_CHECKING:
    from vadrin.core.arrays import Array

Said = Callable[[int, int], None]
"""Told how much of how much is done; raises to stop the work."""
SCAN = "scan"
_NUDGE = 0.02
_MIRRORED = -0.5
_INTO_GAP, _INTO_NEXT, _EVERY_ROW = 0.3, 0.1, 2
"""How far past a border is looked: a share of the gap, or of the next step where there is none."""


@dataclass(frozen=True)
class Scan:
    """A picture of a strip that was opened, with everything found in it.

    Attributes
    ----------
    picture : Picture
    upright : bool
        Whether the strip lies along the picture's height, so that it was turned.
    small : ndarray
        Reduced to be looked at; values of the strip lying along it.
    by : float
        How many pixels of the picture one of the small one is.
    place : StripPlace
        In pixels of the picture.
    calibration : ScanCalibration
    values : tuple of FrameValue
        Of each frame along the strip.
    mirrored : bool
        Whether the strip lies the other way round than it was shot.
    noticed : tuple of str
        What is strange about the picture.
    digest : str
        Of its file; empty until it was made.
    known : StepWedge
        What tells its values.
    which, strips : int
        Which strip it is, from the top, and how many lie in the picture.
    light : ndarray
        How bright the bare light is along the small picture; ones where it is even.
    path : Path
    grains : tuple of (float, float)
        Density and RMS granularity of the frames it could be told of.
    """

    picture: Picture
    upright: bool
    small: Array
    by: float
    place: StripPlace
    calibration: ScanCalibration
    values: tuple[FrameValue, ...]
    mirrored: bool
    noticed: tuple[str, ...]
    digest: str
    known: StepWedge
    which: int
    strips: int
    light: Array
    path: Path = Path()
    grains: tuple[tuple[float, float], ...] = ()

    @property
    def doubts(self) -> tuple[str, ...]:
        """Everything to be minded before its densities are taken."""
        said = self.noticed
        if not self.place.sure:
            said += ("its frames were guessed: move them until every box lies in its frame",)
        if self.mirrored:
            said += ("it lies the other way round: the frames are turned",)
        return said

    @property
    def boxes(self) -> list[tuple[float, float, float, float]]:
        """Where each frame is read, in pixels of the small picture."""
        return [
            (a / self.by, b / self.by, c / self.by, d / self.by)
            for a, b, c, d in (self.place.box(i) for i in range(self.place.count))
        ]

    def value_of(self, frame: int) -> FrameValue:
        """What the frame shot in a place reads."""
        return self.values[self.place.count - 1 - frame if self.mirrored else frame]


_STEPS = 4


def open_scan(
    path: Path,
    count: int,
    known: StepWedge | None = None,
    which: int = 0,
    said: Said = lambda _done, _total: None,
    edge_to_edge: bool = False,
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
        scan = _found(picture, small, count, known or StepWedge(), which, edge_to_edge)
        reached(3)
        return replace(_edges_looked_at(_read(scan)), path=path)


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
        light = light_along(small)
        small = small / light
        bands = film_bands(small, bool(known.densities) and not known.values)
        top, bottom = bands.strips[min(which, len(bands.strips) - 1)]
        place = find_frames(small[top:bottom], count, 0.0 if edge_to_edge else GAP)
        place = replace(place, top=place.top + top, bottom=place.bottom + top)
        calibration, doubts = calibration_of(small, picture, known, bands.wedge)
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


def _read(scan: Scan) -> Scan:
    """The values of the frames where they lie now."""
    values, grains = [], []
    for frame in range(scan.place.count):
        patch = _patch(scan, frame)
        value = frame_value(patch, scan.calibration, scan.picture.largest)
        values.append(value)
        if scan.picture.per_inch and value.density is not None:
            grain = rms_granularity(patch, scan.calibration, scan.picture.per_inch)
            if grain is not None:
                grains.append((value.density, grain))
    return replace(scan, values=tuple(values), grains=tuple(grains))


def _patch(scan: Scan, frame: int) -> Array:
    """The values of the middle of a frame, the unevenness of the light taken out."""
    plane = scan.picture.plane()
    plane = plane.T if scan.upright else plane
    left, top, right, bottom = (max(0, n) for n in scan.place.box(frame))
    place = min(int((left + right) / 2 / scan.by), len(scan.light) - 1)
    checkpoint()
    patch = np.asarray(plane[top:bottom, left:right], dtype=np.float64)
    return np.asarray(patch / float(scan.light[place]))


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
    words = "its borders overshoot: it seems to be sharpened; switch that off and scan it again"
    return replace(scan, noticed=(*scan.noticed, words))


def nudged(scan: Scan, along: int = 0, wider: int = 0) -> Scan:
    """The frames moved along the strip, or set wider apart, by a fiftieth of a frame each."""
    place, step = scan.place, _NUDGE * scan.place.pitch
    moved = replace(
        place,
        start=place.start + along * step,
        pitch=place.pitch + wider * step / max(place.count - 1, 1) * 2,
        sureness=1.0,
    )
    return _read(replace(scan, place=moved))


def frame_moved(scan: Scan, shot: int, along: float = 0.0, wider: float = 0.0) -> Scan:
    """One frame moved along, or its box set wider, in shares of a frame; the others stay."""
    lying = scan.place.count - 1 - shot if scan.mirrored else shot
    return _read(replace(scan, place=scan.place.with_frame(lying, along, wider)))


def other_way_round(scan: Scan) -> Scan:
    """The strip taken the other way round."""
    return replace(scan, mirrored=not scan.mirrored)


def lies_edge_to_edge(sheet: TestSheet) -> bool:
    """Whether the steps of a test lie without gaps, as on paper."""
    kind = type_of(sheet.test.kind)
    return kind is not None and kind.edge_to_edge


def frames_of_scan(strip: StripSheet) -> list[FrameSheet]:
    """The frames of a strip as they lie on the film."""
    return sorted(strip.frames, key=lambda f: f.frame.position)


def laid_as_shot(scan: Scan, sheet: TestSheet, strip: StripSheet) -> Scan:
    """A scan turned so that density rises with exposure, where the strip lay the other way."""
    constant = sheet.test.meter_constant
    pairs = [
        (f.log_h(constant), scan.values[i].density)
        for i, f in enumerate(frames_of_scan(strip)[: scan.place.count])
    ]
    known = [(x, d) for x, d in pairs if x is not None and d is not None]
    if len(known) < 4:
        return scan
    x, d = np.array(known).T
    if np.corrcoef(np.argsort(np.argsort(x)), np.argsort(np.argsort(d)))[0, 1] > _MIRRORED:
        return scan
    return other_way_round(scan)


def take_scan(notebook: Notebook, strip: StripSheet, scan: Scan) -> str:
    """Keep what the frames read, as one edit, and where the picture lies; says what was kept and
    what was not."""
    frames, refused = frames_of_scan(strip), []
    source = json.dumps({"scan": scan.picture.name, "checksum": scan.digest})
    with notebook.change(f"scan of strip {strip.strip.label}"):
        kept = 0
        for place, frame in enumerate(frames[: scan.place.count]):
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
                    extra=source,
                )
            )
            kept += 1
        keep_scan(notebook, strip, scan.path, scan.digest, preview_of(scan.small))
    said = f"{counted(kept, 'frame')} read from {scan.picture.name}."
    return said + (f" Not told: {list_text(refused)}." if refused else "")


def calibrated_words(scan: Scan) -> str:
    """How values mean density, how far they can be trusted, and the grain where it is known."""
    words = calibration_words(scan.calibration, scan.known)
    if not scan.grains:
        return words
    density, grain = min(scan.grains, key=lambda pair: abs(pair[0] - 1.0))
    return f"{words} Grain {grain:.0f} at D {density:.2f} (RMS, through 48 µm)."

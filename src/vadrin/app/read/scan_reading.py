"""A scan of one strip: opened, calibrated, its frames found and read, and taken as readings."""

from __future__ import annotations

import json
from dataclasses import dataclass, replace
from itertools import pairwise
from pathlib import Path
from typing import TYPE_CHECKING

import numpy as np

from vadrin.app.entry.densities import density_typed
from vadrin.app.stamps import now
from vadrin.app.test_sheet import FrameSheet, StripSheet, TestSheet
from vadrin.core.scanning.calibration import ScanCalibration, calibrated, on_clear_base
from vadrin.core.scanning.frame_finding import StripPlace, film_bands, find_frames, wedge_values
from vadrin.core.scanning.frame_values import FrameValue, frame_value, suspicions
from vadrin.core.wording import counted, list_text
from vadrin.errors import EntryError
from vadrin.formats.pictures.picture_reader import Picture, checksum, read_picture
from vadrin.notebook.records import Instrument, Reading
from vadrin.notebook.store import Notebook

if TYPE_CHECKING:
    from vadrin.core.arrays import Array

SCAN = "scan"
_SCANNER = "scanner"
_NUDGE = 0.02
_MIRRORED = -0.5


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
    sha256 : str
        Of its file.
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
    sha256: str

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


def wedge_typed(words: str) -> tuple[float, ...]:
    """The densities of a wedge's steps, in their order.

    Raises
    ------
    EntryError
    """
    parts = words.replace(";", " ").replace(", ", " ").split()
    steps = tuple(density_typed(p.rstrip(",")) for p in parts)
    if len(steps) < 4 or any(b <= a for a, b in pairwise(steps)):
        raise EntryError("type at least four densities that rise, such as 0.05 0.20 0.35 0.50")
    return steps


def wedge_kept(notebook: Notebook) -> tuple[float, ...]:
    """The wedge of the scanner in the cupboard; empty for none."""
    for kept in notebook.all(Instrument):
        try:
            steps = json.loads(kept.calibration)["wedge"] if kept.kind == _SCANNER else []
            if steps:
                return tuple(float(s) for s in steps)
        except (ValueError, KeyError, TypeError):
            continue
    return ()


def keep_wedge(notebook: Notebook, steps: tuple[float, ...]) -> None:
    """Remember a wedge with the scanner in the cupboard, which is made where there is none."""
    kept = next((i for i in notebook.all(Instrument) if i.kind == _SCANNER), None)
    words = json.dumps({"wedge": list(steps)})
    with notebook.change("the wedge of the scanner"):
        if kept is None:
            notebook.add(Instrument(name="Scanner", kind=_SCANNER, calibration=words))
        else:
            notebook.put(replace(kept, calibration=words))


def open_scan(path: Path, count: int, wedge: tuple[float, ...] = ()) -> Scan:
    """Open a picture, find the strip and its frames in it, and read them.

    Parameters
    ----------
    path : Path
    count : int
        Frames of the strip.
    wedge : tuple of float
        Densities of a wedge that lies beside it; empty for none.

    Raises
    ------
    FormatError
        If the picture cannot be read.
    EntryError
        If no strip, no frames or no wedge is found in it.
    """
    picture = read_picture(path)
    small = picture.reduced()
    by = picture.plane().shape[1] / small.shape[1]
    upright = small.shape[0] > small.shape[1]
    if upright:
        small = small.T
    try:
        top, bottom, wedge_rows = film_bands(small, bool(wedge))
        place = find_frames(small[top:bottom], count)
        place = replace(place, top=place.top + top, bottom=place.bottom + top)
        calibration, doubts = _calibration(small, picture, wedge, wedge_rows)
    except ValueError as error:
        raise EntryError(str(error)) from error
    doubts += suspicions(picture.sample(), picture.largest)
    return _read(
        Scan(picture, upright, small, by, place.scaled(by), calibration, (), False, doubts,
             checksum(path))
    )  # fmt: skip


def _calibration(
    small: Array, picture: Picture, wedge: tuple[float, ...], rows: tuple[int, int] | None
) -> tuple[ScanCalibration, tuple[str, ...]]:
    if not wedge:
        bare = float(np.percentile(small, 99))
        words = "there is no wedge: densities count from the bare light, and only to 1.6"
        return on_clear_base(bare, picture.largest), (words,)
    if rows is None:
        raise ValueError("no wedge was found beside the strip: lay it along it, below or above")
    seen = wedge_values(small, rows, len(wedge))
    return calibrated(seen if seen[0] > seen[-1] else seen[::-1], np.array(wedge)), ()


def _read(scan: Scan) -> Scan:
    """The values of the frames where they lie now."""
    plane = scan.picture.plane()
    plane = plane.T if scan.upright else plane
    values = []
    for frame in range(scan.place.count):
        left, top, right, bottom = (max(0, n) for n in scan.place.box(frame))
        patch = np.asarray(plane[top:bottom, left:right], dtype=np.float64)
        values.append(frame_value(patch, scan.calibration, scan.picture.largest))
    return replace(scan, values=tuple(values))


def nudged(scan: Scan, along: int = 0, wider: int = 0) -> Scan:
    """The frames moved along the strip, or set wider apart, by a fiftieth of a frame each."""
    place, step = scan.place, _NUDGE * scan.place.pitch
    moved = replace(
        place, start=place.start + along * step,
        pitch=place.pitch + wider * step / max(place.count - 1, 1) * 2, sureness=1.0,
    )  # fmt: skip
    return _read(replace(scan, place=moved))


def turned(scan: Scan) -> Scan:
    """The strip taken the other way round."""
    return replace(scan, mirrored=not scan.mirrored)


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
    return turned(scan)


def take_scan(notebook: Notebook, strip: StripSheet, scan: Scan) -> str:
    """Keep what the frames read, as one edit; says what was kept and what was not."""
    frames, refused = frames_of_scan(strip), []
    source = json.dumps({"scan": scan.picture.name, "sha256": scan.sha256})
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
                    frame_id=frame.frame.id, position=len(frame.readings),
                    density=round(max(value.density, 0.0), 4), read_at=now(), way=SCAN,
                    deviation=value.deviation, extra=source,
                )
            )  # fmt: skip
            kept += 1
    said = f"{counted(kept, 'frame')} read from {scan.picture.name}."
    return said + (f" Not told: {list_text(refused)}." if refused else "")


def calibration_words(scan: Scan) -> str:
    """How values mean density, and how far they can be trusted."""
    made = scan.calibration
    if made.relative:
        return f"No wedge: densities over the bare light, to {made.highest:.2f}."
    return (
        f"The wedge is met within {made.deviation:.3f}; to be trusted up to {made.highest:.2f}; "
        f"flare {100 * made.flare / made.white:.2f} % of the light."
    )

"""An opened scan: where its frames lie, what they hold, and how they are moved and turned."""

from __future__ import annotations

from dataclasses import dataclass, replace
from pathlib import Path
from typing import TYPE_CHECKING

import numpy as np

from vadrin.app.loaded.loaded_test import LoadedFrame, LoadedStrip, LoadedTest
from vadrin.app.scans.step_wedge import StepWedge
from vadrin.core.interruption import checkpoint
from vadrin.core.planning.test_types import type_of
from vadrin.core.scanning.calibration import ScanCalibration
from vadrin.core.scanning.frame_finding import StripPlace
from vadrin.core.scanning.frame_values import FrameValue, frame_value
from vadrin.core.scanning.grain import rms_granularity
from vadrin.core.wording import counted, list_text
from vadrin.formats.pictures.picture_reader import Picture

if TYPE_CHECKING:
    from vadrin.core.arrays import Array

_NUDGE, _MIRRORED = 0.02, -0.5
_AS_CLEAR, _DENSE = 0.06, 0.3
"""Density over the clearest frame at which one is clear too, and from which one is dense."""


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
    absent : tuple of int
        Frames of the script that somebody said are not in the picture, from 0.
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
    absent: tuple[int, ...] = ()
    exposed: tuple[float | None, ...] = ()
    """Lg exposures of the script's frames, where density rises with them; None for a blank."""

    @property
    def shots(self) -> list[int]:
        """The frames of the script that lie in the picture, as they were shot, from 0."""
        every = range(self.place.count + len(self.absent))
        return [shot for shot in every if shot not in self.absent]

    def shot_of(self, lying: int) -> int:
        """Which frame of the script one along the picture is."""
        return self.shots[self.place.count - 1 - lying if self.mirrored else lying]

    def lying_of(self, shot: int) -> int:
        """Where a frame of the script lies along the picture; it must be in it."""
        at = self.shots.index(shot)
        return self.place.count - 1 - at if self.mirrored else at

    @property
    def doubts(self) -> tuple[str, ...]:
        """Everything to be minded before its densities are taken."""
        said = self.noticed
        if not self.place.sure:
            said += ("its frames were guessed: move them until every box lies in its frame",)
        if self.place.seen:
            said += (
                f"room for {counted(self.place.seen, 'frame')} is seen, the script has "
                f"{self.place.count}: select one that is not in the picture and say so (M), or "
                "see that frame 1 is the script's first",
            )
        if self.place.cut:
            which = "first" if self.place.cut[0] == 0 else "last"
            said += (f"the {which} frame is not whole in the picture",)
            if not self.place.seen:
                said += ("if a frame of the script is missing, select it and say so (M)",)
        if self.mirrored:
            said += ("the strip is reversed: frame order was reversed to match",)
        return said + self._clear_though_exposed()

    def _clear_though_exposed(self) -> tuple[str, ...]:
        """Frames as clear as film without light, where less light made others dense."""
        there = [i for i in self.shots if i < len(self.exposed)]
        read = [(i, self.exposed[i], self.value_of(i).density) for i in there]
        known = [(i, x, d) for i, x, d in read if x is not None and d is not None]
        clear = min((d for *_, d in known), default=0.0) + _AS_CLEAR
        dense = min((x for _, x, d in known if d > clear + _DENSE), default=np.inf)
        odd = [f"{i + 1}" for i, x, d in known if d <= clear and x > dense]
        if not odd:
            return ()
        are = "frames {} are" if len(odd) > 1 else "frame {} is"
        return (
            f"{are.format(list_text(odd))} clear though others got less light and are dense: see "
            "whether a frame of the script is missing, or they lie in another order",
        )

    @property
    def boxes(self) -> list[tuple[float, float, float, float]]:
        """Where each frame is read, in pixels of the small picture."""
        return [
            (a / self.by, b / self.by, c / self.by, d / self.by)
            for a, b, c, d in (self.place.box(i) for i in range(self.place.count))
        ]

    def value_of(self, frame: int) -> FrameValue:
        """What the frame shot in a place reads."""
        if frame in self.absent:
            return FrameValue(None, None, 0.0, 0.0, "not in the picture")
        return self.values[self.lying_of(frame)]


def measured(scan: Scan) -> Scan:
    """The values of the frames where they lie now."""
    values = []
    moved = {frame for frame, _, _ in scan.place.moved}
    for frame in range(scan.place.count):
        if frame in scan.place.cut and frame not in moved:
            values.append(FrameValue(None, None, 0.0, 0.0, "not whole in the picture"))
            continue
        patch = _patch(scan, frame)
        value = frame_value(patch, scan.calibration, scan.picture.full)
        if scan.picture.per_inch and value.density is not None:
            grain = rms_granularity(patch, scan.calibration, scan.picture.per_inch)
            value = replace(value, granularity=grain)
        values.append(value)
    return replace(scan, values=tuple(values))


def _patch(scan: Scan, frame: int) -> Array:
    """The values of the middle of a frame, the unevenness of the light taken out."""
    plane = scan.picture.plane()
    plane = plane.T if scan.upright else plane
    left, top, right, bottom = (max(0, n) for n in scan.place.box(frame))
    place = min(int((left + right) / 2 / scan.by), len(scan.light) - 1)
    checkpoint()
    patch = np.asarray(plane[top:bottom, left:right], dtype=np.float64)
    return np.asarray(patch / (float(scan.light[place]) * scan.picture.unit))


def nudged(scan: Scan, along: int = 0, wider: int = 0) -> Scan:
    """The frames moved along the strip, or set wider apart, by a fiftieth of a frame each."""
    place, step = scan.place, _NUDGE * scan.place.pitch
    moved = replace(
        place,
        start=place.start + along * step,
        pitch=place.pitch + wider * step / max(place.count - 1, 1) * 2,
        sureness=1.0,
        # Whoever sets the boxes says where the frames lie, and how many there are.
        seen=0,
        cut=(),
    )
    return measured(replace(scan, place=moved))


def frame_moved(scan: Scan, shot: int, along: float = 0.0, wider: float = 0.0) -> Scan:
    """One frame moved along, or its box set wider, in shares of a frame; the others stay."""
    if shot in scan.absent:
        return scan
    place = scan.place.with_frame(scan.lying_of(shot), along, wider)
    return measured(replace(scan, place=place))


def other_way_round(scan: Scan) -> Scan:
    """The strip taken the other way round."""
    return replace(scan, mirrored=not scan.mirrored)


def lies_edge_to_edge(loaded: LoadedTest) -> bool:
    """Whether the steps of a test lie without gaps, as on paper."""
    kind = type_of(loaded.test.kind)
    return kind is not None and kind.edge_to_edge


def frames_of_scan(strip: LoadedStrip) -> list[LoadedFrame]:
    """The frames of a strip as they lie on the film."""
    return sorted(strip.frames, key=lambda f: f.frame.position)


def laid_as_shot(scan: Scan, loaded: LoadedTest, strip: LoadedStrip) -> Scan:
    """A scan turned so that density rises with exposure, or falls with it on a positive, where
    the strip lay the other way."""
    constant, frames = loaded.test.meter_constant, frames_of_scan(strip)
    exposures = tuple(frame.log_h(constant) for frame in frames)
    scan = replace(scan, exposed=() if loaded.density_falls else exposures)
    pairs = [
        (exposures[shot], scan.values[lying].density)
        for lying, shot in enumerate(scan.shots)
        if shot < len(frames)
    ]
    known = [(x, d) for x, d in pairs if x is not None and d is not None]
    if len(known) < 4:
        return scan
    x, d = np.array(known).T
    along = np.corrcoef(np.argsort(np.argsort(x)), np.argsort(np.argsort(d)))[0, 1]
    if (-along if loaded.density_falls else along) > _MIRRORED:
        return scan
    return other_way_round(scan)

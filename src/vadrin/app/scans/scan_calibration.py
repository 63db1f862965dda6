"""What a scanner's values mean in density: by a wedge beside the strip, by one in another picture
with the same settings, or by a bracket that the camera took of the bare light."""

from __future__ import annotations

import re
from itertools import pairwise
from math import log10
from pathlib import Path
from typing import TYPE_CHECKING

import numpy as np

from vadrin.app.entry.times import seconds_typed
from vadrin.app.scans.step_wedge import StepWedge
from vadrin.core.exposure.shutter_dial import exact_shutter
from vadrin.core.scanning.calibration import ScanCalibration, calibrated, on_clear_base
from vadrin.core.scanning.film_bands import bare_light, film_bands, wedge_values
from vadrin.errors import EntryError
from vadrin.formats.pictures.picture_reader import Picture, read_picture

if TYPE_CHECKING:
    from vadrin.core.arrays import Array

_SCANNER = "scanner"
_LEAST_BRACKET = 4


def bracket_typed(words: str) -> tuple[float, ...]:
    """Densities that a bracket of the bare light stands for: times from the longest down.

    Raises
    ------
    EntryError
    """
    marks = [part for part in re.split(r"[\s;]+", words.strip()) if part]
    times = [exact_shutter(seconds_typed(mark)) for mark in marks]
    if len(times) < _LEAST_BRACKET or any(b >= a for a, b in pairwise(times)):
        raise EntryError(
            "type the times of at least four pictures of the bare light, from the longest down: "
            "1/30 1/60 1/125 1/250"
        )
    return tuple(log10(times[0] / t) for t in times)


def wedge_of_picture(path: Path, densities: tuple[float, ...]) -> StepWedge:
    """The steps of a wedge that lies in a picture of its own, scanned with the same settings.

    Raises
    ------
    FormatError
        If the picture cannot be read.
    EntryError
        If no wedge of so many steps lies in it.
    """
    if not densities:
        raise EntryError("type the densities of the wedge first")
    small = read_picture(path).reduced()
    small = small.T if small.shape[0] > small.shape[1] else small
    try:
        band = film_bands(small, with_wedge=False).strips[0]
        seen, miscounted = _steps_seen(small, band, len(densities))
        if miscounted:
            raise ValueError(miscounted)
        calibrated(seen, np.array(densities))
    except ValueError as error:
        raise EntryError(str(error)) from error
    return StepWedge(densities, tuple(float(v) for v in seen), path.name)


def bracket_of_pictures(first: Path, densities: tuple[float, ...]) -> StepWedge:
    """A bracket of the bare light: one picture, and those that follow it by name in its folder.

    Raises
    ------
    FormatError
        If a picture cannot be read.
    EntryError
        If there are too few, or they do not darken one after the other.
    """
    beside = sorted(p for p in first.parent.iterdir() if p.suffix == first.suffix and p.is_file())
    pictures = beside[beside.index(first) :][: len(densities)] if first in beside else []
    if len(pictures) < len(densities):
        raise EntryError(
            f"{len(densities)} pictures are wanted, and {len(pictures)} lie there from {first.name}"
        )
    values = []
    for path in pictures:
        plane = read_picture(path).reduced()
        high, wide = plane.shape
        middle = plane[high // 4 : high - high // 4, wide // 4 : wide - wide // 4]
        values.append(float(np.median(middle)))
    try:
        calibrated(np.array(values), np.array(densities))
    except ValueError as error:
        raise EntryError(str(error)) from error
    return StepWedge(densities, tuple(values), f"a bracket from {first.name}")


def calibration_of(
    small: Array, picture: Picture, known: StepWedge, rows: tuple[int, int] | None
) -> tuple[ScanCalibration, tuple[str, ...]]:
    """How a picture's values mean density, and what is to be minded of that.

    Raises
    ------
    ValueError
        In words, if there is no wedge where one should be, or it makes none.
    """
    if not known.densities:
        bare = bare_light(small)
        words = "there is no wedge: densities count from the bare light, and only to 1.6"
        return on_clear_base(bare, picture.full), (words,)
    densities = np.array(known.densities)
    if known.values:
        return _of_another(small, picture, known, densities)
    if rows is None:
        raise ValueError("no wedge was found beside the strip: lay it along it, below or above")
    seen, miscounted = _steps_seen(small, rows, len(densities))
    both = min(len(seen), len(densities))
    made = calibrated(seen[:both], densities[:both], picture.full)
    counted = (miscounted,) if miscounted else ()
    return made, (*counted, *wedge_doubts(made, bare_light(small)))


def _steps_seen(small: Array, rows: tuple[int, int], typed: int) -> tuple[Array, str]:
    """Values of a wedge's steps from the thinnest, and words where more or fewer were typed."""
    seen = wedge_values(small, rows, typed)
    words = f"the wedge shows {len(seen)} steps, {typed} were typed: count them from the thinnest"
    return seen if seen[0] > seen[-1] else seen[::-1], "" if len(seen) == typed else words


def wedge_doubts(made: ScanCalibration, bare: float) -> tuple[str, ...]:
    """What does not fit of a wedge that lies beside a strip: the light round it, or a step."""
    said: tuple[str, ...] = ()
    empty = float(made.density(bare))
    if not abs(empty) <= _BARE_OFF:
        said += (
            f"by the wedge the bare light has density {empty:+.2f}: do its figures begin with the "
            "step that is thinnest in the picture?",
        )
    trusted = [(k, t) for k, t in made.steps if k <= made.highest]
    known, told = max(trusted, key=lambda s: abs(s[1] - s[0]), default=(0.0, 0.0))
    if abs(told - known) > _STEP_OFF:
        said += (
            f"the wedge's step {known:.2f} reads {told:.2f}: is it clean, whole and typed so?",
        )
    return said


def _of_another(
    small: Array, picture: Picture, known: StepWedge, densities: Array
) -> tuple[ScanCalibration, tuple[str, ...]]:
    """A calibration seen elsewhere holds while the bare light is what it was there."""
    made = calibrated(np.array(known.values), densities, picture.full)
    bare, light = bare_light(small), float(made.value(0.0))
    if abs(log10(bare / light)) <= _SAME_LIGHT:
        return made, ()
    words = (
        f"the bare light is {bare / light:.2f} times that of {known.source}: were the settings "
        "the same?"
    )
    return made, (words,)


_BARE_OFF, _STEP_OFF = 0.03, 0.03
"""Densities by which the bare light and a step of a wedge may be off before that is said."""
_SAME_LIGHT = 0.02
"""Density by which the bare light of two pictures with the same settings may differ."""


def calibration_words(made: ScanCalibration, known: StepWedge) -> str:
    """How values mean density, and how far they can be trusted."""
    if made.relative:
        return f"No wedge: densities over the bare light, to {made.highest:.2f}."
    where = f" (in {known.source})" if known.source else ""
    return (
        f"Wedge{where} matched within {made.deviation:.3f}. Reliable up to density "
        f"{made.highest:.2f}. Flare: {100 * made.flare:.2f} % of the light."
    )

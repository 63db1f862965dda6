"""A curve of a maker's sheet: traced from its picture, and kept as the points of a strip."""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path
from typing import TYPE_CHECKING

import numpy as np

from vadrin.app.entry.numbers import number_typed
from vadrin.app.loaded.loaded_test import LoadedStrip
from vadrin.app.scans.kept_scans import keep_scan, preview_of
from vadrin.app.stamps import now
from vadrin.core.frames import FrameRole, FrameState
from vadrin.core.origin import Origin
from vadrin.core.tracing.line_following import follow_line, thinned
from vadrin.core.tracing.picture_axes import PictureAxes
from vadrin.core.wording import counted
from vadrin.errors import EntryError
from vadrin.formats.pictures.picture_reader import read_picture
from vadrin.notebook.records import Frame, Reading
from vadrin.notebook.store import Notebook

if TYPE_CHECKING:
    from vadrin.core.arrays import Array

TRACED = "traced"
_LEAST_POINTS = 6
_MOST_ALONG = 2400
_HIGHEST, _FURTHEST = 5.0, 8.0


def picture_values(path: Path) -> Array:
    """A picture of a sheet as values from 0 to 255 in three channels, reduced where it is large.

    Raises
    ------
    FormatError
        If it cannot be read.
    """
    picture = read_picture(path)
    by = max(1, -(-max(picture.values.shape[:2]) // _MOST_ALONG))
    small = np.asarray(picture.values[::by, ::by], dtype=np.float64) * (255.0 / picture.largest)
    return np.repeat(small[..., None], 3, axis=2) if small.ndim == 2 else small[..., :3]


def axis_value_typed(words: str) -> float:
    """What stands at a mark of an axis.

    Raises
    ------
    EntryError
    """
    value = number_typed(words.replace("−", "-"))
    if not -_FURTHEST <= value <= _FURTHEST:
        raise EntryError("an axis runs within −8 and 8: log exposure along, density up")
    return value


def followed(picture: Array, place: tuple[float, float]) -> Array:
    """Places along the line of a picture that is pointed at, thinned.

    Raises
    ------
    EntryError
        In words, if there is no line.
    """
    try:
        return thinned(follow_line(picture, round(place[0]), round(place[1])))
    except ValueError as error:
        raise EntryError(str(error)) from error


def traced_points(axes: PictureAxes, places: Array) -> Array:
    """Exposure and density of traced places, from left to right.

    Raises
    ------
    EntryError
        If they are no curve.
    """
    if len(places) < _LEAST_POINTS:
        raise EntryError(f"a curve needs {_LEAST_POINTS} points at least: {len(places)} are set")
    found = axes.values(np.asarray(places, dtype=np.float64))
    found = found[np.argsort(found[:, 0], kind="stable")]
    if found[:, 1].min() < -0.1 or found[:, 1].max() > _HIGHEST:
        raise EntryError("the points lie at densities no film has: check the marks of the axes")
    return found


def keep_trace(
    notebook: Notebook, strip: LoadedStrip, points: Array, path: Path, digest: str, picture: Array
) -> str:
    """Keep a traced curve in the place of what the strip had, as one edit; says what was kept."""
    with notebook.change(f"trace strip {strip.strip.label}"):
        for frame in strip.frames:
            notebook.remove(frame.frame)
        frames = notebook.add_all(
            [
                Frame(
                    strip_id=strip.strip.id,
                    position=n,
                    turn=n,
                    name=str(n + 1),
                    role=FrameRole.BRACKET,
                    state=FrameState.EXPOSED,
                    log_h=round(float(x), 4),
                )
                for n, (x, _) in enumerate(points)
            ]
        )
        notebook.add_all(
            [
                Reading(
                    frame_id=frame.id,
                    density=round(max(float(d), 0.0), 3),
                    read_at=now(),
                    way=TRACED,
                )
                for frame, (_, d) in zip(frames, points, strict=True)
            ]
        )
        notebook.put(replace(strip.strip, time_min=strip.strip.planned_min, time_from=Origin.TOLD))
        keep_scan(notebook, strip, path, digest, preview_of(picture[..., 1]))
    return f"{counted(len(points), 'point')} traced from {path.name}."

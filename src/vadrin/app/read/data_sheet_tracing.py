"""A line of a maker's sheet, traced from its picture: a strip's points, or the maker's times."""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path
from typing import TYPE_CHECKING

import numpy as np

from vadrin.app.display.quantities import minutes_text
from vadrin.app.library.kept_makers_lines import keep_makers_lines
from vadrin.app.loaded.loaded_test import LoadedStrip, LoadedTest
from vadrin.app.read.sheet_pictures import CURVE, SheetPicture
from vadrin.app.scans.kept_scans import keep_scan, preview_of
from vadrin.app.stamps import now
from vadrin.core.frames import FrameRole, FrameState
from vadrin.core.origin import Origin
from vadrin.core.process.makers_table import MakersLine
from vadrin.core.tracing.index_chart import minutes_of_indexes
from vadrin.core.tracing.line_following import follow_line, thinned
from vadrin.core.tracing.picture_axes import PictureAxes
from vadrin.core.wording import counted
from vadrin.errors import EntryError
from vadrin.formats.pictures.picture_reader import read_picture
from vadrin.notebook.records import Frame, Reading
from vadrin.notebook.store import Notebook

if TYPE_CHECKING:
    from vadrin.app.read.trace_steps import Trace
    from vadrin.core.arrays import Array

TRACED = "traced"
_MOST_ALONG = 2400
_HIGHEST, _FAR_STOPS = 5.0, 60.0


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


def traced_points(axes: PictureAxes, places: Array, shows: SheetPicture = CURVE) -> Array:
    """What traced places lie at, along and up, from left to right.

    Raises
    ------
    EntryError
        If they are no line of such a picture.
    """
    if len(places) < shows.least_points:
        raise EntryError(
            f"a line needs {shows.least_points} points at least: {len(places)} are set"
        )
    found = axes.values(np.asarray(places, dtype=np.float64))
    found = found[np.argsort(found[:, 0], kind="stable")]
    if shows.in_stops:
        found[:, 1] = 2.0 ** np.clip(found[:, 1], -_FAR_STOPS, _FAR_STOPS)
    outside = (found.min(0) < shows.low).any() or (found.max(0) > shows.high).any()
    if shows.times and outside:
        raise EntryError("the points lie at times or EIs there are none of: check the axes' marks")
    if not shows.times and (found[:, 1].min() < -0.1 or found[:, 1].max() > _HIGHEST):
        raise EntryError("the points lie at densities no film has: check the marks of the axes")
    return found


def keep_traced(notebook: Notebook, loaded: LoadedTest, strip: LoadedStrip, trace: Trace) -> str:
    """Keep what was traced: a curve as the strip's, a chart as the maker's times; says what.

    Raises
    ------
    EntryError
        In words, if the picture gives nothing to keep.
    """
    points = trace.traced()
    if trace.shows.times:
        return _keep_times(notebook, loaded, points, trace.path)
    return keep_trace(notebook, strip, points, trace.path, trace.digest, trace.picture)


def _keep_times(notebook: Notebook, loaded: LoadedTest, points: Array, path: Path) -> str:
    try:
        told = minutes_of_indexes(points[:, 0], points[:, 1], loaded.stock.box_speed)
    except ValueError as error:
        raise EntryError(str(error)) from error
    lines = [MakersLine(round(minutes, 2), exposure_index=index) for index, minutes in told]
    keep_makers_lines(notebook, loaded, lines)
    shown = ", ".join(f"EI {index:g} {minutes_text(minutes)}" for index, minutes in told)
    return f"Traced from {path.name} as the maker's times: {shown}."


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

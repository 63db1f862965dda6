"""Turning a table of readings from a file into a test, or into readings of a test's frames."""

from __future__ import annotations

import json
from collections import Counter
from collections.abc import Generator, Iterable, Iterator
from dataclasses import replace
from itertools import accumulate
from pathlib import Path

from vadrin.app.display.words import counted
from vadrin.app.library.named_records import developer_named, stock_named
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.read.entering_readings import WEDGE
from vadrin.app.read.export_readings import LEFT_OUT
from vadrin.app.stamps import fresh_uid, now
from vadrin.core.channels import Channel
from vadrin.core.frames import FrameRole, FrameState
from vadrin.core.origin import Origin
from vadrin.core.wording import list_text
from vadrin.errors import EditRefusedError
from vadrin.formats.readings.readings_table import (
    DENSITY_HIGH,
    DENSITY_LOW,
    DENSITY_SD,
    ReadingsTable,
    TableRow,
)
from vadrin.notebook.records import ColumnMatching, Frame, Reading, Strip, Test
from vadrin.notebook.store import Notebook

_AT_ONCE = 200
"""Frames written in one step: the window goes on between two."""


def import_table(notebook: Notebook, table: ReadingsTable) -> Test:
    """Write a table's rows as a new test with its strips at once; see `importing`."""
    steps = importing(notebook, table)
    while True:
        try:
            next(steps)
        except StopIteration as end:
            test: Test = end.value
            return test


def importing(notebook: Notebook, table: ReadingsTable) -> Generator[tuple[int, int], None, Test]:
    """Write a table's rows as a new test with its strips, as one edit, some rows at a time.

    Parameters
    ----------
    notebook : Notebook
    table : ReadingsTable
        Only its rows are taken; its problems are the caller's to show first.

    Yields
    ------
    tuple of int
        How many rows of how many are written. Closed early, it takes all of them back.

    Raises
    ------
    EditRefusedError
        If no row tells an exposure: no test can be made of densities alone.
    """
    if not table.exposures_known:
        raise EditRefusedError(
            f"{table.source} holds densities but no exposures. Open the test they were "
            "read from and import it again. The densities go to its frames in their order."
        )
    with notebook.change(f"import {table.source}"):
        index = next((r.ei for r in table.rows if r.ei), None)
        stock = stock_named(notebook, Path(table.source).stem, index)
        developer = developer_named(notebook, "unnamed developer")
        test = notebook.add(
            Test(
                uid=fresh_uid(),
                stock_id=stock.id,
                developer_id=developer.id,
                created_at=now(),
                exposure_index=index or stock.box_speed,
                note=f"Imported from {table.source}.",
            )
        )
        by_strip: dict[str, list[TableRow]] = {}
        for row in table.rows:
            by_strip.setdefault(row.strip, []).append(row)
        written, total = 0, len(table.rows)
        yield written, total
        for position, (label, rows) in enumerate(by_strip.items()):
            for count in _write_strip(notebook, test, position, label, rows):
                written += count
                yield written, total
    return test


def _write_strip(
    notebook: Notebook, test: Test, position: int, label: str, rows: list[TableRow]
) -> Iterator[int]:
    """Write a strip and its frames; tells how many rows of the table each step has written."""
    time = next((r.time_min for r in rows if r.time_min is not None), None)
    temperature = next((r.temperature_c for r in rows if r.temperature_c is not None), None)
    strip = notebook.add(
        Strip(
            test_id=test.id,
            position=position,
            label=label,
            planned_min=time,
            time_min=time,
            temperature_c=temperature,
            time_from=Origin.UNKNOWN if time is None else Origin.TOLD,
            temperature_from=Origin.UNKNOWN if temperature is None else Origin.TOLD,
        )
    )
    by_frame: dict[tuple[object, ...], list[TableRow]] = {}
    for row in rows:
        by_frame.setdefault((row.frame, row.log_h, row.ei, row.stops), []).append(row)
    groups = list(by_frame.values())
    for start in range(0, len(groups), _AT_ONCE):
        some = groups[start : start + _AT_ONCE]
        frames = notebook.add_all([_frame(strip, start + i, g[0]) for i, g in enumerate(some)])
        readings = [
            reading_of(frame, place, row)
            for frame, group in zip(frames, some, strict=True)
            for place, row in enumerate(group)
        ]
        notebook.add_all(readings)
        yield len(readings)


def _frame(strip: Strip, place: int, row: TableRow) -> Frame:
    dark = row.log_h is None and row.ei is None
    return Frame(
        strip_id=strip.id,
        position=place,
        name=row.frame,
        log_h=row.log_h,
        exposure_index=row.ei,
        stops=row.stops,
        wanted_stops=row.stops,
        state=FrameState.EXPOSED,
        role=FrameRole.BLANK if dark else FrameRole.BRACKET,
    )


def reading_of(frame: Frame, place: int, row: TableRow) -> Reading:
    """A row of a file as the reading of a frame."""
    ours = (LEFT_OUT, DENSITY_LOW, DENSITY_HIGH, DENSITY_SD)
    step, told = row.step, row.own_deviation
    known = ours if step or told else (LEFT_OUT,)
    extra = {k: v for k, v in row.extra.items() if k not in known and v}
    low, high = step or (None, None)
    return Reading(
        frame_id=frame.id,
        position=place,
        density=row.density,
        channel=Channel(row.channel),
        note=row.note,
        left_out=row.extra.get(LEFT_OUT, "").lower() == "yes",
        extra=json.dumps(extra) if extra else "",
        low=low,
        high=high,
        deviation=told if told and step is None else None,
        way=WEDGE if step else "",
    )


def fill_frames(notebook: Notebook, loaded: LoadedTest, table: ReadingsTable) -> int:
    """Give densities without exposures to a test's frames without readings, in their order.

    Returns
    -------
    int
        Number of readings written.

    Raises
    ------
    EditRefusedError
        If it is not as many densities as whole strips wait for.
    """
    names = list(dict.fromkeys((r.strip, r.frame) for r in table.rows))
    frames = dict(zip(names, _frames_in_order(loaded, names, table.source), strict=True))
    with notebook.change(f"import {table.source} to the frames"):
        counts: dict[int, int] = {}
        readings = []
        for row in table.rows:
            frame = frames[row.strip, row.frame]
            readings.append(replace(reading_of(frame, counts.get(frame.id, 0), row), read_at=now()))
            counts[frame.id] = counts.get(frame.id, 0) + 1
        return len(notebook.add_all(readings))


def _frames_in_order(loaded: LoadedTest, names: list[tuple[str, str]], source: str) -> list[Frame]:
    """The frames that a list of densities goes to, strip by strip and whole strips alone.

    One density fewer than frames may be any of them, and every one after it would land a frame
    too early: such a list is refused.
    """
    waiting = [[f.frame for f in s.frames if f.readable and not f.readings] for s in loaded.strips]
    waiting = [frames for frames in waiting if frames]
    lengths = [len(frames) for frames in waiting]
    listed = list(Counter(strip for strip, _ in names).values())
    in_one = len(listed) == 1
    if len(names) in accumulate(lengths) and (in_one or listed == lengths[: len(listed)]):
        return [frame for frames in waiting for frame in frames][: len(names)]
    held = counted(len(names), "sample") + ("" if in_one else f", by strip {_numbers(listed)}")
    wait = _numbers(lengths)
    wait = f"the strips of this test wait for {wait}" if wait else "no frame waits"
    raise EditRefusedError(
        f"{source} holds {held}, but {wait}. A list does not show which frame is missing or too "
        "many. Nothing was imported: bring whole strips, or a table with each frame’s exposure."
    )


def _numbers(counts: Iterable[int]) -> str:
    return list_text([str(count) for count in counts])


def remembered_columns(notebook: Notebook, headers: tuple[str, ...]) -> tuple[str, ...] | None:
    """How a table with these headers was matched before; None for never."""
    known = notebook.all(ColumnMatching, headers=json.dumps(headers))
    columns = json.loads(known[-1].columns) if known else None
    return tuple(columns) if columns and len(columns) == len(headers) else None


def remember_columns(
    notebook: Notebook, headers: tuple[str, ...], columns: tuple[str, ...]
) -> None:
    """Keep how a table with these headers was matched."""
    if remembered_columns(notebook, headers) == columns:
        return
    with notebook.change("remember the columns"):
        notebook.add(ColumnMatching(headers=json.dumps(headers), columns=json.dumps(columns)))

"""A table of readings that fits a test which waits for them: what goes where, and by what."""

from __future__ import annotations

from dataclasses import dataclass, replace

from vadrin.app.display.words import counted
from vadrin.app.document.test_loading import load_tests
from vadrin.app.loaded.loaded_test import LoadedFrame, LoadedStrip, LoadedTest
from vadrin.app.read.import_readings import reading_of
from vadrin.app.stamps import now
from vadrin.core.origin import Origin
from vadrin.formats.readings.readings_table import ReadingsTable, TableRow
from vadrin.notebook.records import Reading, Strip, Test
from vadrin.notebook.store import Notebook

_SAME_LG, _SAME_STOPS = 0.08, 0.2
"""How far an exposure may be written from that of the script: a quarter, and a fifth, of a stop."""
_LOOKED_AT = 12
"""Tests looked at: those begun last."""


@dataclass(frozen=True)
class WaitingTest:
    """A test whose frames a table fits.

    Attributes
    ----------
    loaded : LoadedTest
    frames : dict of int to tuple of TableRow
        Rows by the frame they go to.
    strips_by, frames_by : str
        What told them, in words.
    """

    loaded: LoadedTest
    frames: dict[int, tuple[TableRow, ...]]
    strips_by: str
    frames_by: str

    @property
    def words(self) -> str:
        """The offer, in sentences."""
        readings = sum(len(rows) for rows in self.frames.values())
        return (
            f"{self.loaded.title} waits for readings, and these fit: "
            f"{counted(readings, 'reading')} on {counted(len(self.frames), 'frame')}, strips by "
            f"{self.strips_by}, frames by {self.frames_by}."
        )


def waiting_test(
    notebook: Notebook, here: LoadedTest | None, table: ReadingsTable
) -> WaitingTest | None:
    """The test a table of exposures belongs to: the one on the bench, else the newest that fits.

    None where no test waits for just these frames.
    """
    if not table.exposures_known:
        return None
    rows: dict[str, list[TableRow]] = {}
    for row in table.rows:
        rows.setdefault(row.strip, []).append(row)
    found = _fit(here, rows) if here is not None else None
    if found is not None:
        return found
    newest = [t for t in notebook.all(Test) if here is None or t.id != here.test.id][-_LOOKED_AT:]
    fits = (_fit(loaded, rows) for loaded in reversed(load_tests(notebook, newest)))
    return next((fit for fit in fits if fit is not None), None)


def _fit(loaded: LoadedTest, rows: dict[str, list[TableRow]]) -> WaitingTest | None:
    """Where the rows of each strip go; None where they are not just what this test waits for."""
    if loaded.read() or not loaded.strips:
        return None
    strips, strips_by = _strips(loaded, list(rows))
    if strips is None:
        return None
    made: dict[int, tuple[TableRow, ...]] = {}
    ways: list[str] = []
    for label, mine in rows.items():
        placed = _frames(loaded, strips[label], mine)
        if placed is None:
            return None
        made |= placed[0]
        ways.append(placed[1])
    return WaitingTest(loaded, made, strips_by, " or ".join(dict.fromkeys(ways)))


def _strips(loaded: LoadedTest, labels: list[str]) -> tuple[dict[str, LoadedStrip] | None, str]:
    """Which strip each label of a table means, and what told it."""
    named = {s.strip.label.lower(): s for s in loaded.strips}
    if all(label.lower() in named for label in labels):
        return {label: named[label.lower()] for label in labels}, "their letters"
    if len(labels) == len(loaded.strips):
        return dict(zip(labels, loaded.strips, strict=True)), "their order"
    return None, ""


def _frames(
    loaded: LoadedTest, strip: LoadedStrip, rows: list[TableRow]
) -> tuple[dict[int, tuple[TableRow, ...]], str] | None:
    """The frame each row of a strip means; None where one means none, or two the same."""
    groups: dict[tuple[object, ...], list[TableRow]] = {}
    for row in rows:
        groups.setdefault((row.frame, row.log_h, row.ei, row.stops), []).append(row)
    free = [f for f in strip.frames if f.readable]
    made: dict[int, tuple[TableRow, ...]] = {}
    for group in groups.values():
        frame = next((f for f in free if _same(loaded, f, group[0])), None)
        if frame is None:
            return None
        free.remove(frame)
        made[frame.frame.id] = tuple(group)
    by_lg = any(row.log_h is not None for row in rows)
    return made, "their exposures" if by_lg else "their stops from the meter"


def _same(loaded: LoadedTest, frame: LoadedFrame, row: TableRow) -> bool:
    if row.log_h is not None:
        at = frame.log_h(loaded.test.meter_constant)
        return at is not None and abs(at - row.log_h) <= _SAME_LG
    if row.ei is None and row.stops is None:
        return frame.frame.blank
    asked = frame.frame.stops if frame.frame.stops is not None else frame.frame.wanted_stops
    if frame.frame.blank or asked is None:
        return False
    metered = frame.frame.exposure_index
    same_meter = row.ei is None or metered is None or abs(metered / row.ei - 1) < 0.06
    return same_meter and abs((row.stops or 0.0) - asked) <= _SAME_STOPS


def fill_waiting(notebook: Notebook, waiting: WaitingTest, source: str) -> int:
    """Write the readings to their frames, and the times a table has where none were noted.

    Returns
    -------
    int
        Number of readings written.
    """
    frames = {f.frame.id: (s, f) for s, f in waiting.loaded.frames()}
    with notebook.change(f"import {source} to the frames that waited"):
        readings: list[Reading] = []
        told: dict[int, tuple[Strip, TableRow]] = {}
        for frame_id, rows in waiting.frames.items():
            strip, frame = frames[frame_id]
            told.setdefault(strip.strip.id, (strip.strip, rows[0]))
            for place, row in enumerate(rows):
                readings.append(replace(reading_of(frame.frame, place, row), read_at=now()))
        for strip_record, row in told.values():
            if strip_record.time_min is None and row.time_min is not None:
                warm = row.temperature_c
                notebook.put(
                    replace(
                        strip_record,
                        time_min=row.time_min,
                        temperature_c=warm,
                        time_from=Origin.TOLD,
                        temperature_from=Origin.UNKNOWN if warm is None else Origin.TOLD,
                    )
                )
        return len(notebook.add_all(readings))

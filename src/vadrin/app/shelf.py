"""Every test as a line, with where it stands and what it found."""

from __future__ import annotations

from dataclasses import dataclass

from vadrin.app.sheet import TestSheet, load_sheets
from vadrin.app.words import date_text, minutes_text
from vadrin.core.exposure import marked_ei
from vadrin.notebook.records import Test
from vadrin.notebook.store import Notebook

_SHOWN = 40


@dataclass(frozen=True)
class ShelfLine:
    """One test on the shelf, in words; `greys` are densities of its first strip."""

    test_id: int
    film: str
    process: str
    date: str
    state: str
    station: str
    index: str
    time: str
    note: str
    greys: tuple[float | None, ...]


def _state(sheet: TestSheet) -> tuple[str, str]:
    """Where a test stands, and the station where its work goes on."""
    total, exposed, read = len(sheet.frames()), sheet.exposed(), sheet.read()
    if exposed == 0:
        return f"planned, {total} frames", "plan"
    if exposed < total:
        return f"{exposed} of {total} frames taken", "expose"
    if sheet.processed() < len(sheet.strips):
        return f"{sheet.processed()} of {len(sheet.strips)} strips developed", "process"
    if read < sheet.readable():
        return f"{read} of {sheet.readable()} frames read", "read"
    strips = len(sheet.strips)
    return f"read, {strips} strip{'s' if strips != 1 else ''}", "curves"


def _line(sheet: TestSheet) -> ShelfLine:
    state, station = _state(sheet)
    decided = sheet.findings[-1] if sheet.findings else None
    batch = f" {sheet.batch.name}" if sheet.batch and sheet.batch.name else ""
    greys = [f.density for f in sheet.strips[0].frames] if sheet.strips else []
    return ShelfLine(
        sheet.test.id,
        sheet.stock.name + batch,
        sheet.process,
        date_text(sheet.test.created_at),
        state,
        station,
        f"EI {marked_ei(decided.exposure_index)}" if decided else "",
        minutes_text(decided.time_min) if decided else "",
        sheet.test.note,
        tuple(greys[:_SHOWN]),
    )


def shelf_lines(notebook: Notebook) -> list[ShelfLine]:
    """All tests, the newest first."""
    tests = notebook.all(Test)
    tests.sort(key=lambda test: (test.created_at, test.id), reverse=True)
    return [_line(sheet) for sheet in load_sheets(notebook, tests)]

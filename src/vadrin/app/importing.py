"""Turning a table of readings from a file into a test."""

from __future__ import annotations

import json
from pathlib import Path

from vadrin.app.planning import developer_named, fresh_uid, now, stock_named
from vadrin.formats.readings_table import ReadingsTable, TableRow
from vadrin.notebook.records import EXPOSED, Frame, Reading, Strip, Test
from vadrin.notebook.store import Notebook


def import_table(notebook: Notebook, table: ReadingsTable) -> Test:
    """Write a table's rows as a new test with its strips, as one edit.

    Parameters
    ----------
    notebook : Notebook
    table : ReadingsTable
        Only its rows are taken; its problems are the caller's to show first.
    """
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
        labels = list(dict.fromkeys(row.strip for row in table.rows))
        for position, label in enumerate(labels):
            rows = [row for row in table.rows if row.strip == label]
            _write_strip(notebook, test, position, label, rows)
    return test


def _write_strip(
    notebook: Notebook, test: Test, position: int, label: str, rows: list[TableRow]
) -> None:
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
        )
    )
    frames: dict[tuple[object, ...], tuple[Frame, int]] = {}
    for row in rows:
        key = (row.frame, row.log_h, row.ei, row.stops)
        if key not in frames:
            frame = notebook.add(
                Frame(
                    strip_id=strip.id,
                    position=len(frames),
                    name=row.frame,
                    log_h=row.log_h,
                    exposure_index=row.ei,
                    stops=row.stops,
                    state=EXPOSED,
                )
            )
            frames[key] = (frame, 0)
        frame, count = frames[key]
        frames[key] = (frame, count + 1)
        notebook.add(
            Reading(
                frame_id=frame.id,
                position=count,
                density=row.density,
                channel=row.channel,
                note=row.note,
                extra=json.dumps(row.extra) if row.extra else "",
            )
        )

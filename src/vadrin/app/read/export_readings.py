"""A test's readings as a table for a file, and attachments."""

from __future__ import annotations

import json
import mimetypes
from pathlib import Path

from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.stamps import now
from vadrin.errors import EditRefusedError
from vadrin.formats.readings.any_file import write_readings
from vadrin.formats.readings.file_formats import suffixes
from vadrin.formats.readings.readings_table import (
    DENSITY_HIGH,
    DENSITY_LOW,
    DENSITY_SD,
    ReadingsTable,
    TableRow,
)
from vadrin.notebook.records import Attachment, Reading
from vadrin.notebook.store import Notebook

LARGEST_ATTACHMENT = 8_000_000
LARGEST_IN_ALL = 200_000_000
LEFT_OUT = "left_out"


def own_uncertainty(reading: Reading) -> dict[str, float]:
    """What a reading says of its own sureness, by the columns it is exported under."""
    said = {DENSITY_LOW: reading.low, DENSITY_HIGH: reading.high, DENSITY_SD: reading.deviation}
    return {column: value for column, value in said.items() if value is not None}


def table_of_test(loaded: LoadedTest) -> ReadingsTable:
    """All readings of a test, those left out too, marked so in a column of their own."""
    rows: list[TableRow] = []
    for strip, frame in loaded.frames():
        for reading in frame.readings:
            extra = json.loads(reading.extra) if reading.extra else {}
            if reading.left_out:
                extra[LEFT_OUT] = "yes"
            for column, value in own_uncertainty(reading).items():
                extra[column] = f"{value:g}"
            rows.append(
                TableRow(
                    row=len(rows) + 2,
                    strip=strip.strip.label,
                    frame=frame.frame.name,
                    density=reading.density,
                    time_min=strip.strip.time_min,
                    temperature_c=strip.strip.temperature_c,
                    log_h=frame.frame.log_h,
                    ei=frame.frame.exposure_index,
                    stops=frame.frame.stops,
                    channel=reading.channel,
                    note=reading.note,
                    extra=extra,
                )
            )
    columns = tuple(dict.fromkeys(c for row in rows for c in row.extra))
    return ReadingsTable(loaded.title, tuple(rows), extra_columns=columns)


def write_test_readings(loaded: LoadedTest, path: Path) -> None:
    """Write the readings of a test, in the format its suffix names.

    Raises
    ------
    OSError, FormatError
    """
    write_readings(table_of_test(loaded), path)


def attach(notebook: Notebook, test_id: int, path: Path) -> Attachment:
    """Keep a copy of a file with a test.

    Raises
    ------
    EditRefusedError
        If it cannot be read, or is too large to be kept in a notebook.
    """
    try:
        size = path.stat().st_size
        if size > LARGEST_ATTACHMENT:
            raise EditRefusedError(
                f"{path.name} has {size / 1e6:.0f} MB; a notebook keeps files of up to "
                f"{LARGEST_ATTACHMENT // 1_000_000} MB. Make the picture smaller."
            )
        data = path.read_bytes()
    except OSError as error:
        raise EditRefusedError(f"{path.name}: {(error.strerror or '').lower()}") from error
    held = notebook.rows("SELECT coalesce(sum(length(data)), 0) FROM attachment")[0][0]
    if held + len(data) > LARGEST_IN_ALL:
        raise EditRefusedError("the notebook's attachments are 200 MB already; remove some first")
    kind = mimetypes.guess_type(path.name)[0] or "application/octet-stream"
    with notebook.change(f"attach {path.name}"):
        return notebook.add(
            Attachment(test_id=test_id, name=path.name, media_type=kind, added_at=now(), data=data)
        )


def readings_filter() -> str:
    """The kinds of file that tables of readings come in and go out as, as dialogs want them."""
    return f"Readings ({' '.join(f'*{s}' for s in suffixes())});;Any file (*)"

"""The readings table as JSON."""

from __future__ import annotations

import json
from typing import Any

from vadrin.core.wording import counted
from vadrin.errors import FormatError
from vadrin.formats.readings.column_matching import RawTable, table_of
from vadrin.formats.readings.readings_table import ReadingsTable
from vadrin.formats.readings.row_reading import KNOWN

READINGS_SCHEMA = "vadrin-readings/1"
_MOST_ROWS = 200_000


def parse_readings_json(text: str, name: str) -> ReadingsTable:
    """Read a table from JSON.

    Raises
    ------
    FormatError
        If it is no such JSON; single bad cells become `problems` instead.
    """
    try:
        held: Any = json.loads(text)
    except (ValueError, RecursionError) as error:
        line = getattr(error, "lineno", 1)
        raise FormatError(
            f"{name}, row {line}: not JSON ({str(error)[:60]}); save it again"
        ) from error
    schema = held.get("schema") if isinstance(held, dict) else None
    if schema != READINGS_SCHEMA:
        said = f"“{str(schema)[:40]}”" if schema else "no schema"
        raise FormatError(
            f"{name}: {said} where “{READINGS_SCHEMA}” is needed; a whole notebook is merged in "
            "the window, not converted"
        )
    rows = held.get("rows")
    if not isinstance(rows, list) or not all(isinstance(r, dict) for r in rows):
        raise FormatError(f"{name}: “rows” must be a list of readings")
    if not rows or len(rows) > _MOST_ROWS:
        raise FormatError(f"{name}: {counted(len(rows), 'row')}; it needs 1 to {_MOST_ROWS}")
    return _table(rows, name)


def _table(rows: list[dict[str, Any]], name: str) -> ReadingsTable:
    columns: dict[str, None] = dict.fromkeys(KNOWN)
    for row in rows:
        columns.update(dict.fromkeys(str(key).strip().lower() for key in row))
    if len(columns) > 400:
        raise FormatError(f"{name}: more than 400 columns; keep the readings")
    lines = []
    for number, row in enumerate(rows, start=1):
        plain = {str(k).strip().lower(): _shown(v) for k, v in row.items()}
        lines.append((number, tuple(plain.get(c, "") for c in columns)))
    return table_of(RawTable(name, tuple(columns), tuple(lines), 0), tuple(columns))


def _shown(value: object) -> str:
    if value is None:
        return ""
    return repr(value) if isinstance(value, float) else str(value)


def readings_json_text(table: ReadingsTable, cells: list[list[str | float | None]]) -> str:
    """A readings table as JSON; `cells` are its header and rows."""
    header = [str(c) for c in cells[0]]
    rows = [
        {k: v for k, v in zip(header, row, strict=True) if v not in (None, "")} for row in cells[1:]
    ]
    held = {"schema": READINGS_SCHEMA, "source": table.source, "rows": rows}
    return json.dumps(held, ensure_ascii=False, indent=1, allow_nan=False) + "\n"

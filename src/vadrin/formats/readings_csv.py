"""The readings table as delimited text: commas, semicolons or tabs, decimal point or comma."""

from __future__ import annotations

import csv
import io
import math
from pathlib import Path

from vadrin.formats.readings_table import (
    CHANNELS,
    CellProblem,
    FormatError,
    ReadingsTable,
    TableRow,
)

LARGEST_FILE = 20_000_000
MOST_ROWS = 200_000
_LONGEST_LINE = 100_000
_KNOWN = (
    "strip", "frame", "time_min", "temperature_c", "log_h", "ei", "stops", "density",
    "channel", "note",
)  # fmt: skip
_NUMBERS = {
    "time_min": (0.01, 10_000.0, "give minutes, such as 8 or 8.5"),
    "temperature_c": (-10.0, 100.0, "give degrees Celsius, such as 20"),
    "log_h": (-20.0, 20.0, "give log10 lux seconds, or leave it empty for a blank frame"),
    "ei": (0.01, 1e7, "give an exposure index, such as 100, or leave it empty for a blank frame"),
    "stops": (-40.0, 40.0, "give stops from the meter reading, such as -2"),
    "density": (-1.0, 10.0, "give a density between 0 and 10, such as 0.49"),
}


def _decoded(data: bytes, name: str) -> str:
    if data.startswith((b"\xff\xfe", b"\xfe\xff")):
        encoding = "utf-16"
    else:
        encoding = "utf-8-sig"
    try:
        text = data.decode(encoding)
    except UnicodeDecodeError as error:
        line = data[: error.start].count(b"\n") + 1
        raise FormatError(f"{name}, row {line}: not UTF-8 text; save it as CSV UTF-8") from error
    if "\x00" in text:
        raise FormatError(f"{name}, row 1: not a text file; save the sheet as CSV UTF-8")
    return text


def _delimiter(header: str) -> str:
    counts = {mark: header.count(mark) for mark in "\t;,"}
    best = max(counts, key=lambda mark: counts[mark])
    return best if counts[best] else ","


def _number(text: str) -> float:
    plain = text.strip().replace("−", "-").replace("\u00a0", "")
    if "," in plain and "." not in plain:
        plain = plain.replace(",", ".")
    value = float(plain)
    if not math.isfinite(value):
        raise ValueError(text)
    return value


def _cells(text: str, name: str) -> list[list[str]]:
    if not text.strip():
        raise FormatError(f"{name}, row 1: the file is empty; it needs a header row and readings")
    if max(map(len, text.splitlines())) > _LONGEST_LINE:
        raise FormatError(f"{name}: a line is far too long for a readings table; check the file")
    header = text.splitlines()[0]
    csv.field_size_limit(_LONGEST_LINE)
    reader = csv.reader(io.StringIO(text, newline=""), delimiter=_delimiter(header))
    rows = []
    try:
        for row in reader:
            rows.append(row)
            if len(rows) > MOST_ROWS:
                raise FormatError(f"{name}: more than {MOST_ROWS} rows; split the file")
    except csv.Error as error:
        place = f"{name}, row {reader.line_num}"
        raise FormatError(f"{place}: {error}; check the quotes there") from error
    return rows


def _columns(header: list[str], name: str) -> list[str]:
    columns = [cell.strip().lower() for cell in header]
    for needed in ("strip", "density"):
        if needed not in columns:
            raise FormatError(f"{name}, row 1: no column “{needed}”; add it to the header")
    if "log_h" not in columns and "ei" not in columns:
        raise FormatError(f"{name}, row 1: no column “log_h” and no “ei”; add one of the two")
    doubled = {c for c in columns if c and columns.count(c) > 1}
    if doubled:
        first = sorted(doubled)[0]
        raise FormatError(f"{name}, row 1: column “{first}” stands twice; rename one")
    return columns


def _row(number: int, cells: dict[str, str]) -> TableRow | list[CellProblem]:
    problems: list[CellProblem] = []
    numbers: dict[str, float | None] = {}
    for column, (low, high, remedy) in _NUMBERS.items():
        text = cells.get(column, "").strip()
        numbers[column] = None
        if text:
            try:
                numbers[column] = _number(text)
            except ValueError:
                problems.append(CellProblem(number, column, text, remedy))
                continue
            if not low <= (numbers[column] or 0.0) <= high:
                problems.append(CellProblem(number, column, text, remedy))
    if not cells.get("density", "").strip():
        problems.append(CellProblem(number, "density", "", _NUMBERS["density"][2]))
    strip = cells.get("strip", "").strip()
    if not strip:
        problems.append(CellProblem(number, "strip", "", "name the strip, such as A"))
    channel = cells.get("channel", "").strip().lower() or "visual"
    if channel not in CHANNELS:
        known = ", ".join(CHANNELS)
        problems.append(CellProblem(number, "channel", channel, f"use one of {known}"))
    if problems:
        return problems
    density = numbers.pop("density")
    return TableRow(
        row=number,
        strip=strip,
        frame=cells.get("frame", "").strip() or str(number - 1),
        density=density if density is not None else 0.0,
        channel=channel,
        note=cells.get("note", "").strip(),
        extra={k: v for k, v in cells.items() if k not in _KNOWN and k},
        **numbers,
    )


def parse_readings(text: str, name: str) -> ReadingsTable:
    """Read a table from text.

    Parameters
    ----------
    text : str
    name : str
        The file's name, for errors.

    Raises
    ------
    FormatError
        If there is no table at all; single bad cells become `problems` instead.
    """
    lines = _cells(text, name)
    columns = _columns(lines[0], name)
    rows: list[TableRow] = []
    problems: list[CellProblem] = []
    for number, line in enumerate(lines[1:], start=2):
        if not any(cell.strip() for cell in line):
            continue
        if len(line) > len(columns) and any(cell.strip() for cell in line[len(columns) :]):
            remedy = f"the header has {len(columns)} columns; quote the cell or fix the header"
            problems.append(CellProblem(number, str(len(line)), line[-1], remedy))
            continue
        read = _row(number, dict(zip(columns, line, strict=False)))
        if isinstance(read, TableRow):
            rows.append(read)
        else:
            problems += read
    if not rows and not problems:
        raise FormatError(f"{name}, row 2: no readings under the header; add a row a reading")
    extra = tuple(c for c in columns if c and c not in _KNOWN)
    return ReadingsTable(name, tuple(rows), tuple(problems), extra)


def read_readings_csv(path: Path) -> ReadingsTable:
    """Read a table from a file; errors as in `parse_readings`."""
    try:
        if path.stat().st_size > LARGEST_FILE:
            megabytes = LARGEST_FILE // 1_000_000
            raise FormatError(f"{path.name}: larger than {megabytes} MB; split the file")
        data = path.read_bytes()
    except OSError as error:
        reason = error.strerror or "cannot be read"
        raise FormatError(f"{path.name}: {reason.lower()}; check the path") from error
    return parse_readings(_decoded(data, path.name), path.name)

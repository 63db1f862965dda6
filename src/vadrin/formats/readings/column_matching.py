"""Matching the columns of a table to those of the readings table, and reading its rows."""

from __future__ import annotations

import re
from dataclasses import dataclass
from itertools import pairwise

from vadrin.core.interruption import checkpoint
from vadrin.core.wording import counted
from vadrin.errors import FormatError, UnmatchedColumnsError
from vadrin.formats.readings.cell_numbers import (
    grouped_number,
    number_of,
    uses_decimal_comma,
)
from vadrin.formats.readings.readings_table import CHANNELS, CellProblem, ReadingsTable, TableRow

KNOWN = (
    "strip", "frame", "time_min", "temperature_c", "log_h", "ei", "stops", "density",
    "channel", "note",
)  # fmt: skip
STRIP_DENSITY = "density of strip "
"""Begins the meaning of a column that holds the densities of one strip, named after it."""

_MINUTES = re.compile(r"(\d+(?:[.,]\d+)?)\s*min")
_NUMBERS = {
    "time_min": (0.01, 10_000.0, "give minutes, such as 8 or 8.5"),
    "temperature_c": (-10.0, 100.0, "give degrees Celsius, such as 20"),
    "log_h": (-20.0, 20.0, "give log10 lux seconds, or leave it empty for a blank frame"),
    "ei": (0.01, 1e7, "give an exposure index, such as 100, or leave it empty for a blank frame"),
    "stops": (-40.0, 40.0, "give stops from the meter reading, such as -2"),
    "density": (-0.05, 10.0, "give a density between 0 and 10, such as 0.49"),
}
_WHICH_EXPOSURE = (
    "give the stops from the meter, 0 for its own exposure; for a blank leave ei empty too"
)
_WHICH_EI = "give the EI the meter was set to; for a blank leave stops empty too"
_OFTEN = {
    "strip": "strip strips piece roll film",
    "frame": "frame frames step steps patch no nr number sample",
    "time_min": "time minutes min development developed",
    "temperature_c": "temperature temp celsius degrees",
    "log_h": "logh loge lgh lge lghs logexposure exposure",
    "ei": "ei index rated rating",
    "stops": "stops stop offset",
    "density": "density densities dens d reading",
    "channel": "channel filter status",
    "note": "note notes remark remarks comment comments",
}


@dataclass(frozen=True)
class RawTable:
    """A table as a file holds it, all cells as text, with the row numbers of the file.

    `decimal_comma` says that the file's own form leaves no other use for a comma in a number;
    `left_out` names what else the file holds.
    """

    source: str
    headers: tuple[str, ...]
    rows: tuple[tuple[int, tuple[str, ...]], ...]
    first_row: int = 1
    decimal_comma: bool = False
    left_out: tuple[str, ...] = ()


def exact_columns(raw: RawTable) -> tuple[str, ...]:
    """The meaning of every column where the header uses the readings table's own names.

    Raises
    ------
    UnmatchedError
        Naming the column that is missing or stands twice.
    """
    columns = tuple(cell.strip().lower() for cell in raw.headers)
    place = f"{raw.source}, row {raw.first_row}"
    for needed in ("strip", "density"):
        if needed not in columns:
            raise UnmatchedColumnsError(f"{place}: no column “{needed}”; add it to the header", raw)
    if "log_h" not in columns and "ei" not in columns:
        raise UnmatchedColumnsError(
            f"{place}: no column “log_h” and no “ei”; add one of the two", raw
        )
    doubled = {c for c in columns if c and columns.count(c) > 1}
    if doubled:
        first = sorted(doubled)[0]
        raise UnmatchedColumnsError(f"{place}: column “{first}” stands twice; rename one", raw)
    return columns


def guessed_columns(raw: RawTable) -> tuple[str, ...]:
    """What each column is likely to hold; empty where nothing is likely.

    Where no single column holds density, columns of plausible densities are taken for one
    strip each.
    """
    found: list[str] = []
    for header in raw.headers:
        words = [header.strip().lower(), *re.split(r"[\s_/()\[\].:-]+", header.strip().lower())]
        words.append("".join(words[1:]))
        words += [a + b for a, b in pairwise(words[1:-1])]
        meant = [k for k, often in _OFTEN.items() if k in words or set(words) & set(often.split())]
        if _MINUTES.search(header):
            meant = [m for m in meant if m != "time_min"]
        found.append(next((m for m in meant if m not in found), ""))
    if "density" not in found:
        for i, header in enumerate(raw.headers):
            if not found[i] and header.strip() and _like_densities(raw, i):
                found[i] = STRIP_DENSITY + header.strip()
    return tuple(found)


def _like_densities(raw: RawTable, column: int) -> bool:
    cells = [row[column] for _, row in raw.rows[:50] if column < len(row) and row[column].strip()]
    try:
        values = [number_of(cell) for cell in cells]
    except ValueError:
        return False
    return bool(values) and min(values) >= 0 and max(values) <= 6


def matching_faults(columns: tuple[str, ...]) -> str:
    """Why a matching does not make a readings table; empty where it does."""
    wide = [c for c in columns if c.startswith(STRIP_DENSITY)]
    if "density" not in columns and not wide:
        return "no column holds the densities"
    if "density" in columns and wide:
        return "densities stand in one column, or in a column a strip, not both"
    twice = {c for c in columns if c and columns.count(c) > 1}
    if twice:
        return f"two columns are matched to {sorted(twice)[0].replace('_', ' ')}"
    return ""


def table_of(raw: RawTable, columns: tuple[str, ...]) -> ReadingsTable:
    """Read the rows of a table whose columns are matched.

    Parameters
    ----------
    raw : RawTable
    columns : tuple of str
        For every header a name of `KNOWN`, a `STRIP_DENSITY` with a label, or another name,
        under which the column is kept.

    Raises
    ------
    FormatError
        If no row holds anything; single bad cells become `problems` instead.
    """
    # A column without a heading is kept under its place, like every other unknown one.
    names = tuple(
        c or h.strip().lower() or f"column {i}"
        for i, (c, h) in enumerate(zip(columns, raw.headers, strict=True), start=1)
    )
    commas = raw.decimal_comma or uses_decimal_comma(c for _, line in raw.rows for c in line)
    rows: list[TableRow] = []
    problems: list[CellProblem] = []
    for number, line in raw.rows:
        checkpoint()
        if not any(cell.strip() for cell in line):
            continue
        if len(line) > len(names) and any(cell.strip() for cell in line[len(names) :]):
            remedy = (
                f"the header has {counted(len(names), 'column')}; quote the cell or fix the header"
            )
            problems.append(CellProblem(number, str(len(line)), line[-1], remedy))
            continue
        for cells in _unfolded(dict(zip(names, line, strict=False))):
            read = _row(number, cells, commas)
            if isinstance(read, TableRow):
                rows.append(read)
            else:
                problems += read
    if not rows and not problems:
        place = f"{raw.source}, row {raw.first_row + 1}"
        raise FormatError(f"{place}: no readings under the header; add a row a reading")
    rows, split = _one_development_each(rows)
    problems += split
    extra = tuple(c for c in names if c and c not in KNOWN and not c.startswith(STRIP_DENSITY))
    return ReadingsTable(raw.source, tuple(rows), tuple(problems), extra, raw.left_out)


def _one_development_each(rows: list[TableRow]) -> tuple[list[TableRow], list[CellProblem]]:
    """The rows that agree with their strip on time and temperature, and what the others say."""
    kept, problems = [], []
    said: dict[tuple[str, str], float] = {}
    for row in rows:
        other = None
        for column in ("time_min", "temperature_c"):
            value = getattr(row, column)
            if value is not None and said.setdefault((row.strip, column), value) != value:
                first = said[row.strip, column]
                remedy = f"strip {row.strip} has {first:g} above; give each development a strip"
                other = CellProblem(row.row, column, f"{value:g}", remedy)
        if other is None:
            kept.append(row)
        else:
            problems.append(other)
    return kept, problems


def _unfolded(cells: dict[str, str]) -> list[dict[str, str]]:
    """One row a reading, where a row of the file holds a density for each of many strips."""
    wide = [c for c in cells if c.startswith(STRIP_DENSITY)]
    if not wide:
        if "strip" not in cells:
            return [{**cells, "strip": "A"}]
        return [cells]
    shared = {k: v for k, v in cells.items() if k not in wide}
    rows = []
    for column in wide:
        label = column.removeprefix(STRIP_DENSITY)
        # A heading such as "B, 8 min" tells the strip's time too.
        said = _MINUTES.search(label)
        time = {"time_min": said[1]} if said and "time_min" not in shared else {}
        if cells[column].strip():
            rows.append({**shared, **time, "strip": label, "density": cells[column]})
    return rows


def _numbers(
    number: int, cells: dict[str, str], commas: bool
) -> dict[str, float | None] | list[CellProblem]:
    problems: list[CellProblem] = []
    numbers: dict[str, float | None] = {}
    for column, (low, high, remedy) in _NUMBERS.items():
        text = cells.get(column, "").strip()
        numbers[column] = None
        if not text:
            continue
        try:
            value = number_of(text)
        except ValueError:
            problems.append(CellProblem(number, column, text, remedy))
            continue
        numbers[column] = value
        other = None if commas else grouped_number(text)
        if other is not None and low <= other <= high:
            remedy = f"may be {other:.0f} or {value:g}; write it without a comma, or with a point"
            problems.append(CellProblem(number, column, text, remedy))
        elif not low <= value <= high:
            problems.append(CellProblem(number, column, text, remedy))
    if not cells.get("density", "").strip():
        problems.append(CellProblem(number, "density", "", _NUMBERS["density"][2]))
    return problems or numbers


def _unsaid_stops(cells: dict[str, str]) -> bool:
    """Whether a row tells the meter's EI, but not how far from it the frame was exposed."""
    told = cells.get("ei", "").strip() and not cells.get("log_h", "").strip()
    return bool(told) and "stops" in cells and not cells["stops"].strip()


def _called_blank(cells: dict[str, str]) -> bool:
    """Whether a row calls its frame a blank."""
    said = f"{cells.get('frame', '')} {cells.get('note', '')}".lower()
    return bool(re.search(r"\b(b\d*|blank\w*|base|fog|b\+f)\b", said))


def _stops_from_nothing(cells: dict[str, str]) -> bool:
    """Whether a row tells stops from a meter reading that it does not tell."""
    told = cells.get("stops", "").strip() and not cells.get("log_h", "").strip()
    return bool(told) and not cells.get("ei", "").strip()


def _row(number: int, cells: dict[str, str], commas: bool) -> TableRow | list[CellProblem]:
    numbers = _numbers(number, cells, commas)
    problems = numbers if isinstance(numbers, list) else []
    strip = cells.get("strip", "").strip()
    if not any(letter.isprintable() for letter in strip):
        problems.append(CellProblem(number, "strip", "", "name the strip, such as A"))
    unsaid = _unsaid_stops(cells)
    if unsaid and not _called_blank(cells):
        problems.append(CellProblem(number, "stops", "", _WHICH_EXPOSURE))
    elif unsaid and not isinstance(numbers, list):
        numbers["ei"] = None
    if _stops_from_nothing(cells) and not _called_blank(cells):
        problems.append(CellProblem(number, "ei", "", _WHICH_EI))
    channel = cells.get("channel", "").strip().lower() or "visual"
    if channel not in CHANNELS:
        known = ", ".join(CHANNELS)
        problems.append(CellProblem(number, "channel", channel, f"use one of {known}"))
    if problems or isinstance(numbers, list):
        return problems
    density = numbers.pop("density")
    return TableRow(
        row=number,
        strip=strip,
        frame=cells.get("frame", "").strip() or str(number - 1),
        density=density if density is not None else 0.0,
        channel=channel,
        note=cells.get("note", "").strip(),
        extra={k: v for k, v in cells.items() if k not in KNOWN and k},
        **numbers,
    )

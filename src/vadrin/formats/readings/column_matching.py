"""Matching the columns of a table to those of the readings table, and reading its rows."""

from __future__ import annotations

import gc
import re
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass
from itertools import pairwise
from typing import Protocol

from vadrin.core.interruption import checkpoint
from vadrin.core.wording import counted
from vadrin.errors import FormatError, UnmatchedColumnsError
from vadrin.formats.readings.cell_numbers import number_of, uses_decimal_comma
from vadrin.formats.readings.readings_table import CellProblem, ReadingsTable, TableRow
from vadrin.formats.readings.row_reading import KNOWN, RowReader

STRIP_DENSITY = "density of strip "
"""Begins the meaning of a column that holds the densities of one strip, named after it."""

_BETWEEN_LOOKS = 255
_MINUTES = re.compile(r"(\d+(?:[.,]\d+)?)\s*min")
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


Numbered = tuple[int, Sequence[str]]


class Rows(Protocol):
    """Rows with their numbers, as often as they are asked for."""

    def __iter__(self) -> Iterator[Numbered]: ...

    def __getitem__(self, part: slice, /) -> Sequence[Numbered]: ...


@dataclass(frozen=True)
class RawTable:
    """A table as a file holds it, all cells as text, with the row numbers of the file.

    `decimal_comma` says that commas in its numbers can only be decimal ones, None that nobody
    has looked yet; `left_out` names what else the file holds.
    """

    source: str
    headers: tuple[str, ...]
    rows: Rows
    first_row: int = 1
    decimal_comma: bool | None = None
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
    commas = raw.decimal_comma
    if commas is None:
        commas = uses_decimal_comma(c for _, line in raw.rows for c in line)
    with _no_search_for_cycles():
        rows, problems = _read_rows(raw, names, RowReader(names, commas))
    if not rows and not problems:
        place = f"{raw.source}, row {raw.first_row + 1}"
        raise FormatError(f"{place}: no readings under the header; add a row a reading")
    rows, split = one_development_each(rows)
    problems += split
    extra = tuple(c for c in names if c and c not in KNOWN and not c.startswith(STRIP_DENSITY))
    return ReadingsTable(raw.source, tuple(rows), tuple(problems), extra, raw.left_out)


@contextmanager
def _no_search_for_cycles() -> Iterator[None]:
    """Rows hold no cycles; looking through a million of them again and again takes a third of
    the time they take."""
    searching = gc.isenabled()
    gc.disable()
    try:
        yield
    finally:
        if searching:
            gc.enable()


def _read_rows(
    raw: RawTable, names: tuple[str, ...], reader: RowReader
) -> tuple[list[TableRow], list[CellProblem]]:
    """Every row that says something, or what is wrong with it."""
    rows: list[TableRow] = []
    problems: list[CellProblem] = []
    wide = [name for name in names if name.startswith(STRIP_DENSITY)]
    plain = not wide and "strip" in names
    for number, line in raw.rows:
        if not number & _BETWEEN_LOOKS:
            checkpoint()
        known = reader.read_plain(number, line) if plain else None
        if known is not None:
            rows.append(known)
            continue
        if not any(map(str.strip, line)):
            continue
        if len(line) > len(names) and any(cell.strip() for cell in line[len(names) :]):
            remedy = (
                f"the header has {counted(len(names), 'column')}; fix the header or quote the cell"
            )
            problems.append(CellProblem(number, str(len(line)), line[-1], remedy))
            continue
        cells = dict(zip(names, line, strict=False))
        for each in (cells,) if plain else _unfolded(cells, wide):
            read = reader.read(number, each)
            if isinstance(read, TableRow):
                rows.append(read)
            else:
                problems += read
    return rows, problems


def one_development_each(rows: list[TableRow]) -> tuple[list[TableRow], list[CellProblem]]:
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


def _unfolded(cells: dict[str, str], wide: list[str]) -> list[dict[str, str]]:
    """One row a reading, where a row of the file holds a density for each of many strips."""
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
        if cells.get(column, "").strip():
            rows.append({**shared, **time, "strip": label, "density": cells[column]})
    return rows

"""Readings from a file of any kind Vadrin knows, told by its contents; and to one, by its name."""

from __future__ import annotations

import re
from collections.abc import Callable
from pathlib import Path

from vadrin.errors import FormatError
from vadrin.formats.readings.column_matching import RawTable, exact_columns, table_of
from vadrin.formats.readings.csv_table import bytes_of, csv_text, raw_of_text, text_of
from vadrin.formats.readings.readings_table import ReadingsTable
from vadrin.formats.readings.row_reading import KNOWN
from vadrin.formats.whole_file import write_whole

TEXT = (".csv", ".tsv", ".txt")
CGATS = (".cgats", ".cgt", ".it8", ".ti3")
SUFFIXES = (*TEXT, *CGATS, ".xlsx", ".ods", ".json")
_ZIP = b"PK\x03\x04"
_CONTROL = re.compile(r"[\x00-\x08\x0b\x0c\x0e-\x1f\ufffe\uffff]|[\ud800-\udfff]")

Match = Callable[[RawTable], tuple[str, ...]]


def read_readings(path: Path, match: Match = exact_columns) -> ReadingsTable:
    """Read a table of readings.

    Parameters
    ----------
    path : Path
    match : callable
        Gives the meaning of each column of a spreadsheet or of delimited text.

    Raises
    ------
    UnmatchedError
        If the file is whole but its columns go by other names.
    FormatError
        If it cannot be read.
    """
    name, data = path.name, bytes_of(path)
    if data.startswith(_ZIP):
        from vadrin.formats.readings import spreadsheet_reader

        read = spreadsheet_reader.raw_of_ods if _is_ods(data) else spreadsheet_reader.raw_of_xlsx
        raw = read(path)
        return table_of(raw, match(raw))
    if path.suffix.lower() in (".xlsx", ".ods"):
        raise FormatError(f"{name}: not a spreadsheet, or cut short; save it anew")
    text = text_of(data, name)
    if path.suffix.lower() == ".json" or text.lstrip().startswith("{"):
        from vadrin.formats.readings.json_table import parse_readings_json

        return parse_readings_json(text, name)
    from vadrin.formats.readings.cgats_syntax import looks_like_cgats

    if path.suffix.lower() in CGATS or looks_like_cgats(text):
        from vadrin.formats.readings.cgats_table import parse_cgats_readings

        return parse_cgats_readings(text, name)
    raw = raw_of_text(text, name)
    return table_of(raw, match(raw))


def _is_ods(data: bytes) -> bool:
    """Whether an archive says at its start that it is an OpenDocument."""
    return b"mimetypeapplication/vnd.oasis.opendocument" in data[:200]


def cells_of(table: ReadingsTable) -> list[list[str | float | None]]:
    """Header and rows of a table, its unknown columns after the known ones."""
    cells: list[list[str | float | None]] = [[*KNOWN, *table.extra_columns]]
    for r in table.rows:
        known = (
            r.strip,
            r.frame,
            r.time_min,
            r.temperature_c,
            r.log_h,
            r.ei,
            r.stops_told,
            r.density,
            r.channel,
            r.note,
        )
        line = [*known, *(r.extra.get(c, "") for c in table.extra_columns)]
        cells.append([_CONTROL.sub(" ", v) if isinstance(v, str) else v for v in line])
    return cells


def write_readings(table: ReadingsTable, path: Path) -> None:
    """Write a table of readings; a file that stands there is replaced only by a whole one.

    Raises
    ------
    FormatError
        If the kind of file is unknown or it cannot be written.
    """
    suffix = path.suffix.lower()
    if suffix not in SUFFIXES:
        known = ", ".join(s.removeprefix(".") for s in SUFFIXES)
        raise FormatError(f"{path.name}: no known kind of file; use one of {known}")
    try:
        write_whole(path, _content(table, suffix))
    except OSError as error:
        reason = (error.strerror or "cannot be written").lower()
        raise FormatError(f"{path}: {reason}; choose another place") from error


def _content(table: ReadingsTable, suffix: str) -> bytes | str:
    cells = cells_of(table)
    if suffix in (".xlsx", ".ods"):
        from vadrin.formats.readings.spreadsheet_writer import ods_of, xlsx_of

        return (xlsx_of if suffix == ".xlsx" else ods_of)(cells)
    if suffix == ".json":
        from vadrin.formats.readings.json_table import readings_json_text

        return readings_json_text(table, cells)
    if suffix in CGATS:
        from vadrin.formats.readings.cgats_table import cgats_text

        return cgats_text(table)
    return csv_text(cells, "\t" if suffix == ".tsv" else ",")

"""The kinds of file readings come in and go out as: each declared once, in `FORMATS`.

What is asked for in dialogs, what a command takes by a file's name, what a file is told by and
how it is written all follow from the declaration.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path

from vadrin.errors import FormatError
from vadrin.formats.readings import spreadsheet_reader
from vadrin.formats.readings.cgats_syntax import looks_like_cgats
from vadrin.formats.readings.cgats_table import cgats_text, parse_cgats_readings
from vadrin.formats.readings.column_matching import RawTable, table_of
from vadrin.formats.readings.csv_table import csv_text, raw_of_text, text_of
from vadrin.formats.readings.json_table import parse_readings_json, readings_json_text
from vadrin.formats.readings.readings_table import ReadingsTable
from vadrin.formats.readings.row_reading import KNOWN
from vadrin.formats.readings.spreadsheet_writer import ods_of, xlsx_of

Match = Callable[[RawTable], tuple[str, ...]]
"""Gives the meaning of each column of a table whose columns may go by other names."""
_ZIP = b"PK\x03\x04"
_ODS = b"mimetypeapplication/vnd.oasis.opendocument"
_BEGINNING = 200_000
_CONTROL = re.compile(r"[\x00-\x08\x0b\x0c\x0e-\x1f\ufffe\uffff]|[\ud800-\udfff]")


@dataclass(frozen=True)
class FileFormat:
    """One kind of file.

    Attributes
    ----------
    name : str
    suffixes : tuple of str
        In small letters; a file of one of these names is written so.
    recognised : callable
        Whether contents are of this kind, whatever the file is called.
    read : callable
        From a path, its contents and a match of columns.
    content : callable
        What a table is written as, to a file of a suffix.
    told_by_name : bool
        Whether a file of such a name is read so, whatever its contents look like.
    """

    name: str
    suffixes: tuple[str, ...]
    recognised: Callable[[bytes], bool]
    read: Callable[[Path, bytes, Match], ReadingsTable]
    content: Callable[[ReadingsTable, str], bytes | str]
    told_by_name: bool = True


def cells_of(table: ReadingsTable) -> list[list[str | float | None]]:
    """Header and rows of a table, its unknown columns after the known ones."""
    cells: list[list[str | float | None]] = [[*KNOWN, *_headings(table.extra_columns)]]
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


def _headings(columns: tuple[str, ...]) -> list[str]:
    """Names of unknown columns as any file can hold them, each another."""
    made: list[str] = []
    for column in columns:
        plain = name = _CONTROL.sub(" ", column).strip() or "column"
        number = 1
        while name in (*made, *KNOWN):
            number += 1
            name = f"{plain} {number}"
        made.append(name)
    return made


def _is_xlsx(data: bytes) -> bool:
    return data.startswith(_ZIP) and not _is_ods(data)


def _is_ods(data: bytes) -> bool:
    """Whether an archive says at its start that it is an OpenDocument."""
    return data.startswith(_ZIP) and _ODS in data[:200]


def _is_json(data: bytes) -> bool:
    return data[:_BEGINNING].lstrip(b"\xef\xbb\xbf \t\r\n").startswith(b"{")


def _is_cgats(data: bytes) -> bool:
    return looks_like_cgats(data[:_BEGINNING].decode("utf-8", "replace").lstrip("\ufeff"))


def _read_spreadsheet(path: Path, data: bytes, match: Match) -> ReadingsTable:
    if not data.startswith(_ZIP):
        raise FormatError(f"{path.name}: not a spreadsheet, or cut short; save it again")
    read = spreadsheet_reader.raw_of_ods if _is_ods(data) else spreadsheet_reader.raw_of_xlsx
    raw = read(path)
    return table_of(raw, match(raw))


def _read_json(path: Path, data: bytes, _match: Match) -> ReadingsTable:
    return parse_readings_json(text_of(data, path.name), path.name)


def _read_cgats(path: Path, data: bytes, _match: Match) -> ReadingsTable:
    return parse_cgats_readings(text_of(data, path.name), path.name)


def _read_text(path: Path, data: bytes, match: Match) -> ReadingsTable:
    raw = raw_of_text(text_of(data, path.name), path.name)
    return table_of(raw, match(raw))


def _xlsx(table: ReadingsTable, _suffix: str) -> bytes:
    return xlsx_of(cells_of(table))


def _ods(table: ReadingsTable, _suffix: str) -> bytes:
    return ods_of(cells_of(table))


def _json(table: ReadingsTable, _suffix: str) -> str:
    return readings_json_text(table, cells_of(table))


def _cgats(table: ReadingsTable, _suffix: str) -> str:
    return cgats_text(table)


def _text(table: ReadingsTable, suffix: str) -> str:
    return csv_text(cells_of(table), "\t" if suffix == ".tsv" else ",")


FORMATS = (
    FileFormat("XLSX", (".xlsx",), _is_xlsx, _read_spreadsheet, _xlsx),
    FileFormat("ODS", (".ods",), _is_ods, _read_spreadsheet, _ods),
    FileFormat("JSON", (".json",), _is_json, _read_json, _json),
    FileFormat(
        "CGATS",
        (".cgats", ".cgt", ".it8", ".cie", ".ti2", ".ti3"),
        _is_cgats,
        _read_cgats,
        _cgats,
        told_by_name=False,
    ),
    FileFormat(
        "text", (".csv", ".tsv", ".txt"), lambda _: True, _read_text, _text, told_by_name=False
    ),
)
"""The last takes whatever no other is told by."""


def suffixes() -> tuple[str, ...]:
    """Every suffix a table can be written under."""
    return tuple(suffix for each in FORMATS for suffix in each.suffixes)


def format_of_contents(suffix: str, data: bytes) -> FileFormat:
    """What a file is: by what it holds, or else by its name."""
    told = (each for each in FORMATS[:-1] if each.recognised(data))
    named = (each for each in FORMATS[:-1] if each.told_by_name and suffix in each.suffixes)
    return next(told, None) or next(named, None) or FORMATS[-1]


def format_of_name(suffix: str) -> FileFormat | None:
    """What a file of a name is written as; None where no format has that."""
    return next((each for each in FORMATS if suffix in each.suffixes), None)

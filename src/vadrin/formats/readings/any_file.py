"""Readings from a file of any kind Vadrin knows, told by its contents; and to one, by its name."""

from __future__ import annotations

from pathlib import Path

from vadrin.errors import FormatError
from vadrin.formats.readings.column_matching import exact_columns
from vadrin.formats.readings.csv_table import bytes_of
from vadrin.formats.readings.file_formats import Match, format_of_contents, format_of_name, suffixes
from vadrin.formats.readings.readings_table import ReadingsTable
from vadrin.formats.whole_file import write_whole


def read_readings(path: Path, match: Match = exact_columns) -> ReadingsTable:
    """Read a table of readings.

    Parameters
    ----------
    path : Path
    match : callable
        Gives the meaning of each column of a spreadsheet or of delimited text.

    Raises
    ------
    UnmatchedColumnsError
        If the file is whole but its columns go by other names.
    FormatError
        If it cannot be read.
    """
    data = bytes_of(path)
    return format_of_contents(path.suffix.lower(), data).read(path, data, match)


def write_readings(table: ReadingsTable, path: Path) -> None:
    """Write a table of readings; a file that stands there is replaced only by a whole one.

    Raises
    ------
    FormatError
        If the kind of file is unknown or it cannot be written.
    """
    suffix = path.suffix.lower()
    written = format_of_name(suffix)
    if written is None:
        known = ", ".join(s.removeprefix(".") for s in suffixes())
        raise FormatError(f"{path.name}: no known kind of file; use one of {known}")
    try:
        write_whole(path, written.content(table, suffix))
    except OSError as error:
        reason = (error.strerror or "cannot be written").lower()
        raise FormatError(f"{path}: {reason}; choose another place") from error

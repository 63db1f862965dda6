"""The readings table as delimited text: commas, semicolons or tabs, decimal point or comma."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterator
from itertools import islice
from pathlib import Path

from vadrin.core.interruption import checkpoint
from vadrin.errors import FormatError
from vadrin.formats.readings.cell_numbers import uses_decimal_comma
from vadrin.formats.readings.column_matching import RawTable

LARGEST_FILE = 80_000_000
MOST_CSV_ROWS = 1_000_000
MOST_CELLS = 12_000_000
_LONGEST_LINE = 100_000
_BETWEEN_LOOKS = 255


def bytes_of(path: Path) -> bytes:
    """All of a file that is not too large.

    Raises
    ------
    FormatError
        If it cannot be read or is too large.
    """
    try:
        # Pipes and devices never end; what is read is bounded even where a file grows meanwhile.
        if path.exists() and not path.is_file():
            raise FormatError(f"{path.name}: a directory or a device, no file; check the path")
        with path.open("rb") as file:
            data = file.read(LARGEST_FILE + 1)
        if len(data) > LARGEST_FILE:
            megabytes = LARGEST_FILE // 1_000_000
            raise FormatError(f"{path.name}: larger than {megabytes} MB; split the file")
        return data
    except OSError as error:
        reason = error.strerror or "cannot be read"
        raise FormatError(f"{path.name}: {reason.lower()}; check the path") from error


def text_of(data: bytes, name: str) -> str:
    """A file's text.

    Raises
    ------
    FormatError
        If it is not Unicode text, naming the row.
    """
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


def raw_of_text(text: str, name: str) -> RawTable:
    """The cells of delimited text.

    Raises
    ------
    FormatError
        If there is no table.
    """
    if not text.strip():
        raise FormatError(f"{name}, row 1: the file is empty; it needs a header row and readings")
    lines = text.splitlines()
    if max(map(len, lines)) > _LONGEST_LINE:
        raise FormatError(f"{name}: a line is far too long for a readings table; check the file")
    csv.field_size_limit(_LONGEST_LINE)
    rows = DelimitedRows(text, _delimiter(lines[0]))
    cells, number, commas = 0, 0, rows.mark == ";"
    header: tuple[str, ...] = ()
    try:
        for number, row in enumerate(rows.everything(), start=1):
            if not number & _BETWEEN_LOOKS:
                checkpoint()
            header = header or tuple(row)
            cells += len(row)
            commas = commas or uses_decimal_comma(row)
            if number > MOST_CSV_ROWS + 1:
                raise FormatError(f"{name}: more than {MOST_CSV_ROWS} rows; split the file")
            if cells > MOST_CELLS:
                raise FormatError(f"{name}: more than {MOST_CELLS} cells; keep the readings")
    except csv.Error as error:
        raise FormatError(f"{name}, row {number + 1}: {error}; check the quotes there") from error
    return RawTable(name, header, rows, decimal_comma=commas)


class DelimitedRows:
    """The rows under the header of delimited text, split anew whenever they are asked for.

    A million rows of cells would not fit where their text does.
    """

    def __init__(self, text: str, mark: str) -> None:
        self._text, self.mark = text, mark

    def everything(self) -> Iterator[list[str]]:
        """All rows, with the header."""
        return csv.reader(io.StringIO(self._text, newline=""), delimiter=self.mark)

    def __iter__(self) -> Iterator[tuple[int, list[str]]]:
        return islice(enumerate(self.everything(), start=1), 1, None)

    def __getitem__(self, part: slice) -> list[tuple[int, list[str]]]:
        return list(islice(iter(self), part.start, part.stop))


def csv_text(cells: list[list[str | float | None]], mark: str = ",") -> str:
    """Rows as delimited text that reads back to the same values."""
    out = io.StringIO(newline="")
    # The writer quotes what ends lines; so a lone CR in a note is quoted too, and then "\n" is
    # put at the ends of rows, where no cell can hold the pair.
    writer = csv.writer(out, delimiter=mark, lineterminator=_END)
    writer.writerows([["" if c is None else c for c in row] for row in cells])
    return out.getvalue().replace(_END, "\n")


_END = "\r\x00\n"

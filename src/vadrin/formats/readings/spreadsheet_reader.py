"""The readings table from a sheet of an XLSX or ODS file."""

from __future__ import annotations

import io
import warnings
import zipfile
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from vadrin.core.interruption import checkpoint
from vadrin.errors import FormatError
from vadrin.formats.readings.column_matching import RawTable
from vadrin.formats.readings.xlsx_guard import MOST_COLUMNS, refuse_strange_rows
from vadrin.formats.readings.zip_guard import look_over

MOST_SHEET_ROWS = 40_000
MOST_SHEET_CELLS = 3_000_000
_ODS = {
    "table": "{urn:oasis:names:tc:opendocument:xmlns:table:1.0}",
    "office": "{urn:oasis:names:tc:opendocument:xmlns:office:1.0}",
    "style": "{urn:oasis:names:tc:opendocument:xmlns:style:1.0}",
    "text": "{urn:oasis:names:tc:opendocument:xmlns:text:1.0}",
}
_Rows = list[tuple[int, tuple[str, ...]]]


def _shown(value: object) -> str:
    if value is None:
        return ""
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, float):
        return repr(value)
    return str(value)


def _too_wide(name: str, row: int) -> FormatError:
    return FormatError(f"{name}, row {row}: more than {MOST_COLUMNS} columns; keep the readings")


def _formula(name: str, row: int, column: int) -> FormatError:
    return FormatError(
        f"{name}, row {row}, column {column}: a formula; paste the sheet as values and save it"
    )


def _trimmed(cells: list[str]) -> tuple[str, ...]:
    while cells and not cells[-1].strip():
        cells.pop()
    return tuple(cells)


def _collect(name: str, numbered: Iterator[tuple[int, list[str]]]) -> _Rows:
    rows: _Rows = []
    count = 0
    for number, cells in numbered:
        checkpoint()
        kept = _trimmed(cells)
        count += len(kept)
        if kept:
            rows.append((number, kept))
        if len(rows) > MOST_SHEET_ROWS:
            raise FormatError(f"{name}: more than {MOST_SHEET_ROWS} rows; split the sheet")
        if count > MOST_SHEET_CELLS:
            raise FormatError(f"{name}: more than {MOST_SHEET_CELLS} cells; keep the readings")
    return rows


@dataclass
class _Sheet:
    """One sheet: its title, whether it is shown, its rows, and why they can't be read."""

    title: str
    shown: bool
    rows: _Rows
    fault: FormatError | None = None


def _sheet(name: str, title: str, shown: bool, numbered: Iterator[tuple[int, list[str]]]) -> _Sheet:
    """Read a sheet; what is wrong with it only matters if it is the one that is meant."""
    try:
        return _Sheet(title, shown, _collect(name, numbered))
    except FormatError as fault:
        return _Sheet(title, shown, [], fault)


def _raw(name: str, sheets: list[_Sheet]) -> RawTable:
    """The sheet called readings, or the first shown one that holds anything; others are named."""
    filled = [sheet for sheet in sheets if sheet.rows or sheet.fault]
    if not filled:
        raise FormatError(f"{name}, row 1: the sheet is empty; it needs a header row and readings")
    shown = [sheet for sheet in filled if sheet.shown]
    if not shown:
        raise FormatError(f"{name}: its sheets are all hidden; show the one with the readings")
    called = [s for s in shown if s.title.strip().lower() == "readings"]
    chosen = (called or shown)[0]
    left_out = tuple(
        f"the {'' if s.shown else 'hidden '}sheet “{s.title}”" for s in filled if s is not chosen
    )
    if chosen.fault is not None:
        raise chosen.fault
    first, header = chosen.rows[0]
    return RawTable(name, header, tuple(chosen.rows[1:]), first, left_out=left_out)


def raw_of_xlsx(path: Path) -> RawTable:
    """The cells of the first filled sheet of an XLSX file.

    Raises
    ------
    FormatError
        In one line; also for formulas, whose values a file cannot vouch for.
    """
    look_over(path)
    name = path.name
    try:
        refuse_strange_rows(path)
        # Not by its path: the library would judge the file by its ending.
        data = io.BytesIO(path.read_bytes())
        with warnings.catch_warnings():
            warnings.simplefilter("ignore")
            sheets = _xlsx_sheets(data, name)
    except FormatError:
        raise
    except Exception as error:  # the library raises errors of any kind for damaged files
        raise FormatError(f"{name}: not a readable XLSX file; save it again") from error
    return _raw(name, sheets)


def _xlsx_sheets(data: io.BytesIO, name: str) -> list[_Sheet]:
    import openpyxl

    book = openpyxl.load_workbook(data, read_only=True, keep_links=False)
    sheets: list[_Sheet] = []
    for sheet in book.worksheets:
        sheet.reset_dimensions()
        shown = sheet.sheet_state == "visible"
        sheets.append(_sheet(name, sheet.title, shown, _xlsx_rows(sheet, name)))
    book.close()
    return sheets


def _xlsx_rows(sheet: Any, name: str) -> Iterator[tuple[int, list[str]]]:
    for number, row in enumerate(sheet.iter_rows(max_col=MOST_COLUMNS), start=1):
        for column, cell in enumerate(row, start=1):
            if cell.data_type == "f":
                raise _formula(name, number, column)
        yield number, [_shown(cell.value) for cell in row]


def raw_of_ods(path: Path) -> RawTable:
    """The cells of the first filled sheet of an ODS file; errors as in `raw_of_xlsx`."""
    from defusedxml.ElementTree import iterparse

    look_over(path)
    name = path.name
    sheets: list[_Sheet] = []
    hidden: set[str] = set()
    try:
        with zipfile.ZipFile(path) as archive, archive.open("content.xml") as content:
            events = iterparse(content, events=("start", "end"), forbid_dtd=True)
            for event, element in events:
                if event == "end" and element.tag == _ODS["style"] + "style":
                    hidden |= _hiding(element)
                if event == "start" and element.tag == _ODS["table"] + "table":
                    title = element.get(_ODS["table"] + "name", "")
                    shown = element.get(_ODS["table"] + "style-name", "") not in hidden
                    sheets.append(_sheet(name, title, shown, _ods_rows(events, name)))
    except FormatError:
        raise
    except Exception as error:  # damaged XML and damaged archives raise errors of any kind
        raise FormatError(f"{name}: not a readable ODS file; save it again") from error
    return _raw(name, sheets)


def _hiding(style: Any) -> set[str]:
    """The name of a style that hides the sheets that have it."""
    for properties in style:
        if properties.get(_ODS["table"] + "display") == "false":
            return {style.get(_ODS["style"] + "name", "")}
    return set()


def _ods_rows(events: Any, name: str) -> Iterator[tuple[int, list[str]]]:
    """Rows of one sheet until it ends; each element is let go once it is read."""
    number = 0
    for event, element in events:
        if event == "end" and element.tag == _ODS["table"] + "table":
            return
        if event != "end" or element.tag != _ODS["table"] + "table-row":
            continue
        cells = _ods_cells(element, name, number + 1)
        repeated = _repeats(element, "rows", name, number + 1)
        if not any(cells):
            number += repeated
            element.clear()
            continue
        if repeated > MOST_SHEET_ROWS:
            raise FormatError(f"{name}: more than {MOST_SHEET_ROWS} rows; split the sheet")
        for _ in range(repeated):
            number += 1
            yield number, list(cells)
        element.clear()


def _repeats(element: Any, what: str, name: str, row: int) -> int:
    text = element.get(f"{_ODS['table']}number-{what}-repeated", "1")
    if not text.isdigit() or len(text) > 9:
        raise FormatError(f"{name}, row {row}: not a readable ODS file; save it again")
    return int(text)


def _ods_cells(row: Any, name: str, number: int) -> list[str]:
    cells: list[str] = []
    for cell in row:
        if not cell.tag.startswith(_ODS["table"]):
            continue
        if cell.get(_ODS["table"] + "formula") is not None:
            raise _formula(name, number, len(cells) + 1)
        value = _ods_value(cell)
        count = _repeats(cell, "columns", name, number)
        if value and len(cells) + count > MOST_COLUMNS:
            raise _too_wide(name, number)
        cells += [value] * min(count, MOST_COLUMNS)
    return cells[:MOST_COLUMNS]


def _ods_value(cell: Any) -> str:
    kind = cell.get(_ODS["office"] + "value-type", "string")
    if kind in ("float", "percentage", "currency"):
        return str(cell.get(_ODS["office"] + "value", ""))
    return "\n".join("".join(p.itertext()) for p in cell.findall(_ODS["text"] + "p"))

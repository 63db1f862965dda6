"""Rows and cells of an XLSX sheet looked over before its library trusts their numbers.

The library makes a row for every number it is told, and drops a row whose number came before.
"""

from __future__ import annotations

import re
import zipfile
from pathlib import Path
from typing import Any

from vadrin.errors import FormatError

MOST_COLUMNS = 400
_LAST_ROW = 1_048_576
_SHEET = re.compile(r"xl/worksheets/[^/]+\.xml", re.IGNORECASE)
_CELL = re.compile(r"([A-Z]{1,3})([1-9]\d{0,6})")


def refuse_strange_rows(path: Path) -> None:
    """Refuse rows or cells that stand twice, out of order or beyond what a sheet can have.

    Raises
    ------
    FormatError
        In one line, naming the row.
    """
    from defusedxml.ElementTree import iterparse

    with zipfile.ZipFile(path) as archive:
        for part in archive.namelist():
            if _SHEET.fullmatch(part):
                with archive.open(part) as content:
                    _look_over(iterparse(content, events=("start", "end")), path.name)


def _look_over(events: Any, name: str) -> None:
    row = column = 0
    for event, element in events:
        tag = element.tag.rpartition("}")[2]
        if event == "start" and tag == "row":
            row, column = _row_number(element.get("r"), row, name), 0
        elif event == "start" and tag == "c":
            column = _column_number(element.get("r"), row, column, name)
        elif event == "end" and tag == "c":
            if column > MOST_COLUMNS and len(element):
                raise FormatError(
                    f"{name}, row {row}: more than {MOST_COLUMNS} columns; keep the readings"
                )
        elif event == "end" and tag == "row":
            element.clear()


def _row_number(said: str | None, before: int, name: str) -> int:
    number = before + 1 if said is None else int(said) if re.fullmatch(r"\d{1,10}", said) else 0
    if number <= before:
        raise FormatError(
            f"{name}, row {before}: row {number} comes after it; save the sheet again"
        )
    if number > _LAST_ROW:
        raise FormatError(f"{name}: a row numbered {number}; no sheet has so many, save it again")
    return number


def _column_number(said: str | None, row: int, before: int, name: str) -> int:
    if said is None:
        return before + 1
    found = _CELL.fullmatch(said)
    number = 0
    for letter in found[1] if found else "":
        number = number * 26 + ord(letter) - 64
    if number <= before or (found and int(found[2]) != row):
        raise FormatError(
            f"{name}, row {row}: a cell “{said[:12]}” out of its place; save it again"
        )
    return number

"""Rows of older formats as rows of the present one, for the file and for its JSON alike."""

from __future__ import annotations

import json
import re
from typing import Any

Row = dict[str, Any]

_NUMBER = re.compile(r"[-+]?\d+(?:\.\d+)?")
_FILM = re.compile(r"(?P<amount>\d+(?:\.\d+)?)\s*(?P<unit>[a-z ]*?)(?:\s+after\s+(?P<taken>\d+))?")


def numbers_of_text(words: str) -> list[float]:
    """Numbers that were kept as they were typed: ``0, 1, 2``, with commas or semicolons."""
    plain = words.replace("−", "-").replace(";", " ").replace(", ", " ")
    pieces = plain.replace(",", " ").split()
    return [float(p) for p in pieces if _NUMBER.fullmatch(p)]


def film_of_text(words: str) -> tuple[float | None, str, int]:
    """Amount, unit and frames taken of film kept as typed: ``36 frames after 14``."""
    found = _FILM.fullmatch(words.strip().lower().replace(",", "."))
    if not found:
        return None, "frames", 0
    unit = found["unit"].strip()
    name = "frames"
    if unit.startswith("sheet"):
        name = "sheets"
    elif unit.startswith("m"):
        name = "cine metres" if "cine" in unit else "metres"
    return float(found["amount"]), name, int(found["taken"] or 0)


def names_of_text(words: str) -> list[str]:
    """Names that were kept as typed, with commas, semicolons or ``and`` between them."""
    return [p.strip() for p in re.split(r";|,\s+|\s+and\s+", words) if p.strip()]


def _test_of_format_3(row: Row) -> Row:
    made = dict(row)
    amount, unit, taken = film_of_text(made.pop("film_form", ""))
    made |= {"film_amount": amount, "film_unit": unit, "film_taken": taken}
    made["turned_first"] = made.pop("prefer", "shutter") or "shutter"
    made["repeat_first"] = made.pop("check_last", False)
    made["second_factor"] = numbers_of_text(made.pop("second", ""))
    made["compared_names"] = names_of_text(made.pop("against", ""))
    made["tablet"] = numbers_of_text(made.get("tablet", ""))
    made["arrangement"] = made.get("arrangement") or "sequential"
    return made


def _finding_of_format_3(row: Row) -> Row:
    made = dict(row)
    for old, new in (("grounds", "report"), ("question", "basis")):
        if old in made:
            made[new] = made.pop(old)
    return made


_FROM_FORMAT_3 = {"test": _test_of_format_3, "finding": _finding_of_format_3}
_TABLES_OF_FORMAT_3 = {"matching": "column_matching"}


def upgraded_table(table: str, version: int) -> str:
    """What a table of an older format is called now."""
    return _TABLES_OF_FORMAT_3.get(table, table) if version <= 3 else table


def upgraded_row(table: str, row: Row, version: int) -> Row:
    """A row of an older format as the present one has it.

    Raises
    ------
    ValueError
        If it does not hold what that format held.
    """
    upgrade = _FROM_FORMAT_3.get(table) if version <= 3 else None
    if upgrade is None:
        return row
    try:
        return upgrade(row)
    except (AttributeError, TypeError) as error:
        raise ValueError(f"no {table} of format {version}") from error


def structured_columns(row: Row) -> Row:
    """The columns of a test of format 3 whose words become structure, as SQLite holds them."""
    made = _test_of_format_3(row)
    lists = {k: json.dumps(made[k]) for k in ("second_factor", "compared_names", "tablet")}
    plain = ("film_amount", "film_unit", "film_taken", "arrangement")
    return {**{k: made[k] for k in plain}, **lists}

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


RENAMED_WORDS = {
    ("test", "subject"): {"step tablet": "step wedge"},
    ("print_strip", "purpose"): {"full black": "maximum black"},
    ("print_strip", "way"): {
        "adding up under a card": "adding up under a mask",
        "separate pieces": "separate sections",
    },
}
"""Words that formats up to 14 kept, by table and column, and what they are called since."""


def _renamed(table: str, row: Row) -> Row:
    made = dict(row)
    for (place, column), words in RENAMED_WORDS.items():
        if place != table or not isinstance(made.get(column), str):
            continue
        for old, new in words.items():
            if made[column].startswith(old):
                made[column] = new + made[column][len(old) :]
    return made


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


_OPTIONS_OF_KIND = {
    "push": ("pushes", "stops"),
    "colour": ("pushes", "stops"),
    "reversal": ("second steps", "steps"),
    "speed": ("index series", "exposure_indexes"),
    "mixed roll": ("shared indexes", "exposure_indexes"),
    "cine": ("lights in turn", "lights"),
    "process control": ("control strips", "count"),
    "reciprocity": ("long times", "seconds"),
}
"""The options that the other factor of a test of format 11 becomes."""
_AXES = ("published curve, absolute axis", "published curve, relative axis")
_COPIED = "Like the test of "
"""How the note of a test begins that was started like another: it went over the sheet's word."""


def _test_of_format_11(row: Row) -> Row:
    """What meant another thing for each type of test becomes that type's own options."""
    made = dict(row)
    numbers, kind = list(made.pop("second_factor", ())), made.get("kind", "")
    made["options"] = _options_of(kind, numbers)
    if kind == "data sheet":
        axis, found = made.get("subject", ""), made.get("note", "")
        copied = found.startswith(_COPIED)
        source = {"axis": axis if axis in _AXES else _AXES[0]}
        made["options"] = {"sheet source": {**source, "speed_found": "" if copied else found}}
        made |= {"subject": "plain target", "note": found if copied else ""}
    return made


def _options_of(kind: str, numbers: list[float]) -> Row:
    if kind not in _OPTIONS_OF_KIND or not numbers:
        return {}
    name, field = _OPTIONS_OF_KIND[kind]
    if field == "lights":
        lights = [int(n) for n in numbers if int(n) in (1, 2, 3)]
        return {name: {field: lights or [1, 2]}}
    return {name: {field: max(1, round(numbers[0])) if field == "count" else numbers}}


def options_columns(row: Row) -> Row:
    """The columns of a test of format 11 that become its options, as SQLite holds them."""
    made = _test_of_format_11({**row, "second_factor": json.loads(row["second_factor"] or "[]")})
    options = json.dumps(made["options"], ensure_ascii=False) if made["options"] else ""
    return {"options": options, "subject": made["subject"], "note": made["note"]}


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
    upgrades = [_FROM_FORMAT_3.get(table)] if version <= 3 else []
    upgrades += [_test_of_format_11] if table == "test" and version <= 11 else []
    try:
        for upgrade in upgrades:
            row = upgrade(row) if upgrade else row
        return _renamed(table, row) if version <= 14 else row
    except (AttributeError, TypeError) as error:
        raise ValueError(f"no {table} of format {version}") from error


def structured_columns(row: Row) -> Row:
    """The columns of a test of format 3 whose words become structure, as SQLite holds them."""
    made = _test_of_format_3(row)
    lists = {k: json.dumps(made[k]) for k in ("second_factor", "compared_names", "tablet")}
    plain = ("film_amount", "film_unit", "film_taken", "arrangement")
    return {**{k: made[k] for k in plain}, **lists}

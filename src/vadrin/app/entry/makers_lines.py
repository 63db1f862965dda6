"""Lines of a maker's table as people type, paste and keep them."""

from __future__ import annotations

import csv
import io
import re

from vadrin.app.entry.densities import temperature_typed
from vadrin.app.entry.exposures import exposure_index_typed
from vadrin.app.entry.numbers import number_typed, number_within
from vadrin.app.entry.times import minutes_typed
from vadrin.core.process.makers_table import MakersLine
from vadrin.errors import EntryError

_LIKE = "“normal 8”, “push 1 10:30”, “EI 400 12” or “+60 s on 3:30 for 1 stop”"
_MOST_LINES = 200
_LONGEST_ROW = 1000
_WARMTH = re.compile(r"(?:^|\s)(?:(?:at|@)\s*)?([-−]?[\d.,]+)\s*°?\s*([CF])\b\.?", re.IGNORECASE)
_CLOCKED = re.compile(r"(?<![\d.,:])(\d+)\s*min(?:utes)?\s*(\d{1,2})\s*s(?:ec\w*)?\b")
_UNITS = ("min", "minutes", "stop", "stops")
_LONGEST_BARE_MIN = 60.0
"""Minutes with a decimal comma up to which a number alone is surely a time."""
_LEAST_BARE_EI = 6.0
"""A number before the time that stands alone is an EI; below this it may be meant for stops."""


def _stops(words: str) -> float:
    return number_within(words, -6, 8, "a maker's table goes from 6 stops of pull to 8 of push")


def makers_lines_typed(words: str) -> tuple[MakersLine, ...]:
    """One typed line: a time for the normal, a push, an EI; or what a push adds to it.

    Raises
    ------
    EntryError
        With what would do.
    """
    plain = " ".join(words.strip().split())
    if " on " in plain and plain.startswith("+"):
        return _more(plain)
    warmth = _WARMTH.search(plain)
    temperature = temperature_typed(f"{warmth[1]} {warmth[2]}") if warmth else None
    rest = f"{plain[: warmth.start()]} {plain[warmth.end() :]}" if warmth else plain
    *what, time = _tokens(rest.lower()) or [""]
    if not time or not any(c.isdigit() for c in time):
        raise EntryError(f"“{plain}” is no line of a maker's table; type {_LIKE}")
    push, index = _meant(what, plain)
    if not what and "," in time and minutes_typed(time) > _LONGEST_BARE_MIN:
        raise EntryError(f"“{plain}”: an EI and a time? Put a space after the comma")
    return (MakersLine(minutes_typed(time), push, index, temperature),)


def _tokens(words: str) -> list[str]:
    """Whole words and numbers; no number is ever taken apart."""
    plain = _CLOCKED.sub(r"\1:\2", words)
    # What parts a word from a number, a number from a clock time, or is followed by a space.
    plain = re.sub(r"(?<=[a-z])[:,;]|[:,;](?=\s|$)|[;\t]|,(?=\d+:\d\d)", " ", plain)
    plain = re.sub(r"\b(push|pull|ei|iso)(?=[-+−\d])", r"\1 ", plain)
    plain = re.sub(r"(?<=[\d½⅓⅔])\s*(?:min(?:utes)?|stops?)\b", " ", plain)
    return [piece for piece in plain.split() if piece not in _UNITS]


def _meant(what: list[str], line: str) -> tuple[float | None, float | None]:
    """Stops or EI that a time is said to be for.

    Raises
    ------
    EntryError
        With what would do.
    """
    match what:
        case [] | ["normal"]:
            return 0.0, None
        case ["push", stops]:
            return abs(_stops(stops)), None
        case ["pull", stops]:
            return -abs(_stops(stops)), None
        case ["ei" | "iso", *index] if index:
            return None, exposure_index_typed(" ".join(index))
        case [given] if given[:1] in "+-−":
            return _stops(given), None
        case [given] if given[:1].isdigit():
            bare = exposure_index_typed(given)
            if bare >= _LEAST_BARE_EI:
                return None, bare
            raise EntryError(f"“{line}”: an EI or a push? Type “EI {given}” or “push {given}”")
    raise EntryError(f"“{line}” is no line of a maker's table; type {_LIKE}")


def _more(plain: str) -> tuple[MakersLine, ...]:
    """What a push adds to the normal: ``+60 s on 3:30 for 1 stop``."""
    added, _, rest = plain.removeprefix("+").partition(" on ")
    usual, _, push = rest.partition(" for ")
    if not push:
        raise EntryError(f"“{plain}” is no line of a maker's table; type {_LIKE}")
    seconds = re.fullmatch(r"(.*\S)\s*s(?:ec\w*)?", added.strip())
    extra = number_typed(seconds[1], "60") / 60 if seconds else minutes_typed(added)
    normal = minutes_typed(usual)
    stops = push.strip().removesuffix("stops").removesuffix("stop")
    return (MakersLine(normal, 0.0), MakersLine(normal + extra, _stops(stops)))


_COLUMNS = {
    "stops": ("stops", "push", "stop"),
    "ei": ("ei", "index", "exposure index", "iso"),
    "warmth": ("temperature_c", "temperature", "°c", "c"),
    "time": ("time_min", "time", "minutes"),
}


def makers_table_typed(text: str) -> tuple[MakersLine, ...]:
    """A pasted or imported table: with a header of columns, or a typed line a row.

    Raises
    ------
    EntryError
        Naming the row.
    """
    rows = [r for r in text.replace("\r\n", "\n").replace("\r", "\n").split("\n") if r.strip()]
    if not rows:
        raise EntryError("there is no table in it; copy its rows first")
    if len(rows) > _MOST_LINES:
        raise EntryError(f"more than {_MOST_LINES} rows; paste the rows of one film")
    if max(map(len, rows)) > _LONGEST_ROW:
        raise EntryError(f"a row of more than {_LONGEST_ROW} letters; paste the rows of one film")
    mark = next((m for m in "\t;," if m in rows[0]), ",")
    table = list(csv.reader(io.StringIO("\n".join(rows)), delimiter=mark))
    heads = [h.strip().lower() for h in table[0]]
    places = {
        key: next((i for i, h in enumerate(heads) if h in names), None)
        for key, names in _COLUMNS.items()
    }
    made: list[MakersLine] = []
    for number, row in enumerate(table if places["time"] is None else table[1:], start=1):
        try:
            if places["time"] is None:
                made += makers_lines_typed(rows[number - 1])
            else:
                made.append(_of_row(row, places))
        except EntryError as error:
            raise EntryError(f"row {number + (places['time'] is not None)}: {error}") from error
    return tuple(made)


def _of_row(row: list[str], places: dict[str, int | None]) -> MakersLine:
    def cell(key: str) -> str:
        at = places[key]
        return row[at].strip() if at is not None and at < len(row) else ""

    warmth = temperature_typed(cell("warmth")) if cell("warmth") else None
    if cell("stops"):
        return MakersLine(minutes_typed(cell("time")), _stops(cell("stops")), None, warmth)
    index = exposure_index_typed(cell("ei")) if cell("ei") else None
    return MakersLine(minutes_typed(cell("time")), None if cell("ei") else 0.0, index, warmth)

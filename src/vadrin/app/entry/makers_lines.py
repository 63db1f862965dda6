"""Lines of a maker's table as people type, paste and keep them."""

from __future__ import annotations

import csv
import io
import re

from vadrin.app.entry.densities import temperature_typed
from vadrin.app.entry.numbers import number_typed, number_within
from vadrin.app.entry.times import minutes_typed
from vadrin.core.process.makers_table import MakersLine
from vadrin.errors import EntryError

_LIKE = "“normal 8”, “push 1 10:30”, “EI 400 12” or “+60 s on 3:30 for 1 stop”"
_MOST_LINES = 200
_MORE = re.compile(
    r"\+\s*(?P<more>[\d.,:]+)\s*(?P<unit>s|sec|min)?\s+on\s+(?P<usual>[\d.,:]+)"
    r"(?:\s*min)?\s+for\s+(?P<stops>.+?)\s*stops?"
)
_WARMTH = re.compile(r"\s*(?:at|@)?\s*([-−]?[\d.,]+)\s*°?\s*([CF])\b\.?", re.IGNORECASE)
_PUSH = re.compile(
    r"(?P<what>normal|push|pull|ei)?\s*(?P<given>[-+−]?[\d.,⅓½⅔/]+)?\s*"
    r"(?:stops?)?\s*[:,;\t ]\s*(?P<time>[\d.,]+(?::\d\d)?)\s*(?:min)?"
)


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
    more = _MORE.fullmatch(plain)
    if more:
        usual = minutes_typed(more["usual"])
        added = more["more"]
        seconds = more["unit"] in ("s", "sec")
        extra = number_typed(added, "60") / 60 if seconds else minutes_typed(added)
        return (MakersLine(usual, 0.0), MakersLine(usual + extra, _stops(more["stops"])))
    warmth = _WARMTH.search(plain)
    temperature = temperature_typed(f"{warmth[1]} {warmth[2]}") if warmth else None
    rest = (plain[: warmth.start()] + plain[warmth.end() :]).strip() if warmth else plain
    if re.fullmatch(r"[\d.,]+(:\d\d)?( ?min)?", rest):
        rest = f"normal {rest}"
    found = _PUSH.fullmatch(rest.lower().replace("min", " ").strip())
    if not found or (found["what"] in ("push", "pull", "ei") and not found["given"]):
        raise EntryError(f"“{plain}” is no line of a maker's table; type {_LIKE}")
    return (_line(found["what"], found["given"], found["time"], temperature),)


def _line(what: str | None, given: str | None, time: str, warmth: float | None) -> MakersLine:
    minutes = minutes_typed(time)
    if what == "normal" or (what is None and given is None):
        return MakersLine(minutes, 0.0, None, warmth)
    number = given or ""
    if what == "ei" or (what is None and not re.match(r"[-+−]", number)):
        index = number_within(number, 0.5, 1e6, "an EI lies between 0.5 and 1,000,000", "400")
        return MakersLine(minutes, None, index, warmth)
    stops = _stops(number)
    return MakersLine(minutes, -abs(stops) if what == "pull" else stops, None, warmth)


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
    return _line("ei" if cell("ei") else "normal", cell("ei") or None, cell("time"), warmth)

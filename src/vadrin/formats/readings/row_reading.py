"""One row of a table whose columns are known, as a reading or as what is wrong with it."""

from __future__ import annotations

import re
from collections.abc import Sequence

from vadrin.core.limits import DENSITY, EXPOSURE_INDEX
from vadrin.formats.readings.cell_numbers import grouped_number, number_of
from vadrin.formats.readings.readings_table import CHANNELS, NO_EXTRA, CellProblem, TableRow

KNOWN = (
    "strip",
    "frame",
    "time_min",
    "temperature_c",
    "log_h",
    "ei",
    "stops",
    "density",
    "channel",
    "note",
)

_NUMBERS = {
    "time_min": (0.01, 10_000.0, "give minutes, such as 8 or 8.5"),
    "temperature_c": (-10.0, 100.0, "give degrees Celsius, such as 20"),
    "log_h": (-20.0, 20.0, "give log10 lux seconds, or leave it empty for a blank frame"),
    "ei": (
        EXPOSURE_INDEX.low,
        EXPOSURE_INDEX.high,
        f"{EXPOSURE_INDEX.sentence}, or leave it empty for a blank frame",
    ),
    "stops": (-40.0, 40.0, "give stops from the meter reading, such as -2"),
    # A densitometer's zero may lie a little low.
    "density": (DENSITY.low - 0.05, DENSITY.high, DENSITY.sentence),
}
_WHICH_EXPOSURE = (
    "give the stops from the meter, 0 for its own exposure; for a blank leave ei empty too"
)
_WHICH_EI = "give the EI the meter was set to; for a blank leave stops empty too"
_CHANNELS = frozenset(str(channel) for channel in CHANNELS)


class RowReader:
    """Reads the rows of one table; cells that say the same are read once.

    Parameters
    ----------
    names : tuple of str
        Of the columns, `KNOWN` ones and others.
    commas : bool
        Whether commas in numbers are known to be decimal ones.
    """

    def __init__(self, names: tuple[str, ...], commas: bool) -> None:
        self._commas = commas
        # A density column a strip may tell the strip's time in its heading.
        always = ("density", "time_min")
        self._numeric = [c for c in _NUMBERS if c in names or c in always]
        self._foreign = [n for n in names if n not in KNOWN]
        self._told: dict[str, dict[str, tuple[float | None, str]]] = {c: {} for c in self._numeric}
        self._words: dict[str, str] = {}
        self._strips: set[str] = set()
        self._places = {name: place for place, name in enumerate(names)}
        self._good: dict[str, dict[str, float | None]] = {c: {} for c in self._numeric}
        self._plain = self._places.keys() <= {"strip", "frame", *_NUMBERS} and all(
            c in self._places for c in ("strip", "frame", "density", "log_h")
        )
        """Whether a row needs nothing but its numbers and the names of strip and frame."""

    def read_plain(self, number: int, line: Sequence[str]) -> TableRow | None:
        """A row like many before it: cells that were read already, and nothing to be asked.

        None for every other row; `read` takes those.
        """
        if not self._plain or len(line) != len(self._places):
            return None
        at = self._places
        strip, frame = line[at["strip"]], line[at["frame"]]
        if strip not in self._strips or not frame or frame not in self._words:
            return None
        try:
            told = {c: self._good[c][line[at[c]]] for c in self._numeric if c in at}
        except KeyError:
            return None
        if told["log_h"] is None:
            return None
        get = told.get
        return TableRow(
            number,
            strip,
            self._words[frame],
            told["density"] or 0.0,
            get("time_min"),
            get("temperature_c"),
            told["log_h"],
            get("ei"),
            get("stops"),
        )

    def read(self, number: int, cells: dict[str, str]) -> TableRow | list[CellProblem]:
        """A row of the file, by its number."""
        problems: list[CellProblem] = []
        numbers: dict[str, float | None] = {}
        for column in self._numeric:
            text = cells.get(column, "")
            known = self._told[column].get(text)
            if known is None:
                known = self._told[column][text] = self._number(column, text.strip())
            numbers[column] = known[0]
            if not known[1]:
                self._good[column][text] = known[0]
            else:
                problems.append(CellProblem(number, column, text.strip(), known[1]))
        if not cells.get("log_h", "").strip():
            problems += _exposure_told(number, cells, numbers)
        strip = cells.get("strip", "").strip()
        if strip not in self._strips and not any(map(str.isprintable, strip)):
            problems.append(CellProblem(number, "strip", "", "name the strip, such as A"))
        channel = cells["channel"].strip().lower() or "visual" if "channel" in cells else "visual"
        if channel not in _CHANNELS:
            remedy = f"use one of {', '.join(CHANNELS)}"
            problems.append(CellProblem(number, "channel", channel, remedy))
        if problems:
            return problems
        return self._row(number, strip, channel, cells, numbers)

    def _row(
        self,
        number: int,
        strip: str,
        channel: str,
        cells: dict[str, str],
        numbers: dict[str, float | None],
    ) -> TableRow:
        density = numbers.pop("density")
        self._strips.add(strip)
        # Words once in memory, however many rows have them.
        same, foreign = self._words.setdefault, self._foreign
        frame = cells.get("frame", "").strip() or str(number - 1)
        note = cells["note"].strip() if "note" in cells else ""
        return TableRow(
            row=number,
            strip=same(strip, strip),
            frame=same(frame, frame),
            density=density if density is not None else 0.0,
            channel=same(channel, channel),
            note=same(note, note),
            extra={k: cells[k] for k in foreign if k in cells} if foreign else NO_EXTRA,
            **numbers,
        )

    def _number(self, column: str, text: str) -> tuple[float | None, str]:
        """What a cell says, and what is wrong with it; empty for nothing."""
        low, high, remedy = _NUMBERS[column]
        if not text:
            return None, remedy if column == "density" else ""
        try:
            value = number_of(text)
        except ValueError:
            return None, remedy
        other = None if self._commas else grouped_number(text)
        if other is not None and low <= other <= high:
            return None, (
                f"may be {other:.0f} or {value:g}; write it without a comma, or with a point"
            )
        return (value, "") if low <= value <= high else (None, remedy)


def _exposure_told(
    number: int, cells: dict[str, str], numbers: dict[str, float | None]
) -> list[CellProblem]:
    """What a row without a lg exposure lacks: EI and stops go together.

    A row that calls its frame a blank may name the meter's EI all the same; it is taken out.
    """
    index, stops = cells.get("ei", "").strip(), cells.get("stops", "").strip()
    if index and "stops" in cells and not stops:
        if not _called_blank(cells):
            return [CellProblem(number, "stops", "", _WHICH_EXPOSURE)]
        numbers["ei"] = None
    if stops and not index and not _called_blank(cells):
        return [CellProblem(number, "ei", "", _WHICH_EI)]
    return []


def _called_blank(cells: dict[str, str]) -> bool:
    """Whether a row calls its frame a blank."""
    said = f"{cells.get('frame', '')} {cells.get('note', '')}".lower()
    return bool(re.search(r"\b(b\d*|blank\w*|base|fog|b\+f)\b", said))

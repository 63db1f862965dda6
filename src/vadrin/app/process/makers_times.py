"""A maker's table of a film in a developer: kept, used, and scored against what was measured."""

from __future__ import annotations

from dataclasses import dataclass, replace
from pathlib import Path

from vadrin.app.display.marks import marked_ei, stops_counted
from vadrin.app.display.quantities import minutes_text
from vadrin.app.entry.makers_lines import makers_lines_typed, makers_table_typed
from vadrin.app.entry.times import minutes_typed
from vadrin.app.library.kept_makers_lines import keep_makers_lines
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.loaded.makers_told import line_of, makers_of_test
from vadrin.app.loaded.reference_temperature import reference_of
from vadrin.app.results.rule_scores import measured_pushes
from vadrin.core.process.makers_table import makers_minutes
from vadrin.core.process.rules_on_trial import Score, Trial, score_of
from vadrin.core.wording import counted
from vadrin.formats.readings.csv_table import bytes_of, text_of
from vadrin.notebook.records import MakerTime, Test
from vadrin.notebook.store import Notebook


def type_makers_line(notebook: Notebook, loaded: LoadedTest, words: str) -> str:
    """Keep a typed line of the table, or a pasted table of several; says what was kept.

    Raises
    ------
    EntryError
        If it is no line, naming the row of a table.
    """
    lines = makers_table_typed(words) if "\n" in words else makers_lines_typed(words)
    keep_makers_lines(notebook, loaded, lines)
    return f"{counted(len(lines), 'line')} of the maker's table kept."


def import_makers_table(notebook: Notebook, loaded: LoadedTest, path: Path) -> str:
    """Keep a table from a file of delimited text.

    Raises
    ------
    FormatError
        If the file cannot be read.
    EntryError
        Naming the row that is no line of a table.
    """
    return type_makers_line(notebook, loaded, f"{text_of(bytes_of(path), path.name).strip()}\n")


def retype_makers_line(notebook: Notebook, line_id: int, words: str) -> None:
    """Change the time of a line; nothing typed takes the line away.

    Raises
    ------
    EntryError
        If it is no time.
    """
    line = notebook.get(MakerTime, line_id)
    if line is None:
        return
    with notebook.change("a maker's time"):
        if words.strip() in ("", "—"):
            notebook.remove(line)
        else:
            notebook.put(replace(line, time_min=minutes_typed(words)))


@dataclass(frozen=True)
class MakersRow:
    """One line as it is shown.

    Attributes
    ----------
    line_id : int
    what : str
        ``normal``, ``push of 1 stop``, ``EI 400``.
    time, at : str
    measured : str
        What this film was found to need for it; empty where nobody measured.
    ratio : str
    """

    line_id: int
    what: str
    time: str
    at: str
    measured: str
    ratio: str


def _trials(notebook: Notebook, loaded: LoadedTest) -> dict[float, Trial]:
    told = makers_of_test(loaded)
    same = notebook.all(Test, stock_id=loaded.test.stock_id, developer_id=loaded.test.developer_id)
    made = {}
    for stops, minutes in measured_pushes(notebook, same).items():
        said = makers_minutes(told, stops)
        if said is not None:
            made[stops] = Trial(said, minutes)
    return made


def makers_score(notebook: Notebook, loaded: LoadedTest) -> Score:
    """How the maker's table fares against what was measured here."""
    return score_of(tuple(_trials(notebook, loaded).values()))


def _what(line: MakerTime) -> str:
    if line.exposure_index is not None:
        return f"EI {marked_ei(line.exposure_index)}"
    if not line.stops:
        return "normal"
    return f"{'push' if line.stops > 0 else 'pull'} of {stops_counted(line.stops)}"


def makers_rows(notebook: Notebook, loaded: LoadedTest) -> list[MakersRow]:
    """The table of a test's film in its developer, the least push first."""
    trials = _trials(notebook, loaded)
    made = []
    for line in sorted(loaded.makers, key=lambda m: (_push(m, loaded), m.temperature_c or 0.0)):
        trial = trials.get(_push(line, loaded))
        warmth = reference_of(loaded) if line.temperature_c is None else line.temperature_c
        made.append(
            MakersRow(
                line.id,
                _what(line),
                minutes_text(line.time_min, exact=True),
                f"{warmth:g} °C",
                minutes_text(trial.measured_min) if trial else "",
                f"× {trial.predicted_min / trial.measured_min:.2f}" if trial else "",
            )
        )
    return made


def _push(line: MakerTime, loaded: LoadedTest) -> float:
    return line_of(line).push(loaded.stock.box_speed)

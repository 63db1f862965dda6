"""Tables of readings on their way in: read, matched by their columns, and what cannot be read."""

from __future__ import annotations

from collections.abc import Callable, Generator
from dataclasses import dataclass
from pathlib import Path
from typing import TYPE_CHECKING

from vadrin.app.display.words import counted
from vadrin.app.document.analysis_input import taking_readings_of
from vadrin.app.document.test_loading import load_test, loading_test
from vadrin.app.document.workbench import Workbench
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.read.import_readings import fill_frames, import_table, importing, remembered_columns
from vadrin.app.read.waiting_test import WaitingTest, fill_waiting
from vadrin.core.interruption import interruptible
from vadrin.errors import FormatError
from vadrin.formats.readings.any_file import read_readings
from vadrin.formats.readings.column_matching import (
    STRIP_DENSITY,
    guessed_columns,
    matching_faults,
    table_of,
)
from vadrin.formats.readings.row_reading import KNOWN

if TYPE_CHECKING:
    from vadrin.formats.readings.column_matching import RawTable
    from vadrin.formats.readings.readings_table import ReadingsTable
    from vadrin.notebook.store import Notebook

__all__ = ["read_readings", "table_of"]

_SHOWN = 4
_KEPT_AS_IT_IS = "kept as it is"


@dataclass(frozen=True)
class Matching:
    """How the columns of a foreign table are matched to begin with."""

    columns: tuple[str, ...]
    remembered: bool


def first_matching(bench: Workbench, raw: RawTable) -> Matching | None:
    """As it was matched the last time, else as its headings suggest; None where they do not."""
    known = remembered_columns(bench.notebook, raw.headers)
    columns = known or guessed_columns(raw)
    return Matching(columns, known is not None) if any(columns) else None


def meaning_text(meaning: str) -> str:
    """What a column holds, in words."""
    return meaning.replace("_", " ") if meaning else _KEPT_AS_IT_IS


def meaning_typed(words: str) -> str:
    """What a column holds, from its words."""
    if words == _KEPT_AS_IT_IS:
        return ""
    return words if words.startswith(STRIP_DENSITY) else words.replace(" ", "_")


def meanings(header: str) -> list[str]:
    """What a column with a heading can hold, in words."""
    own_strip = STRIP_DENSITY + (header.strip() or "A")
    return [_KEPT_AS_IT_IS, *(meaning_text(k) for k in KNOWN), own_strip]


_LONG = 20_000
"""Bytes of a file that takes longer to read than a person should find the window still."""

_MANY_ROWS = 300


def is_long(path: Path) -> bool:
    """Whether a file is better read while the window goes on."""
    return path.is_file() and path.stat().st_size > _LONG


def read_unless_stopped(path: Path, ask: Callable[[], None]) -> ReadingsTable:
    """Read a table; `ask` is called often, and what it raises stops the reading."""
    with interruptible(ask):
        return read_readings(path)


@dataclass(frozen=True)
class Verdict:
    """Whether a matching will do, and what would come in."""

    usable: bool
    words: str


def judge_matching(raw: RawTable, columns: tuple[str, ...]) -> Verdict:
    """What would come in with a matching of columns."""
    fault = matching_faults(columns)
    if fault:
        return Verdict(False, f"Not yet: {fault}.")
    try:
        table = table_of(raw, columns)
    except FormatError as error:
        return Verdict(False, f"Not yet: {error}.")
    strips = len({r.strip for r in table.rows})
    words = f"{counted(len(table.rows), 'reading')} on {counted(strips, 'strip')}"
    if table.problems:
        spoilt = counted(len(table.problems), "cell")
        words += f"; {spoilt} not to be read ({table.problems[0].sentence()})"
    if not table.exposures_known:
        words += "; no exposures: the densities go to the frames of a test in their order"
    return Verdict(bool(table.rows), words + ".")


@dataclass(frozen=True)
class TableIntake:
    """A table that was read: what of it cannot be, in words."""

    table: ReadingsTable
    complaint: str
    cells: str

    @property
    def rows(self) -> int:
        """How many readings can be taken."""
        return len(self.table.rows)


def intake_of(table: ReadingsTable) -> TableIntake:
    """What can be taken of a table, and what cannot."""
    problems = table.problems
    if not problems:
        return TableIntake(table, "", "")
    shown = [p.sentence() for p in problems[:_SHOWN]]
    if len(problems) > _SHOWN:
        shown.append(f"and {len(problems) - _SHOWN} more")
    cells = f"{counted(len(problems), 'cell')} of {table.source} could not be read."
    return TableIntake(table, cells, "\n".join(shown))


def take_to_waiting(bench: Workbench, waiting: WaitingTest, table: ReadingsTable) -> bool:
    """Bring a table into the test that waited for it, and go there."""
    count = bench.edit_or_raise(lambda book: fill_waiting(book, waiting, table.source))
    if count is None:
        return False
    bench.open_test(waiting.loaded.test.id)
    bench.go("curves")
    words = f"Imported {counted(count, 'reading')} from {table.source} to {waiting.loaded.title}."
    bench.said.emit(f"{words} {table.left_out_words}".strip())
    return True


def is_large(bench: Workbench, table: ReadingsTable) -> bool:
    """Whether a table becomes a test that takes longer to write than the window may stand."""
    own_test = bench.loaded is None or table.exposures_known
    return own_test and len(table.rows) > _MANY_ROWS


def taking_readings(
    bench: Workbench, table: ReadingsTable
) -> Generator[tuple[int, int], None, None]:
    """Bring a table in as a test of its own, some rows at a time, and go there.

    Raises
    ------
    EditRefusedError
        If another long edit is under way.
    """

    def taken(book: Notebook) -> Generator[tuple[int, int], None, LoadedTest]:
        all_in = (len(table.rows), len(table.rows))
        test = yield from importing(book, table)
        loaded = yield from loading_test(book, test, all_in)
        yield from (all_in for _ in taking_readings_of(loaded))
        return loaded

    loaded = yield from bench.edit_in_steps(f"Importing {table.source}", taken)
    _go_to_imported(bench, table, loaded)


def _go_to_imported(bench: Workbench, table: ReadingsTable, loaded: LoadedTest | None) -> None:
    bench.put(loaded)
    bench.go("curves" if table.exposures_known else "read")
    _say_imported(bench, table)


def _say_imported(bench: Workbench, table: ReadingsTable) -> None:
    words = f"Imported {counted(len(table.rows), 'reading')} from {table.source}."
    bench.said.emit(f"{words} {table.left_out_words}".strip())


def take_readings(bench: Workbench, table: ReadingsTable) -> bool:
    """Bring a table in, as a test of its own or into the frames that wait, and go there.

    Raises
    ------
    EditRefusedError
        If it fits neither; nothing was imported.
    """
    loaded = bench.loaded
    if loaded is not None and not table.exposures_known:
        if bench.edit_or_raise(lambda book: fill_frames(book, loaded, table)) is None:
            return False
        bench.go("read")
        _say_imported(bench, table)
        return True
    test = bench.edit_or_raise(lambda book: import_table(book, table))
    if test is None:
        return False
    _go_to_imported(bench, table, load_test(bench.notebook, test.id))
    return True

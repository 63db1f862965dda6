"""A sheet of two factors: the best cell, whether it lies at the border, and the next sheet."""

from __future__ import annotations

from dataclasses import dataclass

from vadrin.app.descriptions.answer_in_words import AnswerTable, FilmCell, FilmRow, OwnAnswer
from vadrin.app.descriptions.description import PlanSentence, TestDescription
from vadrin.app.descriptions.plan_word import choice_word, option_word
from vadrin.app.display.marks import marked_ei
from vadrin.app.display.words import date_text
from vadrin.app.document.state import State
from vadrin.app.entry.durations import duration_s
from vadrin.app.entry.numbers import numbers_typed
from vadrin.app.loaded.frame_index import index_of
from vadrin.app.loaded.loaded_test import LoadedFrame, LoadedStrip, LoadedTest
from vadrin.app.results.working_steps import Step, develop_step, set_step
from vadrin.app.test_types.beside.reversal import BestExposure
from vadrin.app.test_types.film_cells import GOOD_ENOUGH
from vadrin.app.test_types.reversal_curves import stages_plot
from vadrin.core.planning.test_options import SecondFactor, SecondSteps, SheetUse, options_as
from vadrin.core.planning.test_types.reversal import Reversal
from vadrin.errors import EntryError

_ALIKE, _DARK = 0.12, 1.2
_NOT_SAID = "not set"
_LEAST_READ = 4
_ANY_TIME, _LONGEST_S = "time not set", 86_400.0


@dataclass(frozen=True)
class GridCell:
    """One cell of a sheet: its row and column, and what it came to."""

    row: int
    column: int
    strip: LoadedStrip
    frame: LoadedFrame


def _grid(loaded: LoadedTest) -> list[list[GridCell]]:
    rows = []
    for row, strip in enumerate(loaded.strips):
        shown = sorted(
            (f for f in strip.frames if f.readable and not f.frame.blank),
            key=lambda f: f.log_h(loaded.test.meter_constant) or 0.0,
        )
        rows.append([GridCell(row, column, strip, f) for column, f in enumerate(shown)])
    return rows


def _best(cells: list[GridCell]) -> tuple[GridCell | None, str]:
    """The best cell and what it rests on: verdicts first, then the densities."""
    judged = [c for c in cells if GOOD_ENOUGH.get(c.frame.verdict, 0) > 0]
    if judged:
        most = max(GOOD_ENOUGH[c.frame.verdict] for c in judged)
        top = [c for c in judged if GOOD_ENOUGH[c.frame.verdict] == most]
        return top[len(top) // 2], "by its verdict"
    read = [c for c in cells if c.frame.density is not None]
    if len(read) < _LEAST_READ:
        return None, ""
    dense = [c.frame.density or 0.0 for c in read]
    middle = 0.5 * (min(dense) + max(dense))
    # A metered grey lies in the middle of what the material holds.
    return min(read, key=lambda c: abs((c.frame.density or 0.0) - middle)), "by its density"


def _at_border(best: GridCell, rows: list[list[GridCell]], factor: str) -> list[str]:
    """Where the best cell lies at an end of what was tried, in words."""
    said = []
    width = len(rows[best.row])
    if best.column in (0, width - 1) and width > 1:
        side = "less" if best.column == 0 else "more"
        said.append(f"not bracketed: a stop {side} exposure on the next sheet")
    if best.row in (0, len(rows) - 1) and len(rows) > 1:
        side = "less" if best.row == 0 else "more"
        said.append(f"not bracketed: a step {side} of the {factor}")
    return said


def _calibrations(loaded: LoadedTest, index: float | None) -> tuple[AnswerTable, ...]:
    """This sheet's best cell beside those kept of the material, by light and bleach."""
    cells: tuple[BestExposure, ...] = loaded.beside if isinstance(loaded.beside, tuple) else ()
    if not cells:
        return ()
    here = loaded.test
    rows = [
        (
            "this sheet",
            here.light or _NOT_SAID,
            here.process_state or _NOT_SAID,
            f"EI {marked_ei(index)}" if index else "—",
        )
    ]
    rows += [
        (
            date_text(c.decided_at),
            c.light or _NOT_SAID,
            c.state or _NOT_SAID,
            f"EI {marked_ei(c.best_ei)}",
        )
        for c in cells
    ]
    return (AnswerTable(("Decided", "Light", "Bleach", "Best cell"), tuple(rows)),)


def _named(strip: LoadedStrip) -> str:
    return strip.strip.note or f"strip {strip.strip.label}"


def _film(rows: list[list[GridCell]], best: GridCell | None = None) -> tuple[FilmRow, ...]:
    """The sheet as it lies, the best cell marked."""
    return tuple(
        FilmRow(
            _named(row[0].strip),
            tuple(
                FilmCell(f"{c.frame.name}", c.frame.density, c.frame.verdict, c == best)
                for c in row
            ),
        )
        for row in rows
        if row
    )


def _process_to_blame(dense: list[float]) -> str:
    """Why no exposure is to blame, where all cells are one; empty where they differ."""
    if len(dense) < _LEAST_READ or max(dense) - min(dense) >= _ALIKE:
        return ""
    tone = "dark" if min(dense) > _DARK else "alike"
    return (
        f"Every cell is {tone}: that is the process and not the exposure. Bleach spent, paper "
        "upside down, or fogged."
    )


def reversal_answer(state: State) -> OwnAnswer:
    """What a sheet of two factors says."""
    loaded, analysis = state.loaded, state.analysis
    rows = _grid(loaded)
    cells = [c for row in rows for c in row]
    dense = [c.frame.density for c in cells if c.frame.density is not None]
    speed = analysis.reversal_speed if analysis else None
    figures = {"reversal_speed": speed, "cells_read": float(len(dense))}
    blame = _process_to_blame(dense)
    if blame:
        act = "Try the bleach on a black scrap before the next sheet."
        return OwnAnswer("Process, not exposure", blame, act, figures, None, _film(rows))
    best, rests_on = _best(cells)
    if best is None:
        act = "Give each cell a verdict, or read its density."
        plot, _ = stages_plot(state, None, None)
        none = "No cell was read or judged yet."
        if dense:
            none = f"Read {_LEAST_READ} cells at least, or judge one: {len(dense)} so far."
        return OwnAnswer("", none, act, figures, None, _film(rows), plot)
    index, row_name = index_of(best.frame), _named(best.strip)
    name = f"EI {marked_ei(index)}" if index else f"frame {best.frame.number}"
    figures |= {"best_ei": index, "best_row": float(best.row), "best_column": float(best.column)}
    border = _at_border(best, rows, options_as(loaded.test.options, SecondSteps).factor)
    words = f"with {row_name}, {rests_on}" + (f"; {', and '.join(border)}" if border else "")
    if speed is not None and speed.value is not None:
        words += f". Speed by its curve: {speed.value:.0f}"
    finer = f"Next sheet, finer: half steps to each side of {name} and of {row_name}."
    act = f"{border[0].partition(': ')[2].capitalize()}." if border else finer
    light = f" in {loaded.test.light}" if loaded.test.light else ""
    plot, flash = stages_plot(state, best.strip, best.frame.log_h(loaded.test.meter_constant))
    return OwnAnswer(
        f"{name}{light}",
        f"{words}.",
        act,
        figures,
        None,
        _film(rows, best),
        plot,
        more=(*_calibrations(loaded, index), *((flash,) if flash else ())),
        steps=_steps(loaded, best, index),
    )


def _steps(loaded: LoadedTest, best: GridCell, index: float | None) -> tuple[Step, ...]:
    """The camera's exposure, the second step and the time of the best cell."""
    shot = set_step(index) if index else ("Expose", f"as frame {best.frame.number} of the sheet")
    return (shot, ("Second factor", _named(best.strip)), *develop_step(loaded, best.strip))


def _base_typed(words: str) -> float:
    """Seconds of step 0; 0 where it is not to be said."""
    if words.strip().lower() in ("", "0", _ANY_TIME, "any time"):
        return 0.0
    seconds = duration_s(words, 1.0, "30 s or 2 min")
    if not 0.001 <= seconds <= _LONGEST_S:
        raise EntryError("a second exposure, flash or bleach takes a millisecond to a day")
    return seconds


def _base_text(seconds: float) -> str:
    return f"{seconds:.3g} s" if seconds else _ANY_TIME


DESCRIPTION = TestDescription(
    Reversal.key,
    "Which exposure and which second step give the best positive?",
    "Camera exposure one way, the second factor the other: a grid of cells.",
    sentences=(
        PlanSentence.ONE_TIME,
        PlanSentence.OWN,
        PlanSentence.BRACKET,
        PlanSentence.FRESHNESS,
        PlanSentence.ROLL,
    ),
    first=-3.0,
    last=3.0,
    own_sentence="The {second}, {base} at ±0, in steps of {steps} stops, {sheet}.",
    own_words={
        "second": choice_word(
            "what varies beside the exposure", SecondSteps, "factor", SecondFactor
        ),
        "base": option_word("its time at step 0", SecondSteps, "base_s", _base_typed, _base_text),
        "steps": option_word("second steps", SecondSteps, "steps", numbers_typed),
        "sheet": choice_word("what the cells lie on", SecondSteps, "sheet", SheetUse),
    },
    answer=reversal_answer,
)

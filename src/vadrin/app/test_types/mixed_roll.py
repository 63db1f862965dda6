"""A mixed roll: which EIs each process holds, by densities and by verdicts."""

from __future__ import annotations

from dataclasses import dataclass
from math import log2
from typing import TYPE_CHECKING

from vadrin.app.descriptions.answer_in_words import AnswerTable, FilmRow, OwnAnswer
from vadrin.app.descriptions.description import PlanSentence, TestDescription
from vadrin.app.descriptions.plan_word import option_word
from vadrin.app.display.marks import marked_ei
from vadrin.app.document.state import State
from vadrin.app.entry.exposures import exposure_indexes_typed
from vadrin.app.loaded.loaded_test import LoadedStrip, LoadedTest
from vadrin.app.results.working_steps import Step, develop_words
from vadrin.app.test_types.film_cells import by_index, row_by_index, usable_indexes
from vadrin.core.figure import Figure, absent
from vadrin.core.planning.test_options import SharedIndexes
from vadrin.core.planning.test_types.mixed_roll import MixedRoll
from vadrin.core.results.push_limits import held_range

if TYPE_CHECKING:
    from vadrin.core.results.strip_metrics import StripMetrics

_ANOTHER_END = 0.9
"""Stops from which two ends of a range are called different."""
_HEADS = ("Process", "Held by densities", "Usable by verdicts", "Shadow point")


def process_name(strip: LoadedStrip) -> str:
    """What a strip went through, in a word or two."""
    if strip.routine is not None:
        return strip.routine.name
    return strip.other or strip.strip.note or strip.strip.agitation or f"strip {strip.strip.label}"


def _held(strip: LoadedStrip, metrics: StripMetrics | None) -> tuple[Figure, Figure, bool]:
    """Lowest and highest EI held, and whether the lowest is only the lowest that was tried."""
    if metrics is None:
        gap = absent("not read yet")
        return gap, gap, False
    found = held_range(metrics)
    tried = [index for index, _ in by_index(strip)]
    if found.lowest.present or not tried:
        return found.lowest, found.highest, False
    return Figure(tried[0]), found.highest, True


@dataclass(frozen=True)
class _Held:
    """The EIs a process holds; `open_below` where even the lowest that was shot is good."""

    strip: LoadedStrip
    low: float
    high: float
    open_below: bool = False

    @property
    def process(self) -> str:
        return process_name(self.strip)

    @property
    def range_words(self) -> str:
        lower = " or lower" if self.open_below else ""
        return f"EI {marked_ei(self.low)}{lower} to {marked_ei(self.high)}"

    @property
    def width_words(self) -> str:
        # Of the EIs as they are shown: two pairs alike have one width.
        stops = log2(marked_ei(self.high) / marked_ei(self.low))
        return f"{'at least ' if self.open_below else ''}{stops:.1f} stops"


def mixed_roll_answer(state: State) -> OwnAnswer:
    """What a mixed roll says."""
    loaded, analysis = state.loaded, state.analysis
    known = {s.label: s for s in analysis.strips} if analysis else {}
    rows, film, said = [], [], []
    two_ways: list[tuple[_Held, float]] = []
    figures: dict[str, Figure] = {}
    for strip in loaded.strips:
        label, metrics = strip.strip.label, known.get(strip.strip.label)
        low, high, tried = _held(strip, metrics)
        judged = usable_indexes(strip)
        by_eye = "not judged"
        if judged is not None:
            by_eye = f"EI {marked_ei(judged[0])} to {marked_ei(judged[1])}"
        name = process_name(strip)
        point = "—"
        if metrics is not None and metrics.zone_ei.value is not None:
            point = f"EI {marked_ei(metrics.zone_ei.value)}"
        held = None
        if low.value is not None and high.value is not None:
            held = _Held(strip, low.value, high.value, tried)
        shown = held.range_words if held is not None else low.why or high.why
        rows.append((name, shown, by_eye, point))
        figures |= {f"{label}_lowest_ei": low, f"{label}_highest_ei": high}
        film.append(row_by_index(strip, name, low.value, high.value))
        if held is not None and judged is not None:
            two_ways.append((held, judged[1]))
        elif judged is not None:
            held = _Held(strip, *judged)
        said += [held] if held is not None else []
    return _worded(loaded, said, tuple(rows), tuple(film), figures, two_ways)


def _two_minds(two_ways: list[tuple[_Held, float]]) -> str:
    """Where densities and verdicts end apart, and what that means; empty where they agree."""
    for held, judged in two_ways:
        apart = log2(judged / held.high)
        if abs(apart) < _ANOTHER_END:
            continue
        ends = f"densities end at EI {marked_ei(held.high)}, verdicts at {marked_ei(judged)}"
        why = (
            "an eye took for a picture what lies in the fog: read the blank again"
            if apart > 0
            else "a density asks what just prints, an eye what is worth printing"
        )
        return f" With {held.process} {ends}: {why}."
    return ""


def _worded(
    loaded: LoadedTest,
    said: list[_Held],
    rows: tuple[tuple[str, ...], ...],
    film: tuple[FilmRow, ...],
    figures: dict[str, Figure],
    two_ways: list[tuple[_Held, float]],
) -> OwnAnswer:
    table = AnswerTable(_HEADS, rows)
    waiting = next(
        (s for s in loaded.strips if not any(f.density is not None or f.verdict for f in s.frames)),
        None,
    )
    act = ""
    if waiting is not None:
        label = waiting.strip.label
        done = waiting.strip.time_min is not None
        act = (
            f"Read strip {label}, or give its frames verdicts."
            if done
            else (f"Develop strip {label}: {process_name(waiting)}.")
        )
    if not said:
        words = "No process is read or judged yet: each holds a range of EIs, and no one time."
        if not act:
            words = "Neither process shows where its range of EIs ends."
            act = "Give verdicts on the frames; next time keep a blank and shoot further both ways."
        return OwnAnswer("", words, act, figures, table, film, of_a_curve=True)
    best = max(said, key=lambda s: s.high / s.low)
    says = best.range_words
    words = f"usable with {best.process}, {best.width_words}"
    if len(said) > 1:
        other = next(s for s in said if s is not best)
        words += f". With {other.process}: {other.range_words}, {other.width_words}"
    words += ". Stand development gives a range of EIs. Changing the time has little effect."
    words += _two_minds(two_ways)
    judged = all(f.verdict for s in loaded.strips for _, f in by_index(s))
    act = act or (
        "For important pictures use only EIs that both densities and verdicts support."
        if judged
        else "Give verdicts on the frames at both ends: they say what densities can't."
    )
    steps = tuple(step for held in (best, *said) for step in _steps(loaded, held))
    return OwnAnswer(
        says, words, act, figures, table, film, of_a_curve=True, steps=tuple(dict.fromkeys(steps))
    )


def _steps(loaded: LoadedTest, held: _Held) -> tuple[Step, ...]:
    """How a process is used: its EIs, each set on the meter, and its time."""
    words = f"each frame at its own EI, {held.range_words.removeprefix('EI ')}, set on the meter"
    return ((held.process.capitalize(), f"{words}; develop {develop_words(loaded, held.strip)}"),)


DESCRIPTION = TestDescription(
    MixedRoll.key,
    "Can one roll carry several EIs?",
    "One roll at many EIs in a process left to stand, its twin in the normal one.",
    sentences=(PlanSentence.TIMES, PlanSentence.OWN, PlanSentence.ROLL),
    times=(60.0, 8.0),
    options=SharedIndexes((25.0, 50.0, 100.0, 200.0, 400.0, 800.0)),
    own_sentence="Each exposure once at EI {indexes} on both rolls.",
    own_words={
        "indexes": option_word(
            "EIs on one roll", SharedIndexes, "exposure_indexes", exposure_indexes_typed
        )
    },
    answer=mixed_roll_answer,
)

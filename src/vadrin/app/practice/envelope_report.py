"""The envelope opened: what is true of the film, beside what its tester and the program found."""

from __future__ import annotations

import json
import re
from collections.abc import Generator
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import numpy as np

from vadrin.app.display.quantities import minutes_text
from vadrin.app.display.words import capital
from vadrin.app.document.state import State
from vadrin.app.loaded.light_boxes import light_box_result
from vadrin.app.practice.commitment import Commitment, commitment_of
from vadrin.app.practice.envelope import open_envelope
from vadrin.app.practice.envelope_rows import EnvelopeRow, figure_rows, target_of
from vadrin.app.practice.noted_strips import on_paper, treated
from vadrin.app.practice.practice_place import OPENED, TRUTH
from vadrin.app.practice.practice_questions import INDEX
from vadrin.app.practice.practice_words import outside_of, questions_on
from vadrin.app.practice.practised_film import film_in, world_of
from vadrin.app.results.rating import rating_of
from vadrin.app.stamps import now
from vadrin.core.diagnostic import Diagnostic
from vadrin.core.simulation.practice_film import PracticeFilm
from vadrin.core.simulation.practice_limits import (
    BestPlan,
    PlanReach,
    ShotStrip,
    best_plan,
    reach_of,
)
from vadrin.core.simulation.practice_trap import CAUGHT_BY, WORDS_FOR, TrapKind
from vadrin.core.wording import counted
from vadrin.errors import EntryError, FormatError
from vadrin.formats.whole_file import write_whole

_WORTH_SAYING = 0.05
"""Stops of the EI, or their like in time, from which a choice is said to have cost something."""
_SEED = 12


@dataclass(frozen=True)
class TrapTold:
    """What went wrong, and who noticed: the program, the tester, both or nobody."""

    words: str
    by_program: bool
    by_tester: bool


@dataclass(frozen=True)
class EnvelopeReport:
    """Everything an opened envelope says.

    Attributes
    ----------
    film : str
        What film it was, in a sentence.
    rows : tuple of EnvelopeRow
    traps : tuple of TrapTold
    sentences : tuple of str
        The limit, the best plan, and what cost most.
    digest : str
    """

    film: str
    rows: tuple[EnvelopeRow, ...]
    traps: tuple[TrapTold, ...]
    sentences: tuple[str, ...]
    digest: str


def compared(
    notebook: Path, state: State, said: Commitment
) -> tuple[tuple[EnvelopeRow, ...], tuple[TrapTold, ...]]:
    """The truth beside what was said and found, and what went wrong with who noticed.

    Raises
    ------
    EntryError
        If nothing was developed and looked at.
    FormatError
        If the envelope was changed.
    """
    film = film_in(notebook.parent)
    if not film["worth"]:
        raise EntryError("nothing was developed and looked at yet: there is nothing to compare")
    return figure_rows(state, notebook.parent, film, said), _traps(state, film, said)


def opening(
    notebook: Path, state: State | None
) -> Generator[tuple[int, int], None, EnvelopeReport]:
    """Open the envelope of a practice film, once its tester has committed.

    Parameters
    ----------
    notebook : Path
    state : State or None
        The test, with its answer as it is now.

    Yields
    ------
    tuple of int
        How much of how much is worked out.

    Raises
    ------
    EntryError
        If nothing was committed to, or nothing was developed.
    FormatError
        If the envelope was changed.
    """
    folder, said = notebook.parent, commitment_of(notebook)
    if state is None:
        raise EntryError("open the test of the practice film first")
    if not said.complete:
        asked = questions_on(notebook)
        first = " or ".join(_a(q.name) for q in asked[:2])
        raise EntryError(f"say {first} first: the envelope opens once you have")
    rows, traps = compared(notebook, state, said)
    truth, world = open_envelope(folder), world_of(folder)
    film, noise, target = world.film, world.noise, target_of(state)
    timed = any(row.question is INDEX for row in rows)
    mine, best = PlanReach(None, None), None
    if timed:
        mine = reach_of(film, _shot(state, film), noise, np.random.default_rng(_SEED), target)
    if timed and len(state.loaded.strips) > 1:
        frames = sum(len(s.frames) for s in state.loaded.strips)
        best = yield from best_plan(film, frames, noise, np.random.default_rng(_SEED), target)
    report = EnvelopeReport(
        _what_it_was(state, film, outside_of(notebook)[0]),
        rows,
        traps,
        tuple(_sentences(rows, mine, best)) if timed else (),
        _digest(folder),
    )
    _keep(folder, state, truth, report)
    return report


def _what_it_was(state: State, film: PracticeFilm, level: str) -> str:
    if on_paper(state.loaded):
        return f"An enlarging paper; level {level}."
    return f"{capital(film.shape)}, {film.box_speed:g} on its box; level {level}."


def _a(name: str) -> str:
    return f"{'an' if name[0] in 'aeiouAEIOU' else 'a'} {name}"


def _digest(folder: Path) -> str:
    return str(json.loads((folder / TRUTH).read_text("utf-8")).get("sha256", ""))


def _traps(state: State, film: dict[str, Any], said: Commitment) -> tuple[TrapTold, ...]:
    told = state.settled().diagnostics
    words, made = said.went_wrong.lower(), []
    for trap in film["traps"]:
        kind, label = TrapKind(trap["kind"]), str(trap["strip"])
        keys = CAUGHT_BY.get(kind, frozenset())
        # Where film was cut off, the instrument itself says that there is none.
        seen = kind is TrapKind.SHORT or any(d.key in keys and _of_strip(d, label) for d in told)
        noticed = bool(re.search(WORDS_FOR[kind], words)) and (
            not label or re.search(rf"\b{label.lower()}\b", words) is not None
        )
        made.append(TrapTold(str(trap["words"]), seen, noticed))
    return tuple(made)


def _of_strip(diagnostic: Diagnostic, label: str) -> bool:
    """Whether a note speaks of a strip; of any, where the whole test is meant."""
    return not label or label == diagnostic.strip or f"trip {label}" in diagnostic.sentence


def _shot(state: State, film: PracticeFilm) -> list[ShotStrip]:
    """The developed strips as they were meant: what each frame and development should have got."""
    meant = [treated(state.loaded, s) for s in state.loaded.strips if s.strip.time_min is not None]
    return [ShotStrip(m.log_h, film.minutes_at_20(m.minutes, m.temperature_c)) for m in meant]


def _reach_words(reach: PlanReach) -> str:
    parts = []
    if reach.index_stops is not None:
        parts.append(f"the EI within {reach.index_stops:.2f} stop")
    if reach.time_share is not None:
        parts.append(f"the time within {max(1.0, 100 * reach.time_share):.0f} %")
    return " and ".join(parts) or "no figure at all"


def _sentences(
    rows: tuple[EnvelopeRow, ...], mine: PlanReach, best: BestPlan | None
) -> Generator[str, None, None]:
    yield (
        "With your frames, if nothing had gone wrong and a densitometer had read them: "
        f"{_reach_words(mine)} (typical error)."
    )
    if best is not None and best.reach.cost >= mine.cost:
        yield "No plan of as many frames that was tried comes nearer than yours."
    elif best is not None:
        times = ", ".join(minutes_text(t) for t in best.times)
        strips, frames = counted(len(best.times), "strip"), counted(best.frames, "frame")
        first = f"{best.first:+g}".replace("-", "−")
        yield (
            f"The best plan tried with as many frames: {strips} of {frames} each at {times} min "
            f"and 20 °C, steps of {best.step:g} stop from {first}: {_reach_words(best.reach)}."
        )
    yield _dearest(rows, mine, best)


def _dearest(rows: tuple[EnvelopeRow, ...], mine: PlanReach, best: BestPlan | None) -> str:
    """Which choice cost most, in stops of the EI or their like in time."""
    costs: dict[str, float] = {}
    for row in rows[:2]:
        stops = not row.question.measure.is_share
        scale = 1.0 if stops else 1 / 0.3
        own, found = row.off(row.mine.value), row.off(row.found.value)
        limit = (mine.index_stops if stops else mine.time_share) or 0.0
        if own is not None and found is not None:
            costs[f"leaving the program’s {row.name}"] = scale * (abs(own) - abs(found))
        if found is not None:
            costs[f"what went wrong, in the {row.name}"] = scale * (abs(found) - 2 * limit)
        if best is not None:
            reach = best.reach.index_stops if stops else best.reach.time_share
            costs[f"the plan, in the {row.name}"] = scale * (limit - (reach or 0.0))
    name, cost = max(costs.items(), key=lambda c: c[1], default=("", 0.0))
    if cost < _WORTH_SAYING:
        return "No choice cost much."
    return f"Most was lost by {name}: about {cost:.1f} stop, or its like in time."


def _keep(folder: Path, state: State, truth: dict[str, Any], report: EnvelopeReport) -> None:
    """Write down what came of it, for the scores over many films."""
    loaded = state.loaded
    by_eye = rating_of(state).by_eye
    seen = any(light_box_result(loaded, s) is not None for s in loaded.strips)
    ways = {r.way or "densitometer" for _, f in loaded.frames() for r in f.readings}
    way = ("light box" if seen else "print") if by_eye else "scan" if "scan" in ways else "readings"
    kept = {
        "opened_at": now(),
        "kind": truth.get("kind", ""),
        "level": truth["level"],
        "way": way,
        "digest": report.digest,
        "rows": [
            {
                "name": row.name,
                "mine_off": row.off(row.mine.value),
                "mine_held": row.mine.holds(row.true),
                "found_off": row.off(row.found.value),
                "found_held": row.found_holds,
            }
            for row in report.rows
        ],
        "traps": [[t.words, t.by_program, t.by_tester] for t in report.traps],
        "film": report.film,
        "sentences": list(report.sentences),
        "table": [list(cells) for cells in envelope_table(report)],
    }
    try:
        write_whole(folder / OPENED, json.dumps(kept, indent=1) + "\n")
    except OSError as error:
        raise FormatError(f"{folder / OPENED}: cannot be written; free the disk") from error


def envelope_table(report: EnvelopeReport) -> tuple[tuple[str, ...], ...]:
    """Rows of the table: the figure, the truth, one's own with its range, the program's."""
    held = {True: "held", False: "missed", None: "no range"}
    return tuple(
        (
            row.name,
            row.words_of(row.true),
            row.words_of(row.mine.value),
            row.off_words(row.mine.value),
            held[row.mine.holds(row.true)],
            row.words_of(row.found.value),
            row.off_words(row.found.value),
            held[row.found_holds],
        )
        for row in report.rows
    )

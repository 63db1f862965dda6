"""What stands beside the finding: how a rule of thumb fares, and what the prints say."""

from __future__ import annotations

from math import log2

from vadrin.app.descriptions import answers_itself
from vadrin.app.display.marks import stops_counted
from vadrin.app.document.state import State
from vadrin.app.findings.rolls_since import rolls_since
from vadrin.app.learning.estimated_time import ESTIMATED, estimate_of, why_no_estimate
from vadrin.app.learning.kit_learnt import bottle_words
from vadrin.app.learning.makers_off import counter_estimate
from vadrin.app.learning.misfit import misfit_words
from vadrin.app.overview.finding_sections import BESIDE, Section, Weight
from vadrin.app.printing.contact_sheet import print_beside_the_light_box
from vadrin.app.results.headline import headline_of
from vadrin.app.results.print_ei import print_answer, print_index_words
from vadrin.app.results.rule_scores import one_strip_fares
from vadrin.notebook.store import Notebook

_APART = 1 / 6


def beside_finding(notebook: Notebook, state: State) -> tuple[Section, ...]:
    """What stands beside the finding of a test: what others tell of its film, and notes."""
    told = estimate_of(notebook, state)
    notes = _notes(notebook, state)
    if isinstance(told, str):
        notes = tuple(words for words in (why_no_estimate(told), *notes) if words)
    lines = _of_makers(notebook, state) if isinstance(told, str) else told.lines
    every = (
        Section(ESTIMATED, tuple((words, Weight.ESTIMATED) for words in lines)),
        Section(BESIDE, tuple((words, Weight.NOTE) for words in notes)),
    )
    return tuple(section for section in every if section.lines)


def _of_makers(notebook: Notebook, state: State) -> tuple[str, ...]:
    """What makers' words come to for a roll of a film nobody tested."""
    if state.loaded.read() or not answers_itself(state.loaded.test.kind):
        return ()
    words = counter_estimate(notebook, state.loaded.test).words
    return (words,) if words else ()


def _notes(notebook: Notebook, state: State) -> tuple[str, ...]:
    """Sentences beside the finding of a test."""
    loaded, headline = state.loaded, headline_of(state)
    index = headline.index_value
    said = [one_strip_fares(notebook)] if headline.by_rule else []
    misfit = misfit_words(notebook, state)
    drift = bottle_words(notebook, loaded.test.id, loaded.test.bottle_id)
    said += [words for words in (misfit, drift) if words]
    told = print_answer(loaded)
    if told is not None:
        said.append(print_index_words(told[1]) + _beside(told[1].value, index))
    words = print_beside_the_light_box(loaded)
    came_out = rolls_since(notebook, loaded.test).words if loaded.findings else ""
    said += [words] if words else []
    return (*said, f"{came_out}.") if came_out else tuple(said)


def _beside(value: float | None, index: float | None) -> str:
    if value is None or index is None:
        return ""
    apart = log2(value / index)
    if abs(apart) < _APART:
        return " The densities say the same."
    side = "above" if apart > 0 else "below"
    return f" That is {stops_counted(abs(apart))} {side} what the densities say."

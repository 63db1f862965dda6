"""What stands under a finding, in order: next step, notes, warnings, what it rests on."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from enum import Enum

from vadrin.app.document.state import State
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.overview.warnings_of_test import warnings_of
from vadrin.app.results.headline import headline_of
from vadrin.app.results.provenance import rests_on
from vadrin.core.diagnostic import Severity

_MOST_NOTES, _MOST_DIAGNOSTICS = 5, 6


class Weight(Enum):
    """How much a line weighs among the others."""

    ACT = "what to do next"
    BODY = "usual"
    NOTE = "secondary"
    SMALL = "small print"
    TROUBLE = "trouble"
    ESTIMATED = "estimated"


WARNINGS, NEXT_STEP, BESIDE = "Warnings", "Next step", "Beside it"


@dataclass(frozen=True)
class Section:
    """Lines under a heading, each with its weight."""

    title: str
    lines: tuple[tuple[str, Weight], ...]


def sections_of(state: State, beside: tuple[Section, ...] = ()) -> tuple[Section, ...]:
    """Every section that has something to say; first what stands `beside` the finding."""
    loaded = state.loaded
    act = headline_of(state).next_act
    every = (
        *beside,
        Section(NEXT_STEP, ((act, Weight.ACT),) if act else ()),
        Section("Noted", tuple(_notes(loaded))),
        Section(WARNINGS, tuple(_warnings(state, act))),
        Section("What it rests on", tuple((words, Weight.NOTE) for words in rests_on(state))),
    )
    return tuple(section for section in every if section.lines)


def beside_the_fold(
    sections: tuple[Section, ...],
) -> tuple[tuple[Section, ...], tuple[Section, ...]]:
    """What must be seen without scrolling, warnings first and in short, and then the rest."""
    by_title = {section.title: section for section in sections}
    warned = by_title.pop(WARNINGS, None)
    act = by_title.pop(NEXT_STEP, None)
    short = None
    if warned is not None:
        # What to do about each stands on Finding, in the room there is.
        lines = tuple(line for line in warned.lines if line[1] is not Weight.SMALL)
        short = Section(WARNINGS, lines)
    return tuple(s for s in (short, act) if s is not None), tuple(by_title.values())


def _notes(loaded: LoadedTest) -> Iterator[tuple[str, Weight]]:
    noted = loaded.noted()
    for called, words in noted[:_MOST_NOTES]:
        yield f"{called[:1].upper()}{called[1:]}: {words}", Weight.BODY
    if len(noted) > _MOST_NOTES:
        more = f"{len(noted) - _MOST_NOTES} more, on the frames with a folded corner."
        yield more, Weight.SMALL


def _warnings(state: State, act: str) -> Iterator[tuple[str, Weight]]:
    """Warnings; what is the next step already is not said twice."""
    told = [w for w in warnings_of(state) if w.sentence != act]
    for diagnostic in told[:_MOST_DIAGNOSTICS]:
        serious = diagnostic.severity is Severity.SERIOUS
        yield diagnostic.sentence, Weight.TROUBLE if serious else Weight.BODY
        if diagnostic.remedy != act:
            yield diagnostic.remedy, Weight.SMALL

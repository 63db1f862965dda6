"""The figures of an opened envelope: what is true, what was said, what the program found."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path
from typing import Any

from vadrin.app.descriptions import own_answer
from vadrin.app.document.state import State
from vadrin.app.practice.commitment import Belief, Commitment
from vadrin.app.practice.envelope_words import holds
from vadrin.app.practice.own_truths import true_and_found
from vadrin.app.practice.practice_place import FILM
from vadrin.app.practice.practice_questions import BLUE, INDEX, PUSH, RED, TIME, Question
from vadrin.app.practice.practice_words import questions_on
from vadrin.app.practice.practised_film import world_of
from vadrin.app.results.rating import rating_of
from vadrin.core.figure import Figure, absent
from vadrin.core.simulation.practice_world import PracticeWorld


@dataclass(frozen=True)
class EnvelopeRow:
    """One figure: what is true, what its tester said, what the program found.

    Attributes
    ----------
    question : Question
    true : float or None
    mine : Belief
    found : Figure
    """

    question: Question
    true: float | None
    mine: Belief
    found: Figure

    @property
    def name(self) -> str:
        """What it is called."""
        return self.question.name

    def off(self, value: float | None) -> float | None:
        """How far a value is off: in stops, or as a share."""
        return self.question.measure.off(value, self.true)

    @property
    def found_holds(self) -> bool | None:
        """Whether the program's range holds the truth."""
        return holds(self.found, self.true)

    def words_of(self, value: float | None) -> str:
        """A value as it is shown."""
        return self.question.measure.shown(value)

    def off_words(self, value: float | None) -> str:
        """An error as it is shown."""
        return self.question.measure.off_words(value, self.true)


def target_of(state: State) -> float:
    """The average gradient that a time is held against."""
    rating = rating_of(state)
    return rating.target_value if rating.target_kind == "average_gradient" else 0.58


def figure_rows(
    state: State, folder: Path, film: dict[str, Any], said: Commitment
) -> tuple[EnvelopeRow, ...]:
    """The figures a practice film was asked for: true, said and found."""
    asked = questions_on(folder / FILM)
    if INDEX not in asked:
        return _own_rows(state, folder, film, said)
    true, rating = world_of(folder).film, rating_of(state)
    normal = true.time_for_gradient(target_of(state))
    strips = state.loaded.strips
    rated = normal
    if rating.as_developed or len(strips) == 1:
        # One development: the EI is that of the strip it was found on, as that was developed.
        strip = rating.judged.strip if rating.judged is not None else strips[0]
        rated = film["worth"].get(str(strip.strip.id))
    index_true = None if rated is None else true.zone_ei(float(rated))
    rows = [EnvelopeRow(INDEX, index_true, said.of(INDEX.key), rating.index)]
    if len(strips) == 1:
        return tuple(rows)
    rows.append(EnvelopeRow(TIME, normal, said.of(TIME.key), rating.time_min))
    pushed = said.of(PUSH.key)
    if pushed.value is not None and normal is not None:
        push = next((p for p in state.settled().push if p.stops == 1.0), None)
        found = push.hold_highlight.time_min if push is not None else Figure(None)
        longer = true.push_minutes(normal, 1.0)
        rows.append(EnvelopeRow(PUSH, longer, pushed, found))
    return tuple(rows)


def _own_rows(
    state: State, folder: Path, film: dict[str, Any], said: Commitment
) -> tuple[EnvelopeRow, ...]:
    """Rows of a test that answers in its own words: its figures, beside those of the film."""
    world = world_of(folder)
    if world.layers:
        return _layer_rows(state, world, film, said)
    answer = own_answer(state)
    figures = answer.figures if answer is not None else {}
    rows = []
    for question in questions_on(folder / FILM):
        true, found = true_and_found(question, world, state, film, figures)
        rows.append(EnvelopeRow(question, true, said.of(question.key), found))
    return tuple(rows)


def _layer_rows(
    state: State, world: PracticeWorld, film: dict[str, Any], said: Commitment
) -> tuple[EnvelopeRow, ...]:
    """Contrast of the other layers beside that of green, on the strip that is not pushed."""
    normal = min(state.loaded.strips, key=lambda s: abs(s.strip.push or 0.0))
    worth = film["worth"].get(str(normal.strip.id))
    label = normal.strip.label
    layers_read = (m for m in state.settled().layers if m.label == label)
    read = {str(m.channel): m.average_gradient.value for m in layers_read}
    rows = []
    for question, channel in ((RED, "red"), (BLUE, "blue")):
        true = None
        if worth is not None:
            layers = (world.layers[channel], world.film)
            own, green = (made.average_gradient(float(worth)) for made in layers)
            true = own / green if own and green else None
        one, other = read.get(channel), read.get("green")
        found = Figure(one / other) if one and other else absent("not read")
        rows.append(EnvelopeRow(question, true, said.of(question.key), found))
    return tuple(rows)

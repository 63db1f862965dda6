"""What each type of test asks, how it is planned and what it answers, found by its key.

Each is described in `vadrin.app.test_types`, under the name its file has in the core, and is
loaded when it is asked for.
"""

from __future__ import annotations

from importlib import import_module
from typing import TYPE_CHECKING

from vadrin.app.descriptions.description import PlanSentence, TestDescription
from vadrin.app.loaded.once import once
from vadrin.core.planning.test_types import all_types, name_of, type_of

if TYPE_CHECKING:
    from vadrin.app.descriptions.answer_in_words import OwnAnswer
    from vadrin.app.document.state import State
    from vadrin.notebook.records import Test
    from vadrin.notebook.store import Notebook

__all__ = [
    "PlanSentence",
    "TestDescription",
    "answers_itself",
    "beside_of",
    "description_of",
    "descriptions",
    "name_of",
    "own_answer",
]


_WHERE = "vadrin.app.test_types"
"""The room of their files, in words: who describes a type may use whatever finds it here."""


def _described(name: str) -> TestDescription:
    made: TestDescription = import_module(f"{_WHERE}.{name}").DESCRIPTION
    return made


def descriptions() -> tuple[TestDescription, ...]:
    """Every type, in the order testers need them."""
    return tuple(description_of(key) for key in all_types())


def description_of(key: str) -> TestDescription:
    """The type with a key; that of development times for a key not known here."""
    return _described(name_of(key) or "development_time")


def beside_of(notebook: Notebook, test: Test) -> object:
    """What a test is laid beside of the rest of the notebook; its own type knows what that is."""
    kind, name = type_of(test.kind), name_of(test.kind)
    if kind is None or not kind.beside_others:
        return None
    found: object = import_module(f"{_WHERE}.beside.{name}").ask(notebook, test)
    return found


@once
def own_answer(state: State) -> OwnAnswer | None:
    """What a test says that asks for something else than an EI; None for the others."""
    answer = description_of(state.loaded.test.kind).answer
    return answer(state) if answer else None


def answers_itself(kind: str) -> bool:
    """Whether a type of test asks for something else than an EI and a time."""
    return description_of(kind).answer is not None

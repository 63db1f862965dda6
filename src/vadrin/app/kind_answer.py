"""The answer of a kind of test that asks for something else than an EI and a time."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from vadrin.app.test_sheet import TestSheet


@dataclass(frozen=True)
class KindAnswer:
    """What a test of such a kind says.

    Attributes
    ----------
    says : str
        In a word or two; empty where it is not known yet.
    words : str
        How sure, or what is missing.
    act : str
        The one thing to do next.
    figures : mapping of str to float or None
        Numbers behind it, by their keys in the report.
    """

    says: str
    words: str
    act: str
    figures: Mapping[str, float | None] = field(default_factory=dict)


Answer = Callable[["TestSheet"], KindAnswer]
"""How a kind answers."""
_ANSWERS: dict[str, Answer] = {}


def register_answer(kind: str, answer: Answer) -> None:
    """Let a kind of test answer for itself."""
    _ANSWERS[kind] = answer


def own_answer(sheet: TestSheet) -> KindAnswer | None:
    """What a test says that asks for something else than an EI; None for the others."""
    answer = _ANSWERS.get(sheet.test.kind)
    return answer(sheet) if answer else None

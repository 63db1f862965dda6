"""A word of a plan's sentences that a tester can change, and those of a type's own options."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import TYPE_CHECKING, Any

from vadrin.app.entry.choices import choice_typed
from vadrin.app.entry.stepping import StepWord, chooser
from vadrin.core.planning.test_options import TestOptions, options_as

if TYPE_CHECKING:
    from vadrin.app.loaded.loaded_test import LoadedTest
    from vadrin.app.plan.plan_edit import PlanEdit


@dataclass(frozen=True)
class Word:
    """One underlined word of a plan.

    Attributes
    ----------
    name : str
        What it is called, for labels, undo and screen readers.
    edit : callable
        Takes a typed word into a plan; raises `EntryError`.
    shown : callable
        The word as it stands in the sentence.
    step : callable, optional
        The word shown as the arrow keys step it.
    """

    name: str
    edit: Callable[[PlanEdit, str], PlanEdit]
    shown: Callable[[LoadedTest, PlanEdit], str]
    step: StepWord | None = None


def numbers_text(values: tuple[float, ...]) -> str:
    """Numbers as typed."""
    return ", ".join(f"{v:g}" for v in values)


def option_word(
    name: str,
    sort: type[TestOptions],
    field: str,
    read: Callable[[str], Any],
    shown: Callable[[Any], str] = numbers_text,
    step: StepWord | None = None,
) -> Word:
    """The word for one of a type's own options.

    Parameters
    ----------
    name : str
    sort : type
        Of the options; the usual ones stand for those of a test that has none yet.
    field : str
        Of the options.
    read, shown : callable
        The typed word as a value, and a value as a word.
    step : callable, optional
    """

    def held(plan: PlanEdit) -> TestOptions:
        return options_as(plan.test.options, sort)

    def edit(plan: PlanEdit, words: str) -> PlanEdit:
        changes: dict[str, Any] = {field: read(words)}
        return replace(plan, test=replace(plan.test, options=replace(held(plan), **changes)))

    return Word(name, edit, lambda _loaded, plan: shown(getattr(held(plan), field)), step)


def choice_word(name: str, sort: type[TestOptions], field: str, choices: type[StrEnum]) -> Word:
    """The word for one of a type's own options that is one of several, stepped through.

    Parameters
    ----------
    name : str
    sort : type
        Of the options.
    field : str
        Of the options.
    choices : type
        Their values are the words.
    """

    def read(words: str) -> StrEnum:
        return choices(choice_typed(words, choices, anywhere=True))

    return option_word(name, sort, field, read, str, chooser(list(choices)))

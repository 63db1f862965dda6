"""A test as it is in the file, with the answer to it: the one thing all views are made from."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property
from threading import Lock
from typing import TYPE_CHECKING, NamedTuple

from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.core.interruption import interruptible
from vadrin.errors import StaleAnswerError

if TYPE_CHECKING:
    from vadrin.core.readings import StripReadings
    from vadrin.core.results.analysis_result import Analysis, Settings

_KEPT = 64
_known: OrderedDict[Question, Analysis] = OrderedDict()
_lock = Lock()


class Question(NamedTuple):
    """All that an answer hangs on."""

    kind: str
    strips: tuple[StripReadings, ...]
    settings: Settings


@dataclass(frozen=True)
class WorkedOut:
    """What readings come to, with the question that is the answer to."""

    question: Question
    analysis: Analysis


@dataclass(frozen=True)
class State:
    """A test and its answer.

    Attributes
    ----------
    loaded : LoadedTest
        As it is in the file.
    answer : WorkedOut or None
        The last that was worked out; of the test as it was before an edit, until it is worked
        out anew. Nothing reads it but through `analysis`.
    """

    loaded: LoadedTest
    answer: WorkedOut | None = None

    @cached_property
    def question(self) -> Question:
        """The question the test poses as it stands."""
        # Loads the numerical packages, which the first picture of the window does not wait for.
        from vadrin.app.document.analysis_input import readings_of, settings_of

        return Question(self.loaded.test.kind, readings_of(self.loaded), settings_of(self.loaded))

    @cached_property
    def analysis(self) -> Analysis | None:
        """What the readings come to; None until it is worked out for the test as it is now."""
        if self.answer is None or self.answer.question != self.question:
            return None
        return self.answer.analysis

    @property
    def earlier(self) -> Analysis | None:
        """What the readings came to before the last edit, while that is worked out anew.

        For a picture that keeps its place and is drawn as what it is; no number comes from here.
        """
        return self.answer.analysis if self.answer is not None and self.analysis is None else None

    def settled(self) -> Analysis:
        """What the readings come to, for whoever decides, prints or writes it down.

        Raises
        ------
        StaleAnswerError
            While there is no answer to the test as it is now.
        """
        if self.analysis is None:
            why = "it has changed and" if self.answer else "it"
            raise StaleAnswerError(f"“{self.loaded.title}”: {why} is still being worked out")
        return self.analysis


def answer_kept_for(question: Question) -> WorkedOut | None:
    """The answer, where it was worked out before."""
    with _lock:
        analysis = _known.get(question)
    return WorkedOut(question, analysis) if analysis is not None else None


def answer_to(question: Question, ask: Callable[[], None] = lambda: None) -> WorkedOut:
    """The answer, known or worked out; may take a second, and may run off the screen's thread.

    Parameters
    ----------
    question : Question
    ask : callable
        Called often while it is worked out; what it raises stops that.
    """
    from vadrin.app.document.analysis_input import analyse_as

    known = answer_kept_for(question)
    if known is None:
        with interruptible(ask):
            known = WorkedOut(question, analyse_as(*question))
    with _lock:
        _known[question] = known.analysis
        _known.move_to_end(question)
        while len(_known) > _KEPT:
            _known.popitem(last=False)
    return known


def answered(loaded: LoadedTest) -> State:
    """A test with its answer, worked out here and now."""
    state = State(loaded)
    return State(loaded, answer_to(state.question))

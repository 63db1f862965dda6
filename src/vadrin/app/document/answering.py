"""Works the test on the bench out, wherever it is told to, and puts its answer on the bench."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, Protocol

from vadrin.app.document.state import Question, WorkedOut, answer_kept_for, answer_to
from vadrin.app.document.workbench import Workbench

_ANSWER = "analysis"
Said = Callable[[int, int], None]
"""Told how much of how much is done; raises where the work is to stop."""


class Executor(Protocol):
    """Does work under a key, of which only the newest counts."""

    def run(self, key: str, work: Callable[[Said], Any], done: Callable[[Any], None]) -> object:
        """Do some work and hand over what it gives; work begun under the same key is dropped."""

    def cancel(self, key: str) -> None:
        """Drop what is under way under a key."""

    def busy(self, key: str) -> bool:
        """Whether something is under way under a key."""


class AtOnce:
    """Does work where it stands: for a command, and wherever nobody waits at a screen."""

    def run(self, _key: str, work: Callable[[Said], Any], done: Callable[[Any], None]) -> None:
        """Do it now."""
        done(work(lambda _done, _total: None))

    def cancel(self, _key: str) -> None:
        """Nothing is ever under way."""

    def busy(self, _key: str) -> bool:
        """Never: it is done before anyone can ask."""
        return False


class Answering:
    """Answers the question the test on the bench poses; none is worked out twice.

    Parameters
    ----------
    bench : Workbench
    executor : Executor
    """

    def __init__(self, bench: Workbench, executor: Executor) -> None:
        self._bench, self._executor = bench, executor
        self._asked: Question | None = None

    def ask(self) -> None:
        """Work out the test on the bench, unless that is known already or under way."""
        state = self._bench.state
        if state is None:
            self._asked = None
            self._executor.cancel(_ANSWER)
            return
        if state.analysis is not None:
            self._executor.cancel(_ANSWER)
            return
        question = state.question
        known = answer_kept_for(question)
        if known is not None:
            self._executor.cancel(_ANSWER)
            self._take(question, known)
        elif question != self._asked or not self._executor.busy(_ANSWER):
            self._asked = question
            self._executor.run(
                _ANSWER,
                lambda said: answer_to(question, lambda: said(0, 0)),
                lambda made: self._take(question, made),
            )

    def _take(self, question: Question, answer: WorkedOut) -> None:
        """Put an answer on the bench, if the question is still the one that is asked."""
        self._asked = question
        if self._bench.state is not None and self._bench.state.question == question:
            self._bench.take_answer(answer)

"""Questions that tests pose and the answers known already: none is worked out twice in a run."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Callable
from threading import Lock
from typing import TYPE_CHECKING, NamedTuple

from vadrin.app.test_sheet import TestSheet

if TYPE_CHECKING:
    from vadrin.core.readings import StripReadings
    from vadrin.core.results.analysis import Analysis, Settings

_KEPT = 64
_known: OrderedDict[Question, Analysis] = OrderedDict()
_lock = Lock()


class Question(NamedTuple):
    """All that an answer hangs on."""

    kind: str
    strips: tuple[StripReadings, ...]
    settings: Settings


def question_of(sheet: TestSheet) -> Question:
    """The question a test poses as it stands."""
    # Loads the numerical packages, which the first picture of the window does not wait for.
    from vadrin.app.results.analysis_input import readings_of, settings_of

    return Question(sheet.test.kind, readings_of(sheet), settings_of(sheet))


def known_answer(question: Question) -> Analysis | None:
    """The answer, where it was worked out before."""
    with _lock:
        return _known.get(question)


def answer_to(question: Question, ask: Callable[[], None] = lambda: None) -> Analysis:
    """The answer, known or worked out; may take a second, and may run off the screen's thread.

    Parameters
    ----------
    question : Question
    ask : callable
        Called often while it is worked out; what it raises stops that.
    """
    from vadrin.app.results.analysis_input import analyse_as
    from vadrin.core.interruption import interruptible

    answer = known_answer(question)
    if answer is None:
        with interruptible(ask):
            answer = analyse_as(*question)
    with _lock:
        _known[question] = answer
        _known.move_to_end(question)
        while len(_known) > _KEPT:
            _known.popitem(last=False)
    return answer

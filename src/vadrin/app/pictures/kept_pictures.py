"""Pictures that were made, kept for as long as they may be looked at again."""

from __future__ import annotations

from collections import OrderedDict
from threading import Lock
from typing import NamedTuple

from vadrin.app.document.state import Question, State, answer_to
from vadrin.app.pictures.exposed import Exposed
from vadrin.app.pictures.looking import Looking, PaperUsed
from vadrin.app.pictures.seen import Seen, seen

_MOST_POINTS = 16_000_000
"""Points of all that is kept."""


class Wanted(NamedTuple):
    """A picture that is asked for, and the test whose curves it is of."""

    state: State
    exposed: Exposed
    looking: Looking
    paper: PaperUsed
    shrunk: int

    @property
    def printed_on(self) -> PaperUsed:
        """The picture's own paper, else the one that is looked at."""
        return self.exposed.printed_on(self.paper)


class _Key(NamedTuple):
    question: Question
    exposed: Exposed
    looking: Looking
    paper: bytes
    shrunk: int


_known: OrderedDict[_Key, Seen | None] = OrderedDict()
_lock = Lock()


def _key(wanted: Wanted) -> _Key:
    # What is hatched is drawn over a picture and makes no other one.
    looking = wanted.looking.unmarked()
    # A paper that was read anew may be called the same: its curve tells.
    curve = wanted.printed_on.paper.density.tobytes()
    return _Key(wanted.state.question, wanted.exposed, looking, curve, wanted.shrunk)


def is_kept(wanted: Wanted) -> bool:
    """Whether a picture was made already."""
    with _lock:
        return _key(wanted) in _known


def picture(wanted: Wanted) -> Seen | None:
    """The picture, kept or made; None where its development was not tested.

    A test without an answer is worked out first, which may take a second.

    Raises
    ------
    StaleAnswerError
        If there is an answer, but to another question.
    """
    key = _key(wanted)
    with _lock:
        if key in _known:
            _known.move_to_end(key)
            return _known[key]
    state = wanted.state
    if state.answer is None:
        state = State(state.loaded, answer_to(state.question))
    made = seen(state, wanted.exposed, wanted.looking, wanted.printed_on, wanted.shrunk)
    with _lock:
        _known[key] = made
        while sum(p.codes[0].size for p in _known.values() if p is not None) > _MOST_POINTS:
            _known.popitem(last=False)
    return made

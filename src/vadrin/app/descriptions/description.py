"""What the tester sees of a type of test: its question, its plan to begin with, its answer."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from enum import Enum
from typing import TYPE_CHECKING

from vadrin.app.descriptions.answer_in_words import AnswersInWords
from vadrin.app.descriptions.plan_word import Word
from vadrin.core.planning.plan_request import Arrangement
from vadrin.core.planning.test_options import TestOptions
from vadrin.core.planning.test_types import TestType, all_types

if TYPE_CHECKING:
    from vadrin.app.document.state import State
    from vadrin.formats.reports.card import Card


class PlanSentence(Enum):
    """The sentences a plan can need, beside those that every plan has."""

    TIMES = "times"
    ONE_TIME = "one time"
    BRACKET = "bracket"
    OWN = "own"
    FILTER = "filter"
    FRESHNESS = "freshness"
    ROLL = "roll"


_USUAL = (PlanSentence.ONE_TIME, PlanSentence.BRACKET, PlanSentence.ROLL)


@dataclass(frozen=True)
class TestDescription:
    """One type of test in the tester's words.

    Attributes
    ----------
    key : str
        Of the type in the core.
    question, sentence : str
        What the tester asks, and what is done about it.
    sentences : tuple of PlanSentence
        Which sentences of the plan it takes.
    times : tuple of float
        Minutes to begin with.
    first, last, step : float
        Bracket to begin with.
    options : TestOptions, optional
        Its own options to begin with, where they are not the usual ones.
    own_sentence : str
        The sentence of its own options, keys of `own_words` in braces.
    own_words : dict of str to Word
        The words of that sentence.
    subject : str
    arrangement : Arrangement
    metered_seconds : float
    answer : callable, optional
        The answer of a type that asks for something else than an EI and a time.
    kit : str
        What one must have for it, where that is not the usual kit.
    piece : str
        What its film is counted in.
    card : callable, optional
        Its card, where that is neither of an EI and a time nor of the words it answers with.
    """

    __test__ = False

    key: str
    question: str
    sentence: str
    sentences: tuple[PlanSentence, ...] = _USUAL
    times: tuple[float, ...] = (8.0,)
    first: float = -6.0
    last: float = 5.0
    step: float = 1.0
    options: TestOptions | None = None
    own_sentence: str = ""
    own_words: Mapping[str, Word] = field(default_factory=dict)
    subject: str = "plain target"
    arrangement: Arrangement = Arrangement.SEQUENTIAL
    metered_seconds: float = 1 / 30
    answer: AnswersInWords | None = None
    kit: str = ""
    piece: str = "roll"
    card: Callable[[State], Card | None] | None = None

    @property
    def kind(self) -> TestType:
        """The type itself."""
        return all_types()[self.key]

    @property
    def options_to_begin(self) -> TestOptions:
        """Its own options as a new test has them."""
        return self.kind.options if self.options is None else self.options

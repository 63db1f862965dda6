"""What the tester sees of a kind of test: its question, its plan to begin with, its answer."""

from __future__ import annotations

from dataclasses import dataclass
from enum import Enum
from typing import TYPE_CHECKING

from vadrin.app.kind_answer import Answer, register_answer
from vadrin.core.planning.plan_request import Arrangement
from vadrin.core.planning.test_kinds import TestKind, registered_kinds

if TYPE_CHECKING:
    from vadrin.app.test_sheet import TestSheet
    from vadrin.core.results.analysis import Analysis
    from vadrin.formats.reports.card_pdf import Card

SCHOOLS_AND_PUSHES = "schools and pushes"
"""Key of the view that shows the answer of kinds without one of their own."""
CONTROL_CHART = "control chart"
"""Key of the view of control strips over their runs."""
KIND_ANSWER = "kind answer"
"""Key of the view of what a kind says in its own words, with its film, its plot and its rows."""
PUSH_LADDER = "push ladder"
"""Key of the view of pushes as film, beside their table."""
FRAMES_BY_INDEX = "frames by EI"
"""Key of the view of a speed test's frames, beside its schools."""
TWO_PIECES = "two pieces"
"""Key of the view of a clip beside the good piece."""


class PlanSentence(Enum):
    """The sentences a plan can need, beside those that every plan has."""

    TIMES = "times"
    ONE_TIME = "one time"
    BRACKET = "bracket"
    SECOND_FACTOR = "second factor"
    SERIES = "series"
    SHEET = "sheet"
    FILTER = "filter"
    FRESHNESS = "freshness"
    ROLL = "roll"


_USUAL = (PlanSentence.ONE_TIME, PlanSentence.BRACKET, PlanSentence.ROLL)


@dataclass(frozen=True)
class KindPage:
    """One kind of test in the tester's words.

    Attributes
    ----------
    key : str
        Of the kind it is the page of.
    question, sentence : str
        What the tester asks, and what is done about it.
    sentences : tuple of PlanSentence
        Which sentences of the plan it takes.
    times : tuple of float
        Minutes to begin with.
    first, last, step : float
        Bracket to begin with.
    second_factor : tuple of float
        The other factor to begin with.
    second_words : str
        The sentence around it, with ``…`` where it stands.
    subject : str
    arrangement : Arrangement
    metered_seconds : float
    answer_view : str
        Key of the view that shows its answer.
    answer : callable, optional
        The answer of a kind that asks for something else than an EI and a time.
    """

    key: str
    question: str
    sentence: str
    sentences: tuple[PlanSentence, ...] = _USUAL
    times: tuple[float, ...] = (8.0,)
    first: float = -6.0
    last: float = 5.0
    step: float = 1.0
    second_factor: tuple[float, ...] = ()
    second_words: str = ""
    subject: str = "plain target"
    arrangement: Arrangement = Arrangement.SEQUENTIAL
    metered_seconds: float = 1 / 30
    answer_view: str = SCHOOLS_AND_PUSHES
    answer: Answer | None = None

    @property
    def kind(self) -> TestKind:
        """The kind itself, as it is registered."""
        return registered_kinds()[self.key]

    def present_card(self, sheet: TestSheet, analysis: Analysis) -> Card | None:
        """What its card would say now; a kind with a card of its own answers here."""
        from vadrin.app.decisions.darkroom_card import kind_card, present_card

        if self.answer is not None:
            return kind_card(sheet, self.answer(sheet, analysis))
        return present_card(sheet, analysis)

    def card(self, sheet: TestSheet, analysis: Analysis) -> Card | None:
        """Its card: of the decision, or of the present answer, said to be not decided."""
        from vadrin.app.decisions.darkroom_card import card_of

        return card_of(sheet, analysis, self.present_card(sheet, analysis))


PAGES: dict[str, KindPage] = {}


def register_page(page: KindPage) -> None:
    """Make a page known, after those that were before it.

    Raises
    ------
    ValueError
        If the kind has one already.
    """
    if page.key in PAGES:
        raise ValueError(f"{page.key} has a page already")
    PAGES[page.key] = page
    if page.answer is not None:
        register_answer(page.key, page.answer)


def all_pages() -> tuple[KindPage, ...]:
    """Every page, in the order testers need them."""
    return tuple(PAGES.values())


def page_of(key: str) -> KindPage:
    """The page of a kind; that of development times for a kind not known here."""
    return PAGES.get(key) or next(iter(PAGES.values()))

"""The page of a test of pushes."""

from __future__ import annotations

from vadrin.app.kinds.kind_page import PUSH_LADDER, KindPage, PlanSentence
from vadrin.core.planning.test_kinds.push_test import PushTest

PAGE = KindPage(
    PushTest.key,
    "What does a push cost, and which is the last I can use?",
    "The film at its EI and pushed, a strip or a roll each.",
    sentences=(
        PlanSentence.ONE_TIME,
        PlanSentence.BRACKET,
        PlanSentence.SECOND_FACTOR,
        PlanSentence.ROLL,
    ),
    times=(6.5,),
    first=-4.0,
    last=4.0,
    second_factor=(0.0, 1.0, 2.0),
    second_words="Pushed by … stops, a strip each; the time of each is as the maker's "
    "table has it, or a third longer a stop.",
    answer_view=PUSH_LADDER,
)

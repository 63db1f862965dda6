"""The page of a colour film that is pushed."""

from __future__ import annotations

from vadrin.app.answers.colour_answer import colour_answer
from vadrin.app.kinds.kind_page import KIND_ANSWER, KindPage, PlanSentence
from vadrin.core.planning.test_kinds.colour_push import ColourPush

PAGE = KindPage(
    ColourPush.key,
    "What do colours do when it is pushed?",
    "A chart at the normal time and at each push.",
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
    second_words="Pushed by … stops, a strip each.",
    subject="colour chart",
    answer_view=KIND_ANSWER,
    answer=colour_answer,
)

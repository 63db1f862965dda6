"""The page of reversal and direct-positive material."""

from __future__ import annotations

from vadrin.app.answers.reversal_answer import reversal_answer
from vadrin.app.kinds.kind_page import KIND_ANSWER, KindPage, PlanSentence
from vadrin.core.planning.test_kinds.reversal import Reversal

PAGE = KindPage(
    Reversal.key,
    "Which exposure and which second step give the best positive?",
    "Camera exposure one way, the second factor the other: a grid of cells.",
    sentences=(
        PlanSentence.ONE_TIME,
        PlanSentence.BRACKET,
        PlanSentence.SECOND_FACTOR,
        PlanSentence.FRESHNESS,
        PlanSentence.ROLL,
    ),
    first=-3.0,
    last=3.0,
    second_factor=(-1.0, 0.0, 1.0),
    second_words="The second exposure, flash or bleach in steps of …, a strip each.",
    answer_view=KIND_ANSWER,
    answer=reversal_answer,
)

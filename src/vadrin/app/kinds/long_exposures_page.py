"""The page of long exposures."""

from __future__ import annotations

from vadrin.app.answers.long_exposures_answer import long_exposures_answer
from vadrin.app.kinds.kind_page import KIND_ANSWER, KindPage, PlanSentence
from vadrin.core.planning.test_kinds.long_exposures import LongExposures

PAGE = KindPage(
    LongExposures.key,
    "How much longer in dim light?",
    "One exposure, short and bright, then ever longer and dimmer.",
    sentences=(PlanSentence.ONE_TIME, PlanSentence.SECOND_FACTOR),
    second_factor=(1.0, 4.0, 15.0, 60.0),
    second_words="The same exposure as … s, each also one and two stops longer.",
    answer_view=KIND_ANSWER,
    answer=long_exposures_answer,
)

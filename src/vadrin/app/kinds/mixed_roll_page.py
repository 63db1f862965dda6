"""The page of a roll that carries several EIs."""

from __future__ import annotations

from vadrin.app.answers.mixed_roll_answer import mixed_roll_answer
from vadrin.app.kinds.kind_page import KIND_ANSWER, KindPage, PlanSentence
from vadrin.core.planning.test_kinds.mixed_roll import MixedRoll

PAGE = KindPage(
    MixedRoll.key,
    "Can one roll carry several EIs?",
    "One roll at many EIs in a process left to stand, its twin in the normal one.",
    sentences=(PlanSentence.TIMES, PlanSentence.SECOND_FACTOR, PlanSentence.ROLL),
    times=(60.0, 8.0),
    second_factor=(25.0, 50.0, 100.0, 200.0, 400.0, 800.0),
    second_words="Each exposure once at EI … on both rolls.",
    answer_view=KIND_ANSWER,
    answer=mixed_roll_answer,
)

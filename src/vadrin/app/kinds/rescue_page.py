"""The page of old film."""

from __future__ import annotations

from vadrin.app.answers.rescue_answer import rescue_answer
from vadrin.app.kinds.kind_page import KIND_ANSWER, KindPage, PlanSentence
from vadrin.core.planning.test_kinds.rescue import Rescue

PAGE = KindPage(
    Rescue.key,
    "Is this old film still worth using, and at which EI?",
    "From the marked speed down in whole stops, the last frames fogged for a clip.",
    sentences=(PlanSentence.TIMES, PlanSentence.BRACKET, PlanSentence.ROLL),
    first=0.0,
    last=7.0,
    subject="still scene",
    answer_view=KIND_ANSWER,
    answer=rescue_answer,
)

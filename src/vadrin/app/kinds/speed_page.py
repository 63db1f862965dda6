"""The page of a test of speed."""

from __future__ import annotations

from vadrin.app.kinds.kind_page import FRAMES_BY_INDEX, KindPage, PlanSentence
from vadrin.core.planning.test_kinds.speed import Speed

PAGE = KindPage(
    Speed.key,
    "At which EI do I rate it, developed as I do?",
    "One development, from far under to far over.",
    sentences=(PlanSentence.ONE_TIME, PlanSentence.BRACKET, PlanSentence.SERIES, PlanSentence.ROLL),
    step=0.5,
    answer_view=FRAMES_BY_INDEX,
)

"""The page of cine film."""

from __future__ import annotations

from vadrin.app.answers.cine_answer import cine_answer
from vadrin.app.kinds.kind_page import KIND_ANSWER, KindPage, PlanSentence
from vadrin.core.planning.test_kinds.cine import Cine

PAGE = KindPage(
    Cine.key,
    "At which EI do I meter for my cine camera?",
    "Single frames at a few apertures in each light, the strip cut in pieces for its times.",
    sentences=(
        PlanSentence.TIMES,
        PlanSentence.BRACKET,
        PlanSentence.SECOND_FACTOR,
        PlanSentence.FILTER,
        PlanSentence.ROLL,
    ),
    times=(6.0, 8.0),
    first=-2.0,
    last=2.0,
    second_factor=(1.0, 2.0),
    second_words="Lights … (1 sun, 2 open shade, 3 lamp), the meter read anew in each.",
    subject="still scene",
    answer_view=KIND_ANSWER,
    answer=cine_answer,
)

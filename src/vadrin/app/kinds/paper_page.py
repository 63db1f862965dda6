"""The page of enlarging paper."""

from __future__ import annotations

from vadrin.app.kinds.kind_page import KIND_ANSWER, KindPage, PlanSentence
from vadrin.app.printing.paper_answer import paper_kind_answer
from vadrin.core.planning.test_kinds.paper import PaperTest

PAGE = KindPage(
    PaperTest.key,
    "What is the shortest time for full black?",
    "Steps through clear film on enlarging paper, in stops of time.",
    sentences=(PlanSentence.BRACKET,),
    first=-2.0,
    last=2.0,
    step=1 / 3,
    subject="clear film",
    metered_seconds=8.0,
    answer_view=KIND_ANSWER,
    answer=lambda sheet, _analysis: paper_kind_answer(sheet),
)

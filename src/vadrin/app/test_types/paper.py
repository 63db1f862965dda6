"""The page of enlarging paper."""

from __future__ import annotations

from vadrin.app.descriptions.description import PlanSentence, TestDescription
from vadrin.app.printing.paper_answer import paper_answer
from vadrin.core.planning.test_types.paper import PaperTest

DESCRIPTION = TestDescription(
    PaperTest.key,
    "What is the shortest time for maximum black?",
    "Steps through clear film on enlarging paper, in stops of time.",
    sentences=(PlanSentence.BRACKET,),
    first=-2.0,
    last=2.0,
    step=1 / 3,
    subject="clear film",
    metered_seconds=8.0,
    answer=lambda state: paper_answer(state.loaded),
)

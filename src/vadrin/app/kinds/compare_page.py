"""The page of a comparison with one that is known."""

from __future__ import annotations

from vadrin.app.answers.compare_answer import compare_answer
from vadrin.app.kinds.kind_page import KIND_ANSWER, KindPage
from vadrin.core.planning.plan_request import Arrangement
from vadrin.core.planning.test_kinds.compare import Compare

PAGE = KindPage(
    Compare.key,
    "How does it differ from the one I know?",
    "The same exposures in pairs: one for the reference, one for the other.",
    arrangement=Arrangement.INTERLEAVED,
    answer_view=KIND_ANSWER,
    answer=compare_answer,
)

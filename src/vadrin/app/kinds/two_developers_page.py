"""The page of one film in two developers."""

from __future__ import annotations

from vadrin.app.answers.two_developers_answer import two_developers_answer
from vadrin.app.kinds.kind_page import KIND_ANSWER, KindPage
from vadrin.core.planning.plan_request import Arrangement
from vadrin.core.planning.test_kinds.two_developers import TwoDevelopers

PAGE = KindPage(
    TwoDevelopers.key,
    "What does another developer change?",
    "Identical exposures in pairs, interleaved, half for each; stain read through blue or UV.",
    arrangement=Arrangement.INTERLEAVED,
    answer_view=KIND_ANSWER,
    answer=two_developers_answer,
)

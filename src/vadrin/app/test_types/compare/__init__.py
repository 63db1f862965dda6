"""The page of a comparison with one that is known."""

from __future__ import annotations

from vadrin.app.descriptions.description import TestDescription
from vadrin.app.test_types.compare.compared import compare_answer
from vadrin.core.planning.plan_request import Arrangement
from vadrin.core.planning.test_types.compare import Compare

DESCRIPTION = TestDescription(
    Compare.key,
    "How does this film differ from my reference?",
    "The same exposures in pairs: one for the reference, one for the other.",
    arrangement=Arrangement.INTERLEAVED,
    answer=compare_answer,
)

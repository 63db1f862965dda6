"""The page of one film in two developers."""

from __future__ import annotations

from vadrin.app.descriptions.description import TestDescription
from vadrin.app.test_types.two_developers.answer import two_developers_answer
from vadrin.core.planning.plan_request import Arrangement
from vadrin.core.planning.test_types.two_developers import TwoDevelopers

DESCRIPTION = TestDescription(
    TwoDevelopers.key,
    "What does another developer change?",
    "Identical exposures in pairs, interleaved, half for each; stain read through blue or UV.",
    arrangement=Arrangement.INTERLEAVED,
    answer=two_developers_answer,
)

"""The page of a test of development times."""

from __future__ import annotations

from vadrin.app.descriptions.description import PlanSentence, TestDescription
from vadrin.core.planning.test_types.development_time import DevelopmentTime

DESCRIPTION = TestDescription(
    DevelopmentTime.key,
    "How long do I develop this film, normal, pushed and pulled?",
    "The same exposures on several strips, each developed for another time.",
    sentences=(PlanSentence.TIMES, PlanSentence.BRACKET, PlanSentence.ROLL),
    times=(6.0, 8.0, 11.0, 15.0),
)

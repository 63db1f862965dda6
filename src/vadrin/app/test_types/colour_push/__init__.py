"""The page of a colour film that is pushed."""

from __future__ import annotations

from vadrin.app.descriptions.description import PlanSentence, TestDescription
from vadrin.app.test_types.colour_push.colours import colour_answer
from vadrin.core.planning.test_types.colour_push import ColourPush

DESCRIPTION = TestDescription(
    ColourPush.key,
    "What do colours do when it is pushed?",
    "A chart at the normal time and at each push.",
    sentences=(
        PlanSentence.ONE_TIME,
        PlanSentence.BRACKET,
        PlanSentence.SECOND_FACTOR,
        PlanSentence.ROLL,
    ),
    times=(6.5,),
    first=-4.0,
    last=4.0,
    second_factor=(0.0, 1.0, 2.0),
    second_words="Pushed by … stops, a strip each.",
    subject="colour chart",
    answer=colour_answer,
)

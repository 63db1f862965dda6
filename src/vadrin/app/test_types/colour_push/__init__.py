"""The page of a colour film that is pushed."""

from __future__ import annotations

from vadrin.app.descriptions.description import PlanSentence, TestDescription
from vadrin.app.descriptions.plan_word import option_word
from vadrin.app.entry.exposures import pushes_typed
from vadrin.app.test_types.colour_push.colours import colour_answer
from vadrin.core.planning.test_options import Pushes
from vadrin.core.planning.test_types.colour_push import ColourPush

DESCRIPTION = TestDescription(
    ColourPush.key,
    "How does pushing change the colours?",
    "A chart at the normal time and at each push.",
    sentences=(PlanSentence.ONE_TIME, PlanSentence.OWN, PlanSentence.BRACKET, PlanSentence.ROLL),
    times=(6.5,),
    first=-4.0,
    last=4.0,
    own_sentence="Pushed by {pushes} stops, a strip each.",
    own_words={"pushes": option_word("pushes in stops", Pushes, "stops", pushes_typed)},
    subject="colour chart",
    kit="camera, meter, colour chart, tank; scanner or densitometer",
    answer=colour_answer,
)

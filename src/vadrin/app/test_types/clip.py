"""The page of a clip."""

from __future__ import annotations

from vadrin.app.descriptions.description import PlanSentence, TestDescription
from vadrin.app.process.clip_judging import clip_answer
from vadrin.core.planning.test_types.clip import Clip

DESCRIPTION = TestDescription(
    Clip.key,
    "Will this bottle still develop a roll?",
    "A clip exposed to full light, judged beside a clip known to be good.",
    sentences=(PlanSentence.ONE_TIME,),
    kit="a scrap of film, the bottle, a clip known to be good",
    piece="clip",
    answer=lambda state: clip_answer(state.loaded),
)

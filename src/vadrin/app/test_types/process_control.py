"""The page of process control."""

from __future__ import annotations

from vadrin.app.descriptions.description import PlanSentence, TestDescription
from vadrin.app.process.control_strips import control_answer
from vadrin.core.planning.test_types.process_control import ProcessControl

DESCRIPTION = TestDescription(
    ProcessControl.key,
    "Is the process where it was?",
    "Strips exposed alike now, one to go with every run.",
    sentences=(PlanSentence.ONE_TIME, PlanSentence.SECOND_FACTOR, PlanSentence.ROLL),
    second_factor=(6.0,),
    second_words="Make … strips from this batch.",
    answer=lambda state: control_answer(state.sheet),
)

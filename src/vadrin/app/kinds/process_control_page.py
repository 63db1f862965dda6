"""The page of process control."""

from __future__ import annotations

from vadrin.app.kinds.kind_page import CONTROL_CHART, KindPage, PlanSentence
from vadrin.app.process.control_strips import control_kind_answer
from vadrin.core.planning.test_kinds.process_control import ProcessControl

PAGE = KindPage(
    ProcessControl.key,
    "Is the process where it was?",
    "Strips exposed alike now, one to go with every run.",
    sentences=(PlanSentence.ONE_TIME, PlanSentence.SECOND_FACTOR, PlanSentence.ROLL),
    second_factor=(6.0,),
    second_words="Make … strips from this batch.",
    answer_view=CONTROL_CHART,
    answer=lambda sheet, _analysis: control_kind_answer(sheet),
)

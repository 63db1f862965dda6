"""The page of process control."""

from __future__ import annotations

from vadrin.app.descriptions.description import PlanSentence, TestDescription
from vadrin.app.descriptions.plan_word import option_word
from vadrin.app.display.words import counted
from vadrin.app.entry.numbers import count_typed
from vadrin.app.process.control_strips import control_answer
from vadrin.core.planning.test_options import ControlStrips
from vadrin.core.planning.test_types.process_control import ProcessControl

MOST_CONTROL = 24


DESCRIPTION = TestDescription(
    ProcessControl.key,
    "Is the process still in control?",
    "Identical strips, one processed with every run.",
    sentences=(PlanSentence.ONE_TIME, PlanSentence.OWN, PlanSentence.ROLL),
    own_sentence="Make {control} from this batch.",
    own_words={
        "control": option_word(
            "number of control strips",
            ControlStrips,
            "count",
            lambda w: count_typed(w, 1, MOST_CONTROL, f"a batch gives 1 to {MOST_CONTROL} strips"),
            lambda count: counted(count, "strip"),
        )
    },
    answer=lambda state: control_answer(state.loaded),
)

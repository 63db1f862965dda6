"""The page of a roll that was shot at another film's EI."""

from __future__ import annotations

from vadrin.app.answers.wrong_setting_answer import wrong_setting_answer
from vadrin.app.kinds.kind_page import KIND_ANSWER, KindPage, PlanSentence
from vadrin.core.planning.test_kinds.misrated_roll import WrongSetting

PAGE = KindPage(
    WrongSetting.key,
    "My meter stood at another film's speed: what now?",
    "A roll of pictures, whole: which push or pull it is, and its time.",
    sentences=(PlanSentence.ONE_TIME, PlanSentence.ROLL),
    subject="pictures",
    answer_view=KIND_ANSWER,
    answer=wrong_setting_answer,
)

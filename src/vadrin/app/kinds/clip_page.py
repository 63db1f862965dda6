"""The page of a clip."""

from __future__ import annotations

from vadrin.app.kinds.kind_page import TWO_PIECES, KindPage, PlanSentence
from vadrin.app.process.clip_judging import clip_kind_answer
from vadrin.core.planning.test_kinds.clip import Clip

PAGE = KindPage(
    Clip.key,
    "Will this bottle still develop a roll?",
    "A piece fogged to full light, judged beside a piece known to be good.",
    sentences=(PlanSentence.ONE_TIME,),
    answer_view=TWO_PIECES,
    answer=lambda sheet, _analysis: clip_kind_answer(sheet),
)

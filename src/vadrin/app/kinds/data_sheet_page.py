"""The page of a maker's data sheet."""

from __future__ import annotations

from vadrin.app.answers.data_sheet_answer import data_sheet_answer
from vadrin.app.kinds.kind_page import KIND_ANSWER, KindPage, PlanSentence
from vadrin.app.read.sheet_axes import ABSOLUTE
from vadrin.core.planning.test_kinds.data_sheet import DataSheet

PAGE = KindPage(
    DataSheet.key,
    "What does the maker's sheet say, until I test it?",
    "Its speed and how that was found, its times, and its curves traced from a picture.",
    sentences=(PlanSentence.TIMES, PlanSentence.SHEET),
    subject=ABSOLUTE,
    answer_view=KIND_ANSWER,
    answer=data_sheet_answer,
)

"""Decisions of the demo's tests, on the day they were run."""

from __future__ import annotations

from vadrin.app.decisions.decision import decide, may_decide
from vadrin.app.kinds import page_of
from vadrin.app.results.known_answers import answer_to, question_of
from vadrin.app.sheet_loading import load_sheet
from vadrin.notebook.records import Test
from vadrin.notebook.store import Notebook


def decide_demo(notebook: Notebook, test: Test, day: str) -> None:
    """Decide a test that was read, with its card, where it has an answer."""
    sheet = load_sheet(notebook, test.id)
    if sheet is None:
        return
    analysis = answer_to(question_of(sheet))
    if may_decide(sheet, analysis):
        decide(notebook, sheet, analysis, day, page_of(test.kind).present_card(sheet, analysis))

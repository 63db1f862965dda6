"""Decisions of the demo's tests, on the day they were run."""

from __future__ import annotations

from vadrin.app.decisions.decision import decide, may_decide
from vadrin.app.document.sheet_loading import load_sheet
from vadrin.app.document.state import answered
from vadrin.notebook.records import Test
from vadrin.notebook.store import Notebook


def decide_demo(notebook: Notebook, test: Test, day: str) -> None:
    """Decide a test that was read, with its card, where it has an answer."""
    sheet = load_sheet(notebook, test.id)
    if sheet is None:
        return
    state = answered(sheet)
    if may_decide(state):
        decide(notebook, state, day)

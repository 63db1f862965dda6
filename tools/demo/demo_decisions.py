"""Decisions of the demo's tests, on the day they were run."""

from __future__ import annotations

from vadrin.app.decisions.decision import decide, may_decide
from vadrin.app.document.state import answered
from vadrin.app.document.test_loading import load_test
from vadrin.notebook.records import Test
from vadrin.notebook.store import Notebook


def decide_demo(notebook: Notebook, test: Test, day: str) -> None:
    """Decide a test that was read, with its card, where it has an answer."""
    loaded = load_test(notebook, test.id)
    if loaded is None:
        return
    state = answered(loaded)
    if may_decide(state):
        decide(notebook, state, day)

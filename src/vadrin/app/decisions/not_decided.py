"""Tests nobody decided on, worked out one by one beside the window, to be learnt from."""

from __future__ import annotations

import json
from collections.abc import Callable

from vadrin.app.decisions.decision import whole_report
from vadrin.app.decisions.decision_basis import basis_text
from vadrin.app.document.state import State, answer_to
from vadrin.app.document.test_loading import load_test
from vadrin.app.learning.read_tests import forget_read_test, tests_to_work_out
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.errors import VadrinError
from vadrin.notebook.records import Finding
from vadrin.notebook.store import Notebook


def come_to(loaded: LoadedTest, ask: Callable[[], None] = lambda: None) -> Finding | None:
    """What a test would be decided on as it stands; takes up to a second, on any thread.

    Parameters
    ----------
    loaded : LoadedTest
    ask : callable
        Called often; what it raises stops the work.
    """
    state = State(loaded)
    try:
        report = whole_report(State(loaded, answer_to(state.question, ask)))
    except (ValueError, VadrinError):
        return None
    return Finding(test_id=loaded.test.id, report=json.dumps(report), basis=basis_text(loaded))


def next_read_test(notebook: Notebook, on_the_bench: int) -> LoadedTest | None:
    """The next test that nobody decided on to be worked out; None when all are."""
    forget_read_test(notebook, on_the_bench)
    waiting = tests_to_work_out(notebook, on_the_bench)
    return load_test(notebook, waiting[0]) if waiting else None

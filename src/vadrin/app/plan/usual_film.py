"""The usual film of a developer, by the tests in it: what a new one is likely to be like."""

from __future__ import annotations

from dataclasses import replace
from statistics import median

from vadrin.app.learning.developer_learnt import FEWEST
from vadrin.app.learning.kit_learnt import noise_learnt
from vadrin.app.learning.left_out import estimates_left_out
from vadrin.app.learning.past_tests import MEASURE, past_tests
from vadrin.app.learning.read_tests import LEARNING_KINDS
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.plan.expected_curves import PriorFinding
from vadrin.notebook.store import Notebook

_ALIKE = 0.02
"""Contrasts within which tests asked for the same."""


def usual_finding(notebook: Notebook, loaded: LoadedTest) -> PriorFinding | None:
    """What films in the developer of a test usually took; None for fewer than three."""
    test = loaded.test
    if estimates_left_out() or test.kind not in LEARNING_KINDS or loaded.read():
        return None
    every = past_tests(notebook, test.id)
    here = [p for p in every if p.developer_id == test.developer_id]
    if len(here) < FEWEST:
        return None
    wanted = median(past.wanted for past in here)
    times = [past.minutes for past in here if abs(past.wanted - wanted) <= _ALIKE]
    if len(times) < FEWEST:
        return None
    noise = noise_learnt(every, test.instrument_id)
    made = PriorFinding(test.exposure_index, median(times), MEASURE, wanted, "")
    return replace(made, films=len(times), noise=noise)

"""What the tests that were decided on told of contrast over time, as the core learns from it."""

from __future__ import annotations

from dataclasses import dataclass, field
from math import log

import numpy as np

from vadrin.app.findings.kept_report import KeptReport, KeptStrip
from vadrin.core.learning.contrast_law import ContrastSeen
from vadrin.core.planning.test_types.development_time import DevelopmentTime
from vadrin.core.planning.test_types.push import PushTest
from vadrin.notebook.records import Finding, Stock, Test
from vadrin.notebook.store import Notebook

MEASURE = "average_gradient"
LEARNING_KINDS = (DevelopmentTime.key, PushTest.key)
_NEWEST = 80
_NO_RANGE, _LEAST = 0.03, 0.004
"""Deviations of ln contrast: where a report gives no range, and the least that is believed."""


@dataclass(frozen=True)
class PastTest:
    """A test that found its time; two are one where the decision is.

    Attributes
    ----------
    finding_id, test_id, developer_id : int
    film : str
    minutes, wanted : float
        The time it found, for which average gradient.
    seen : ContrastSeen
    """

    finding_id: int
    test_id: int
    developer_id: int
    film: str
    minutes: float
    wanted: float
    seen: ContrastSeen = field(compare=False)


def past_tests(notebook: Notebook, but: int) -> tuple[PastTest, ...]:
    """Every test but one whose time was found for an average gradient, by its last decision."""
    tests = {t.id: t for t in notebook.all(Test) if t.kind in LEARNING_KINDS and t.id != but}
    newest = {f.test_id: f for f in notebook.all(Finding)[-_NEWEST:] if f.test_id in tests}
    made = (_past(notebook, tests[f.test_id], f) for f in newest.values())
    return tuple(past for past in made if past is not None)


def _past(notebook: Notebook, test: Test, finding: Finding) -> PastTest | None:
    report = KeptReport.from_json(finding.report)
    minutes, wanted = report.time_min.value, report.target_value
    if report.target_kind != MEASURE or minutes is None or wanted is None or minutes <= 0:
        return None
    strips = [told for s in report.strips.values() if (told := _strip(s)) is not None]
    if len(strips) < 2:
        return None
    stock = notebook.get(Stock, test.stock_id)
    seen = ContrastSeen(*(np.array(column) for column in zip(*strips, strict=True)))
    name = stock.name if stock is not None else "a film"
    return PastTest(finding.id, test.id, test.developer_id or 0, name, minutes, wanted, seen)


def _strip(strip: KeptStrip) -> tuple[float, float, float] | None:
    """Minutes, contrast and its deviation."""
    read = strip.figure(MEASURE)
    minutes = strip.figure("restated_min").value or strip.time_min
    if not minutes or not read.value or read.value <= 0:
        return None
    return minutes, read.value, deviation_of(read.low, read.high)


def deviation_of(low: float | None, high: float | None) -> float:
    """The deviation of ln contrast from its 95 % range."""
    if low is None or high is None or low <= 0:
        return _NO_RANGE
    return max(_LEAST, log(high / low) / (2 * 1.96))

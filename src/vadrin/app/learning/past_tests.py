"""What the tests that were decided on told of their films, as the core learns from it."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field, replace
from math import hypot, log, log2

import numpy as np

from vadrin.app.findings.kept_report import KeptReport, KeptStrip
from vadrin.app.learning.left_out import others_count
from vadrin.app.learning.read_tests import LEARNING_KINDS, read_tests
from vadrin.core.figure import Figure
from vadrin.core.learning.contrast_law import ContrastSeen
from vadrin.core.learning.speed_law import SpeedSeen
from vadrin.notebook.records import Finding, Stock, Test
from vadrin.notebook.store import Notebook

MEASURE = "average_gradient"
_NEWEST = 50
_DECIDED = """
SELECT finding.id, finding.test_id FROM finding JOIN test ON test.id = finding.test_id
WHERE test.kind IN (:time, :push) AND test.id <> :but AND (:others OR test.taken_from = '')
ORDER BY finding.id DESC LIMIT :most
"""
_OF_OTHERS = """
SELECT count(DISTINCT test.id) FROM finding JOIN test ON test.id = finding.test_id
WHERE test.kind IN (:time, :push) AND test.taken_from <> ''
"""
_NO_RANGE, _LEAST = 0.03, 0.004
"""Deviations of ln contrast: where a report gives no range, and the least that is believed."""
_DOUBTFUL = 0.06
"""By how much ln contrast may be off where nobody noted the time."""
_UNDECIDED = 0.03
"""The same where a test was read and nobody decided on it."""
_SPEED_NO_RANGE, _SPEED_LEAST = 0.1, 0.02
"""The same of a speed, in stops."""
_TOLD = "zone_ei"


@dataclass(frozen=True)
class PastTest:
    """A test that found its time; two are one where the decision is.

    Attributes
    ----------
    finding_id : int
        0 where it was read and nobody decided on it.
    test_id, developer_id, stock_id : int
    film : str
    minutes, wanted : float
        The time it found, for which average gradient.
    seen : ContrastSeen
    index : float or None
        The EI it found.
    speeds : SpeedSeen or None
        Of those of its strips that have a speed.
    pushes : dict
        Minutes over those of the normal, ln, and its deviation, by rule and stops.
    noise : float or None
        By which its readings scatter about their curves.
    instrument_id, bottle_id : int or None
    agitation : str
        In the words of the test.
    film_kind : str
        Of its film, and so of the process it goes through.
    finding : Finding or None
        The decision, for whoever needs more of it.
    """

    finding_id: int
    test_id: int
    developer_id: int
    stock_id: int
    film: str
    minutes: float
    wanted: float
    seen: ContrastSeen = field(compare=False)
    index: float | None = None
    speeds: SpeedSeen | None = field(default=None, compare=False)
    pushes: dict[tuple[str, float], tuple[float, float]] = field(
        default_factory=dict, compare=False
    )
    noise: float | None = None
    instrument_id: int | None = None
    bottle_id: int | None = None
    agitation: str = ""
    film_kind: str = ""
    finding: Finding | None = field(default=None, compare=False)


def past_tests(notebook: Notebook, but: int) -> tuple[PastTest, ...]:
    """The newest tests but one whose time was found for an average gradient, by their last
    decision, or as they were read where nobody decided: so many at most, however large the
    notebook is. Tests taken in from others count only where they are asked for."""
    time, push = LEARNING_KINDS
    told = notebook.rows(
        _DECIDED, time=time, push=push, but=but, most=_NEWEST, others=others_count()
    )
    found = notebook.all_of(Finding, "id", [finding_id for finding_id, _ in told])
    found += read_tests(notebook, but)
    tests = {t.id: t for t in notebook.all_of(Test, "id", sorted({f.test_id for f in found}))}
    films = {s.id: s for s in notebook.all_of(Stock, "id", [t.stock_id for t in tests.values()])}
    newest = {f.test_id: f for f in sorted(found, key=lambda f: f.id)}
    made = (_past(tests[f.test_id], f, films) for f in newest.values())
    return tuple(past for past in made if past is not None)


def one_a_film(tests: Iterable[PastTest]) -> tuple[PastTest, ...]:
    """The newest test of each film, one that was only read where none was decided on: ten tests
    of one film say nothing of how films differ."""
    return tuple({past.stock_id: past for past in tests}.values())


def tests_of_others(notebook: Notebook) -> int:
    """How many decided tests were taken in from others."""
    time, push = LEARNING_KINDS
    return int(next(iter(notebook.rows(_OF_OTHERS, time=time, push=push)))[0])


def _past(test: Test, finding: Finding, films: dict[int, Stock]) -> PastTest | None:
    report = KeptReport.from_json(finding.report)
    minutes, wanted = report.time_min.value, report.target_value
    if report.target_kind != MEASURE or minutes is None or wanted is None or minutes <= 0:
        return None
    strips = [told for s in report.strips.values() if (told := strip_told(s)) is not None]
    if len(strips) < 2:
        return None
    seen = ContrastSeen(*(np.array(column) for column in zip(*strips, strict=True)))
    if not finding.id:
        seen = replace(seen, deviation=np.hypot(seen.deviation, _UNDECIDED))
    film = films.get(test.stock_id, Stock(name="a film"))
    return PastTest(
        finding.id,
        test.id,
        test.developer_id or 0,
        test.stock_id or 0,
        film.name,
        minutes,
        wanted,
        seen,
        report.zone_ei.value,
        _speeds(report),
        dict(_pushes(report, minutes)),
        report.reading_noise,
        test.instrument_id,
        test.bottle_id,
        test.agitation.strip(),
        film.kind,
        finding,
    )


def _speeds(report: KeptReport) -> SpeedSeen | None:
    rows = [
        (contrast.value, log2(speed.value), speed_deviation(speed.low, speed.high))
        for strip in report.strips.values()
        if (contrast := strip.figure(MEASURE)).value
        and (speed := strip.figure(_TOLD)).value
        and contrast.value > 0 < speed.value
    ]
    if not rows:
        return None
    return SpeedSeen(*(np.array(column, dtype=float) for column in zip(*rows, strict=True)))


def _pushes(
    report: KeptReport, normal: float
) -> Iterator[tuple[tuple[str, float], tuple[float, float]]]:
    for push in report.pushes:
        for rule, minutes in push.minutes.items():
            if push.stops and minutes.value and minutes.value > 0:
                yield (rule, push.stops), (log(minutes.value / normal), _of_time(minutes))


def _of_time(minutes: Figure) -> float:
    return deviation_of(minutes.low, minutes.high)


def strip_told(strip: KeptStrip) -> tuple[float, float, float] | None:
    """Minutes at the reference, contrast and the deviation of its ln."""
    read = strip.figure(MEASURE)
    minutes = strip.figure("restated_min").value or strip.time_min
    if not minutes or not read.value or read.value <= 0:
        return None
    deviation = deviation_of(read.low, read.high)
    return minutes, read.value, hypot(deviation, _DOUBTFUL if strip.doubtful else 0.0)


def speed_deviation(low: float | None, high: float | None) -> float:
    """The deviation of a speed in stops from its 95 % range."""
    if low is None or high is None or low <= 0:
        return _SPEED_NO_RANGE
    return max(_SPEED_LEAST, log2(high / low) / (2 * 1.96))


def deviation_of(low: float | None, high: float | None) -> float:
    """The deviation of ln contrast from its 95 % range."""
    if low is None or high is None or low <= 0:
        return _NO_RANGE
    return max(_LEAST, log(high / low) / (2 * 1.96))

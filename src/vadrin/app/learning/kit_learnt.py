"""What the past tests tell of the kit they were done with: instruments, bottles, papers."""

from __future__ import annotations

from dataclasses import dataclass
from math import exp

import numpy as np

from vadrin.app.display.words import capital, counted
from vadrin.app.findings.kept_report import KeptReport
from vadrin.app.learning.left_out import estimates_left_out, others_count
from vadrin.app.learning.past_tests import PastTest, past_tests
from vadrin.core.arrays import Array
from vadrin.core.figure import Basis, Figure
from vadrin.core.learning.bottle_drift import BottleDrift, bottle_drift
from vadrin.core.learning.contrast_law import contrast_at
from vadrin.core.learning.offsets import Usual, learnt_offset
from vadrin.core.learning.reading_noise import learnt_noise
from vadrin.core.planning.forecast import USUAL_NOISE
from vadrin.core.planning.test_types.paper import PaperTest
from vadrin.notebook.records import Bottle, Finding, Instrument, Paper
from vadrin.notebook.store import Notebook

FEWEST_READ, FEWEST_IN_A_BOTTLE, FEWEST_OF_A_PAPER = 3, 5, 2
"""Tests under which nothing is said of an instrument, a bottle, a paper."""
_SCALE, _SCALE_KNOWN = Usual(0.05, 0.35, 0.05), 0.03
"""ln exposure scale of papers, and of one paper from test to test; how well one is read."""
_PAPERS = """
SELECT test.paper_id, max(finding.id) FROM finding JOIN test ON test.id = finding.test_id
WHERE test.kind = :paper AND test.paper_id IS NOT NULL AND (:others OR test.taken_from = '')
GROUP BY test.id ORDER BY finding.id DESC LIMIT 50
"""


def noise_learnt(every: tuple[PastTest, ...], instrument_id: int | None) -> float | None:
    """Standard deviation of a density read with an instrument; None for too few tests."""
    read = [p.noise for p in every if p.noise and p.instrument_id == instrument_id]
    if instrument_id is None or len(read) < FEWEST_READ or estimates_left_out():
        return None
    return learnt_noise(np.array(read), USUAL_NOISE)


def drift_learnt(every: tuple[PastTest, ...], bottle_id: int | None) -> BottleDrift | None:
    """How contrast moves from film to film in a bottle; None where that is not told surely."""
    poured = (p for p in every if p.bottle_id == bottle_id and p.finding_id)
    mine = sorted(poured, key=lambda p: p.finding_id)
    if bottle_id is None or len(mine) < FEWEST_IN_A_BOTTLE or estimates_left_out():
        return None
    minutes = float(np.median([p.minutes for p in mine]))
    at = np.array([contrast_at(p.seen, minutes) for p in mine])
    told = bottle_drift(at[:, 0], at[:, 1])
    return told if told.sure else None


def drift_words(drift: BottleDrift, where: str) -> str:
    """How a bottle drifts, in sentences that begin with where that is."""
    share = 100 * (exp(drift.each) - 1.0)
    reach = 100 * 1.96 * drift.deviation
    way, why = ("lost", "Mix it anew") if share < 0 else ("gained", "Check what is poured in")
    return (
        f"{where} each film {way} {abs(share):.1f} ± {reach:.1f} % of contrast, by "
        f"{counted(drift.films, 'film')}: {Basis.ESTIMATED.value}. {why}, or develop a strip of a "
        "film you know with the next one."
    )


def bottle_words(notebook: Notebook, but: int, bottle_id: int | None) -> str:
    """How the bottle of a test drifts; empty where nobody knows."""
    told = drift_learnt(past_tests(notebook, but), bottle_id) if bottle_id else None
    return drift_words(told, "In this bottle") if told is not None else ""


def scales_learnt(notebook: Notebook) -> dict[int, Figure]:
    """Exposure scales of the papers that were tested more than once, with where the next lies."""
    rows = notebook.rows(_PAPERS, paper=PaperTest.key, others=others_count())
    reports = {f.id: f.report for f in notebook.all_of(Finding, "id", [f for _, f in rows])}
    seen: dict[int, list[float]] = {}
    for paper, finding in rows:
        answer = KeptReport.from_json(reports.get(finding, "")).answer
        scale = answer.figures.get("exposure_scale") if answer is not None else None
        if scale is not None and scale.value and scale.value > 0:
            seen.setdefault(paper, []).append(scale.value)
    return {
        paper: _scale(np.array(values))
        for paper, values in seen.items()
        if len(values) >= FEWEST_OF_A_PAPER
    }


def _scale(values: Array) -> Figure:
    told = learnt_offset(np.log(values), np.full(len(values), _SCALE_KNOWN), _SCALE)
    low, high = told.range()
    return Figure(exp(told.middle), exp(low), exp(high), basis=Basis.ESTIMATED)


@dataclass(frozen=True)
class KitAsked:
    """All that is read of the file: kit by its name, and what papers were found to be."""

    every: tuple[PastTest, ...]
    instruments: dict[int, str]
    bottles: dict[int, str]
    papers: tuple[tuple[str, Figure], ...]


def kit_asked(notebook: Notebook, every: tuple[PastTest, ...]) -> KitAsked:
    """What the words about the kit need."""
    names = {p.id: f"{p.name} {p.grade}".strip() for p in notebook.all(Paper)}
    scales = {} if estimates_left_out() else scales_learnt(notebook)
    return KitAsked(
        every,
        {i.id: i.name for i in notebook.all(Instrument)},
        {b.id: b.name or "an unnamed bottle" for b in notebook.all(Bottle)},
        tuple((names.get(paper, "a paper"), scale) for paper, scale in scales.items()),
    )


def kit_sentences(asked: KitAsked) -> tuple[str, ...]:
    """What is learnt of instruments, bottles and papers, a sentence each."""
    made = []
    for instrument, name in asked.instruments.items():
        noise = noise_learnt(asked.every, instrument)
        if noise is not None:
            tests = sum(bool(p.noise) and p.instrument_id == instrument for p in asked.every)
            made.append(
                f"{name}: readings scatter by {noise:.3f} about their curves, by "
                f"{counted(tests, 'test')}. Plans reckon with it where no noise is entered."
            )
    for bottle, name in asked.bottles.items():
        drift = drift_learnt(asked.every, bottle)
        if drift is not None:
            made.append(drift_words(drift, f"{capital(name)}:"))
    for name, scale in asked.papers:
        low, high = scale.low or 0.0, scale.high or 0.0
        made.append(
            f"{name}: exposure scale {scale.known():.2f}, {low:.2f} to {high:.2f} for its next "
            "box, by your tests."
        )
    return tuple(made)

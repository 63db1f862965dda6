"""Which pictures a test's answer has: an EI and a development each."""

from __future__ import annotations

from dataclasses import dataclass, field
from math import isclose, log2

from vadrin.app.descriptions import own_answer
from vadrin.app.display.marks import marked_ei
from vadrin.app.display.quantities import minutes_text, push_name
from vadrin.app.display.verdict_words import shadow_words
from vadrin.app.document.state import State
from vadrin.app.loaded.frame_index import index_of
from vadrin.app.loaded.loaded_test import LoadedStrip
from vadrin.app.loaded.once import once
from vadrin.app.pictures.looking import PaperUsed
from vadrin.app.results.push_rows import push_lines
from vadrin.app.results.rating import rating_of
from vadrin.core.pictures.developed_film import times_tested
from vadrin.core.planning.test_options import SecondFactor
from vadrin.core.planning.test_types.mixed_roll import MixedRoll
from vadrin.core.planning.test_types.paper import PaperTest
from vadrin.core.planning.test_types.two_developers import PRINTING, TwoDevelopers
from vadrin.core.results.analysis_result import Analysis
from vadrin.core.results.strip_metrics import StripMetrics

CHANNELS = ("red", "green", "blue")
"""Layers of colour film, in the order of a picture's channels."""
_MOST_ROWS = 5
_STOPS_AROUND = (-1.0, 0.0, 1.0, 2.0)
"""EIs of the ring, in stops over the normal one."""


@dataclass(frozen=True)
class Exposed:
    """One picture's film: what the meter stood at, and how it was developed.

    Attributes
    ----------
    exposure_index : float
    minutes : float or None
        At the reference temperature; None for a strip as it is.
    strip : str
        Label of the strip whose own curve it is; empty where time alone tells.
    name : str
        ``push 1``, or what a strip is called.
    cost : str
        What is lost, in words.
    normal : bool
        Whether it is what the finding says.
    why : str
        Why there is no picture; empty where there is one.
    paper : PaperUsed or None
        What this picture alone is printed on; None for the paper that is looked at.
    """

    exposure_index: float
    minutes: float | None
    strip: str = ""
    name: str = ""
    cost: str = ""
    normal: bool = False
    why: str = ""
    paper: PaperUsed | None = field(default=None, compare=False)

    def printed_on(self, paper: PaperUsed) -> PaperUsed:
        """Its own paper, else the one that is looked at."""
        return self.paper or paper

    @property
    def said(self) -> str:
        """EI and time, as they stand under a picture."""
        shown = f"EI {marked_ei(self.exposure_index)}"
        return shown if self.minutes is None else f"{shown}, {minutes_text(self.minutes)}"


NOTHING_READ = "Pictures come with the first curve: read a strip's densities."
NO_POSITIVE = "Pictures come with the first curve: read each cell of a strip."


def why_no_pictures(state: State) -> str:
    """Why a test has no pictures; empty where it has some."""
    analysis = state.analysis
    if analysis is None:
        return "Working the curves out …"
    if state.loaded.density_falls and not analysis.stages:
        return NO_POSITIVE
    if state.loaded.test.kind == PaperTest.key:
        return PAPER
    return "" if exposed_of(state) else NOTHING_READ


PAPER = "Pictures are of film: decide on one, and it is printed here on this paper's grades."


@once
def exposed_of(state: State) -> tuple[Exposed, ...]:
    """The pictures of an answer, from the most exposure to the least: the rows of its table."""
    analysis = state.analysis
    if analysis is not None and analysis.stages:
        return _positives(state, analysis)
    if analysis is None or not analysis.strips:
        return ()
    if state.loaded.test.kind == PaperTest.key:
        return ()
    if in_colour(analysis):
        return _shot_pushes(state, analysis)
    return _pushes(state, analysis) or _strips(state, analysis)


def _positives(state: State, analysis: Analysis) -> tuple[Exposed, ...]:
    """Each strip of a positive at the EI of the best cell, which is framed."""
    own = own_answer(state)
    figures = own.figures if own is not None else {}
    best, row = figures.get("best_ei"), figures.get("best_row")
    index = best if isinstance(best, float) and best > 0 else state.loaded.test.exposure_index
    read = {stages.label for stages in analysis.stages}
    return tuple(
        Exposed(index, None, strip.strip.label, _step_name(strip), normal=place == row)
        for place, strip in enumerate(state.loaded.strips)
        if strip.strip.label in read
    )[:_MOST_ROWS]


def _step_name(strip: LoadedStrip) -> str:
    """What a strip is of the second factor, short enough to stand under a picture."""
    note = strip.strip.note
    factor = next((f for f in SecondFactor if note.startswith(f)), "")
    return note.removeprefix(factor).strip() or f"strip {strip.strip.label}"


def in_colour(analysis: Analysis) -> bool:
    """Whether pictures have three layers of their own."""
    return {s.channel for s in analysis.layers} >= set(CHANNELS)


def paper_sees(state: State) -> str | None:
    """The channel a print is made through where it is not the visual one: a stain that an eye
    hardly sees holds back the blue that paper answers to."""
    analysis = state.analysis
    if state.loaded.test.kind != TwoDevelopers.key or analysis is None:
        return None
    every = {s.strip.label for s in state.loaded.strips}
    for channel in PRINTING:
        if {s.label for s in analysis.layers if s.channel == channel} >= every:
            return str(channel)
    return None


def _shot_pushes(state: State, analysis: Analysis) -> tuple[Exposed, ...]:
    """Colour film as each strip was pushed: its layers are known there and nowhere else."""
    read = {s.label: s for s in analysis.layers}
    index = state.loaded.test.exposure_index
    rows = []
    for strip in sorted(state.loaded.strips, key=lambda s: s.strip.push or 0.0):
        label, push = strip.strip.label, strip.strip.push or 0.0
        if label in read:
            minutes, name = read[label].restated_min, push_name(push)
            rows.append(Exposed(index * 2.0**push, minutes, label, name, normal=push == 0))
    return tuple(rows[:_MOST_ROWS])


def _pushes(state: State, analysis: Analysis) -> tuple[Exposed, ...]:
    rule = state.loaded.test.push_rule
    rows = []
    for line, push in zip(push_lines(analysis, rule), analysis.push, strict=True):
        index, row = push.exposure_index.value, push.by(rule)
        if index is None:
            continue
        cost = "" if line.verdict is None else f"{line.loss} · {shadow_words(line.verdict)}"
        rows.append(
            Exposed(
                index,
                row.time_min.value,
                name=line.name,
                cost=cost,
                normal=line.normal,
                why="" if row.time_min.present else row.time_min.why,
            )
        )
    known = [row for row in rows if not row.why]
    return tuple(rows[:_MOST_ROWS]) if known else ()


def _strips(state: State, analysis: Analysis) -> tuple[Exposed, ...]:
    """Every strip at the EI it has by its own curve, where no push is told."""
    rated = rating_of(state)
    rows = []
    for strip in state.loaded.strips:
        read = _metrics(analysis, strip.strip.label)
        if read is None or read.zone_ei.value is None:
            continue
        name = strip.other or strip.strip.note or f"strip {strip.strip.label}"
        own = rated.time_min.value
        normal = own is not None and read.restated_min == own
        rows.append(Exposed(read.zone_ei.value, read.restated_min, read.label, name, normal=normal))
    return tuple(rows[:_MOST_ROWS])


def _metrics(analysis: Analysis, label: str) -> StripMetrics | None:
    return next((s for s in analysis.strips if s.label == label), None)


@once
def ring_of(state: State) -> tuple[tuple[Exposed, ...], ...]:
    """EIs across, times down; what was not tested is there with its reason."""
    analysis, rows = state.analysis, exposed_of(state)
    if analysis is None or not rows:
        return ()
    if any(row.strip for row in rows):
        return _ring_of_strips(state, rows)
    normal = next((row for row in rows if row.normal), rows[0])
    lengths = _lengths(times_tested(analysis), [row.minutes for row in rows if row.minutes])
    lowest = min(log2(row.exposure_index / normal.exposure_index) for row in rows)
    stops = [s for s in _STOPS_AROUND if s >= lowest - 1.01]
    return tuple(
        tuple(_place(normal, rows, stop, minutes) for stop in stops) for minutes in lengths
    )


def _place(normal: Exposed, rows: tuple[Exposed, ...], stop: float, minutes: float) -> Exposed:
    index = normal.exposure_index * 2.0**stop
    for row in rows:
        same_time = row.minutes is not None and isclose(row.minutes, minutes, rel_tol=1e-6)
        if same_time and isclose(row.exposure_index, index, rel_tol=1e-3):
            return row
    return Exposed(index, minutes)


def _lengths(tested: tuple[float, ...], wanted: list[float]) -> list[float]:
    """Up to five times: those of the pushes, and the ends of what was tested."""
    times = sorted({*wanted, *(tested[:1]), *(tested[-1:])})
    apart: list[float] = []
    for minutes in times:
        near = apart and minutes < apart[-1] * 1.06
        if near and minutes not in wanted:
            continue
        if near and apart[-1] not in wanted:
            apart.pop()
        apart.append(minutes)
    return apart[:_MOST_ROWS]


def _ring_of_strips(state: State, rows: tuple[Exposed, ...]) -> tuple[tuple[Exposed, ...], ...]:
    """Each strip at the EIs a mixed roll was shot at; else at those around the first row's."""
    middle = rows[0].exposure_index
    indexes = [middle * 2.0**stop for stop in _STOPS_AROUND]
    if state.loaded.density_falls or state.loaded.test.kind == MixedRoll.key:
        held = (index_of(f) for _, f in state.loaded.frames() if not f.frame.blank)
        shot = sorted({index for index in held if index is not None})
        indexes = shot[:: max(1, -(-len(shot) // _MOST_ROWS))]
        if state.loaded.density_falls and shot:
            # The cells round the best one: what a finer sheet will lie between.
            at = min(range(len(shot)), key=lambda n: abs(log2(shot[n] / middle)))
            begin = max(0, min(at - _MOST_ROWS // 2, len(shot) - _MOST_ROWS))
            indexes = shot[begin : begin + _MOST_ROWS]
    return tuple(
        tuple(
            Exposed(index, row.minutes, row.strip, row.name, normal=row.normal and index == middle)
            for index in indexes
        )
        for row in rows
    )

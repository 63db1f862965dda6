"""One film in two developers: its pairs, what stain adds, and which answer that changes."""

from __future__ import annotations

from math import ceil, log2
from typing import TYPE_CHECKING

import numpy as np

from vadrin.app.curves.fitted_series import fitted_series
from vadrin.app.descriptions.answer_in_words import (
    AnswerPlot,
    AnswerTable,
    FilmCell,
    FilmRow,
    OwnAnswer,
    Series,
)
from vadrin.app.descriptions.description import TestDescription
from vadrin.app.display.marks import marked_ei, stops_counted
from vadrin.app.document.state import State
from vadrin.app.loaded.loaded_test import LoadedFrame, LoadedStrip, LoadedTest
from vadrin.app.results.next_act import waiting_act
from vadrin.app.results.working_steps import Step, develop_words
from vadrin.app.test_types.judged_beside import judge_act, judged_figures, judged_table
from vadrin.core.channels import Channel
from vadrin.core.figure import Figure, absent
from vadrin.core.planning.plan_request import Arrangement
from vadrin.core.planning.test_types.two_developers import PRINTING, TwoDevelopers
from vadrin.core.results.paired_frames import paired_difference, stain_share

if TYPE_CHECKING:
    from vadrin.core.results.analysis_result import Analysis
    from vadrin.core.results.comparison import Comparison
    from vadrin.core.results.strip_metrics import StripMetrics

_HEADS = (
    "Developer",
    "Seen EI",
    "Seen gradient",
    "Printing EI",
    "Printing gradient",
    "Stain at D 1",
    "Densest stain",
)
_ABOVE_TOE = 0.10
_HIGHLIGHTS = 1 / 3
"""The share of the frames above the toe that are called highlights, the densest."""
_SAME_STOPS, _STAINED = 0.12, 0.05
_CHANGES = 1 / 3
"""Stops by which an answer through blue must differ before it is called another one."""


def bath_name(loaded: LoadedTest, strip: LoadedStrip) -> str:
    """The developer a strip went through."""
    return strip.other or loaded.developer.bath


def in_channel(frame: LoadedFrame, channel: Channel) -> float | None:
    """Mean density of a frame through a filter; None where it was not read through it."""
    mine = [r.density for r in frame.readings if not r.left_out and r.channel == channel]
    return sum(mine) / len(mine) if mine else None


def _net(strip: LoadedStrip, channel: Channel) -> dict[str, float]:
    """Net density of each exposed frame by its name, through a filter."""
    read = [(f, in_channel(f, channel)) for f in strip.frames if f.counts]
    blanks = [d for f, d in read if f.frame.blank and d is not None]
    base = sum(blanks) / len(blanks) if blanks else 0.0
    return {f.name: d - base for f, d in read if d is not None and not f.frame.blank}


def _pairs(loaded: LoadedTest, channel: Channel, densest: float = 1.0) -> Figure:
    """What the pairs differ by above the toe, or the share of them that is densest."""
    if len(loaded.strips) < 2:
        return absent("there is one strip")
    one, other = (_net(s, channel) for s in loaded.strips[:2])
    both = [n for n in one if n in other and max(one[n], other[n]) > _ABOVE_TOE]
    both.sort(key=lambda n: one[n], reverse=True)
    both = both[: ceil(densest * len(both))]
    return paired_difference(np.array([one[n] for n in both]), np.array([other[n] for n in both]))


def _highlights(loaded: LoadedTest, channel: Channel) -> Figure:
    """What the pairs differ by in the highlights."""
    return _pairs(loaded, channel, _HIGHLIGHTS)


def _both_ways(strip: LoadedStrip, printing: Channel) -> list[tuple[float, float]]:
    """Visual and printing density of the frames read both ways, the thinnest first."""
    read = [
        (in_channel(f, Channel.VISUAL), in_channel(f, printing)) for f in strip.frames if f.counts
    ]
    return sorted((v, p) for v, p in read if v is not None and p is not None)


def _stain(strip: LoadedStrip, printing: Channel | None) -> tuple[Figure, Figure]:
    """Stain at a visual density of 1 over the base, and the most of it."""
    pairs = _both_ways(strip, printing) if printing else []
    if not pairs:
        why = absent("read it through blue or UV as well")
        return why, why
    visual, through = np.array(pairs).T
    return stain_share(visual, through), Figure(float(np.max(through - visual)))


def _shown(figure: Figure, form: str = "+.2f") -> str:
    return "—" if figure.value is None else format(figure.value, form).replace("-", "−")


def _of(made: StripMetrics | None) -> tuple[str, str]:
    if made is None:
        return "not read", "—"
    index, gradient = made.zone_ei.value, made.average_gradient.value
    return (
        made.zone_ei.why if index is None else f"EI {marked_ei(index)}",
        "—" if gradient is None else f"{gradient:.2f}",
    )


def _change(name: str, seen: StripMetrics | None, printed: StripMetrics | None) -> str:
    """Whether printing density changes the answer of a developer, in words; empty for no."""
    if seen is None or printed is None:
        return ""
    said = []
    one, other = seen.zone_ei.value, printed.zone_ei.value
    if one and other and abs(log2(other / one)) >= _CHANGES:
        said.append(f"its EI is {marked_ei(other)}, not {marked_ei(one)}")
    flat, steep = seen.average_gradient.value, printed.average_gradient.value
    if flat and steep and steep / flat >= 1 + _STAINED:
        said.append(f"its contrast is × {steep / flat:.2f} of what an eye sees")
    return f"Paper sees the stain of {name}: {' and '.join(said)}." if said else ""


def _film(loaded: LoadedTest, channel: Channel) -> tuple[FilmRow, ...]:
    """The pairs under each other, in the order of their exposure."""
    constant = loaded.test.meter_constant

    def exposure(frame: LoadedFrame) -> float:
        return frame.log_h(constant) or -9.0

    return tuple(
        FilmRow(
            bath_name(loaded, strip),
            tuple(
                FilmCell(f.name, in_channel(f, channel))
                for f in sorted(strip.frames, key=exposure)
                if f.counts and not f.frame.blank
            ),
        )
        for strip in loaded.strips
    )


def _plot(state: State, printing: Channel | None) -> AnswerPlot | None:
    """Stain against visual density; the curves where no stain was read."""
    loaded, drawn = state.loaded, []
    for strip in loaded.strips:
        if printing is not None:
            at = tuple((v, p - v) for v, p in _both_ways(strip, printing))
        else:
            placed = [(f.log_h(loaded.test.meter_constant), f.density) for f in strip.frames]
            at = tuple(sorted((x, d) for x, d in placed if x is not None and d is not None))
        if at:
            name = bath_name(loaded, strip)
            stain = Series(name, at, at) if printing is not None else None
            drawn.append(stain or fitted_series(state, strip.strip.label, name, at))
    if not drawn:
        return None
    if printing is None:
        return AnswerPlot("log exposure", "density", tuple(drawn))
    return AnswerPlot("density to the eye", f"stain: {printing} less visual", tuple(drawn))


def _printing_of(loaded: LoadedTest) -> Channel | None:
    read = {r.channel for _, f in loaded.frames() for r in f.readings if not r.left_out}
    return next((c for c in PRINTING if c in read), None)


def two_developers_answer(state: State) -> OwnAnswer:
    """What a test of two developers says."""
    loaded, analysis = state.loaded, state.analysis
    printing = _printing_of(loaded)
    shown = printing or Channel.VISUAL
    film, plot = _film(loaded, shown), _plot(state, printing)
    table, figures, changes = _each(state, printing)
    waiting = waiting_act(state) if analysis is not None else ""
    beside = analysis.compared[0] if analysis is not None and analysis.compared else None
    if beside is None or beside.speed_stops.value is None:
        act = waiting or "Read the blanks and the frames of both, pair by pair."
        read = analysis is not None and bool(analysis.strips)
        why = "only one of the two was read yet" if read else "nothing was read yet"
        why = beside.speed_stops.why if beside else why
        return OwnAnswer("", why, act, figures, table, film, plot)
    pairs = _pairs(loaded, shown)
    figures |= {
        "pairs_differ_by": pairs,
        "speed_stops": beside.speed_stops,
        "contrast": beside.contrast,
        "highlights_differ_by": _highlights(loaded, shown),
        **judged_figures(loaded),
    }
    if not waiting and printing is None:
        waiting = "If either stains, read both through blue or UV too: paper sees that."
    act = waiting or judge_act(loaded) or "Print a pair of each on one paper."
    words = _words(loaded, beside, (pairs, _highlights(loaded, shown)), changes)
    return OwnAnswer(
        _says(beside),
        words,
        act,
        figures,
        table,
        film,
        plot,
        of_a_curve=True,
        more=judged_table(loaded),
        steps=_steps(loaded, analysis),
    )


def _steps(loaded: LoadedTest, analysis: Analysis | None) -> tuple[Step, ...]:
    """How each bath is used: its EI, and the time it was found with."""
    seen = {m.label: m.zone_ei.value for m in (analysis.strips if analysis else ())}
    return tuple(
        (bath_name(loaded, strip), f"EI {marked_ei(index)}; develop {develop_words(loaded, strip)}")
        for strip in loaded.strips
        if (index := seen.get(strip.strip.label)) is not None
    )


def _each(
    state: State, printing: Channel | None
) -> tuple[AnswerTable, dict[str, Figure | float | None], list[str]]:
    """A row for each developer, the figures of both, and what stain changes of each."""
    loaded, analysis = state.loaded, state.analysis
    made = {(m.label, m.channel): m for m in (analysis.layers if analysis else ())}
    rows: list[tuple[str, ...]] = []
    changes = []
    figures: dict[str, Figure | float | None] = {}
    for strip in loaded.strips:
        label, name = strip.strip.label, bath_name(loaded, strip)
        seen, through = made.get((label, "visual")), made.get((label, str(printing)))
        slope, most = _stain(strip, printing)
        figures |= {f"{label}_stain_at_1": slope, f"{label}_densest_stain": most}
        for way, metrics in (("seen", seen), ("printing", through)):
            if metrics is not None:
                figures |= {
                    f"{label}_{way}_ei": metrics.zone_ei,
                    f"{label}_{way}_gradient": metrics.average_gradient,
                }
        rows.append((name, *_of(seen), *_of(through), _shown(slope), _shown(most)))
        changes.append(_change(name, seen, through))
    return AnswerTable(_HEADS, tuple(rows)), figures, changes


def _says(of: Comparison) -> str:
    apart = of.speed_stops.value or 0.0
    speed = (
        "Same speed"
        if abs(apart) < _SAME_STOPS
        else (f"{stops_counted(abs(apart))} {'faster' if apart > 0 else 'slower'}")
    )
    share = of.contrast.value
    if share is None or abs(share - 1) < _STAINED:
        return f"{speed}, same contrast"
    return f"{speed}, contrast × {share:.2f}"


def _against_twins(figure: Figure, where: str) -> str:
    """What frames differ by from their twins, in a sentence; empty where it is not known."""
    if figure.value is None or figure.low is None or figure.high is None:
        return ""
    words = f"{figure.value:+.2f} ({figure.low:+.2f} to {figure.high:+.2f})".replace("-", "−")
    return f" {where} its frames are {words} against their twins."


def _words(
    loaded: LoadedTest, of: Comparison, pairs: tuple[Figure, Figure], changes: list[str]
) -> str:
    reference, other = (bath_name(loaded, s) for s in loaded.strips[:2])
    apart = of.speed_stops
    reach = (
        ""
        if apart.low is None or apart.high is None
        else (f" ({apart.low:+.1f} to {apart.high:+.1f} stops)".replace("-", "−"))
    )
    words = f"{other} beside {reference}{reach}."
    above, bright = pairs
    words += _against_twins(above, "Above the toe") + _against_twins(bright, "In the highlights")
    said = " ".join(c for c in changes if c)
    return f"{words} {said}".strip()


DESCRIPTION = TestDescription(
    TwoDevelopers.key,
    "What does another developer change?",
    "Identical exposures in pairs, interleaved, half for each; stain read through blue or UV.",
    arrangement=Arrangement.INTERLEAVED,
    answer=two_developers_answer,
)

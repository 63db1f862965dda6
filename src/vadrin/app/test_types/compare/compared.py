"""Films, batches or developers beside one reference, each by its name."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import TYPE_CHECKING

from vadrin.app.curves.fitted_series import fitted_series
from vadrin.app.descriptions.answer_in_words import AnswerPlot, AnswerTable, OwnAnswer, Series
from vadrin.app.display.marks import marked_ei
from vadrin.app.display.quantities import minutes_range_text, minutes_text
from vadrin.app.document.state import State
from vadrin.app.loaded.film_names import film_name
from vadrin.app.loaded.loaded_test import LoadedStrip, LoadedTest
from vadrin.app.results.next_act import waiting_act
from vadrin.app.results.working_steps import Step, develop_words
from vadrin.app.test_types.colour_push.patches import (
    drift_words,
    hue_turns,
    patch_colours,
    patch_figures,
    patch_table,
)
from vadrin.app.test_types.compare.apart_by_eye import (
    SAME_STOPS,
    apart_words,
    compare_by_eye,
    faster_by_eye,
    index_by_eye,
)
from vadrin.app.test_types.judged_beside import judge_act, judged_figures, judged_table
from vadrin.core.figure import Figure
from vadrin.core.results.method_answers import match_ei

if TYPE_CHECKING:
    from vadrin.core.results.comparison import Comparison
    from vadrin.core.results.strip_metrics import StripMetrics

_HEADS = ("", "EI", "Speed", "EI at equal shadow", "Toe", "Straight", "Shoulder", "Fog", "Time")
_SAME_SHARE = 0.05
_SEEN_FOG = 0.02


def _signed(figure: Figure, unit: str, same: float) -> str:
    if figure.value is None:
        return figure.why
    if abs(figure.value) < same:
        return "the same"
    return f"{figure.value:+.1f}{unit}".replace("-", "−")


def _toe(of: Comparison) -> str:
    if of.toe_share.value is None:
        return "—"
    if abs(of.toe_share.value) < _SAME_SHARE:
        return "alike"
    return "steeper toe" if of.toe_share.value > 0 else "longer toe"


def _straight(of: Comparison) -> str:
    if of.contrast.value is None:
        return "—"
    return "alike" if abs(of.contrast.value - 1) < _SAME_SHARE else f"× {of.contrast.value:.2f}"


def _shoulder(of: Comparison) -> str:
    if of.shoulder_stops.value is None:
        return "not reached"
    if abs(of.shoulder_stops.value) < SAME_STOPS * 4:
        return "alike"
    return f"{of.shoulder_stops.value:+.1f} stops".replace("-", "−")


def _fog(of: Comparison) -> str:
    """Fog beside the reference's, and what that makes of a print's time."""
    more = of.base_fog.value
    if more is None:
        return "—"
    words = f"{more:+.2f}".replace("-", "−")
    return words if abs(more) < _SEEN_FOG else f"{words}, prints × {10**more:.2f}"


def _time(of: Comparison) -> str:
    if of.match_min.value is not None:
        return f"{minutes_text(of.match_min.value)} ({minutes_range_text(of.match_min)}, measured)"
    factor = of.time_factor.value
    if factor is None:
        return "—"
    if abs(factor - 1) < _SAME_SHARE:
        return "right"
    return f"{'longer' if factor > 1 else 'shorter'}, × {factor:.2f} (a rule of thumb)"


def _series(state: State, strip: LoadedStrip) -> Series:
    loaded = state.loaded
    constant = loaded.test.meter_constant
    pairs = [(f.log_h(constant), f.density) for f in strip.frames if f.counts]
    points = tuple(sorted((x, d) for x, d in pairs if x is not None and d is not None))
    return fitted_series(state, strip.strip.label, film_name(loaded, strip), points)


def compare_answer(state: State) -> OwnAnswer:
    """What a comparison says, by curves and by the patches of a chart."""
    loaded = state.loaded
    of_curves = _of_curves(state)
    patches = patch_table(loaded)
    if patches is None:
        return of_curves
    words = f"{of_curves.words} {drift_words(loaded)}".strip()
    figures = {**of_curves.figures, **patch_figures(loaded)}
    return replace(
        of_curves,
        words=words,
        figures=figures,
        more=(patches, *of_curves.more),
        hues=hue_turns(loaded),
        patches=patch_colours(loaded),
    )


@dataclass(frozen=True)
class _Row:
    """One film: what stands in the table, its figures, and by its name how much faster it is."""

    cells: tuple[str, ...]
    figures: dict[str, float | Figure]
    apart: tuple[str, Figure] | None = None


def _index(metrics: StripMetrics | None, seen: Figure | None) -> tuple[str, Figure | None]:
    """The EI of a film in words and as a figure: of its densities, else of an eye."""
    of, by = (metrics.zone_ei, "") if metrics is not None else (seen, " by eye")
    if of is None:
        return "not read", None
    if of.value is None:
        return of.why or "—", None
    return f"EI {marked_ei(of.value)}{by}", of


def _seen_row(loaded: LoadedTest, strip: LoadedStrip, metrics: StripMetrics | None) -> _Row:
    """A film that has no curve beside the reference's: what an eye told of both."""
    label, name, reference = strip.strip.label, film_name(loaded, strip), loaded.strips[0]
    words, index = _index(metrics, index_by_eye(loaded, strip))
    figures: dict[str, float | Figure] = {} if index is None else {f"{label}_ei": index}
    if strip is reference:
        return _Row((name, words, "the reference", *[""] * 6), figures)
    apart = faster_by_eye(loaded, strip, reference)
    if apart is None or apart.value is None:
        return _Row((name, words, apart.why if apart else "—", *[""] * 6), figures)
    speed = _signed(apart, " stop", SAME_STOPS)
    return _Row(
        (name, words, f"{speed} by eye", *[""] * 6),
        figures | {f"{label}_speed_stops": apart},
        (f"{name} by eye", apart),
    )


def _row(
    loaded: LoadedTest,
    strip: LoadedStrip,
    metrics: StripMetrics | None,
    beside: Comparison | None,
    reference: StripMetrics | None,
) -> _Row:
    if beside is None or metrics is None or reference is None:
        return _seen_row(loaded, strip, metrics)
    label, name = strip.strip.label, film_name(loaded, strip)
    words, index = _index(metrics, None)
    figures: dict[str, float | Figure] = {} if index is None else {f"{label}_ei": index}
    match = match_ei(metrics, reference, loaded.test.exposure_index)
    figures |= {
        f"{label}_speed_stops": beside.speed_stops,
        f"{label}_match_ei": match,
        f"{label}_contrast": beside.contrast,
    }
    cells = (
        name,
        words,
        _signed(beside.speed_stops, " stop", SAME_STOPS),
        f"EI {marked_ei(match.value)}" if match.value else match.why,
        _toe(beside),
        _straight(beside),
        _shoulder(beside),
        _fog(beside),
        _time(beside),
    )
    told = beside.speed_stops.value is not None
    return _Row(cells, figures, (name, beside.speed_stops) if told else None)


def _steps(loaded: LoadedTest, known: dict[str, StripMetrics]) -> tuple[Step, ...]:
    """How each of them is used: its EI, and the time it was found with."""
    made = []
    for strip in loaded.strips:
        metrics = known.get(strip.strip.label)
        if metrics is not None and metrics.zone_ei.value is not None:
            index = marked_ei(metrics.zone_ei.value)
            words = f"EI {index}; develop {develop_words(loaded, strip)}"
            made.append((film_name(loaded, strip), words))
    return tuple(made)


def _of_curves(state: State) -> OwnAnswer:
    loaded, analysis = state.loaded, state.analysis
    drawn = tuple(s for s in (_series(state, strip) for strip in loaded.strips) if s.points)
    plot = AnswerPlot("log exposure", "density", drawn)
    judged = judged_figures(loaded)
    if analysis is None and plot.series:
        return OwnAnswer("", "Nothing was worked out yet.", "", judged, plot=plot)
    if analysis is None or not analysis.strips:
        return compare_by_eye(loaded, judged, judged_table(loaded), plot if plot.series else None)
    known, of = {s.label: s for s in analysis.strips}, {c.strip: c for c in analysis.compared}
    reference = known.get(loaded.strips[0].strip.label) if loaded.strips else None
    rows = [
        _row(loaded, s, known.get(s.strip.label), of.get(s.strip.label), reference)
        for s in loaded.strips
    ]
    figures = judged | {key: told for row in rows for key, told in row.figures.items()}
    table, more = AnswerTable(_HEADS, tuple(row.cells for row in rows)), judged_table(loaded)
    act = waiting_act(state) or judge_act(loaded)
    told = [row.apart for row in rows if row.apart is not None]
    if not told:
        words = "Only one of them was read yet." if len(known) < 2 else "No speed could be found."
        return OwnAnswer("", words, act, figures, table, (), plot, of_a_curve=True, more=more)
    says, words = apart_words(told, film_name(loaded, loaded.strips[0]))
    return OwnAnswer(
        says,
        words,
        act,
        figures,
        table,
        (),
        plot,
        of_a_curve=True,
        more=more,
        steps=_steps(loaded, known),
    )

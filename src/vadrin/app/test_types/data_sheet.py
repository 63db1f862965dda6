"""A maker's sheet: what it says to begin with, and one's own test against it."""

from __future__ import annotations

from math import log2
from typing import TYPE_CHECKING

import numpy as np

from vadrin.app.curves.fitted_series import fitted_series
from vadrin.app.descriptions.answer_in_words import AnswerPlot, AnswerTable, OwnAnswer, Series
from vadrin.app.descriptions.description import PlanSentence, TestDescription
from vadrin.app.descriptions.plan_word import choice_word, option_word
from vadrin.app.display.marks import marked_ei, stops_counted
from vadrin.app.display.quantities import minutes_text, push_name
from vadrin.app.document.state import State
from vadrin.app.findings.latest_finding import LatestFinding, latest_finding_beside
from vadrin.app.loaded.loaded_test import LoadedStrip, LoadedTest
from vadrin.app.loaded.makers_told import makers_of_test
from vadrin.app.loaded.reference_temperature import reference_words
from vadrin.app.read.data_sheet_axes import absolute, source_of
from vadrin.app.results.working_steps import Step, set_step
from vadrin.core.curves.metrics import gamma
from vadrin.core.figure import Figure, absent
from vadrin.core.planning.test_options import SheetAxis, SheetSource
from vadrin.core.planning.test_types.data_sheet import DataSheet

if TYPE_CHECKING:
    from vadrin.core.results.strip_metrics import StripMetrics

_HEADS = ("", "The sheet says", "My own test")
_NOT_FOUND = "not said how it was found"
_DASH = "—"


def _curve(state: State, strip: LoadedStrip) -> Series:
    at = tuple(
        sorted(
            (f.frame.log_h, f.density)
            for f in strip.frames
            if f.frame.log_h is not None and f.density is not None
        )
    )
    minutes = f"{minutes_text(strip.minutes)} min" if strip.minutes else strip.strip.label
    return fitted_series(state, strip.strip.label, minutes, at)


def middle_ei(loaded: LoadedTest, made: StripMetrics | None) -> Figure:
    """EI = 10 / H at the middle of the straight line; absent where the axis is relative."""
    if not absolute(loaded):
        return absent("the exposure axis is relative: it gives no EI")
    if made is None:
        return absent("no curve was traced yet")
    last = np.array(made.last)
    _, start, end = gamma(made.curve, last)
    middle = 0.5 * (float(np.squeeze(start)) + float(np.squeeze(end)))
    if not np.isfinite(middle):
        return absent("the curve has no straight line")
    return Figure(float(10.0 / 10.0**middle))


def _nearest(loaded: LoadedTest, known: dict[str, StripMetrics]) -> StripMetrics | None:
    """The traced curve in the middle of the times there are."""
    traced = [known[s.strip.label] for s in loaded.strips if s.strip.label in known]
    return traced[len(traced) // 2] if traced else None


def _ei(value: float | None) -> str:
    return _DASH if not value else f"EI {marked_ei(value)}"


def _minutes(value: float | None) -> str:
    return _DASH if not value else f"{minutes_text(value)} min"


def _rows(
    loaded: LoadedTest, known: dict[str, StripMetrics], curve: Figure
) -> list[tuple[str, str, str]]:
    """The sheet beside what was found by oneself."""
    found = latest_finding_beside(loaded)
    how = source_of(loaded).speed_found or _NOT_FOUND
    rows = [
        (
            "Speed",
            f"{loaded.test.exposure_index:g}, {how}",
            _ei(found.exposure_index if found else None),
        ),
        ("10 / H on its curve", _ei(curve.value) if curve.value else curve.why, ""),
    ]
    traced = _nearest(loaded, known)
    if traced is not None and absolute(loaded) and traced.zone_ei.value:
        # Like for like: the same point of a curve, theirs and mine.
        own = _ei(found.zone_ei if found else None)
        rows.append(("Zone I EI", _ei(traced.zone_ei.value), own))
    told = dict(makers_of_test(loaded))
    for stops in sorted(told):
        mine = _my_minutes(found, stops)
        name = "Normal time" if stops == 0 else f"Time for {push_name(stops)}"
        rows.append((name, _minutes(told[stops]), _minutes(mine)))
    named = _named_indexes(loaded)
    if len(named) > 1:
        shown = ", ".join(f"{marked_ei(index):g}" for index in named)
        rows.append(("EIs it has times for", shown, "what people use, no speed: the weakest word"))
    if found is not None and 0.0 not in told:
        rows.append(("Normal time", _DASH, _minutes(found.time_min)))
    for strip in loaded.strips:
        metrics = known.get(strip.strip.label)
        if metrics is not None and metrics.average_gradient.value is not None:
            name = f"Gradient at {minutes_text(strip.minutes)} min" if strip.minutes else "Gradient"
            rows.append((name, f"{metrics.average_gradient.value:.2f}", ""))
    return rows


def _named_indexes(loaded: LoadedTest) -> list[float]:
    """The EIs a maker prints times for, the lowest first."""
    box = loaded.stock.box_speed
    named = {line.exposure_index or box * 2.0 ** (line.stops or 0.0) for line in loaded.makers}
    return sorted(named)


def _my_minutes(found: LatestFinding | None, stops: float) -> float | None:
    if found is None:
        return None
    return found.time_min if stops == 0 else found.minutes(stops, found.rule.value).value


def data_sheet_answer(state: State) -> OwnAnswer:
    """What a sheet says."""
    loaded, analysis = state.loaded, state.analysis
    known = {m.label: m for m in analysis.strips} if analysis else {}
    curve = middle_ei(loaded, _nearest(loaded, known))
    nominal, found = loaded.test.exposure_index, latest_finding_beside(loaded)
    figures: dict[str, Figure | float | None] = {"nominal_ei": nominal, "curve_ei": curve}
    for label, metrics in known.items():
        # Without ranges: how true a printed curve is, its points do not tell.
        figures[f"{label}_gradient"] = metrics.average_gradient.value
        if absolute(loaded):
            figures[f"{label}_zone_ei"] = metrics.zone_ei.value
    drawn = tuple(s for s in (_curve(state, strip) for strip in loaded.strips) if s.points)
    axis = "log exposure, lux seconds" if absolute(loaded) else "relative log exposure"
    plot = AnswerPlot(axis, "density", drawn) if drawn else None
    table = AnswerTable(_HEADS, tuple(_rows(loaded, known, curve)))
    if not drawn and not loaded.makers and not source_of(loaded).speed_found:
        act = "Say how its speed was found, type its times at Process, or trace a curve at Read."
        return OwnAnswer("", "nothing of the sheet was taken down yet", act, figures, table)
    words = "a maker's word, found in another laboratory: a starting point, not a finding"
    if found is None:
        act = "Test it yourself: one strip at this EI and time shows how far off the sheet is."
        told = dict(makers_of_test(loaded)).get(0.0)
        return OwnAnswer(
            f"EI {marked_ei(nominal)} to begin with",
            f"{words}.",
            act,
            figures,
            table,
            (),
            plot,
            steps=_steps(loaded, nominal, told, "the maker's figure, not measured here"),
        )
    apart = log2(found.exposure_index / nominal)
    figures["stops_from_sheet"] = apart
    side = "faster" if apart > 0 else "slower"
    beside = (
        "as the sheet says"
        if abs(apart) < 1 / 6
        else (f"{stops_counted(abs(apart))} {side} than the sheet")
    )
    says = f"EI {marked_ei(found.exposure_index)}, {beside}"
    return OwnAnswer(
        says,
        f"By my own test; the sheet is {words}.",
        "Rate it by your own test.",
        figures,
        table,
        (),
        plot,
        steps=_steps(loaded, found.exposure_index, found.time_min, "by my own test"),
    )


def _steps(loaded: LoadedTest, index: float, minutes: float | None, whose: str) -> tuple[Step, ...]:
    """The EI and the time to work by, and whose word they are."""
    name, words = set_step(index)
    made: tuple[Step, ...] = ((name, f"{words}, {whose}"),)
    if minutes:
        made += (("Develop", f"{minutes_text(minutes)} min at {reference_words(loaded)}, {whose}"),)
    return made


DESCRIPTION = TestDescription(
    DataSheet.key,
    "What does the data sheet say, before I test?",
    "Its speed and how that was found, its times, and its curves traced from a picture.",
    sentences=(PlanSentence.TIMES, PlanSentence.OWN),
    kit="the data sheet, a picture of its curve",
    own_sentence="Its speed was found {how}; its picture is a {axis}.",
    own_words={
        "how": option_word(
            "how the sheet's speed was found",
            SheetSource,
            "speed_found",
            str.strip,
            lambda found: found or "in a way it does not say",
        ),
        "axis": choice_word("what the sheet's axis is", SheetSource, "axis", SheetAxis),
    },
    answer=data_sheet_answer,
)

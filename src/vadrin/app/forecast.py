"""What a plan is going to tell, in words, with what one frame or strip more or less would do."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

from vadrin.app.expectation import Expected
from vadrin.app.sheet import TestSheet
from vadrin.app.words import list_text, minutes_text, push_name
from vadrin.core.analysis import Settings
from vadrin.core.exposure import STOP, bracket, meter_point
from vadrin.core.family import Target
from vadrin.core.likely import Likely
from vadrin.core.plan_kinds import FOGGED, LOST
from vadrin.core.prediction import PlannedStrip, Prediction, predict, spread_of_ei

USUAL_NOISE = 0.012
MEASURED_KINDS = ("time", "speed", "push", "rescue", "compare", "colour")
"""Kinds whose answer is an EI and times read from curves."""

_MOST_STRIPS = 8
_PUSHES = (-1.0, 1.0, 2.0)


@dataclass(frozen=True)
class Question:
    """All a forecast depends on, so that the same plan is worked out once."""

    kind: str
    strips: tuple[PlannedStrip, ...]
    noise: float
    settings: Settings
    film: Expected


@dataclass(frozen=True)
class Forecast:
    """Sentences for the plan, and the prediction they rest on."""

    prediction: Prediction | None
    sentences: tuple[str, ...]


def question_of_plan(sheet: TestSheet, film: Expected, noise: float = USUAL_NOISE) -> Question:
    """The plan as the core wants it; a strip's exposures are those of its planned settings."""
    constant = sheet.test.meter_constant
    strips = tuple(
        PlannedStrip(
            s.strip.label,
            s.minutes,
            tuple(
                math.nan if x is None else round(x, 4)
                for f in s.frames
                if f.frame.role not in (FOGGED, LOST)
                for x in [f.log_h(constant)]
            ),
            sheet.material_of(s),
        )
        for s in sheet.strips
    )
    target = Target(sheet.test.target_kind, sheet.test.target_value)
    pushes = tuple(s.strip.push for s in sheet.strips if s.strip.push) or _PUSHES
    settings = Settings(target=target, meter_constant=constant, pushes=pushes, draws=0)
    return Question(sheet.test.kind, strips, noise, settings, film)


def with_bracket(question: Question, sheet: TestSheet, first: float, last: float) -> Question:
    """The same plan with its bracket from another stop to another, in the same steps."""
    test = sheet.test
    strips = []
    for planned, strip in zip(question.strips, sheet.strips, strict=True):
        index = next((f.frame.exposure_index for f in strip.frames if f.frame.exposure_index), None)
        start = meter_point(index or test.exposure_index, test.meter_constant)
        blanks = tuple(x for x in planned.log_h if math.isnan(x))
        lit = tuple(start + STOP * s for s in bracket(first, last, test.step))
        strips.append(replace(planned, log_h=(*blanks, *lit)))
    return replace(question, strips=tuple(strips))


def forecast(question: Question) -> Forecast:
    """What to expect of a plan; fast enough to follow a hand."""
    if question.kind not in MEASURED_KINDS:
        return Forecast(None, ("This kind of plan is judged by eye or beside a twin; no interval "
                               "can be foretold for it.",))  # fmt: skip
    likely = question.film.likely
    first = question.strips[0].material if question.strips else ""
    mine = tuple(s for s in question.strips if s.material == first)
    whole = predict(likely, mine, question.noise, question.settings)
    words = [_expectation(whole, question)]
    if len({s.material for s in question.strips}) > 1:
        words += _difference(whole)
    words += _variants(likely, question, mine, whole)
    return Forecast(whole, tuple(words))


_NO_TIME = ("speed", "compare")
"""Kinds that ask for no time."""


def _expectation(whole: Prediction, question: Question) -> str:
    spread = whole.ei_spread
    if spread is None:
        return f"This plan would give no EI: {whole.zone_ei.why or 'its range is too short'}."
    words = f"Expect the EI to ± {_stops(1.96 * spread)} stop"
    time = whole.time_spread
    if time is None and question.kind not in _NO_TIME:
        words += f"; no time: {whole.time_min.why}"
    elif time is not None:
        minutes = whole.time_min.known()
        words += f", the time to ± {minutes_text(1.96 * time * minutes, exact=True)}"
        words += _pushes(whole, question.settings.pushes)
    return f"{words} (95 in 100, for {question.film.basis}, developed with care)."


def _pushes(whole: Prediction, asked: tuple[float, ...]) -> str:
    """How sure the time of each push and pull will be, and which the plan leaves open."""
    told, left = [], []
    for stops, time in zip(asked, whole.push_times, strict=True):
        if time.low is not None and time.high is not None:
            half = minutes_text((time.high - time.low) / 2, exact=True)
            told.append(f"{push_name(stops)} to ± {half}")
        else:
            left.append((push_name(stops), time.why))
    words = f", {', '.join(told)}" if told else ""
    for why in dict.fromkeys(why for _, why in left):
        words += f"; {list_text([name for name, reason in left if reason == why])} {why}"
    return words


def _difference(whole: Prediction) -> list[str]:
    """Two materials are worked out apart, so that their errors add as squares."""
    if whole.ei_spread is None:
        return []
    both = 1.96 * whole.ei_spread * 2**0.5
    return [f"How far another's speed lies from the reference's, to ± {_stops(both)} stop."]


def _stops(size: float) -> str:
    return f"{max(size, 0.01):.2f}"


def _variants(
    likely: Likely, question: Question, strips: tuple[PlannedStrip, ...], whole: Prediction
) -> list[str]:
    """One frame fewer on each strip, and one strip more."""
    if whole.ei_spread is None:
        return []
    told = []
    settings = replace(question.settings, pushes=())
    for name, left in (("thinnest", whole.without_thinnest), ("densest", whole.without_densest)):
        spread = spread_of_ei(left)
        shown = "none" if spread is None else f"± {_stops(1.96 * spread)}"
        told.append(f"the {name} frame of each strip left out: {shown}")
    times = sorted(s.time_min for s in strips if s.time_min)
    if question.kind in ("time", "speed", "rescue") and times and len(times) < _MOST_STRIPS:
        longest = times[-1]
        step = longest / times[-2] if len(times) > 1 and times[-2] < longest else 1.4
        added = replace(strips[-1], time_min=round(longest * step * 2) / 2)
        more = predict(likely, (*strips, added), question.noise, settings)
        if more.ei_spread is not None:
            gain = f"one more strip, {minutes_text(added.time_min or 0)}: ± "
            told.append(f"{gain}{_stops(1.96 * more.ei_spread)}" + _time_words(more))
    return [f"For the EI: {'; '.join(told)}."] if told else []


def _time_words(more: Prediction) -> str:
    if more.time_spread is None:
        return ""
    return f" and the time to ± {100 * 1.96 * more.time_spread:.0f} %"

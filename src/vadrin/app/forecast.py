"""What a plan is going to tell, in words, with what one frame or strip more or less would do."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

from vadrin.app.expectation import FoundBefore, likely_film
from vadrin.app.question import settings_of
from vadrin.app.sheet import TestSheet
from vadrin.app.words import minutes_text
from vadrin.core.analysis import Settings
from vadrin.core.film import Film
from vadrin.core.plan_kinds import FOGGED, LOST
from vadrin.core.prediction import PlannedStrip, Prediction, predict

USUAL_NOISE = 0.012
MEASURED_KINDS = ("time", "speed", "push", "rescue", "compare", "colour")
"""Kinds whose answer is an EI and times read from curves."""

_FINE = 1 / 3


@dataclass(frozen=True)
class Question:
    """All a forecast depends on, so that the same plan is worked out once."""

    kind: str
    index: float
    strips: tuple[PlannedStrip, ...]
    noise: float
    meter_constant: float
    target: tuple[str, float]
    found: FoundBefore | None = None


@dataclass(frozen=True)
class Forecast:
    """Sentences for the plan, and the prediction they rest on."""

    prediction: Prediction | None
    sentences: tuple[str, ...]


def question_of_plan(
    sheet: TestSheet, found: FoundBefore | None = None, noise: float = USUAL_NOISE
) -> Question:
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
        )
        for s in sheet.strips
    )
    test = sheet.test
    return Question(test.kind, test.exposure_index, strips, noise, constant,
                    (test.target_kind, test.target_value), found)  # fmt: skip


def forecast(question: Question, sheet: TestSheet) -> Forecast:
    """What to expect of a plan."""
    if question.kind not in MEASURED_KINDS:
        return Forecast(None, ("This kind of plan is judged by eye or beside a twin; no interval "
                               "can be foretold for it.",))  # fmt: skip
    film = likely_film(question.index, question.found)
    settings = replace(settings_of(sheet, draws=0), pushes=(1.0,))
    whole = predict(film, question.strips, question.noise, settings)
    return Forecast(
        whole, tuple(_sentences(whole, question.found) + _variants(film, question, whole, settings))
    )


def _sentences(whole: Prediction, found: FoundBefore | None) -> list[str]:
    spread = whole.ei_spread
    if spread is None:
        return [f"This plan would give no EI: {whole.zone_ei.why or 'its range is too short'}."]
    words = [f"Expect the EI to ± {_stops(1.96 * spread)} stop"]
    time = whole.time_spread
    if time is None:
        words[0] += f"; no time: {whole.time_min.why}"
    else:
        minutes = whole.time_min.known()
        words[0] += f", the time to ± {minutes_text(1.96 * time * minutes, exact=True)}"
        push = next((p.hold_midtone for p in whole.pushes), None)
        if push and push.time_min.low and push.time_min.high:
            half = (push.time_min.high - push.time_min.low) / 2
            words[0] += f", that of push 1 to ± {minutes_text(half, exact=True)}"
        elif push:
            words[0] += f"; push 1 {push.time_min.why}"
    basis = f"this film as it was found on {found.day}" if found else "a typical film"
    words[0] += f" (95 in 100, for {basis}, developed with care)."
    return words


def _stops(size: float) -> str:
    return f"{max(size, 0.01):.2f}"


def _variants(film: Film, question: Question, whole: Prediction, settings: Settings) -> list[str]:
    """One frame fewer on each strip, and one strip more."""
    spread = whole.ei_spread
    if spread is None:
        return []
    told = []
    fewer = tuple(replace(s, log_h=_thinned(s.log_h)) for s in question.strips)
    less = predict(film, fewer, question.noise, settings).ei_spread
    if less is not None:
        told.append(f"every second frame left out: ± {_stops(1.96 * less)}")
    times = sorted(s.time_min for s in question.strips if s.time_min)
    if question.kind in ("time", "speed", "rescue") and times and len(times) < 8:
        longest = times[-1]
        step = longest / times[-2] if len(times) > 1 and times[-2] < longest else 1.4
        added = replace(question.strips[-1], time_min=round(longest * step * 2) / 2)
        more = predict(film, (*question.strips, added), question.noise, settings)
        if more.ei_spread is not None:
            gain = f"one more strip, {minutes_text(added.time_min or 0)}: ± "
            told.append(f"{gain}{_stops(1.96 * more.ei_spread)}" + _time_words(more))
    return [f"For the EI: {'; '.join(told)}."] if told else []


def _time_words(more: Prediction) -> str:
    if more.time_spread is None:
        return ""
    return f" and the time to ± {100 * 1.96 * more.time_spread:.0f} %"


def _thinned(log_h: tuple[float, ...]) -> tuple[float, ...]:
    """Every second exposure left out; blanks stay."""
    lit = 0
    kept = []
    for x in log_h:
        if math.isnan(x):
            kept.append(x)
            continue
        if lit % 2 == 0:
            kept.append(x)
        lit += 1
    return tuple(kept)


def smallest_plan(sheet: TestSheet, found: FoundBefore | None, stops: float) -> str:
    """The smallest plan of development times that would give the EI to within some stops.

    Parameters
    ----------
    sheet : TestSheet
        Its bracket and times are what is thinned and cut.
    stops : float
        Half the interval wanted, 95 in 100.
    """
    question = question_of_plan(sheet, found)
    film = likely_film(question.index, found)
    settings = settings_of(sheet, draws=0)
    first, last = sheet.test.first_stop, sheet.test.last_stop
    best: tuple[int, str] | None = None
    for count in range(2, 6):
        middle = found.minutes if found else 8.0
        times = [middle * 1.35 ** (i - (count - 1) / 2) for i in range(count)]
        for step, name in ((1.0, "whole stops"), (0.5, "half stops"), (_FINE, "thirds")):
            frames = int((last - first) / step + 1.001)
            start = math.log10(question.meter_constant / question.index)
            x = tuple(start + 0.30103 * (first + step * i) for i in range(frames))
            plan = tuple(
                PlannedStrip(str(i), t, (math.nan, math.nan, *x)) for i, t in enumerate(times)
            )
            spread = predict(film, plan, question.noise, settings).ei_spread
            total = count * (frames + 2)
            if spread is not None and 1.96 * spread <= stops and (best is None or total < best[0]):
                best = total, f"{count} strips in {name}, {total} frames"
    if best is None:
        return "no plan of up to five strips gives that."
    return f"{best[1]} at least."

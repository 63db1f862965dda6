"""What a plan is going to tell, in words, with what one frame or strip more or less would do."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

from vadrin.app.display.quantities import minutes_text, push_name
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.plan.expected_curves import Expected
from vadrin.core.exposure.arithmetic import STOP, bracket, meter_point
from vadrin.core.frames import FrameRole
from vadrin.core.planning.forecast import (
    USUAL_NOISE,
    Forecast,
    PlannedStrip,
    forecast,
    spread_of_ei,
)
from vadrin.core.planning.test_types import Foretold, TestType, type_of
from vadrin.core.results.analysis_result import Settings
from vadrin.core.results.criteria import Target

_MOST_STRIPS = 8
_PUSHES = (-1.0, 1.0, 2.0)

NOT_FORETOLD = "not available"
"""Stands where a plan gives no figure; the reason stands under it."""


@dataclass(frozen=True)
class ForecastInput:
    """All a forecast depends on, so that the same plan is worked out once."""

    kind: str
    strips: tuple[PlannedStrip, ...]
    noise: float
    settings: Settings
    film: Expected


@dataclass(frozen=True)
class ForecastLine:
    """One thing a plan tells: what, how surely, and what is to be said of it."""

    name: str
    shown: str
    why: str = ""


@dataclass(frozen=True)
class PlanForecast:
    """What a plan is going to tell, what another one would, and what all that rests on."""

    forecast: Forecast | None
    answers: tuple[ForecastLine, ...]
    variants: tuple[ForecastLine, ...]
    basis: str


def forecast_input(loaded: LoadedTest, film: Expected, noise: float | None = None) -> ForecastInput:
    """The plan as the core wants it; a strip's exposures are those of its planned settings."""
    constant = loaded.test.meter_constant
    instrument = loaded.instrument
    read_noise = noise or (instrument and instrument.noise) or film.noise or USUAL_NOISE
    strips = tuple(
        PlannedStrip(
            s.strip.label,
            s.minutes,
            tuple(
                math.nan if x is None else round(x, 4)
                for f in s.frames
                if f.frame.role not in (FrameRole.FOGGED, FrameRole.LOST)
                for x in [f.log_h(constant)]
            ),
            loaded.material_of(s),
        )
        for s in loaded.strips
    )
    target = Target(loaded.test.target_kind, loaded.test.target_value)
    pushes = tuple(s.strip.push for s in loaded.strips if s.strip.push) or _PUSHES
    settings = Settings(target=target, meter_constant=constant, pushes=pushes, draws=0)
    return ForecastInput(loaded.test.kind, strips, read_noise, settings, film)


def with_bracket(
    question: ForecastInput, loaded: LoadedTest, first: float, last: float
) -> ForecastInput:
    """The same plan with its bracket from another stop to another, in the same steps."""
    test = loaded.test
    strips = []
    for planned, strip in zip(question.strips, loaded.strips, strict=True):
        index = next((f.frame.exposure_index for f in strip.frames if f.frame.exposure_index), None)
        start = meter_point(index or test.exposure_index, test.meter_constant)
        blanks = tuple(x for x in planned.log_h if math.isnan(x))
        lit = tuple(start + STOP * s for s in bracket(first, last, test.step))
        strips.append(replace(planned, log_h=(*blanks, *lit)))
    return replace(question, strips=tuple(strips))


def forecast_plan(question: ForecastInput) -> PlanForecast:
    """What to expect of a plan; fast enough to follow a hand."""
    kind = type_of(question.kind)
    if kind is None or kind.foretold is Foretold.NOTHING:
        return PlanForecast(None, (), (), kind.not_foretold if kind else TestType.not_foretold)
    first = question.strips[0].material if question.strips else ""
    mine = tuple(s for s in question.strips if s.material == first)
    whole = forecast(question.film.prior, mine, question.noise, question.settings, fewer=True)
    answers = _answers(whole, question)
    if len({s.material for s in question.strips}) > 1:
        answers += _difference(whole)
    basis = f"95 % ranges for {question.film.basis}, with careful development."
    return PlanForecast(whole, tuple(answers), tuple(_variants(question, mine, whole)), basis)


def strips_alike(key: str) -> bool:
    """Whether a kind's plan can be made smaller or larger by a strip."""
    kind = type_of(key)
    return kind is not None and kind.strips_alike


def _asks_time(question: ForecastInput) -> bool:
    kind = type_of(question.kind)
    return kind is not None and kind.foretold is Foretold.EI_AND_TIMES


def _answers(whole: Forecast, question: ForecastInput) -> list[ForecastLine]:
    spread = whole.ei_spread
    if spread is None:
        return [ForecastLine("EI", NOT_FORETOLD, whole.zone_ei.why or "not enough exposures")]
    lines = [ForecastLine("EI", f"± {_stops(1.96 * spread)} stop")]
    time = whole.time_spread
    if time is None:
        return (
            lines
            if not _asks_time(question)
            else [*lines, ForecastLine("time", NOT_FORETOLD, whole.time_min.why)]
        )
    half = 1.96 * time * whole.time_min.known()
    lines.append(ForecastLine("time", f"± {minutes_text(half, exact=True)}"))
    for stops, push in zip(question.settings.pushes, whole.push_times, strict=True):
        if push.low is None or push.high is None:
            lines.append(ForecastLine(push_name(stops), NOT_FORETOLD, push.why))
        else:
            half = (push.high - push.low) / 2
            lines.append(ForecastLine(push_name(stops), f"± {minutes_text(half, exact=True)}"))
    return lines


def _difference(whole: Forecast) -> list[ForecastLine]:
    """Two materials are worked out apart, so that their errors add as squares."""
    if whole.ei_spread is None:
        return []
    both = 1.96 * whole.ei_spread * 2**0.5
    return [ForecastLine("EI difference from the reference", f"± {_stops(both)} stop")]


def _stops(size: float) -> str:
    return f"{max(size, 0.01):.2f}"


def _variants(
    question: ForecastInput, strips: tuple[PlannedStrip, ...], whole: Forecast
) -> list[ForecastLine]:
    """One frame fewer on each strip, and one strip more."""
    if whole.ei_spread is None:
        return []
    lines = []
    for name, left in (("thinnest", whole.without_thinnest), ("densest", whole.without_densest)):
        spread = spread_of_ei(left)
        shown = "no EI" if spread is None else f"EI ± {_stops(1.96 * spread)}"
        lines.append(ForecastLine(f"without the {name} frame of each strip", shown, left.why))
    more = _one_more(question, strips)
    return [*lines, more] if more else lines


def _one_more(question: ForecastInput, strips: tuple[PlannedStrip, ...]) -> ForecastLine | None:
    times = sorted(s.time_min for s in strips if s.time_min)
    if not strips_alike(question.kind) or not 0 < len(times) < _MOST_STRIPS:
        return None
    longest = times[-1]
    step = longest / times[-2] if len(times) > 1 and times[-2] < longest else 1.4
    added = replace(strips[-1], time_min=round(longest * step * 2) / 2)
    settings = replace(question.settings, pushes=())
    more = forecast(question.film.prior, (*strips, added), question.noise, settings)
    if more.ei_spread is None:
        return None
    shown = f"EI ± {_stops(1.96 * more.ei_spread)}"
    if more.time_spread is not None:
        half = 1.96 * more.time_spread * more.time_min.known()
        shown += f", time ± {minutes_text(half, exact=True)}"
    return ForecastLine(f"with one more strip, {minutes_text(added.time_min or 0)} min", shown)

"""From readings to the whole report in one call."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.checks.reading_checks import reading_diagnostics
from vadrin.core.checks.turning_back import turned_back, turned_diagnostic
from vadrin.core.curves.foot import NO_FOOT
from vadrin.core.diagnostic import Diagnostic, Severity
from vadrin.core.figure import Figure, absent
from vadrin.core.fitting.family import at_time, family_of, time_grid
from vadrin.core.fitting.fit import Fit, draws_of, fit_strips
from vadrin.core.limits import CURVE_RULE
from vadrin.core.materials.colour import colour_reversal_speed, density_falls
from vadrin.core.materials.reversal_stages import reversal_stages
from vadrin.core.readings import StripReadings
from vadrin.core.results.analysis_result import Analysis, Settings
from vadrin.core.results.common_error import moved_by, shared_error, widened
from vadrin.core.results.comparison import Comparison, compare_all, matched_time
from vadrin.core.results.criteria import AVERAGE_GRADIENT, ISO_TARGET, Target
from vadrin.core.results.finding import (
    ONE_STRIP,
    ONE_TIME,
    FamilyEstimate,
    Finding,
    find,
    finding_of_one_strip,
)
from vadrin.core.results.method_answers import method_answers
from vadrin.core.results.next_step import NextStep, next_steps
from vadrin.core.results.push import pushes_of, unanswered
from vadrin.core.results.push_limits import held_range, push_limits
from vadrin.core.results.strip_metrics import StripMetrics, metrics_of_strips
from vadrin.core.results.turned_strips import densest_at_turns, without_turns

NO_TIME = "no strip has a development time"
_OF_TIMES = ("one time", "two times", "not tested")
_LEAST_SPAN, _MOST_SPAN = 0.25, 40.0
"""Lg units between the thinnest and the densest frame, within which exposures are meant so."""
_BEST_STEPS, _DRAWN_STEPS = 97, 19


def _usable(strips: tuple[StripReadings, ...]) -> tuple[StripReadings, ...]:
    kept = []
    for strip in strips:
        x, density = strip.exposed()
        enough = len(np.unique(x)) >= 3 and np.ptp(density) >= 0.05
        if enough and _LEAST_SPAN <= np.ptp(x) <= _MOST_SPAN:
            kept.append(strip)
    return tuple(kept)


def _unusable(
    strips: tuple[StripReadings, ...], kept: tuple[StripReadings, ...]
) -> list[Diagnostic]:
    return [
        Diagnostic(
            "no curve",
            Severity.CAUTION,
            f"Strip {s.label} has too few different exposures for a curve.",
            f"{CURVE_RULE[:1].upper()}{CURVE_RULE[1:]}.",
            s.label,
        )
        for s in strips
        if s not in kept
    ]


def no_analysis(settings: Settings, why: str, diagnostics: tuple[Diagnostic, ...] = ()) -> Analysis:
    """An analysis in which every figure is absent for one reason."""
    gap = absent(why)
    finding = Finding(settings.target, gap, gap, gap, False)
    iso = Finding(ISO_TARGET, gap, gap, gap, False)
    return Analysis(settings, (), iso, finding, unanswered(settings.pushes, why), diagnostics)


def family_estimate(
    fit: Fit, reports: tuple[StripMetrics, ...], draws: Array | None, settings: Settings
) -> FamilyEstimate:
    """The family of a fit beside that of its draws."""
    best = family_of(fit.model, fit.phi, time_grid(fit, _BEST_STEPS), settings.meter_constant)
    drawn = None
    if draws is not None:
        drawn = family_of(fit.model, draws, time_grid(fit, _DRAWN_STEPS), settings.meter_constant)
    thinnest, densest = (
        float(np.median([getattr(s, end) for s in reports])) for end in ("first", "last")
    )
    low, high = float(fit.model.times.min()), float(fit.model.times.max())
    return FamilyEstimate(best, drawn, low, high, thinnest, densest, fit.freedom)


def _of_one_time(
    settings: Settings,
    fit: Fit,
    strips: tuple[StripReadings, ...],
    reports: tuple[StripMetrics, ...],
) -> Analysis:
    report = reports[0]

    why = ONE_STRIP if len(reports) == 1 else ONE_TIME

    def answer(target: Target) -> Finding:
        contrast = target.measure.of_strip(report)
        wanted = target.measure.wanted(target.value)
        return finding_of_one_strip(target, contrast, report.restated_min, wanted, why)

    finding, iso = answer(settings.target), answer(ISO_TARGET)
    push = unanswered(settings.pushes, finding.time_min.why)
    warned = reading_diagnostics(strips, fit, reports, finding)
    return Analysis(settings, reports, iso, finding, push, warned, fit.noise)


MOST_STRIPS = 24
"""Strips of one film that are fitted together: no test has as many, and time grows with them."""


def analyse(strips: tuple[StripReadings, ...], settings: Settings | None = None) -> Analysis:
    """Work out one test in one channel.

    Parameters
    ----------
    strips : tuple of StripReadings
        One development each; repeated times are allowed. Where they are of several materials,
        each is worked out apart and the finding is that of the first.
    settings : Settings, optional

    Returns
    -------
    Analysis
        Never raises for finite readings: what cannot be reached is absent with a reason.
    """
    settings = settings or Settings()
    told = _worked_out(strips, settings)
    if not shared_error(strips) or not settings.draws:
        return told
    moved = _worked_out(moved_by(strips), replace(settings, draws=0))
    whole: Analysis = widened(told, moved)
    return whole


def _worked_out(strips: tuple[StripReadings, ...], settings: Settings) -> Analysis:
    """A test whose readings are off by their own errors alone."""
    materials = list(dict.fromkeys(s.material for s in strips))
    if len(materials) > 1:
        return _of_materials(settings, strips, materials)
    if len(strips) > 1 and any(s.time_min is None for s in strips):
        return _some_without_time(settings, strips)
    # The order they come in changes nothing, the draws behind the ranges included.
    order = sorted(range(len(strips)), key=lambda i: (strips[i].time_min or 0.0, strips[i].label))
    if order != list(range(len(strips))):
        return _in_order(_worked_out(tuple(strips[i] for i in order), settings), strips)
    kept = _usable(strips)
    missing = _unusable(strips, kept)
    if not kept:
        why = "no strip has enough readings for a curve" if strips else "no readings yet"
        return no_analysis(settings, why, tuple(missing))
    if len(kept) > MOST_STRIPS:
        why = f"more than {MOST_STRIPS} strips of one film: take a part of them into another test"
        return no_analysis(settings, why, tuple(missing))
    if all(density_falls(strip) for strip in kept):
        return _of_reversal(settings, kept, tuple(missing))
    turns = tuple(turn for strip in kept if (turn := turned_back(strip)) is not None)
    answer = _of_curves(settings, without_turns(kept, turns))
    told = (*missing, *(turned_diagnostic(turn) for turn in turns))
    return replace(
        answer,
        strips=densest_at_turns(answer.strips, turns),
        diagnostics=(*told, *answer.diagnostics),
    )


def _of_curves(settings: Settings, kept: tuple[StripReadings, ...]) -> Analysis:
    """Strips that have a curve each."""
    fit = fit_strips(kept, instrument_noise=settings.instrument_noise)
    rng = np.random.default_rng(settings.seed)
    draws = draws_of(fit, settings.draws, rng) if settings.draws else None
    reports = metrics_of_strips(kept, fit, draws, settings.meter_constant)
    if fit.model.distinct < 2:
        return _of_one_time(settings, fit, kept, reports)
    return _of_many_times(settings, fit, kept, reports, draws)


def _of_materials(
    settings: Settings, strips: tuple[StripReadings, ...], materials: list[str]
) -> Analysis:
    """Two films, or two developers, share no law: each by itself, then side by side."""
    first, *others = (
        _worked_out(tuple(s for s in strips if s.material == m), settings) for m in materials
    )
    figures_of_others = tuple(s for other in others for s in other.strips)
    known = {s.label: s for s in (*first.strips, *figures_of_others)}
    warned = first.diagnostics + tuple(w for other in others for w in other.diagnostics if w.strip)
    return replace(
        first,
        strips=tuple(known[s.label] for s in strips if s.label in known),
        diagnostics=warned,
        compared=_beside(settings, strips, first.strips, figures_of_others),
    )


def _beside(
    settings: Settings,
    strips: tuple[StripReadings, ...],
    reference: tuple[StripMetrics, ...],
    others: tuple[StripMetrics, ...],
) -> tuple[Comparison, ...]:
    """Others beside the reference; where one was tried at several times, when it meets it."""
    material = {s.label: s.material for s in strips}
    gradients = {s.label: s.average_gradient for s in reference}
    times: dict[tuple[str, str], Figure] = {}
    made = []
    for one in compare_all(reference, others):
        own = tuple(s for s in strips if s.material == material[one.strip])
        if len({s.time_min for s in own}) > 1:
            place = (material[one.strip], one.reference)
            if place not in times:
                times[place] = _time_meeting(own, settings, gradients[one.reference])
            one = replace(one, match_min=times[place])
        made.append(one)
    return tuple(made)


def _time_meeting(
    strips: tuple[StripReadings, ...], settings: Settings, gradient: Figure
) -> Figure:
    """A material's time for the reference's average gradient, by its own tested times."""
    if gradient.value is None:
        return absent(gradient.why)
    target = Target(AVERAGE_GRADIENT.key, gradient.value)
    found = _worked_out(strips, replace(settings, target=target)).finding.time_min
    return matched_time(gradient, found)


def _in_order(answer: Analysis, strips: tuple[StripReadings, ...]) -> Analysis:
    """The same answer with its strips in the order they came in."""
    labels = [s.label for s in strips]
    held = dict(zip((s.label for s in answer.strips), answer.held, strict=False))
    ordered = tuple(sorted(answer.strips, key=lambda s: labels.index(s.label)))
    ranges = tuple(held[s.label] for s in ordered if s.label in held)
    return replace(answer, strips=ordered, held=ranges)


def _some_without_time(settings: Settings, strips: tuple[StripReadings, ...]) -> Analysis:
    """A strip without a time follows no family: each of them is worked out by itself."""
    timed = tuple(s for s in strips if s.time_min is not None)
    apart = [_worked_out((s,), settings) for s in strips if s.time_min is None]
    if timed:
        first = _worked_out(timed, settings)
    else:
        # A reversal speed asks for no time.
        first = replace(no_analysis(settings, NO_TIME), reversal_speed=apart[0].reversal_speed)
    known = {s.label: s for answer in (first, *apart) for s in answer.strips}
    told = [w for answer in apart for w in answer.diagnostics if w.key not in _OF_TIMES]
    told += [
        Diagnostic(
            "no time",
            Severity.CAUTION,
            f"Strip {s.label} has no development time: it is calculated alone.",
            "Write down what it got, and it will then help with other times.",
            s.label,
        )
        for s in strips
        if s.time_min is None
    ]
    ordered = tuple(known[s.label] for s in strips if s.label in known)
    return replace(first, strips=ordered, diagnostics=(*first.diagnostics, *told))


def _of_many_times(
    settings: Settings,
    fit: Fit,
    strips: tuple[StripReadings, ...],
    reports: tuple[StripMetrics, ...],
    draws: Array | None,
) -> Analysis:
    if all(report.base_fog.value is None for report in reports):
        warned = reading_diagnostics(strips, fit, reports, no_analysis(settings, NO_FOOT).finding)
        return replace(no_analysis(settings, NO_FOOT, warned), strips=reports, noise=fit.noise)
    estimate = family_estimate(fit, reports, draws, settings)
    finding, minutes = find(estimate, settings.target)
    iso, _ = find(estimate, ISO_TARGET)
    method = settings.rates_by
    rated = method.stops_above_zone_ei(settings.meter_constant)
    return Analysis(
        settings,
        reports,
        iso,
        finding,
        pushes_of(estimate, finding, minutes, settings.pushes, rated, settings.rules_of_thumb),
        reading_diagnostics(strips, fit, reports, finding),
        fit.noise,
        estimate.best,
        method_answers(estimate, settings.target),
        push_limits(estimate, finding, rated),
        tuple(held_range(report) for report in reports),
        _next_steps(settings, strips, fit, draws, estimate, minutes),
    )


def _next_steps(
    settings: Settings,
    strips: tuple[StripReadings, ...],
    fit: Fit,
    draws: Array | None,
    estimate: FamilyEstimate,
    minutes: Array | None,
) -> tuple[NextStep, ...]:
    """What would firm up the EI at the found time."""
    if draws is None or estimate.drawn is None or minutes is None:
        return ()
    answer = at_time(estimate.drawn, estimate.drawn.ln_zone_ei, minutes)
    return next_steps(strips, fit, draws, answer, np.random.default_rng(settings.seed))


def _of_reversal(
    settings: Settings, strips: tuple[StripReadings, ...], missing: tuple[Diagnostic, ...]
) -> Analysis:
    """Material whose density falls with exposure has a speed of its own, and no family here."""
    why = "density falls with exposure: reversal material has a reversal speed instead"
    speed = colour_reversal_speed(strips[0], np.random.default_rng(settings.seed))
    made = tuple(stages for strip in strips if (stages := reversal_stages(strip)) is not None)
    return replace(no_analysis(settings, why, missing), reversal_speed=speed, stages=made)

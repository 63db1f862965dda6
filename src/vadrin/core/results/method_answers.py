"""What each method finds in the same readings, and the sentence that says why they differ."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from math import log2

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.curves import metrics
from vadrin.core.curves.detail import fractional_gradient_point
from vadrin.core.curves.shape import Curves
from vadrin.core.figure import Figure, absent
from vadrin.core.fitting.family import Family, figure_at_time
from vadrin.core.fitting.intervals import ratio_figure
from vadrin.core.results.criteria import ISO, ISO_TARGET, MEASURES, SCENE_RANGE, ZONE_VIII, Target
from vadrin.core.results.finding import FamilyEstimate, Finding, find
from vadrin.core.results.rating_method import (
    DATA_SHEET,
    METHODS,
    PRINT_QUALITY,
    SHADOW,
    STANDARD,
    RatingMethod,
)
from vadrin.core.results.strip_metrics import StripMetrics

SCENE_STOPS = 7.0


@dataclass(frozen=True)
class MethodAnswer:
    """One method's EI and time.

    Attributes
    ----------
    method : RatingMethod
    exposure_index, time_min : Figure
    sentence : str
        What it asks, and how far it lies from the shadow method.
    """

    method: RatingMethod
    exposure_index: Figure
    time_min: Figure
    sentence: str


_Reader = Callable[[Family, Array], Array]


def _apart(method: RatingMethod, index: Figure, shadow: Figure) -> str:
    if method is SHADOW or index.value is None or shadow.value is None:
        return method.asks
    stops = log2(index.value / shadow.value)
    if abs(stops) < 0.05:
        return f"{method.asks} Here the same as the shadow method."
    side = "faster" if stops > 0 else "slower"
    size = f"{abs(stops):.1f} stop{'s' if abs(stops) >= 1.05 else ''}"
    words = f"{method.asks} Here {size} {side} than the shadow method"
    if method is STANDARD:
        return f"{words}; two thirds of a stop of that comes from the definitions."
    return words + "."


def _figure_at(
    estimate: FamilyEstimate, minutes: float, drawn: Array | None, read: _Reader
) -> Figure:
    value = float(read(estimate.best, np.asarray(minutes)))
    cloud = None
    if estimate.drawn is not None and drawn is not None:
        cloud = read(estimate.drawn, drawn)
    return ratio_figure(value, cloud, estimate.freedom, "no such point on the curve at this time")


def _print_quality(family: Family, minutes: Array) -> Array:
    point = figure_at_time(family, fractional_gradient_point, minutes)
    return np.asarray(0.8 / 10.0 ** (point + 0.2956))


def _data_sheet(family: Family, minutes: Array) -> Array:
    def middle(curves: Curves) -> Array:
        _, start, end = metrics.gamma(curves, np.full(curves.toe.shape, 9.0))
        return np.asarray((start + end) / 2)

    return np.asarray(10.0 / 10.0 ** figure_at_time(family, middle, minutes))


def method_answers(estimate: FamilyEstimate, target: Target) -> tuple[MethodAnswer, ...]:
    """Every method's answer from the same family of curves.

    Parameters
    ----------
    estimate : FamilyEstimate
    target : Target
        The contrast the gradient method works to, unless it is a Zone VIII or ISO target.
    """
    found: dict[Target, tuple[Finding, Array | None]] = {}

    def at(wanted: Target) -> tuple[Finding, Array | None]:
        if wanted not in found:
            found[wanted] = find(estimate, wanted)
        return found[wanted]

    answers = []
    for method in METHODS.values():
        if not method.of_curves:
            continue
        finding, drawn = at(_contrast_of(method, target))
        answers.append((method, _index_of(method, estimate, finding, drawn), finding))
    shadow = at(_contrast_of(SHADOW, target))[0].zone_ei
    return tuple(
        MethodAnswer(method, index, finding.time_min, _apart(method, index, shadow))
        for method, index, finding in answers
    )


def _contrast_of(method: RatingMethod, target: Target) -> Target:
    """The contrast a method develops to: one of its own, or what the tester asks for."""
    if method.develops_to:
        measure = MEASURES[method.develops_to]
        return ISO_TARGET if measure is ISO else Target(measure.key, measure.usual)
    if target.kind in (ZONE_VIII.key, ISO.key):
        return Target(SCENE_RANGE.key, SCENE_STOPS)
    return target


def _index_of(
    method: RatingMethod, estimate: FamilyEstimate, finding: Finding, drawn: Array | None
) -> Figure:
    """The EI of a method: a figure of the finding it rates by, or a point read off the curves."""
    read = _READ_OFF.get(method.key)
    if read is None:
        index: Figure = getattr(finding, method.rates_by or "zone_ei")
        return index
    if finding.time_min.value is None:
        return absent(finding.time_min.why)
    return _figure_at(estimate, finding.time_min.value, drawn, read)


_READ_OFF: dict[str, _Reader] = {PRINT_QUALITY.key: _print_quality, DATA_SHEET.key: _data_sheet}
"""Points on the curve that methods go by and that are no metric of a strip."""


def match_ei(strip: StripMetrics, reference: StripMetrics, reference_ei: float) -> Figure:
    """The EI at which a stock's Zone I density equals the reference stock's (match method).

    Parameters
    ----------
    strip, reference : StripMetrics
        Both of the same process.
    reference_ei : float
        EI the reference is shot at.
    """
    if strip.zone_ei.value is None or reference.zone_ei.value is None:
        return absent(strip.zone_ei.why or reference.zone_ei.why)
    ratio = reference_ei / reference.zone_ei.value
    value = strip.zone_ei.value * ratio
    if strip.zone_ei.low is None or strip.zone_ei.high is None:
        return Figure(value)
    return Figure(value, strip.zone_ei.low * ratio, strip.zone_ei.high * ratio)

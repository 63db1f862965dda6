"""What each school finds in the same readings, and the sentence that says why they differ."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from math import log2

import numpy as np

from vadrin.core.curves import metrics
from vadrin.core.curves.detail import fractional_gradient_point
from vadrin.core.curves.shape import Array, Curves
from vadrin.core.curves.strip_metrics import StripMetrics
from vadrin.core.figure import Figure, absent
from vadrin.core.fitting.family import Family, Target, figure_at_time
from vadrin.core.fitting.intervals import ratio_figure
from vadrin.core.results.finding import FamilyEstimate, Finding, find

ZONE_VIII = 1.30
SCENE_STOPS = 7.0


@dataclass(frozen=True)
class SchoolAnswer:
    """One school's EI and time.

    Attributes
    ----------
    key : str
        ``shadow``, ``standard``, ``gradient``, ``print quality`` or ``data sheet``.
    exposure_index, time_min : Figure
    sentence : str
        What it asks, and how far it lies from the shadow school.
    """

    key: str
    exposure_index: Figure
    time_min: Figure
    sentence: str


_Reader = Callable[[Family, Array], Array]

_ASKS = {
    "shadow": "Four stops under the meter must just show, and seven above that must print.",
    "standard": "One fixed contrast, so that stocks can be compared with each other and the box.",
    "gradient": "This scene range must fit that paper, and the shadow must show at that time.",
    "print quality": "The shadow needs slope enough to be told apart, whatever its density.",
    "data sheet": "The middle of the straight line carries the mid-tone: EI = 10 / H there.",
}


def _apart(key: str, index: Figure, shadow: Figure) -> str:
    if key == "shadow" or index.value is None or shadow.value is None:
        return _ASKS[key]
    stops = log2(index.value / shadow.value)
    if abs(stops) < 0.05:
        return f"{_ASKS[key]} Here the same as the shadow school."
    side = "faster" if stops > 0 else "slower"
    words = f"{_ASKS[key]} Here {abs(stops):.1f} stop {side} than the shadow school"
    if key == "standard":
        return f"{words}; two thirds of a stop of that are in the definitions, not in the film."
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


def school_answers(estimate: FamilyEstimate, target: Target) -> tuple[SchoolAnswer, ...]:
    """Every school's answer from the same family of curves.

    Parameters
    ----------
    sample : Sample
    target : Target
        The contrast the gradient school works to, unless it is a Zone VIII or ISO target.
    """
    gradient_target = target
    if target.kind in ("zone8", "iso"):
        gradient_target = Target("scene", SCENE_STOPS)
    shadow, _ = find(estimate, Target("zone8", ZONE_VIII))
    standard, _ = find(estimate, Target("iso", metrics.ISO_DELTA_D))
    gradient, drawn = find(estimate, gradient_target)
    answers: list[tuple[str, Figure, Finding]] = [
        ("shadow", shadow.zone_ei, shadow),
        ("standard", standard.speed, standard),
        ("gradient", gradient.zone_ei, gradient),
    ]
    for key, read in (("print quality", _print_quality), ("data sheet", _data_sheet)):
        index = absent(gradient.time_min.why)
        if gradient.time_min.value is not None:
            index = _figure_at(estimate, gradient.time_min.value, drawn, read)
        answers.append((key, index, gradient))
    return tuple(
        SchoolAnswer(key, index, found.time_min, _apart(key, index, shadow.zone_ei))
        for key, index, found in answers
    )


def match_ei(strip: StripMetrics, reference: StripMetrics, reference_ei: float) -> Figure:
    """The EI at which a stock's Zone I density equals the reference stock's (match school).

    Parameters
    ----------
    strip, reference : StripFigures
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

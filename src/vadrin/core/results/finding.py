"""The finding: the development time for a wanted contrast, and the EI at that time."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.curves import metrics
from vadrin.core.figure import Basis, Figure, absent
from vadrin.core.fitting.family import Family, at_time, time_reaching
from vadrin.core.fitting.intervals import ratio_figure
from vadrin.core.process.minutes import minutes_brief
from vadrin.core.results.criteria import Target
from vadrin.core.results.one_strip_rule import one_strip_minutes

ONE_STRIP = "one strip cannot show other times"
ONE_TIME = "all strips had one time, which cannot show others"
_SLACK = 0.03
"""Lg units by which an answer may lie past the readings."""

_MET = 1e-9
"""Share of a time by which it may lie past one that was tested and still be that one."""

NO_RULE = absent("measured times are at hand")


@dataclass(frozen=True)
class Finding:
    """Time and EI for one target.

    Attributes
    ----------
    target : Target
    time_min, zone_ei, speed : Figure
        At the reference temperature. Absent where the target was not tested.
    tested : bool
        Whether the target lies inside the tested times.
    nearest_tested_min : float or None
        The bound, where it does not.
    rule_of_thumb_min : Figure
        Hearsay for a single strip.
    """

    target: Target
    time_min: Figure
    zone_ei: Figure
    speed: Figure
    tested: bool
    nearest_tested_min: float | None = None
    rule_of_thumb_min: Figure = NO_RULE


@dataclass(frozen=True)
class FamilyEstimate:
    """A family of the best fit beside that of draws, and what bounds both.

    Attributes
    ----------
    best : Family
        Batch shape ().
    drawn : Family or None
        Batch shape (B,).
    shortest, longest : float
        Tested times in minutes.
    thinnest, densest : float
        Lg exposures between which the strips were read.
    freedom : float
    """

    best: Family
    drawn: Family | None
    shortest: float
    longest: float
    thinnest: float
    densest: float
    freedom: float

    def not_tested(self, minutes: float) -> tuple[str, float] | None:
        """The reason and the bound where a time lies outside the tested ones."""
        if minutes < self.shortest * (1 - _MET):
            bound = minutes_brief(self.shortest)
            return f"not tested: shorter than {bound} min; run a strip for less", self.shortest
        if minutes > self.longest * (1 + _MET):
            bound = minutes_brief(self.longest)
            return f"not tested: longer than {bound} min; run a strip for more", self.longest
        return None

    def figure_at(self, of: str, minutes: float, drawn_minutes: Array | None) -> Figure:
        """A rising or falling quantity of the family at a time, as a ratio figure."""

        def read(family: Family, at: Array) -> Array:
            x_m = at_time(family, family.x_m, at)
            if of == "zone_ei":
                return metrics.zone_ei(x_m, family.meter_constant)
            return metrics.arithmetic_speed(x_m)

        value = float(read(self.best, np.asarray(minutes)))
        cloud = None
        if self.drawn is not None and drawn_minutes is not None:
            cloud = read(self.drawn, drawn_minutes)
        return ratio_figure(value, cloud, self.freedom, "no speed point at this time")


def times_for(estimate: FamilyEstimate, target: Target) -> tuple[float, Array | None]:
    """Time for a target on the best family, and on every draw."""
    if target.measure.given:
        many = None if estimate.drawn is None else estimate.drawn.x_m.shape[:-1]
        return target.value, None if many is None else np.full(many, target.value)
    contrast, wanted = target.contrast(estimate.best)
    best = float(time_reaching(estimate.best, contrast, wanted))
    if estimate.drawn is None:
        return best, None
    contrast, wanted = target.contrast(estimate.drawn)
    drawn = time_reaching(estimate.drawn, contrast, wanted)
    return best, np.clip(drawn, estimate.drawn.times[0], estimate.drawn.times[-1])


def find(estimate: FamilyEstimate, target: Target) -> tuple[Finding, Array | None]:
    """The finding for a target, and the time on every draw.

    Returns
    -------
    finding : Finding
    drawn_minutes : ndarray, shape (B,), or None
    """
    best, drawn = times_for(estimate, target)
    outside = estimate.not_tested(best)
    if outside:
        gap = absent(outside[0])
        return Finding(target, gap, gap, gap, False, outside[1]), None
    speed_point = float(at_time(estimate.best, estimate.best.x_m, np.asarray(best)))
    if speed_point < estimate.thinnest - _SLACK:
        gap = absent("every exposed frame is denser than the speed point: give less exposure")
        return Finding(target, gap, gap, gap, False), None
    if speed_point + target.span > estimate.densest + _SLACK:
        gap = absent("the readings end before the density this target is judged at")
        return Finding(target, gap, gap, gap, False), None
    told = target.measure.given
    time = Figure(best) if told else ratio_figure(best, drawn, estimate.freedom, "")
    zone = estimate.figure_at("zone_ei", best, drawn)
    speed = estimate.figure_at("speed", best, drawn)
    return Finding(target, time, zone, speed, True), drawn


def finding_of_one_strip(
    target: Target, contrast: Figure, minutes: float | None, wanted: float, why: str = ONE_STRIP
) -> Finding:
    """The finding where only one development was tried: a rule of thumb at most."""
    gap = absent(why)
    rule = absent("the contrast of the strip is not known")
    if contrast.value and contrast.value > 0 and minutes:
        guess = one_strip_minutes(minutes, contrast.value, wanted)
        rule = Figure(guess, basis=Basis.RULE)
    return Finding(target, gap, gap, gap, False, minutes, rule)

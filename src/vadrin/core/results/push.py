"""Times for pushed and pulled exposure, and what each costs in shadow."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.exposure.arithmetic import STOP
from vadrin.core.figure import Basis, Figure, absent
from vadrin.core.fitting.family import Family, at_time, time_reaching
from vadrin.core.fitting.intervals import linear_figure, ratio_figure
from vadrin.core.results.criteria import Target
from vadrin.core.results.finding import FamilyEstimate, Finding, times_for
from vadrin.core.results.hold_rule import HoldRule

FULL, THIN, SALVAGE = 1 / 3, 1.0, 2.0
"""Stops of shadow lost up to which a push keeps each verdict."""


class ShadowVerdict(StrEnum):
    """What a loss of shadow means for the picture, in words."""

    FULL = "full shadow"
    THIN = "thin"
    SALVAGE = "salvage"
    NOTHING = "nothing there"

    @property
    def grave(self) -> bool:
        """Whether it is more than thin."""
        return self in (ShadowVerdict.SALVAGE, ShadowVerdict.NOTHING)


@dataclass(frozen=True)
class PushRow:
    """One rule's answer for one push or pull.

    Attributes
    ----------
    time_min : Figure
        Minutes at the reference temperature.
    shadow_loss_stops : Figure
    average_gradient : Figure
    tested : bool
        Whether the time lies inside those tested.
    nearest_tested_min : float or None
    basis : Basis
        Measured, or a rule that knows nothing of these readings.
    """

    time_min: Figure
    shadow_loss_stops: Figure
    average_gradient: Figure
    tested: bool
    nearest_tested_min: float | None = None
    basis: Basis = Basis.MEASURED


@dataclass(frozen=True)
class RulesOfThumb:
    """Rules for a push that were not measured here.

    Attributes
    ----------
    share : float
        Part of the normal time added for each stop.
    makers : tuple of (float, float)
        Stops and minutes of a maker's table, at the reference temperature.
    scene_stops : float
        Scene range whose contrast the contrast-holding rule keeps.
    """

    share: float = 0.3
    makers: tuple[tuple[float, float], ...] = ()
    scene_stops: float = 7.0


@dataclass(frozen=True)
class Push:
    """All rules for one number of stops pushed (plus) or pulled (minus)."""

    stops: float
    exposure_index: Figure
    hold_midtone: PushRow
    hold_highlight: PushRow
    hold_contrast: PushRow
    makers_table: PushRow
    fixed_share: PushRow

    def by(self, rule: HoldRule) -> PushRow:
        """The row of one measured rule."""
        return self.hold_highlight if rule is HoldRule.HIGHLIGHT else self.hold_midtone


def shadow_verdict(shadow_loss_stops: float) -> ShadowVerdict:
    """Judge a loss of shadow by what it does to the picture."""
    if shadow_loss_stops <= FULL:
        return ShadowVerdict.FULL
    if shadow_loss_stops <= THIN:
        return ShadowVerdict.THIN
    return ShadowVerdict.SALVAGE if shadow_loss_stops <= SALVAGE else ShadowVerdict.NOTHING


def _held_time(
    family: Family, ln_normal: Array, minutes: Array, stops: float, above: float
) -> Array:
    """Time at which the held density returns after a change of EI."""
    meter = (np.log(family.meter_constant) - ln_normal) / np.log(10)
    normal = at_time(family, family.density_at(meter + above * STOP), minutes)
    return time_reaching(family, family.density_at(meter + (above - stops) * STOP), normal)


def _absent_row(why: str, bound: float | None = None) -> PushRow:
    gap = absent(why)
    return PushRow(gap, gap, gap, False, bound)


def held_answers(
    family: Family, minutes: Array, stops: float, above: float, rated: float
) -> tuple[Array, Array, Array]:
    """Time, shadow loss and average gradient of a held push, each of batch shape."""
    ln_normal = at_time(family, family.ln_zone_ei, minutes) + rated * np.log(2)
    time = _held_time(family, ln_normal, minutes, stops, above)
    on_ladder = np.clip(time, family.times[0], family.times[-1])
    ln_there = at_time(family, family.ln_zone_ei, on_ladder)
    loss = stops + (ln_normal - ln_there) / np.log(2)
    return time, loss, at_time(family, family.gradient, on_ladder)


def _row(
    estimate: FamilyEstimate,
    minutes: float,
    drawn_minutes: Array | None,
    stops: float,
    above: float,
    rated: float,
) -> PushRow:
    time, loss, gradient = held_answers(estimate.best, np.asarray(minutes), stops, above, rated)
    if stops == 0:
        time = np.asarray(minutes)
    outside = estimate.not_tested(float(time))
    if outside:
        return _absent_row(*outside)
    cloud: tuple[Array, Array, Array] | tuple[None, None, None] = (None, None, None)
    if estimate.drawn is not None and drawn_minutes is not None:
        times, losses, gradients = held_answers(estimate.drawn, drawn_minutes, stops, above, rated)
        time_grid = estimate.drawn.times
        cloud = np.clip(times, time_grid[0], time_grid[-1]), losses, gradients
    if stops == 0:
        # Nothing is moved: what is lost is what the method rates above the Zone I EI, and sure.
        lost = Figure(rated, rated, rated)
        there = float(at_time(estimate.best, estimate.best.gradient, np.asarray(minutes)))
        return PushRow(
            ratio_figure(minutes, drawn_minutes, estimate.freedom, ""),
            lost,
            linear_figure(there, cloud[2], estimate.freedom, ""),
            True,
        )
    return PushRow(
        ratio_figure(float(time), cloud[0], estimate.freedom, ""),
        linear_figure(float(loss), cloud[1], estimate.freedom, ""),
        linear_figure(float(gradient), cloud[2], estimate.freedom, ""),
        True,
    )


def _at_time(
    estimate: FamilyEstimate,
    normal: float,
    minutes: float,
    stops: float,
    rated: float,
    basis: Basis,
) -> PushRow:
    """The row of a rule that names its time: what that time does to this film."""
    named = Figure(minutes, basis=basis)
    outside = estimate.not_tested(minutes)
    if outside:
        gap = absent(outside[0])
        return PushRow(named, gap, gap, False, outside[1], basis)
    family, at = estimate.best, np.asarray(minutes)
    gain = at_time(family, family.ln_zone_ei, at)
    gain = gain - at_time(family, family.ln_zone_ei, np.asarray(normal))
    loss = Figure(stops + rated - float(gain) / float(np.log(2)), basis=basis)
    gradient = Figure(float(at_time(family, family.gradient, at)), basis=basis)
    return PushRow(named, loss, gradient, True, basis=basis)


def _other_rules(
    estimate: FamilyEstimate, normal: float, stops: float, rated: float, rules: RulesOfThumb
) -> dict[str, PushRow]:
    scene, _ = times_for(estimate, Target("scene", rules.scene_stops))
    outside = estimate.not_tested(scene)
    if outside:
        contrast = _absent_row(*outside)
    else:
        contrast = _at_time(estimate, normal, scene, stops, rated, Basis.MEASURED)
    shared = normal * (1 + rules.share) ** stops
    minutes = dict(rules.makers).get(stops)
    makers = _absent_row("no maker's table was given for this push")
    if minutes is not None:
        makers = _at_time(estimate, normal, minutes, stops, rated, Basis.RULE)
    return {
        "hold_contrast": contrast,
        "makers_table": makers,
        "fixed_share": _at_time(estimate, normal, shared, stops, rated, Basis.RULE),
    }


USUAL_RULES = RulesOfThumb()


def pushes_of(
    estimate: FamilyEstimate,
    finding: Finding,
    drawn_minutes: Array | None,
    pushes: tuple[float, ...],
    rated: float = 0.0,
    rules: RulesOfThumb = USUAL_RULES,
) -> tuple[Push, ...]:
    """Answer every push and pull by every rule.

    Parameters
    ----------
    estimate : FamilyEstimate
    finding : Finding
        The normal: its time, and its Zone I EI raised by `rated`.
    drawn_minutes : ndarray, shape (B,), or None
        The normal time on every draw.
    pushes : tuple of float
        Stops; plus is a push.
    rated : float
        Stops by which the normal EI lies above the Zone I EI, as the method has it.
    rules : RulesOfThumb
        The rules that are not measured.
    """
    if finding.time_min.value is None or finding.zone_ei.value is None:
        return unanswered(pushes, finding.time_min.why)
    normal = finding.time_min.value
    table = []
    for stops in pushes:
        rows = {
            rule.value: _row(estimate, normal, drawn_minutes, stops, rule.stops_above_meter, rated)
            for rule in HoldRule
        }
        rows |= _other_rules(estimate, normal, stops, rated, rules)
        table.append(Push(stops, shifted(finding.zone_ei, stops + rated), **rows))
    return tuple(table)


def shifted(index: Figure, stops: float) -> Figure:
    """An EI with its range, some stops higher."""
    factor = 2.0**stops
    value, low, high = (
        None if v is None else v * factor for v in (index.value, index.low, index.high)
    )
    return Figure(value, low, high)


def unanswered(pushes: tuple[float, ...], why: str) -> tuple[Push, ...]:
    """A push table with every row absent for one reason."""
    row = _absent_row(why)
    return tuple(Push(stops, absent(why), row, row, row, row, row) for stops in pushes)


def midtone_time(estimate: FamilyEstimate, minutes: float, stops: float) -> Figure:
    """Minutes that hold the mid-tone in a push, from the best fit alone."""
    return _row(estimate, minutes, None, stops, HoldRule.MIDTONE.stops_above_meter, 0.0).time_min

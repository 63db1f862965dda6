"""How far a film can be pushed, what one development holds, and what a wrong setting was."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from vadrin.core.figure import Basis, Figure, absent
from vadrin.core.results.finding import FamilyEstimate, Finding
from vadrin.core.results.hold_rule import HIGHLIGHT_STOPS
from vadrin.core.results.push import SALVAGE, THIN, held_answers, shifted
from vadrin.core.results.strip_metrics import StripMetrics


@dataclass(frozen=True)
class PushLimits:
    """How far a film can be pushed, holding the highlight.

    Attributes
    ----------
    last_usable, last_salvageable : Figure
        Stops of push up to which the shadow is no worse than thin, and than salvage.
    """

    last_usable: Figure
    last_salvageable: Figure


def push_limits(estimate: FamilyEstimate, finding: Finding, rated: float = 0.0) -> PushLimits:
    """Find the last usable and the last salvageable push inside the tested times."""
    if finding.time_min.value is None:
        return PushLimits(absent(finding.time_min.why), absent(finding.time_min.why))
    normal = np.asarray(finding.time_min.value)
    time_grid = [n / 6 for n in range(25)]
    losses, tested = [], []
    for stops in time_grid:
        time, loss, _ = held_answers(estimate.best, normal, float(stops), HIGHLIGHT_STOPS, rated)
        tested.append(stops == 0 or estimate.not_tested(float(time)) is None)
        losses.append(float(loss))

    def last(limit: float) -> Figure:
        within = [
            s for s, a, ok in zip(time_grid, losses, tested, strict=True) if ok and a <= limit
        ]
        if not within:
            return absent("even the normal exposure loses more than this")
        reach = float(within[-1])
        following = time_grid.index(within[-1]) + 1
        if following == len(time_grid) or not tested[following]:
            return Figure(reach, basis=Basis.EXTRAPOLATED, why="the tested times end here")
        return Figure(reach)

    return PushLimits(last(THIN), last(SALVAGE))


@dataclass(frozen=True)
class HeldRange:
    """EIs one development holds, for a roll that carries several.

    Attributes
    ----------
    highest, lowest : Figure
        EI at which the shadow is still no worse than thin, and EI at which the highlight
        three stops over the meter still lies under the shoulder.
    """

    highest: Figure
    lowest: Figure


def held_range(strip: StripMetrics) -> HeldRange:
    """The range of EIs that one strip's development holds."""
    lowest = absent(strip.shoulder_stops.why or strip.zone_ei.why)
    if strip.zone_ei.value is None:
        return HeldRange(absent(strip.zone_ei.why), lowest)
    if strip.shoulder_stops.value is not None:
        spare = strip.shoulder_stops.value - HIGHLIGHT_STOPS
        lowest = shifted(strip.zone_ei, -max(spare, 0.0))
    return HeldRange(shifted(strip.zone_ei, THIN), lowest)

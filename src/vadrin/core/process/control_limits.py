"""Whether a process is where it was: control strips over runs, with limits.

Limits are those usual for control strips until there are enough reference runs to tell the
process's own scatter; then three standard deviations of it. A level that a run of strips keeps
to one side of counts as a drift (the run rule of control charts: Western Electric, 1956).
"""

from __future__ import annotations

import statistics
from dataclasses import dataclass
from enum import StrEnum

_ENOUGH = 5
_DRIFT = 6
_SIGMAS = 3.0


class ControlFigure(StrEnum):
    """What is charted of a control strip."""

    LOW = "low density"
    CONTRAST = "contrast step"
    FOG = "base plus fog"


_USUAL_LIMIT = {ControlFigure.LOW: 0.06, ControlFigure.CONTRAST: 0.08, ControlFigure.FOG: 0.03}
_LEAST_LIMIT = 0.02
"""Nothing narrower than readings are worth."""


class Control(StrEnum):
    """How a run stands."""

    REFERENCE = "reference"
    IN = "in control"
    DRIFTS = "drifting"
    OUT = "outside limits"


@dataclass(frozen=True)
class ControlReading:
    """Densities of one control strip: its blank, a thin patch and a dense one.

    Attributes
    ----------
    name : str
    fog, low, high : float
    reference : bool
        Whether it says where the process should be.
    """

    name: str
    fog: float
    low: float
    high: float
    reference: bool = False

    def of(self, figure: ControlFigure) -> float:
        """One charted figure: the thin patch over the fog, the step to the dense one, the fog."""
        if figure is ControlFigure.FOG:
            return self.fog
        return self.high - self.low if figure is ControlFigure.CONTRAST else self.low - self.fog


@dataclass(frozen=True)
class ControlLane:
    """One figure over all runs.

    Attributes
    ----------
    figure : ControlFigure
    aim, limit : float
        Where it should be, and how far it may stray.
    own_limit : bool
        Whether the limit is from the process's own scatter.
    values : tuple of float
        Of each run.
    standing : tuple of Control
    """

    figure: ControlFigure
    aim: float
    limit: float
    own_limit: bool
    values: tuple[float, ...]
    standing: tuple[Control, ...]


def _standing(strip: ControlReading, off: list[float], limit: float) -> Control:
    """How a run stands, by the distances from the aim up to and with its own."""
    if abs(off[-1]) > limit + 1e-9:
        return Control.OUT
    if strip.reference:
        return Control.REFERENCE
    last = off[-_DRIFT:]
    one_side = len(last) == _DRIFT and (min(last) > 1e-9 or max(last) < -1e-9)
    return Control.DRIFTS if one_side else Control.IN


def _lane(figure: ControlFigure, strips: tuple[ControlReading, ...]) -> ControlLane:
    known = [s.of(figure) for s in strips if s.reference] or [strips[0].of(figure)]
    aim, limit = statistics.fmean(known), _USUAL_LIMIT[figure]
    own = len(known) >= _ENOUGH
    if own:
        limit = max(_LEAST_LIMIT, _SIGMAS * statistics.stdev(known))
    values = tuple(s.of(figure) for s in strips)
    standing = tuple(
        _standing(strip, [v - aim for v in values[: place + 1]], limit)
        for place, strip in enumerate(strips)
    )
    return ControlLane(figure, aim, limit, own, values, standing)


def control_chart(strips: tuple[ControlReading, ...]) -> tuple[ControlLane, ...]:
    """Every figure over all runs, in their order; empty where there is no strip.

    Parameters
    ----------
    strips : tuple of ControlReading
        In the order they were run. Where none is a reference, the first is.
    """
    return tuple(_lane(figure, strips) for figure in ControlFigure) if strips else ()


def likely_causes(low: float, contrast: float, fog: float) -> tuple[str, ...]:
    """What usually moves a strip so, by its distances from the aim in units of the limits.

    Parameters
    ----------
    low, contrast, fog : float
        Distance over limit; beyond 1 is out of control.
    """
    causes = []
    if contrast > 1 or (low > 1 and contrast > 0):
        causes.append("too warm, too long, too strong a developer, or more agitation")
    if contrast < -1 or (low < -1 and contrast < 0):
        causes.append("too cold, too short, a spent or weak developer, or less agitation")
    if fog > 1:
        causes.append("fog: light, heat, an old batch, or a developer with too little restrainer")
    if fog < -1 and not causes:
        causes.append("another batch of strips, or another zero of the densitometer")
    return tuple(causes)

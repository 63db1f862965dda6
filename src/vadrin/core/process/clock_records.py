"""What a darkroom clock is told, and what it says: steps, events, acts that are due."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

from vadrin.core.process.agitation import STAND, Agitation


class RunEventType(StrEnum):
    """What may happen in a run."""

    START = "start"
    NEXT = "next step"
    PAUSE = "pause"
    RESUME = "go on"
    TEMPERATURE = "temperature"
    PULL = "pull"
    STOP = "stop"


@dataclass(frozen=True)
class ClockEvent:
    """One thing that happened, `at` in seconds of a clock that never jumps."""

    at: float
    what: RunEventType
    value: float | None = None
    strip: str = ""


@dataclass(frozen=True)
class StripTime:
    """A strip that leaves the developer once it had so many seconds at the reference."""

    strip: str
    seconds: float


@dataclass(frozen=True)
class ClockStep:
    """One step of a run.

    Attributes
    ----------
    name : str
    seconds : float
        At the reference temperature.
    agitation : Agitation
    pulls : tuple of StripTime
        Strips that leave during it; only development has them.
    develops : bool
        Whether its length follows the temperature.
    may_pause : bool
        Whether the chemistry lets it wait.
    """

    name: str
    seconds: float
    agitation: Agitation = STAND
    pulls: tuple[StripTime, ...] = ()
    develops: bool = False
    may_pause: bool = False


class DueActionKind(StrEnum):
    """What the hands do."""

    AGITATE = "agitate"
    REST = "let it stand"
    PULL = "pull"
    NEXT = "next"
    DONE = "done"


@dataclass(frozen=True)
class DueAction:
    """One act, in seconds from the beginning of its step."""

    at: float
    kind: DueActionKind
    strip: str = ""


@dataclass(frozen=True)
class ClockState:
    """What a clock shows at one moment.

    Attributes
    ----------
    step : int
        Index of the step; as many as there are where all is done.
    elapsed_s, left_s : float
        Of this step; `left_s` below 0 where it is overdue.
    running, paused, stopped : bool
    moving : bool
        Whether the tank is being agitated now.
    coming : tuple of DueAction
        What is still to do in this step, in order.
    """

    step: int
    elapsed_s: float
    left_s: float
    running: bool
    paused: bool
    stopped: bool
    moving: bool
    coming: tuple[DueAction, ...]


@dataclass(frozen=True)
class Development:
    """What one strip got: real minutes, and the minutes they were worth at the reference."""

    strip: str
    minutes: float
    restated_min: float

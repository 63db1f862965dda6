"""What an eye is asked at a light box, and what it answered."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from typing import NamedTuple

from vadrin.core.figure import Figure


class EyeVerdict(StrEnum):
    """What an eye says of a frame beside a blank one."""

    YES = "yes"
    NO = "no"
    UNSURE = "can't tell"


class Viewing(StrEnum):
    """How frames are looked at."""

    SIDE_BY_SIDE = "side by side on the light box"
    LOUPE = "with a loupe, apart"

    @property
    def threshold(self) -> tuple[float, float]:
        """Net density first told from the blank, and how it differs between people."""
        return (0.045, 0.012) if self is Viewing.SIDE_BY_SIDE else (0.07, 0.02)


@dataclass(frozen=True)
class SeenFrame:
    """What was said of one frame; `log_h` is None for a blank shown as a check.

    `threshold` is the net density that this eye tells, looking so, and its standard deviation;
    None for that of the box.
    """

    log_h: float | None
    told: EyeVerdict
    threshold: tuple[float, float] | None = None


@dataclass(frozen=True)
class LightBoxResult:
    """What all answers come to.

    Attributes
    ----------
    zone_ei : Figure
        Absent where the bracket does not hold the point.
    false_alarms : int
        Blanks that were told from the blank.
    doubted : float or None
        Lg exposure of the frame whose answer goes least with all the others; None where they
        agree.
    """

    zone_ei: Figure
    false_alarms: int
    doubted: float | None = None


class Looks(NamedTuple):
    """How many looks are asked for.

    Attributes
    ----------
    a_side : int
        That each side of the point is to be told by.
    to_tell : int
        That narrow the range; what is left confirms each side.
    most : int
    """

    a_side: int = 3
    to_tell: int = 6
    most: int = 8


USUAL_LOOKS = Looks()
"""Where a look costs a moment."""
LOOKS_OF_A_KNOWN_EYE = Looks(2, 6, 7)
"""The same of an eye whose threshold was found before."""
PRINTS = Looks(a_side=2)
"""Where a look costs a print."""

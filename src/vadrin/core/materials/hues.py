"""Colours as an eye names them, and how far one turned from another, in L*a*b*."""

from __future__ import annotations

from dataclasses import dataclass
from math import atan2, degrees, hypot

_NAMES = (
    (20.0, "pink-red"),
    (50.0, "red"),
    (75.0, "orange"),
    (105.0, "yellow"),
    (135.0, "yellow-green"),
    (190.0, "green"),
    (230.0, "blue-green"),
    (300.0, "blue"),
    (325.0, "violet"),
    (345.0, "purple"),
    (360.0, "pink-red"),
)
"""Hue angles up to which a name holds."""
_GREY = 6.0
"""Chroma under which no eye names a hue."""


@dataclass(frozen=True)
class Lab:
    """A colour in CIE L*a*b* under D50."""

    lightness: float
    a: float
    b: float

    @property
    def chroma(self) -> float:
        """How far it lies from grey."""
        return hypot(self.a, self.b)

    @property
    def hue(self) -> float:
        """Hue angle in degrees, 0 to 360."""
        return degrees(atan2(self.b, self.a)) % 360.0

    @property
    def grey(self) -> bool:
        """Whether no eye would name a hue of it."""
        return self.chroma < _GREY

    @property
    def name(self) -> str:
        """What an eye would call it."""
        if self.grey:
            return "grey"
        return next(name for most, name in _NAMES if self.hue <= most)


def hue_turned(before: Lab, after: Lab) -> float | None:
    """Degrees by which a hue turned, −180 to 180; None where one of them is grey."""
    if before.grey or after.grey:
        return None
    return (after.hue - before.hue + 180.0) % 360.0 - 180.0


def chroma_kept(before: Lab, after: Lab) -> float | None:
    """Share of chroma that is left; None of a grey."""
    return None if before.grey else after.chroma / before.chroma

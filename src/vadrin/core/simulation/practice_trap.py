"""What goes wrong in practice, each once: something the program can catch, or a careful tester."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum


class TrapKind(StrEnum):
    """What kind of thing goes wrong."""

    LIGHT = "light"
    SHUTTER = "shutter"
    BATH = "bath"
    LATE = "late"
    SHORT = "short"
    MISREAD = "misread"
    LABELS = "labels"
    METER = "meter"
    COUNTER = "counter"
    BOTTLE = "bottle"
    AGITATION = "agitation"


OF_ALL = frozenset({TrapKind.LIGHT, TrapKind.METER, TrapKind.BOTTLE})
"""What happens to every strip."""
OF_PAPER = frozenset({TrapKind.LIGHT, TrapKind.MISREAD})
"""What may happen to steps of paper; the light is the enlarger's."""
OF_CLIPS = frozenset(
    {TrapKind.BATH, TrapKind.LATE, TrapKind.LABELS, TrapKind.MISREAD, TrapKind.AGITATION}
)
"""What may happen to clips, which no camera exposes."""
CAUGHT_BY: dict[TrapKind, frozenset[str]] = {
    TrapKind.LIGHT: frozenset({"light moved"}),
    TrapKind.SHUTTER: frozenset({"misread", "thin frames"}),
    TrapKind.BATH: frozenset({"off the family"}),
    TrapKind.LATE: frozenset({"off the family"}),
    TrapKind.MISREAD: frozenset({"misread", "off the family"}),
    TrapKind.LABELS: frozenset({"off the family"}),
    TrapKind.COUNTER: frozenset({"misread", "thin frames", "off the family"}),
    TrapKind.BOTTLE: frozenset({"off the family"}),
    TrapKind.AGITATION: frozenset({"off the family"}),
}
"""Keys of the diagnostics that speak of it; a strip cut short shows by itself, a meter that is off
by none of its readings."""
WORDS_FOR: dict[TrapKind, str] = {
    TrapKind.LIGHT: r"light|bright|dark|sun|cloud",
    TrapKind.SHUTTER: r"shutter|fire|no light|blank|misfire|unexposed",
    TrapKind.BATH: r"bath|temperature|warm|cold|thermometer|°",
    TrapKind.LATE: r"late|long|pull|time|taken out",
    TrapKind.SHORT: r"short|cut|missing|end of",
    TrapKind.MISREAD: r"misread|reading|read ",
    TrapKind.LABELS: r"label|swap|mixed|exchang",
    TrapKind.METER: r"\bmeter|light ?meter",
    TrapKind.COUNTER: r"counter|skip|\bwound\b|\bwind\b|slip",
    TrapKind.BOTTLE: r"bottle|exhaust|weak|spent|\bold\b",
    TrapKind.AGITATION: r"agitat|invers|invert|shak|stood still",
}
"""What somebody who noticed it would write, as a pattern."""


@dataclass(frozen=True)
class Trap:
    """One thing that goes wrong.

    Attributes
    ----------
    kind : TrapKind
    strip : int
        Counted from 0, modulo the strips there are.
    along : float
        Where among the frames of its strip that had light: 0 the first, 1 the last.
    amount : float
        In stops, degrees Celsius, minutes, frames or density, by its kind.
    """

    kind: TrapKind
    strip: int = 0
    along: float = 0.5
    amount: float = 0.0

    def strip_of(self, count: int) -> int:
        """The strip it happens to, of so many."""
        return self.strip % max(count, 1)

    def frame_of(self, exposed: int) -> int:
        """The frame it happens to, of so many that had light."""
        return min(int(self.along * exposed), max(exposed - 1, 0))

    def words(self, label: str, frame: str = "") -> str:
        """What happened, for the envelope.

        Parameters
        ----------
        label : str
            Of its strip.
        frame : str
            As it is called on the film, where one is meant.
        """
        more = self.amount > 0
        return {
            TrapKind.LIGHT: f"the light got {abs(self.amount):.2f} stop "
            f"{'brighter' if more else 'darker'} over each strip",
            TrapKind.SHUTTER: f"the shutter did not open at {frame} of strip {label}",
            TrapKind.BATH: f"the bath of strip {label} was {abs(self.amount):.1f} °C "
            f"{'warmer' if more else 'colder'} than noted",
            TrapKind.LATE: f"strip {label} was taken out {60 * self.amount:.0f} s later than noted",
            TrapKind.SHORT: f"the last {self.amount:.0f} frames of strip {label} were cut off",
            TrapKind.MISREAD: f"{frame} of strip {label} read {self.amount:.2f} too dense "
            "the first time",
            TrapKind.LABELS: f"the labels of strip {label} and the next one were swapped",
            TrapKind.METER: f"the meter gave {abs(self.amount):.2f} stop "
            f"{'more' if more else 'less'} light than it said",
            TrapKind.COUNTER: f"the counter of strip {label} slipped: {frame} stayed blank, and "
            "every frame after it got the exposure of the one before",
            TrapKind.BOTTLE: f"the developer got {100 * self.amount:.0f} % weaker with each strip",
            TrapKind.AGITATION: f"strip {label} was agitated less than noted, and came as far as "
            f"in {100 * self.amount:.0f} % less time",
        }[self.kind]

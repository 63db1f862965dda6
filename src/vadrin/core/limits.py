"""What no film, light or lens goes beyond: one limit each, in one sentence each."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Limit:
    """The least and the greatest value somebody may enter.

    Attributes
    ----------
    what : str
        With its article.
    low, high : float
    example : str
    """

    what: str
    low: float
    high: float
    example: str

    @property
    def sentence(self) -> str:
        """What to enter, wherever a value beyond it is refused."""
        return f"enter {self.what} from {self.low:g} to {self.high:.12g} (example: {self.example})"


EXPOSURE_INDEX = Limit("an EI", 0.1, 100_000.0, "400")
DENSITY = Limit("a density", 0.0, 6.0, "0.49")
REFLECTION_DENSITY = Limit("a reflection density", 0.0, 3.0, "1.85")
APERTURE = Limit("an aperture", 0.7, 128.0, "f/8")
CURVE_NEEDS, CURVE_ADVISED = 3, 5
CURVE_RULE = (
    f"a curve needs at least {CURVE_NEEDS} different exposures; {CURVE_ADVISED} or more are advised"
)
"""How many exposures are enough, said in one way."""

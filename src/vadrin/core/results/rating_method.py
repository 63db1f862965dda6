"""The methods of film testing: what each asks of the same readings."""

from __future__ import annotations

from dataclasses import dataclass
from math import log2

from vadrin.core.exposure.arithmetic import METER_CONSTANT, ZONE_I_STOPS


@dataclass(frozen=True)
class RatingMethod:
    """One method.

    Attributes
    ----------
    key, name : str
        In the notebook and in reports, and in words.
    asks : str
        What it asks, in a sentence.
    rates_by : str
        Which metric of a strip or a finding a film is rated by; empty where one cannot choose
        to work by this method.
    caption : str
        How its EI is found, in a phrase.
    develops_to : str
        Key of the measure of contrast it develops to; empty for what the tester asks for.
    of_curves : bool
        Whether it answers from curves, and has a row beside the others; what an eye or paper
        judges has none.
    """

    key: str
    name: str
    asks: str
    rates_by: str = ""
    caption: str = ""
    develops_to: str = ""
    of_curves: bool = True

    def stops_above_zone_ei(self, meter_constant: float = METER_CONSTANT) -> float:
        """Stops by which its EI lies above the Zone I EI of the same curve, by definition."""
        if self.rates_by == "speed":
            return log2(0.8 * 2**ZONE_I_STOPS / meter_constant)
        return 0.0


SHADOW = RatingMethod(
    "shadow",
    "Shadow",
    "The shadow four stops under the meter gives the EI, the highlight seven above it the time.",
    "zone_ei",
    "shadow method, 0.10 above base plus fog",
    "zone8",
)
STANDARD = RatingMethod(
    "standard",
    "Standard",
    "One fixed contrast, so that films can be compared with each other and the box.",
    "speed",
    "standard method, 0.8 / H at this contrast",
    "iso",
)
EYE = RatingMethod(
    "eye",
    "Light box",
    "The first frame that looks different from the blank.",
    "zone_ei",
    "by eye on the light box",
    of_curves=False,
)
PAPER = RatingMethod(
    "paper",
    "Paper",
    "The thinnest frame that prints lighter than maximum black.",
    "zone_ei",
    "by half-covered strips of paper",
    of_curves=False,
)
CONTACT = RatingMethod(
    "contact sheet",
    "Contact sheet",
    "The frame that prints best unaided at the shortest time for maximum black.",
    "zone_ei",
    "by what prints best on the contact sheet",
    of_curves=False,
)
GRADIENT = RatingMethod(
    "gradient",
    "Gradient",
    "This scene range must fit that paper, and the shadow must show at that time.",
)
PRINT_QUALITY = RatingMethod(
    "print quality",
    "Print quality",
    "The point where the curve is steep enough to separate shadow tones.",
)
DATA_SHEET = RatingMethod(
    "data sheet",
    "Data sheet",
    "The middle of the straight line carries the mid-tone: EI = 10 / H there.",
)

METHODS = {
    s.key: s for s in (SHADOW, STANDARD, GRADIENT, PRINT_QUALITY, DATA_SHEET, EYE, PAPER, CONTACT)
}
"""Every method by its key."""

RATING_METHODS = {s.key: s for s in METHODS.values() if s.rates_by}
"""Those one can choose to rate film by."""

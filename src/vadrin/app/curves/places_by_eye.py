"""Where an eye first told film, or a print first lightened: places on the exposure axis."""

from __future__ import annotations

from dataclasses import dataclass

from vadrin.app.display.marks import marked_ei
from vadrin.app.loaded.light_boxes import light_box_result
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.results.print_ei import print_index
from vadrin.core.exposure.arithmetic import STOP, ZONE_I_STOPS, meter_point
from vadrin.core.figure import Figure


@dataclass(frozen=True)
class PlaceByEye:
    """One judging of a strip.

    Attributes
    ----------
    words : str
        How it was judged, and the EI it comes to.
    strip : str
    log_h, low, high : float
        Where the shadow point lies by it, and the range of that.
    """

    words: str
    strip: str
    log_h: float
    low: float
    high: float


def _place(loaded: LoadedTest, name: str, strip: str, index: Figure | None) -> PlaceByEye | None:
    if index is None or index.value is None or index.low is None or index.high is None:
        return None
    ends = (
        meter_point(ei, loaded.test.meter_constant) - ZONE_I_STOPS * STOP
        for ei in (index.value, index.high, index.low)
    )
    return PlaceByEye(f"{name} {marked_ei(index.value)}", strip, *ends)


def judged_places(loaded: LoadedTest, only_strip: str = "") -> tuple[PlaceByEye, ...]:
    """The judged shadow points of a test, of one strip or of all."""
    made = []
    for strip in loaded.strips:
        label = strip.strip.label
        if only_strip not in ("", label):
            continue
        seen = light_box_result(loaded, strip)
        made.append(_place(loaded, "light box", label, seen.zone_ei if seen else None))
        made.append(_place(loaded, "on paper", label, print_index(loaded, strip)))
    return tuple(place for place in made if place is not None)

"""What an eye on the light box says of a strip: its EI, with how sure that is."""

from __future__ import annotations

from math import log2

from vadrin.app.display.marks import marked_ei, stops_counted
from vadrin.app.display.quantities import ei_range_text, ei_stops_text
from vadrin.app.loaded.light_boxes import light_box_result
from vadrin.app.loaded.loaded_test import LoadedStrip, LoadedTest
from vadrin.app.loaded.once import once
from vadrin.core.figure import Figure

_APART_STOPS = 1 / 6


@once
def light_box_answer(loaded: LoadedTest) -> tuple[LoadedStrip, Figure] | None:
    """The strip of the test's own film that was judged and says most, with its EI."""
    others, best = loaded.others(), None
    for strip in loaded.strips:
        if strip.strip.label in others:
            continue
        result = light_box_result(loaded, strip)
        if result is None:
            continue
        figure = result.zone_ei
        if best is None or (figure.present and not best[1].present):
            best = (strip, figure)
    return best


def light_box_words(figure: Figure) -> str:
    """An EI of the light box in a sentence."""
    if figure.value is None:
        return f"Light box: {figure.why}."
    return (
        f"Light box: EI {marked_ei(figure.value)}, {ei_range_text(figure)} "
        f"({ei_stops_text(figure)})."
    )


def beside_the_light_box(loaded: LoadedTest, index: float) -> str:
    """What the light box says beside an EI that was measured, and how far apart they are."""
    seen = light_box_answer(loaded)
    if seen is None or seen[1].value is None:
        return ""
    apart = log2(seen[1].value / index)
    way = "above" if apart > 0 else "below"
    where = f"{stops_counted(abs(apart))} {way}" if abs(apart) >= _APART_STOPS else "the same"
    return f". On the light box EI {marked_ei(seen[1].value)}, {where}"


def without_densities(loaded: LoadedTest | None) -> str:
    """What is known of a test of which no density was read."""
    seen = light_box_answer(loaded) if loaded is not None else None
    if seen is None:
        return (
            "No finding yet: read the blank frames and the bracket of two strips, or judge a strip "
            "on the light box."
        )
    strip, figure = seen
    return (
        f"Strip {strip.strip.label}. {light_box_words(figure)} By eye you can find the EI, not "
        "the contrast. For a time or a push read densities, with a step wedge where there is no "
        "instrument."
    )

"""Where the frame that is to be read is likely to land, in words and on the plot."""

from __future__ import annotations

from dataclasses import dataclass

from vadrin.app.document.state import State
from vadrin.app.loaded.loaded_test import LoadedFrame, LoadedStrip
from vadrin.core.results.likely_density import likely_density


@dataclass(frozen=True)
class LikelyPlace:
    """A place on the plot that is expected, and what it follows from."""

    log_h: float
    density: float
    words: str


def likely_place(state: State, strip: LoadedStrip, frame: LoadedFrame) -> LikelyPlace | None:
    """The place of a frame that was not read; None where it was, or nothing tells."""
    drawn, loaded = state.analysis or state.earlier, state.loaded
    x = frame.log_h(loaded.test.meter_constant)
    if drawn is None or x is None or frame.readings:
        return None
    mine = loaded.material_of(strip)
    alike = {s.strip.label for s in loaded.strips if loaded.material_of(s) == mine}
    fitted = [s for s in drawn.strips if s.label in alike]
    found = likely_density(fitted, strip.strip.label, strip.minutes, x)
    if found is None:
        return None
    words = f"expected about {found.density:.2f}, from strip {' and '.join(found.strips)}"
    return LikelyPlace(x, found.density, words + (", past their times" if found.beyond else ""))

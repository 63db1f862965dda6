"""Strips of a practice film as their tester noted them, and whether they can be looked at."""

from __future__ import annotations

import numpy as np

from vadrin.app.loaded.loaded_test import LoadedFrame, LoadedStrip, LoadedTest
from vadrin.app.loaded.reference_temperature import reference_of
from vadrin.core.frames import FrameRole, FrameState
from vadrin.core.planning.test_types.paper import PaperTest
from vadrin.core.process.agitation import Agitation, agitation_of
from vadrin.core.simulation.practice_world import USUALLY_MOVED, TreatedStrip

LIT = (FrameState.EXPOSED, FrameState.DOUBLED)
"""States of a frame that had light."""
_USUAL_WAY = Agitation(first_s=30.0, for_s=10.0, every_s=60.0)
_FOGGED = 2.0
"""Lg lux seconds of a frame that was held into the light."""


def treated(loaded: LoadedTest, strip: LoadedStrip) -> TreatedStrip:
    """A strip as its tester noted it."""
    minutes, mine = strip.strip.time_min or 0.0, strip.strip
    places = [_light(loaded, f) for f in strip.frames]
    celsius = mine.temperature_c if mine.temperature_c is not None else reference_of(loaded, strip)
    log_h = np.array([np.nan if x is None else x for x in places], dtype=np.float64)
    held = np.array([f.frame.seconds or np.nan for f in strip.frames], dtype=np.float64)
    warm = celsius if celsius is not None else 20.0
    return TreatedStrip(log_h, minutes, warm, held, bool(strip.other), _moved(loaded, strip))


def _moved(loaded: LoadedTest, strip: LoadedStrip) -> float:
    """The share of its development in which a strip was moved, by what was noted of it."""
    asked = agitation_of(strip.strip.agitation or loaded.test.agitation)
    length = 60.0 * (strip.strip.time_min or 0.0)
    if asked is None or not length:
        return USUALLY_MOVED
    mine, usual = (sum(end - at for at, end in way.spans(length)) for way in (asked, _USUAL_WAY))
    return USUALLY_MOVED * mine / usual


def _light(loaded: LoadedTest, frame: LoadedFrame) -> float | None:
    """Lg lux seconds of a frame as its tester noted it; None where there was no light."""
    if frame.frame.state not in LIT:
        return None
    fogged = frame.frame.role is FrameRole.FOGGED
    return _FOGGED if fogged else frame.log_h(loaded.test.meter_constant)


def on_paper(loaded: LoadedTest) -> bool:
    """Whether paper is exposed under the enlarger, and no film."""
    return loaded.test.kind == PaperTest.key


def can_be_looked_at(loaded: LoadedTest, strip: LoadedStrip) -> bool:
    """Whether it is developed: film when its time was noted, paper soon after its last step."""
    if on_paper(loaded):
        return all(f.frame.state is not FrameState.PLANNED for f in strip.frames)
    return strip.strip.time_min is not None


def waits_words(loaded: LoadedTest, strip: LoadedStrip) -> str:
    """Why it cannot be looked at yet."""
    if on_paper(loaded):
        return "the paper is not exposed yet: expose every step"
    return f"strip {strip.strip.label} is not developed yet: process it, and record its time"

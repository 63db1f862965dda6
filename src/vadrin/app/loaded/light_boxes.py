"""What was told of a strip on the light box, and what is possible of it: numbers, no words."""

from __future__ import annotations

from dataclasses import replace
from functools import lru_cache
from math import exp, hypot, log
from typing import TYPE_CHECKING, NamedTuple

from vadrin.app.loaded.loaded_test import LoadedFrame, LoadedStrip, LoadedTest
from vadrin.app.loaded.once import once
from vadrin.core.exposure.arithmetic import STOP, ZONE_I_STOPS
from vadrin.core.figure import Figure
from vadrin.core.judging.eye_answers import EyeVerdict, LightBoxResult, SeenFrame, Viewing
from vadrin.notebook.records import Judgement
from vadrin.notebook.records.film_test import SCENE_SUBJECT

if TYPE_CHECKING:
    from vadrin.core.judging.light_box import LightBox

TOLD_FROM_BLANK = "told from the blank"
"""What was asked of a frame on the light box."""
_SEED = 1
_SCENE_LN = 1.96 * 0.5 * log(2)
"""Half the 95 % range of where such shadows lie: half a stop of standard deviation."""


class LightBoxKey(NamedTuple):
    """What a strip's light box is made from; answers are kept by it, for a box takes megabytes."""

    log_h: tuple[float, ...]
    viewing: Viewing
    meter_constant: float


@lru_cache(maxsize=16)
def light_box_for(made: LightBoxKey) -> LightBox:
    """All that is possible of a strip before it was looked at."""
    # Here, not above: a window without such judgements need not wait for scipy.
    import numpy as np

    from vadrin.core.judging.light_box import LightBox

    rng = np.random.default_rng(_SEED)
    return LightBox(np.array(made.log_h), made.viewing, rng, made.meter_constant)


@lru_cache(maxsize=64)
def _result(made: LightBoxKey, answers: tuple[SeenFrame, ...]) -> LightBoxResult:
    return light_box_for(made).result(answers)


def exposures_of(loaded: LoadedTest, strip: LoadedStrip) -> tuple[float, ...]:
    """Lg exposures of the frames of a strip that can be asked for."""
    constant = loaded.test.meter_constant
    known = (f.log_h(constant) for f in strip.frames if f.counts)
    return tuple(sorted({round(x, 4) for x in known if x is not None}))


def in_the_shadows(loaded: LoadedTest) -> bool:
    """Whether frames show a scene, so that an eye looks for something in its shadows."""
    return loaded.test.subject == SCENE_SUBJECT


def looked_at_log_h(loaded: LoadedTest, frame: LoadedFrame) -> float | None:
    """Lg exposure of what an eye looks at in a frame: the plain target, or a scene's shadows."""
    at = frame.log_h(loaded.test.meter_constant)
    if at is None or not in_the_shadows(loaded):
        return at
    return at - ZONE_I_STOPS * STOP


def _asked_for(loaded: LoadedTest, strip: LoadedStrip) -> tuple[float, ...]:
    known = (looked_at_log_h(loaded, f) for f in strip.frames if f.counts)
    return tuple(sorted({round(x, 4) for x in known if x is not None}))


def judged_of(strip: LoadedStrip) -> list[Judgement]:
    """The answers given on the light box for a strip that count, the oldest first."""
    made = [
        j
        for f in strip.frames
        for j in f.judgements
        if j.asked == TOLD_FROM_BLANK and not j.left_out
    ]
    return sorted(made, key=lambda j: (j.position, j.id))


def viewing_of(strip: LoadedStrip) -> Viewing:
    """How a strip was looked at last; side by side before the first look."""
    judged = judged_of(strip)
    known = {v.value: v for v in Viewing}
    return known.get(judged[-1].way, Viewing.SIDE_BY_SIDE) if judged else Viewing.SIDE_BY_SIDE


def eye_answers(loaded: LoadedTest, strip: LoadedStrip) -> tuple[SeenFrame, ...]:
    """The answers for a strip as the core knows them."""
    frames, known = {f.frame.id: f for f in strip.frames}, {t.value: t for t in EyeVerdict}
    made = []
    for judged in judged_of(strip):
        frame, told = frames.get(judged.frame_id or 0), known.get(judged.answer)
        if frame is None or told is None:
            continue
        at = None if frame.frame.blank else looked_at_log_h(loaded, frame)
        if at is not None or frame.frame.blank:
            made.append(SeenFrame(at, told, _threshold(judged)))
    return tuple(made)


def _threshold(judged: Judgement) -> tuple[float, float] | None:
    """What the eye tells that looked: its own where it was measured, else that of the way."""
    from vadrin.core.judging.light_box import OWN_SPREAD

    if judged.reference is not None and 0 < judged.reference < 1:
        return (judged.reference, OWN_SPREAD)
    known = {v.value: v for v in Viewing}
    way = known.get(judged.way)
    return way.threshold if way else None


def light_box_key(loaded: LoadedTest, strip: LoadedStrip) -> LightBoxKey | None:
    """What a strip's box is made from; None where too few of its exposures are known."""
    exposures = _asked_for(loaded, strip)
    if len(exposures) < 3:
        return None
    return LightBoxKey(exposures, viewing_of(strip), loaded.test.meter_constant)


def light_box(loaded: LoadedTest, strip: LoadedStrip) -> LightBox | None:
    """All that is possible of a strip; None where too few of its exposures are known."""
    made = light_box_key(loaded, strip)
    return light_box_for(made) if made is not None else None


@once
def light_box_result(loaded: LoadedTest, strip: LoadedStrip) -> LightBoxResult | None:
    """What the answers for a strip come to; None where nothing was asked yet."""
    if not judged_of(strip):
        return None
    made, answers = light_box_key(loaded, strip), eye_answers(loaded, strip)
    if made is None or not answers:
        return None
    result = _result(made, answers)
    return _of_a_scene(result) if in_the_shadows(loaded) else result


def _of_a_scene(result: LightBoxResult) -> LightBoxResult:
    """The same with its range as wide as it is unknown how dark a scene's shadows are."""
    index = result.zone_ei
    if index.value is None or index.low is None or index.high is None:
        return result
    low, high = (
        index.value * exp(way * hypot(log(end / index.value), _SCENE_LN))
        for end, way in ((index.low, -1), (index.high, 1))
    )
    return replace(result, zone_ei=Figure(index.value, low, high))

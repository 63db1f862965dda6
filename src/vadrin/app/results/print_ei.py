"""The EI that half-covered strips of paper come to."""

from __future__ import annotations

from functools import lru_cache
from typing import TYPE_CHECKING

from vadrin.app.display.marks import marked_ei
from vadrin.app.display.quantities import ei_range_text, ei_stops_text
from vadrin.app.display.words import counted
from vadrin.app.loaded.light_boxes import exposures_of
from vadrin.app.loaded.loaded_test import LoadedStrip, LoadedTest
from vadrin.app.loaded.once import once
from vadrin.core.figure import Figure
from vadrin.core.judging.eye_answers import EyeVerdict, SeenFrame, Viewing
from vadrin.notebook.records import PrintStrip

if TYPE_CHECKING:
    from vadrin.core.judging.light_box import LightBox

COVERED = "half covered beside the blank"
"""Purpose of a strip of which one half has a frame and the other a blank, both for the time for
maximum black."""
BESIDE_BLACK = "half covered"
"""Purpose of a strip as it was asked for before: beside maximum black, where clear film itself is
lighter already. What was said of it tells nothing of a frame, and is kept and not counted."""
USUAL_THRESHOLD = (0.06, 0.02)
"""Net density that prints just lighter than a blank on a paper nobody measured, and how that
differs, where a strip was kept without its own."""
_SEED = 5


@lru_cache(maxsize=16)
def print_box(
    log_h: tuple[float, ...], meter_constant: float, threshold: tuple[float, float]
) -> LightBox:
    """All that is possible of a strip of film before its prints are judged."""
    import numpy as np

    from vadrin.core.judging.light_box import LightBox

    rng = np.random.default_rng(_SEED)
    return LightBox(np.array(log_h), Viewing.SIDE_BY_SIDE, rng, meter_constant, threshold)


def covered_strips(loaded: LoadedTest, strip: LoadedStrip) -> list[PrintStrip]:
    """The half-covered strips of a strip of film, in every series, the oldest first."""
    mine = [s for s in loaded.covered if s.strip_id == strip.strip.id and s.purpose == COVERED]
    return sorted(mine, key=lambda s: s.id)


def beside_black_words(loaded: LoadedTest, strip: LoadedStrip) -> str:
    """That older strips are not counted, and why; empty where there are none."""
    old = [s for s in loaded.covered if s.strip_id == strip.strip.id and s.purpose == BESIDE_BLACK]
    if not old:
        return ""
    return (
        f"{counted(len(old), 'older strip')} beside maximum black, where clear film is lighter "
        "already: kept, and not counted."
    )


def _threshold(made: PrintStrip) -> tuple[float, float]:
    """What the paper just tells, as it was known when the strip was judged."""
    known = made.densities
    return (known[0], known[1]) if len(known) == 2 and known[1] > 0 else USUAL_THRESHOLD


def print_answers(loaded: LoadedTest, strip: LoadedStrip) -> tuple[SeenFrame, ...]:
    """What was seen of half-covered strips, as the core knows it."""
    frames, told = {f.frame.id: f for f in strip.frames}, {t.value: t for t in EyeVerdict}
    made = []
    for kept in covered_strips(loaded, strip):
        frame = frames.get(kept.frame_id or 0)
        at = frame.log_h(loaded.test.meter_constant) if frame is not None else None
        if at is not None and kept.answer in told:
            made.append(SeenFrame(at, told[kept.answer], _threshold(kept)))
    return tuple(made)


def print_index(loaded: LoadedTest, strip: LoadedStrip) -> Figure | None:
    """The EI of the paper method; None before anything was judged."""
    answers, exposures = print_answers(loaded, strip), exposures_of(loaded, strip)
    if not answers or len(exposures) < 3:
        return None
    threshold = _threshold(covered_strips(loaded, strip)[-1])
    return _told_index(exposures, loaded.test.meter_constant, threshold, answers)


@lru_cache(maxsize=64)
def _told_index(
    log_h: tuple[float, ...],
    meter_constant: float,
    threshold: tuple[float, float],
    answers: tuple[SeenFrame, ...],
) -> Figure:
    """Column, rail, shelf and card ask for the same: it is worked out once."""
    from vadrin.core.printing.print_threshold import EYES_APART

    return print_box(log_h, meter_constant, threshold).told_index(answers, EYES_APART)


@once
def print_answer(loaded: LoadedTest) -> tuple[LoadedStrip, Figure] | None:
    """The strip of film that was judged on paper, with its EI; None where none was."""
    for strip in loaded.strips:
        index = print_index(loaded, strip)
        if index is not None:
            return strip, index
    return None


def print_index_words(index: Figure) -> str:
    """The EI of the paper method in a sentence."""
    if index.value is None:
        return f"On paper: {index.why}."
    reach = f"{ei_range_text(index)} ({ei_stops_text(index)})"
    return f"On paper: EI {marked_ei(index.value)}, {reach}."

"""What was said of contact prints, and the EI of the frame that prints best."""

from __future__ import annotations

from vadrin.app.loaded.frame_index import index_of, within_half_a_step
from vadrin.app.loaded.loaded_test import ON_PAPER, LoadedFrame, LoadedStrip, LoadedTest
from vadrin.app.loaded.once import once
from vadrin.core.figure import Figure

BEST = "prints best"


def paper_verdict(frame: LoadedFrame, asked: str) -> str:
    """What was last said of a frame's contact print; empty for nothing."""
    return frame.said(asked, on_paper=True)


def best_frame(strip: LoadedStrip) -> LoadedFrame | None:
    """The frame that prints best unaided; None where none was picked."""
    return next((f for f in strip.frames if paper_verdict(f, BEST)), None)


def best_index(loaded: LoadedTest, strip: LoadedStrip) -> Figure | None:
    """The EI of the frame that prints best, half a step of the bracket to each side."""
    frame = best_frame(strip)
    index = index_of(frame) if frame is not None else None
    return None if index is None else within_half_a_step(index, loaded.test.step)


@once
def contact_answer(loaded: LoadedTest) -> tuple[LoadedStrip, Figure] | None:
    """The strip of the test's own film of which a frame prints best, with its EI."""
    others = loaded.others()
    for strip in loaded.strips:
        index = best_index(loaded, strip) if strip.strip.label not in others else None
        if index is not None:
            return strip, index
    return None


def contact_prints(strip: LoadedStrip) -> int:
    """How many contact prints of a strip were judged in any way."""
    return sum(any(j.way == ON_PAPER for j in f.judgements) for f in strip.frames)

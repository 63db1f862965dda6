"""Which frame is next: to be taken, to be read."""

from __future__ import annotations

from vadrin.app.loaded.loaded_test import LoadedFrame, LoadedStrip, LoadedTest
from vadrin.core.frames import FrameState

Place = tuple[LoadedStrip, LoadedFrame]
"""A frame with the strip it is on."""


def next_to_expose(loaded: LoadedTest) -> Place | None:
    """The first frame still to be taken."""
    if not loaded.on_film:
        return None
    return next(((s, f) for s, f in loaded.shots() if f.frame.state == FrameState.PLANNED), None)


def last_exposed(loaded: LoadedTest) -> Place | None:
    """The last frame that was taken, skipped or doubled before the next one."""
    done = [(s, f) for s, f in loaded.shots() if f.frame.state != FrameState.PLANNED]
    return done[-1] if done else None


def next_to_read(loaded: LoadedTest, after: int | None = None) -> LoadedFrame | None:
    """The next frame without a reading, from a frame id on; then from the start."""
    frames = [f for _, f in loaded.frames() if f.readable]
    ids = [f.frame.id for f in frames]
    start = ids.index(after) + 1 if after in ids else 0
    turned = frames[start:] + frames[:start]
    return next((f for f in turned if not f.readings), None)

"""A frame in the words a screen reader says."""

from __future__ import annotations

from vadrin.app.display.verdict_words import answer_words
from vadrin.app.loaded.loaded_test import LoadedFrame, LoadedStrip
from vadrin.core.frames import FrameState

_STATE_WORDS = {
    FrameState.PLANNED: "not taken yet",
    FrameState.SKIPPED: "skipped",
    FrameState.DOUBLED: "exposed twice",
}


def spoken_frame(strip: LoadedStrip, frame: LoadedFrame) -> str:
    """What a screen reader says of a frame."""
    own = strip.other or strip.strip.note
    other = f", {own}" if own else ""
    words = f"strip {strip.strip.label}{other}, frame {frame.number}"
    words += ", blank" if frame.frame.blank else f", {_name(frame)}"
    verdict = f", {answer_words(frame.verdict)}" if frame.verdict else ""
    if frame.density is not None:
        return f"{words}, density {frame.density:.2f}{verdict}"
    return f"{words}, {_STATE_WORDS.get(frame.frame.state, 'waits for a reading')}{verdict}"


def _name(frame: LoadedFrame) -> str:
    """``minus 6 stops``, ``plus 1 stop``, or the name of a frame that stands for no offset."""
    stops = frame.frame.stops
    if stops is None or frame.name[:1] not in "−+0123456789½⅓⅔⅙⅚":
        return frame.name
    if stops == 0:
        return "the meter reading"
    name = frame.name.replace("−", "minus ").replace("+", "plus ")
    return f"{name} {'stop' if abs(stops) <= 1 else 'stops'}"

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


def offset_words(frame: LoadedFrame) -> str:
    """``−3 stops``, ``+1 stop``, or the name of a frame that stands for no offset."""
    stops = frame.frame.stops
    if stops is None or frame.name[:1] not in "−+0123456789½⅓⅔⅙⅚":
        return frame.name
    return f"{frame.name} {'stop' if abs(stops) <= 1 else 'stops'}"


def _name(frame: LoadedFrame) -> str:
    """The offset as it is said: ``minus 6 stops``."""
    if frame.frame.stops == 0:
        return "the meter reading"
    return offset_words(frame).replace("−", "minus ").replace("+", "plus ")

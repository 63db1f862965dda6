"""A roll written down in one line after it was shot, and the words for what became of a frame."""

from __future__ import annotations

import re
from dataclasses import dataclass

from vadrin.app.display.words import counted
from vadrin.app.entry.exposures import exposure_index_typed
from vadrin.app.entry.numbers import number_typed
from vadrin.core.exposure.arithmetic import stops_text
from vadrin.core.frames import FrameState
from vadrin.errors import EditRefusedError

_NUMBERS = {
    "no": 0,
    "one": 1,
    "two": 2,
    "three": 3,
    "four": 4,
    "five": 5,
    "six": 6,
    "first": 1,
    "second": 2,
    "third": 3,
    "fourth": 4,
    "fifth": 5,
}
_STATES = {
    "skip": FrameState.SKIPPED,
    "doubl": FrameState.DOUBLED,
    "twice": FrameState.DOUBLED,
    "lost": FrameState.SKIPPED,
}
ROLL_HINT = "13 frames, -6 to +6, one blank first, frame 5 doubled; or: 36 frames at EI 400"
_MOST_PICTURES = 400


def _number(words: str) -> int:
    return _NUMBERS[words] if words in _NUMBERS else int(words)


def state_typed(words: str) -> FrameState | None:
    """What became of a frame, by the stem of the word for it; None for none of them."""
    return next((state for stem, state in _STATES.items() if stem in words), None)


@dataclass(frozen=True)
class RollLine:
    """A roll as it was shot."""

    first: float
    last: float
    step: float
    blanks: int
    pictures: int
    """Frames of scenes, where there was no bracket; 0 for a bracket."""
    states: tuple[tuple[int, FrameState], ...]
    exposure_index: float | None


def roll_typed(words: str) -> RollLine:
    """Read a roll in a line, as in `ROLL_HINT`; ``at EI 400`` tells a meter left elsewhere.

    Raises
    ------
    EditRefusedError
        If frames and stops do not go together, or something is missing.
    """
    plain = words.lower().replace("−", "-").replace("+", "")
    span = re.search(r"(-?\d+(?:[.,]\d+)?)\s*(?:to|…|\.\.)\s*(-?\d+(?:[.,]\d+)?)", plain)
    count = re.search(r"(\d+)\s*(?:frames|shots|exposures|pictures)", plain)
    if not span and not count:
        raise EditRefusedError(
            f"say how many frames, and from which stop to which if it was a bracket: {ROLL_HINT}"
        )
    first, last = (number_typed(span[1]), number_typed(span[2])) if span else (0.0, 0.0)
    blank = re.search(r"(\w+)\s+(?:frames?\s+)?blank", plain)
    blanks = _number(blank[1]) if blank and (blank[1] in _NUMBERS or blank[1].isdigit()) else 0
    steps = int(count[1]) - 1 if count else round(abs(last - first))
    states, index = _states(plain), re.search(r"\b(?:ei|iso)\s*([\d.,]*\d)", plain)
    rated = exposure_index_typed(index[1]) if index else None
    if count and not span:
        return RollLine(0.0, 0.0, 1.0, blanks, _pictures(int(count[1])), states, rated)
    if steps < 1 or last <= first:
        raise EditRefusedError("the bracket runs from few stops to more, over two frames or more")
    step = (last - first) / steps
    if min(abs(step - s) for s in (1.0, 0.5, 1 / 3, 2.0, 1.5)) > 0.02:
        raise EditRefusedError(
            f"{counted(int(count[1]) if count else steps + 1, 'frame')} from "
            f"{stops_text(first, True)} to {stops_text(last, True)} would be {step:.2f} stops "
            "apart; count them again"
        )
    return RollLine(first, last, step, blanks, 0, states, rated)


def _pictures(count: int) -> int:
    if not 1 <= count <= _MOST_PICTURES:
        raise EditRefusedError(f"a roll has 1 to {_MOST_PICTURES} frames")
    return count


def _states(plain: str) -> tuple[tuple[int, FrameState], ...]:
    """Frames that were skipped or doubled, by their number on the film."""
    found = re.finditer(r"(?:frame\s+)?(\d+|\w+)\s+(?:was\s+)?(skipped|doubled|lost|twice)", plain)
    return tuple(
        (_number(f[1]), state_typed(f[2]) or FrameState.EXPOSED)
        for f in found
        if f[1].isdigit() or f[1] in _NUMBERS
    )

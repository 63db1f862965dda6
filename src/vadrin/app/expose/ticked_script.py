"""A printed script that comes back ticked, entered in one line."""

from __future__ import annotations

import re

from vadrin.app.entry.exposures import otherwise_typed
from vadrin.app.entry.roll_line import state_typed
from vadrin.app.expose.exposing import mark_frame, take_otherwise
from vadrin.app.loaded.loaded_test import LoadedFrame, LoadedTest
from vadrin.core.frames import FrameState
from vadrin.errors import EditRefusedError
from vadrin.notebook.store import Notebook

SCRIPT_HINT = "all  ·  1-12  ·  B 1-12  ·  13 skipped  ·  20 doubled  ·  5 at 1/60 f/8  ·  7 at +2"

_PART = re.compile(r"(?:strip\s+)?(?:([a-z]\d*)\s+|([a-z]))?(\d+)(?:\s*[-–]\s*(\d+))?\s*(.*)")
_OTHERS = ("all", "all the others", "rest", "the rest")


def tick_script(notebook: Notebook, loaded: LoadedTest, words: str) -> int:
    """Enter what was ticked on a printed script, as one edit.

    Parameters
    ----------
    notebook : Notebook
    loaded : LoadedTest
    words : str
        Parts between commas or semicolons, as in `SCRIPT_HINT`; frames by strip and number as on
        the paper, a strip named once holding for what follows. A part that names frames skipped,
        doubled or taken otherwise ticks them so; ``all`` ticks all the others.

    Returns
    -------
    int
        Frames entered.

    Raises
    ------
    EditRefusedError
        Naming the part that cannot be understood; nothing is entered.
    """
    # A comma in what was set instead is a decimal comma, not the end of the part.
    words = re.sub(r"((?:f/?|[-+−]|(?:at|with)\s+)\d+),(\d)", r"\1.\2", words.lower())
    labels = [s.strip.label for s in loaded.strips]
    label = labels[0] if len(labels) == 1 else ""
    states: dict[int, tuple[FrameState, str]] = {}
    rest = False
    for part in (p.strip() for p in re.split(r"[,;]", words) if p.strip()):
        if part in _OTHERS:
            rest = True
            continue
        found = _PART.fullmatch(part)
        if not found:
            raise EditRefusedError(f"“{part}” is not understood; such as: {SCRIPT_HINT}")
        label = _strip_named((found[1] or found[2] or label).upper(), labels, part)
        how = found[5]
        state = state_typed(how) or FrameState.EXPOSED
        for frame in _frames_meant(loaded, label, int(found[3]), int(found[4] or found[3]), part):
            states[frame.frame.id] = state, how
    shots = [f for _, f in loaded.shots()]
    if rest:
        usual = dict.fromkeys((f.frame.id for f in shots), (FrameState.EXPOSED, ""))
        states = {**usual, **states}
    with notebook.change("enter the ticked script"):
        for frame in shots:
            if frame.frame.id in states:
                _enter(notebook, frame, *states[frame.frame.id])
    return len(states)


def _strip_named(label: str, labels: list[str], part: str) -> str:
    if label in labels:
        return label
    there = f"{labels[0]} to {labels[-1]}" if labels else "none"
    if not label:
        raise EditRefusedError(f"“{part}”: say the strip too ({there}), such as: {labels[0]} 1-12")
    raise EditRefusedError(f"“{part}”: no strip is called {label}; there are {there}")


def _frames_meant(
    loaded: LoadedTest, label: str, low: int, high: int, part: str
) -> tuple[LoadedFrame, ...]:
    frames = next(s.frames for s in loaded.strips if s.strip.label == label)
    if not 1 <= low <= high <= len(frames):
        raise EditRefusedError(f"“{part}”: strip {label} has frames 1 to {len(frames)}")
    return frames[low - 1 : high]


def _enter(notebook: Notebook, loaded: LoadedFrame, state: FrameState, how: str) -> None:
    otherwise = re.search(r"(?:at|with)\s+(\S.*)", how)
    if otherwise is None or state != FrameState.EXPOSED:
        mark_frame(notebook, loaded.frame, state)
        return
    try:
        take_otherwise(notebook, loaded.frame, **otherwise_typed(otherwise[1]))
    except ValueError as error:
        raise EditRefusedError(f"{loaded.called}: {error}") from error

"""A printed script that comes back ticked, entered in one line."""

from __future__ import annotations

import re

from vadrin.app.entry.exposures import otherwise_typed
from vadrin.app.entry.roll_line import state_typed
from vadrin.app.expose.exposing import mark_frame, take_otherwise
from vadrin.app.test_sheet import TestSheet
from vadrin.core.frames import FrameState
from vadrin.errors import EditRefusedError
from vadrin.notebook.records import Frame
from vadrin.notebook.store import Notebook

SHEET_HINT = "all  ·  1-12  ·  13 skipped  ·  20 doubled  ·  5 at 1/60  ·  7 at +2"


def tick_sheet(notebook: Notebook, sheet: TestSheet, words: str) -> int:
    """Enter what was ticked on a printed script, as one edit.

    Parameters
    ----------
    notebook : Notebook
    sheet : TestSheet
    words : str
        Parts between commas or semicolons, as in `SHEET_HINT`; frames by their numbers on the
        paper. A part that names frames skipped, doubled or taken otherwise ticks them so;
        ``all`` ticks all the others.

    Returns
    -------
    int
        Frames entered.

    Raises
    ------
    EditRefusedError
        Naming the part that cannot be understood; nothing is entered.
    """
    shots = [f.frame for _, f in sheet.shots()]
    # A comma in what was set instead is a decimal comma, not the end of the part.
    words = re.sub(r"((?:at|with)\s+f?/?[-+−]?\d+),(\d)", r"\1.\2", words)
    states: dict[int, tuple[FrameState, str]] = {}
    rest = False
    for part in (p.strip().lower() for p in re.split(r"[,;]", words) if p.strip()):
        if part in ("all", "all the others", "rest", "the rest"):
            rest = True
            continue
        found = re.fullmatch(r"(\d+)(?:\s*[-–]\s*(\d+))?\s*(.*)", part)
        if not found:
            raise EditRefusedError(f"“{part}” is not understood; such as: {SHEET_HINT}")
        low, high = int(found[1]), int(found[2] or found[1])
        if not 1 <= low <= high <= len(shots):
            raise EditRefusedError(f"“{part}”: the script has frames 1 to {len(shots)}")
        for place in range(low - 1, high):
            states[place] = (state_typed(found[3]) or FrameState.EXPOSED, found[3])
    if rest:
        states = {**dict.fromkeys(range(len(shots)), (FrameState.EXPOSED, "")), **states}
    with notebook.change("enter the ticked sheet"):
        for place, (state, how) in sorted(states.items()):
            _enter(notebook, shots[place], state, how)
    return len(states)


def _enter(notebook: Notebook, frame: Frame, state: FrameState, how: str) -> None:
    otherwise = re.search(r"(?:at|with)\s+(\S+(?:\s+s\b)?)", how)
    if otherwise is None or state != FrameState.EXPOSED:
        mark_frame(notebook, frame, state)
        return
    try:
        take_otherwise(notebook, frame, **otherwise_typed(otherwise[1]))
    except ValueError as error:
        raise EditRefusedError(f"frame {frame.name}: {error}") from error

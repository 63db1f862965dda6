"""Film written down after it was shot: a ticked sheet, or a whole roll in one line."""

from __future__ import annotations

import re
from dataclasses import dataclass
from math import log2

from vadrin.app.display.quantities import number_typed
from vadrin.app.expose.exposing import mark_frame, take_otherwise
from vadrin.app.library.named_records import developer_named, stock_named
from vadrin.app.plan.planning import EditRefusedError, fresh_uid, lay_out, now
from vadrin.app.test_sheet import TestSheet, load_sheet
from vadrin.core.exposure.arithmetic import bracket, marked_ei, nearest_third, stops_text
from vadrin.core.planning.test_kinds import PUSH_SHARE
from vadrin.formats.reports.script_pdf import CassetteLabel
from vadrin.notebook.records.all_records import DOUBLED, EXPOSED, SKIPPED, Finding, Frame, Test
from vadrin.notebook.store import Notebook

_NUMBERS = {
    "no": 0, "one": 1, "two": 2, "three": 3, "four": 4, "five": 5, "six": 6, "first": 1,
    "second": 2, "third": 3, "fourth": 4, "fifth": 5,
}  # fmt: skip
_STATES = {"skip": SKIPPED, "doubl": DOUBLED, "twice": DOUBLED, "lost": SKIPPED}
SHEET_HINT = "all  ·  1-12  ·  13 skipped  ·  20 doubled  ·  5 at 1/60  ·  7 at +2"
ROLL_HINT = "13 frames, -6 to +6, one blank first, frame 5 doubled"


def _number(words: str) -> int:
    return _NUMBERS[words] if words in _NUMBERS else int(words)


def _state_in(words: str) -> str | None:
    return next((state for stem, state in _STATES.items() if stem in words), None)


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
    states: dict[int, tuple[str, str]] = {}
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
            states[place] = (_state_in(found[3]) or EXPOSED, found[3])
    if rest:
        states = {**dict.fromkeys(range(len(shots)), (EXPOSED, "")), **states}
    with notebook.change("enter the ticked sheet"):
        for place, (state, how) in sorted(states.items()):
            _enter(notebook, shots[place], state, how)
    return len(states)


def _enter(notebook: Notebook, frame: Frame, state: str, how: str) -> None:
    otherwise = re.search(r"(?:at|with)\s+(\S+(?:\s+s\b)?)", how)
    if otherwise is None or state != EXPOSED:
        mark_frame(notebook, frame, state)
        return
    try:
        take_otherwise(notebook, frame, **otherwise_typed(otherwise[1]))
    except ValueError as error:
        raise EditRefusedError(f"frame {frame.name}: {error}") from error


def otherwise_typed(words: str) -> dict[str, float]:
    """What was done instead: ``1/60``, ``f/8``, or an offset such as ``+2`` or ``−1½``.

    Raises
    ------
    ValueError
        With words for the person who typed it.
    """
    from vadrin.app.library.cupboard import seconds_typed

    plain = words.strip().lower()
    if plain.startswith("f"):
        return {"aperture": number_typed(plain.removeprefix("f").removeprefix("/"))}
    if plain.startswith("1/") or plain.endswith("s"):
        return {"seconds": seconds_typed(plain)}
    if plain[:1] in "+-−0":
        return {"stops": number_typed(plain.removeprefix("+"))}
    raise ValueError(f"“{words}”: type a shutter (1/60, 2 s), an aperture (f/8) or stops (+2)")


@dataclass(frozen=True)
class RollEntry:
    """A roll as it was shot."""

    first: float
    last: float
    step: float
    blanks: int
    states: tuple[tuple[int, str], ...]
    exposure_index: float | None


def roll_typed(words: str) -> RollEntry:
    """Read a roll in a line, as in `ROLL_HINT`; ``at EI 400`` tells a meter left elsewhere.

    Raises
    ------
    EditRefusedError
        If frames and stops do not go together, or something is missing.
    """
    plain = words.lower().replace("−", "-").replace("+", "")
    span = re.search(r"(-?\d+(?:[.,]\d+)?)\s*(?:to|…|\.\.)\s*(-?\d+(?:[.,]\d+)?)", plain)
    if not span:
        raise EditRefusedError(f"say from which stop to which, such as: {ROLL_HINT}")
    first, last = number_typed(span[1]), number_typed(span[2])
    count = re.search(r"(\d+)\s*(?:frames|shots|exposures)", plain)
    blank = re.search(r"(\w+)\s+(?:frames?\s+)?blank", plain)
    blanks = _number(blank[1]) if blank and (blank[1] in _NUMBERS or blank[1].isdigit()) else 0
    steps = int(count[1]) - 1 if count else round(abs(last - first))
    if steps < 1 or last <= first:
        raise EditRefusedError("the bracket runs from few stops to more, over two frames or more")
    step = (last - first) / steps
    if min(abs(step - s) for s in (1.0, 0.5, 1 / 3, 2.0, 1.5)) > 0.02:
        raise EditRefusedError(
            f"{count[1] if count else steps + 1} frames from {stops_text(first, True)} to "
            f"{stops_text(last, True)} would be {step:.2f} stop apart; count them again"
        )
    states = []
    for found in re.finditer(r"(?:frame\s+)?(\d+|\w+)\s+(?:was\s+)?(skipped|doubled|lost|twice)",
                             plain):  # fmt: skip
        if found[1].isdigit() or found[1] in _NUMBERS:
            states.append((_number(found[1]), _state_in(found[2]) or EXPOSED))
    index = re.search(r"(?:ei|iso)\s*(\d+(?:[.,]\d+)?)", plain)
    return RollEntry(first, last, step, blanks, tuple(states),
                     number_typed(index[1]) if index else None)  # fmt: skip


def enter_roll(notebook: Notebook, stock: str, developer: str, dilution: str, words: str) -> Test:
    """Write a roll that was shot without a plan, as one edit.

    Frame numbers count the lit frames, from 1, blanks apart.

    Raises
    ------
    EditRefusedError
        If the line is not understood.
    """
    roll = roll_typed(words)
    frames = len(bracket(roll.first, roll.last, roll.step))
    with notebook.change(f"enter a roll of {stock}"):
        film = stock_named(notebook, stock)
        test = notebook.add(
            Test(
                uid=fresh_uid(), kind="speed", stock_id=film.id,
                developer_id=developer_named(notebook, developer, dilution).id, created_at=now(),
                exposure_index=roll.exposure_index or film.box_speed, first_stop=roll.first,
                last_stop=roll.last, step=roll.step, blanks=max(1, roll.blanks),
                note=f"Entered afterwards: {words.strip()}",
            )
        )  # fmt: skip
        lay_out(notebook, test, (8.0,))
        sheet = load_sheet(notebook, test.id)
        if sheet is None:
            raise EditRefusedError("the roll could not be written")
        if not roll.blanks:
            for _, frame in sheet.frames():
                if frame.frame.blank:
                    notebook.remove(frame.frame)
        lit = [f.frame for _, f in sheet.frames() if not f.frame.blank]
        told = dict(roll.states)
        if told and not all(1 <= n <= frames for n in told):
            raise EditRefusedError(f"the roll has lit frames 1 to {frames}")
        for _, frame in sheet.frames():
            if frame.frame.blank and roll.blanks:
                mark_frame(notebook, frame.frame, EXPOSED)
        for number, each in enumerate(lit, start=1):
            mark_frame(notebook, each, told.get(number, EXPOSED))
    return test


def afterwards(notebook: Notebook, sheet: TestSheet) -> str:
    """What a roll is, by a finding of the same film and developer: a push, a pull, or normal."""
    same = notebook.all(Test, stock_id=sheet.test.stock_id, developer_id=sheet.test.developer_id)
    found = notebook.all_of(Finding, "test_id", [t.id for t in same])
    if not found:
        return ""
    finding = found[-1]
    stops = nearest_third(log2(sheet.test.exposure_index / finding.exposure_index))
    if stops == 0:
        return ""
    from vadrin.app.display.quantities import minutes_text

    kind = "push" if stops > 0 else "pull"
    minutes, basis = _push_time(finding, stops)
    return (
        f"Shot at EI {marked_ei(sheet.test.exposure_index)}, this roll is a {kind} of "
        f"{stops_text(abs(stops))}: this film was found to be EI "
        f"{marked_ei(finding.exposure_index)} here. Develop the whole roll "
        f"{minutes_text(minutes)} ({basis})."
    )


def _push_time(finding: Finding, stops: float) -> tuple[float, str]:
    """The time of a push, from the finding's own table where it holds it."""
    import json

    try:
        table = json.loads(finding.grounds)["push"]
    except (ValueError, KeyError, TypeError):
        table = []
    known = {
        row["stops"]: row["hold_midtone"]["time_min"]["value"]
        for row in table
        if row.get("hold_midtone", {}).get("time_min", {}).get("value")
    }
    low = max((s for s in known if s <= stops), default=None)
    high = min((s for s in known if s >= stops), default=None)
    if low is not None and high is not None:
        share = 0.0 if high == low else (stops - low) / (high - low)
        return known[low] * (known[high] / known[low]) ** share, "measured, mid-tone held"
    return finding.time_min * (1 + PUSH_SHARE) ** stops, "a rule of thumb, not measured"


def labels_of(sheet: TestSheet) -> tuple[CassetteLabel, ...]:
    """A label for every roll: stock, EI as shot, push or pull, how to develop it."""
    made = []
    for roll in sorted({s.strip.roll for s in sheet.strips}):
        strips = [s for s in sheet.strips if s.strip.roll == roll]
        indexes = sorted({f.frame.exposure_index for s in strips for f in s.frames
                          if f.frame.exposure_index})  # fmt: skip
        shot = ", ".join(str(marked_ei(i)) for i in indexes[:4])
        batch = f" {sheet.batch.name}" if sheet.batch and sheet.batch.name else ""
        lines = [f"EI {shot} as shot" if shot else "not exposed by a meter"]
        pushes = [s.strip.push for s in strips if s.strip.push]
        if pushes:
            lines.append("push " + ", ".join(stops_text(p) for p in pushes))
        whole = len(strips) == 1
        minutes = ", ".join(f"{s.minutes:g}" for s in strips if s.minutes)
        lines.append(f"{'whole roll' if whole else f'cut in {len(strips)}'}: {minutes} min")
        first = strips[0]
        film = bool(first.strip.stock_id or first.strip.batch_id)
        lines.append(f"in {first.other}" if first.other and not film else sheet.process)
        title = first.other if film else f"{sheet.stock.name}{batch}"
        made.append(CassetteLabel(title, tuple(lines)))
    return tuple(made)

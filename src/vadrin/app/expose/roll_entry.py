"""A roll that was shot without a plan, written down afterwards."""

from __future__ import annotations

from vadrin.app.entry.roll_line import RollLine, roll_typed
from vadrin.app.expose.exposing import mark_frame
from vadrin.app.library.named_records import developer_named, stock_named
from vadrin.app.plan.drafting import lay_out
from vadrin.app.stamps import fresh_uid, now
from vadrin.app.test_sheet import TestSheet, load_sheet
from vadrin.core.exposure.arithmetic import bracket
from vadrin.core.frames import FrameState
from vadrin.core.planning.test_kinds.speed import Speed
from vadrin.errors import EditRefusedError
from vadrin.notebook.records import Test
from vadrin.notebook.store import Notebook


def enter_roll(notebook: Notebook, stock: str, developer: str, dilution: str, words: str) -> Test:
    """Write a roll that was shot without a plan, as one edit.

    Frame numbers count the lit frames, from 1, blanks apart.

    Raises
    ------
    EditRefusedError
        If the line is not understood.
    """
    roll = roll_typed(words)
    with notebook.change(f"enter a roll of {stock}"):
        film = stock_named(notebook, stock)
        test = notebook.add(
            Test(
                uid=fresh_uid(), kind=Speed.key, stock_id=film.id,
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
        _mark_as_shot(notebook, sheet, roll)
    return test


def _mark_as_shot(notebook: Notebook, sheet: TestSheet, roll: RollLine) -> None:
    """Give every frame the state it was told to have; blanks that were not kept go."""
    frames, told = len(bracket(roll.first, roll.last, roll.step)), dict(roll.states)
    if not all(1 <= number <= frames for number in told):
        raise EditRefusedError(f"the roll has lit frames 1 to {frames}")
    blanks = [f.frame for _, f in sheet.frames() if f.frame.blank]
    lit = [f.frame for _, f in sheet.frames() if not f.frame.blank]
    for blank in blanks:
        if roll.blanks:
            mark_frame(notebook, blank, FrameState.EXPOSED)
        else:
            notebook.remove(blank)
    for number, each in enumerate(lit, start=1):
        mark_frame(notebook, each, told.get(number, FrameState.EXPOSED))

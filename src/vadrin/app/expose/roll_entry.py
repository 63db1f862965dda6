"""A roll that was shot without a plan, written down afterwards."""

from __future__ import annotations

from dataclasses import replace

from vadrin.app.document.test_loading import load_test
from vadrin.app.entry.roll_line import RollLine, roll_typed
from vadrin.app.expose.exposing import mark_frame
from vadrin.app.expose.wrong_setting import wrong_setting_of
from vadrin.app.library.named_records import batch_named, developer_phrased, stock_named
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.plan.drafting import lay_out
from vadrin.app.plan.usual_process import with_usual_process
from vadrin.app.stamps import fresh_uid, now
from vadrin.core.frames import FrameRole, FrameState
from vadrin.core.planning.test_types.speed import Speed
from vadrin.core.planning.test_types.wrong_setting import WrongSetting
from vadrin.errors import EditRefusedError
from vadrin.notebook.records import Frame, Strip, Test
from vadrin.notebook.store import Notebook


def enter_roll(notebook: Notebook, film: str, developer: str, dilution: str, words: str) -> Test:
    """Write a roll that was shot without a plan, as one edit.

    Frame numbers count from the first frame on the film. Its batch follows its name, as in
    ``Kelda Pan 200 batch K9``, where it is known. Nobody planned a time for it, so it has none; a
    roll of pictures takes the push and the time that a finding of its film asks for.

    Raises
    ------
    EditRefusedError
        If the line is not understood.
    """
    roll = roll_typed(words)
    name, _, batch = film.partition(" batch ")
    with notebook.change(f"enter a roll of {name.strip()}"):
        stock = stock_named(notebook, name.strip())
        kept = batch_named(notebook, stock.id, batch.strip()) if batch.strip() else None
        chemistry = developer_phrased(notebook, f"{developer} {dilution}".strip())
        test = notebook.add(
            Test(
                uid=fresh_uid(),
                kind=(WrongSetting if roll.pictures else Speed).key,
                stock_id=stock.id,
                batch_id=kept.id if kept else None,
                developer_id=chemistry.id,
                created_at=now(),
                exposure_index=roll.exposure_index or stock.box_speed,
                first_stop=roll.first,
                last_stop=roll.last,
                step=roll.step,
                blanks=max(1, roll.blanks),
                note=f"Entered afterwards: {words.strip()}",
            )
        )
        test = notebook.put(with_usual_process(notebook, test, None))
        if roll.pictures:
            _write_pictures(notebook, test, roll)
        else:
            lay_out(notebook, test, (8.0,))
        loaded = load_test(notebook, test.id)
        if loaded is None:
            raise EditRefusedError("the roll could not be written")
        _mark_as_shot(notebook, loaded, roll)
        wrong = wrong_setting_of(notebook, test)
        for strip in (s.strip for s in loaded.strips):
            asked = None if wrong is None else _to_five_seconds(wrong.minutes)
            push = strip.push if wrong is None else wrong.stops
            notebook.put(replace(strip, push=push, planned_min=asked))
    return test


def _to_five_seconds(minutes: float) -> float:
    """Minutes to the nearest five seconds, as they are timed."""
    return round(minutes * 12) / 12


def _write_pictures(notebook: Notebook, test: Test, roll: RollLine) -> None:
    """A roll of pictures: frames of an EI, whose exposures nobody measured."""
    strip = notebook.add(Strip(test_id=test.id, label="A"))
    count = roll.pictures + roll.blanks
    notebook.add_all(
        [
            Frame(
                strip_id=strip.id,
                position=i,
                turn=i,
                name=str(i + 1),
                role=FrameRole.BLANK if i < roll.blanks else FrameRole.PICTURE,
                exposure_index=None if i < roll.blanks else test.exposure_index,
            )
            for i in range(count)
        ]
    )


def _mark_as_shot(notebook: Notebook, loaded: LoadedTest, roll: RollLine) -> None:
    """Give every frame the state it was told to have; a blank that was not kept goes."""
    for blank in [f.frame for _, f in loaded.frames() if f.frame.blank]:
        if not roll.blanks:
            notebook.remove(blank)
    fresh = load_test(notebook, loaded.test.id) or loaded
    frames, told = [f.frame for _, f in fresh.frames()], dict(roll.states)
    if not all(1 <= number <= len(frames) for number in told):
        raise EditRefusedError(f"the roll has frames 1 to {len(frames)}")
    for number, each in enumerate(frames, start=1):
        if each.position != number - 1:
            # A blank that was not kept has gone from before it.
            each = notebook.put(replace(each, position=number - 1))
        mark_frame(notebook, each, told.get(number, FrameState.EXPOSED))

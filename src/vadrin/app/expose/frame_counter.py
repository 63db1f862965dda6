"""Where the camera's counter and the script came apart, and how to put it right."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from math import log2

from vadrin.app.expose.exposing import mark_frame, record
from vadrin.app.frame_order import Place, last_exposed, next_to_expose
from vadrin.app.stamps import now
from vadrin.app.test_sheet import TestSheet
from vadrin.core.frames import FrameRole, FrameState
from vadrin.notebook.records import Exposure, Frame, Strip
from vadrin.notebook.store import Notebook


@dataclass(frozen=True)
class CounterRemedy:
    """One way the camera's counter and the script can have come apart, and how to mend it."""

    words: str
    act: Callable[[Notebook], object]


def frames_wound(sheet: TestSheet) -> int:
    """The counter the camera should show: frames of the present roll that are done."""
    place = next_to_expose(sheet) or last_exposed(sheet)
    roll = place[0].strip.roll if place else 1
    shots = [f for s, f in sheet.shots() if s.strip.roll == roll]
    before = sheet.test.film.taken if roll == 1 and sheet.test.film else 0
    return before + sum(f.frame.state != FrameState.PLANNED for f in shots)


def counter_remedies(sheet: TestSheet, says: int) -> list[CounterRemedy]:
    """What may have happened when the camera's counter disagrees, the likeliest first."""
    apart = says - frames_wound(sheet)
    following, last = next_to_expose(sheet), last_exposed(sheet)
    if apart > 0:
        return _too_many_wound(following, last)
    if apart < 0 and last is not None:
        return _too_few_wound(sheet, last)
    return []


def _too_many_wound(following: Place | None, last: Place | None) -> list[CounterRemedy]:
    remedies = []
    if following is not None:
        ahead = following[1].frame
        remedies.append(
            CounterRemedy(
                f"frame {ahead.name} ({following[1].name}) was taken but not ticked: tick it",
                lambda book: mark_frame(book, ahead, FrameState.EXPOSED),
            )
        )
        remedies.append(
            CounterRemedy(
                "the film was wound on once without an exposure: keep that piece as lost",
                lambda book: _insert_lost(book, ahead),
            )
        )
    if last is not None and last[1].frame.wanted_stops is not None:
        before = last[1].frame
        remedies.append(
            CounterRemedy(
                f"frame {before.name} ({last[1].name}) was taken a second time on fresh film",
                lambda book: _repeat(book, before),
            )
        )
    return remedies


def _too_few_wound(sheet: TestSheet, last: Place) -> list[CounterRemedy]:
    frame = last[1].frame
    remedies = [
        CounterRemedy(
            f"frame {frame.name} ({last[1].name}) was ticked but not taken: take it back",
            lambda book: mark_frame(book, frame, FrameState.PLANNED),
        )
    ]
    done = [f.frame for _, f in sheet.shots() if f.frame.state != FrameState.PLANNED]
    if len(done) > 1 and done[-2].stops is not None and frame.stops is not None:
        under = done[-2]
        remedies.append(
            CounterRemedy(
                f"the film was not wound on: frames {under.name} and {frame.name} lie on one piece",
                lambda book: _pile(book, under, frame),
            )
        )
    return remedies


def _shift(notebook: Notebook, strip_id: int, position: int, turn: int) -> None:
    for each in notebook.all(Frame, strip_id=strip_id):
        if each.position >= position:
            notebook.put(replace(each, position=each.position + 1))
    strip = notebook.get(Strip, strip_id)
    for mate in notebook.all(Strip, test_id=strip.test_id) if strip else []:
        for each in notebook.all(Frame, strip_id=mate.id):
            if each.turn >= turn:
                notebook.put(replace(each, turn=each.turn + 1))


def _insert_lost(notebook: Notebook, ahead: Frame) -> None:
    with notebook.change("a piece was wound on"):
        _shift(notebook, ahead.strip_id, ahead.position, ahead.turn)
        notebook.add(
            Frame(
                strip_id=ahead.strip_id,
                position=ahead.position,
                turn=ahead.turn,
                role=FrameRole.LOST,
                name="wound on",
                state=FrameState.EXPOSED,
                exposed_at=now(),
            )
        )


def _repeat(notebook: Notebook, frame: Frame) -> None:
    with notebook.change(f"frame {frame.name} taken again"):
        _shift(notebook, frame.strip_id, frame.position + 1, frame.turn + 1)
        again = replace(frame, id=0, position=frame.position + 1, turn=frame.turn + 1,
                        name=f"{frame.name} again", exposed_at=now())  # fmt: skip
        written = notebook.add(again)
        notebook.add(Exposure(frame_id=written.id, exposed_at=now(), stops=again.stops))


def _pile(notebook: Notebook, under: Frame, over: Frame) -> None:
    """Two frames on one piece of film: their light adds up, and one piece fewer is used."""
    both = log2(2.0 ** (under.stops or 0.0) + 2.0 ** (over.stops or 0.0))
    with notebook.change(f"frames {under.name} and {over.name} on one piece"):
        shots = [(f.stops, f.seconds, f.aperture) for f in (under, over)]
        record(notebook, under, FrameState.DOUBLED, round(both, 4), shots)
        mark_frame(notebook, over, FrameState.PLANNED)

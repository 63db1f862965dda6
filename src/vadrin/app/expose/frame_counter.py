"""Where the camera's counter and the script came apart, and how to put it right."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from math import log2

from vadrin.app.expose.exposing import mark_frame, record
from vadrin.app.loaded.frame_order import Place, last_exposed, next_to_expose
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.stamps import now
from vadrin.core.frames import FrameRole, FrameState
from vadrin.notebook.records import Exposure, Frame, Strip
from vadrin.notebook.store import Notebook


@dataclass(frozen=True)
class CounterRemedy:
    """One way the camera's counter and the script can have come apart, and how to mend it."""

    words: str
    act: Callable[[Notebook], object]


def frames_wound(loaded: LoadedTest) -> int:
    """The counter the camera should show: frames of the present roll that are done."""
    place = next_to_expose(loaded) or last_exposed(loaded)
    roll = place[0].strip.roll if place else 1
    shots = [f for s, f in loaded.shots() if s.strip.roll == roll]
    before = loaded.test.film.taken if roll == 1 and loaded.test.film else 0
    return before + sum(f.frame.state != FrameState.PLANNED for f in shots)


def counter_remedies(loaded: LoadedTest, says: int) -> list[CounterRemedy]:
    """What may have happened when the camera's counter disagrees, the likeliest first."""
    apart = says - frames_wound(loaded)
    if apart > 0:
        return _too_many_wound(loaded, apart)
    return _too_few_wound(loaded, -apart) if apart < 0 else []


def _span(loaded: LoadedTest, places: list[Place]) -> str:
    """``frame 4 (−3)``, or ``frames 6 to 9``, with the strip where there are several."""
    strip, first = places[0]
    if len(places) == 1:
        return loaded.called(strip, first)
    last_strip, last = places[-1]
    if last_strip is not strip:
        return f"{loaded.called(strip, first)} to {loaded.called(last_strip, last)}"
    where = "" if len(loaded.strips) == 1 else f"strip {strip.strip.label}, "
    return f"{where}frames {first.number} to {last.number}"


def _were(count: int) -> str:
    return "was" if count == 1 else "were"


def _too_many_wound(loaded: LoadedTest, count: int) -> list[CounterRemedy]:
    coming = [place for place in loaded.shots() if place[1].frame.state == FrameState.PLANNED]
    last = last_exposed(loaded)
    remedies = []
    if len(coming) >= count:
        untold = coming[:count]
        them = "it" if count == 1 else "them"
        words = f"{_span(loaded, untold)} {_were(count)} taken but not ticked: tick {them}"
        remedies.append(
            CounterRemedy(words, lambda book: _mark_all(book, untold, FrameState.EXPOSED))
        )
    if coming:
        ahead = coming[0][1].frame
        times, frames = ("once", "that frame") if count == 1 else (f"{count} times", "those frames")
        words = f"the film was wound on {times} without an exposure: keep {frames} as lost"
        remedies.append(CounterRemedy(words, lambda book: _insert_lost(book, ahead, count)))
    if count == 1 and last is not None and last[1].frame.wanted_stops is not None:
        before = last[1].frame
        words = f"{loaded.called(*last)} was taken a second time on fresh film"
        remedies.append(CounterRemedy(words, lambda book: _repeat(book, before)))
    return remedies


def _too_few_wound(loaded: LoadedTest, count: int) -> list[CounterRemedy]:
    done = [place for place in loaded.shots() if place[1].frame.state != FrameState.PLANNED]
    if len(done) < count:
        return []
    untaken = done[-count:]
    them = "it" if count == 1 else "them"
    words = f"{_span(loaded, untaken)} {_were(count)} ticked but not taken: take {them} back"
    back = CounterRemedy(words, lambda book: _mark_all(book, untaken, FrameState.PLANNED))
    if count > 1 or len(done) < 2:
        return [back]
    (strip, under), (_, over) = done[-2:]
    if under.frame.stops is None or over.frame.stops is None:
        return [back]
    words = f"Film not advanced: {_span(loaded, done[-2:])} share one frame"
    if done[-1][0] is not strip:
        words = "Film not advanced: the last two exposures share one frame"
    return [back, CounterRemedy(words, lambda book: _pile(book, under.frame, over.frame))]


def _mark_all(notebook: Notebook, places: list[Place], state: FrameState) -> None:
    first, last = places[0][1].number, places[-1][1].number
    span = f"frame {first}" if len(places) == 1 else f"frames {first} to {last}"
    with notebook.change(f"{'take back' if state == FrameState.PLANNED else 'tick'} {span}"):
        for _, frame in places:
            mark_frame(notebook, frame.frame, state)


def _shift(notebook: Notebook, strip_id: int, position: int, turn: int, by: int = 1) -> None:
    for each in notebook.all(Frame, strip_id=strip_id):
        if each.position >= position:
            notebook.put(replace(each, position=each.position + by))
    strip = notebook.get(Strip, strip_id)
    for mate in notebook.all(Strip, test_id=strip.test_id) if strip else []:
        for each in notebook.all(Frame, strip_id=mate.id):
            if each.turn >= turn:
                notebook.put(replace(each, turn=each.turn + by))


def _insert_lost(notebook: Notebook, ahead: Frame, count: int) -> None:
    with notebook.change("film wound on without exposure"):
        _shift(notebook, ahead.strip_id, ahead.position, ahead.turn, count)
        notebook.add_all(
            [
                Frame(
                    strip_id=ahead.strip_id,
                    position=ahead.position + i,
                    turn=ahead.turn + i,
                    role=FrameRole.LOST,
                    name="wound on",
                    state=FrameState.EXPOSED,
                    exposed_at=now(),
                )
                for i in range(count)
            ]
        )


def _repeat(notebook: Notebook, frame: Frame) -> None:
    with notebook.change(f"frame {frame.position + 1} taken again"):
        _shift(notebook, frame.strip_id, frame.position + 1, frame.turn + 1)
        again = replace(
            frame,
            id=0,
            position=frame.position + 1,
            turn=frame.turn + 1,
            name=f"{frame.name} again",
            exposed_at=now(),
        )
        written = notebook.add(again)
        notebook.add(Exposure(frame_id=written.id, exposed_at=now(), stops=again.stops))


def _pile(notebook: Notebook, under: Frame, over: Frame) -> None:
    """Two exposures on one frame of film: their light adds up, and one frame fewer is used."""
    both = log2(2.0 ** (under.stops or 0.0) + 2.0 ** (over.stops or 0.0))
    with notebook.change(f"frames {under.position + 1} and {over.position + 1} on one frame"):
        shots = [(f.stops, f.seconds, f.aperture) for f in (under, over)]
        record(notebook, under, FrameState.DOUBLED, round(both, 4), shots)
        mark_frame(notebook, over, FrameState.PLANNED)

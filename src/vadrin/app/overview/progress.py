"""The true state of each step of a test, in words."""

from __future__ import annotations

from dataclasses import dataclass

from vadrin.app.descriptions import own_answer
from vadrin.app.display.quantities import minutes_text
from vadrin.app.display.words import counted, date_text
from vadrin.app.document.state import State
from vadrin.app.loaded.black_setup import black_setup
from vadrin.app.loaded.light_boxes import judged_of
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.results.rating import rating_of
from vadrin.core.exposure.arithmetic import marked_ei


@dataclass(frozen=True)
class StepState:
    """What a step of the work has come to."""

    words: str
    done: bool


def _curves(state: State) -> StepState:
    loaded, analysis = state.loaded, state.analysis
    count = len(analysis.strips) if analysis else 0
    if not count:
        return StepState("—", False)
    return StepState(f"{count} fitted", count == len(loaded.strips))


def _finding(state: State) -> StepState:
    analysis = state.analysis
    if analysis is None:
        return StepState("—", False)
    own = own_answer(state)
    if own is not None:
        return StepState(own.says or "not yet", bool(own.says))
    answer = rating_of(state)
    if not analysis.strips and not answer.index.present:
        return StepState("—", False)
    index, time = answer.index.value, answer.time_min.value
    if index is None or time is None:
        return StepState("no time yet", False)
    return StepState(f"EI {marked_ei(index)}, {minutes_text(time)}", True)


def _print(loaded: LoadedTest) -> StepState:
    setup = black_setup(loaded)
    if setup is None:
        return StepState("begun" if loaded.setups else "—", False)
    return StepState(f"black at {setup.black_s:.1f} s", True)


def _read_words(loaded: LoadedTest, read: int) -> str:
    if not loaded.on_film:
        return f"{counted(read, 'point')} traced" if read else "not traced"
    looks = sum(len(judged_of(s)) for s in loaded.strips)
    if read or not looks:
        return f"{read} of {counted(loaded.readable(), 'frame')}" if read else "not begun"
    return f"{counted(looks, 'look')} by eye"


def steps_of(state: State | None) -> dict[str, StepState]:
    """State of every station of a test."""
    if state is None:
        return {}
    loaded = state.loaded
    total = len(loaded.frames())
    exposed, processed = loaded.exposed(), loaded.processed()
    # A frame may be called spoilt after it was read.
    read = sum(f.readable and f.density is not None for _, f in loaded.frames())
    strips = len(loaded.strips)
    card = f"decided {date_text(loaded.findings[-1].decided_at)}" if loaded.findings else "—"
    steps = {
        "plan": StepState(f"{counted(total, 'frame')}, {counted(strips, 'strip')}", total > 0),
        "expose": StepState(f"{exposed} of {total}" if exposed else "not begun", exposed == total),
        "process": StepState(
            f"{processed} of {counted(strips, 'strip')}" if processed else "not begun",
            processed == strips,
        ),
        "read": StepState(_read_words(loaded, read), 0 < read == loaded.readable()),
        "curves": _curves(state),
        "print": _print(loaded),
        "finding": _finding(state),
        "cards": StepState(card, bool(loaded.findings)),
    }
    return steps if loaded.on_film else steps | _of_a_sheet(loaded)


def _of_a_sheet(loaded: LoadedTest) -> dict[str, StepState]:
    """The steps that a data sheet has otherwise than film."""
    told = len(loaded.makers)
    times = f"{counted(told, 'time')} of the maker's" if told else "no times yet"
    return {
        "plan": StepState(counted(len(loaded.strips), "curve"), True),
        "expose": StepState("nothing to expose", True),
        "process": StepState(times, bool(told)),
    }

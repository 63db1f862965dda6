"""Where the numbers of a finding come from, in a sentence each, for whoever asks."""

from __future__ import annotations

from vadrin.app.descriptions import answers_itself, own_answer
from vadrin.app.display.words import date_text
from vadrin.app.document.state import State
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.loaded.once import once
from vadrin.app.results.between_strips import between_strips
from vadrin.app.results.conditions import conditions_told
from vadrin.app.results.rating import rating_of
from vadrin.core.results.common_error import shared_error
from vadrin.core.wording import counted, list_text


@once
def provenance(state: State) -> tuple[str, ...]:
    """Where EI and time come from, or what an answer in other words rests on; nothing for a test
    that is still being worked out, or of which nothing was seen."""
    if state.analysis is None:
        return ()
    if answers_itself(state.loaded.test.kind):
        seen = _seen(state.loaded)
        return (f"The answer rests on {seen}.",) if seen else ()
    return tuple(words for words in (_of_index(state), _of_time(state)) if words)


def _seen(loaded: LoadedTest) -> str:
    """Everything that was read, judged or printed of a test, counted."""
    read = sum(f.density is not None for _, f in loaded.frames())
    looks = sum(not j.left_out for s in loaded.strips for j in s.judgements)
    looks += sum(not j.left_out for _, f in loaded.frames() for j in f.judgements)
    prints = len(loaded.covered) + sum(bool(s.black_s) for s in loaded.setups)
    counts = (
        f"{counted(read, 'frame')}{_when_read(loaded)}" if read else "",
        f"{counted(looks, 'look')} by eye" if looks else "",
        f"{counted(prints, 'print')}" if prints else "",
    )
    return list_text(tuple(c for c in counts if c))


def _of_index(state: State) -> str:
    rating, analysis = rating_of(state), state.settled()
    if not rating.index.present:
        return ""
    if rating.judged is not None:
        return f"EI judged by eye, {rating.judged.way.method.caption}; no density decides it."
    read = [s for s in state.loaded.strips if any(f.density is not None for f in s.frames)]
    frames = sum(f.density is not None for s in read for f in s.frames)
    counts = f"{counted(len(read), 'strip')}, {counted(frames, 'frame')}"
    return f"EI found from {counts}{_when_read(state.loaded)}; {analysis.method.caption}."


def _when_read(loaded: LoadedTest) -> str:
    days = sorted(
        reading.read_at[:10]
        for strip in loaded.strips
        for frame in strip.frames
        for reading in frame.readings
        if reading.read_at and not reading.left_out
    )
    if not days:
        return ""
    first, last = date_text(days[0]), date_text(days[-1])
    return f", read {first}" if first == last else f", read {first} to {last}"


def _of_time(state: State) -> str:
    rating, finding = rating_of(state), state.settled().finding
    if rating.as_developed:
        return "The time is that of the one development there was; nothing shows another."
    if finding.time_min.value is not None:
        return f"Time found {between_strips(state.settled(), finding.time_min.value)}."
    if finding.rule_of_thumb_min.value is not None:
        return "The time is a rule of thumb; nothing of it was measured."
    return ""


def rests_on(state: State) -> tuple[str, ...]:
    """Where a test's numbers come from, and how each condition is known, a sentence each."""
    told = (*provenance(state), *_shared(state), *conditions_told(state.loaded))
    whose = state.loaded.test.taken_from
    return (*told, f"The test was taken in from {whose}.") if told and whose else told


def _shared(state: State) -> tuple[str, ...]:
    """What readings off pictures have in common, where a number rests on them."""
    error = shared_error(state.question.strips)
    if not error or state.analysis is None:
        return ()
    return (
        f"Read off pictures: an error of scale of {error:.0%}, theirs in common, is in the ranges.",
    )


def where_from(state: State) -> tuple[str, ...]:
    """The same; where nothing was seen, what the answer goes by instead."""
    told = rests_on(state)
    if told:
        return told
    nothing = "Nothing of this test itself was read or judged."
    own = own_answer(state) if state.analysis is not None else None
    if own is None or not own.says:
        return (f"{nothing} No number rests on anything yet.",)
    return (nothing, f"{own.words[:1].upper()}{own.words[1:]}.")

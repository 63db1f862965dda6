"""The headline of a test in words: what was found, and how sure that is."""

from __future__ import annotations

from dataclasses import dataclass

from vadrin.app.descriptions import own_answer
from vadrin.app.display.marks import marked_ei
from vadrin.app.display.quantities import (
    ei_range_text,
    ei_stops_text,
    minutes_range_text,
    minutes_text,
)
from vadrin.app.document.state import State
from vadrin.app.loaded.once import once
from vadrin.app.loaded.reference_temperature import reference_words
from vadrin.app.results.conditions import planned_words
from vadrin.app.results.light_box_ei import beside_the_light_box
from vadrin.app.results.next_act import next_act
from vadrin.app.results.push_rows import RULE_NAMES, PushLine, push_lines
from vadrin.app.results.rating import rating_of
from vadrin.app.results.target_words import target_text


@dataclass(frozen=True)
class Headline:
    """The finding so far, in words ready to show."""

    index: str
    index_note: str
    time: str
    time_note: str
    pushes: tuple[PushLine, ...]
    next_act: str
    push_rule: str
    for_target: bool = True
    by_rule: bool = False
    index_value: float | None = None
    """The EI that densities tell; None where none were read, whatever else it is rated by."""
    own: bool = False
    """Whether it is an answer of a kind's own, in words rather than an EI."""


def _index_by_strip(state: State, why: str) -> tuple[str, str]:
    """The EI of the strip nearest to what was asked for, where there is none for the target."""
    loaded, analysis = state.loaded, state.settled()
    others = loaded.others()
    rates_by = analysis.method.rates_by
    known = [
        (s, getattr(s, rates_by))
        for s in analysis.strips
        if s.label not in others and s.restated_min and getattr(s, rates_by).value is not None
    ]
    if not known:
        return "", why
    bound = analysis.finding.nearest_tested_min
    near, index = known[len(known) // 2]
    if bound is not None:
        near, index = min(known, key=lambda p: abs((p[0].restated_min or 0.0) - bound))
    each = ", ".join(f"{s.label} {marked_ei(i.known())}" for s, i in known)
    time = minutes_text(near.restated_min or 0.0)
    note = f"as strip {near.label} was developed, {time} min"
    if len(known) > 1:
        note += f" (each strip: {each})"
    return f"EI {marked_ei(index.known())}", f"{note}; {why}"


@once
def headline_of(state: State) -> Headline:
    """The finding so far of a test."""
    loaded, analysis = state.loaded, state.analysis
    own = own_answer(state)
    if own is not None:
        words = f"{own.words[:1].upper()}{own.words[1:]}"
        return Headline(own.says, words, "", "", (), own.act, "", own=True)
    if analysis is None:
        return Headline("", "working it out …", "", "", (), "", RULE_NAMES[loaded.test.push_rule])
    finding, answer = analysis.finding, rating_of(state)
    rated = answer.index
    index, index_note = "", rated.why
    if rated.value is not None:
        index = f"EI {marked_ei(rated.value)}"
        by = (answer.judged.way.method if answer.judged else analysis.method).caption
        index_note = f"{ei_range_text(rated)} · {ei_stops_text(rated)} · {by}"
        index_note += "" if answer.by_eye else beside_the_light_box(loaded, rated.value)
    else:
        index, index_note = _index_by_strip(state, rated.why)
    time, time_note, warmth = "", "", reference_words(loaded)
    if answer.as_developed and answer.ready:
        time = f"{minutes_text(answer.time_min.known())} min"
        how = "as developed"
        if planned_words(loaded):
            how = "as planned, not noted: write down at Process what it really got"
        time_note = f"{how}, at {warmth}; one time cannot show others"
    elif answer.as_developed:
        time_note = f"as developed; {finding.time_min.why}"
    elif finding.time_min.value is not None:
        time = f"{minutes_text(finding.time_min.value)} min"
        time_note = f"{minutes_range_text(finding.time_min)}, at {warmth}"
    if finding.rule_of_thumb_min.value is not None:
        thumb = minutes_text(finding.rule_of_thumb_min.value)
        words = f"rule of thumb, not measured: about {thumb}"
        if time_note:
            words += f" would meet {target_text(finding.target.kind, finding.target.value)}"
        time_note = f"{time_note}. {words[0].upper()}{words[1:]}" if time_note else words
    act = next_act(state)
    pushes = tuple(line for line in push_lines(analysis, loaded.test.push_rule) if line.known)
    met = not answer.as_developed
    return Headline(
        index,
        index_note,
        time,
        time_note,
        pushes,
        act,
        RULE_NAMES[loaded.test.push_rule],
        met,
        finding.rule_of_thumb_min.present,
        analysis.rated_index.value if analysis.strips else None,
    )

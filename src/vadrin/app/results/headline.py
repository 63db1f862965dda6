"""The headline of a test in words: what was found, and the one next act that would help."""

from __future__ import annotations

from dataclasses import dataclass

from vadrin.app.display.quantities import (
    ei_range_text,
    ei_stops_text,
    loss_text,
    minutes_range_text,
    minutes_text,
    push_name,
)
from vadrin.app.results.answer import AS_DEVELOPED, answer_of
from vadrin.app.results.darkroom_card import target_text
from vadrin.app.test_sheet import TestSheet
from vadrin.core.exposure.arithmetic import STOP, marked_ei, meter_point, stops_text
from vadrin.core.results.analysis import Analysis
from vadrin.core.results.next_step import Act
from vadrin.core.results.push import SALVAGE, THIN, verdict

SCHOOL_WORDS = {
    "shadow": "shadow school, Zone I at 0.10",
    "standard": "standard school, 0.8 / H at this contrast",
}


@dataclass(frozen=True)
class PushLine:
    """One push or pull as the finding column shows it."""

    index: str
    name: str
    time: str
    loss: str
    verdict: str
    grave: bool


@dataclass(frozen=True)
class Headline:
    """The finding so far, in words ready to show."""

    index: str
    index_note: str
    time: str
    time_note: str
    pushes: tuple[PushLine, ...]
    next_act: str
    for_target: bool = True


def push_lines(analysis: Analysis) -> tuple[PushLine, ...]:
    """The push table by holding the highlight, in words."""
    lines = []
    for push in analysis.push:
        index = push.exposure_index.value
        if index is None:
            continue
        held = push.hold_highlight
        loss = held.shadow_loss_stops.value
        if held.time_min.value is None or loss is None:
            lines.append(
                PushLine(str(marked_ei(index)), push_name(push.stops), "not tested", "", "", False)
            )
            continue
        time = minutes_text(held.time_min.value)
        grave = loss > THIN
        name, word = push_name(push.stops), verdict(loss)
        lines.append(PushLine(str(marked_ei(index)), name, time, loss_text(loss), word, grave))
    return tuple(lines)


def next_act(sheet: TestSheet, analysis: Analysis) -> str:
    """The single next act that would firm the finding up most, as a sentence."""
    serious = [w for w in analysis.diagnostics if w.severity.value == "serious" and w.frames]
    if serious:
        first = serious[0]
        return f"Read strip {first.strip}, frame {first.frames[0]} again."
    if not analysis.strips:
        unread = sheet.exposed() == len(sheet.frames()) and sheet.processed() > 0
        return "Read the blank frames first, then the rest." if unread else ""
    answer = answer_of(sheet, analysis)
    if answer.target_kind == AS_DEVELOPED and answer.ready:
        return _CHECK
    times = sorted({round(s.restated_min, 2) for s in analysis.strips if s.restated_min})
    if len(times) == 1:
        return f"Develop a second strip for about {minutes_text(times[0] * 1.5)}."
    if len(times) == 2:
        return f"Develop a third strip for about {minutes_text(times[-1] * 1.4)}."
    if not analysis.finding.tested and analysis.finding.nearest_tested_min:
        bound = analysis.finding.nearest_tested_min
        more = bound >= times[-1]
        return f"Run a strip for about {minutes_text(bound * (1.4 if more else 0.7))}."
    missing = [p for p in analysis.push if not p.hold_highlight.tested]
    worth = [p for p in missing if abs(p.stops) <= SALVAGE]
    if worth:
        longer = worth[0].stops > 0
        aim = times[-1] * 1.4 if longer else times[0] * 0.7
        return f"A strip at about {minutes_text(aim)} would answer {push_name(worth[0].stops)}."
    return _firmest(sheet, analysis)


_CHECK = "Check it on paper: print the frame four stops under the meter."
_WORTH = 0.06
"""An act that narrows the answer by less than this is not worth a frame."""


def _firmest(sheet: TestSheet, analysis: Analysis) -> str:
    """The act of the greatest expected gain, or the check on paper where none is worth it."""
    step = analysis.next_steps[0] if analysis.next_steps else None
    if step is None or step.narrowing < _WORTH:
        return _CHECK
    gain = f"about {step.narrowing:.0%} narrower"
    if step.act is Act.RUN_STRIP and step.time_min:
        return f"One more strip at {minutes_text(step.time_min)} makes the EI's range {gain}."
    if step.act is Act.REPEAT_FRAME:
        return f"Read strip {step.strip}, frame {step.frame} again: the EI's range gets {gain}."
    meter = meter_point(sheet.test.exposure_index, sheet.test.meter_constant)
    stops = stops_text(round(((step.log_h or meter) - meter) / STOP * 2) / 2, signed=True)
    return f"A frame at {stops} stops on strip {step.strip} makes the EI's range {gain}."


def headline_of(sheet: TestSheet, analysis: Analysis | None) -> Headline:
    """The finding so far of a test."""
    if analysis is None:
        return Headline("", "working it out …", "", "", (), "")
    finding, answer = analysis.finding, answer_of(sheet, analysis)
    rated = answer.index
    index, index_note = "", rated.why
    if rated.value is not None:
        index = f"EI {marked_ei(rated.value)}"
        school = SCHOOL_WORDS[analysis.settings.school]
        index_note = f"{ei_range_text(rated)} · {ei_stops_text(rated)} · {school}"
    time, time_note = "", ""
    if answer.target_kind == AS_DEVELOPED and answer.ready:
        time = f"{minutes_text(answer.time_min.known())} min"
        time_note = "as it was developed, at 20 °C; one time tells no other"
    elif answer.target_kind == AS_DEVELOPED:
        time_note = f"as it was developed; {finding.time_min.why}"
    elif finding.time_min.value is not None:
        time = f"{minutes_text(finding.time_min.value)} min"
        time_note = f"{minutes_range_text(finding.time_min)}, at 20 °C"
    if finding.rule_of_thumb_min.value is not None:
        thumb = minutes_text(finding.rule_of_thumb_min.value)
        words = f"rule of thumb, not measured: about {thumb}"
        if time_note:
            words += f" would meet {target_text(finding.target.kind, finding.target.value)}"
        time_note = f"{time_note}. {words[0].upper()}{words[1:]}" if time_note else words
    act = next_act(sheet, analysis)
    pushes, met = push_lines(analysis), answer.target_kind != AS_DEVELOPED
    return Headline(index, index_note, time, time_note, pushes, act, met)

"""The one next act that would firm a test's answer up, as a sentence."""

from __future__ import annotations

from dataclasses import replace

from vadrin.app.display.marks import stops_text
from vadrin.app.display.quantities import minutes_text, push_name
from vadrin.app.display.words import counted
from vadrin.app.document.state import State
from vadrin.app.loaded.once import once
from vadrin.app.results.conditions import planned_diagnostics
from vadrin.app.results.rating import rating_of
from vadrin.core.diagnostic import Diagnostic, Severity
from vadrin.core.exposure.arithmetic import STOP, meter_point
from vadrin.core.frames import FrameState
from vadrin.core.results.next_step import Act
from vadrin.core.results.push import SALVAGE


@once
def next_act(state: State) -> str:
    """The single next act that would firm the finding up most, as a sentence."""
    loaded, analysis = state.loaded, state.settled()
    serious = [w for w in analysis.diagnostics if w.severity is Severity.SERIOUS and w.frames]
    if serious:
        first = serious[0]
        return f"Read strip {first.strip}, frame {first.frames[0]} again."
    planned = planned_diagnostics(loaded)
    if planned and analysis.strips:
        return planned[0].remedy
    if not analysis.strips and rating_of(state).by_eye:
        return ""
    if not analysis.strips:
        unread = loaded.exposed() == len(loaded.frames()) and loaded.processed() > 0
        return "Read the blank frames first, then the rest." if unread else ""
    answer = rating_of(state)
    if answer.as_developed and answer.ready:
        return _CHECK
    waiting = waiting_act(state)
    if waiting:
        return waiting
    times = sorted({round(s.restated_min, 2) for s in analysis.strips if s.restated_min})
    if not times:
        return "Enter the development times at Process."
    if len(times) == 1:
        return f"Develop a second strip for about {minutes_text(times[0] * 1.5)} min."
    if len(times) == 2:
        return f"Develop a third strip for about {minutes_text(times[-1] * 1.4)} min."
    if not analysis.finding.tested and analysis.finding.nearest_tested_min:
        bound = analysis.finding.nearest_tested_min
        more = bound >= times[-1]
        return f"Run a strip for about {minutes_text(bound * (1.4 if more else 0.7))} min."
    missing = [p for p in analysis.push if not p.by(loaded.test.push_rule).tested]
    worth = [p for p in missing if abs(p.stops) <= SALVAGE]
    if worth:
        longer = worth[0].stops > 0
        aim = times[-1] * 1.4 if longer else times[0] * 0.7
        tested = push_name(worth[0].stops)
        return f"Develop a strip for about {minutes_text(aim)} min to test {tested}."
    return _firmest(state)


@once
def waiting_act(state: State) -> str:
    """What lies on the bench already and would tell more, in a sentence; empty for nothing."""
    loaded, analysis = state.loaded, state.settled()
    fitted = {s.label for s in analysis.strips}
    for strip in loaded.strips:
        unread = [f for f in strip.frames if f.readable and not f.readings]
        label, minutes = strip.strip.label, strip.strip.time_min
        if minutes is None or not unread:
            continue
        if label in fitted:
            many = counted(len(unread), "frame").removeprefix("1 ")
            return f"Read the other {many} of strip {label}."
        return f"Read strip {label}: it was developed {minutes_text(minutes, True)} min and waits."
    for strip in loaded.strips:
        label, planned = strip.strip.label, strip.strip.planned_min
        if label in fitted or strip.strip.time_min is not None or planned is None:
            continue
        taken = all(f.frame.state != FrameState.PLANNED for f in strip.frames)
        act = "Develop" if taken else "Expose"
        return f"{act} strip {label}, planned for {minutes_text(planned, True)} min."
    return ""


@once
def mended(state: State) -> tuple[Diagnostic, ...]:
    """The warnings of a test; one that asks for a strip names the one that lies there already."""
    analysis = state.settled()
    waiting = waiting_act(state)
    asks_for_a_strip = ("one time", "two times", "not tested")
    return tuple(
        replace(w, remedy=waiting) if waiting and w.key in asks_for_a_strip else w
        for w in analysis.diagnostics
    )


_CHECK = "Check it on paper: print the frame four stops under the meter."
_WORTH = 0.06
"""An act that narrows the answer by less than this is not worth a frame."""


def _firmest(state: State) -> str:
    """The act of the greatest expected gain, or the check on paper where none is worth it."""
    loaded, analysis = state.loaded, state.settled()
    step = analysis.next_steps[0] if analysis.next_steps else None
    if step is None or step.narrowing < _WORTH:
        return _CHECK
    gain = f"about {step.narrowing:.0%}"
    if step.act is Act.RUN_STRIP and step.time_min:
        return f"A strip at {minutes_text(step.time_min)} min would narrow the EI range by {gain}."
    if step.act is Act.REPEAT_FRAME:
        return f"Read strip {step.strip}, frame {step.frame} again: the EI's range gets {gain}."
    meter = meter_point(loaded.test.exposure_index, loaded.test.meter_constant)
    stops = stops_text(round(((step.log_h or meter) - meter) / STOP * 2) / 2, signed=True)
    return f"A frame at {stops} stops on strip {step.strip} makes the EI's range {gain}."

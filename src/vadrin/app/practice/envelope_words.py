"""The envelope opened: the truth beside what was decided and beside what the readings told."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

from vadrin.app.display.marks import marked_ei
from vadrin.app.display.quantities import minutes_text
from vadrin.app.practice.practice_questions import UNKNOWN, Measure
from vadrin.core.figure import Figure

if TYPE_CHECKING:
    from vadrin.core.results.analysis_result import Analysis


@dataclass(frozen=True)
class Committed:
    """What a tester decided before the envelope was opened; None where nothing was."""

    exposure_index: float | None = None
    time_min: float | None = None


def holds(figure: Figure, true: float | None) -> bool | None:
    """Whether a range holds the truth; None where there is no range, or no truth."""
    if true is None or figure.low is None or figure.high is None:
        return None
    return figure.low <= true <= figure.high


def _held_words(held: bool | None) -> str:
    return {True: "its range holds it", False: "its range misses it", None: "no range"}[held]


def envelope_lines(truth: dict[str, Any], mine: Committed, told: Analysis) -> list[str]:
    """The truth, one's own word and the program's beside it, and what went wrong.

    Parameters
    ----------
    truth : dict
        As it was sealed.
    mine : Committed
    told : Analysis
        Of the readings in the same folder.
    """
    found = truth["finding"]
    index, time = found["zone_ei"], found["time_min"]
    finding = told.finding
    shown_index = UNKNOWN if index is None else f"EI {marked_ei(index)}"
    shown_time = UNKNOWN if time is None else f"{minutes_text(time)} min"
    inside = "" if found["tested"] else ", which the times that were tried do not reach"
    lines = [
        f"The film: {truth['shape']}, {truth['box_speed']:g} on its box, level {truth['level']}.",
        f"True: {shown_index}, {shown_time}, for average gradient 0.58{inside}.",
    ]
    if mine.exposure_index or mine.time_min:
        lines.append(
            f"Yours: EI {Measure.EI.off_words(mine.exposure_index, index)}, "
            f"time {Measure.MINUTES.off_words(mine.time_min, time)}."
        )
    ei, minutes = finding.zone_ei, finding.time_min
    lines.append(
        f"The readings, by the program: EI {Measure.EI.off_words(ei.value, index)} "
        f"({_held_words(holds(ei, index))}), time {Measure.MINUTES.off_words(minutes.value, time)} "
        f"({_held_words(holds(minutes, time))})."
    )
    lines += [f"Set in it: {trap}." for trap in truth["traps"]] or ["Nothing went wrong in it."]
    lines += [f"Told of it: {d.sentence}" for d in told.diagnostics]
    return lines

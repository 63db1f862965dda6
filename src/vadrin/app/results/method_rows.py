"""The methods side by side, in words."""

from __future__ import annotations

from dataclasses import dataclass

from vadrin.app.display.marks import marked_ei, stops_counted
from vadrin.app.display.quantities import minutes_text
from vadrin.app.entry.choices import choice_typed
from vadrin.core.figure import Figure
from vadrin.core.process.rules_on_trial import Trial, score_of
from vadrin.core.results.analysis_result import Analysis
from vadrin.core.results.method_answers import MethodAnswer
from vadrin.core.results.rating_method import RATING_METHODS

RATING_METHOD_NAMES = tuple(RATING_METHODS)
"""The methods one can rate film by."""


@dataclass(frozen=True)
class MethodLine:
    """One method's answer in words; `chosen` where the film is rated by it."""

    name: str
    index: str
    time: str
    why: str
    chosen: bool


def _index(figure: Figure) -> str:
    return "—" if figure.value is None else str(marked_ei(figure.value))


def _time(figure: Figure) -> str:
    return "—" if figure.value is None else minutes_text(figure.value)


def _rates(answer: MethodAnswer, analysis: Analysis) -> bool:
    """Whether a method's answer is the one the film is rated by: same EI at the same time."""
    rated, time = analysis.rated_index.value, analysis.finding.time_min.value
    return rated is not None and (answer.exposure_index.value, answer.time_min.value) == (
        rated,
        time,
    )


def method_lines(analysis: Analysis) -> tuple[MethodLine, ...]:
    """Every method's answer from the same readings; what equals the finding is marked."""
    return tuple(
        MethodLine(
            answer.method.name,
            _index(answer.exposure_index),
            _time(answer.time_min),
            (answer.exposure_index.why or answer.sentence)
            + (" Equals your EI and time." if _rates(answer, analysis) else ""),
            _rates(answer, analysis),
        )
        for answer in analysis.methods
    )


def other_methods(analysis: Analysis) -> str:
    """What other EI methods find in the same readings, in a line; empty where nothing else."""
    told = [
        f"{line.name} EI {line.index}, {line.time}"
        for line in method_lines(analysis)
        if not line.chosen and line.index != "—"
    ]
    return f"By other EI methods: {'; '.join(told)}." if told else ""


def method_typed(words: str) -> str:
    """The method that is meant.

    Raises
    ------
    EntryError
        Listing the methods there are.
    """
    return choice_typed(words, RATING_METHOD_NAMES, anywhere=True)


def _share_score(analysis: Analysis) -> str:
    """How the fixed share fares beside the pushes measured here; empty where none was."""
    trials = []
    for push in analysis.push:
        measured = push.hold_highlight.time_min.value
        said = push.fixed_share.time_min.value
        if push.stops and measured is not None and said is not None:
            trials.append(Trial(said, measured))
    score = score_of(tuple(trials))
    if score.ratio is None:
        return ""
    near = (
        f"{score.close} of {score.count} within 10 %"
        if score.close
        else f"{score.rough} of {score.count} within 25 %"
    )
    return f" Against the pushes measured here: {near}, typically {score.ratio:.2f} ×."


def limits_text(analysis: Analysis) -> str:
    """How far the film can be pushed, and what the soft column rests on, in a sentence."""
    limits = analysis.limits
    rule = f"The column +30 % a stop is a rule of thumb, not measured.{_share_score(analysis)}"
    if limits is None or limits.last_usable.value is None:
        return rule
    usable = f"Pushes up to {stops_counted(limits.last_usable.value)} keep usable shadow"
    if limits.last_salvageable.value is not None:
        reach = limits.last_salvageable
        more = " or more (longest time tested)" if reach.why else ""
        usable += f", up to {stops_counted(reach.known())} can be salvaged{more}"
    return f"{usable}. {rule}"

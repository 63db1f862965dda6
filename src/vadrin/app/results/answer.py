"""The EI and the time a test comes to: at its target, or as its one development was."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

from vadrin.app.reference_temperature import reference_of, temperature_factor_of
from vadrin.app.results.light_box_ei import light_box_answer
from vadrin.app.results.print_ei import print_answer
from vadrin.app.test_sheet import TestSheet
from vadrin.core.figure import Figure, absent
from vadrin.core.planning.test_kinds import Asks, kind_of
from vadrin.core.restated_time import restated_time
from vadrin.core.results.school import EYE, PAPER

if TYPE_CHECKING:
    from vadrin.core.results.analysis import Analysis

AS_DEVELOPED = "as developed"
"""Stands for a target where there was one development, so that no time could be looked for."""
BY_EYE = "by eye"
"""Stands for a target where frames were judged on the light box and no density was read."""


@dataclass(frozen=True)
class Answer:
    """What a film is rated and developed by.

    Attributes
    ----------
    index, time_min : Figure
    target_kind : str
        The target the time was found for, or `AS_DEVELOPED`.
    target_value : float
    """

    index: Figure
    time_min: Figure
    target_kind: str
    target_value: float

    @property
    def ready(self) -> bool:
        """Whether there is something to decide on."""
        return self.index.present and self.time_min.present

    @property
    def as_developed(self) -> bool:
        """Whether it is that of the one development there was."""
        return self.target_kind in (AS_DEVELOPED, BY_EYE)

    @property
    def by_eye(self) -> bool:
        """Whether it rests on judgements alone."""
        return self.target_kind == BY_EYE


def _by_eye(sheet: TestSheet) -> Answer | None:
    """The answer of a test that was judged on the light box alone: an EI, and never a contrast."""
    seen = light_box_answer(sheet)
    if seen is None:
        return None
    strip, index = seen
    kind, time = (
        kind_of(sheet.test.kind),
        absent("frames judged by eye tell an EI and no contrast: read densities for a time"),
    )
    if strip.minutes and kind is not None and kind.asks is Asks.INDEX:
        minutes = restated_time(
            strip.minutes,
            strip.strip.temperature_c,
            reference_of(sheet, strip),
            temperature_factor_of(sheet, strip),
        )
        time = Figure(minutes)
    return Answer(index, time, BY_EYE, 0.0)


def _chosen_way(sheet: TestSheet) -> Figure | None:
    """The EI of the light box or of the print, where the tester rates by it; None for the others.

    Neither takes the place of the densities: all stay side by side, and one is chosen.
    """
    school = sheet.test.school
    if school == EYE.key:
        seen = light_box_answer(sheet)
        return seen[1] if seen else absent("the light box was not asked yet: Read, Light box")
    if school == PAPER.key:
        told = print_answer(sheet)
        return told[1] if told else absent("no half-covered strip was judged yet: Print")
    return None


def answer_of(sheet: TestSheet, analysis: Analysis) -> Answer:
    """The answer of a test; where there was one time, the EI as it was developed.

    That time answers only the kinds that ask for no other.
    """
    finding, target = analysis.finding, analysis.settings.target
    rated = _chosen_way(sheet) or analysis.rated_index
    found = Answer(rated, finding.time_min, target.kind, target.value)
    others = sheet.others()
    own = [s for s in analysis.strips if s.label not in others]
    if analysis.strips and not own:
        gap = absent("only what is compared was read; read the reference's strip")
        return Answer(gap, gap, target.kind, target.value)
    times = {round(s.restated_min, 2) for s in own if s.restated_min}
    if not own:
        return _by_eye(sheet) or found
    if found.ready or len(times) != 1:
        return found
    first, kind = own[0], kind_of(sheet.test.kind)
    index: Figure = _chosen_way(sheet) or getattr(first, analysis.school.rates_by)
    time = finding.time_min
    if first.restated_min and kind is not None and kind.asks is Asks.INDEX:
        time = Figure(first.restated_min)
    return Answer(index, time, AS_DEVELOPED, first.average_gradient.value or 0.0)

"""The EI and the time a test comes to: at its target, or as its one development was."""

from __future__ import annotations

from dataclasses import dataclass

from vadrin.app.document.state import State
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.loaded.once import once
from vadrin.app.loaded.reference_temperature import reference_of, temperature_factor_of
from vadrin.app.results.judged_ei import JudgedEI, chosen_ei, judged_ei
from vadrin.core.figure import Figure, absent
from vadrin.core.planning.test_types import Asks, type_of
from vadrin.core.restated_time import restated_time

AS_DEVELOPED = "as developed"
"""Stands for a target where there was one development, so that no time could be looked for."""
BY_EYE = "by eye"
"""Stands for a target where film or prints were judged and no density was read."""


@dataclass(frozen=True)
class Rating:
    """What a film is rated and developed by.

    Attributes
    ----------
    index, time_min : Figure
    target_kind : str
        The target the time was found for, or `AS_DEVELOPED`.
    target_value : float
    judged : JudgedEI or None
        What it rests on where no density was read.
    """

    index: Figure
    time_min: Figure
    target_kind: str
    target_value: float
    judged: JudgedEI | None = None

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


def _judged(loaded: LoadedTest) -> Rating | None:
    """The answer of a test that was judged by eye alone: an EI, and never a contrast."""
    seen = judged_ei(loaded)
    if seen is None:
        return None
    kind, strip = type_of(loaded.test.kind), seen.strip
    time = absent("frames judged by eye give an EI and no contrast: read densities for a time")
    if strip.minutes and kind is not None and kind.asks is Asks.INDEX:
        warmth, factor = reference_of(loaded, strip), temperature_factor_of(loaded, strip)
        time = Figure(restated_time(strip.minutes, strip.strip.temperature_c, warmth, factor))
    return Rating(seen.index, time, BY_EYE, 0.0, seen)


@once
def rating_of(state: State) -> Rating:
    """The answer of a test; where there was one time, the EI as it was developed.

    That time answers only the kinds that ask for no other.
    """
    loaded, analysis = state.loaded, state.settled()
    finding, target = analysis.finding, analysis.settings.target
    rated = chosen_ei(loaded) or analysis.rated_index
    found = Rating(rated, finding.time_min, target.kind, target.value)
    others = loaded.others()
    own = [s for s in analysis.strips if s.label not in others]
    if analysis.strips and not own:
        gap = absent("only what is compared was read; read the reference's strip")
        return Rating(gap, gap, target.kind, target.value)
    times = {round(s.restated_min, 2) for s in own if s.restated_min}
    if not own:
        return _judged(loaded) or found
    if found.ready or len(times) != 1:
        return found
    first, kind = own[0], type_of(loaded.test.kind)
    index: Figure = chosen_ei(loaded) or getattr(first, analysis.method.rates_by)
    time = finding.time_min
    if first.restated_min and kind is not None and kind.asks is Asks.INDEX:
        time = Figure(first.restated_min)
    return Rating(index, time, AS_DEVELOPED, first.average_gradient.value or 0.0)

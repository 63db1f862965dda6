"""What a film is at any development time within those tested: for whoever drags it along."""

from __future__ import annotations

import numpy as np

from vadrin.app.display.marks import marked_ei
from vadrin.app.display.quantities import minutes_text
from vadrin.app.document.state import State
from vadrin.app.pictures.exposed import Exposed
from vadrin.app.results.rating import rating_of
from vadrin.core.fitting.family import at_time
from vadrin.core.pictures.developed_film import times_tested
from vadrin.core.results.analysis_result import Analysis


def tested_span(analysis: Analysis | None) -> tuple[float, float] | None:
    """The shortest and the longest time between which a film is known; None for fewer than two."""
    if analysis is None or analysis.family is None or analysis.reversal_speed.present:
        return None
    times = times_tested(analysis)
    return (times[0], times[-1]) if len(times) > 1 else None


def time_at_first(state: State) -> float:
    """The time the marker stands at where nobody moved it: the finding's, else the middle."""
    analysis = state.settled()
    span = tested_span(analysis)
    assert span is not None
    found = rating_of(state).time_min.value
    if found is not None and span[0] <= found <= span[1]:
        return found
    return float(np.sqrt(span[0] * span[1]))


def at_the_time(analysis: Analysis, minutes: float) -> tuple[Exposed, str]:
    """The film at a time: its EI there, and that with its contrast in words."""
    family = analysis.family
    assert family is not None
    at = np.asarray(minutes)
    index = float(np.exp(at_time(family, family.ln_zone_ei, at)))
    gradient = float(at_time(family, family.gradient, at))
    words = (
        f"At {minutes_text(minutes)} min: EI {marked_ei(index)} (Zone I), "
        f"average gradient {gradient:.2f}."
    )
    return Exposed(index, minutes), words

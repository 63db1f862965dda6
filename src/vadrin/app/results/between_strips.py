"""Which strips a development time lies between."""

from __future__ import annotations

from vadrin.app.display.quantities import minutes_text
from vadrin.core.results.analysis_result import Analysis


def between_strips(analysis: Analysis, minutes: float) -> str:
    """Which strips a time lies between, as they were developed."""
    known = sorted((s.restated_min, s.label) for s in analysis.strips if s.restated_min is not None)
    named = [f"{label} ({minutes_text(time)})" for time, label in known]
    for (time, _), name in zip(known, named, strict=True):
        if minutes_text(time) == minutes_text(minutes):
            return f"as strip {name}"
    below = [name for (time, _), name in zip(known, named, strict=True) if time < minutes]
    above = [name for (time, _), name in zip(known, named, strict=True) if time > minutes]
    if below and above:
        return f"between strips {below[-1]} and {above[0]}"
    return f"beyond strip {(below[-1:] or above[:1] or ['none'])[0]}"

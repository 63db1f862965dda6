"""Strips that turn back, before their curves are fitted and after."""

from __future__ import annotations

from dataclasses import replace

from vadrin.core.checks.turning_back import TurnedBack, before_the_turn
from vadrin.core.figure import Figure
from vadrin.core.readings import StripReadings
from vadrin.core.results.strip_metrics import StripMetrics


def without_turns(
    strips: tuple[StripReadings, ...], turns: tuple[TurnedBack, ...]
) -> tuple[StripReadings, ...]:
    """Strips without what lies beyond where they turn back."""
    by_label = {turn.strip: turn for turn in turns}
    return tuple(
        before_the_turn(s, by_label[s.label]) if s.label in by_label else s for s in strips
    )


def densest_at_turns(
    strips: tuple[StripMetrics, ...], turns: tuple[TurnedBack, ...]
) -> tuple[StripMetrics, ...]:
    """Strips that turn back have their greatest density there, over base plus fog."""
    peaks = {turn.strip: turn.peak_density for turn in turns}
    made = []
    for strip in strips:
        fog = strip.base_fog
        if strip.label in peaks and fog.value is not None:
            peak = peaks[strip.label]
            low, high = (peak - end if end is not None else None for end in (fog.high, fog.low))
            figures = {**strip.figures, "max_density": Figure(peak - fog.value, low, high)}
            strip = replace(strip, figures=figures)
        made.append(strip)
    return tuple(made)

"""What was read of the film on the bench, as the core learns from it."""

from __future__ import annotations

from math import log2

import numpy as np

from vadrin.app.document.state import State
from vadrin.app.learning.past_tests import deviation_of, speed_deviation
from vadrin.app.loaded.reference_temperature import reference_of
from vadrin.core.arrays import Array
from vadrin.core.learning.contrast_law import ContrastSeen
from vadrin.core.learning.speed_law import SpeedSeen
from vadrin.core.results.strip_metrics import StripMetrics

_SPEEDS = ("zone_ei", "speed")


def _read(state: State) -> list[StripMetrics]:
    others = state.loaded.others()
    return [
        s
        for s in state.settled().strips
        if s.label not in others and s.restated_min and s.average_gradient.value
    ]


def contrast_seen(state: State) -> ContrastSeen | None:
    """What was read of this film's contrast; None where none was."""
    rows = [
        (
            s.restated_min,
            s.average_gradient.value,
            deviation_of(s.average_gradient.low, s.average_gradient.high),
        )
        for s in _read(state)
    ]
    if not rows:
        return None
    return ContrastSeen(*(np.array(column, dtype=float) for column in zip(*rows, strict=True)))


def temperatures_seen(state: State) -> Array:
    """How warm the bath of each of these strips was; at the reference where nobody noted it.

    Returns
    -------
    ndarray, shape (n,)
        As `contrast_seen`.
    """
    noted = {s.strip.label: s.strip.temperature_c for s in state.loaded.strips}
    usual = reference_of(state.loaded)
    every = (noted.get(s.label) for s in _read(state))
    return np.array([usual if t is None else t for t in every], dtype=float)


def speeds_seen(state: State) -> SpeedSeen | None:
    """Speeds of this film's strips, by the method that rates it."""
    analysis, others = state.settled(), state.loaded.others()
    rated = analysis.method.rates_by
    if rated not in _SPEEDS:
        return None
    rows = [
        (s.average_gradient.value, log2(speed.value), speed_deviation(speed.low, speed.high))
        for s in analysis.strips
        if s.label not in others
        and s.average_gradient.value
        and (speed := s.figures[rated]).value
        and speed.value > 0
    ]
    if not rows:
        return None
    return SpeedSeen(*(np.array(column, dtype=float) for column in zip(*rows, strict=True)))

"""What a plan is likely to give: curves of a typical film, assumed and labelled so."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from vadrin.app.sheet import TestSheet
from vadrin.core.figure import Figure
from vadrin.core.figures import speed_point
from vadrin.core.film import Film, curve_at, invent_film
from vadrin.core.shape import Curves

_TYPICAL = 11


@dataclass(frozen=True)
class ExpectedStrip:
    """A strip's likely curve, with what a plot needs of it; nothing here was measured."""

    label: str
    time_min: float
    curve: Curves
    first: float
    last: float
    log_h_m: Figure
    base_fog: Figure


@lru_cache(maxsize=16)
def _typical(index: float) -> Film:
    return invent_film(np.random.default_rng(_TYPICAL), index)


@lru_cache(maxsize=16)
def _expected(index: float, times: tuple[tuple[str, float], ...]) -> tuple[ExpectedStrip, ...]:
    film = _typical(index)
    strips = []
    for label, minutes in times:
        curve = curve_at(film, minutes)
        x_m, fog = Figure(float(speed_point(curve))), Figure(float(curve.fog))
        strips.append(ExpectedStrip(label, minutes, curve, -9.0, 9.0, x_m, fog))
    return tuple(strips)


def expected_strips(sheet: TestSheet) -> tuple[ExpectedStrip, ...]:
    """Curves a typical film of the planned EI would give at the planned times.

    The same plan gives the same object, so that a plot can tell that nothing changed.
    """
    times = tuple((s.strip.label, s.strip.planned_min or 8.0) for s in sheet.strips)
    return _expected(sheet.test.exposure_index, times)

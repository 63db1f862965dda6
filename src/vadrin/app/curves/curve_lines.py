"""What a picture of curves is drawn from: where each curve lies, and the exposures around it."""

from __future__ import annotations

from collections.abc import Iterator
from math import ceil, floor, log10

from vadrin.app.display.quantities import minutes_text
from vadrin.app.document.state import State
from vadrin.app.loaded.loaded_test import LoadedStrip, LoadedTest
from vadrin.app.plan.expected_curves import ExpectedStrip
from vadrin.core.arrays import Array
from vadrin.core.curves.metrics import SPEED_DENSITY
from vadrin.core.curves.shape import GRID
from vadrin.core.exposure.arithmetic import STOP, ZONE_I_STOPS, bracket, marked_ei, meter_point
from vadrin.core.results.strip_metrics import StripMetrics
from vadrin.notebook.records import Reading

__all__ = ["STOP", "bracket"]

CurveLine = StripMetrics | ExpectedStrip
"""A strip whose curve is drawn, measured or likely."""

_EMPTY_VIEW = (-3.0, 1.0)
_BEYOND = 0.05
"""Lg units a curve is drawn past the exposures there are."""


def curve_points(strip: CurveLine, span: tuple[float, float]) -> tuple[Array, Array]:
    """A strip's curve as drawn: lg exposure and density, where it was read and planned."""
    x = float(strip.curve.toe) + GRID
    low, high = max(strip.first, span[0]) - _BEYOND, min(strip.last, span[1]) + _BEYOND
    inside = (x >= low) & (x <= high)
    if not inside.any():
        inside[:2] = True
    return x[inside], float(strip.curve.fog) + strip.curve.net[inside]


def readings_placed(
    strip: LoadedStrip, meter_constant: float
) -> Iterator[tuple[float, Reading, int]]:
    """Every reading of a strip at its lg exposure, with the id of its frame."""
    for frame in strip.frames:
        x = frame.log_h(meter_constant)
        if x is not None:
            for reading in frame.readings:
                yield x, reading, frame.frame.id


def speed_point_of(strip: CurveLine) -> tuple[float, float] | None:
    """Lg exposure and density of a strip's speed point, where it has one."""
    if strip.log_h_m.value is None or strip.base_fog.value is None:
        return None
    return strip.log_h_m.value, strip.base_fog.value + SPEED_DENSITY


def curve_name(strip: CurveLine) -> str:
    """What stands at the end of a curve: ``6:30 B``."""
    if strip.time_min is None:
        return strip.label
    return f"{minutes_text(strip.time_min)} {strip.label}"


def exposure_span(loaded: LoadedTest) -> tuple[float, float]:
    """The thinnest and the densest exposure of a test, in lg units."""
    xs = [f.log_h(loaded.test.meter_constant) for _, f in loaded.frames()]
    known = [x for x in xs if x is not None] or list(_EMPTY_VIEW)
    return min(known), max(known)


def meter_exposure(state: State) -> float:
    """Lg exposure called zero stops: the meter's at the planned EI, or at that of an import."""
    loaded, analysis = state.loaded, state.analysis
    planned = any(f.frame.stops is not None for _, f in loaded.frames())
    index = loaded.test.exposure_index
    if not planned and analysis is not None:
        index = analysis.finding.zone_ei.value or index
    return meter_point(index)


def refused_readings(state: State, only_strip: str) -> list[tuple[float, float]]:
    """Lg exposure and density of the readings that the fit left out."""
    loaded, analysis = state.loaded, state.analysis
    named = {
        (d.strip, name)
        for d in (analysis.diagnostics if analysis else ())
        for name in d.frames
        if d.strip and only_strip in ("", d.strip)
    }
    return [
        (x, frame.density)
        for strip, frame in loaded.frames()
        if (strip.strip.label, frame.number) in named
        and frame.density is not None
        and (x := frame.log_h(loaded.test.meter_constant)) is not None
    ]


def stop_ticks(low: float, high: float, meter: float) -> list[tuple[float, str]]:
    """Whole stops from the meter reading within a range of lg exposure, with their names."""
    first, last = ceil((low - meter) / STOP), floor((high - meter) / STOP)
    return [(meter + n * STOP, _stop_name(n)) for n in range(first, last + 1)]


def _stop_name(stops: int) -> str:
    return "meter" if stops == 0 else f"{'−' if stops < 0 else '+'}{abs(stops)}"


def index_ticks(low: float, high: float, meter_constant: float) -> list[tuple[float, str]]:
    """Marked EIs a film has if its shadow point lies there, a stop apart from 100."""
    top = log10(meter_constant / 2**ZONE_I_STOPS)
    first, last = ceil((top - high - 2) / STOP), floor((top - low - 2) / STOP)
    places = [top - 2 - n * STOP for n in range(first, last + 1)]
    return [(place, _index_name(10.0 ** (top - place))) for place in places]


def _index_name(exact: float) -> str:
    return str(marked_ei(exact)) if 0.09 < exact < 30000 else ""

"""What a plan is likely to give: curves of a typical film, assumed and labelled so."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from vadrin.app.sheet import TestSheet
from vadrin.app.words import date_text
from vadrin.core.figure import Figure
from vadrin.core.figures import speed_point
from vadrin.core.film import Film, adapted_film, curve_at, typical_film
from vadrin.core.shape import Curves
from vadrin.notebook.records import Finding, Test
from vadrin.notebook.store import Notebook


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


@dataclass(frozen=True)
class FoundBefore:
    """What this film in this developer was found to do the last time."""

    zone_ei: float
    minutes: float
    gradient: float
    day: str


def found_before(notebook: Notebook, sheet: TestSheet) -> FoundBefore | None:
    """The newest finding for the same film and developer, judged by its average gradient."""
    same = notebook.all(Test, stock_id=sheet.test.stock_id, developer_id=sheet.test.developer_id)
    ids = [t.id for t in same if t.id != sheet.test.id]
    found = [
        f for f in notebook.all_of(Finding, "test_id", ids)
        if f.target_kind == "average_gradient" and f.time_min > 0
    ]  # fmt: skip
    if not found:
        return None
    last = found[-1]
    return FoundBefore(last.exposure_index, last.time_min, last.target_value,
                       date_text(last.decided_at))  # fmt: skip


@lru_cache(maxsize=16)
def likely_film(index: float, found: FoundBefore | None) -> Film:
    """The film as it was found to be; a typical one of its EI where nothing was found."""
    film = typical_film(index)
    if found is None:
        return film
    return adapted_film(film, found.zone_ei, found.minutes, found.gradient)


@lru_cache(maxsize=16)
def _expected(
    index: float, found: FoundBefore | None, times: tuple[tuple[str, float], ...]
) -> tuple[ExpectedStrip, ...]:
    film = likely_film(index, found)
    strips = []
    for label, minutes in times:
        curve = curve_at(film, minutes)
        x_m, fog = Figure(float(speed_point(curve))), Figure(float(curve.fog))
        strips.append(ExpectedStrip(label, minutes, curve, -9.0, 9.0, x_m, fog))
    return tuple(strips)


def expected_strips(sheet: TestSheet, found: FoundBefore | None) -> tuple[ExpectedStrip, ...]:
    """Curves the film is likely to give at the planned times.

    The same plan gives the same object, so that a plot can tell that nothing changed.
    """
    times = tuple((s.strip.label, s.strip.planned_min or 8.0) for s in sheet.strips)
    return _expected(sheet.test.exposure_index, found, times)

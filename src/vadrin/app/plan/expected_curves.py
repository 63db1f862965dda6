"""What a plan is likely to give: the film's own last curves, or a typical film's, said so."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache

from vadrin.app.display.words import date_text
from vadrin.app.findings.decided_words import OWN_WORDS
from vadrin.app.findings.kept_report import KeptBasis, KeptReadings
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.results.rating import AS_DEVELOPED, BY_EYE
from vadrin.core.channels import Channel
from vadrin.core.curves.metrics import speed_point
from vadrin.core.curves.shape import Curves
from vadrin.core.figure import Figure, absent
from vadrin.core.fitting.fit import fit_strips
from vadrin.core.planning.film_prior import (
    FilmPrior,
    prior_curve,
    prior_of_film,
    prior_of_fit,
    shifted_prior,
)
from vadrin.core.planning.typical_positive import typical_positive
from vadrin.core.readings import Reading, StripReadings
from vadrin.core.simulation.film import adapted_film, typical_film
from vadrin.core.wording import counted
from vadrin.notebook.records import Finding
from vadrin.notebook.store import Notebook

_TYPICAL_INDEX = 100.0
_NEWEST = """
SELECT finding.id FROM finding JOIN test ON test.id = finding.test_id
WHERE test.stock_id = :stock AND test.developer_id = :developer AND test.id <> :me
AND finding.time_min > 0 AND finding.exposure_index > 0
AND finding.target_kind NOT IN (:as_developed, :by_eye, :own)
ORDER BY finding.id DESC LIMIT 1
"""


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
class PriorFinding:
    """What this film in this developer was found to do the last time, and on which readings.

    With `films` it is what so many other films did in the developer: the usual one of them.
    `noise` is what readings with the test's instrument were found to scatter by.
    """

    zone_ei: float
    minutes: float
    target_kind: str
    target_value: float
    day: str
    basis_text: str = ""
    films: int = 0
    noise: float | None = None


@dataclass(frozen=True, eq=False)
class Expected:
    """A film's likely curves, in words whose they are, the minutes they were measured for, and
    how readings were found to scatter."""

    prior: FilmPrior
    basis: str
    found: PriorFinding | None = None
    measured: tuple[float, float] | None = None
    noise: float | None = None

    def beyond(self, minutes: float) -> bool:
        """Whether a time lies outside those the curves were measured for."""
        return self.measured is not None and not (
            self.measured[0] * 0.98 <= minutes <= self.measured[1] * 1.02
        )


def prior_finding(notebook: Notebook, loaded: LoadedTest) -> PriorFinding | None:
    """The newest finding of a time for the same film and developer, in one question."""
    test = loaded.test
    newest = notebook.rows(
        _NEWEST,
        stock=test.stock_id,
        developer=test.developer_id,
        me=test.id,
        as_developed=AS_DEVELOPED,
        by_eye=BY_EYE,
        own=OWN_WORDS,
    )
    last = notebook.get(Finding, newest[0][0]) if newest else None
    if last is None:
        return None
    return PriorFinding(
        last.exposure_index,
        last.time_min,
        last.target_kind,
        last.target_value,
        date_text(last.decided_at),
        last.basis,
    )


def _readings_behind(basis: str) -> tuple[StripReadings, ...]:
    """The visual readings of the test's own film a finding rested on."""
    kept = KeptBasis.from_json(basis)
    strips = kept.strips.items() if kept else ()
    return tuple(_visual(label, strip) for label, strip in strips if not strip.material)


def _visual(label: str, strip: KeptReadings) -> StripReadings:
    rows = tuple(
        Reading(name, x, density)
        for name, x, *read in strip.lines
        for channel, density in read
        if channel == Channel.VISUAL
    )
    return StripReadings(label, strip.time_min, strip.temperature_c, rows)


def _own(found: PriorFinding) -> FilmPrior | None:
    """The film's own curves; None where fewer than two times were read."""
    strips = _readings_behind(found.basis_text)
    timed = tuple(s for s in strips if s.time_min and s.readings)
    try:
        fit = fit_strips(timed)
    except (ValueError, ArithmeticError):
        return None
    return prior_of_fit(fit) if fit.model.distinct > 1 else None


@lru_cache(maxsize=1)
def _typical() -> FilmPrior:
    return prior_of_film(typical_film(_TYPICAL_INDEX))


def drawn_at_once(found: PriorFinding | None) -> bool:
    """Whether a film's likely curves are at hand without a fit."""
    return found is None and _typical.cache_info().currsize > 0


@lru_cache(maxsize=64)
def expected_film(index: float, found: PriorFinding | None) -> Expected:
    """The film as it measured; else moved to what was found; else a typical one of its EI."""
    own = _own(found) if found and found.basis_text else None
    if own is not None and found is not None:
        times = own.model.times
        measured = float(times.min()), float(times.max())
        return Expected(own, f"this film's own curves of {found.day}", found, measured)
    if found is not None and found.target_kind == "average_gradient":
        film = adapted_film(typical_film(index), found.zone_ei, found.minutes, found.target_value)
        if found.films:
            of = counted(found.films, "film")
            words = f"a film like {of} in this developer, estimated"
            return Expected(prior_of_film(film), words, noise=found.noise)
        return Expected(prior_of_film(film), f"this film as it was found on {found.day}", found)
    by = math.log10(_TYPICAL_INDEX / index)
    return Expected(shifted_prior(_typical(), by), "a typical film of this EI, assumed")


@lru_cache(maxsize=16)
def _curves(film: Expected, times: tuple[tuple[str, float], ...]) -> tuple[ExpectedStrip, ...]:
    strips = []
    for label, minutes in times:
        curve = prior_curve(film.prior, minutes)
        x_m, fog = Figure(float(speed_point(curve))), Figure(float(curve.fog))
        strips.append(ExpectedStrip(label, minutes, curve, -9.0, 9.0, x_m, fog))
    return tuple(strips)


def expected_strips(loaded: LoadedTest, film: Expected) -> tuple[ExpectedStrip, ...]:
    """Curves the film is likely to give at the planned times; of other films nothing is known.

    The same plan gives the same object, so that a plot can tell that nothing changed.
    """
    mine = [s for s in loaded.strips if not loaded.material_of(s)]
    times = tuple((s.strip.label, s.strip.planned_min or 8.0) for s in mine)
    if loaded.density_falls:
        return _falling(loaded.test.exposure_index, loaded.test.meter_constant, times)
    return _curves(film, times)


@lru_cache(maxsize=16)
def _falling(
    index: float, meter_constant: float, times: tuple[tuple[str, float], ...]
) -> tuple[ExpectedStrip, ...]:
    """Of a positive nothing is known beforehand: one typical curve for every strip."""
    curve = typical_positive(index, meter_constant)
    none = absent("a positive has no shadow point")
    return tuple(
        ExpectedStrip(label, minutes, curve, -9.0, 9.0, none, none) for label, minutes in times
    )


def basis_words(loaded: LoadedTest, film: Expected) -> str:
    """Whose the likely curves of a plan are."""
    return "a typical positive of this EI, assumed" if loaded.density_falls else film.basis

"""What a plan is going to tell, before a frame is spent.

The likely film is exposed and developed as planned, without noise, and the curvature of the
fit those readings would get is asked for its uncertainty: the same arithmetic as behind the
intervals of a finished test, with the noise of the instrument and the usual straying of films
and strips assumed instead of learnt.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from vadrin.core.analysis import Settings, sample_of
from vadrin.core.figure import Figure, absent
from vadrin.core.film import Film, densities
from vadrin.core.finding import ONE_STRIP, find
from vadrin.core.fit import Fit, draws_of, fit_expected
from vadrin.core.push import Push, push_table
from vadrin.core.readings import Reading, StripReadings
from vadrin.core.shape import Array
from vadrin.core.solver import Scales
from vadrin.core.strip_figures import StripFigures, figures_of_strips

USUAL_BEND, USUAL_STRAY = 0.13, 0.03
"""Freedoms that evidence usually finds for films of the simulator; strips developed with less
care stray more, and the finished test then says so."""
_FREEDOM, _DRAWS = 400.0, 80
_FEWEST = 4


@dataclass(frozen=True)
class PlannedStrip:
    """One strip of a plan: its minutes (None where not fixed), and lg exposures; NaN is blank."""

    label: str
    time_min: float | None
    log_h: tuple[float, ...]


@dataclass(frozen=True)
class Prediction:
    """Expected answers with the intervals to expect; `why` where nothing can be answered.

    Attributes
    ----------
    zone_ei, time_min : Figure
    pushes : tuple of Push
    """

    zone_ei: Figure
    time_min: Figure
    pushes: tuple[Push, ...] = ()

    @property
    def ei_spread(self) -> float | None:
        """Expected RMS error of the EI in stops."""
        return _spread(self.zone_ei, 2.0)

    @property
    def time_spread(self) -> float | None:
        """Expected RMS error of the time as a share of it."""
        return _spread(self.time_min, float(np.e))


def _spread(figure: Figure, base: float) -> float | None:
    if figure.low is None or figure.high is None or figure.low <= 0:
        return None
    return float(np.log(figure.high / figure.low) / np.log(base) / (2 * 1.96))


def _expected(film: Film, strip: PlannedStrip) -> StripReadings:
    x = np.array(strip.log_h, dtype=np.float64)
    true = densities(film, strip.time_min or 8.0, x)
    rows = tuple(
        Reading(str(i), None if np.isnan(at) else float(at), float(d))
        for i, (at, d) in enumerate(zip(x, true, strict=True))
    )
    return StripReadings(strip.label, strip.time_min or 8.0, None, rows)


def _clear(strip: StripReadings) -> bool:
    """Whether enough frames of a strip rise out of the fog to draw a curve through."""
    x, density = strip.exposed()
    return len(x) >= _FEWEST and bool(np.ptp(density) > 0.15)


def predict(
    film: Film, plan: tuple[PlannedStrip, ...], noise: float, settings: Settings | None = None
) -> Prediction:
    """Expected answers of a plan.

    Parameters
    ----------
    film : Film
        The film's likely behaviour: its own last curve, or a typical one of its speed.
    plan : tuple of PlannedStrip
    noise : float
        Standard deviation of one density reading.
    settings : Settings, optional

    Returns
    -------
    Prediction
        Never raises: what the plan cannot answer is absent with the reason.
    """
    settings = settings or Settings()
    strips = tuple(s for s in (_expected(film, p) for p in plan) if _clear(s))
    if not strips:
        why = "too few frames rise out of the fog; a curve takes four on one strip"
        return Prediction(absent(why), absent(why))
    fit = fit_expected(strips, Scales(noise, USUAL_BEND, USUAL_STRAY), _FREEDOM)
    draws = draws_of(fit, _DRAWS, np.random.default_rng(settings.seed))
    alone = fit.law.distinct < 2
    reports = figures_of_strips(strips, fit, draws if alone else None, settings.meter_constant)
    if alone:
        return Prediction(reports[0].zone_ei, absent(ONE_STRIP))
    return _of_family(settings, fit, reports, draws)


def _of_family(
    settings: Settings, fit: Fit, reports: tuple[StripFigures, ...], draws: Array
) -> Prediction:
    sample = sample_of(fit, reports, draws, settings)
    finding, minutes = find(sample, settings.target)
    if finding.time_min.value is None:
        return Prediction(finding.zone_ei, finding.time_min)
    pushes = push_table(sample, finding, minutes, settings.pushes)
    return Prediction(finding.zone_ei, finding.time_min, pushes)

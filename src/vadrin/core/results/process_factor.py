"""A process's own temperature factor, from strips that were developed at two temperatures."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from vadrin.core.figure import Figure, absent
from vadrin.core.fitting.family import time_reaching
from vadrin.core.readings import StripReadings
from vadrin.core.results.analysis import analyse
from vadrin.core.results.analysis_result import Analysis, Settings

_AT_REFERENCE_K, _APART_K = 0.6, 1.5
_LEAST, _MOST = 1.2, 6.0
_SIGMAS = 1.96
TWO_TEMPERATURES = "develop two times at the reference and one strip at least 1.5 K away from it"


def _log_spread(figure: Figure) -> float:
    """Standard deviation of a figure's logarithm."""
    if figure.low is None or figure.high is None or figure.low <= 0:
        return 0.0
    return float(np.log(figure.high / figure.low)) / (2 * _SIGMAS)


def process_factor(strips: tuple[StripReadings, ...], settings: Settings) -> Figure:
    """How many times faster a process goes for each 10 K, with its range.

    The strips at the reference temperature say how long would give the contrast that a strip at
    another temperature has; the ratio of both times is the factor's power.

    Parameters
    ----------
    strips : tuple of StripReadings
        Of one film in one developer, with the reference they are restated at.
    settings : Settings

    Returns
    -------
    Figure
        Absent where the temperatures or times do not tell it.
    """
    timed = [s for s in strips if s.time_min and s.temperature_c is not None and not s.material]
    at = tuple(s for s in timed if abs((s.temperature_c or 0) - s.reference_c) <= _AT_REFERENCE_K)
    away = [s for s in timed if abs((s.temperature_c or 0) - s.reference_c) >= _APART_K]
    if len({s.time_min for s in at}) < 2 or not away:
        return absent(TWO_TEMPERATURES)
    known = analyse(at, settings)
    told = [t for t in (_told_by(s, known, settings) for s in away) if t is not None]
    if not told:
        return absent("the strips away from the reference lie outside the times tested at it")
    weights = np.array([1 / max(sd, 1e-3) ** 2 for _, sd in told])
    middle = float(np.sum(weights * [m for m, _ in told]) / weights.sum())
    reach = _SIGMAS / float(np.sqrt(weights.sum()))
    value = float(np.exp(middle))
    if not _LEAST <= value <= _MOST:
        return absent(
            f"the strips give an unlikely factor ({value:.1f}): another condition probably differed"
        )
    return Figure(value, float(np.exp(middle - reach)), float(np.exp(middle + reach)))


def _told_by(
    strip: StripReadings, known: Analysis, settings: Settings
) -> tuple[float, float] | None:
    """Ln Q that one strip tells, and its standard deviation."""
    family = known.family
    alone = analyse((replace(strip, temperature_c=None),), settings).strips
    contrast = alone[0].average_gradient if alone else absent("")
    if family is None or contrast.value is None or strip.time_min is None:
        return None
    gradient = family.gradient
    alike = float(time_reaching(family, gradient, contrast.value))
    if not np.isfinite(alike) or strip.temperature_c is None:
        return None
    # How contrast grows with ln t there turns a spread of contrast into one of time.
    rises = np.gradient(np.log(gradient), np.log(family.times))
    growth = max(float(np.interp(alike, family.times, rises)), 0.05)
    near = [_log_spread(s.average_gradient) for s in known.strips if s.average_gradient.present]
    spread = float(np.hypot(_log_spread(contrast), min(near, default=0.0))) / growth
    kelvin = (strip.temperature_c - strip.reference_c) / 10
    return float(np.log(alike / strip.time_min)) / kelvin, spread / abs(kelvin)

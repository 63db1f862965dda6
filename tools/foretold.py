"""Are the intervals foretold for plans those that come true?

``PYTHONPATH=src python tools/foretold.py 200`` makes that many plans of many films, foretells
their errors from a typical film, shoots and reads them on the simulator, and compares the
root mean square of what was foretold with that of the errors found.
"""

from __future__ import annotations

import math
import sys

import numpy as np

from vadrin.core.curves import metrics
from vadrin.core.exposure.arithmetic import STOP
from vadrin.core.planning.film_prior import prior_of_film
from vadrin.core.planning.forecast import PlannedStrip, forecast
from vadrin.core.results.analysis import analyse
from vadrin.core.results.analysis_result import Settings
from vadrin.core.simulation.film import (
    Densitometer,
    Film,
    curve_at,
    expose_and_develop,
    invent_film,
    typical_film,
)

_TARGET = 0.58
_INDEX = 100.0
_TYPICAL = prior_of_film(typical_film(_INDEX))
Pairs = dict[str, list[tuple[float, float]]]


def _truth(film: Film) -> tuple[float, float]:
    """True time and EI for the target."""
    low, high = 1.5, 60.0
    for _ in range(40):
        minutes = 0.5 * (low + high)
        curve = curve_at(film, minutes)
        gradient = float(metrics.average_gradient(curve, metrics.speed_point(curve)))
        low, high = (minutes, high) if gradient < _TARGET else (low, minutes)
    return minutes, _index(film, minutes)


def _index(film: Film, minutes: float) -> float:
    return float(metrics.zone_ei(metrics.speed_point(curve_at(film, minutes))))


def _one(rng: np.random.Generator, pairs: Pairs) -> None:
    """One plan: what it foretold beside what it found."""
    film = invent_film(rng, _INDEX)
    count, blanks = int(rng.integers(1, 6)), int(rng.integers(1, 4))
    step = (1.0, 0.5, 1 / 3)[int(rng.integers(0, 3))]
    noise, middle, spread = rng.uniform(0.005, 0.015), rng.uniform(7, 11), rng.uniform(1.25, 1.5)
    times = [middle * spread ** (i - (count - 1) / 2) for i in range(count)]
    x = math.log10(8.125 / _INDEX) + STOP * np.arange(-6, 5.01, step)
    plan = tuple(
        PlannedStrip("ABCDE"[i], t, (*([math.nan] * blanks), *x)) for i, t in enumerate(times)
    )
    told = forecast(_TYPICAL, plan, noise)
    meter = Densitometer(noise, 0.0, 3)
    strips = tuple(
        expose_and_develop(film, "ABCDE"[i], x, t, rng, meter, blanks=blanks)
        for i, t in enumerate(times)
    )
    found = analyse(strips, Settings(draws=0))
    if count == 1:
        index = found.strips[0].zone_ei.value
        if index and told.ei_spread:
            error = math.log2(index / _index(film, times[0]))
            pairs["EI of one strip"].append((told.ei_spread, error))
        return
    minutes, index = _truth(film)
    if found.finding.time_min.value and told.time_spread and told.ei_spread:
        error = math.log2(found.finding.zone_ei.known() / index)
        pairs["EI"].append((told.ei_spread, error))
        pairs["time"].append((told.time_spread, math.log(found.finding.time_min.value / minutes)))


def trial(plans: int, seed: int = 0) -> dict[str, tuple[float, int]]:
    """Ratio of foretold to real RMS error, and the number of plans, for every answer."""
    pairs: Pairs = {"EI": [], "time": [], "EI of one strip": []}
    for place in range(plans):
        _one(np.random.default_rng([seed, place]), pairs)
    ratios = {}
    for name, both in pairs.items():
        told, real = np.array(both).T
        ratios[name] = (float(np.sqrt((told**2).mean() / (real**2).mean())), len(both))
    return ratios


if __name__ == "__main__":
    seed = int(sys.argv[2]) if len(sys.argv) > 2 else 0
    for name, (ratio, count) in trial(int(sys.argv[1]) if len(sys.argv) > 1 else 200, seed).items():
        print(f"{name:<18} foretold / real RMS {ratio:.2f} over {count} plans")

"""Are the intervals foretold for plans those that come true?

``python tools/foretold.py 200 [SEED]`` makes that many plans of many films, foretells their errors
from a typical film, shoots and reads them on the simulator, and compares the root mean square of
what was foretold with that of the errors found. Then the same for films of every shape of
`oracles.film_shapes`, of which the program knows nothing: how many foretold ranges came true, and
how often the smallest plan for a wanted sureness reached it by the finished test's own range.
Leaves with 1 where fewer than 90 or more than 98 of 100 came true, or fewer than 90 were reached.
"""

from __future__ import annotations

import math
import sys
from pathlib import Path

import numpy as np

sys.path[:0] = [str(Path(__file__).parents[1]), str(Path(__file__).parents[1] / "src")]

from oracles.film_shapes import SHAPES, varied  # noqa: E402
from vadrin.core.curves import metrics  # noqa: E402
from vadrin.core.exposure.arithmetic import STOP, bracket  # noqa: E402
from vadrin.core.planning.film_prior import prior_of_film, shifted_prior  # noqa: E402
from vadrin.core.planning.forecast import PlannedStrip, forecast  # noqa: E402
from vadrin.core.planning.minimal_plan import BracketLayout, minimal_layout  # noqa: E402
from vadrin.core.readings import Reading, StripReadings  # noqa: E402
from vadrin.core.results.analysis import analyse  # noqa: E402
from vadrin.core.results.analysis_result import Settings  # noqa: E402
from vadrin.core.simulation.film import (  # noqa: E402
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


def _shot(
    film: object, plan: tuple[PlannedStrip, ...], noise: float, rng: np.random.Generator
) -> tuple[StripReadings, ...]:
    """A plan shot on a film in closed form, and read."""
    strips = []
    for strip in plan:
        places = [None if math.isnan(x) else x for x in strip.log_h]
        rows = tuple(
            Reading(str(n), x, round(film.density(x, strip.time_min) + noise * float(z), 3))
            for n, (x, z) in enumerate(
                zip(places, rng.standard_normal(len(places)), strict=True), start=1
            )
        )
        strips.append(StripReadings(strip.label, strip.time_min, 20.0, rows))
    return tuple(strips)


def _planned(
    index: float, times: list[float], step: float, blanks: int
) -> tuple[PlannedStrip, ...]:
    x = (*([math.nan] * blanks), *(math.log10(8.125 / index) + STOP * np.arange(-5, 5.01, step)))
    return tuple(PlannedStrip("ABCDE"[i], t, x) for i, t in enumerate(times))


Came = dict[str, list[bool]]


def _unknown(rng: np.random.Generator, came: Came) -> None:
    """One plan for a film of which nothing is known but about its EI and its maker's time."""
    shape = varied(SHAPES[str(rng.choice(list(SHAPES)))], rng)
    try:
        minutes = shape.time_for(shape.gradient, _TARGET)
    except ValueError:
        return
    true, noise = shape.zone_ei(minutes), float(rng.uniform(0.008, 0.015))
    # A maker's word is mostly faster than what a film is found to be.
    index = true * 2.0 ** rng.uniform(-0.1, 1.1)
    middle = minutes * math.exp(0.15 * rng.standard_normal())
    prior = shifted_prior(_TYPICAL, math.log10(_INDEX / index))
    count = int(rng.integers(2, 6))
    times = [round(4 * middle * 1.4 ** (i - (count - 1) / 2)) / 4 for i in range(count)]
    plan = _planned(index, times, (1.0, 0.5)[int(rng.integers(2))], 2)
    told = forecast(prior, plan, noise, Settings(pushes=()))
    found = analyse(_shot(shape, plan, noise, rng), Settings(draws=0, pushes=())).finding
    if told.time_spread and found.time_min.value:
        off = abs(math.log(found.time_min.value / minutes))
        came["time"].append(off <= 1.96 * told.time_spread)
    if told.ei_spread and found.zone_ei.value:
        came["EI"].append(abs(math.log2(found.zone_ei.value / true)) <= 1.96 * told.ei_spread)
    wanted = float(rng.choice([0.1, 0.15, 0.25]))
    widest = BracketLayout(tuple(times), -5.0, 5.0, 0.5, 2)
    least = minimal_layout(prior, index, widest, noise, Settings(pushes=()), wanted)
    if least is None:
        return
    one = least[0]
    x = tuple(math.log10(8.125 / index) + STOP * s for s in bracket(one.first, one.last, one.step))
    small = tuple(
        PlannedStrip("ABCDE"[i], t, (math.nan, math.nan, *x)) for i, t in enumerate(one.times)
    )
    ei = analyse(_shot(shape, small, noise, rng), Settings(pushes=())).finding.zone_ei
    reached = ei.low is not None and ei.high is not None
    came["smallest"].append(bool(reached and math.log2(ei.high / ei.low) / 2 <= wanted))


def unknown_films(plans: int, seed: int) -> Came:
    """Whether what was foretold came true, for films of every shape."""
    came: Came = {"time": [], "EI": [], "smallest": []}
    for place in range(plans):
        _unknown(np.random.default_rng([seed, 7, place]), came)
    return came


def main(plans: int = 200, seed: int = 0) -> int:
    """Print a line a quantity."""
    for name, (ratio, count) in trial(plans, seed).items():
        print(f"{name:<18} foretold / real RMS {ratio:.2f} over {count} plans", flush=True)
    held = True
    for name, came in unknown_films(plans, seed).items():
        share = 100 * float(np.mean(came))
        held &= share >= 90 and (share <= 98 or name == "smallest")
        print(f"{name:<18} {sum(came)} of {len(came)} came true on films of every shape")
    return 0 if held else 1


if __name__ == "__main__":
    sys.exit(main(*(int(word) for word in sys.argv[1:])))

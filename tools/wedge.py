"""Readings by eye between the steps of a wedge: ``PYTHONPATH=src python tools/wedge.py 100``.

The same made-up films are read by a densitometer, matched between steps 0.15 apart, and half and
half; how often ranges hold the truth and the errors are printed side by side.
"""

from __future__ import annotations

import sys
from collections import defaultdict
from collections.abc import Callable
from dataclasses import replace

import numpy as np
from accuracy import Score, relative, simulated, stops, truth_of

from vadrin.core.curves import metrics
from vadrin.core.readings import StripReadings
from vadrin.core.results.analysis import analyse
from vadrin.core.results.criteria import Target
from vadrin.core.results.finding import find
from vadrin.core.simulation.film import curve_at

_STEP = 0.15
_EYE = 0.012
Way = Callable[[StripReadings, int, np.random.Generator], StripReadings]


def matched(strip: StripReadings, rng: np.random.Generator) -> StripReadings:
    """The strip as an eye finds it between two steps of a wedge."""
    made = []
    for reading in strip.readings:
        seen = reading.density + rng.normal(0, _EYE)
        low = np.floor((seen - 0.05) / _STEP) * _STEP + 0.05
        made.append(replace(reading, density=low + _STEP / 2, deviation=_STEP / 12**0.5))
    return replace(strip, readings=tuple(made))


WAYS: dict[str, Way] = {
    "densitometer": lambda strip, _place, _rng: strip,
    "wedge, steps of 0.15": lambda strip, _place, rng: matched(strip, rng),
    "every other strip by wedge": lambda strip, place, rng: (
        matched(strip, rng) if place % 2 else strip
    ),
}


def main(films: int) -> None:
    """Print the table."""
    for count, blanks in ((5, 2), (1, 2)):
        for name, way in WAYS.items():
            scores: dict[str, Score] = defaultdict(Score)
            alarms = 0
            for seed in range(films):
                film, strips, rng = simulated(seed, count, blanks=blanks)
                read = tuple(way(s, i, rng) for i, s in enumerate(strips))
                answer = analyse(read)
                alarms += any(w.key == "misread" for w in answer.diagnostics)
                for strip in answer.strips:
                    point = metrics.speed_point(curve_at(film, strip.time_min))
                    true = float(metrics.zone_ei(point))
                    scores["Zone I EI, stops"].take(strip.zone_ei, true, stops)
                if count == 1:
                    continue
                found, _ = find(truth_of(film, strips), Target())
                if found.tested:
                    scores["finding EI, stops"].take(
                        answer.finding.zone_ei, found.zone_ei.value, stops
                    )
                    scores["finding time, ln"].take(
                        answer.finding.time_min, found.time_min.value, relative
                    )
            print(f"{count} strips, {name}; {alarms} of {films} clean tests alarm")
            for figure, score in scores.items():
                print("  ", score.line(figure))


if __name__ == "__main__":
    main(int(sys.argv[1]))

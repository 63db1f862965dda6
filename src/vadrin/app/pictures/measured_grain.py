"""A film's grain, where a scan told it: of the strip that was developed most nearly alike."""

from __future__ import annotations

import json
from math import log

import numpy as np

from vadrin.app.document.state import State
from vadrin.app.loaded.loaded_test import LoadedStrip, LoadedTest
from vadrin.app.loaded.once import once
from vadrin.app.pictures.exposed import Exposed
from vadrin.core.pictures.film_grain import FilmGrain

GRANULARITY = "granularity"
"""The name of 1000 times the deviation through 48 um among what else a reading has."""
_MOST = 200.0


def grain_of(state: State, exposed: Exposed) -> FilmGrain | None:
    """The grain of the strip a picture is of, else of the one nearest to its time, if any was
    scanned finely enough."""
    told = _grains(state.loaded)
    own = next((grain for strip, grain in told if strip.strip.label == exposed.strip), None)
    if own is not None or exposed.strip or not told:
        return own
    timed = [(strip.minutes, grain) for strip, grain in told if strip.minutes]
    if exposed.minutes is None or not timed:
        return told[0][1]
    minutes = exposed.minutes
    return min(timed, key=lambda one: abs(log((one[0] or minutes) / minutes)))[1]


def grain_words(state: State) -> str:
    """What of a test's grain is seen in its pictures."""
    told = [grain for _, grain in _grains(state.loaded)]
    if not told:
        return "No grain is shown: none was measured."
    near = min(
        ((d, g) for each in told for d, g in zip(each.net_density, each.granularity, strict=True)),
        key=lambda pair: abs(pair[0] - 1.0),
    )
    return (
        f"Grain as scanned, RMS {near[1]:.0f} at {near[0]:.2f} over base plus fog through 48 µm, "
        "on a frame 36 mm wide."
    )


@once
def _grains(loaded: LoadedTest) -> list[tuple[LoadedStrip, FilmGrain]]:
    """The strips whose grain was measured."""
    return [(s, grain) for s in loaded.strips if (grain := _measured(s)) is not None]


def _measured(strip: LoadedStrip) -> FilmGrain | None:
    fogs, told = [], []
    for frame in strip.frames:
        for reading in frame.readings:
            if reading.left_out:
                continue
            if frame.frame.blank:
                fogs.append(reading.density)
            granularity = _granularity(reading.extra)
            if granularity is not None:
                told.append((reading.density, granularity))
    if not told:
        return None
    # Without a blank the thinnest frame that was scanned stands for base plus fog.
    fog = sum(fogs) / len(fogs) if fogs else min(density for density, _ in told)
    density, granularity = np.array(sorted(told)).T
    return FilmGrain(np.maximum(density - fog, 0.0), granularity)


def _granularity(extra: str) -> float | None:
    if GRANULARITY not in extra:
        return None
    try:
        told = json.loads(extra).get(GRANULARITY)
    except (ValueError, AttributeError, RecursionError):
        return None
    if isinstance(told, bool) or not isinstance(told, int | float):
        return None
    return float(told) if 0.0 < told <= _MOST else None

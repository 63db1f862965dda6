"""What the envelope of a practice film holds, as plain data under the keys of a report."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from vadrin.app.practice.practice_questions import LONG_S
from vadrin.core.simulation.practice_drawing import DRAWS
from vadrin.core.simulation.practice_film import STOP, PracticeFilm
from vadrin.core.simulation.practice_level import Level
from vadrin.core.simulation.practice_run import PracticeTest, Practised
from vadrin.core.simulation.practice_world import PracticeWorld

_PUSHES = (-1, 0, 1, 2)
_GRADIENT = 0.58
_TARGET = {"kind": "average_gradient", "value": _GRADIENT}


def truth_of(test: PracticeTest, seed: int, level: Level) -> dict[str, Any]:
    """The truth of a practice test.

    Parameters
    ----------
    test : PracticeTest
    seed : int
    level : Level

    Returns
    -------
    dict
        Plain JSON data; a figure that nothing reaches within the times tried is None.
    """
    film, times = test.film, [strip.real_min_20 for strip in test.strips]
    normal = film.time_for_gradient(_GRADIENT)
    tried = normal is not None and min(times) <= normal <= max(times)
    return {
        "seed": seed,
        "level": level.value,
        "shape": film.shape,
        "box_speed": film.box_speed,
        "q10": round(film.q10, 3),
        "strips": {strip.label: _strip(film, strip) for strip in test.strips},
        "finding": {
            "target": _TARGET,
            "time_min": normal,
            "zone_ei": None if normal is None else film.zone_ei(normal),
            "tested": tried,
        },
        "push": [] if normal is None else [_push(film, normal, stops) for stops in _PUSHES],
        "traps": list(test.traps),
    }


def _strip(film: PracticeFilm, strip: Practised) -> dict[str, float | None]:
    minutes = strip.real_min_20
    return {
        "time_min": strip.time_min,
        "real_min_20": minutes,
        "base_fog": film.base_fog(minutes),
        "log_h_m": film.log_h_m(minutes),
        "zone_ei": film.zone_ei(minutes),
        "average_gradient": film.average_gradient(minutes),
    }


def _push(film: PracticeFilm, normal: float, stops: int) -> dict[str, float | None]:
    index = film.zone_ei(normal)
    return {
        "stops": float(stops),
        "exposure_index": None if index is None else index * 10.0 ** (STOP * stops),
        "hold_midtone_min": film.push_minutes(normal, stops, 0),
        "hold_highlight_min": film.push_minutes(normal, stops),
    }


def truth_of_world(world: PracticeWorld, seed: int, level: Level, kind: str) -> dict[str, Any]:
    """The truth of a film that is shot and developed in its notebook.

    Parameters
    ----------
    world : PracticeWorld
    seed : int
    level : Level
    kind : str
        The type of test it was begun for.

    Returns
    -------
    dict
        Plain JSON data; a figure that nothing reaches is None.
    """
    film = world.film
    normal = film.time_for_gradient(_GRADIENT)
    return {
        "seed": seed,
        "level": level.value,
        "kind": kind,
        "draws": DRAWS,
        "shape": film.shape,
        "box_speed": film.box_speed,
        "q10": round(film.q10, 3),
        "finding": {
            "target": _TARGET,
            "time_min": normal,
            "zone_ei": None if normal is None else film.zone_ei(normal),
        },
        "push": [] if normal is None else [_push(film, normal, stops) for stops in _PUSHES],
        "traps": [trap.kind.value for trap in world.traps],
    } | _beside(world)


def _beside(world: PracticeWorld) -> dict[str, Any]:
    """What is true beside EI and times, where a test asks for it."""
    told: dict[str, Any] = {}
    if world.reciprocity is not None:
        told["long_s"] = world.reciprocity.needed(LONG_S)
    if world.other is not None:
        told["other"] = asdict(world.other)
    if world.layers:
        told["layers"] = {name: asdict(layer) for name, layer in world.layers.items()}
    return told

"""What is true of the figures a test answers in its own way, and what the program found."""

from __future__ import annotations

from collections.abc import Mapping
from math import log2
from typing import Any

from vadrin.app.document.state import State
from vadrin.app.loaded.loaded_test import LoadedStrip
from vadrin.app.practice.practice_questions import (
    BLACK,
    FASTER,
    FOG,
    LONG,
    LONG_S,
    LONGER,
    SCALE,
    STEP_OFF,
    THIN_OFF,
    TODAY,
    Question,
)
from vadrin.core.figure import Figure
from vadrin.core.planning.test_types.compare import Compare
from vadrin.core.planning.test_types.process_control import HIGH, LOW
from vadrin.core.process.control_limits import ControlFigure
from vadrin.core.simulation.practice_world import PracticeWorld

Figures = Mapping[str, Any]


def true_and_found(
    question: Question, world: PracticeWorld, state: State, film: dict[str, Any], figures: Figures
) -> tuple[float | None, Figure]:
    """What is true of a figure, None where nothing is, and what the program found of it.

    Parameters
    ----------
    question : Question
    world : PracticeWorld
    state : State
    film : dict
        What is on the film by now.
    figures : mapping
        Of the test's own answer, by their keys.
    """
    if question is LONGER:
        factor, low, high = (figures.get(name) for name in ("factor", "low", "high"))
        return 1.0 / world.run_of(1), Figure(factor, low, high)
    true, key = _truth(question, world, state, film)
    told = figures.get(key)
    return true, told if isinstance(told, Figure) else Figure(told)


def _truth(
    question: Question, world: PracticeWorld, state: State, film: dict[str, Any]
) -> tuple[float | None, str]:
    """What is true, and under which key the answer to the test has it."""
    if question is LONG:
        true = world.reciprocity.needed(LONG_S) if world.reciprocity is not None else None
        return true, f"corrected_{LONG_S:g}s"
    if question is SCALE:
        return world.paper.exposure_scale, "exposure_scale"
    if question is BLACK:
        return world.paper.black, "d_max"
    worth = [film["worth"].get(str(s.strip.id)) for s in state.loaded.strips]
    if question in (THIN_OFF, STEP_OFF):
        return _of_the_last_run(question, world, state, worth)
    if question in (TODAY, FOG):
        return _of_old_film(question, world, [float(w) for w in worth if w is not None])
    return _of_the_other(question, world, state, worth[:2])


def _of_the_last_run(
    question: Question, world: PracticeWorld, state: State, worth: list[float | None]
) -> tuple[float | None, str]:
    """By how much the last strip of a process differs from the first, as it was exposed."""
    key = (ControlFigure.LOW if question is THIN_OFF else ControlFigure.CONTRAST).value
    runs = [minutes for minutes in worth if minutes is not None]
    first = state.loaded.strips[0]
    thin, dense = (_exposure(state, first, name) for name in (LOW, HIGH))
    if len(runs) < 2 or thin is None or dense is None:
        return None, f"{key} off"
    patches = [
        (float(world.film.net(thin, minutes)), float(world.film.net(dense, minutes)))
        for minutes in (runs[0], runs[-1])
    ]
    (thin_1, dense_1), (thin_2, dense_2) = patches
    step = (dense_2 - thin_2) - (dense_1 - thin_1)
    return (thin_2 - thin_1 if question is THIN_OFF else step), f"{key} off"


def _exposure(state: State, strip: LoadedStrip, name: str) -> float | None:
    frame = next((f for f in strip.frames if f.frame.name == name), None)
    return frame.log_h(state.loaded.test.meter_constant) if frame is not None else None


def _of_the_other(
    question: Question, world: PracticeWorld, state: State, worth: list[float | None]
) -> tuple[float | None, str]:
    """How the other developer or batch does beside the first."""
    strips, other = state.loaded.strips, world.other
    key = "speed_stops" if question is FASTER else "contrast"
    if state.loaded.test.kind == Compare.key and len(strips) > 1:
        key = f"{strips[1].strip.label}_{key}"
    if other is None or len(worth) < 2 or None in worth:
        return None, key
    one, two = (
        (made.zone_ei(float(minutes or 0.0)), made.average_gradient(float(minutes or 0.0)))
        for made, minutes in zip((world.film, other), worth, strict=True)
    )
    at = 0 if question is FASTER else 1
    if not one[at] or not two[at]:
        return None, key
    share = float(two[at] or 0.0) / float(one[at] or 1.0)
    return (log2(share) if question is FASTER else share), key


def _of_old_film(
    question: Question, world: PracticeWorld, worth: list[float]
) -> tuple[float | None, str]:
    """The EI of the strip that is fastest, and its fog."""
    rated = [(index, minutes) for minutes in worth if (index := world.film.zone_ei(minutes))]
    if not rated:
        return None, "ei"
    index, minutes = max(rated)
    return (index, "ei") if question is TODAY else (world.film.base_fog(minutes), "base_fog")

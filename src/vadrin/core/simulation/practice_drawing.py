"""Practice films drawn by level: the film, what will go wrong, and what its test asks besides."""

from __future__ import annotations

from dataclasses import replace
from enum import StrEnum

import numpy as np

from vadrin.core.simulation.practice_film import STOP, PracticeFilm, draw_film
from vadrin.core.simulation.practice_level import Level
from vadrin.core.simulation.practice_paper import draw_paper
from vadrin.core.simulation.practice_reciprocity import draw_reciprocity
from vadrin.core.simulation.practice_trap import OF_CLIPS, OF_PAPER, Trap, TrapKind
from vadrin.core.simulation.practice_world import PracticeWorld

DRAWS = 2
"""The way films are drawn by now; one begun earlier is drawn as it was then."""
_COLOUR_BATH = 37.8
_OLD_NOISE = 1.5
_METER_OFF = 0.3
"""How often, at the hard level, the meter is off."""
_STILL = 0.2
"""How often, at that level, a strip was moved less than noted in place of another trouble."""
_STILL_SPEED = (0.7, 0.9)
_OLD_BOTTLE = (0.45, 0.95)
"""How fast a bottle that stood works, beside a fresh one."""
_RUNS, _RUN_TO_RUN, _RUN_OFF = 12, 0.015, (0.08, 0.3)
_HANDS = 0.008
"""Share by which a development differs from what the clock says."""
_NOISE = {Level.FIRST: 0.004, Level.PLAIN: 0.008, Level.USUAL: 0.010, Level.HARD: 0.012}
_DRIFT = {Level.FIRST: 0.0, Level.PLAIN: 0.0, Level.USUAL: 0.0, Level.HARD: 0.0006}
_DUST = {Level.FIRST: 0.0, Level.PLAIN: 0.0, Level.USUAL: 0.0005, Level.HARD: 0.002}


class Beside(StrEnum):
    """What a practice film has beside one film in one developer, by what its test asks."""

    NOTHING = "nothing"
    LONG_EXPOSURES = "long exposures"
    DEVELOPER = "developer"
    BATCH = "batch"
    LAYERS = "layers"
    YEARS = "years"
    OLD_BOTTLE = "old bottle"
    RUNS = "runs"
    PAPER = "paper"


_POSSIBLE = {Beside.OLD_BOTTLE: OF_CLIPS, Beside.PAPER: OF_PAPER}
"""What may go wrong, where not all of it can."""


def draw_world(
    rng: np.random.Generator, level: Level, beside: Beside = Beside.NOTHING, draws: int = DRAWS
) -> PracticeWorld:
    """A film and its troubles by level; as it comes, any of them may or may not happen.

    Parameters
    ----------
    rng : numpy.random.Generator
    level : Level
    beside : Beside
    draws : int
        By which way of drawing: a film that was begun stays what it was.
    """
    film = draw_film(rng)
    if level is Level.ANY:
        known = [kind for kind in TrapKind if draws > 1 or kind is not TrapKind.AGITATION]
        kinds = [kind for kind in known if rng.random() < 0.3]
        level = Level(str(rng.choice([Level.PLAIN, Level.USUAL, Level.HARD])))
    else:
        kinds = _kinds(rng, level, draws)
    if level is Level.HARD:
        # Stored badly: fog that no box speaks of.
        film = replace(film, fog=film.fog + float(rng.uniform(0.0, 0.25)))
    drawn = [_drawn(rng, kind) for kind in kinds]
    traps = tuple(trap for trap in drawn if trap.kind in _POSSIBLE.get(beside, TrapKind))
    paper = draw_paper(rng)
    hands = tuple(float(1.0 + _HANDS * each) for each in rng.standard_normal(12))
    world = PracticeWorld(film, traps, paper, _NOISE[level], _DRIFT[level], _DUST[level], hands)
    world = _with(rng, world, beside)
    # Last of all, so that nothing that was drawn before is another.
    return replace(world, still=float(rng.uniform(*_STILL_SPEED))) if draws > 1 else world


def _with(rng: np.random.Generator, world: PracticeWorld, beside: Beside) -> PracticeWorld:
    """A world with what its test asks besides."""
    film = world.film
    if beside is Beside.LONG_EXPOSURES:
        return replace(world, reciprocity=draw_reciprocity(rng))
    if beside is Beside.LAYERS:
        warm = replace(film, bath_c=_COLOUR_BATH)
        return replace(world, film=warm, layers=_layers(rng, warm))
    if beside is Beside.DEVELOPER:
        return replace(world, other=_other(rng, film))
    if beside is Beside.BATCH:
        return replace(world, other=_batch(rng, film))
    if beside is Beside.YEARS:
        return replace(world, film=_old(rng, film), noise=_OLD_NOISE * world.noise)
    if beside is Beside.OLD_BOTTLE:
        return replace(world, runs=(1.0, float(rng.uniform(*_OLD_BOTTLE))))
    if beside is Beside.RUNS:
        return replace(world, runs=_runs(rng))
    return world


def _runs(rng: np.random.Generator) -> tuple[float, ...]:
    """A process run after run: in control, and from some run on perhaps no longer."""
    runs = 1.0 + _RUN_TO_RUN * rng.standard_normal(_RUNS)
    off = float(rng.uniform(*_RUN_OFF)) * float(rng.choice((-1.0, 1.0)))
    runs[int(rng.integers(1, _RUNS)) :] += off
    runs[0] = 1.0
    return tuple(float(run) for run in runs)


def _batch(rng: np.random.Generator, film: PracticeFilm) -> PracticeFilm:
    """The film of another batch: what makers let pass, and a little more."""
    return replace(
        film,
        speed_point=film.speed_point + STOP * float(rng.uniform(-0.4, 0.4)),
        contrast=film.contrast * float(rng.uniform(0.93, 1.07)),
        fog=film.fog + float(rng.uniform(0.0, 0.05)),
    )


def _old(rng: np.random.Generator, film: PracticeFilm) -> PracticeFilm:
    """The film after years in a drawer: slower, flatter, fogged."""
    return replace(
        film,
        speed_point=film.speed_point + STOP * float(rng.uniform(0.6, 2.4)),
        contrast=film.contrast * float(rng.uniform(0.8, 0.97)),
        fog=film.fog + float(rng.uniform(0.08, 0.5)),
    )


def _layers(rng: np.random.Generator, film: PracticeFilm) -> dict[str, PracticeFilm]:
    """The layers of red and blue beside that of green: other bases, and rates of their own, so
    that they part as development goes on."""
    return {
        name: replace(
            film,
            speed_point=film.speed_point + float(rng.uniform(-0.12, 0.12)),
            contrast=film.contrast * float(rng.uniform(0.9, 1.12)),
            rate_a_minute=film.rate_a_minute * float(rng.uniform(0.85, 1.2)),
            fog=film.fog + mask,
        )
        for name, mask in (("red", -0.1), ("blue", 0.35))
    }


def _other(rng: np.random.Generator, film: PracticeFilm) -> PracticeFilm:
    """The film in another developer: faster or slower, steeper or flatter, with other fog."""
    return replace(
        film,
        speed_point=film.speed_point + STOP * float(rng.uniform(-0.8, 0.8)),
        contrast=film.contrast * float(rng.uniform(0.85, 1.18)),
        rate_a_minute=film.rate_a_minute * float(rng.uniform(0.9, 1.1)),
        fog=film.fog + float(rng.uniform(0.0, 0.06)),
    )


def _kinds(rng: np.random.Generator, level: Level, draws: int) -> list[TrapKind]:
    if level in (Level.FIRST, Level.PLAIN):
        return []
    frames = [TrapKind.SHUTTER, TrapKind.SHORT]
    one = frames[int(rng.integers(2))]
    if level is Level.USUAL:
        return [TrapKind.MISREAD, one]
    strips = [TrapKind.BATH, TrapKind.LATE, TrapKind.LABELS, TrapKind.BOTTLE]
    frames = [frames[int(rng.integers(2))], TrapKind.COUNTER]
    once = [TrapKind.METER] if rng.random() < _METER_OFF else []
    strip = strips[int(rng.integers(4))]
    if draws > 1 and rng.random() < _STILL:
        strip = TrapKind.AGITATION
    return [TrapKind.LIGHT, strip, TrapKind.MISREAD, *frames, *once]


def _drawn(rng: np.random.Generator, kind: TrapKind) -> Trap:
    sign = float(rng.choice((-1.0, 1.0)))
    amount = {
        TrapKind.LIGHT: sign * rng.uniform(0.15, 0.35),
        TrapKind.SHUTTER: 1.0,
        TrapKind.BATH: sign * rng.uniform(0.8, 1.4),
        TrapKind.LATE: rng.uniform(0.4, 0.8),
        TrapKind.SHORT: 3.0,
        TrapKind.MISREAD: rng.uniform(0.25, 0.4),
        TrapKind.LABELS: 1.0,
        TrapKind.METER: sign / 3.0,
        TrapKind.COUNTER: 1.0,
        TrapKind.BOTTLE: rng.uniform(0.06, 0.12),
        TrapKind.AGITATION: 0.0,
    }[kind]
    if kind is TrapKind.AGITATION:
        # Apart: a number drawn above for every kind would make other films of all seeds.
        amount = rng.uniform(0.1, 0.2)
    return Trap(kind, int(rng.integers(60)), float(rng.uniform(0.25, 0.9)), float(amount))

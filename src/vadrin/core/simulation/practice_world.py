"""A practice film in somebody's hands: what each act does to it, whatever is noted."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from enum import StrEnum

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.simulation.practice_film import STOP, PracticeFilm, draw_film
from vadrin.core.simulation.practice_level import Level
from vadrin.core.simulation.practice_paper import PracticePaper, draw_paper
from vadrin.core.simulation.practice_reciprocity import PracticeReciprocity, draw_reciprocity
from vadrin.core.simulation.practice_trap import Trap, TrapKind

USUALLY_MOVED = 1 / 6
"""Ten seconds of each minute."""
_REFRESHES = 0.15
"""Share of moving after which most of what was spent has given way."""
DRAWS = 2
"""The way films are drawn by now; one begun earlier is drawn as it was then."""


@dataclass(frozen=True)
class TreatedStrip:
    """A strip as its tester noted it.

    Attributes
    ----------
    log_h : ndarray, shape (n,)
        Lg lux seconds frame by frame; nan where no light was meant.
    minutes, temperature_c : float
        Of its development.
    seconds : ndarray, shape (n,), optional
        That each frame was exposed for; nan where it does not matter.
    other : bool
        Whether it went through the other developer.
    moved : float
        Share of its development in which the tank was moved.
    """

    log_h: Array
    minutes: float
    temperature_c: float = 20.0
    seconds: Array | None = None
    other: bool = False
    moved: float = USUALLY_MOVED

    def developed_as(self, other: TreatedStrip) -> TreatedStrip:
        """Its exposures with the development of another."""
        return replace(
            self,
            minutes=other.minutes,
            temperature_c=other.temperature_c,
            other=other.other,
            moved=other.moved,
        )


@dataclass(frozen=True)
class DevelopedStrip:
    """A strip as it really is.

    Attributes
    ----------
    densities : ndarray, shape (n,)
        Base plus fog included; nan where there is no film any more.
    base_fog : float
    minutes_at_20 : float
        What its development was worth.
    layers : dict of str to (ndarray, float)
        Of colour film: densities and base of each layer that is not the one above, by channel.
    """

    densities: Array
    base_fog: float
    minutes_at_20: float
    layers: dict[str, tuple[Array, float]] = field(default_factory=dict)


@dataclass(frozen=True)
class PracticeWorld:
    """A film, what will go wrong with it, and the instruments it is read by.

    Attributes
    ----------
    film : PracticeFilm
    traps : tuple of Trap
    paper : PracticePaper
    noise, drift : float
        Standard deviation of a density, and how far the densitometer's zero moves a reading.
    dust : float
        Share of a scan that dust covers.
    hands : tuple of float
        What no hand does alike twice: how much of its time each strip really gets.
    other : PracticeFilm, optional
        The same film as another developer brings it out.
    reciprocity : PracticeReciprocity, optional
        None where no test asks for long exposures.
    layers : dict of str to PracticeFilm
        Of colour film: the layers beside that of green, by channel.
    still : float
        How fast the developer works on film that nobody moves, beside film moved as usual.
    """

    film: PracticeFilm
    traps: tuple[Trap, ...] = ()
    paper: PracticePaper = field(default_factory=PracticePaper)
    noise: float = 0.006
    drift: float = 0.0
    dust: float = 0.0
    hands: tuple[float, ...] = (1.0,)
    other: PracticeFilm | None = None
    reciprocity: PracticeReciprocity | None = None
    layers: dict[str, PracticeFilm] = field(default_factory=dict)
    still: float = 1.0

    def speed_moved(self, share: float) -> float:
        """How fast the developer works on film moved for a share of the time: what is spent in
        the film gives way to fresh developer, the more moves the less each one adds."""
        fresh = np.expm1(-share / _REFRESHES) / np.expm1(-USUALLY_MOVED / _REFRESHES)
        return float(self.still + (1.0 - self.still) * fresh)

    def film_of(self, strip: TreatedStrip) -> PracticeFilm:
        """The film as the developer of a strip brings it out."""
        return self.other if strip.other and self.other is not None else self.film

    def developed(self, strips: Sequence[TreatedStrip | None]) -> list[DevelopedStrip | None]:
        """What is on the film.

        Parameters
        ----------
        strips : sequence of TreatedStrip or None
            Every strip of the test in its order; None for one that does not go through now.
        """
        really = [
            None if strip is None else self._treated(place, strip, len(strips))
            for place, strip in enumerate(strips)
        ]
        for trap in self._of(TrapKind.LABELS):
            one = trap.strip_of(len(really))
            mine, other = really[one], really[one + 1] if one + 1 < len(really) else None
            if mine is not None and other is not None:
                really[one], really[one + 1] = mine.developed_as(other), other.developed_as(mine)
        made = [None if strip is None else self._developed(strip) for strip in really]
        for trap in self._of(TrapKind.SHORT):
            cut = made[trap.strip_of(len(made))]
            if cut is not None:
                for dense in (cut.densities, *(layer for layer, _ in cut.layers.values())):
                    dense[len(dense) - int(trap.amount) :] = np.nan
        return made

    def misread(self, place: int, count: int, frame: int, exposed: int) -> float:
        """Density by which the first reading of a frame is off.

        Parameters
        ----------
        place, count : int
            Of its strip, and of how many.
        frame, exposed : int
            Of the frame among those that had light, and of how many.
        """
        off = (
            t.amount
            for t in self._of(TrapKind.MISREAD)
            if t.strip_of(count) == place and t.frame_of(exposed) == frame
        )
        return sum(off)

    def _of(self, kind: TrapKind) -> list[Trap]:
        return [trap for trap in self.traps if trap.kind is kind]

    def happens(self, trap: Trap, count: int) -> bool:
        """Whether it can be seen in a test of so many strips: what is said of one strip alone
        nothing contradicts."""
        return count > 1 or trap.kind not in _OF_SEVERAL

    def _treated(self, place: int, noted: TreatedStrip, count: int) -> TreatedStrip:
        x, celsius = noted.log_h.copy(), noted.temperature_c
        if self.reciprocity is not None and noted.seconds is not None:
            x -= self.reciprocity.lost(noted.seconds)
        minutes = noted.minutes * self.hands[place % len(self.hands)]
        minutes *= self.speed_moved(noted.moved)
        lit = np.flatnonzero(np.isfinite(x))
        for trap in self.traps:
            mine = trap.strip_of(count) == place and self.happens(trap, count)
            if trap.kind is TrapKind.LIGHT and len(lit) > 1:
                x[lit] += STOP * trap.amount * np.linspace(0.0, 1.0, len(lit))
            elif trap.kind is TrapKind.METER:
                x[lit] += STOP * trap.amount
            elif trap.kind is TrapKind.SHUTTER and mine and len(lit):
                x[lit[trap.frame_of(len(lit))]] = np.nan
            elif trap.kind is TrapKind.COUNTER and mine and len(lit):
                late = lit[trap.frame_of(len(lit)) :]
                x[late] = np.append(np.nan, x[late[:-1]])
            elif trap.kind is TrapKind.BOTTLE:
                minutes *= (1.0 - trap.amount) ** place
            elif trap.kind is TrapKind.BATH and mine:
                celsius += trap.amount
            elif trap.kind is TrapKind.LATE and mine:
                minutes += trap.amount
            elif trap.kind is TrapKind.AGITATION and mine:
                minutes *= 1.0 - trap.amount
        return replace(noted, log_h=x, minutes=minutes, temperature_c=celsius)

    def _developed(self, strip: TreatedStrip) -> DevelopedStrip:
        film = self.film_of(strip)
        worth = film.minutes_at_20(strip.minutes, strip.temperature_c)
        layers = {name: _densities(made, strip, worth) for name, made in self.layers.items()}
        return DevelopedStrip(*_densities(film, strip, worth), worth, layers)


def _densities(film: PracticeFilm, strip: TreatedStrip, worth: float) -> tuple[Array, float]:
    """Density frame by frame, and base plus fog."""
    fog = film.base_fog(worth)
    lit = np.isfinite(strip.log_h)
    net = np.zeros(len(strip.log_h))
    net[lit] = film.net(strip.log_h[lit], worth)
    return fog + net, fog


_COLOUR_BATH = 37.8
_OLD_NOISE = 1.5
_METER_OFF = 0.3
"""How often, at the hard level, the meter is off."""
_STILL = 0.2
"""How often, at that level, a strip was moved less than noted in place of another trouble."""
_STILL_SPEED = (0.7, 0.9)
_HANDS = 0.008
"""Share by which a development differs from what the clock says."""
_OF_SEVERAL = (TrapKind.BATH, TrapKind.LATE, TrapKind.LABELS, TrapKind.BOTTLE, TrapKind.AGITATION)
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
    traps = tuple(_drawn(rng, kind) for kind in kinds)
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
    return world


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

"""A practice film in somebody's hands: what each act does to it, whatever is noted."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field, replace

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.simulation.practice_film import STOP, PracticeFilm
from vadrin.core.simulation.practice_paper import PracticePaper
from vadrin.core.simulation.practice_reciprocity import PracticeReciprocity
from vadrin.core.simulation.practice_trap import Trap, TrapKind

USUALLY_MOVED = 1 / 6
"""Ten seconds of each minute."""
_NO_LIGHT_S = 1e-6
_REFRESHES = 0.15
"""Share of moving after which most of what was spent has given way."""
_OF_SEVERAL = (TrapKind.BATH, TrapKind.LATE, TrapKind.LABELS, TrapKind.BOTTLE, TrapKind.AGITATION)


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
    runs : tuple of float
        How fast the developer of each strip works, where not all go through the same; the last
        counts for the strips after it.
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
    runs: tuple[float, ...] = (1.0,)

    def run_of(self, place: int) -> float:
        """How fast the developer of a strip works."""
        return self.runs[min(place, len(self.runs) - 1)]

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

    def printed(self, strips: Sequence[TreatedStrip | None]) -> list[DevelopedStrip | None]:
        """What is on strips of paper that lay under clear film.

        Parameters
        ----------
        strips : sequence of TreatedStrip or None
            As `developed`; of each frame its seconds count.
        """
        return [
            None if strip is None else self._printed(place, strip, len(strips))
            for place, strip in enumerate(strips)
        ]

    def _printed(self, place: int, noted: TreatedStrip, count: int) -> DevelopedStrip:
        held = np.full_like(noted.log_h, np.nan) if noted.seconds is None else noted.seconds
        lit = np.where(np.isfinite(noted.log_h), held, np.nan)
        treated = self._treated(place, TreatedStrip(np.log10(lit), 0.0), count)
        seconds = np.nan_to_num(10.0**treated.log_h, nan=_NO_LIGHT_S)
        tones = self.paper.density(seconds, self.film.fog)
        return DevelopedStrip(tones, self.paper.white, 0.0)

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
        minutes *= self.speed_moved(noted.moved) * self.run_of(place)
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

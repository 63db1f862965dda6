"""Films of the shapes real stocks have, each in closed form with its truth by root finding.

Every number of a shape is a field, so that the limit of any estimate that knows the shape
(Cramér and Rao) follows from derivatives by the fields.
"""

from dataclasses import dataclass, field, fields, replace

import numpy as np
from scipy.optimize import brentq

from oracles.closed_form import ClosedForm, FilmShape


def softened(z, width):
    """A corner at 0, softened over a width: 0 far below, z far above."""
    return width * np.logaddexp(0, z / width)


@dataclass(frozen=True)
class LongToe(ClosedForm):
    """Grains of thresholds spread over two lg units."""

    spread: float = 2.0

    def net(self, x, minutes):
        offsets = np.linspace(0.0, self.spread, 9)
        return np.mean([super(LongToe, self).net(x - o + 0.6, minutes) for o in offsets], axis=0)


@dataclass(frozen=True)
class HardCorner(ClosedForm):
    """A toe that is all but a corner."""

    toe: float = 0.03


@dataclass(frozen=True)
class StillSteepening(ClosedForm):
    """Slope still rises at the densest exposure."""

    span: float = 9.0
    steepening: float = 0.10

    def net(self, x, minutes):
        straight = super().net(x, minutes)
        return straight * (1 + self.steepening * straight)


@dataclass(frozen=True)
class TwoEmulsions(ClosedForm):
    """A fast and a slow emulsion on one base, each with its own rate of development."""

    contrast: float = 0.6
    apart: float = 0.9
    slow_contrast: float = 0.75
    slow_rate: float = 0.07

    def net(self, x, minutes):
        fast = super().net(x, minutes)
        slow = replace(
            ClosedForm(**{f.name: getattr(self, f.name) for f in fields(ClosedForm)}),
            contrast=self.slow_contrast,
            rate=self.slow_rate,
            speed_level=self.speed_level + self.apart,
        )
        return fast + slow.net(x, minutes)


@dataclass(frozen=True)
class Compensating(ClosedForm):
    """Density saturates whatever the time."""

    ceiling: float = 1.9

    def net(self, x, minutes):
        return self.ceiling * -np.expm1(-super().net(x, minutes) / self.ceiling)


@dataclass(frozen=True)
class GrowingFog(ClosedForm):
    """Fog that grows with development and eats contrast."""

    fog_growth: float = 0.003
    fog_power: float = 1.7

    def base_fog(self, minutes):
        return self.fog + self.fog_growth * minutes**self.fog_power

    def net(self, x, minutes):
        eaten = 1 - 0.4 * (self.base_fog(minutes) - self.fog)
        return super().net(x, minutes) * np.maximum(eaten, 0.2)


@dataclass(frozen=True)
class LateAcceleration(ClosedForm):
    """Contrast gathers pace late, as in infectious development."""

    early: float = 0.30
    late: float = 0.0032

    def net(self, x, minutes):
        own = -self.contrast * np.expm1(-self.rate * (minutes - self.delay))
        return super().net(x, minutes) / own * (self.early + self.late * minutes**2)


@dataclass(frozen=True)
class Exhausting(ClosedForm):
    """Developer that is used up: contrast stops rising at all."""

    stops_at: float = 11.0

    def net(self, x, minutes):
        # Time as it counts runs into a ceiling.
        counted = minutes - softened(minutes - self.stops_at, 1.0)
        return super().net(x, counted)


@dataclass(frozen=True)
class SpeedGains(ClosedForm):
    """Speed that keeps rising with ln t."""

    moves: float = 0.25

    def net(self, x, minutes):
        return super().net(x + self.moves * np.log(minutes / 8.0), minutes)


@dataclass(frozen=True)
class SpeedFalls(SpeedGains):
    """Speed that keeps falling with ln t: a restrained developer."""

    moves: float = -0.15
    speed_gain: float = 0.0


@dataclass(frozen=True)
class Reversal(ClosedForm):
    """Density falls with exposure, from the maximum that a blank has."""

    contrast: float = 2.1
    span: float = 2.3
    most: float = 3.4

    def density(self, x, minutes):
        fallen = 0.0 if x is None else float(self.net(x, minutes))
        return self.most + self.fog - fallen

    def speed(self, minutes):
        """10 over the geometric mean of the exposures 0.20 and 2.0 over the least density."""
        least = self.density(6.0, minutes)
        h_s, h_t = (
            brentq(lambda x, d=d: self.density(x, minutes) - least - d, -6, 6, xtol=1e-12)
            for d in (0.20, 2.0)
        )
        return 10 / 10 ** (0.5 * (h_s + h_t))


@dataclass(frozen=True)
class ThreeLayers:
    """Red, green and blue of a colour negative, each a curve of its own."""

    red: ClosedForm = field(default_factory=lambda: ClosedForm(speed_level=-2.1, fog=0.25))
    green: ClosedForm = field(default_factory=lambda: ClosedForm(speed_level=-2.0, fog=0.55))
    blue: ClosedForm = field(
        default_factory=lambda: ClosedForm(speed_level=-1.8, fog=0.8, contrast=1.25)
    )

    def speed(self, minutes):
        """The square root of 2 over the geometric mean of the green and the slowest exposure."""
        at = {
            name: brentq(lambda x, f=film: f.net(x, minutes) - 0.15, -6, 6, xtol=1e-12)
            for name, film in self.layers().items()
        }
        return 2**0.5 / 10 ** (0.5 * (at["green"] + max(at.values())))

    def layers(self):
        return {"red": self.red, "green": self.green, "blue": self.blue}


SHAPES: dict[str, FilmShape] = {
    "plain": ClosedForm(),
    "long toe": LongToe(),
    "hard corner": HardCorner(),
    "still steepening": StillSteepening(),
    "two emulsions": TwoEmulsions(),
    "compensating": Compensating(),
    "growing fog": GrowingFog(),
    "late acceleration": LateAcceleration(),
    "exhausting": Exhausting(),
    "speed gains": SpeedGains(),
    "speed falls": SpeedFalls(),
}


def varied(shape, rng):
    """Another film of the same shape: every number moved a little."""
    moved = {
        f.name: getattr(shape, f.name) * float(np.exp(0.08 * rng.standard_normal()))
        for f in fields(shape)
        if f.name != "speed_level"
    }
    return replace(shape, speed_level=shape.speed_level + 0.1 * rng.standard_normal(), **moved)

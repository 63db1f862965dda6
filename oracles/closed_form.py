"""A film in closed form, whose every figure can be found by root finding alone."""

from dataclasses import dataclass

import numpy as np
from scipy.optimize import brentq

from vadrin.core.readings import Reading, StripReadings

STOP = np.log10(2.0)


class FilmShape:
    """What follows from net density and base plus fog by root finding alone.

    A shape says `net(x, minutes)` and `base_fog(minutes)`.
    """

    def density(self, x, minutes):
        """Density of a frame; of a blank for no exposure."""
        base = float(self.base_fog(minutes))
        return base if x is None else base + float(self.net(x, minutes))

    def x_m(self, minutes):
        return brentq(lambda x: self.net(x, minutes) - 0.10, -5, 3, xtol=1e-12)

    def gradient(self, minutes):
        return (self.net(self.x_m(minutes) + 1.5, minutes) - 0.10) / 1.5

    def zone_ei(self, minutes):
        return 8.125 / 16 / 10 ** self.x_m(minutes)

    def zone8(self, minutes):
        return self.net(self.x_m(minutes) + 7 * STOP, minutes)

    def time_for(self, figure, value):
        """The first time at which a figure reaches a value; fog may take it back later."""
        times = np.geomspace(2.0, 60.0, 80)
        over = [figure(t) >= value for t in times]
        if over[0] or not any(over):
            raise ValueError("not reached")
        first = over.index(True)
        return brentq(lambda t: figure(t) - value, times[first - 1], times[first], xtol=1e-12)

    def push_time(self, normal, stops, above):
        """Time that holds the density `above` stops over the meter at another EI."""
        meter = np.log10(8.125 / self.zone_ei(normal))
        held = self.net(meter + above * STOP, normal)
        at = meter + (above - stops) * STOP
        return brentq(lambda t: self.net(at, t) - held, 1.0, 200.0, xtol=1e-12)

    def strips(self, times, step=0.5, noise=0.0, rng=None, blanks=2, grow=0.0):
        """Readings of one strip a time, half a stop apart unless told otherwise.

        The standard deviation of a reading is noise + grow * density.
        """
        x = np.log10(8.125 / 50) + STOP * np.arange(-6, 6.01, step)
        made = []
        for label, minutes in zip("ABCDEFGH", times, strict=False):
            fog = self.base_fog(minutes)
            true = np.concatenate([np.full(blanks, fog), fog + self.net(x, minutes)])
            if rng is not None:
                true = true + (noise + grow * true) * rng.standard_normal(len(true))
            names = [f"b{i}" for i in range(blanks)] + [str(i + 1) for i in range(len(x))]
            places = [None] * blanks + [float(v) for v in x]
            readings = tuple(
                Reading(n, p, round(float(d), 6))
                for n, p, d in zip(names, places, true, strict=True)
            )
            made.append(StripReadings(label, float(minutes), 20.0, readings))
        return tuple(made)


@dataclass(frozen=True)
class ClosedForm(FilmShape):
    """Toe and shoulder as softened corners; contrast, speed and fog follow time."""

    speed_level: float = -2.0
    speed_gain: float = 0.35
    contrast: float = 1.1
    rate: float = 0.125
    delay: float = 0.4
    toe: float = 0.14
    shoulder: float = 0.35
    span: float = 3.0
    fog: float = 0.15

    def net(self, x, minutes):
        g = self.contrast * (1 - np.exp(-self.rate * (minutes - self.delay)))
        start = self.speed_level + self.speed_gain * np.exp(-0.12 * minutes)
        low = self.toe * np.logaddexp(0, (x - start) / self.toe)
        high = self.shoulder * np.logaddexp(0, (x - start - self.span) / self.shoulder)
        return g * (low - high)

    def base_fog(self, minutes):
        return self.fog + 0.006 * minutes

"""Prints near maximum black, from light to what an eye tells: papers of four kinds of shoulder, and
testers who look at sections side by side.

Written from what paper and eyes do; nothing of it is taken from what reads the answers.
"""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from scipy.special import erf


def _logistic(z):
    return 1 / (1 + np.exp(-z))


def _gompertz(z):
    return np.exp(-np.exp(-z))


def _normal(z):
    return 0.5 * (1 + erf(z / 1.7))


def _grains(z):
    return 1 - np.exp(-np.exp(z))


PAPER_SHAPES = {"logistic": _logistic, "gompertz": _gompertz, "normal": _normal, "grains": _grains}
"""Share of black over a scaled exposure; how each comes to black differs."""


@lru_cache(maxsize=256)
def _ends(kind, first_grey):
    """Where a shape reaches its first grey, and 90 % of black."""
    z = np.linspace(-14, 14, 56001)
    share = PAPER_SHAPES[kind](z)
    return tuple(float(z[np.searchsorted(share, level)]) for level in (first_grey, 0.9))


@dataclass(frozen=True)
class BlackPaper:
    """A paper by the way it comes to black, its exposure scale and its greatest density."""

    kind: str
    scale: float = 1.05
    d_max: float = 2.1

    def density(self, log_h):
        """Reflection density at a lg exposure; its exposure scale (0.04 over white to 90 % of the
        net maximum) is as it was made."""
        net, shape = self.d_max - 0.06, PAPER_SHAPES[self.kind]
        low, high = _ends(self.kind, 0.04 / net)
        return 0.06 + net * shape(np.asarray(log_h) * (high - low) / self.scale + low)


@dataclass(frozen=True)
class PrintEye:
    """A tester's eye: the difference of reflection density that is told, and what it wavers by."""

    tells: float = 0.04
    wavers: float = 0.006
    slips: float = 0.03

    def lighter(self, rng, light, dark):
        """Whether one of two patches is seen to be lighter than the other."""
        if rng.random() < self.slips:
            return bool(rng.random() < 0.5)
        return bool(dark - light > self.tells + self.wavers * rng.standard_normal())


def first_section_like_the_next(rng, eye, paper, exposures):
    """The number of the first section, from 1, that the eye can't tell from the one after it."""
    dense = paper.density(exposures)
    for place in range(len(dense) - 1):
        if dense[place] > 1.0 and not eye.lighter(rng, dense[place], dense[place + 1]):
            return place + 1
    return len(dense)


def just_lighter(paper, at, by=0.04):
    """Net density of film that prints lighter than clear film by so much, where clear film gets
    a lg exposure `at`."""
    nets = np.linspace(0, 1.2, 6001)
    lighter = paper.density(at) - paper.density(at - nets)
    return float(nets[np.searchsorted(lighter, by)])

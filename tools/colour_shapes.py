"""How the core does on reversal film and on colour negatives: ``colour_shapes.py [FILMS]``.

Speeds of one strip in half stops, with blanks and without, beside what an estimate that knows
the shape could do at best (Cramér and Rao). `shapes.py` prints the same lines at its end.
"""

from __future__ import annotations

import math
import sys
from dataclasses import fields, replace
from pathlib import Path

import numpy as np

ROOT = Path(__file__).parents[1]
sys.path[:0] = [str(ROOT), str(ROOT / "src")]

from oracles.film_shapes import Reversal, ThreeLayers, varied  # noqa: E402
from vadrin.core.materials.colour import colour_negative_speed, colour_reversal_speed  # noqa: E402
from vadrin.core.readings import Reading, StripReadings  # noqa: E402

STOP = math.log10(2)
MINUTES = 8.0
NOISES = {"constant": (0.012, 0.0), "growing": (0.008, 0.010)}


class ReversalTest:
    """One strip of reversal film."""

    x = np.arange(-3.6, 1.9, STOP / 2)

    def film(self, rng):
        return varied(Reversal(), rng)

    def channels(self, film):
        return {"visual": film}

    def rebuilt(self, film, channels):
        return channels["visual"]

    def found(self, strips, rng):
        return colour_reversal_speed(strips["visual"], rng)


class LayersTest:
    """The three channels of one strip of colour negative."""

    x = np.arange(-3.6, 0.9, STOP / 2)

    def film(self, rng):
        return ThreeLayers(**{k: varied(v, rng) for k, v in ThreeLayers().layers().items()})

    def channels(self, film):
        return film.layers()

    def rebuilt(self, film, channels):
        return ThreeLayers(**channels)

    def found(self, strips, rng):
        return colour_negative_speed(strips["green"], (strips["red"], strips["blue"]), rng)


def read(kind, film, blanks, noise, rng):
    """A strip a channel."""
    places = [None] * blanks + [float(x) for x in kind.x]
    strips = {}
    for channel, layer in kind.channels(film).items():
        true = np.array([layer.density(x, MINUTES) for x in places])
        seen = true + (noise[0] + noise[1] * true) * rng.standard_normal(len(true))
        rows = [
            Reading(str(i), x, round(float(d), 4))
            for i, (x, d) in enumerate(zip(places, seen, strict=True))
        ]
        strips[channel] = StripReadings("A", MINUTES, 20.0, tuple(rows), channel)
    return strips


def limit(kind, film, blanks, noise):
    """Least standard deviation of the speed in stops."""
    variance = 0.0
    places = [None] * blanks + [float(x) for x in kind.x]
    for channel, layer in kind.channels(film).items():
        by_density, by_speed = [], []
        for f in fields(layer):
            h = 1e-4 * max(abs(getattr(layer, f.name)), 0.05)
            ends = [replace(layer, **{f.name: getattr(layer, f.name) + s * h}) for s in (1, -1)]
            up, down = (np.array([e.density(x, MINUTES) for x in places]) for e in ends)
            by_density.append((up - down) / (2 * h))
            speeds = [
                kind.rebuilt(film, {**kind.channels(film), channel: e}).speed(MINUTES) for e in ends
            ]
            by_speed.append(math.log2(speeds[0] / speeds[1]) / (2 * h))
        true = np.array([layer.density(x, MINUTES) for x in places])
        jacobian = np.array(by_density).T / (noise[0] + noise[1] * true)[:, None]
        covariance = np.linalg.pinv(jacobian.T @ jacobian, rcond=1e-12)
        variance += float(np.array(by_speed) @ covariance @ np.array(by_speed))
    return math.sqrt(variance)


def line(name, kind, count, blanks, noise_name):
    """One line of figures."""
    errors, held, halves, limits = [], 0, [], []
    noise = NOISES[noise_name]
    for seed in range(count):
        rng = np.random.default_rng([seed, blanks])
        film = kind.film(rng)
        found = kind.found(read(kind, film, blanks, noise, rng), np.random.default_rng(1))
        if found.value is None:
            continue
        true = film.speed(MINUTES)
        errors.append(math.log2(found.value / true))
        held += found.low <= true <= found.high
        halves.append(0.5 * math.log2(found.high / found.low))
        limits.append(limit(kind, film, blanks, noise))
    if not errors:
        return f"{name}: absent in all of {count}"
    rms = math.sqrt(np.mean(np.square(errors)))
    best = math.sqrt(np.mean(np.square(limits)))
    return (
        f"{name:<12}{blanks} blanks, {noise_name:<9} n {len(errors):>4}  rms {rms:.4f}  "
        f"bias {np.mean(errors):+.4f}  held {100 * held / len(errors):5.1f}  "
        f"width {np.median(halves) / 1.96 / rms:.2f}  {rms / best:.2f} of the limit"
    )


def lines(count):
    """All lines."""
    for name, kind in (("reversal", ReversalTest()), ("three layers", LayersTest())):
        for blanks in (2, 0):
            for noise in NOISES:
                yield line(name, kind, count, blanks, noise)


if __name__ == "__main__":
    for told in lines(int(sys.argv[1]) if len(sys.argv) > 1 else 40):
        print(told, flush=True)

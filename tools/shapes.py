"""How the core does on films of every shape: ``shapes.py [FILMS] [--strips 5] [--whole] ...``.

For each shape: root mean square error, bias, how often the 95 % interval holds the truth, its
median width beside what the errors warrant, alarms on clean tests, and for speed the ratio to the
Cramér-Rao limit of an estimate that knows the shape. Last, speeds of reversal film and of three
colour layers, one strip each. With ``--wrong-times``: how many times wrong by a third are named.
"""

from __future__ import annotations

import argparse
import math
import sys
from collections import defaultdict
from concurrent.futures import ProcessPoolExecutor
from dataclasses import fields, replace
from itertools import product
from pathlib import Path

import numpy as np

ROOT = Path(__file__).parents[1]
sys.path[:0] = [str(ROOT), str(ROOT / "src")]

from oracles.film_shapes import SHAPES, varied  # noqa: E402
from tools.colour_shapes import lines as colour_lines  # noqa: E402
from vadrin.core.readings import Reading, StripReadings  # noqa: E402
from vadrin.core.results.analysis import analyse  # noqa: E402
from vadrin.core.results.analysis_result import Settings  # noqa: E402

STOP = math.log10(2)
TIMES = {5: (0.55, 0.78, 1.08, 1.5, 2.1), 3: (0.6, 1.0, 1.7), 2: (0.75, 1.5), 1: (1.0,)}
"""Development times as shares of the time for the usual gradient."""
NOISES = {"constant": (0.012, 0.0), "growing": (0.008, 0.010)}
QUANTITIES = ("speed", "gradient", "time", "EI", "push time", "shadow lost")
GRADIENT = 0.58


def test_of(shape, count, step, blanks, noise, rng):
    """Strips of one film of a shape, and their times."""
    try:
        normal = shape.time_for(shape.gradient, GRADIENT)
    except ValueError:
        normal = 8.0
    times = [max(1.0, round(4 * normal * share) / 4) for share in TIMES[count]]
    middle = shape.x_m(normal) + math.log10(8.125 / 0.8)
    x = middle + STOP * np.arange(-6, 6.01, step)
    strips = []
    for label, minutes in zip("ABCDE", times, strict=False):
        places = [None] * blanks + [float(v) for v in x]
        true = np.array([shape.density(p, minutes) for p in places])
        read = true + (noise[0] + noise[1] * true) * rng.standard_normal(len(true))
        rows = tuple(
            Reading(str(i + 1), p, round(float(d), 4))
            for i, (p, d) in enumerate(zip(places, read, strict=True))
        )
        strips.append(StripReadings(label, minutes, 20.0, rows))
    return tuple(strips)


def limits_of(shape, strips, noise):
    """Standard deviation in stops that the speed of each strip has at best."""
    names = [f.name for f in fields(shape)]
    x = [[r.log_h for r in s.readings] for s in strips]

    def seen(film):
        dens = [film.density(p, s.time_min) for s, row in zip(strips, x, strict=True) for p in row]
        return np.array(dens), np.array([film.x_m(s.time_min) for s in strips])

    true, _ = seen(shape)
    steps = {n: 1e-4 * max(abs(getattr(shape, n)), 0.05) for n in names}
    by_density, by_speed = [], []
    for name, h in steps.items():
        up = seen(replace(shape, **{name: getattr(shape, name) + h}))
        down = seen(replace(shape, **{name: getattr(shape, name) - h}))
        by_density.append((up[0] - down[0]) / (2 * h))
        by_speed.append((up[1] - down[1]) / (2 * h))
    jacobian = np.array(by_density).T / (noise[0] + noise[1] * true)[:, None]
    covariance = np.linalg.pinv(jacobian.T @ jacobian, rcond=1e-12)
    speed = np.array(by_speed).T
    return np.sqrt(np.maximum(np.einsum("ij,jk,ik->i", speed, covariance, speed), 0)) / STOP


def _loss(shape, normal, minutes, stops=1):
    return stops + math.log2(shape.zone_ei(normal) / shape.zone_ei(minutes))


def truths(shape, strips):
    """What is true of a film: figures a strip, and of the whole test where it is inside."""
    low, high = strips[0].time_min, strips[-1].time_min
    whole = {}
    try:
        normal = shape.time_for(shape.gradient, GRADIENT)
        if low <= normal <= high:
            whole["time"] = normal
            whole["EI"] = shape.zone_ei(normal)
            pushed = shape.push_time(normal, 1, 3)
            if low <= pushed <= high:
                whole["push time"], whole["shadow lost"] = pushed, _loss(shape, normal, pushed)
    except ValueError:
        pass
    speeds = [0.8 / 10 ** shape.x_m(s.time_min) for s in strips]
    return speeds, [shape.gradient(s.time_min) for s in strips], whole


def one(task):
    """Errors of one test: (quantity, error, held, half width, strip) and what was alarmed."""
    name, seed, count, step, blanks, noise = task
    rng = np.random.default_rng([seed, count, blanks, list(SHAPES).index(name)])
    shape = varied(SHAPES[name], rng)
    strips = test_of(shape, count, step, blanks, NOISES[noise], rng)
    answer = analyse(strips, Settings(pushes=(0.0, 1.0)))
    rows = []

    def take(quantity, figure, true, apart, strip=0):
        if figure.value is not None and figure.low is not None:
            held = figure.low <= true <= figure.high
            half = 0.5 * abs(apart(figure.high, figure.low))
            rows.append((quantity, apart(figure.value, true), held, half, strip))

    def stops(a, b):
        return math.log2(a / b)

    def share(a, b):
        return math.log(a / b)

    def apart(a, b):
        return a - b

    speeds, gradients, whole = truths(shape, strips)
    for at, (strip, *true) in enumerate(zip(answer.strips, speeds, gradients, strict=False)):
        take("speed", strip.speed, true[0], stops, at)
        take("gradient", strip.average_gradient, true[1], apart, at)
    found = answer.finding
    push = answer.push[1].hold_highlight if len(answer.push) > 1 else None
    for quantity, figure, how in (
        ("time", found.time_min, share),
        ("EI", found.zone_ei, stops),
        ("push time", push and push.time_min, share),
        ("shadow lost", push and push.shadow_loss_stops, apart),
    ):
        if quantity in whole and figure is not None:
            take(quantity, figure, whole[quantity], how)
    limit = limits_of(shape, strips, NOISES[noise])
    alarms = {w.key for w in answer.diagnostics} & {"misread", "off the family", "light moved"}
    return rows, float(np.mean(limit**2)), alarms


def _width(errors, halves):
    """Median width over what the errors warrant; strip by strip, for thin ones err more."""
    return float(np.median(halves)) / 1.96 / float(np.sqrt(np.mean(errors**2)))


def line_of(name, results):
    """The figures of one shape in a line a quantity."""
    by = defaultdict(list)
    for rows, _, _ in results:
        for quantity, *rest in rows:
            by[quantity].append(rest)
    limit = math.sqrt(np.mean([limit for _, limit, _ in results]))
    alarms = {k: sum(k in a for _, _, a in results) for k in ("misread", "off the family")}
    lines = [f"{name}: alarms {alarms} of {len(results)}"]
    for quantity in QUANTITIES:
        if not by[quantity]:
            continue
        errors, held, halves, strip = (np.array(c) for c in zip(*by[quantity], strict=True))
        rms = float(np.sqrt(np.mean(errors**2)))
        beside = f"  {rms / limit:.2f} of the limit" if quantity == "speed" else ""
        own = 1.96 * errors / np.maximum(halves, 1e-9)
        widths = [_width(errors[strip == at], halves[strip == at]) for at in np.unique(strip)]
        lines.append(
            f"    {quantity:<12}n {len(errors):>4}  rms {rms:.4f}  bias {errors.mean():+.4f}  "
            f"held {100 * held.mean():5.1f}  width {' '.join(f'{w:.2f}' for w in widths)}  "
            f"each its own {1 / np.sqrt(np.mean(own**2)):.2f}{beside}"
        )
    return "\n".join(lines)


def wrong_time(task):
    """Whether a strip whose time was written down wrong by a third is named, an end strip too, and
    whether that moved the answer: the time by a twentieth, or the EI by a sixth of a stop."""
    name, seed, noise = task
    rng = np.random.default_rng([seed, 5, 2])
    strips = list(test_of(varied(SHAPES[name], rng), 5, 0.5, 2, NOISES[noise], rng))
    right = analyse(tuple(strips), Settings(draws=0)).finding
    at, factor = seed % 5, 4 / 3 if seed // 5 % 2 else 3 / 4
    strips[at] = replace(strips[at], time_min=strips[at].time_min * factor)
    answer = analyse(tuple(strips), Settings(draws=60))
    told, wrong = answer.diagnostics, answer.finding
    named = any(w.key == "off the family" and w.strip == strips[at].label for w in told)
    if not (right.time_min.present and wrong.time_min.present):
        return named, False
    later = abs(math.log(wrong.time_min.value / right.time_min.value)) > 0.05
    return named, later or abs(math.log2(wrong.zone_ei.value / right.zone_ei.value)) > 1 / 6


def wrong_times_line(pool, options):
    """How many wrong times are named on each shape and on all, and of those that matter."""

    def counted(rows):
        matter = [named for named, matters in rows if matters]
        return (
            f"{sum(n for n, _ in rows)} of {len(rows)} wrong times named, "
            f"{sum(matter)} of {len(matter)} that matter"
        )

    lines, every = [], []
    for name in options.shapes:
        tasks = [(name, options.seed + k, options.noise[0]) for k in range(options.films)]
        rows = list(pool.map(wrong_time, tasks, chunksize=4))
        every += rows
        lines.append(f"{name}: {counted(rows)}")
    return "\n".join([*lines, f"all: {counted(every)}"])


def main():
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("films", type=int, nargs="?", default=40)
    parser.add_argument("--strips", type=int, nargs="+", default=[5])
    parser.add_argument("--steps", type=float, nargs="+", default=[0.5])
    parser.add_argument("--blanks", type=int, nargs="+", default=[2])
    parser.add_argument("--noise", nargs="+", default=["constant"], choices=list(NOISES))
    parser.add_argument("--shapes", nargs="+", default=list(SHAPES))
    parser.add_argument("--seed", type=int, default=0)
    parser.add_argument("--wrong-times", action="store_true", help="only count those named")
    options = parser.parse_args()
    with ProcessPoolExecutor(2) as pool:
        if options.wrong_times:
            print(wrong_times_line(pool, options))
            return
        for count, step, blanks, noise in product(
            options.strips, options.steps, options.blanks, options.noise
        ):
            print(f"== {count} strips, {step:g} stop steps, {blanks} blanks, {noise} noise")
            for name in options.shapes:
                seeds = range(options.seed, options.seed + options.films)
                tasks = [(name, seed, count, step, blanks, noise) for seed in seeds]
                print(line_of(name, list(pool.map(one, tasks, chunksize=4))), flush=True)
    for told in colour_lines(options.films):
        print(told, flush=True)


if __name__ == "__main__":
    main()

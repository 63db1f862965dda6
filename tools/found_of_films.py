"""What the core finds of made-up films, and which films practice draws: kept, a line for each.

::

    python tools/found_of_films.py              keeps it
    python tools/found_of_films.py NAME         prints in full what is found of one

The films are those of the oracles, read with noise, and in the ways that mislead. Whoever changes
a number in a fit sees of which films something else is found, and keeps the lines anew once that
was meant. A practice film of a seed has to stay what it was: a club gives one to all.
"""

from __future__ import annotations

import sys
from collections.abc import Callable
from dataclasses import replace
from itertools import product
from pathlib import Path
from typing import Any

ROOT = Path(__file__).resolve().parents[1]
sys.path[:0] = [str(ROOT), str(ROOT / "src")]

import numpy as np  # noqa: E402

from oracles.film_shapes import SHAPES, Reversal, ThreeLayers, varied  # noqa: E402
from tools.kept_lines import line_of, parts_of  # noqa: E402
from vadrin.core.exposure.camera import CameraLimits, settings_for  # noqa: E402
from vadrin.core.exposure.reciprocity import Reciprocity  # noqa: E402
from vadrin.core.learning.bath_effect import WARMTH, BathSeen, learnt_effect  # noqa: E402
from vadrin.core.learning.contrast_law import (  # noqa: E402
    ContrastSeen,
    contrast_at,
    learnt_law,
    rate_that_surprises,
    time_for_contrast,
)
from vadrin.core.materials.colour import colour_negative_speed  # noqa: E402
from vadrin.core.printing.strip_exposures import StripExposures, time_of_piece  # noqa: E402
from vadrin.core.process.process_kinds import KINDS  # noqa: E402
from vadrin.core.readings import StripReadings  # noqa: E402
from vadrin.core.results.analysis import analyse  # noqa: E402
from vadrin.core.results.analysis_result import Settings  # noqa: E402
from vadrin.core.results.criteria import Target  # noqa: E402
from vadrin.core.scanning.calibration import calibrated  # noqa: E402
from vadrin.core.simulation.practice_drawing import Beside, draw_world  # noqa: E402
from vadrin.core.simulation.practice_level import Level  # noqa: E402

KEPT = ROOT / "tests" / "core" / "found_of_films.txt"
_TIMES = (4.5, 6.25, 8.75, 12.0, 16.75)
_USUAL = Settings(draws=60)
_SEEDS = 4

Strips = tuple[StripReadings, ...]


def _read(name: str, seed: int, times: tuple[float, ...] = _TIMES, **how: float) -> Strips:
    rng = np.random.default_rng(seed)
    film = varied(SHAPES[name], rng)
    told: Strips = film.strips(times, rng=rng, **{"noise": 0.012, **how})
    return told


def _each(strips: Strips, **parts: Any) -> Strips:
    """Every strip with other parts; what is callable is asked for each."""
    return tuple(
        replace(s, **{k: v(n, s) if callable(v) else v for k, v in parts.items()})
        for n, s in enumerate(strips)
    )


def _misread(number: int, strip: StripReadings) -> Any:
    """One frame of the second strip read too dense, its last three cut off."""
    if number != 1:
        return strip.readings
    off = [
        replace(r, density=r.density + 0.3) if n == 9 else r for n, r in enumerate(strip.readings)
    ]
    return tuple(off[:-3])


def _patches(number: int, strip: StripReadings) -> Any:
    """Each with a deviation of its own, one of them off by six."""
    told = [replace(r, deviation=0.01 + 0.02 * r.density) for r in strip.readings]
    off = 0.18 if number == 2 else 0.0
    return (*told[:8], replace(told[8], density=told[8].density + off), *told[9:])


def _light_drifts(_number: int, strip: StripReadings) -> Any:
    lit = len(strip.readings)
    return tuple(
        r if r.log_h is None else replace(r, log_h=r.log_h + 0.12 * n / lit)
        for n, r in enumerate(strip.readings)
    )


def _films() -> dict[str, Callable[[], Any]]:
    plain = _read("plain", 3)
    kinds: dict[str, Strips] = {
        **{name: _read(name, seed) for seed, name in enumerate(SHAPES)},
        "one strip": _read("plain", 4, (8.0,)),
        "two strips": _read("long toe", 5, (6.0, 11.0)),
        "few frames": _read("plain", 6, step=2.0),
        "growing noise": _read("two emulsions", 7, noise=0.006, grow=0.02),
        "misread": _each(plain, readings=_misread),
        "light drifts": _each(plain, readings=_light_drifts),
        "no blanks": _read("plain", 8, blanks=0),
        "warmer and warmer": _each(plain, temperature_c=lambda n, _: 18.5 + n),
        "no times": _each(plain, time_min=None),
        "scanned": _each(plain, scale_error=0.04),
        "patches of a scan": _each(plain, readings=_patches),
        "last of another film": _each(plain, material=lambda n, _: "other" if n == 4 else ""),
    }
    found: dict[str, Callable[[], Any]] = {
        f"found.{name}": lambda strips=strips: analyse(strips, _USUAL)
        for name, strips in kinds.items()
    }
    settings = {
        "standard": replace(_USUAL, method="standard"),
        "contrast index": replace(_USUAL, target=Target("contrast_index", 0.56)),
        "steep": replace(_USUAL, target=Target("average_gradient", 0.8)),
        "without ranges": replace(_USUAL, draws=0),
    }
    for name, asked in settings.items():
        found[f"found.plain, {name}"] = lambda asked=asked: analyse(plain, asked)
    slide = Reversal().strips((8.0,), noise=0.01, rng=np.random.default_rng(9))
    found["found.slide"] = lambda: analyse(_each(slide, channel="visual"), _USUAL)
    layers = {
        name: film.strips((8.0,), noise=0.01, rng=np.random.default_rng(10))[0]
        for name, film in ThreeLayers().layers().items()
    }
    green, others = layers["green"], (layers["red"], layers["blue"])
    found["found.three layers"] = lambda: colour_negative_speed(
        green, others, np.random.default_rng(11)
    )
    return found


def _learnt() -> Any:
    rng = np.random.default_rng(12)
    films = []
    for _ in range(5):
        minutes = np.array([5.0, 8.0, 13.0])
        top, rate = rng.uniform(0.8, 1.2), rng.uniform(0.08, 0.16)
        contrast = top * -np.expm1(-rate * minutes)
        films.append(ContrastSeen(minutes, contrast, np.array([0.01, 0.02, 0.03])))
    law = learnt_law(tuple(films[:3]), tuple(films[3:4]))
    one = ContrastSeen(*(column[:1] for column in vars(films[4]).values()))
    baths = tuple(
        BathSeen(f.minutes, np.array([0.0, 0.3, -0.2]), f.contrast, f.deviation, np.arange(3.0))
        for f in films
    )
    return (
        law,
        time_for_contrast(law, one, 0.58),
        rate_that_surprises(law, films[4]),
        [contrast_at(film, minutes) for film in films for minutes in (4.0, 20.0)],
        learnt_effect(baths, WARMTH),
    )


def _wedge() -> Any:
    densities = np.arange(0.0, 3.31, 0.3)
    light = 10.0**-densities + 0.0006
    told = []
    for gamma, full in ((1.0, 0.0), (0.45, 0.0), (0.45, 255.0)):
        made = calibrated(240.0 * light**gamma, densities, full)
        told.append((made, [made.deviation_of(d) for d in (0.2, 1.5, 2.8)], made.slope(densities)))
    return told


def _settings() -> Any:
    shutters = tuple(2.0**-n for n in range(-5, 11))
    lost = Reciprocity("power", exponent=1.3)
    wanted = np.arange(-6.0, 6.01, 0.5)
    cameras = (
        CameraLimits(shutters, (2.0, 2.8, 4.0, 5.6, 8.0, 11.0, 16.0)),
        CameraLimits(shutters[3:], (8.0,), ((0.125, 0.15), (0.25, 0.26)), reciprocity=lost),
    )
    return [
        settings_for(camera, metered, 5.6, wanted) for camera in cameras for metered in (0.125, 8.0)
    ]


def _test_strip() -> Any:
    strip = StripExposures(4.0, 0.5)
    return [time_of_piece(strip, piece) for piece in range(1, 7)]


def cases() -> dict[str, Callable[[], Any]]:
    """What is asked, by its name."""
    drawn = {
        f"drawn.{level.value}, {beside.value}, {draws}": lambda how=(level, beside, draws): [
            draw_world(np.random.default_rng([seed, 7]), *how) for seed in range(_SEEDS)
        ]
        for level, beside, draws in product(Level, Beside, (1, 2))
    }
    others = {
        "learnt": _learnt,
        "wedge": _wedge,
        "settings": _settings,
        "test strip": _test_strip,
        "processes": lambda: KINDS,
    }
    return {**_films(), **drawn, **others}


def lines() -> str:
    """A line for each."""
    told = ((name, list(parts_of(ask()))) for name, ask in cases().items())
    return "".join(f"{line_of(name.replace(' ', '_'), parts)}\n" for name, parts in told)


def main(arguments: list[str]) -> int:
    """Keep the lines, or print what is found of one."""
    if arguments:
        print("\n".join(str(part) for part in parts_of(cases()[" ".join(arguments)]())))
        return 0
    KEPT.write_text(lines(), encoding="utf-8")
    print(f"{len(cases())} films and figures; kept in {KEPT.relative_to(ROOT)}")
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))

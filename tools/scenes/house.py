"""Walls of boards, roofs on rafters, doors, benches: what all three places share."""

from __future__ import annotations

import numpy as np

from tools.scenes import figures
from tools.scenes.mesh import Mesh, Points, board, grid
from tools.scenes.place import Place
from tools.scenes.textures import earth, noise, weave, wood

OLD = ("old wood 1", "old wood 2", "old wood 3", "old wood 4")


def furnish(place: Place, rng: np.random.Generator) -> None:
    """Give a place its stuffs."""
    place.cards()
    for number, shade in enumerate((1.0, 0.72, 1.25, 0.55)):
        light = (0.20 * shade, 0.165 * shade, 0.125 * shade)
        dark = (0.085 * shade, 0.064 * shade, 0.046 * shade)
        place.cloth_of(f"old wood {number + 1}", wood(light, dark, rng, 14 + 5 * number))
    place.waxed("new wood", wood((0.62, 0.47, 0.30), (0.42, 0.28, 0.15), rng, 18), 0.35)
    place.waxed("new wood 2", wood((0.55, 0.40, 0.25), (0.36, 0.235, 0.125), rng, 24), 0.35)
    place.waxed("bench wood", wood((0.34, 0.25, 0.165), (0.17, 0.115, 0.07), rng, 12), 0.3)
    place.waxed("skin", wood((0.60, 0.395, 0.275), (0.475, 0.285, 0.185), rng, 34), 0.28)
    place.cloth_of("earth", earth(rng))
    place.cloth_of("white cloth", weave((0.80, 0.785, 0.745), rng))
    place.cloth_of("black cloth", weave((0.026, 0.025, 0.027), rng, 120))
    place.cloth_of("rope", weave((0.40, 0.325, 0.215), rng, 60))
    place.cloth_of("tarred rope", (0.06, 0.048, 0.04))
    place.cloth_of("shaving", (0.60, 0.46, 0.29))
    place.cloth_of("snow", (0.84, 0.86, 0.88))
    place.cloth_of("hill", (0.24, 0.29, 0.36))
    place.cloth_of("far hill", (0.48, 0.53, 0.60))
    place.cloth_of("soot", (0.03, 0.03, 0.03))
    place.waxed("red paint", (0.33, 0.045, 0.03), 0.2)
    place.waxed("green paint", (0.04, 0.15, 0.11), 0.2)
    place.waxed("blue paint", (0.05, 0.12, 0.26), 0.2)
    place.waxed("brown glass", (0.05, 0.024, 0.01), 0.06)
    place.waxed("water", (0.018, 0.030, 0.036), 0.05)
    place.iron("steel", 0.22, 0.55)
    place.iron("dark iron", 0.4, 0.16)


def old(rng: np.random.Generator) -> str:
    return OLD[int(rng.integers(4))]


def wall(
    place: Place,
    thing: str,
    start: Points,
    end: Points,
    heights: tuple[float, float],
    rng: np.random.Generator,
    gap: float = 0.008,
    holes: list[tuple[float, float, float, float]] | None = None,
) -> None:
    """Upright boards from start to end; holes are (from, to, low, high) along it."""
    along = end - start
    length = float(np.linalg.norm(along))
    along = along / length
    at = 0.0
    while at < length - 0.02:
        width = min(float(rng.uniform(0.15, 0.23)), length - at)
        middle = at + width / 2
        high = heights[0] + (heights[1] - heights[0]) * middle / length
        spans = [(-0.02, high + rng.uniform(-0.015, 0.015))]
        for first, last, low, top in holes or []:
            if first < middle < last:
                spans = [(-0.02, low), (top, high)] if low > 0 else [(top, high)]
        slack = gap * float(rng.choice([0.15, 0.4, 1.0, 2.2], p=[0.4, 0.35, 0.2, 0.05]))
        out = np.cross(along, [0, 1, 0]) * rng.normal(0, 0.004)
        for low, top in spans:
            if top - low > 0.02:
                foot = start + along * middle + out
                place.add(
                    thing,
                    old(rng),
                    board(
                        foot + np.array([0, low, 0]),
                        foot + np.array([0, top, 0]),
                        width - slack,
                        0.025,
                        rng,
                        across=along,
                    ),
                )
        at += width


def roof(
    place: Place,
    half: float,
    eaves: float,
    ridge: float,
    z: tuple[float, float],
    rng: np.random.Generator,
) -> None:
    """Two slopes of boards on rafters, tied by beams."""
    rise = np.array([half, ridge - eaves, 0.0])
    slope = float(np.linalg.norm(rise))
    for side in (-1, 1):
        way = np.array([-side * half, ridge - eaves, 0]) / slope
        at = 0.0
        while at < slope:
            width = min(float(rng.uniform(0.17, 0.24)), slope - at)
            middle = np.array([side * half, eaves, 0]) + way * (at + width / 2)
            slack = 0.010 * float(rng.choice([0.1, 0.4, 1.4], p=[0.6, 0.3, 0.1]))
            where = z[0]
            while where < z[1] - 0.05:
                length = min(float(rng.uniform(2.2, 4.5)), z[1] - where)
                place.add(
                    "roof",
                    old(rng),
                    board(
                        middle + np.array([0, 0, where]),
                        middle + np.array([0, 0, where + length - 0.006]),
                        width - slack,
                        0.022,
                        rng,
                        across=way,
                    ),
                )
                where += length
            at += width
    for where in np.arange(z[0] + 0.5, z[1], 1.45):
        for side in (-1, 1):
            foot = (side * half, eaves - 0.09, where)
            place.add("rafters", old(rng), board(foot, (0, ridge - 0.10, where), 0.15, 0.09, rng))
    for where in np.arange(z[0] + 3.4, z[1], 2.9):
        place.add(
            "beams",
            old(rng),
            board((-half, eaves - 0.12, where), (half, eaves - 0.12, where), 0.2, 0.15, rng),
        )
        for side in (-1, 1):
            place.add(
                "beams",
                old(rng),
                board(
                    (side * (half - 0.02), eaves - 0.9, where),
                    (side * (half - 0.85), eaves - 0.16, where),
                    0.11,
                    0.09,
                    rng,
                ),
            )
            place.add(
                "beams",
                old(rng),
                board(
                    (side * (half - 0.05), 0, where),
                    (side * (half - 0.05), eaves, where),
                    0.16,
                    0.16,
                    rng,
                    across=np.array([1.0, 0, 0]),
                ),
            )


def bench(
    place: Place,
    thing: str,
    x: tuple[float, float],
    z: tuple[float, float],
    high: float,
    rng: np.random.Generator,
) -> None:
    """A workbench along z."""
    at = x[0]
    while at < x[1] - 0.02:
        width = min(0.19, x[1] - at)
        place.add(
            thing,
            "bench wood",
            board(
                (at + width / 2, high - 0.03, z[0]),
                (at + width / 2, high - 0.03, z[1]),
                width - 0.004,
                0.055,
                rng,
                across=np.array([1.0, 0, 0]),
            ),
        )
        at += width
    for where in np.arange(z[0] + 0.25, z[1], 1.5):
        for side in (x[0] + 0.08, x[1] - 0.08):
            place.add(
                thing, old(rng), board((side, 0, where), (side, high - 0.06, where), 0.1, 0.09, rng)
            )
    place.add(
        thing,
        old(rng),
        board((x[0] + 0.09, 0.24, z[0]), (x[0] + 0.09, 0.24, z[1]), 0.14, 0.03, rng),
    )


def water(
    place: Place,
    x: tuple[float, float],
    z: tuple[float, float],
    level: float,
    rng: np.random.Generator,
    wave: float = 0.02,
) -> None:
    """A ruffled sheet of water."""
    far = z[0] + (z[1] - z[0]) * np.linspace(0, 1, 260) ** 1.6
    side = np.linspace(x[0], x[1], 260)
    across, away = np.meshgrid(side, far)
    high = np.zeros_like(across)
    for _ in range(26):
        size, heading = rng.uniform(0.35, 3.2), rng.normal(0, 0.7)
        phase = rng.uniform(0, 7)
        high += (
            wave
            * size**0.8
            * 0.16
            * np.sin(2 * np.pi * (away * np.cos(heading) + across * np.sin(heading)) / size + phase)
        )
    place.add("water", "water", grid(np.stack([across, level + high, away], -1)), smooth=True)


def hills(
    place: Place,
    thing: str,
    z: float,
    half: float,
    high: float,
    material: str,
    rng: np.random.Generator,
    foot: float = -1.0,
) -> None:
    """A far shore: a ragged line, leaning away."""
    count = 700
    x = np.linspace(-half, half, count)
    line = np.zeros(count)
    for octave in range(1, 9):
        cells = rng.standard_normal(4 + 2**octave)
        line += (
            np.interp(np.linspace(0, len(cells) - 1, count), np.arange(len(cells)), cells)
            * 0.62**octave
        )
    line = high * (0.55 + 0.33 * (line - line.min()) / np.ptp(line) * 1.6 - 0.2)
    share = np.linspace(0, 1, 14)[:, None]
    rough = noise((14, count), (2, 12), rng) * 0.006 * half * share * (1 - share)
    points = np.stack(
        np.broadcast_arrays(x, foot + share * (line - foot), z + rough + share * half * 0.12), -1
    )
    place.add(thing, material, grid(points))


def tool_board(
    place: Place, at: tuple[float, float, float], heading: float, rng: np.random.Generator
) -> None:
    """Saws, a square, chisels and mallets hung in a row along x before turning."""

    def put(thing: str, material: str, mesh: Mesh, x: float, y: float = 0.0) -> None:
        place.add(thing, material, mesh.moved((x, y, 0.03)).turned(heading).moved(at))

    for number, x in enumerate((-1.25, -0.98)):
        blade, grip = figures.saw(rng)
        put("tools", "steel", blade, x)
        put("tools", "bench wood" if number else "new wood 2", grip, x)
    for x in np.arange(-0.62, 0.2, 0.11):
        long = rng.uniform(0.10, 0.17)
        put(
            "tools",
            "steel",
            board(
                (0, -0.10 - long, 0), (0, -0.08, 0), 0.018, 0.005, rng, across=np.array([1.0, 0, 0])
            ),
            x,
        )
        put("tools", "new wood 2", board((0, -0.09, 0), (0, 0.03, 0), 0.028, 0.026, rng), x)
    for x in (0.42, 0.66, 0.9):
        put("tools", "bench wood", board((0, -0.34, 0), (0, 0.0, 0), 0.03, 0.028, rng), x)
        put(
            "tools",
            "dark iron" if x > 0.5 else "new wood 2",
            board((-0.075, 0, 0), (0.075, 0, 0), 0.07, 0.06, rng),
            x,
        )
    put("tools", old(rng), board((-1.5, 0.08, -0.02), (1.2, 0.08, -0.02), 0.07, 0.03, rng), 0)

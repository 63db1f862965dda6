"""The slip under an overcast sky: six stops, a boat on her cradle, water, snow."""

from __future__ import annotations

import numpy as np

from tools.scenes import boat, figures
from tools.scenes.house import furnish, hills, old, wall, water
from tools.scenes.mesh import board, box, grid
from tools.scenes.place import Place
from tools.scenes.textures import noise, sky


def slip() -> Place:
    rng = np.random.default_rng(17)
    light = sky((1.25, 1.30, 1.38), (0.86, 0.90, 0.96), (0.42, 0.43, 0.45), None, 0.0, rng, 0.09)
    place = Place("slip", ((1.75, 1.66, -7.9), (0.35, 1.08, 2.0), 58.0), light)
    furnish(place, rng)
    _ground(place, rng)
    _shed_outside(place, rng)
    _boat(place, rng)
    _in_front(place, rng)
    return place


def _ground(place: Place, rng: np.random.Generator) -> None:
    rows, columns = 260, 260
    share = np.linspace(0, 1, rows)[:, None]
    z = -11 + 32 * share
    x = np.linspace(-22, 22, columns)[None]
    drop = -1.35 * np.clip((z + 1.0) / 18, 0, 1.4) ** 1.25
    bumps = 0.045 * noise((rows, columns), (3, 3), rng) + 0.09 * noise(
        (rows, columns), (11, 11), rng
    )
    lane = np.exp(-((x / 2.4) ** 4))
    high = drop + bumps * (1.0 - 0.85 * lane) + 0.13 * (1 - lane)
    points = np.stack(np.broadcast_arrays(x, high - 0.02, z), -1)
    place.add("snow", "snow", grid(points), smooth=True)
    lane_x, lane_z = np.meshgrid(np.linspace(-2.3, 2.3, 90), np.linspace(-11, 21, 300))
    fall = -1.35 * np.clip((lane_z + 1.0) / 18, 0, 1.4) ** 1.25
    ragged = 0.055 * noise(lane_x.shape, (4, 3), rng) - 0.15 * (np.abs(lane_x) / 2.3) ** 4
    mud = np.stack([lane_x, fall + ragged + 0.022, lane_z], -1)
    place.add(
        "trodden ground", "earth", grid(mud, np.stack([lane_x, lane_z], -1) * 0.3), smooth=True
    )
    for side in (-0.8, 0.8):
        place.add("slip", old(rng), board((side, 0.06, -6.0), (side, 0.05, -1.0), 0.16, 0.2, rng))
        place.add("slip", old(rng), board((side, 0.05, -1.0), (side, -1.55, 21.0), 0.16, 0.2, rng))
    for number in range(20):
        z_at = -5.5 + 1.15 * number
        high_at = -1.35 * max(0.0, min(1.4, (z_at + 1.0) / 18)) ** 1.25 + 0.01
        place.add(
            "slip",
            old(rng),
            board(
                (-1.3, high_at, z_at), (1.3, high_at, z_at + rng.normal(0, 0.04)), 0.19, 0.1, rng
            ),
        )
    water(place, (-110, 110), (15.5, 260), -1.22, rng, 0.028)
    hills(place, "far shore", 190, 240, 15, "hill", rng, -1.3)
    hills(place, "far hills", 330, 420, 40, "far hill", rng, -1.3)


def _shed_outside(place: Place, rng: np.random.Generator) -> None:
    near, far = np.array([4.6, -0.05, -3.0]), np.array([4.6, -0.05, 7.0])
    wall(place, "shed", near, far, (3.0, 3.0), rng, gap=0.004)
    place.add("shed", "soot", board((4.75, 1.5, -3.0), (4.75, 1.5, 7.0), 3.0, 0.05, rng))
    for number in range(16):
        share = number / 16
        place.add(
            "shed roof",
            old(rng),
            board(
                (4.25 + 3.2 * share, 2.92 + 1.9 * share, -3.4),
                (4.25 + 3.2 * share, 2.92 + 1.9 * share, 7.4),
                0.24,
                0.03,
                rng,
                across=np.array([0.86, 0.51, 0]),
            ),
        )
    rows, columns = 30, 90
    up, along = np.meshgrid(
        np.linspace(0.12, 1, rows), np.linspace(-3.45, 7.45, columns), indexing="ij"
    )
    thick = 0.10 + 0.03 * noise((rows, columns), (3, 5), rng)
    place.add(
        "snow",
        "snow",
        grid(np.stack([4.25 + 3.2 * up, 2.96 + 1.9 * up + thick, along], -1)),
        smooth=True,
    )
    place.add(
        "boards",
        "new wood",
        *[
            board(
                (4.15 - 0.1 * n, 0.0, 1.5 + 0.24 * n),
                (4.5, 2.3 + 0.1 * (n % 3), 1.6 + 0.2 * n),
                0.16,
                0.03,
                rng,
                across=np.array([0, 0, 1.0]),
            )
            for n in range(5)
        ],
    )
    for z in (-1.6, -0.8, 4.6):
        place.add(
            "hung rope",
            "tarred rope" if z < -1 else "rope",
            figures.hanging_coil(0.25, 0.015, 6).turned(-90).moved((4.5, 1.85, z)),
            smooth=True,
        )
    for x, z, high in ((-5.4, 13.0, 1.4), (-6.9, 15.5, 1.2), (-4.6, 17.5, 1.1), (4.9, 16.5, 1.2)):
        place.add("posts", old(rng), board((x, -2.0, z), (x, high - 0.9, z), 0.24, 0.24, rng))
    place.add(
        "jetty",
        old(rng),
        *[
            board((-10.8, -0.7, 15.4 + 0.22 * n), (-6.4, -0.7, 15.4 + 0.22 * n), 0.2, 0.05, rng)
            for n in range(26)
        ],
    )
    moored = boat.hull(np.random.default_rng(9), 9)
    place.add("moored boat", "green paint", moored.planks.turned(64).moved((-7.2, -1.42, 24.0)))
    place.add(
        "moored boat",
        "bench wood",
        moored.backbone.turned(64).moved((-7.2, -1.42, 24.0)),
        moored.frames.turned(64).moved((-7.2, -1.42, 24.0)),
    )
    place.add("mast", "new wood 2", figures.rod((-7.3, -0.9, 24.3), (-7.2, 4.6, 24.2), 0.055))


def _boat(place: Place, rng: np.random.Generator) -> None:
    parts = boat.hull(rng, 8)
    for thing, stuff, mesh in (
        ("hull", "new wood", parts.planks),
        ("frames", "new wood 2", parts.frames),
        ("hull", "new wood 2", parts.backbone),
    ):
        place.add(thing, stuff, mesh.turned(172).moved((-0.1, 0.50, 0.6)))
    for z in (-0.9, 0.6, 2.2):
        place.add("cradle", old(rng), board((-1.25, 0.22, z), (1.1, 0.22, z), 0.2, 0.18, rng))
        for side in (-1, 1):
            place.add(
                "cradle",
                old(rng),
                board((-0.1 + side * 1.1, 0.25, z), (-0.1 + side * 0.6, 0.92, z), 0.1, 0.07, rng),
            )
    for number, (x, z) in enumerate(((2.7, -0.4), (2.2, 1.4))):
        place.add(
            "trestle", old(rng), figures.trestle(1.1, 0.7, rng).turned(80).moved((x, 0.03, z))
        )
        place.add(
            "boards",
            ("new wood", "new wood 2")[number],
            board(
                (x - 0.1, 0.75, -1.2),
                (x - 0.3, 0.75, 2.4),
                0.17,
                0.03,
                rng,
                across=np.array([1.0, 0, 0]),
            ),
        )
    place.add(
        "fine line",
        "rope",
        figures.rod((-0.25, 1.75, -2.3), (4.5, 2.75, -2.9), 0.0035, 0.12),
        smooth=True,
    )
    place.add(
        "fine line",
        "rope",
        figures.rod((-0.3, 1.75, -2.3), (-5.4, 0.5, 13.0), 0.0045, 0.2),
        smooth=True,
    )
    place.add_card("shaded grey card", (0.55, 0.04, -0.35), 190, 0.26)


def _in_front(place: Place, rng: np.random.Generator) -> None:
    """A stack of crates with head, card and wedge; cloths over barrels; a coil."""
    for low, high in (
        ((2.05, 0.0, -4.6), (2.63, 0.38, -3.9)),
        ((2.66, 0.0, -4.6), (3.25, 0.38, -3.9)),
        ((2.05, 0.385, -4.6), (3.25, 0.78, -3.9)),
    ):
        place.add("crate", old(rng), box(low, high, rng))
    for y in (0.05, 0.33, 0.44, 0.72):
        place.add("crate", old(rng), board((2.03, y, -4.62), (3.27, y, -4.62), 0.09, 0.02, rng))
    place.add(
        "carved head", "skin", figures.head().turned(196).moved((2.32, 0.782, -4.28)), smooth=True
    )
    place.add_card("grey card", (2.68, 0.784, -4.2), 190, 0.2)
    place.add_wedge((2.98, 0.784, -4.25), 194, 0.085, 0.058, 3)
    stack = ((-0.55, 0, -4.9), (0.1, 0.5, -4.35))
    place.add("crate", old(rng), box(*stack, rng))
    place.add(
        "black cloth",
        "black cloth",
        figures.cloth((-0.22, 0.7, -4.62), (1.3, 1.2), [stack], turn=18, floor=0.05),
        smooth=True,
    )
    pile = ((-1.75, 0, -3.4), (-0.95, 0.75, -2.8))
    place.add("crate", old(rng), box(*pile, rng))
    place.add(
        "white cloth",
        "white cloth",
        figures.cloth((-1.35, 0.95, -3.1), (1.7, 1.5), [pile], turn=-15, floor=0.05),
        smooth=True,
    )
    place.add(
        "rope", "rope", figures.coil(0.34, 0.022, 9, rng).moved((1.35, 0.05, -4.5)), smooth=True
    )
    place.add("paint tins", "red paint", figures.bottle(0.2, 0.09).moved((1.55, 0.03, -3.6)))
    place.add("buoy", "red paint", figures.bottle(0.5, 0.2).moved((3.9, 0.05, -2.4)), smooth=True)
    place.add(
        "shavings",
        "shaving",
        figures.shavings(60, (-1.8, -3.4), (2.4, -0.5), rng).moved((0, 0.05, 0)),
    )

"""A boat shed at dusk: open doors on a bright slip, a hull half lit, a bare bulb."""

from __future__ import annotations

import numpy as np

from tools.scenes import boat, figures
from tools.scenes.house import bench, furnish, hills, old, roof, tool_board, wall, water
from tools.scenes.mesh import board, box, grid, turned_solid
from tools.scenes.place import Place
from tools.scenes.textures import noise, sky


def shed() -> Place:
    rng = np.random.default_rng(71)
    light = sky(
        (0.55, 0.72, 1.05), (1.5, 1.35, 1.2), (0.42, 0.45, 0.52), (5.5, 3.2, 1.5), 0.30, rng, 0.10
    )
    place = Place("shed", ((0.45, 1.58, -5.3), (-0.02, 1.15, 3.0), 62.0), light)
    furnish(place, rng)
    _house(place, rng)
    _outside(place, rng)
    _boat(place, rng)
    _left(place, rng)
    _right(place, rng)
    place.sun((-0.93, -0.20, 0.30), (26.0, 14.5, 6.6))
    return place


def _house(place: Place, rng: np.random.Generator) -> None:
    left, right = np.array([4.0, 0, -6.0]), np.array([-4.0, 0, -6.0])
    deep = np.array([0, 0, 15.0])
    wall(place, "walls", left, left + deep, (2.9, 2.9), rng, holes=[(6.1, 7.5, 1.15, 2.05)])
    wall(place, "walls", right, right + deep, (2.9, 2.9), rng, holes=[(8.4, 9.6, 1.15, 2.05)])
    far = np.array([-4.0, 0, 9.0])
    wall(
        place,
        "walls",
        far,
        far + np.array([4.0, 0, 0]),
        (2.9, 5.2),
        rng,
        holes=[(1.3, 4.1, 0, 2.75)],
    )
    wall(
        place,
        "walls",
        far + np.array([4.0, 0, 0]),
        far + np.array([8.0, 0, 0]),
        (5.2, 2.9),
        rng,
        holes=[(-0.1, 1.3, 0, 2.75)],
    )
    near = np.array([-4.0, 0, -6.0])
    wall(
        place,
        "walls",
        near,
        near + np.array([8.0, 0, 0]),
        (2.9, 2.9),
        rng,
        holes=[(5.5, 6.9, 0, 2.4)],
    )
    roof(place, 4.0, 2.9, 5.2, (-6.0, 9.0), rng)
    x, z = np.meshgrid(np.linspace(-6, 6, 160), np.linspace(-9, 9.3, 240))
    bumps = 0.012 * np.sin(3.1 * x + 2 * np.sin(1.7 * z)) * np.sin(2.3 * z + np.sin(2.9 * x))
    place.add(
        "floor", "earth", grid(np.stack([x, bumps - 0.006, z], -1), np.stack([x, z], -1) * 0.4)
    )
    for x in (-2.75, 1.38):
        place.add(
            "walls",
            old(rng),
            board((x, 0, 9.0), (x, 2.8, 9.0), 0.2, 0.18, rng, across=np.array([1.0, 0, 0])),
        )
    place.add("walls", old(rng), board((-2.85, 2.78, 9.0), (1.48, 2.78, 9.0), 0.18, 0.2, rng))
    for number in range(9):
        x = 1.5 + 0.2 * number * 0.62
        place.add(
            "doors",
            old(rng),
            board(
                (x, 0.03, 9.15 + 0.10 * number),
                (x, 2.72, 9.15 + 0.10 * number),
                0.15,
                0.03,
                rng,
                across=np.array([0.8, 0, 0.6]),
            ),
        )
    for frame in ((3.99, 0.1, 1.5), (-3.99, 2.4, 3.6)):
        x, low, high = frame
        for z in np.linspace(low, high, 4):
            place.add("walls", old(rng), board((x, 1.12, z), (x, 2.08, z), 0.04, 0.05, rng))
        place.add("walls", old(rng), board((x, 1.6, low), (x, 1.6, high), 0.04, 0.05, rng))


def _outside(place: Place, rng: np.random.Generator) -> None:
    rows, columns = 170, 200
    share = np.linspace(0, 1, rows)[:, None]
    x = np.linspace(-16, 16, columns)[None]
    drift = 0.10 * noise((rows, columns), (4, 5), rng) + 0.05 * noise(
        (rows, columns), (1.4, 1.4), rng
    )
    track = 0.16 * np.exp(-(((np.abs(x + 0.7) - 0.85) / 0.22) ** 2))
    points = np.stack(
        np.broadcast_arrays(
            x, -0.03 - 0.85 * share + drift * (0.25 + share) - track, 9.15 + 18 * share
        ),
        -1,
    )
    place.add("snow", "snow", grid(points), smooth=True)
    for side in (-1.55, 0.15):
        place.add("slip", old(rng), board((side, -0.03, 9.3), (side, -0.95, 27.0), 0.16, 0.2, rng))
    water(place, (-90, 90), (26.0, 190), -0.9, rng, 0.03)
    hills(place, "far shore", 150, 190, 17, "hill", rng, -1.2)
    hills(place, "far shore", 240, 300, 46, "snow", rng, -1.2)
    for x, z, high in ((-5.6, 17.5, 2.0), (-6.8, 16.2, 2.3), (3.4, 18.6, 1.9)):
        place.add("posts", old(rng), board((x, -1.4, z), (x, high - 1.2, z), 0.2, 0.2, rng))
    small = boat.hull(np.random.default_rng(5), 8)
    for mesh, stuff in ((small.planks, "green paint"), (small.backbone, "bench wood")):
        place.add("moored boat", stuff, mesh.turned(74).moved((-3.2, -1.05, 40.0)))


def _boat(place: Place, rng: np.random.Generator) -> None:
    parts = boat.hull(rng, 6)
    for thing, stuff, mesh in (
        ("hull", "new wood", parts.planks),
        ("frames", "new wood 2", parts.frames),
        ("hull", "new wood 2", parts.backbone),
    ):
        place.add(thing, stuff, mesh.turned(197).moved((-1.0, 0.52, 2.7)))
    for z in (0.9, 2.6, 4.4):
        place.add("cradle", old(rng), board((-2.2, 0.13, z), (0.3, 0.13, z), 0.2, 0.18, rng))
        place.add("cradle", old(rng), board((-1.0, 0.22, z), (-1.0, 0.58, z), 0.16, 0.14, rng))
        for side in (-1, 1):
            place.add(
                "cradle",
                old(rng),
                board((-1.0 + side * 1.15, 0.2, z), (-1.0 + side * 0.62, 0.92, z), 0.1, 0.07, rng),
            )
    place.add("shavings", "shaving", figures.shavings(150, (-2.9, -2.2), (2.2, 2.8), rng))


def _left(place: Place, rng: np.random.Generator) -> None:
    """The bench, the bulb, the head, the card."""
    bench(place, "bench", (3.0, 3.82), (-3.4, 5.2), 0.86, rng)
    tool_board(place, (3.93, 1.82, 0.2), -90, rng)
    tool_board(place, (3.93, 1.82, 3.6), -90, rng)
    _table(place, rng)
    place.add(
        "shelf",
        old(rng),
        board((3.86, 1.42, -2.6), (3.86, 1.42, -0.9), 0.2, 0.03, rng, across=np.array([1.0, 0, 0])),
    )
    for number, z in enumerate(np.linspace(-2.4, -1.1, 8)):
        stuff = ("brown glass", "green paint", "brown glass", "steel")[number % 4]
        place.add(
            "bottles",
            stuff,
            figures.bottle(float(rng.uniform(0.14, 0.26)), 0.045).moved((3.84, 1.436, z)),
            smooth=False,
        )
    for z, stuff in ((0.8, "red paint"), (1.05, "green paint"), (2.3, "blue paint")):
        tin = turned_solid(
            [(0, 0), (0.08, 0), (0.08, 0.18), (0.076, 0.18), (0.076, 0.01), (0, 0.01)]
        )
        place.add("paint tins", stuff, tin.moved((3.4, 0.86, z)))
    place.add("bench", "bench wood", box((3.2, 0.865, 1.5), (3.32, 0.95, 1.85), rng))
    place.add(
        "shavings",
        "shaving",
        figures.shavings(34, (3.05, -0.6), (3.7, 3.5), rng).moved((0, 0.862, 0)),
    )
    place.add(
        "rope", "rope", figures.coil(0.36, 0.021, 9, rng).moved((1.15, 0.0, -1.35)), smooth=True
    )


def _table(place: Place, rng: np.random.Generator) -> None:
    """In front, under the bulb: the head, grey card and wedge on a small table."""
    for x in (1.02, 1.2, 1.38, 1.56, 1.74, 1.92):
        place.add(
            "table",
            "bench wood",
            board(
                (x, 0.74, -2.95), (x, 0.74, -2.15), 0.176, 0.04, rng, across=np.array([1.0, 0, 0])
            ),
        )
    for x in (1.02, 1.92):
        for z in (-2.88, -2.22):
            place.add("table", old(rng), board((x, 0, z), (x, 0.72, z), 0.08, 0.07, rng))
    place.add("table", old(rng), board((0.95, 0.66, -2.92), (2.0, 0.66, -2.92), 0.12, 0.03, rng))
    place.add(
        "carved head", "skin", figures.head().turned(196).moved((1.25, 0.76, -2.55)), smooth=True
    )
    hang = (1.74, 1.74, -2.35)
    place.add("lamp cord", "soot", figures.rod((1.74, 4.6, -2.35), hang, 0.005))
    cap = [(0.0, 0.05), (0.018, 0.05), (0.02, 0.0), (0.014, -0.01)]
    place.add("lamp cord", "brown glass", turned_solid(cap).moved(hang))
    place.lamp(figures.bulb().moved(hang), (330.0, 205.0, 98.0))
    place.add_card("grey card", (1.62, 0.762, -2.5), 190, 0.2)
    place.add_wedge((1.83, 0.775, -2.44), 200, 0.085, 0.058, 3)
    place.add(
        "paint tins",
        "red paint",
        turned_solid([(0, 0), (0.055, 0), (0.055, 0.13), (0, 0.13)]).moved((1.47, 0.76, -2.28)),
    )
    for lean in (-0.05, 0.01, 0.05):
        place.add(
            "brushes",
            "new wood",
            figures.rod((1.47, 0.78, -2.28), (1.47 + lean, 1.05, -2.28 + lean * 0.7), 0.006),
        )


def _right(place: Place, rng: np.random.Generator) -> None:
    """White and black cloth, boards against the wall, coils on pegs, fine lines."""
    stack = ((-2.05, 0, -2.2), (-1.15, 0.74, -1.6))
    place.add("crate", old(rng), box(*stack, rng))
    place.add(
        "white cloth",
        "white cloth",
        figures.cloth((-1.6, 0.95, -1.9), (1.75, 1.6), [stack], turn=14),
        smooth=True,
    )
    low = ((-0.62, 0, -1.75), (-0.08, 0.44, -1.3))
    place.add(
        "black cloth",
        "black cloth",
        figures.cloth((-0.33, 0.62, -1.52), (1.25, 1.15), [low], turn=-24),
        smooth=True,
    )
    crate = ((-3.25, 0, -0.6), (-2.55, 0.62, 0.1))
    place.add("crate", old(rng), box(*crate, rng))
    place.add_card("shaded grey card", (-2.9, 0.64, -0.12), 165, 0.24)
    for number in range(9):
        z = 0.7 + 0.22 * number
        lean = rng.uniform(0.35, 0.75)
        place.add(
            "boards",
            ("new wood", "new wood 2", old(rng))[number % 3],
            board(
                (-3.9 + lean, 0.0, z),
                (-3.92, rng.uniform(2.2, 2.8), z + rng.normal(0, 0.1)),
                0.16,
                0.028,
                rng,
                across=np.array([0, 0, 1.0]),
            ),
        )
    for z, size in ((-1.5, 0.26), (-0.75, 0.21), (5.6, 0.27)):
        place.add(
            "hung rope",
            "rope" if size > 0.22 else "tarred rope",
            figures.hanging_coil(size, 0.014, 6).turned(90).moved((-3.86, 1.95, z)),
            smooth=True,
        )
    place.add(
        "fine line",
        "rope",
        figures.rod((-3.2, 2.62, 5.8), (2.6, 2.55, 6.6), 0.0032, 0.22),
        smooth=True,
    )
    place.add(
        "fine line", "rope", figures.rod((-0.35, 2.78, 5.8), (-0.35, 1.7, 5.8), 0.0022), smooth=True
    )
    place.add(
        "tackle",
        "bench wood",
        turned_solid([(0, 0), (0.05, 0.02), (0.06, 0.08), (0.05, 0.14), (0, 0.16)]).moved(
            (-0.35, 1.54, 5.8)
        ),
    )

"""The bench by lamplight: one warm lamp, a blue window, the rest of the room dim."""

from __future__ import annotations

import numpy as np

from tools.scenes import boat, figures
from tools.scenes.house import furnish, old, tool_board, wall
from tools.scenes.mesh import Mesh, board, box, grid, turned_solid
from tools.scenes.place import Place
from tools.scenes.textures import sky


def lamplight() -> Place:
    rng = np.random.default_rng(29)
    light = sky(
        (0.010, 0.017, 0.034), (0.026, 0.034, 0.052), (0.012, 0.016, 0.024), None, 0.0, rng, 0.15
    )
    place = Place("lamplight", ((0.36, 1.55, -1.95), (-0.08, 1.16, 1.3), 60.0), light)
    furnish(place, rng)
    _room(place, rng)
    _bench(place, rng)
    _walls(place, rng)
    _corner(place, rng)
    return place


def _room(place: Place, rng: np.random.Generator) -> None:
    back = np.array([-2.6, 0, 1.55])
    wall(
        place,
        "walls",
        back,
        back + np.array([5.2, 0, 0]),
        (2.7, 2.7),
        rng,
        0.0,
        holes=[(0.75, 1.75, 1.25, 2.15)],
    )
    wall(place, "walls", np.array([2.6, 0, 1.6]), np.array([2.6, 0, -4.0]), (2.7, 2.7), rng, 0.0)
    wall(place, "walls", np.array([-2.6, 0, -4.0]), np.array([-2.6, 0, 1.6]), (2.7, 2.7), rng, 0.0)
    wall(place, "walls", np.array([2.6, 0, -4.0]), np.array([-2.6, 0, -4.0]), (2.7, 2.7), rng, 0.0)
    for x in np.arange(-2.6, 2.7, 0.2):
        place.add(
            "ceiling",
            old(rng),
            board((x, 2.72, -4.0), (x, 2.72, 1.6), 0.199, 0.03, rng, across=np.array([1.0, 0, 0])),
        )
        place.add(
            "floor",
            old(rng),
            board(
                (x, -0.02, -4.0), (x, -0.02, 1.6), 0.196, 0.03, rng, across=np.array([1.0, 0, 0])
            ),
        )
    below = np.array([[[-3.0, -0.1, -5], [3.0, -0.1, -5]], [[-3.0, -0.1, 2], [3.0, -0.1, 2]]])
    place.add("floor", "soot", grid(below))
    for z in (-1.4, 0.0, 1.2):
        place.add("beams", old(rng), board((-2.6, 2.58, z), (2.6, 2.58, z), 0.2, 0.14, rng))
    for x in (-1.86, -1.35, -0.84):
        place.add(
            "window",
            "bench wood",
            board((x, 1.22, 1.54), (x, 2.18, 1.54), 0.05, 0.06, rng, across=np.array([1.0, 0, 0])),
        )
    for y in (1.23, 1.7, 2.17):
        place.add("window", "bench wood", board((-1.9, y, 1.54), (-0.8, y, 1.54), 0.05, 0.06, rng))
    place.add(
        "window",
        "bench wood",
        board(
            (-1.95, 1.2, 1.46), (-0.75, 1.2, 1.46), 0.16, 0.03, rng, across=np.array([0, 0, 1.0])
        ),
    )


def _bench(place: Place, rng: np.random.Generator) -> None:
    for number in range(5):
        z = 0.62 + 0.19 * number
        place.add(
            "bench",
            "bench wood",
            board((-2.55, 0.85, z), (1.9, 0.85, z), 0.188, 0.06, rng, across=np.array([0, 0, 1.0])),
        )
    place.add("bench", "bench wood", board((-2.55, 0.79, 0.55), (1.9, 0.79, 0.55), 0.14, 0.04, rng))
    for x in (-2.2, -0.4, 1.7):
        place.add("bench", old(rng), board((x, 0, 0.66), (x, 0.8, 0.66), 0.12, 0.1, rng))
    place.add(
        "carved head", "skin", figures.head().turned(152).moved((-0.50, 0.882, 0.98)), smooth=True
    )
    base = (0.20, 0.882, 0.82)
    foot = turned_solid(
        [
            (0, 0),
            (0.085, 0),
            (0.09, 0.012),
            (0.03, 0.03),
            (0.022, 0.10),
            (0.07, 0.13),
            (0.085, 0.18),
            (0.06, 0.215),
            (0.03, 0.225),
            (0, 0.226),
        ]
    )
    place.add("lamp stand", "dark iron", foot.moved(base), smooth=True)
    wick = turned_solid(
        [
            (0.0005, 0.0),
            (0.013, 0.004),
            (0.019, 0.022),
            (0.015, 0.046),
            (0.007, 0.07),
            (0.0005, 0.09),
        ],
        20,
    )
    flame = wick.moved((base[0], base[1] + 0.245, base[2]))
    place.lamp(flame, (95.0, 52.0, 19.0))
    for angle in np.linspace(0, 2 * np.pi, 6)[:-1]:
        x, z = 0.055 * np.cos(angle), 0.055 * np.sin(angle)
        place.add(
            "lamp stand",
            "steel",
            figures.rod(
                (base[0] + x, 1.10, base[2] + z),
                (base[0] + x * 0.9, 1.30, base[2] + z * 0.9),
                0.003,
            ),
        )
    cap = turned_solid([(0.07, 0.0), (0.05, 0.03), (0.03, 0.05), (0.0, 0.055)])
    place.add("lamp stand", "steel", cap.moved((base[0], 1.30, base[2])))
    place.add_card("grey card", (-0.13, 0.884, 1.16), 165, 0.17)
    place.add_wedge((0.72, 0.90, 1.16), 195, 0.075, 0.048, 2)
    place.add("plane", "new wood 2", box((0.86, 0.882, 0.78), (1.16, 0.95, 0.86), rng))
    place.add(
        "plane",
        "dark iron",
        board(
            (0.98, 0.93, 0.82), (1.03, 1.03, 0.82), 0.05, 0.006, rng, across=np.array([0, 0, 1.0])
        ),
    )
    place.add("plane", "bench wood", figures.rod((1.12, 0.95, 0.82), (1.16, 1.03, 0.82), 0.016))
    place.add(
        "shavings",
        "shaving",
        figures.shavings(46, (-0.2, 0.66), (1.5, 1.1), rng).moved((0, 0.88, 0)),
    )
    place.add(
        "chisels",
        "steel",
        *[
            board(
                (0.2 + 0.08 * n, 0.887, 0.68),
                (0.22 + 0.08 * n, 0.887, 0.84),
                0.018,
                0.006,
                rng,
                across=np.array([1.0, 0, 0]),
            )
            for n in range(3)
        ],
    )
    place.add(
        "chisels",
        "new wood",
        *[
            figures.rod((0.19 + 0.08 * n, 0.897, 0.56), (0.2 + 0.08 * n, 0.897, 0.68), 0.014)
            for n in range(3)
        ],
    )
    plans = grid(
        np.array(
            [
                [[-1.75, 0.883, 0.72], [-1.02, 0.883, 0.66]],
                [[-1.70, 0.883, 1.22], [-0.97, 0.883, 1.16]],
            ]
        )
    )
    place.add("drawing", "white cloth", plans)
    for number, x in enumerate((-1.9, -2.05, -2.2)):
        place.add(
            "bottles",
            ("brown glass", "green paint", "brown glass")[number],
            figures.bottle(0.18 + 0.03 * number, 0.045).moved((x, 0.882, 1.3)),
        )


def _walls(place: Place, rng: np.random.Generator) -> None:
    tool_board(place, (0.95, 1.95, 1.52), 180, rng)
    model = boat.hull(np.random.default_rng(3), 9)
    for mesh, stuff in ((model.planks, "new wood"), (model.backbone, "bench wood")):
        small = Mesh(mesh.vertices * 0.17, mesh.faces, mesh.uv)
        place.add("half model", stuff, small.turned(90).moved((-0.05, 2.12, 1.5)))
    place.add(
        "half model", "bench wood", board((-0.58, 2.2, 1.52), (0.5, 2.2, 1.52), 0.32, 0.03, rng)
    )
    place.add(
        "shelf",
        old(rng),
        board((1.3, 1.42, 1.44), (2.55, 1.42, 1.44), 0.22, 0.03, rng, across=np.array([0, 0, 1.0])),
    )
    for number, x in enumerate(np.linspace(1.4, 2.4, 7)):
        place.add(
            "bottles",
            ("brown glass", "blue paint", "red paint")[number % 3],
            figures.bottle(float(rng.uniform(0.12, 0.24)), 0.05).moved((x, 1.437, 1.44)),
        )
    place.add(
        "hung rope",
        "rope",
        figures.hanging_coil(0.24, 0.013, 7).moved((1.75, 2.5, 1.44)),
        smooth=True,
    )
    place.add(
        "hung rope",
        "tarred rope",
        figures.hanging_coil(0.22, 0.012, 6).turned(90).moved((-2.5, 2.1, 0.4)),
        smooth=True,
    )
    place.add(
        "fine line",
        "rope",
        figures.rod((-2.5, 2.2, 0.9), (0.9, 2.5, 0.35), 0.0022, 0.08),
        smooth=True,
    )
    place.add(
        "fine line",
        "rope",
        figures.rod((0.9, 2.5, 0.35), (2.5, 2.4, 0.6), 0.0022, 0.05),
        smooth=True,
    )
    jacket = figures.cloth(
        (-2.2, 1.0, -0.25), (0.9, 0.8), [((-2.5, 0, -0.5), (-1.95, 0.7, 0.0))], turn=8
    )
    place.add("white cloth", "white cloth", jacket, smooth=True)
    place.add("crate", old(rng), box((-2.5, 0, -0.5), (-1.95, 0.7, 0.0), rng))


def _corner(place: Place, rng: np.random.Generator) -> None:
    stool = ((0.72, 0, -0.15), (1.22, 0.66, 0.25))
    place.add("crate", old(rng), box(*stool, rng))
    place.add(
        "black cloth",
        "black cloth",
        figures.cloth((0.97, 0.85, 0.05), (1.15, 1.05), [stool], turn=30),
        smooth=True,
    )
    low = ((-1.15, 0, -0.25), (-0.6, 0.62, 0.15))
    place.add("crate", old(rng), box(*low, rng))
    place.add(
        "white cloth",
        "white cloth",
        figures.cloth((-0.88, 0.8, -0.05), (1.25, 1.15), [low], turn=-20),
        smooth=True,
    )
    place.add(
        "rope", "rope", figures.coil(0.27, 0.018, 9, rng).moved((0.15, 0.0, -0.15)), smooth=True
    )
    place.add_card("shaded grey card", (-1.62, 0.884, 1.3), 165, 0.19)
    for number in range(5):
        place.add(
            "boards",
            ("new wood", "new wood 2")[number % 2],
            board(
                (2.1 - 0.07 * number, 0, 0.2 + 0.16 * number),
                (2.5, 2.3, 0.3 + 0.14 * number),
                0.15,
                0.028,
                rng,
                across=np.array([0, 0, 1.0]),
            ),
        )

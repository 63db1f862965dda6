"""The carved head, cloth that hangs, coils, tools, cards: the small things of a place."""

from __future__ import annotations

import hashlib
import tempfile
from pathlib import Path

import numpy as np
from skimage.measure import marching_cubes

from tools.scenes.mesh import Mesh, Points, board, grid, joined, rope, tube, turned_solid


def _egg(
    at: Points, middle: tuple[float, float, float], radii: tuple[float, float, float]
) -> Points:
    away = (at - np.array(middle)) / np.array(radii)
    distance = np.linalg.norm(away, axis=-1)
    return (distance - 1) * min(radii)


def _blend(first: Points, second: Points, soft: float) -> Points:
    share = np.clip(0.5 + 0.5 * (second - first) / soft, 0, 1)
    return second * (1 - share) + first * share - soft * share * (1 - share)


def _pin(
    at: Points, start: tuple[float, ...], end: tuple[float, ...], thin: float, thick: float
) -> Points:
    a, b = np.array(start), np.array(end)
    along = b - a
    share = np.clip(((at - a) @ along) / (along @ along), 0, 1)
    radius = thin + (thick - thin) * share
    return np.linalg.norm(at - a - share[..., None] * along, axis=-1) - radius


def head(cells: int = 165) -> Mesh:
    """A carved head and shoulders, 0.46 m high, facing +z, its foot on y = 0."""
    low, high = np.array([-0.19, 0.0, -0.14]), np.array([0.19, 0.46, 0.15])
    steps = (high - low).max() / cells
    axes = [np.arange(low[a], high[a] + steps, steps) for a in range(3)]
    at = np.stack(np.meshgrid(*axes, indexing="ij"), -1)
    side = at.copy()
    side[..., 0] = np.abs(side[..., 0])
    shape = _egg(at, (0, 0.355, -0.018), (0.073, 0.088, 0.088))
    shape = _blend(shape, _egg(at, (0, 0.305, 0.020), (0.056, 0.075, 0.062)), 0.03)
    shape = _blend(shape, _egg(at, (0, 0.252, 0.052), (0.026, 0.020, 0.022)), 0.028)
    shape = _blend(shape, _egg(side, (0.034, 0.300, 0.050), (0.022, 0.018, 0.018)), 0.022)
    brow = _egg(side, (0.026, 0.347, 0.062), (0.030, 0.008, 0.014))
    shape = _blend(shape, brow, 0.014)
    sockets = _egg(side, (0.029, 0.329, 0.080), (0.019, 0.0125, 0.014))
    shape = -_blend(-shape, sockets, 0.012)
    eyes = _egg(side, (0.028, 0.328, 0.060), (0.0125, 0.0105, 0.0125))
    lids = np.maximum(
        _egg(side, (0.028, 0.328, 0.060), (0.0150, 0.0128, 0.0142)), 0.331 - at[..., 1]
    )
    shape = _blend(np.minimum(shape, eyes), lids, 0.003)
    nose = _pin(at, (0, 0.344, 0.070), (0, 0.297, 0.097), 0.0062, 0.0105)
    shape = _blend(shape, nose, 0.010)
    shape = _blend(shape, _egg(side, (0.0105, 0.2945, 0.0855), (0.0075, 0.006, 0.0085)), 0.006)
    upper = _egg(at, (0, 0.2755, 0.078), (0.0215, 0.0050, 0.0085))
    lower = _egg(at, (0, 0.2660, 0.077), (0.0180, 0.0058, 0.0090))
    shape = _blend(shape, np.minimum(upper, lower), 0.005)
    line = _egg(at, (0, 0.2707, 0.0875), (0.022, 0.0013, 0.0055))
    shape = -_blend(-shape, line, 0.003)
    ears = _egg(side, (0.074, 0.318, -0.016), (0.009, 0.027, 0.017))
    shape = _blend(shape, ears, 0.008)
    wave = 0.0030 * np.sin(70 * at[..., 1] + 26 * at[..., 0] + 3 * np.sin(30 * at[..., 2]))
    hair = _egg(at, (0, 0.372, -0.030), (0.082, 0.086, 0.090)) + wave
    fringe = at[..., 2] - 0.055 + 0.9 * np.clip(0.368 - at[..., 1], 0, 1)
    shape = _blend(shape, np.maximum(hair, fringe), 0.006)
    shape = _blend(shape, _egg(at, (0, 0.35, -0.112), (0.034, 0.034, 0.030)) + wave, 0.010)
    neck = _pin(at, (0, 0.12, -0.022), (0, 0.29, -0.008), 0.052, 0.043)
    shape = _blend(shape, neck, 0.022)
    shoulders = _egg(at, (0, 0.075, -0.020), (0.172, 0.085, 0.078))
    shape = _blend(shape, shoulders, 0.05)
    collar = _pin(side, (0.012, 0.128, 0.040), (0.11, 0.148, -0.01), 0.010, 0.008)
    shape = _blend(shape, collar, 0.016)
    shape = np.maximum(shape, 0.008 - at[..., 1])
    gouge = np.sin(95 * at[..., 1] + 40 * at[..., 0]) * np.sin(80 * at[..., 0] - 35 * at[..., 2])
    body = np.clip((0.21 - at[..., 1]) / 0.06, 0, 1)
    shape = shape + 0.0011 * gouge * (0.15 + body)
    vertices, faces, _, _ = marching_cubes(shape, 0.0, spacing=(steps,) * 3)
    vertices = vertices + low
    uv = np.stack(
        [vertices[:, 1] * 1.1 + 0.3 * vertices[:, 2], vertices[:, 0] * 1.3 + 0.75 * vertices[:, 2]],
        -1,
    )
    return Mesh(vertices, faces[:, ::-1].astype(np.int64), uv)


def cloth(
    corner: tuple[float, float, float],
    size: tuple[float, float],
    boxes: list[tuple[tuple[float, float, float], tuple[float, float, float]]],
    steps: int = 420,
    floor: float = 0.012,
    turn: float = 0.0,
) -> Mesh:
    """A sheet let fall on boxes and the floor; `corner` is its middle, at its height.

    It takes a minute or two, so that one fallen before is taken from the folder for passing files.
    """
    asked = repr((corner, size, boxes, steps, floor, turn)).encode()
    kept = Path(tempfile.gettempdir()) / f"cloth-{hashlib.sha256(asked).hexdigest()[:16]}.npy"
    if not kept.exists():
        np.save(kept, _fallen(corner, size, boxes, steps, floor, turn))
    at = np.load(kept)
    rows, columns = at.shape[:2]
    v, u = np.meshgrid(
        np.linspace(0, size[1], rows), np.linspace(0, size[0], columns), indexing="ij"
    )
    return grid(at, np.stack([u, v], -1))


def _fallen(
    corner: tuple[float, float, float],
    size: tuple[float, float],
    boxes: list[tuple[tuple[float, float, float], tuple[float, float, float]]],
    steps: int,
    floor: float,
    turn: float,
) -> Points:
    rng = np.random.default_rng(3)
    rows = columns = 92
    x = np.linspace(-size[0] / 2, size[0] / 2, columns)
    z = np.linspace(-size[1] / 2, size[1] / 2, rows)
    at = np.stack(np.meshgrid(x, [0.0], z, indexing="ij"), -1)[:, 0].transpose(1, 0, 2)
    angle = np.deg2rad(turn)
    spin = np.array(
        [[np.cos(angle), 0, np.sin(angle)], [0, 1, 0], [-np.sin(angle), 0, np.cos(angle)]]
    )
    at = at @ spin.T + np.array(corner)
    at = at + rng.standard_normal(at.shape) * np.array([0.001, 0.004, 0.001])
    rest = (size[0] / (columns - 1), size[1] / (rows - 1))
    before = at.copy()
    for _ in range(steps):
        at, before = at + 0.985 * (at - before) + np.array([0, -0.0006, 0]), at
        for _ in range(10):
            _pull(at, rest)
            _push_out(at, boxes, floor)
        slip = np.isclose(at[..., 1], floor, atol=0.004)
        before = np.where(slip[..., None], at * 0.7 + before * 0.3, before)
    return at


def _pull(at: Points, rest: tuple[float, float]) -> None:
    """Threads keep their length, neighbours of every second one at a time."""
    diagonal = float(np.hypot(*rest))
    for start in (0, 1):
        _pair(at[:, start:-1:2], at[:, start + 1 :: 2], rest[0])
        _pair(at[start:-1:2], at[start + 1 :: 2], rest[1])
        _pair(at[start:-1:2, :-1], at[start + 1 :: 2, 1:], diagonal, 0.25)
        _pair(at[start:-1:2, 1:], at[start + 1 :: 2, :-1], diagonal, 0.25)
        _pair(at[:, start:-3:2], at[:, start + 3 :: 2], 3 * rest[0], 0.06)
        _pair(at[start:-3:2], at[start + 3 :: 2], 3 * rest[1], 0.06)


def _pair(first: Points, second: Points, rest: float, stiff: float = 1.0) -> None:
    rows, columns = min(first.shape[0], second.shape[0]), min(first.shape[1], second.shape[1])
    first, second = first[:rows, :columns], second[:rows, :columns]
    apart = second - first
    length = np.linalg.norm(apart, axis=-1, keepdims=True) + 1e-9
    move = stiff * 0.5 * apart * (1 - rest / length)
    first += move
    second -= move


def _push_out(at: Points, boxes: list, floor: float) -> None:  # type: ignore[type-arg]
    thick = 0.024
    for low, high in boxes:
        low_, high_ = np.array(low) - thick, np.array(high) + thick
        inside = np.all((at > low_) & (at < high_), axis=-1)
        if not inside.any():
            continue
        points = at[inside]
        depth = np.stack([points - low_, high_ - points], 1)
        depth[:, 0, 1] = 9.0
        flat = depth.reshape(len(points), 6)
        nearest = np.argmin(flat, axis=1)
        face, axis = nearest // 3, nearest % 3
        points[np.arange(len(points)), axis] = np.where(face == 0, low_[axis], high_[axis])
        at[inside] = points
    at[..., 1] = np.maximum(at[..., 1], floor)


def coil(radius: float, thickness: float, turns: int, rng: np.random.Generator) -> Mesh:
    """A rope coiled flat on the floor, its end let go."""
    angle = np.linspace(0, 2 * np.pi * turns, 90 * turns)
    layer = angle / (2 * np.pi)
    out = radius - 2.05 * thickness * (layer % 3) + 0.012 * np.sin(3.1 * angle)
    high = thickness + 1.5 * thickness * (layer // 3) + 0.004 * rng.standard_normal()
    path = np.stack([out * np.cos(angle), high, out * np.sin(angle)], -1)
    tail = np.linspace(0, 1, 30)[:, None]
    end = (
        path[0]
        + tail * np.array([0.15, -thickness * 0.0, 0.75])
        + np.sin(4 * tail) * np.array([0.09, 0, 0])
    )
    return rope(np.vstack([end[::-1], path]), thickness)


def hanging_coil(radius: float, thickness: float, turns: int) -> Mesh:
    """A coil on a peg, its plane upright, about z."""
    angle = np.linspace(0, 2 * np.pi * turns, 70 * turns)
    wide = radius * (1 + 0.05 * np.sin(1.7 * angle))
    path = np.stack(
        [
            0.72 * wide * np.sin(angle),
            -radius * 1.15 + 1.25 * wide * np.cos(angle),
            thickness * (0.6 + 0.8 * np.sin(angle * 0.37 + 1)),
        ],
        -1,
    )
    return rope(path, thickness)


def trestle(length: float, height: float, rng: np.random.Generator) -> Mesh:
    """A sawhorse along x."""
    half = length / 2
    boards = [board((-half, height - 0.05, 0), (half, height - 0.05, 0), 0.1, 0.08, rng)]
    for x in (-half * 0.75, half * 0.75):
        for z in (-1, 1):
            boards.append(
                board((x, height - 0.06, z * 0.04), (x * 1.08, 0, z * 0.28), 0.09, 0.04, rng)
            )
        boards.append(board((x, height * 0.45, -0.18), (x, height * 0.45, 0.18), 0.08, 0.03, rng))
    return joined(boards)


def shavings(
    count: int, low: tuple[float, float], high: tuple[float, float], rng: np.random.Generator
) -> Mesh:
    """Curls from a plane, strewn on the floor."""
    curls = []
    for _ in range(count):
        turns = rng.uniform(0.7, 2.2)
        angle = np.linspace(0, 2 * np.pi * turns, 26)
        radius = rng.uniform(0.012, 0.026) * (1 + 0.25 * angle / angle[-1])
        wide = rng.uniform(0.02, 0.04)
        ring = np.stack([radius * np.cos(angle), radius * np.sin(angle) + 0.026, 0 * angle], -1)
        drift = np.stack([0 * angle, 0 * angle, 0.004 * angle], -1)
        sheet = grid(np.stack([ring + drift, ring + drift + np.array([0, 0, wide])]))
        place = (rng.uniform(low[0], high[0]), 0.0, rng.uniform(low[1], high[1]))
        curls.append(sheet.turned(rng.uniform(0, 360)).moved(place))
    return joined(curls)


def saw(rng: np.random.Generator) -> tuple[Mesh, Mesh]:
    """A handsaw that hangs by its handle: blade and handle."""
    outline = np.array(
        [[[-0.055, -0.06, 0], [0.055, -0.06, 0]], [[-0.03, -0.62, 0], [0.02, -0.62, 0]]]
    )
    return grid(outline), board((0, 0.07, 0.0), (0, -0.08, 0.0), 0.13, 0.028, rng)


def bottle(height: float, radius: float) -> Mesh:
    return turned_solid(
        [
            (0.001, 0),
            (radius, 0.002),
            (radius, height * 0.62),
            (radius * 0.94, height * 0.68),
            (radius * 0.34, height * 0.8),
            (radius * 0.34, height),
            (0.001, height),
        ]
    )


def bulb() -> Mesh:
    """A bare bulb, neck up, its cap at y = 0; its faces look outward, where it shines."""
    solid = turned_solid(
        [
            (0.012, 0),
            (0.013, -0.012),
            (0.020, -0.03),
            (0.029, -0.05),
            (0.031, -0.066),
            (0.024, -0.085),
            (0.012, -0.093),
            (0.001, -0.095),
        ],
        sides=28,
    )
    return Mesh(solid.vertices, solid.faces[:, ::-1], solid.uv)


def rod(
    start: Points | tuple[float, ...],
    end: Points | tuple[float, ...],
    radius: float,
    sag: float = 0.0,
) -> Mesh:
    """A line between two points, hanging through by `sag`."""
    share = np.linspace(0, 1, 40)[:, None]
    path = np.asarray(start, float) * (1 - share) + np.asarray(end, float) * share
    path[:, 1] -= sag * 4 * (share * (1 - share))[:, 0]
    return tube(path, radius, sides=8)

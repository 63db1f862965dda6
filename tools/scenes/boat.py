"""A lapstrake boat in build: planked part of the way up, her frames standing."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from tools.scenes.mesh import Mesh, Points, board, grid, joined, tube

LENGTH, BEAM, DEPTH = 5.4, 1.9, 0.95
STRAKES = 9


@dataclass(frozen=True)
class Hull:
    """Her parts, bow at +z, keel on y = 0."""

    planks: Mesh
    frames: Mesh
    backbone: Mesh


def _section(station: Points, up: Points) -> Points:
    """Points (…, 3) on the starboard side; station 0 (stern) to 1 (bow), up 0 (keel) to 1."""
    along = (station - 0.5) * LENGTH
    full = np.clip(np.sin(np.pi * np.clip(0.10 + 0.90 * station, 0, 1)), 0, 1) ** 0.62
    full = np.where(
        station > 0.6, full * (1 - (np.clip(station - 0.6, 0, 1) / 0.4) ** 2.6 * 0.94), full
    )
    half = BEAM / 2 * full
    keel = 0.10 * (2 * station - 1) ** 4 + 0.34 * np.clip((station - 0.8) / 0.2, 0, 1) ** 2
    sheer = DEPTH * (0.86 + 0.34 * (station - 0.42) ** 2 * 2.2)
    belly = 0.30 + 0.42 * np.abs(2 * station - 1) ** 1.6
    out = half * np.sin(np.pi / 2 * up) ** (0.55 + belly * 0.7)
    high = keel + (sheer - keel) * (1 - np.cos(np.pi / 2 * up)) ** (0.62 + 0.1 * belly)
    rake = 0.30 * np.clip((station - 0.8) / 0.2, 0, 1) * up
    return np.stack(np.broadcast_arrays(out, high, along + rake), -1)


def _both(mesh: Mesh) -> Mesh:
    mirrored = Mesh(mesh.vertices * np.array([-1.0, 1, 1]), mesh.faces[:, ::-1], mesh.uv)
    return joined([mesh, mirrored])


def _strake(number: int, rng: np.random.Generator) -> Mesh:
    stations = np.linspace(0.0, 0.995, 70)
    low, high = number / STRAKES, (number + 1) / STRAKES + 0.006
    up = np.linspace(low, high, 5)
    face = _section(stations[None], up[:, None])
    lap = np.linspace(0.026, 0.004, 5)[:, None]
    face[..., 0] += lap
    under = face[0].copy()
    under[:, 0] -= 0.024
    where = rng.uniform(0, 5, 2)
    rows = np.stack([under, *face])
    across = np.concatenate([[0], np.linspace(0.02, 0.16, 5)])[:, None]
    uv = np.stack(
        np.broadcast_arrays(stations[None] * LENGTH * 0.5 + where[0], across * 1.6 + where[1]), -1
    )
    return _both(grid(rows, uv))


def _frame(station: float) -> Mesh:
    up = np.linspace(0.02, 1.03, 22)
    path = _section(np.full_like(up, station), up)
    path[:, 0] = np.maximum(path[:, 0] - 0.022, 0)
    return _both(tube(path, 0.021, sides=6))


def hull(rng: np.random.Generator, planked: int = 6) -> Hull:
    """A hull planked up to a strake, with ribbands round the frames above."""
    planks = joined([_strake(number, rng) for number in range(planked)])
    stations = np.linspace(0.05, 0.95, 17)
    frames = [_frame(float(station)) for station in stations]
    along = np.linspace(0.0, 0.99, 60)
    for up in np.linspace((planked + 1.4) / STRAKES, 1.0, 2):
        path = _section(along, np.full_like(along, up))
        frames.append(_both(tube(path, 0.026, sides=6)))
    for station, height in ((0.3, 0.5), (0.52, 0.5), (0.72, 0.56)):
        side = _section(np.array([station]), np.array([0.62]))[0]
        frames.append(
            board(
                (-side[0], height, side[2]),
                (side[0], height, side[2]),
                0.2,
                0.03,
                rng,
                across=np.array([0.0, 0, 1]),
            )
        )
    half = LENGTH / 2
    backbone = [
        board((0, 0.02, -half), (0, 0.02, half - 0.5), 0.17, 0.07, rng),
        board((0, 0.06, half - 0.72), (0, 0.46, half - 0.12), 0.2, 0.08, rng),
        board((0, 0.34, half - 0.18), (0, DEPTH * 1.42, half + 0.34), 0.18, 0.08, rng),
        board((0, 0.0, -half + 0.02), (0, DEPTH * 0.98, -half - 0.06), 0.2, 0.08, rng),
        board(
            (0, 0.40, -half + 0.02),
            (0, 0.92, -half - 0.02),
            0.66,
            0.035,
            rng,
            across=np.array([1.0, 0, 0]),
        ),
    ]
    return Hull(planks, joined(frames), joined(backbone))

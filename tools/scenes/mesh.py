"""Triangles: boards, tubes, grids and smooth solids, with places on their textures."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path

import numpy as np
from numpy.typing import NDArray

Points = NDArray[np.float64]
UP = np.array([0.0, 1.0, 0.0])


@dataclass(frozen=True, eq=False)
class Mesh:
    """Vertices (n, 3) in metres, faces (m, 3), places on the texture (n, 2)."""

    vertices: Points
    faces: NDArray[np.int64]
    uv: Points

    def moved(self, by: tuple[float, float, float]) -> Mesh:
        return Mesh(self.vertices + np.array(by), self.faces, self.uv)

    def turned(self, degrees: float, axis: int = 1) -> Mesh:
        """Turned about an axis through the origin."""
        turn = np.deg2rad(degrees)
        first, second = [(1, 2), (2, 0), (0, 1)][axis]
        vertices = self.vertices.copy()
        a, b = self.vertices[:, first], self.vertices[:, second]
        vertices[:, first] = a * np.cos(turn) - b * np.sin(turn)
        vertices[:, second] = a * np.sin(turn) + b * np.cos(turn)
        return Mesh(vertices, self.faces, self.uv)

    def write(self, path: Path) -> None:
        """As a binary PLY."""
        head = (
            f"ply\nformat binary_little_endian 1.0\nelement vertex {len(self.vertices)}\n"
            "property float x\nproperty float y\nproperty float z\n"
            "property float u\nproperty float v\n"
            f"element face {len(self.faces)}\nproperty list uchar int vertex_indices\nend_header\n"
        )
        faces = np.empty(len(self.faces), dtype=[("n", "u1"), ("v", "<i4", 3)])
        faces["n"], faces["v"] = 3, self.faces
        body = np.hstack([self.vertices, self.uv]).astype("<f4")
        path.write_bytes(head.encode() + body.tobytes() + faces.tobytes())


def joined(meshes: list[Mesh]) -> Mesh:
    starts = np.cumsum([0] + [len(mesh.vertices) for mesh in meshes[:-1]])
    return Mesh(
        np.vstack([mesh.vertices for mesh in meshes]),
        np.vstack([mesh.faces + start for mesh, start in zip(meshes, starts, strict=True)]),
        np.vstack([mesh.uv for mesh in meshes]),
    )


def grid(points: Points, uv: Points | None = None) -> Mesh:
    """A sheet through (rows, columns, 3) points."""
    rows, columns = points.shape[:2]
    index = np.arange(rows * columns).reshape(rows, columns)
    a, b, c, d = index[:-1, :-1], index[1:, :-1], index[1:, 1:], index[:-1, 1:]
    faces = np.vstack(
        [np.stack([a, b, c], -1).reshape(-1, 3), np.stack([a, c, d], -1).reshape(-1, 3)]
    )
    if uv is None:
        v, u = np.meshgrid(np.linspace(0, 1, rows), np.linspace(0, 1, columns), indexing="ij")
        uv = np.stack([u, v], -1)
    return Mesh(points.reshape(-1, 3), faces, uv.reshape(-1, 2))


def board(
    start: tuple[float, float, float] | Points,
    end: tuple[float, float, float] | Points,
    width: float,
    thickness: float,
    rng: np.random.Generator,
    across: Points | None = None,
) -> Mesh:
    """A board from start to end; `across` is the way its width lies.

    The grain runs along it, from a place of the texture of its own.
    """
    start, end = np.asarray(start, float), np.asarray(end, float)
    along = end - start
    length = float(np.linalg.norm(along))
    along = along / length
    guess = UP if across is None else across
    if abs(float(along @ guess)) > 0.99:
        guess = np.array([1.0, 0.0, 0.0])
    side = guess - along * float(along @ guess)
    side /= np.linalg.norm(side)
    thick = np.cross(along, side)
    corners = np.array([[x, y, z] for x in (0, 1) for y in (-0.5, 0.5) for z in (-0.5, 0.5)])
    place = (
        start
        + corners[:, :1] * length * along
        + corners[:, 1:2] * width * side
        + corners[:, 2:] * thickness * thick
    )
    faces = [(0, 1, 3, 2), (4, 6, 7, 5), (0, 4, 5, 1), (2, 3, 7, 6), (0, 2, 6, 4), (1, 5, 7, 3)]
    vertices = np.vstack([place[list(face)] for face in faces])
    where = rng.uniform(0, 8, 2)
    uv = []
    for number, face in enumerate(faces):
        local = corners[list(face)]
        if number < 2:
            uv.append(np.stack([local[:, 1] * width * 0.3, local[:, 2] * thickness], -1))
        else:
            cross = local[:, 2] * thickness if number < 4 else local[:, 1] * width
            uv.append(np.stack([local[:, 0] * length * 0.5, cross * 2.0], -1))
    index = np.array([[4 * n, 4 * n + 1, 4 * n + 2] for n in range(6)])
    other = np.array([[4 * n, 4 * n + 2, 4 * n + 3] for n in range(6)])
    return Mesh(vertices, np.vstack([index, other]), np.vstack(uv) + where)


def box(
    low: tuple[float, float, float], high: tuple[float, float, float], rng: np.random.Generator
) -> Mesh:
    """An upright box between two corners, its grain along the longest side."""
    low_, high_ = np.array(low), np.array(high)
    size = high_ - low_
    axis = int(np.argmax(size))
    middle = (low_ + high_) / 2
    half = np.zeros(3)
    half[axis] = size[axis] / 2
    side = (axis + 1) % 3
    across = np.eye(3)[side]
    return board(
        middle - half, middle + half, size[side], size[3 - axis - side], rng, across=across
    )


def tube(path: Points, radius: float | Points, sides: int = 10) -> Mesh:
    """A round rod along (n, 3) points."""
    along = np.gradient(path, axis=0)
    along /= np.linalg.norm(along, axis=1, keepdims=True)
    guess = np.where(np.abs(along @ UP)[:, None] > 0.9, np.array([1.0, 0.0, 0.0]), UP)
    side = np.cross(along, guess)
    side /= np.linalg.norm(side, axis=1, keepdims=True)
    other = np.cross(along, side)
    angle = np.linspace(0, 2 * np.pi, sides + 1)
    spread = np.broadcast_to(np.asarray(radius, float), (len(path),))[:, None, None]
    ring = (
        np.cos(angle)[None, :, None] * side[:, None] + np.sin(angle)[None, :, None] * other[:, None]
    )
    points = path[:, None] + spread * ring
    length = np.concatenate([[0], np.cumsum(np.linalg.norm(np.diff(path, axis=0), axis=1))])
    uv = np.stack(np.broadcast_arrays(length[:, None] * 2, angle[None] / 6), -1)
    return grid(points, uv)


def turned_solid(profile: list[tuple[float, float]], sides: int = 40) -> Mesh:
    """A solid of revolution about the upright axis from (radius, height) pairs."""
    angle = np.linspace(0, 2 * np.pi, sides + 1)
    radius, height = np.array(profile).T
    points = np.stack(
        np.broadcast_arrays(
            radius[:, None] * np.cos(angle), height[:, None], radius[:, None] * np.sin(angle)
        ),
        -1,
    )
    uv = np.stack(np.broadcast_arrays(height[:, None] * 2, angle[None] / 3), -1)
    return grid(points, uv)


def rope(path: Points, radius: float, lay: float = 0.09) -> Mesh:
    """Three strands laid round a path; `lay` is the length of one turn."""
    length = np.concatenate([[0], np.cumsum(np.linalg.norm(np.diff(path, axis=0), axis=1))])
    count = max(20, int(length[-1] / lay * 9))
    at = np.linspace(0, length[-1], count)
    fine = np.stack([np.interp(at, length, path[:, axis]) for axis in range(3)], -1)
    along = np.gradient(fine, axis=0)
    along /= np.linalg.norm(along, axis=1, keepdims=True)
    guess = np.where(np.abs(along @ UP)[:, None] > 0.9, np.array([1.0, 0.0, 0.0]), UP)
    side = np.cross(along, guess)
    side /= np.linalg.norm(side, axis=1, keepdims=True)
    other = np.cross(along, side)
    strands = []
    for strand in range(3):
        turn = 2 * np.pi * (at / lay + strand / 3)
        middle = fine + radius * 0.52 * (
            np.cos(turn)[:, None] * side + np.sin(turn)[:, None] * other
        )
        strands.append(tube(middle, radius * 0.5, sides=7))
    return joined(strands)

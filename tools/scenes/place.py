"""What a place is made of before it is traced: named things, their stuff, light, a camera."""

from __future__ import annotations

from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

import numpy as np

from tools.scenes.mesh import Mesh, board, joined
from tools.scenes.textures import Picture

# Eleven steps of the wedge, a stop apart but for the first: reflectances.
WEDGE = (0.88, 0.62, 0.44, 0.31, 0.22, 0.155, 0.11, 0.077, 0.054, 0.038, 0.026)
GREY = 0.18


@dataclass
class Place:
    """A scene to be traced."""

    name: str
    camera: tuple[tuple[float, float, float], tuple[float, float, float], float]
    sky: Picture
    materials: dict[str, dict[str, Any]] = field(default_factory=dict)
    parts: dict[tuple[str, str], list[Mesh]] = field(default_factory=dict)
    lamps: list[dict[str, Any]] = field(default_factory=list)
    smooth: set[str] = field(default_factory=set)

    def add(self, thing: str, material: str, *meshes: Mesh, smooth: bool = False) -> None:
        self.parts.setdefault((thing, material), []).extend(meshes)
        if smooth:
            self.smooth.add(thing)

    def cloth_of(self, name: str, reflectance: Picture | tuple[float, float, float]) -> None:
        """A matt stuff by its linear reflectance, one colour or a texture."""
        self.materials[name] = {
            "type": "twosided",
            "bsdf": {"type": "diffuse", "reflectance": _reflectance(reflectance)},
        }

    def waxed(
        self, name: str, reflectance: Picture | tuple[float, float, float], rough: float
    ) -> None:
        """A stuff with a sheen."""
        self.materials[name] = {
            "type": "twosided",
            "bsdf": {
                "type": "roughplastic",
                "alpha": rough,
                "diffuse_reflectance": _reflectance(reflectance),
            },
        }

    def iron(self, name: str, rough: float = 0.3, level: float = 0.45) -> None:
        self.materials[name] = {
            "type": "twosided",
            "bsdf": {
                "type": "roughconductor",
                "alpha": rough,
                "specular_reflectance": {"type": "rgb", "value": [level] * 3},
            },
        }

    def cards(self) -> None:
        """The stuff of grey card and wedge: even, and the same in all three lights."""
        self.cloth_of("grey card", (GREY, GREY, GREY))
        for number, level in enumerate(WEDGE):
            self.cloth_of(f"wedge {number + 1}", (level, level, level))

    def add_card(
        self,
        thing: str,
        at: tuple[float, float, float],
        facing: float,
        size: float,
        lean: float = 8.0,
    ) -> None:
        """A grey card standing at a place, facing a heading (degrees from +z toward +x)."""
        rng = np.random.default_rng(1)
        card = board((0, 0, 0), (0, size * 1.25, 0), size, 0.004, rng, across=np.array([1.0, 0, 0]))
        self.add(thing, "grey card", card.turned(-lean, 0).turned(facing).moved(at))

    def add_wedge(
        self,
        at: tuple[float, float, float],
        facing: float,
        width: float,
        step: float,
        lean: float = 0.0,
        flat: bool = False,
    ) -> None:
        """The wedge, light end first: upright, or lying along x when `flat`."""
        rng = np.random.default_rng(1)
        count = len(WEDGE)
        for number in range(count):
            if flat:
                x = (number - count / 2) * step
                patch = board((x, width / 2, 0), (x + step, width / 2, 0), width, 0.006, rng)
            else:
                low = (count - 1 - number) * step
                patch = board(
                    (0, low, 0), (0, low + step, 0), width, 0.006, rng, across=np.array([1.0, 0, 0])
                )
            self.add(
                f"wedge {number + 1}",
                f"wedge {number + 1}",
                patch.turned(-lean, 0).turned(facing).moved(at),
            )

    def sun(self, way: tuple[float, float, float], light: tuple[float, float, float]) -> None:
        """Light that falls along `way` over all of the place."""
        self.lamps.append({"way": way, "light": light})

    def lamp(self, mesh: Mesh, radiance: tuple[float, float, float]) -> None:
        self.lamps.append({"mesh": mesh, "radiance": radiance})

    def tracer(
        self, folder: Path, width: int, height: int, integrator: dict[str, Any]
    ) -> tuple[dict[str, Any], list[str]]:
        """The description the path tracer reads, and the thing each shape belongs to."""
        import mitsuba as mi

        origin, target, wide = self.camera
        scene: dict[str, Any] = {
            "type": "scene",
            "integrator": integrator,
            "sensor": {
                "type": "perspective",
                "fov": wide,
                "fov_axis": "x",
                "to_world": mi.ScalarTransform4f().look_at(list(origin), list(target), [0, 1, 0]),
                "film": {
                    "type": "hdrfilm",
                    "width": width,
                    "height": height,
                    "rfilter": {"type": "box"},
                },
                "sampler": {"type": "independent"},
            },
            "sky": {
                "type": "envmap",
                "bitmap": mi.Bitmap(self.sky.astype(np.float32)),
                "scale": 1.0,
            },
        }
        things = []
        for number, ((thing, material), meshes) in enumerate(self.parts.items()):
            path = folder / f"{number}.ply"
            joined(meshes).write(path)
            scene[f"shape_{number:04d}"] = {
                "type": "ply",
                "filename": str(path),
                "face_normals": thing not in self.smooth,
                "bsdf": self.materials[material],
            }
            things.append(thing)
        for number, lamp in enumerate(self.lamps):
            if "way" in lamp:
                scene[f"sun{number}"] = {
                    "type": "directional",
                    "direction": list(lamp["way"]),
                    "irradiance": {"type": "rgb", "value": list(lamp["light"])},
                }
                continue
            path = folder / f"lamp{number}.ply"
            lamp["mesh"].write(path)
            scene[f"shape_lamp{number}"] = {
                "type": "ply",
                "filename": str(path),
                "face_normals": False,
                "emitter": {
                    "type": "area",
                    "radiance": {"type": "rgb", "value": list(lamp["radiance"])},
                },
            }
            things.append("lamp")
        return scene, things


def _reflectance(value: Picture | tuple[float, float, float]) -> dict[str, Any]:
    import mitsuba as mi

    if isinstance(value, tuple):
        return {"type": "rgb", "value": list(value)}
    return {"type": "bitmap", "bitmap": mi.Bitmap(value.astype(np.float32)), "raw": True}

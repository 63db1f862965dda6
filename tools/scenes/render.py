"""Trace a place and write it as the program reads it: light, what is where, where to meter."""

from __future__ import annotations

import argparse
import tempfile
from pathlib import Path
from typing import Any

import numpy as np
from numpy.typing import NDArray

from tools.scenes.place import Place


def traced(
    place: Place, width: int, height: int, samples: int, seed: int = 0
) -> dict[str, NDArray[Any]]:
    """Linear radiance (rows, columns, 3), and the number of the thing at each pixel."""
    import mitsuba as mi

    mi.set_variant("llvm_ad_rgb")
    with tempfile.TemporaryDirectory() as folder:
        path = {"type": "path", "max_depth": 9, "rr_depth": 4}
        aov = {"type": "aov", "aovs": "albedo:albedo,normal:sh_normal", "img": path}
        described, things = place.tracer(Path(folder), width, height, aov)
        scene = mi.load_dict(described)
        told_apart = mi.load_dict(described, optimize=False)
    total: NDArray[np.float64] | None = None
    passes = max(1, samples // 16)
    for number in range(passes):
        picture = np.array(
            mi.render(scene, spp=min(16, samples), seed=seed * 1000 + number), dtype=np.float64
        )
        total = picture if total is None else total + picture
    assert total is not None
    mean = (total / passes).astype(np.float32)
    found = _things(told_apart, width, height, things)
    return {
        "light": _denoised(
            *(
                np.ascontiguousarray(mean[..., part])
                for part in (slice(0, 3), slice(-6, -3), slice(-3, None))
            )
        ),
        **found,
    }


def _denoised(light: NDArray[Any], albedo: NDArray[Any], normal: NDArray[Any]) -> NDArray[Any]:
    import mitsuba_oidn as oidn

    return np.array(oidn.denoise(light, albedo=np.clip(albedo, 0, 1), normal=normal, hdr=True))


def _things(scene: Any, width: int, height: int, things: list[str]) -> dict[str, NDArray[Any]]:
    import mitsuba as mi

    names = sorted(set(things))
    lookup = []
    for shape in scene.shapes():
        key = shape.id()
        number = key.removeprefix("shape_")
        thing = "lamp" if number.startswith("lamp") else things[int(number)]
        lookup.append(names.index(thing) + 1)
    sensor = scene.sensors()[0]
    y, x = np.meshgrid(
        (np.arange(height) + 0.5) / height, (np.arange(width) + 0.5) / width, indexing="ij"
    )
    rays, _ = sensor.sample_ray(0, 0.5, mi.Point2f(x.ravel(), y.ravel()), mi.Point2f(0.5, 0.5))
    hit = scene.ray_intersect(rays)
    shapes = scene.shapes_dr()
    import drjit as dr

    where = np.zeros(width * height, dtype=np.uint8)
    pointer = np.array(dr.reinterpret_array(mi.UInt32, hit.shape))
    own = np.array(dr.reinterpret_array(mi.UInt32, shapes))
    table = dict(zip(own.tolist(), lookup, strict=True))
    for value in np.unique(pointer):
        if value:
            where[pointer == value] = table[int(value)]
    return {"where": where.reshape(height, width), "names": np.array(["sky", *names])}


def preview(light: NDArray[Any], exposure: float) -> NDArray[np.uint8]:
    """A quick look: a soft shoulder, sRGB."""
    value = light * exposure
    value = value / (1 + value * 0.55)
    return (np.clip(value, 0, 1) ** (1 / 2.2) * 255).astype(np.uint8)


def main() -> None:
    from PIL import Image

    from tools.scenes import places

    reader = argparse.ArgumentParser(description=__doc__)
    reader.add_argument("name", choices=sorted(places.PLACES))
    reader.add_argument("--width", type=int, default=1280)
    reader.add_argument("--samples", type=int, default=256)
    reader.add_argument("--out", type=Path, required=True)
    reader.add_argument("--look", type=Path, help="also a picture to look at")
    chosen = reader.parse_args()
    place = places.PLACES[chosen.name]()
    found = traced(place, chosen.width, chosen.width * 2 // 3, chosen.samples)
    np.savez(chosen.out, **found)
    light = found["light"]
    grey = light @ np.array([0.2126, 0.7152, 0.0722])
    stops = np.log2(np.maximum(np.percentile(grey, [0.1, 5, 25, 50, 75, 95, 99.9]), 1e-9))
    print(place.name, "stops at 0.1 … 99.9 percentiles:", np.round(stops, 2))
    if chosen.look:
        middle = 0.30 / float(np.exp(np.log(grey + 1e-4).mean()))
        looks = [preview(light, middle), preview(light, middle / 16)]
        Image.fromarray(np.hstack(looks)).save(chosen.look)


if __name__ == "__main__":
    main()

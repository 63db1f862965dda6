"""What pushing the shed's colour film does to the patches of a chart."""

from __future__ import annotations

from math import cos, radians, sin

from vadrin.app.document.test_loading import load_test
from vadrin.app.read.patch_entry import OF_A_PICTURE, Patch, keep_patches
from vadrin.core.materials.hues import Lab
from vadrin.notebook.store import Notebook

_CHART = {
    "red": (46.0, 58.0, 30.0),
    "green": (55.0, 52.0, 142.0),
    "blue": (34.0, 48.0, 288.0),
    "yellow": (80.0, 78.0, 92.0),
    "grey": (60.0, 1.0, 90.0),
}
"""L*, chroma and hue angle at the normal time."""


def write_patches(notebook: Notebook, test_id: int) -> None:
    """Patches of each push: blue runs away, so that red turns to orange and grey grows warm."""
    loaded = load_test(notebook, test_id)
    for strip in loaded.strips if loaded else ():
        push = strip.strip.push or 0.0
        keep_patches(
            notebook,
            strip,
            tuple(
                Patch(name, _pushed(*colour, push), "", OF_A_PICTURE)
                for name, colour in _CHART.items()
            ),
        )


def _pushed(lightness: float, chroma: float, hue: float, push: float) -> Lab:
    more, turned = chroma * 1.05**push, radians(hue + 11.0 * push * sin(radians(105.0 - hue)))
    return Lab(
        lightness,
        round(more * cos(turned) + 0.5 * push, 1),
        round(more * sin(turned) + 3.5 * push, 1),
    )

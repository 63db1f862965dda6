"""Small pictures of the stations for F1, from those of the README.

``python -m tools.guide_pictures`` writes them into the package.
"""

from __future__ import annotations

from pathlib import Path

from PIL import Image

from vadrin.app.document.stations import PLACES

_ROOT = Path(__file__).parents[1]
_FROM, _TO = _ROOT / "docs/screenshots", _ROOT / "src/vadrin/guide"
_WIDE, _COLOURS = 600, 48


def main() -> None:
    """Write one for each place that says what it is for."""
    for place in PLACES:
        if not place.purpose:
            continue
        with Image.open(_FROM / f"{place.name}.png") as whole:
            size = _WIDE, round(_WIDE * whole.height / whole.width)
            small = whole.convert("RGB").resize(size, Image.Resampling.LANCZOS)
        small.quantize(_COLOURS, dither=Image.Dither.NONE).save(
            _TO / f"{place.name}.png", optimize=True
        )


if __name__ == "__main__":
    main()

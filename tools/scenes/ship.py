"""Put a traced place into the program: ``python -m tools.scenes.ship shed traced.npz``."""

from __future__ import annotations

import sys
from pathlib import Path

import numpy as np

from tools.scenes.spots import SPOTS, TITLES
from vadrin.core.pictures.scene import Spot
from vadrin.formats.pictures.scene_file import write_scene

_FOLDER = Path(__file__).resolve().parents[2] / "src" / "vadrin" / "scenes"


def main() -> None:
    name, source = sys.argv[1], Path(sys.argv[2])
    traced = np.load(source)
    rows, columns = (side // 2 * 2 for side in traced["where"].shape)
    light, where = traced["light"][:rows, :columns].astype(float), traced["where"][:rows, :columns]
    names = tuple(str(each) for each in traced["names"])
    grey = light @ np.array([0.2126, 0.7152, 0.0722])
    first = SPOTS[name][0][1]
    light /= grey[where == names.index(first)].mean()
    for _, thing in SPOTS[name]:
        seen = float((where == names.index(thing)).mean()) if thing else 1.0
        print(f"{thing or 'whole'}: {100 * seen:.2f} % of the picture")
    _FOLDER.mkdir(exist_ok=True)
    spots = tuple(Spot(*spot) for spot in SPOTS[name])
    write_scene(_FOLDER, name, TITLES[name], light, where, names, spots)


if __name__ == "__main__":
    main()

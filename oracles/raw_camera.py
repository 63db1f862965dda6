"""A camera's raw file by the format's own tags: linear light under a mosaic of colours (DNG)."""

import numpy as np
import tifffile

BLACK, WHITE = 512, 16_000
_TO_CAMERA = (3.2406, -1.5372, -0.4986, -0.9689, 1.8758, 0.0415, 0.0557, -0.2040, 1.0570)


def write_raw(path, light):
    """Write light, shape (rows, columns, 3) with the sensor full at 1; even sides."""
    mosaic = np.zeros(light.shape[:2])
    for row, column, channel in ((0, 0, 0), (0, 1, 1), (1, 0, 1), (1, 1, 2)):
        mosaic[row::2, column::2] = light[row::2, column::2, channel]
    values = np.clip(BLACK + mosaic * (WHITE - BLACK), 0, WHITE).astype(np.uint16)
    matrix = tuple(part for x in _TO_CAMERA for part in (round(x * 10_000), 10_000))
    tags = [
        (50706, "B", 4, bytes([1, 4, 0, 0]), True),
        (50707, "B", 4, bytes([1, 1, 0, 0]), True),
        (50708, "s", 0, "Shed back", True),
        (33421, "H", 2, (2, 2), True),
        (33422, "B", 4, bytes([0, 1, 1, 2]), True),
        (50714, "H", 1, BLACK, True),
        (50717, "I", 1, WHITE, True),
        (50721, "2i", 9, matrix, True),
        (50728, "2I", 3, (1, 1) * 3, True),
        (50778, "H", 1, 21, True),
        (271, "s", 0, "Shed", True),
        (272, "s", 0, "Back", True),
    ]
    tifffile.imwrite(path, values, photometric=32803, extratags=tags, metadata=None, subfiletype=0)
    return path

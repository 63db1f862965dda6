"""The transfer curve of sRGB, on which most programs write pictures and displays show them.

Source: IEC 61966-2-1.
"""

from __future__ import annotations

import numpy as np

from vadrin.core.arrays import Array


def coded(light: Array) -> Array:
    """Values of 0 to 1 that stand for shares of white's light, same shape."""
    bent = 1.055 * np.maximum(light, 0.0) ** (1 / 2.4) - 0.055
    return np.asarray(np.where(light <= 0.0031308, 12.92 * light, bent))


def decoded(value: Array) -> Array:
    """Shares of white's light that values of 0 to 1 stand for, same shape."""
    bent = ((np.maximum(value, 0.0) + 0.055) / 1.055) ** 2.4
    return np.asarray(np.where(value <= 0.04045, value / 12.92, bent))

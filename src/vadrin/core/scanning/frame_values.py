"""What a frame of a scan reads: the mean of its even part, dust aside, with its sureness."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from vadrin.core.arrays import Array
from vadrin.core.scanning.calibration import ScanCalibration

_DUST = 4.5
_TRIMMED = 0.1
_MOST_CLIPPED = 0.02
_EIGHT_BITS, _FEWEST_CODES = 255.0, 40
_WIDE_GAP, _HOLES = 1e-3, 0.08
_ENOUGH = 8000
"""Pixels of a frame that tell as much as all of them."""
_INDEPENDENT = 400.0
"""Pixels that count as independent at most: grain and sharpness tie neighbours together."""


@dataclass(frozen=True)
class FrameValue:
    """One frame.

    Attributes
    ----------
    density, deviation : float or None
        None where it cannot be told.
    dust, clipped : float
        Shares of the frame rejected as dust and cut off by the picture.
    why : str
        Why there is no density; empty where there is.
    granularity : float or None
        RMS, through 48 um, where the picture is fine enough.
    """

    density: float | None
    deviation: float | None
    dust: float
    clipped: float
    why: str = ""
    granularity: float | None = None


def frame_value(
    patch: Array, calibration: ScanCalibration, largest: float, smallest: float = 0.0
) -> FrameValue:
    """Read the middle of a frame.

    Parameters
    ----------
    patch : ndarray, shape (h, w)
        Its values.
    calibration : ScanCalibration
    largest, smallest : float
        Where the picture is cut off.
    """
    values = np.asarray(patch, dtype=np.float64).ravel()
    values = values[np.isfinite(values)]
    values = values[:: max(1, len(values) // _ENOUGH)]
    if len(values) < 16:
        return FrameValue(None, None, 0.0, 0.0, "the frame is too small in the picture")
    clipped = float(np.mean((values >= largest) | (values <= smallest)))
    middle = float(np.median(values))
    scatter = 1.4826 * float(np.median(np.abs(values - middle)))
    far = np.abs(values - middle) > _DUST * max(scatter, 1.0)
    kept = np.sort(values[~far])
    cut = int(_TRIMMED * len(kept))
    mean = float(kept[cut : len(kept) - cut].mean())
    density = float(calibration.density(mean))
    dust = float(far.mean())
    if clipped > _MOST_CLIPPED:
        return FrameValue(None, None, dust, clipped, "the picture is cut off there: scan it again")
    if not np.isfinite(density) or density > calibration.highest:
        why = f"denser than this scan can read ({calibration.highest:.2f})"
        return FrameValue(None, None, dust, clipped, why)
    own = scatter / float(calibration.slope(density)) / np.sqrt(min(len(kept), _INDEPENDENT))
    return FrameValue(
        density, float(np.hypot(own, calibration.deviation_of(density))), dust, clipped
    )


def suspicions(values: NDArray[Any], largest: float) -> tuple[str, ...]:
    """What a scanning program seems to have done to a picture, in words.

    Parameters
    ----------
    values : ndarray
        A sample of its own values, neither averaged nor rescaled.
    largest : float
        Where it is cut off.
    """
    codes = np.unique(np.asarray(values).ravel())
    said = []
    if len(codes) > _FEWEST_CODES and _pulled_apart(codes, largest):
        said.append(
            "the scan's levels were stretched: turn automatic levels off and scan at 16 bits"
        )
    if np.mean(values >= largest) > 0.3 and np.mean(values <= 0) > 0.01:
        said.append("shadows and highlights are clipped: scan with less contrast")
    return tuple(said)


def _pulled_apart(codes: NDArray[Any], largest: float) -> bool:
    """Whether levels are missing that a plain scan would have."""
    gaps = np.diff(codes)
    if largest > _EIGHT_BITS:
        return bool(np.median(gaps) >= _WIDE_GAP * largest)
    return bool(np.mean(gaps == 2) > _HOLES)

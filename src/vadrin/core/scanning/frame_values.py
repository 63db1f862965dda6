"""What a frame of a scan reads: the mean of its even part, dust aside, with its sureness."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.scanning.calibration import ScanCalibration

_DUST = 4.5
_TRIMMED = 0.1
_MOST_CLIPPED = 0.02
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
    """

    density: float | None
    deviation: float | None
    dust: float
    clipped: float
    why: str = ""


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
        why = f"denser than this picture tells ({calibration.highest:.2f})"
        return FrameValue(None, None, dust, clipped, why)
    slope = (mean - calibration.flare) * calibration.gamma * np.log(10)
    own = scatter / slope / np.sqrt(min(len(kept), _INDEPENDENT))
    return FrameValue(density, float(np.hypot(own, calibration.deviation)), dust, clipped)


def suspicions(picture: Array, largest: float) -> tuple[str, ...]:
    """What a scanning program seems to have done to a picture, in words."""
    values = np.asarray(picture, dtype=np.float64).ravel()
    said = []
    counts, _ = np.histogram(values, bins=256, range=(0, largest))
    used = np.flatnonzero(counts)
    if len(used) > 32:
        inside = counts[used[0] : used[-1] + 1]
        if np.mean(inside == 0) > 0.25:
            said.append("its levels were pulled apart: switch automatic levels off")
    if np.mean(values >= largest) > 0.3 and np.mean(values <= 0) > 0.01:
        said.append("both ends are cut off: scan it flatter")
    return tuple(said)

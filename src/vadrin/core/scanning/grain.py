"""Grain from a scan whose sampling is known.

RMS granularity is 1000 times the standard deviation of density through a round opening of 48 um
(ISO 10505); a scan sees it where each pixel is much smaller than that.
"""

from __future__ import annotations

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.scanning.calibration import ScanCalibration

APERTURE_UM = 48.0
_INCH_UM = 25_400.0
_LEAST_ACROSS, _LEAST_SPOTS = 2.0, 24


def rms_granularity(patch: Array, calibration: ScanCalibration, per_inch: float) -> float | None:
    """1000 times the standard deviation of density through 48 um.

    Parameters
    ----------
    patch : ndarray, shape (h, w)
        Values of an even patch.
    calibration : ScanCalibration
    per_inch : float
        Pixels an inch of film.

    Returns
    -------
    float or None
        None where a pixel is too large for the opening, or the patch too small.
    """
    across = APERTURE_UM / (_INCH_UM / per_inch)
    side = round(across * np.sqrt(np.pi) / 2)
    if across < _LEAST_ACROSS or side < 1:
        return None
    rows, columns = (n // side for n in patch.shape)
    if rows * columns < _LEAST_SPOTS:
        return None
    cut = np.asarray(patch, dtype=np.float64)[: rows * side, : columns * side]
    # A square of the opening's area stands for the circle.
    spots = calibration.density(cut.reshape(rows, side, columns, side).mean(axis=(1, 3))).ravel()
    spots = spots[np.isfinite(spots)]
    if len(spots) < _LEAST_SPOTS:
        return None
    middle = float(np.median(spots))
    scatter = 1.4826 * float(np.median(np.abs(spots - middle)))
    even = spots[np.abs(spots - middle) <= 4.5 * max(scatter, 1e-6)]
    return 1000.0 * float(even.std(ddof=1))

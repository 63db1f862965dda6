"""Density from spectra and from colour values."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

_WAVELENGTHS = np.arange(380.0, 781.0, 10.0)
_EYE = np.array(
    [
        0.0000,
        0.0001,
        0.0004,
        0.0012,
        0.0040,
        0.0116,
        0.0230,
        0.0380,
        0.0600,
        0.0910,
        0.1390,
        0.2080,
        0.3230,
        0.5030,
        0.7100,
        0.8620,
        0.9540,
        0.9950,
        0.9950,
        0.9520,
        0.8700,
        0.7570,
        0.6310,
        0.5030,
        0.3810,
        0.2650,
        0.1750,
        0.1070,
        0.0610,
        0.0320,
        0.0170,
        0.0082,
        0.0041,
        0.0021,
        0.0010,
        0.0005,
        0.0002,
        0.0001,
        0.0001,
        0.0000,
        0.0000,
    ]
)
_LAMP_KELVIN = 2856.0
_SECOND_RADIATION = 1.4388e7
_FAINTEST = 1e-6


def visual_density(
    wavelengths: NDArray[np.float64], transmittance: NDArray[np.float64]
) -> NDArray[np.float64]:
    """Visual transmission density of measured spectra.

    Parameters
    ----------
    wavelengths : array, shape (m,), nm, rising
    transmittance : array, shape (..., m)
        Shares of 1.

    Returns
    -------
    array, shape (...)
        −lg of the transmittance weighted by the eye and illuminant A.

    Raises
    ------
    ValueError
        If the spectra do not reach from 450 to 650 nm.

    Notes
    -----
    Weighting of ISO visual density (ISO 5-3): CIE luminous efficiency times illuminant A, here
    at 10 nm with Planck's law for the lamp.
    """
    if wavelengths[0] > 450 or wavelengths[-1] < 650:
        raise ValueError("the spectra must reach from 450 to 650 nm")
    lamp = wavelengths**-5.0 / np.expm1(_SECOND_RADIATION / (wavelengths * _LAMP_KELVIN))
    weight = np.interp(wavelengths, _WAVELENGTHS, _EYE, 0.0, 0.0) * lamp
    weight = weight * np.gradient(wavelengths)
    light = transmittance @ weight / weight.sum()
    return np.asarray(-np.log10(np.maximum(light, _FAINTEST)), dtype=np.float64)


def density_of_luminance(y: float) -> float:
    """Density of a CIE luminance Y as a share of 1: −lg Y.

    Raises
    ------
    ValueError
        If there is no light at all.
    """
    if not y > 0:
        raise ValueError("no light, no density")
    return float(-np.log10(y))


def luminance_of_lightness(lightness: float) -> float:
    """CIE luminance Y as a share of 1, from lightness L* (CIE 15)."""
    f = (lightness + 16.0) / 116.0
    return f**3 if f > 6 / 29 else 3 * (6 / 29) ** 2 * (f - 4 / 29)

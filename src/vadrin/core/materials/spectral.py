"""Density from spectra and from colour values."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

_WAVELENGTHS = np.arange(380.0, 781.0, 10.0)
_EYE = np.array([
    .0000, .0001, .0004, .0012, .0040, .0116, .0230, .0380, .0600, .0910, .1390, .2080, .3230,
    .5030, .7100, .8620, .9540, .9950, .9950, .9520, .8700, .7570, .6310, .5030, .3810, .2650,
    .1750, .1070, .0610, .0320, .0170, .0082, .0041, .0021, .0010, .0005, .0002, .0001, .0001,
    .0000, .0000,
])  # fmt: skip
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

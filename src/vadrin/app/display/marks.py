"""Marks on dials in words: EIs, shutter times, apertures, stops."""

from __future__ import annotations

from vadrin.core.exposure.arithmetic import exact_aperture, marked_ei, stops_counted, stops_text
from vadrin.core.exposure.shutter_dial import shutter_mark, shutter_name

__all__ = [
    "aperture_mark",
    "aperture_name",
    "marked_ei",
    "shutter_mark",
    "shutter_name",
    "stops_counted",
    "stops_text",
]

_APERTURES = (
    1.0,
    1.2,
    1.4,
    1.8,
    2,
    2.4,
    2.8,
    3.5,
    4,
    4.8,
    5.6,
    6.7,
    8,
    9.5,
    11,
    13,
    16,
    19,
    22,
    27,
    32,
    45,
    64,
)


def aperture_name(f_number: float) -> str:
    """The mark nearest an exact f-number."""
    near = min(_APERTURES, key=lambda m: abs(exact_aperture(m) - f_number))
    shown = near if abs(exact_aperture(near) / f_number - 1) < 0.035 else round(f_number, 1)
    return f"f/{shown:g}"


def aperture_mark(f_number: float) -> str:
    """The mark nearest an f-number, marked or exact."""
    return aperture_name(exact_aperture(f_number))

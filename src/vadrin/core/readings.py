"""Readings of a film test as plain data."""

from __future__ import annotations

from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from vadrin.core.restated_time import DEFAULT_Q10, REFERENCE_TEMPERATURE_C


@dataclass(frozen=True)
class Reading:
    """One density reading of one frame.

    Attributes
    ----------
    frame : str
        The frame's name on its strip.
    log_h : float or None
        Log exposure in lg lux seconds; None for a blank frame.
    density : float
        Transmission density; the middle of an interval where it was found between two steps.
    deviation : float
        Its own standard deviation, beside the noise of readings: of a scanned patch, or of an
        interval, its width over the square root of 12. 0 for what only the noise makes unsure.
    net : bool
        Whether the density counts from base plus fog: what an eye told beside a blank.
    """

    frame: str
    log_h: float | None
    density: float
    deviation: float = 0.0
    net: bool = False


@dataclass(frozen=True)
class StripReadings:
    """All readings of one strip in one channel.

    Attributes
    ----------
    label : str
    time_min : float or None
        Development time in minutes, as it was.
    temperature_c : float or None
        Temperature of the developer in degrees Celsius; None counts as the reference.
    readings : tuple of Reading
    channel : str
        ``visual``, ``red``, ``green``, ``blue`` or ``uv``.
    reference_c : float
        Temperature its time is restated at, in degrees Celsius.
    q10 : float
        How much faster its process goes for each 10 K warmer.
    material : str
        Which film in which chemistry; strips of one material follow one development model.
    scale_error : float
        Standard deviation, as a share, of an error of scale that its densities have in common
        with those of every other strip that has one; 0 for none.
    """

    label: str
    time_min: float | None
    temperature_c: float | None
    readings: tuple[Reading, ...]
    channel: str = "visual"
    material: str = ""
    reference_c: float = REFERENCE_TEMPERATURE_C
    q10: float = DEFAULT_Q10
    scale_error: float = 0.0

    def exposed(self) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
        """Log exposure and density of the exposed frames, each of shape (n,)."""
        pairs = [(r.log_h, r.density) for r in self._absolute()]
        table = np.array(pairs, dtype=np.float64).reshape(-1, 2)
        return table[:, 0], table[:, 1]

    def _absolute(self) -> list[Reading]:
        return [r for r in self.readings if r.log_h is not None and not r.net]

    def exposed_names(self) -> tuple[str, ...]:
        """Frame names in the order of `exposed`."""
        return tuple(r.frame for r in self._absolute())

    def blanks(self) -> NDArray[np.float64]:
        """Densities of the blank frames, shape (m,)."""
        return np.array([r.density for r in self.readings if r.log_h is None], dtype=np.float64)


@dataclass(frozen=True)
class Outlier:
    """A reading left out of a fit, with the reason in words."""

    strip: str
    frame: str
    log_h: float
    density: float
    expected: float
    why: str = field(default="does not fit its neighbours")

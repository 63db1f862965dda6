"""What film lies under the stand-in of a densitometer: a practice film, or a typical one."""

from __future__ import annotations

from pathlib import Path

import numpy as np

from vadrin.app.loaded.loaded_test import LoadedFrame, LoadedStrip, LoadedTest
from vadrin.app.practice.practice_place import is_practice
from vadrin.app.practice.practised_film import density_under_aperture, world_of
from vadrin.core.simulation.film import densities, typical_film


def density_under(
    notebook: Path, loaded: LoadedTest, strip: LoadedStrip, frame: LoadedFrame
) -> float:
    """Density of a frame as the stand-in sees it.

    Raises
    ------
    EntryError
        Of a practice film: if the strip is not developed, or there is no film there.
    FormatError
        If the practice film was changed or is gone.
    """
    if is_practice(notebook):
        return density_under_aperture(notebook, loaded, strip, frame)
    at = frame.log_h(loaded.test.meter_constant)
    place = np.array([np.nan if at is None else at])
    film = typical_film(loaded.stock.box_speed)
    return float(densities(film, strip.minutes or 8.0, place)[0])


def unsteadiness(notebook: Path) -> tuple[float, float]:
    """Standard deviation of a reading, and how far the zero drifts with each."""
    if is_practice(notebook):
        world = world_of(notebook.parent)
        return world.noise, world.drift
    return 0.006, 0.0

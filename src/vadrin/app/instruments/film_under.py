"""What film lies under the stand-in of a densitometer: a practice film, or a typical one."""

from __future__ import annotations

from pathlib import Path

import numpy as np

from vadrin.app.loaded.loaded_test import LoadedFrame, LoadedStrip, LoadedTest
from vadrin.app.practice.practice_place import is_practice
from vadrin.app.practice.practised_film import densities_under_aperture, world_of
from vadrin.core.channels import Channel
from vadrin.core.simulation.film import densities, typical_film
from vadrin.notebook.records.kit import COLOUR_NEGATIVE

_MASK = {Channel.RED: 0.1, Channel.GREEN: 0.4, Channel.BLUE: 0.7}
"""What the orange mask of colour film adds to each layer."""


def densities_under(
    notebook: Path, loaded: LoadedTest, strip: LoadedStrip, frame: LoadedFrame
) -> dict[Channel, float]:
    """Densities of a frame as the stand-in sees it, by channel: three of colour film.

    Raises
    ------
    EntryError
        Of a practice film: if the strip is not developed, or there is no film there.
    FormatError
        If the practice film was changed or is gone.
    """
    if is_practice(notebook):
        return densities_under_aperture(notebook, loaded, strip, frame)
    at = frame.log_h(loaded.test.meter_constant)
    place = np.array([np.nan if at is None else at])
    film = typical_film(loaded.stock.box_speed)
    seen = float(densities(film, strip.minutes or 8.0, place)[0])
    if loaded.stock.kind == COLOUR_NEGATIVE:
        return {channel: seen + mask for channel, mask in _MASK.items()}
    return {Channel.VISUAL: seen}


def unsteadiness(notebook: Path) -> tuple[float, float]:
    """Standard deviation of a reading, and how far the zero drifts with each."""
    if is_practice(notebook):
        world = world_of(notebook.parent)
        return world.noise, world.drift
    return 0.006, 0.0

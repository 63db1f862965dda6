"""The EI a frame of a bracket stands for, and how sure a bracket makes it."""

from __future__ import annotations

from vadrin.app.loaded.loaded_test import LoadedFrame
from vadrin.core.figure import Figure


def index_of(frame: LoadedFrame) -> float | None:
    """The EI a frame stands for: what the meter was set to, less the stops it was off by."""
    if frame.frame.exposure_index is None:
        return None
    return float(frame.frame.exposure_index / 2.0 ** (frame.frame.stops or 0.0))


def within_half_a_step(index: float, step: float | None) -> Figure:
    """An EI that a bracket tells by its frames: half a step to each side."""
    half = 2.0 ** (0.5 * (step or 1.0))
    return Figure(index, index / half, index * half)

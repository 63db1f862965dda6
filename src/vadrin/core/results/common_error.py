"""An error that all readings of a test share, put into the ranges of everything found from them.

What was read off pictures by one wedge is too steep or too flat as a whole: no number of frames
makes that smaller, and it is no noise from frame to frame. The test is worked out once more with
all such densities a standard deviation greater; how far each figure moves goes into its range.
"""

from __future__ import annotations

from dataclasses import fields, is_dataclass, replace
from typing import Any

import numpy as np

from vadrin.core.figure import Figure
from vadrin.core.readings import StripReadings

SCAN_SCALE = 0.02
"""Standard deviation of the scale of densities read by a wedge in the picture, as a share: more
light is scattered over a small wedge on bare glass than over film that fills its row."""
_WIDE = 1.96
_UNTOUCHED = ("settings", "family", "diagnostics", "next_steps", "noise", "curve")


def shared_error(strips: tuple[StripReadings, ...]) -> float:
    """Standard deviation of the scale that the densities of a test share; 0 for none."""
    return max((s.scale_error for s in strips), default=0.0)


def moved_by(strips: tuple[StripReadings, ...]) -> tuple[StripReadings, ...]:
    """The readings, those that share an error of scale greater by its standard deviation."""
    return tuple(
        replace(
            strip,
            scale_error=0.0,
            readings=tuple(
                replace(r, density=r.density * (1.0 + strip.scale_error)) for r in strip.readings
            ),
        )
        for strip in strips
    )


def widened(told: Any, moved: Any) -> Any:
    """What was found, each figure's range as wide as its move asks for besides.

    Parameters
    ----------
    told, moved : Analysis, or any part of one
        As read, and with the readings moved by a standard deviation of what they share.
    """
    if isinstance(told, Figure):
        return _wider(told, moved) if isinstance(moved, Figure) else told
    if isinstance(told, dict) and isinstance(moved, dict):
        return {k: widened(v, moved.get(k)) for k, v in told.items()}
    if isinstance(told, tuple) and isinstance(moved, tuple) and len(told) == len(moved):
        return tuple(widened(a, b) for a, b in zip(told, moved, strict=True))
    if is_dataclass(told) and not isinstance(told, type) and type(told) is type(moved):
        changed = {
            f.name: widened(getattr(told, f.name), getattr(moved, f.name))
            for f in fields(told)
            if f.init and f.name not in _UNTOUCHED
        }
        return replace(told, **changed)
    return told


def _wider(told: Figure, moved: Figure) -> Figure:
    if None in (told.value, told.low, told.high) or moved.value is None:
        return told
    value = told.known()
    more = _WIDE * (moved.value - value)
    low, high = (
        float(np.hypot(value - (told.low or 0.0), more)),
        float(np.hypot((told.high or 0.0) - value, more)),
    )
    if value > 0 and low >= value > (told.low or 0.0) > 0:
        # A time or an EI stays above 0: it goes by ratios.
        ratio = np.hypot(np.log(value / (told.low or value)), np.log1p(abs(more) / value))
        return replace(told, low=value / float(np.exp(ratio)), high=value + high)
    return replace(told, low=value - low, high=value + high)

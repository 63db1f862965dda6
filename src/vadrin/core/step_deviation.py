"""How sure a density is that was found between two steps of a wedge."""

from __future__ import annotations


def step_deviation(low: float, high: float) -> float:
    """Standard deviation of what lies anywhere between two densities alike (uniform)."""
    return abs(high - low) / 12**0.5

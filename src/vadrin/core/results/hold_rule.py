"""What a push holds when its time is measured."""

from __future__ import annotations

from enum import StrEnum

HIGHLIGHT_STOPS = 3.0
"""The highlight density in a push lies this far above the meter point."""


class HoldRule(StrEnum):
    """What a push holds when its time is measured; the value is its name in reports."""

    MIDTONE = "hold_midtone"
    HIGHLIGHT = "hold_highlight"

    @property
    def stops_above_meter(self) -> float:
        """Stops above the meter point whose density is held."""
        return HIGHLIGHT_STOPS if self is HoldRule.HIGHLIGHT else 0.0

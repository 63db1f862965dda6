"""Minutes of development in words, as a clock shows them."""

from __future__ import annotations


def minutes_text(minutes: float, exact: bool = False) -> str:
    """Minutes as 7:50, to the nearest five seconds from two minutes on unless exact."""
    grain = 5 if minutes >= 2 and not exact else 1
    seconds = round(minutes * 60 / grain) * grain
    return f"{seconds // 60}:{seconds % 60:02d}"


def minutes_brief(minutes: float) -> str:
    """Minutes as they are typed: ``8``, ``7:50``."""
    return minutes_text(minutes, exact=True).removesuffix(":00")

"""Times, EIs and losses in the words of the field."""

from __future__ import annotations

import math

from vadrin.core.exposure.arithmetic import (
    STOP,
    marked_ei,
    nearest_third,
    stops_counted,
    stops_text,
)
from vadrin.core.figure import Figure
from vadrin.core.process.minutes import minutes_brief, minutes_text

__all__ = [
    "ei_range_text",
    "ei_stops_text",
    "minutes_brief",
    "minutes_range_text",
    "minutes_text",
    "neutral_density_text",
    "push_name",
    "shadow_detail_text",
    "times_tested_text",
]


def minutes_range_text(figure: Figure) -> str:
    """The interval of a time: ``7:25 to 8:15``; empty where there is none."""
    if figure.low is None or figure.high is None:
        return ""
    return f"{minutes_text(figure.low)} to {minutes_text(figure.high)}"


def times_tested_text(shortest: float, longest: float) -> str:
    """``7:00 to 14:00 min tested``, or the one time there was."""
    low, high = minutes_text(shortest), minutes_text(longest)
    return f"{low} min tested" if low == high else f"{low} to {high} min tested"


def ei_range_text(figure: Figure) -> str:
    """The marked EIs an interval reaches: ``64 to 100``; empty where there is none."""
    if figure.low is None or figure.high is None:
        return ""
    low, high = marked_ei(figure.low), marked_ei(figure.high)
    return f"between {low} and {high}" if low != high else f"{low} to the nearest third of a stop"


def ei_stops_text(figure: Figure) -> str:
    """Half the width of an EI's interval, as plus or minus stops."""
    if figure.low is None or figure.high is None:
        return ""
    half = 0.5 * math.log2(figure.high / figure.low)
    return f"± {max(half, 0.01):.2f} stop"


def shadow_detail_text(stops: float) -> str:
    """Stops of shadow lost as what is left, in thirds: ``no change``, ``−⅔ stop``, ``+⅓ stop``."""
    thirds = nearest_third(stops)
    if thirds == 0:
        return "no change"
    return f"{'−' if thirds > 0 else '+'}{stops_counted(thirds)}"


def neutral_density_text(stops: float) -> str:
    """A neutral density as it is sold, and in stops: ``neutral density of 0.9 (3 stops)``."""
    return f"neutral density of {stops * STOP:.1f} ({stops_counted(stops)})"


def push_name(stops: float) -> str:
    """``normal``, ``push 1`` or ``pull 1``."""
    if stops == 0:
        return "normal"
    return f"{'push' if stops > 0 else 'pull'} {stops_text(abs(stops))}"

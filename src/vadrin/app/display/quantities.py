"""Numbers in the words of the field, and numbers typed back."""

from __future__ import annotations

import math
import re
from datetime import datetime

from vadrin.core.exposure.arithmetic import marked_ei, nearest_third, stops_text
from vadrin.core.figure import Figure


def minutes_text(minutes: float, exact: bool = False) -> str:
    """Minutes as 7:50, to the nearest five seconds from two minutes on unless exact."""
    grain = 5 if minutes >= 2 and not exact else 1
    seconds = round(minutes * 60 / grain) * grain
    return f"{seconds // 60}:{seconds % 60:02d}"


def minutes_range_text(figure: Figure) -> str:
    """The interval of a time: ``7:25 to 8:15``; empty where there is none."""
    if figure.low is None or figure.high is None:
        return ""
    return f"{minutes_text(figure.low)} to {minutes_text(figure.high)}"


def ei_range_text(figure: Figure) -> str:
    """The marked EIs an interval reaches: ``64 to 100``; empty where there is none."""
    if figure.low is None or figure.high is None:
        return ""
    low, high = marked_ei(figure.low), marked_ei(figure.high)
    return f"between {low} and {high}" if low != high else f"{low}, sure to a third of a stop"


def ei_stops_text(figure: Figure) -> str:
    """Half the width of an EI's interval, as plus or minus stops."""
    if figure.low is None or figure.high is None:
        return ""
    half = 0.5 * math.log2(figure.high / figure.low)
    return f"± {max(half, 0.01):.2f} stop"


def loss_text(stops: float) -> str:
    """Stops of shadow lost, in thirds: ``none``, ``⅔ stop``, ``gained ⅓``."""
    thirds = nearest_third(stops)
    if thirds == 0:
        return "none"
    if thirds < 0:
        return f"gains {stops_text(-thirds)}"
    return f"{stops_text(thirds)} stop{'s' if thirds > 1 else ''}"


def push_name(stops: float) -> str:
    """``normal``, ``push 1`` or ``pull 1``."""
    if stops == 0:
        return "normal"
    return f"{'push' if stops > 0 else 'pull'} {stops_text(abs(stops))}"


def date_text(moment: str) -> str:
    """A stored moment as a date; empty stays empty."""
    return datetime.fromisoformat(moment).strftime("%Y-%m-%d") if moment else ""


def number_typed(text: str) -> float:
    """A number as people type it: decimal comma, true minus, fractions ⅓ ½ ⅔.

    Raises
    ------
    ValueError
        With words for the person who typed it.
    """
    plain = text.strip().replace(",", ".").replace("−", "-")
    sign = -1.0 if plain.startswith("-") else 1.0
    parts = {"⅓": 1 / 3, "½": 0.5, "⅔": 2 / 3, "1/3": 1 / 3, "1/2": 0.5, "2/3": 2 / 3}
    part = 0.0
    for glyph, share in parts.items():
        if plain.endswith(glyph):
            plain, part = plain[: -len(glyph)].strip(), share
            break
    try:
        whole = float(plain) if plain not in ("", "-", "+") else (0.0 if part else math.nan)
    except ValueError:
        whole = math.nan
    if not math.isfinite(whole):
        raise ValueError(f"“{text.strip()}” is not a number; type one such as 0.49 or 0,49")
    return whole + sign * part


def minutes_typed(text: str) -> float:
    """Minutes as people type them: ``8``, ``8.5``, ``8,5``, ``7:50``, ``7 min 50 s``.

    Raises
    ------
    ValueError
        With words for the person who typed it.
    """
    clock = re.fullmatch(r"\s*(\d+)\s*(?::|min)\s*(\d{1,2})\s*s?\s*", text)
    if clock:
        minutes = int(clock[1]) + int(clock[2]) / 60
    else:
        minutes = number_typed(re.sub(r"\s*min(utes)?\s*$", "", text))
    if not 0 < minutes <= 600:
        raise ValueError("a development time lies above 0 and up to 600 minutes")
    return minutes


def times_typed(text: str) -> tuple[float, ...]:
    """Several times: ``6, 8, 11 and 15``, ``6; 8,5; 11`` or ``6,8,11``.

    A comma before a space parts two times; a comma inside a word is a decimal comma, unless
    there is no space at all.

    Raises
    ------
    ValueError
        With words for the person who typed it.
    """
    plain = re.sub(r"\b(and|min)\b", " ", text).strip()
    if re.search(r"[;\s]", plain):
        pieces = re.split(r"[;\s]+", plain)
    elif plain.count(",") == 1:
        raise ValueError(
            f"“{plain}”: two times, or one? Put a space after the comma for two, or write "
            f"{plain.replace(',', '.')} for one"
        )
    else:
        pieces = plain.split(",")
    times = tuple(minutes_typed(piece.strip(",")) for piece in pieces if piece.strip(","))
    if not times:
        raise ValueError("type at least one time, such as 6, 8, 11, 15")
    return times


def age_text(moment: str, now: datetime) -> str:
    """How long ago a stored moment was: ``today``, ``5 days``, ``3 months``, ``2 years``."""
    if not moment:
        return ""
    days = (now.date() - datetime.fromisoformat(moment).date()).days
    if days <= 0:
        return "today"
    for size, name in ((365, "year"), (30, "month"), (1, "day")):
        if days >= size:
            count = days // size
            return f"{count} {name}{'s' if count != 1 else ''}"
    return ""


def list_text(words: list[str]) -> str:
    """``a``, ``a and b``, ``a, b and c``."""
    if len(words) < 2:
        return "".join(words)
    return f"{', '.join(words[:-1])} and {words[-1]}"

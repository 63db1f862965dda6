"""Lists, counts and dates in words."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime


def list_text(words: Sequence[str]) -> str:
    """``a``, ``a and b``, ``a, b and c``."""
    if len(words) < 2:
        return "".join(words)
    return f"{', '.join(words[:-1])} and {words[-1]}"


def counted(count: int, noun: str) -> str:
    """``1 strip``, ``3 strips``."""
    return f"{count} {noun}{'' if count == 1 else 's'}"


def date_text(moment: str) -> str:
    """A stored moment as a date; empty stays empty."""
    return datetime.fromisoformat(moment).strftime("%Y-%m-%d") if moment else ""


def age_text(moment: str, now: datetime) -> str:
    """How long ago a stored moment was: ``today``, ``5 days``, ``3 months``, ``2 years``."""
    if not moment:
        return ""
    days = (now.date() - datetime.fromisoformat(moment).date()).days
    if days <= 0:
        return "today"
    for size, name in ((365, "year"), (30, "month"), (1, "day")):
        if days >= size:
            return counted(days // size, name)
    return ""

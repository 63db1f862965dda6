"""Lists, counts and dates in words."""

from __future__ import annotations

from datetime import datetime

from vadrin.core.wording import counted, list_text

__all__ = ["age_text", "counted", "date_text", "list_text"]


def date_text(moment: str) -> str:
    """A stored moment as a date; empty stays empty."""
    return datetime.fromisoformat(moment).strftime("%Y-%m-%d") if moment else ""


def age_text(moment: str, now: datetime) -> str:
    """How long ago a stored moment was: ``today``, ``5 days ago``, ``2 years ago``."""
    if not moment:
        return ""
    days = (now.date() - datetime.fromisoformat(moment).date()).days
    if days <= 0:
        return "today"
    for size, name in ((365, "year"), (30, "month"), (1, "day")):
        if days >= size:
            return f"{counted(days // size, name)} ago"
    return ""


def capital(words: str) -> str:
    """Words as a sentence begins with them."""
    return words[:1].upper() + words[1:]

"""Lists and counts in words."""

from __future__ import annotations

from collections.abc import Sequence


def list_text(words: Sequence[str]) -> str:
    """``a``, ``a and b``, ``a, b and c``."""
    if len(words) < 2:
        return "".join(words)
    return f"{', '.join(words[:-1])} and {words[-1]}"


def counted(count: int, noun: str) -> str:
    """``1 strip``, ``3 strips``, ``2 batches``."""
    if count == 1:
        return f"1 {noun}"
    return f"{count} {noun}{'es' if noun.endswith(('s', 'ch', 'sh')) else 's'}"

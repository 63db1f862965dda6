"""Names of the patches of a chart, in the order a picture is pointed at."""

from __future__ import annotations

from vadrin.errors import EntryError

USUAL_NAMES: tuple[str, ...] = ("red", "green", "blue", "cyan", "magenta", "yellow", "grey")
_MOST_NAMES = 48


def names_typed(words: str) -> tuple[str, ...]:
    """Names of patches in their order: ``red green`` or, with spaces in them, by commas.

    Raises
    ------
    EntryError
    """
    parts = words.split(",") if "," in words else words.split()
    names = tuple(" ".join(p.lower().split()) for p in parts if p.strip())
    if not names or len(names) > _MOST_NAMES or len(set(names)) < len(names):
        raise EntryError(
            f"name the patches in their order, each once and {_MOST_NAMES} at most: red green blue"
        )
    return names


def names_shown(names: tuple[str, ...]) -> str:
    """As they would be typed."""
    return (", " if any(" " in name for name in names) else " ").join(names)

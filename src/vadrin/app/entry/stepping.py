"""Stepping a word by the arrow keys: the next of a list, a little more, a little less."""

from __future__ import annotations

from collections.abc import Callable, Iterable

StepWord = Callable[[str, int], str]
"""Takes the shown text and +1 or -1, returns the next text."""


def chooser(choices: Iterable[str] | Callable[[], Iterable[str]]) -> StepWord:
    """Step round a list as it is read: the arrow down goes on, the arrow up goes back."""

    def step(shown: str, way: int) -> str:
        known = list(choices() if callable(choices) else choices)
        if shown not in known:
            return known[0] if known else shown
        return known[(known.index(shown) - way) % len(known)]

    return step

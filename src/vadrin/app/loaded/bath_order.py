"""The order in which film goes through the baths of a process."""

from __future__ import annotations

from collections.abc import Iterable

from vadrin.notebook.records import ProcessStep


def in_order(steps: Iterable[ProcessStep]) -> tuple[ProcessStep, ...]:
    """Steps as they are gone through."""
    return tuple(sorted(steps, key=lambda s: (s.position, s.id)))

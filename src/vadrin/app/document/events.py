"""Typed events for listeners that know what they listen to."""

from __future__ import annotations

from collections.abc import Callable
from typing import Generic, TypeVar

T = TypeVar("T")


class Event(Generic[T]):
    """Calls every listener with one typed value."""

    def __init__(self) -> None:
        self._listeners: list[Callable[[T], None]] = []

    def connect(self, listener: Callable[[T], None]) -> None:
        """Call a listener at every emit from now on."""
        self._listeners.append(listener)

    def emit(self, value: T) -> None:
        """Call the listeners in the order they came."""
        for listener in self._listeners:
            listener(value)

"""Rows of the kit kept in memory: a plan asks for its camera and film at every key.

Only one program writes a notebook at a time, so that what it read stays true until it writes.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, TypeVar

from vadrin.notebook.records import KIT

T = TypeVar("T")
_MOST = 400


class RowCache:
    """Answers to questions about the kit, until a record of that kind is written.

    Parameters
    ----------
    trusted : bool
        Whether nobody else may write; if not, nothing is kept.
    """

    def __init__(self, trusted: bool) -> None:
        self._trusted = trusted
        self._rows: dict[type[Any], dict[tuple[tuple[str, Any], ...], list[Any]]] = {}

    def answer(self, kind: type[T], where: dict[str, Any], read: Callable[[], list[T]]) -> list[T]:
        """The kept answer, or the one that is read now."""
        if not self._trusted or kind not in KIT:
            return read()
        kept = self._rows.setdefault(kind, {})
        key = tuple(sorted(where.items()))
        if key not in kept:
            if len(kept) >= _MOST:
                kept.clear()
            kept[key] = read()
        return list(kept[key])

    def forget(self, kind: type[Any] | None = None) -> None:
        """Let go of what is known of a kind that is written, or of all."""
        if kind is None:
            self._rows.clear()
        else:
            self._rows.pop(kind, None)

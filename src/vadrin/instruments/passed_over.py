"""Lines that were heard and say nothing: counted, and the newest kept to be shown."""

from __future__ import annotations

from vadrin.core.wording import counted


class PassedOver:
    """What did not become a reading since it was last told."""

    def __init__(self) -> None:
        self._newest, self._count = "", 0

    def add(self, words: str, count: int = 1) -> None:
        """Count a line, or what else was passed over."""
        self._newest = words
        self._count += count

    def take(self) -> str:
        """What there is to tell, once; empty for nothing."""
        newest, count = self._newest, self._count
        self._newest, self._count = "", 0
        more = f" ({counted(count, 'line')} passed over)" if count > 1 else ""
        return f"{newest}{more}" if count else ""

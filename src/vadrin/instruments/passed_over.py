"""Lines that were heard and say nothing: counted, and the newest kept to be shown."""

from __future__ import annotations

import threading

from vadrin.core.wording import counted


class PassedOver:
    """What did not become a reading since it was last told; heard and told on two threads."""

    def __init__(self) -> None:
        self._newest, self._count = "", 0
        self._both = threading.Lock()

    def add(self, words: str) -> None:
        """Count a line, or what else was passed over."""
        with self._both:
            self._newest = words
            self._count += 1

    def take(self) -> str:
        """What there is to tell, once; empty for nothing."""
        with self._both:
            newest, count = self._newest, self._count
            self._newest, self._count = "", 0
        more = f" ({counted(count, 'line')} passed over)" if count > 1 else ""
        return f"{newest}{more}" if count else ""

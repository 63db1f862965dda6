"""How long the window takes to show what a key or a click does."""

from __future__ import annotations

import time
from collections.abc import Callable
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from vadrin.ui.frame.window import Window

GOAL_MS = 100.0


def settle(window: Window) -> None:
    """Wait for what is worked out beside the window."""
    from PyQt6.QtWidgets import QApplication

    QApplication.processEvents()
    window.jobs.wait()
    QApplication.processEvents()


def timed(act: Callable[[], object]) -> float:
    """Milliseconds until an act can be seen: what it changes is painted as the events are."""
    from PyQt6.QtWidgets import QApplication

    begun = time.perf_counter()
    act()
    QApplication.processEvents()
    return 1000 * (time.perf_counter() - begun)

"""How long the window takes to show what a key or a click does."""

from __future__ import annotations

import time
from collections.abc import Callable
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from vadrin.ui.frame.window import Window

GOAL_MS = 100.0
_TURNS = 3
"""What is told in one is asked for in the next, and painted in the one after."""


def settle(window: Window) -> None:
    """Wait for what is worked out beside the window, and until all of it is painted."""
    from PyQt6.QtWidgets import QApplication

    for _ in range(_TURNS):
        QApplication.processEvents()
        window.jobs.wait()
    QApplication.processEvents()


def warm(window: Window) -> None:
    """Load what the window loads behind its first picture, and wait for it."""
    from PyQt6.QtWidgets import QApplication

    from vadrin.app.document.stations import PLACES
    from vadrin.ui.frame.warm_up import warm_up

    warm_up(window.jobs, window.bench, window.pages.make_ahead)
    while len(window.pages.made) < len(PLACES):
        QApplication.processEvents()
        time.sleep(0.005)


def timed(act: Callable[[], object]) -> float:
    """Milliseconds until an act can be seen: what it changes is painted as the events are."""
    from PyQt6.QtWidgets import QApplication

    begun = time.perf_counter()
    act()
    QApplication.processEvents()
    return 1000 * (time.perf_counter() - begun)

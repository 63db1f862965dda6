"""Where the keyboard goes when what lay over the window is closed."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6 import sip
from PyQt6.QtWidgets import QApplication, QWidget


class KeyboardBefore:
    """Remembers what had the keyboard, and gives it back if that can still be seen.

    Parameters
    ----------
    otherwise : callable
        Puts the keyboard where the work begins, where what had it is gone or hidden.
    """

    def __init__(self, otherwise: Callable[[], object]) -> None:
        self._otherwise = otherwise
        self._before: QWidget | None = None

    def remember(self) -> None:
        """What has the keyboard now will get it back."""
        self._before = QApplication.focusWidget()

    def give_back(self) -> None:
        """Give it back."""
        before, self._before = self._before, None
        if before is not None and not sip.isdeleted(before) and before.isVisible():
            before.setFocus()
        else:
            self._otherwise()

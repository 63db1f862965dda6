"""What is copied out of the program."""

from __future__ import annotations

from PyQt6.QtGui import QGuiApplication

from vadrin.app.display.region import local


def put_on_clipboard(words: str) -> None:
    """Put words where other programs take them from, as they are shown; nothing where there are
    none."""
    clipboard = QGuiApplication.clipboard()
    if clipboard is not None and words:
        clipboard.setText(local(words))

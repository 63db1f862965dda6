"""What is copied out of the program."""

from __future__ import annotations

from PyQt6.QtGui import QGuiApplication


def put_on_clipboard(words: str) -> None:
    """Put words where other programs take them from; nothing where there are none."""
    clipboard = QGuiApplication.clipboard()
    if clipboard is not None and words:
        clipboard.setText(words)

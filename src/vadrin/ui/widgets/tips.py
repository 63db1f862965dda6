"""Tool tips that say what they are given, letter by letter."""

from __future__ import annotations

import html

from PyQt6.QtWidgets import QWidget

from vadrin.app.display.region import local


def plain_tip(words: str) -> str:
    """Words for a tool tip; what looks like markup is shown, not obeyed.

    Qt guesses whether a tip is markup, and markup may open pictures from anywhere.
    """
    words = local(words)
    if "<" not in words:
        return words
    return f"<qt>{html.escape(words)}</qt>".replace("\n", "<br>")


def set_tip(widget: QWidget, words: str) -> None:
    """Give a widget a tool tip of plain words."""
    widget.setToolTip(plain_tip(words))

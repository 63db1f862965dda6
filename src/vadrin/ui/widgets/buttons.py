"""Push buttons: plain, primary, or looking like text."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtWidgets import QPushButton

from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import role_font


def button(
    words: str, act: Callable[[], object], primary: bool = False, link: bool = False
) -> QPushButton:
    """A push button; the primary one is filled, a link looks like text."""
    made = QPushButton(words)
    made.setFont(role_font(Role.LEAD if primary else Role.BODY))
    if primary:
        made.setProperty("primary", "true")
    if link:
        made.setProperty("link", "true")
    made.clicked.connect(lambda: act())
    return made

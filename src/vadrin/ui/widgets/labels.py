"""Labels by their role, and hairlines."""

from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QFrame, QLabel

from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import font


def text(words: str = "", role: Role = Role.BODY, wrap: bool = False, bold: bool = False,
         tone: str | None = None) -> QLabel:  # fmt: skip
    """A label.

    Parameters
    ----------
    words : str
    role : Role
    wrap : bool
    bold : bool
        Heavier than its role is, to stand out among its like.
    tone : str, optional
        Another tone than the role's.
    """
    label = QLabel(words)
    label.setFont(font(role.size, 700 if bold else role.weight))
    label.setProperty("tone", role.tone if tone is None else tone)
    label.setWordWrap(wrap)
    label.setTextFormat(Qt.TextFormat.PlainText)
    return label


def rule() -> QFrame:
    """A hairline."""
    line = QFrame()
    line.setProperty("rule", "true")
    line.setFixedHeight(1)
    return line

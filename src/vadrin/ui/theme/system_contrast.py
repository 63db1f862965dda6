"""High contrast, where the desktop is set to it."""

from __future__ import annotations

from PyQt6.QtCore import QEvent, Qt
from PyQt6.QtGui import QAccessibilityHints, QGuiApplication

from vadrin.ui.theme.look import LOOKS, Look, with_more_contrast

THEME_CHANGE = QEvent.Type(210)
"""The desktop's theme is another (QEvent::ThemeChange, which PyQt has no name for)."""


def _hints() -> QAccessibilityHints | None:
    style = QGuiApplication.styleHints()
    return style.accessibility() if style is not None else None


def by_system(look: Look) -> Look:
    """The look as the desktop asks for it."""
    hints = _hints()
    high = Qt.ContrastPreference.HighContrast
    if hints is None or hints.contrastPreference() is not high:
        return plain_look(look)
    return with_more_contrast(plain_look(look))


def plain_look(look: Look) -> Look:
    """The look of the same name as it is without."""
    return next(known for known in LOOKS if known.name == look.name)


def look_after(look: Look) -> Look:
    """The next one when going round."""
    return LOOKS[(LOOKS.index(plain_look(look)) + 1) % len(LOOKS)]

"""The window as it was chosen last: its type, its look, and its place on the screen."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PyQt6.QtCore import QRect, Qt
from PyQt6.QtWidgets import QApplication

from vadrin.app.library.kept_choices import Choices
from vadrin.ui.theme import typeface
from vadrin.ui.theme.look import LOOKS

if TYPE_CHECKING:
    from vadrin.ui.frame.window import Window


def put_on_type(choices: Choices) -> None:
    """Set the size of type; before a window is made, which then has it from the beginning."""
    typeface.set_scale(choices.scale)


def put_window(window: Window, choices: Choices) -> None:
    """Give a window its look, and its place where that can still be seen."""
    look = next((known for known in LOOKS if known.name == choices.look), None)
    if look is not None and look is not window.look:
        window.set_look(look)
    if len(choices.place) == 4:
        place = QRect(*choices.place)
        screens = [screen.availableGeometry() for screen in QApplication.screens()]
        if any(screen.intersects(place) for screen in screens):
            window.setGeometry(place)
    if choices.whole_screen:
        window.setWindowState(window.windowState() | Qt.WindowState.WindowMaximized)


def chosen_of(window: Window) -> Choices:
    """What a window stands at."""
    place = window.normalGeometry() if window.isMaximized() else window.geometry()
    sides = (place.x(), place.y(), place.width(), place.height())
    return Choices(typeface.scale(), window.look.name, sides, window.isMaximized())

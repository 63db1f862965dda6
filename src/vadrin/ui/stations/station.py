"""What every station is to the window."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import TYPE_CHECKING

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QKeySequence, QShortcut
from PyQt6.QtWidgets import QVBoxLayout, QWidget

from vadrin.app.test_sheet import TestSheet
from vadrin.app.workbench import Workbench
from vadrin.ui.theme.look import Look
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.parts import text

if TYPE_CHECKING:
    from vadrin.core.results.analysis import Analysis


@dataclass(frozen=True)
class Scene:
    """Everything a station shows: the test, its answer, the selection and the look."""

    sheet: TestSheet | None
    analysis: Analysis | None
    frame_id: int | None
    look: Look


class Station(QWidget):
    """A station: it shows a scene and passes edits on to the workbench.

    Attributes
    ----------
    keys : tuple of (str, str)
        Shortcuts of this station: the key and what it does.
    aside : QWidget or None
        What stands in the finding's place as long as nothing is read.
    """

    keys: tuple[tuple[str, str], ...] = ()
    wants_finding = True

    def __init__(self, bench: Workbench) -> None:
        super().__init__()
        self.bench = bench
        self.aside: QWidget | None = None
        self.column = QVBoxLayout(self)
        self.column.setContentsMargins(px(14), px(12), px(16), px(12))
        self.column.setSpacing(px(8))
        self.refusal = text("", 13, tone="grease", wrap=True)
        self.refusal.hide()

    def bind(self, keys: str, act: Callable[[], object]) -> None:
        """Let a key do something while this station has the keyboard."""
        shortcut = QShortcut(QKeySequence(keys), self)
        shortcut.setContext(Qt.ShortcutContext.WidgetWithChildrenShortcut)
        shortcut.activated.connect(lambda: act())

    def show_scene(self, scene: Scene) -> None:
        """Show a scene."""
        raise NotImplementedError

    def take_focus(self) -> None:
        """Put the keyboard where the work begins."""
        self.setFocus()

    def refuse(self, words: str) -> None:
        """Say beside its cause why something typed was not taken; empty clears it."""
        self.refusal.setText(words)
        self.refusal.setVisible(bool(words))

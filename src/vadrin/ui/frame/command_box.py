"""Finding anything that can be done by typing a part of its words."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QKeyEvent, QPalette
from PyQt6.QtWidgets import QListWidget, QListWidgetItem, QVBoxLayout, QWidget

from vadrin.ui.actions import Action
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.item_views import ListLines, lay_flat
from vadrin.ui.widgets.keyboard import KeyboardBefore
from vadrin.ui.widgets.labels import text
from vadrin.ui.widgets.line_field import Field
from vadrin.ui.widgets.overlay import Overlay

_WIDTH, _HEIGHT, _TOP = 520, 380, 60


def actions_matching(actions: Sequence[Action], typed: str) -> list[Action]:
    """The actions whose words or keys hold every typed word, begun words first."""
    words = typed.lower().split()

    def holds(action: Action) -> bool:
        said = f"{action.title} {action.key_text}".lower()
        return all(word in said for word in words)

    def rank(action: Action) -> bool:
        return bool(words) and not action.title.lower().startswith(words[0])

    return sorted((a for a in actions if holds(a)), key=rank)


class CommandBox(Overlay):
    """A box over the window: type, pick by the arrow keys, Enter does it."""

    def __init__(self, parent: QWidget, otherwise: Callable[[], object]) -> None:
        super().__init__(parent)
        self._keyboard = KeyboardBefore(otherwise)
        self.setAccessibleName("commands")
        column = QVBoxLayout(self)
        column.setContentsMargins(px(14), px(12), px(14), px(12))
        self.field = Field()
        self.field.setAccessibleName("what to do")
        self.field.setPlaceholderText("what to do: type a part of it")
        self.field.textChanged.connect(self._list)
        self.found = QListWidget()
        self.found.setAccessibleName("what can be done")
        self.found.setItemDelegate(ListLines(self.found, QPalette.ColorRole.Window))
        lay_flat(self.found, QPalette.ColorRole.Base)
        self.found.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.found.itemClicked.connect(lambda _: self._run())
        self._none = text("Nothing that can be done here has these words.", Role.NOTE)
        for part in (self.field, self._none, self.found):
            column.addWidget(part)
        self._actions: Sequence[Action] = ()
        self._shown: list[Action] = []
        self.hide()

    def toggle(self, actions: Sequence[Action]) -> None:
        """Show what can be done, or hide it."""
        if self.isVisible():
            self.leave()
            return
        self._actions = actions
        self.field.setFont(role_font(Role.LARGE))
        self.found.setFont(role_font(Role.LEAD))
        self.field.clear()
        self._list("")
        parent = self.parentWidget()
        if parent is not None:
            width = min(px(_WIDTH), parent.width() - px(20))
            height = min(px(_HEIGHT), parent.height() - px(_TOP) - px(10))
            self.setGeometry((parent.width() - width) // 2, px(_TOP), width, height)
            self._keyboard.remember()
        self.show()
        self.raise_()
        self.field.setFocus()

    def leave(self) -> None:
        """Hide it and give the keyboard back."""
        self.hide()
        self._keyboard.give_back()

    def _list(self, typed: str) -> None:
        self._shown = actions_matching(self._actions, typed)
        self.found.clear()
        for action in self._shown:
            keys = f"    {action.key_text}" if action.key_text else ""
            words = action.title[:1].upper() + action.title[1:]
            QListWidgetItem(f"{words}{keys}", self.found)
        self.found.setCurrentRow(0)
        self._none.setVisible(not self._shown)

    def _run(self) -> None:
        row = self.found.currentRow()
        if 0 <= row < len(self._shown):
            self.leave()
            self._shown[row].act()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Arrow keys pick, Enter does it, Esc leaves."""
        if event is None:
            return
        moves = {Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1}
        if event.key() in moves and self._shown:
            row = self.found.currentRow() + moves[Qt.Key(event.key())]
            self.found.setCurrentRow(row % len(self._shown))
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self._run()
        elif event.key() == Qt.Key.Key_Escape:
            self.leave()
        else:
            super().keyPressEvent(event)

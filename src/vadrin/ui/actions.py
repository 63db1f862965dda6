"""Everything that can be done by a key, a menu or the command box, as one kind of object."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import partial

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QKeySequence, QShortcut
from PyQt6.QtWidgets import QWidget


def _at_any_time() -> bool:
    return True


def _do_nothing() -> None:
    return


@dataclass(frozen=True)
class Action:
    """One thing that can be done.

    Attributes
    ----------
    id : str
        Stable name, as in ``notebook.open``.
    words : str
        What it does, for menus, the key list and the command box.
    act : callable
    keys : tuple of str
        Key sequences that do it; the first is the one shown.
    menu : str
        The part of the File menu it stands in; empty for none.
    usable : callable
        Whether it can be done now.
    always : bool
        Its key does it even then, to say why not.
    shown_keys : str
        How its keys are written where a widget answers them by itself: ``↑ ↓``, ``Enter``.
    said : callable, optional
        Words that change with the state, instead of `words`.
    label : str
        A word for its button.
    """

    id: str
    words: str
    act: Callable[[], object] = _do_nothing
    keys: tuple[str, ...] = ()
    menu: str = ""
    usable: Callable[[], bool] = _at_any_time
    always: bool = False
    shown_keys: str = ""
    said: Callable[[], str] | None = None
    label: str = ""

    @property
    def title(self) -> str:
        """What it does, as things are now."""
        return self.said() if self.said else self.words

    @property
    def key_text(self) -> str:
        """Its keys as they are shown."""
        return self.shown_keys or (_shown(self.keys[0]) if self.keys else "")

    @property
    def can_be_run(self) -> bool:
        """Whether it is an act, not only a hint about keys."""
        return self.act is not _do_nothing


def hint(keys: str, words: str) -> Action:
    """A key that a widget answers by itself, told in the list of keys only."""
    return Action(f"hint.{keys}", words, shown_keys=keys)


def _shown(keys: str) -> str:
    return "Ctrl+−" if keys == "Ctrl+-" else keys.replace("Return", "Enter")


def bind(widget: QWidget, actions: tuple[Action, ...], within: bool) -> None:
    """Let the keys of actions do them.

    Parameters
    ----------
    widget : QWidget
    actions : tuple of Action
    within : bool
        Only while the widget, or a part of it, has the keyboard.
    """
    context = Qt.ShortcutContext.WidgetWithChildrenShortcut
    for action in actions:
        for keys in action.keys:
            shortcut = QShortcut(QKeySequence(keys), widget)
            shortcut.setAutoRepeat(False)
            if within:
                shortcut.setContext(context)
            shortcut.activated.connect(partial(_run, action))


def _run(action: Action) -> None:
    if action.always or action.usable():
        action.act()

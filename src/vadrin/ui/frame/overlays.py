"""What lies over the window for a while: the keys, the command box, the guide, a kept file."""

from __future__ import annotations

from collections.abc import Callable
from functools import cached_property

from PyQt6.QtWidgets import QWidget

from vadrin.ui.files.attachment_view import AttachmentView
from vadrin.ui.frame.command_box import CommandBox
from vadrin.ui.frame.guide_view import GuideView
from vadrin.ui.frame.shortcut_list import ShortcutList
from vadrin.ui.widgets.deleting import delete_now

_OVER = ("keys", "commands", "guide")


class Overlays:
    """Each is made the first time it is asked for.

    Parameters
    ----------
    body : QWidget
        What they lie over.
    give_back : callable
        Takes the keyboard when one of them goes.
    """

    def __init__(self, body: QWidget, give_back: Callable[[], None]) -> None:
        self._body, self._give_back = body, give_back

    @cached_property
    def keys(self) -> ShortcutList:
        """The list of keys."""
        return ShortcutList(self._body, self._give_back)

    @cached_property
    def commands(self) -> CommandBox:
        """The box that finds whatever can be done."""
        return CommandBox(self._body, self._give_back)

    @cached_property
    def guide(self) -> GuideView:
        """The guide."""
        return GuideView(self._body, self._give_back)

    @cached_property
    def kept_view(self) -> AttachmentView:
        """What a kept file is seen in."""
        return AttachmentView(self._body)

    def put_away(self) -> None:
        """Keys and commands belong to the station they were asked at."""
        for over in self._made():
            over.hide()

    def let_go(self) -> None:
        """They are made anew, in type of another size."""
        for name in _OVER:
            over = self.__dict__.pop(name, None)
            if over is not None:
                over.hide()
                delete_now(over)

    def _made(self) -> list[QWidget]:
        return [self.__dict__[name] for name in _OVER if name in self.__dict__]

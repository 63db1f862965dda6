"""The head of a station of several pages: a link to each, always in the same place."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QVBoxLayout, QWidget

from vadrin.ui.widgets.buttons import PlaceLink
from vadrin.ui.widgets.sentence import flowing


class PageLinks(QWidget):
    """The pages of a station in a fixed row, the present one marked.

    Parameters
    ----------
    links : dict of str to str
        Words of each page's link.
    turn_to : callable
        Takes the name of the page to show.
    """

    def __init__(self, links: dict[str, str], turn_to: Callable[[str], None]) -> None:
        super().__init__()
        self._kept_back: set[str] = set()
        self._links = {name: PlaceLink(words) for name, words in links.items()}
        for name, link in self._links.items():
            link.clicked.connect(partial(self._turn, turn_to, name))
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(flowing(*self._links.values(), gap=16))
        self._shown = ""

    @staticmethod
    def _turn(turn_to: Callable[[str], None], name: str, _checked: bool) -> None:
        turn_to(name)

    def offer(self, name: str, offered: bool) -> None:
        """Offer a page, or keep it back where nothing is done on it."""
        if offered == (name not in self._kept_back):
            return
        self._kept_back ^= {name}
        self._links[name].setVisible(offered)

    def show_page(self, name: str, question: str) -> None:
        """Mark a page as the present one; its question is said to who cannot see the mark."""
        self._shown = name
        self._mark()
        for each, link in self._links.items():
            link.setAccessibleDescription(question if each == name else "")
            # Tab passes over the page one is on already.
            here, there = Qt.FocusPolicy.ClickFocus, Qt.FocusPolicy.StrongFocus
            link.setFocusPolicy(here if each == name else there)

    def _mark(self) -> None:
        for each, link in self._links.items():
            link.show_here(each == self._shown)

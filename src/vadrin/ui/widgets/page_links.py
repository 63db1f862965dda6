"""The head of a station of several pages: its question, and a link to every other page."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from PyQt6.QtWidgets import QVBoxLayout, QWidget

from vadrin.ui.theme.roles import Role
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.labels import text
from vadrin.ui.widgets.sentence import flowing


class PageLinks(QWidget):
    """The question of the page that is shown, then the links, on as many lines as they take.

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
        self._shown = ""
        self._question = text("", Role.HEADING)
        self._links = {
            name: button(words, partial(turn_to, name), link=True) for name, words in links.items()
        }
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(flowing(self._question, *self._links.values(), gap=14))

    def offer(self, name: str, offered: bool) -> None:
        """Offer a page, or keep it back where nothing is done on it."""
        if offered == (name not in self._kept_back):
            return
        self._kept_back ^= {name}
        self._links[name].setVisible(offered and self._shown != name)

    def show_page(self, name: str, question: str) -> None:
        """Say the question of a page and offer the others."""
        self._shown = name
        self._question.setText(question)
        for each, link in self._links.items():
            link.setVisible(each != name and each not in self._kept_back)

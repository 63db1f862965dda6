"""A station of several pages: which of them is shown belongs to the test."""

from __future__ import annotations

from typing import ClassVar, Protocol, cast

from PyQt6.QtWidgets import QApplication, QWidget

from vadrin.app.document.workbench import Topic
from vadrin.ui.kept import OfTest
from vadrin.ui.stations.station import Station, StationContext, ViewState
from vadrin.ui.widgets.keyboard import show_what_was_added
from vadrin.ui.widgets.page_links import PageLinks
from vadrin.ui.widgets.page_stack import PageStack


class ShowsState(Protocol):
    """What every page can do."""

    def show_state(self, scene: ViewState) -> None: ...


class PagedStation(Station):
    """Pages under a head that links to them; a test opens on the page it was left on.

    Attributes
    ----------
    links : dict of str to str
        Words of each page's link, by its name.
    first_page : str
        The page of a test nobody turned to another of.
    """

    links: ClassVar[dict[str, str]]
    first_page: str
    page: OfTest[str] = OfTest(str)
    shown = ""
    """Name of the page that is put up."""

    def __init__(self, given: StationContext) -> None:
        super().__init__(given)
        self._head = PageLinks(self.links, self.turn_to)
        self._stack = PageStack()
        self._scene: ViewState | None = None
        self.column.addWidget(self._head)
        self.column.addWidget(self._stack, 1)

    def page_named(self, name: str) -> QWidget:
        """The page of a name."""
        raise NotImplementedError

    def question_of(self, name: str) -> str:
        """The question of a page."""
        raise NotImplementedError

    @property
    def shown_page(self) -> QWidget | None:
        """The page that is turned to."""
        return self._stack.shown

    def first_page_now(self) -> str:
        """The page shown of a test that no page was turned to of yet."""
        return self.first_page

    def turn_to(self, name: str) -> None:
        """Show one of the pages, whenever this test is looked at here."""
        self.page = name
        self._put_up()
        if self._scene is not None:
            self.show_state(self._scene)
            show_what_was_added(self)
            self.take_focus()
            self.bench.changed.emit(Topic.PAGE)

    def _put_up(self) -> None:
        name = self.page or self.first_page_now()
        self._stack.show_page(self.page_named(name))
        self._head.show_page(name, self.question_of(name))
        self.shown = name
        self.page_turned(name)
        self.refuse("")

    def page_turned(self, name: str) -> None:
        """A page was put up; nothing of the test is on it yet."""

    def show_state(self, scene: ViewState) -> None:
        """Show the page of the test."""
        fresh, self._scene = self._scene is None, scene
        typing = QApplication.focusWidget()
        held = typing is not None and self.isAncestorOf(typing)
        turned = (self.page or self.first_page_now()) != self.shown
        if turned:
            self._put_up()
        if scene.loaded is not None:
            cast(ShowsState, self.shown_page).show_state(scene)
        if turned and held and not fresh:
            # What had the keyboard is on a page that is not seen any more.
            show_what_was_added(self)
            self.take_focus()
            self.bench.changed.emit(Topic.PAGE)

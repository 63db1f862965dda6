"""Process: the recipe, the clock, and what each strip really got."""

from __future__ import annotations

from dataclasses import dataclass
from functools import partial
from typing import Protocol, cast

from PyQt6.QtWidgets import QWidget

from vadrin.ui.actions import Action, hint
from vadrin.ui.stations.process.clock_page import ClockPage
from vadrin.ui.stations.process.control_page import ControlPage
from vadrin.ui.stations.process.dark_page import DarkPage
from vadrin.ui.stations.process.fogged_piece_page import ClipPage
from vadrin.ui.stations.process.got_page import GotPage
from vadrin.ui.stations.process.makers_page import MakersPage
from vadrin.ui.stations.process.recipe_page import RecipePage
from vadrin.ui.stations.process.rules_page import RulesPage
from vadrin.ui.stations.station import Scene, Station, Surroundings
from vadrin.ui.widgets.page_links import PageLinks
from vadrin.ui.widgets.page_stack import PageStack
from vadrin.ui.widgets.sound_cues import Cue


class _ShowsScene(Protocol):
    def show_scene(self, scene: Scene) -> None: ...


@dataclass(frozen=True)
class _Page:
    """One page: the question it answers, its link, what its key does, and the key."""

    question: str
    link: str
    words: str
    key: str
    widget: QWidget


class ProcessStation(Station):
    """Pages round one run: what to mix, what to do in the dark, the clock, what came of it."""

    def __init__(self, given: Surroundings) -> None:
        super().__init__(given)
        self.cue = Cue()
        bench, refuse = self.bench, self.refuse
        self.recipe, self.clock = RecipePage(bench, refuse), ClockPage(bench, self.cue)
        self.dark, self.got = DarkPage(bench, refuse), GotPage(bench, refuse, given.jobs)
        self.clip, self.control = ClipPage(bench, refuse), ControlPage(bench, refuse)
        self.rules, self.makers = (
            RulesPage(bench, refuse), MakersPage(bench, refuse, given.ask_file)
        )  # fmt: skip
        self._pages = self._all_pages()
        links = {name: page.link for name, page in self._pages.items()}
        self._head = PageLinks(links, self.turn_to)
        self.column.addWidget(self._head)
        self._stack = PageStack()
        for page in self._pages.values():
            self._stack.addWidget(page.widget)
        self.column.addWidget(self._stack, 1)
        self.column.addWidget(self.refusal)
        self._scene: Scene | None = None
        self._offer_all()
        self.turn_to("got")

    def _all_pages(self) -> dict[str, _Page]:
        return {
            "recipe": _Page("What goes into the tank?", "Recipe", "the recipe", "R", self.recipe),
            "clip": _Page("Does the bath still develop?", "Clip", "the clip", "I", self.clip),
            "dark": _Page("What is done in the dark?", "In the dark", "the lights-off sheet", "D",
                          self.dark),
            "clock": _Page("What is due now?", "Clock", "the clock", "K", self.clock),
            "got": _Page("What did each strip really get?", "What they got",
                         "what the strips got", "G", self.got),
            "control": _Page("Is the process where it was?", "Control", "control strips", "T",
                             self.control),
            "makers": _Page("What does the maker say?", "Maker's table", "the maker's table", "M",
                            self.makers),
            "rules": _Page("What are rules of thumb worth?", "Rules", "rules of thumb", "U",
                           self.rules),
        }  # fmt: skip

    def _offer_all(self) -> None:
        self.offer(
            hint("Tab", "to the next time or temperature"),
            hint("Enter", "take what you typed"),
            Action("process.as_planned", "write down what the clock saw, or on its own page that "
                   "all went as planned", self._confirm, ("Ctrl+Return", "Ctrl+Enter")),
            *(Action(f"process.{name}", page.words, partial(self.turn_to, name),
                     (f"Alt+{page.key}",)) for name, page in self._pages.items()),
            Action("process.units", "the recipe in fl oz and °F, or in ml and °C", self._units,
                   ("Alt+O",)),
            Action("process.sounds", "sounds on or off", self._sounds, ("Alt+V",)),
        )  # fmt: skip

    def turn_to(self, name: str) -> None:
        """Show one of the pages."""
        page = self._pages[name]
        self._head.show_page(name, page.question)
        self._stack.show_page(page.widget)
        self.refuse("")
        if self._scene is not None:
            self.show_scene(self._scene)

    def _confirm(self) -> None:
        if self._stack.currentWidget() is self.clock:
            self.clock.confirm()
        elif self._stack.currentWidget() is self.got:
            self.got.as_planned()

    def _units(self) -> None:
        self.bench.said.emit(self.recipe.turn_units())

    def _sounds(self) -> None:
        self.bench.said.emit(self.cue.toggle())

    def show_scene(self, scene: Scene) -> None:
        """Show the page that is turned to."""
        self._scene = scene
        if scene.sheet is not None:
            cast(_ShowsScene, self._stack.currentWidget()).show_scene(scene)

    def put_away(self) -> None:
        """Stop the clock's looks and the thermometer."""
        self.clock.rest()

    def take_focus(self) -> None:
        """Begin at the first strip without a time, or at the clock's button."""
        if self._stack.currentWidget() is self.clock:
            self.clock.main.setFocus()
        else:
            self.got.take_focus()

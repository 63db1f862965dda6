"""Process: the recipe, the clock, and what each strip really got."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property, partial
from typing import ClassVar

from PyQt6.QtWidgets import QWidget

from vadrin.ui.actions import Action, hint
from vadrin.ui.stations.paged_station import PagedStation
from vadrin.ui.stations.process.actual_times_page import ActualTimesPage
from vadrin.ui.stations.process.clip_page import ClipPage
from vadrin.ui.stations.process.clock_page import ClockPage
from vadrin.ui.stations.process.control_page import ControlPage
from vadrin.ui.stations.process.dark_page import DarkPage
from vadrin.ui.stations.process.makers_page import MakersPage
from vadrin.ui.stations.process.recipe_page import RecipePage
from vadrin.ui.stations.process.rules_page import RulesPage
from vadrin.ui.stations.station import StationContext
from vadrin.ui.widgets.keyboard import first_field


@dataclass(frozen=True)
class _Page:
    """One page: the question it answers, its link, what its key does, and the key."""

    question: str
    link: str
    words: str
    key: str


_PAGES = {
    "recipe": _Page("What goes into the tank?", "Recipe", "the recipe", "R"),
    "clip": _Page("Does the bath still develop?", "Clip", "the clip", "I"),
    "dark": _Page("What is done in the dark?", "In the dark", "the lights-off sheet", "D"),
    "clock": _Page("What is due now?", "Clock", "the clock", "K"),
    "got": _Page("What did each strip really get?", "What they got", "what the strips got", "G"),
    "control": _Page("Is the process still in control?", "Control", "control strips", "T"),
    "makers": _Page("What does the maker say?", "Maker's table", "the maker's table", "M"),
    "rules": _Page("What are rules of thumb worth?", "Rules", "rules of thumb", "U"),
}
"""By the names of the station's pages, each made when it is turned to."""


class ProcessStation(PagedStation):
    """Pages round one run: what to mix, what to do in the dark, the clock, what came of it."""

    links: ClassVar[dict[str, str]] = {name: page.link for name, page in _PAGES.items()}
    first_page = "got"

    def __init__(self, given: StationContext) -> None:
        super().__init__(given)
        self.cue = given.ears.cue
        self.column.addWidget(self.refusal)
        self._offer_all()
        self._put_up()

    def first_page_now(self) -> str:
        """Nothing is developed for a data sheet: it has the maker's times."""
        loaded = self.bench.loaded
        return "makers" if loaded is not None and not loaded.on_film else self.first_page

    @cached_property
    def clock(self) -> ClockPage:
        """What is due now."""
        return ClockPage(self.bench, self.given.ears, self._open_clock)

    @cached_property
    def got(self) -> ActualTimesPage:
        """What each strip really got."""
        return ActualTimesPage(self.bench, self.refuse, self.given.jobs)

    @cached_property
    def recipe(self) -> RecipePage:
        """What goes into the tank."""
        return RecipePage(self.bench, self.refuse)

    @cached_property
    def clip(self) -> ClipPage:
        """Whether the bath still develops."""
        return ClipPage(self.bench, self.refuse)

    @cached_property
    def dark(self) -> DarkPage:
        """What is done with the lights off."""
        return DarkPage(self.bench, self.refuse)

    @cached_property
    def control(self) -> ControlPage:
        """Whether the process is where it was."""
        return ControlPage(self.bench, self.refuse)

    @cached_property
    def makers(self) -> MakersPage:
        """What the maker says."""
        return MakersPage(self.bench, self.refuse, self.given.ask_file)

    @cached_property
    def rules(self) -> RulesPage:
        """What rules of thumb are worth."""
        return RulesPage(self.bench, self.refuse)

    def _offer_all(self) -> None:
        self.offer(
            hint("Tab", "to the next time or temperature"),
            hint("Enter", "take what you typed"),
            Action(
                "process.as_planned",
                "write down what the clock saw, or on its own page that all went as planned",
                self._confirm,
                ("Ctrl+Return", "Ctrl+Enter"),
            ),
            *(
                Action(
                    f"process.{name}", page.words, partial(self.turn_to, name), (f"Alt+{page.key}",)
                )
                for name, page in _PAGES.items()
            ),
            Action(
                "process.units",
                "the recipe in fl oz and °F, or in ml and °C",
                self._units,
                ("Alt+O",),
            ),
            Action("process.sounds", "sounds on or off", self._sounds, ("Alt+V",)),
        )

    def page_named(self, name: str) -> QWidget:
        """The page of a name, made when it is first turned to."""
        page: QWidget = getattr(self, name)
        return page

    def question_of(self, name: str) -> str:
        """The question of a page."""
        return _PAGES[name].question

    def _confirm(self) -> None:
        if self.shown == "clock":
            self.clock.confirm()
        elif self.shown == "got":
            self.got.as_planned()

    def _open_clock(self, test_id: int) -> None:
        self.bench.open_test(test_id)
        self.turn_to("clock")

    def _units(self) -> None:
        self.bench.said.emit(self.recipe.turn_units())

    def _sounds(self) -> None:
        self.cue.toggle(self.bench.said.emit, at_clock=True)

    def take_focus(self) -> None:
        """Begin at the first strip without a time, at the clock's button, or at a page's words."""
        if self.shown == "clock":
            self.clock.main.setFocus()
        elif self.shown == "got":
            self.got.take_focus()
        else:
            (first_field(self.page_named(self.shown)) or self).setFocus()

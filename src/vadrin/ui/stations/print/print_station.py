"""Print: the enlarger as a measuring instrument."""

from __future__ import annotations

from functools import cached_property, partial
from typing import ClassVar

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QWidget

from vadrin.ui.actions import Action, hint
from vadrin.ui.stations.paged_station import PagedStation
from vadrin.ui.stations.print.contact_page import ContactPage
from vadrin.ui.stations.print.covered_page import CoveredPage
from vadrin.ui.stations.print.grade_page import GradePage
from vadrin.ui.stations.print.setup_page import SetupPage
from vadrin.ui.stations.print.strip_page import StripPage
from vadrin.ui.stations.station import StationContext

_QUESTIONS = {
    "setup": ("Set-up", "Print set-up", "S"),
    "strip": ("Test strip", "Test strip", "T"),
    "covered": ("Half covered", "Half-covered strips", "H"),
    "contact": ("Contact sheet", "Which frames can be used?", "C"),
    "grade": ("Grade and prints", "How is it printed?", "G"),
}


class PrintStation(PagedStation):
    """Five pages: set-up, strips, half-covered strips, contact sheet, grade and prints."""

    links: ClassVar[dict[str, str]] = {name: words for name, (words, _, _) in _QUESTIONS.items()}
    first_page = "setup"

    def __init__(self, given: StationContext) -> None:
        super().__init__(given)
        self.cue = given.ears.cue
        self.column.addWidget(self.refusal)
        self.offer(
            *(
                Action(
                    f"print.{name}",
                    f"{words.lower()} of the print room",
                    partial(self.turn_to, name),
                    (f"Alt+{key}",),
                )
                for name, (words, _, key) in _QUESTIONS.items()
            ),
            Action("print.sounds", "sounds of the countdown on or off", self._sounds, ("Alt+V",)),
            hint("Space", "on a test strip: begin the next exposure"),
            hint("1 … 9", "on a test strip: the section chosen"),
            hint("Y N T", "on a half-covered strip: lighter than the blank, not, not sure"),
            hint("1 … 9, N D S U, B", "on the contact sheet: a verdict; B prints best"),
        )
        self._put_up()

    @cached_property
    def setup(self) -> SetupPage:
        """What must not move."""
        return SetupPage(self.bench, self.refuse)

    @cached_property
    def strip(self) -> StripPage:
        """Test strips."""
        return StripPage(self.bench, self.refuse, self.cue, self.setFocus)

    @cached_property
    def covered(self) -> CoveredPage:
        """Half-covered strips."""
        return CoveredPage(self.bench, self.refuse)

    @cached_property
    def contact(self) -> ContactPage:
        """The contact sheet."""
        return ContactPage(self.bench)

    @cached_property
    def grade(self) -> GradePage:
        """Grades and prints."""
        return GradePage(
            self.bench, self.refuse, self.given.ask_file, partial(self.turn_to, "strip")
        )

    def page_named(self, name: str) -> QWidget:
        """One of the pages, made when it is first turned to."""
        page: QWidget = getattr(self, name)
        return page

    def question_of(self, name: str) -> str:
        """The question of a page."""
        return _QUESTIONS[name][1]

    def _sounds(self) -> None:
        self.cue.toggle(self.bench.said.emit)

    def take_key(self, event: QKeyEvent) -> bool:
        """A key belongs to the page that is turned to."""
        page = self.shown_page
        if isinstance(page, StripPage | CoveredPage | ContactPage):
            return page.take_key(event)
        return False

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Keys that no field took; the arrows walk along the film."""
        ways = {Qt.Key.Key_Right: 1, Qt.Key.Key_Left: -1, Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1}
        if event is not None and event.key() in ways and self.bench.loaded is not None:
            ids = [f.frame.id for _, f in self.bench.loaded.frames()]
            here = ids.index(self.bench.frame_id) if self.bench.frame_id in ids else 0
            self.bench.select(ids[max(0, min(here + ways[Qt.Key(event.key())], len(ids) - 1))])
        elif event is None or not self.take_key(event):
            super().keyPressEvent(event)

    def put_away(self) -> None:
        """Count no more."""
        if "strip" in self.__dict__:
            self.strip.countdown.rest()

    def take_focus(self) -> None:
        """The keys belong to the page."""
        self.setFocus()

"""Process: the recipe, the clock, and what each strip really got."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import TYPE_CHECKING

from PyQt6.QtWidgets import (
    QGridLayout,
    QHBoxLayout,
    QLabel,
    QSizePolicy,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from vadrin.app.entry.stepping import chooser
from vadrin.app.process.development import (
    develop_as_planned,
    strip_line,
    type_temperature,
    type_time,
)
from vadrin.app.process.run_conditions import (
    CONDITIONS,
    condition_choices,
    condition_shown,
    set_condition,
)
from vadrin.app.process.strip_chemistry import (
    agitation_shown,
    chemistry_choices,
    chemistry_shown,
    type_agitation,
    type_chemistry,
)
from vadrin.app.reference_temperature import reference_of, reference_words, temperature_factor_of
from vadrin.app.test_sheet import StripSheet, TestSheet
from vadrin.ui.actions import Action, hint
from vadrin.ui.stations.process.clip_page import ClipPage
from vadrin.ui.stations.process.clock_page import ClockPage
from vadrin.ui.stations.process.control_page import ControlPage
from vadrin.ui.stations.process.makers_page import MakersPage
from vadrin.ui.stations.process.recipe_page import RecipePage
from vadrin.ui.stations.process.rules_page import RulesPage
from vadrin.ui.stations.station import Scene, Station, Surroundings
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.grids import empty_grid
from vadrin.ui.widgets.labels import rule, text
from vadrin.ui.widgets.sentence import sentence
from vadrin.ui.widgets.sound_cues import Cue

if TYPE_CHECKING:
    from vadrin.notebook.store import Notebook

_CAUTIONS = (
    "Gloves, eye protection and fresh air. Keep developer off the skin and all of it away from "
    "food, cups and children. Add acid to water, never mix what the makers do not, and follow "
    "the makers' safety sheets: this program does not replace them. Used fixer carries silver; "
    "hand it in as local rules say."
)


class ProcessStation(Station):
    """Three pages: what to mix, the clock, and a line a strip of what it got."""

    def __init__(self, given: Surroundings) -> None:
        super().__init__(given)
        self.cue = Cue()
        head = QHBoxLayout()
        self._title = text("", Role.HEADING)
        head.addWidget(self._title)
        head.addStretch(1)
        self.recipe = RecipePage(self.bench, self.refuse)
        self.clock = ClockPage(self.bench, self.cue)
        self.rules = RulesPage(self.bench, self.refuse)
        self.control = ControlPage(self.bench, self.refuse)
        self.clip = ClipPage(self.bench, self.refuse)
        self.makers = MakersPage(self.bench, self.refuse, given.ask_file)
        got = QWidget()
        self._pages: dict[str, tuple[str, QWidget]] = {
            "recipe": ("What goes into the tank?", self.recipe),
            "clock": ("What is due now?", self.clock),
            "got": ("What did each strip really get?", got),
            "rules": ("What are rules of thumb worth?", self.rules),
            "makers": ("What does the maker say?", self.makers),
            "clip": ("Does the bath still develop?", self.clip),
            "control": ("Is the process where it was?", self.control),
        }
        self._links = {
            name: button(words, partial(self.turn_to, name), link=True)
            for name, words in (
                ("recipe", "Recipe"),
                ("clock", "Clock"),
                ("got", "What they got"),
                ("rules", "Rules"),
                ("makers", "Maker's table"),
                ("clip", "Clip"),
                ("control", "Control"),
            )
        }
        for link in self._links.values():
            head.addWidget(link)
        self.column.addLayout(head)
        self._stack = QStackedWidget()
        for _, page in self._pages.values():
            self._stack.addWidget(page)
        self.column.addWidget(self._stack, 1)
        self.column.addWidget(self.refusal)
        self._scene: Scene | None = None
        self._build_got(got)
        self.turn_to("got")

    def _build_got(self, page: QWidget) -> None:
        column = QVBoxLayout(page)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(px(8))
        column.addWidget(text(_CAUTIONS, Role.CAPTION, wrap=True))
        column.addWidget(rule())
        self._holder = QWidget()
        self._grid = QGridLayout(self._holder)
        self._grid.setContentsMargins(0, px(4), 0, px(4))
        self._grid.setHorizontalSpacing(px(26))
        self._grid.setVerticalSpacing(px(10))
        column.addWidget(self._holder)
        self._note = text("", Role.NOTE, wrap=True)
        column.addWidget(self._note)
        self._all = button("All as planned", self._as_planned)
        self.offer(
            hint("Tab", "to the next time or temperature"),
            hint("Enter", "take what you typed"),
            Action("process.as_planned", "all remaining strips as planned, at its temperature",
                   self._as_planned, ("Ctrl+Return", "Ctrl+Enter")),
            Action("process.recipe", "the recipe", partial(self.turn_to, "recipe"), ("Alt+R",)),
            Action("process.clock", "the clock", partial(self.turn_to, "clock"), ("Alt+K",)),
            Action("process.got", "what the strips got", partial(self.turn_to, "got"),
                   ("Alt+G",)),
            Action("process.rules", "rules of thumb", partial(self.turn_to, "rules"), ("Alt+U",)),
            Action("process.makers", "the maker's table", partial(self.turn_to, "makers"),
                   ("Alt+M",)),
            Action("process.control", "control strips", partial(self.turn_to, "control"),
                   ("Alt+T",)),
            Action("process.clip", "the clip", partial(self.turn_to, "clip"), ("Alt+I",)),
            Action("process.sounds", "sounds on or off", self._sounds, ("Alt+V",)),
        )  # fmt: skip
        column.addWidget(self._all)
        column.addWidget(rule())
        self.conditions = {name: self._condition(name) for name in CONDITIONS}
        c = self.conditions
        column.addWidget(
            sentence("Agitated", c["agitation"], "in", c["vessel"], "with water", c["water"],
                     "; from bottle", c["bottle"], ", as in", c["process"], ".", role=Role.LEAD)
        )  # fmt: skip
        column.addWidget(
            sentence("Metered with", c["light meter"], ", read with", c["instrument"],
                     ", for paper", c["paper"], ".", role=Role.LEAD)
        )  # fmt: skip
        column.addStretch(1)
        self._rows: dict[int, tuple[WordField, ...]] = {}
        self._shown_for: tuple[int, ...] = ()

    def turn_to(self, name: str) -> None:
        """Show one of the three pages."""
        title, page = self._pages[name]
        self._title.setText(title)
        self._stack.setCurrentWidget(page)
        for each, link in self._links.items():
            link.setVisible(each != name)
        for _, other in self._pages.values():
            # A page that is not shown takes no room.
            shown = QSizePolicy.Policy.Preferred if other is page else QSizePolicy.Policy.Ignored
            other.setSizePolicy(QSizePolicy.Policy.Preferred, shown)
        self.refuse("")
        if self._scene is not None:
            self.show_scene(self._scene)

    def _sounds(self) -> None:
        self.bench.said.emit(self.cue.toggle())

    def _condition(self, name: str) -> WordField:
        def commit(words: str) -> None:
            sheet = self.bench.sheet
            if sheet is not None:
                test = sheet.test
                self.bench.edit_or_raise(lambda book: set_condition(book, test, name, words))

        known = chooser(lambda: condition_choices(self.bench.notebook, name))
        field = WordField(name, commit, known, role=Role.LEAD)
        field.refused.connect(self.refuse)
        return field

    def show_scene(self, scene: Scene) -> None:
        """Show a line for each strip, and the conditions of the run."""
        self._scene = scene
        if scene.sheet is None:
            return
        page = self._stack.currentWidget()
        if page is self.recipe:
            self.recipe.show_scene(scene.sheet)
            return
        if page is self.clock:
            self.clock.show_scene(scene.sheet, scene.look)
            return
        if page is self.rules:
            self.rules.show_scene()
            return
        if page is self.makers:
            self.makers.show_scene(scene.sheet)
            return
        if page is self.control:
            self.control.show_scene(scene.sheet, scene.look)
            return
        if page is self.clip:
            self.clip.show_scene(scene.sheet, scene.look)
            return
        self._show_got(scene.sheet)

    def _show_got(self, sheet: TestSheet) -> None:
        for name, field in self.conditions.items():
            field.show_value(condition_shown(self.bench.notebook, sheet.test, name))
        ids = tuple(s.strip.id for s in sheet.strips)
        if ids != self._shown_for:
            self._build(sheet.strips)
            self._shown_for = ids
        reference, factor = reference_of(sheet), temperature_factor_of(sheet)
        for row, strip in enumerate(sheet.strips, start=1):
            self._fill(row, strip, reference, factor)
        self._all.setText(f"All as planned, at {reference_words(sheet)}")
        waiting = [s for s in sheet.strips if s.strip.time_min is None]
        self._all.setVisible(bool(waiting))
        self._note.setText(
            f"Restated: the minutes at {reference_words(sheet)} that do the same work, "
            f"taking development to go {factor:g} times as fast for each 10 °C."
        )

    def _build(self, strips: tuple[StripSheet, ...]) -> None:
        empty_grid(self._grid)
        self._rows = {}
        heads = ("Strip", "Planned", "Time it got", "Temperature °C", "Restated", "In", "Agitated")
        for place, words in enumerate(heads):
            self._grid.addWidget(text(words, Role.CAPTION), 0, place)
        for row, strip in enumerate(strips, start=1):
            label = strip.strip.label
            key = strip.strip.id
            time = WordField(f"time of strip {label}", self._commit(key, type_time))
            warmth = WordField(f"temperature of strip {label}", self._commit(key, type_temperature))
            known = chooser(lambda: chemistry_choices(self.bench.notebook))
            bath = WordField(f"chemistry of strip {label}", self._commit(key, type_chemistry),
                             known, role=Role.BODY)  # fmt: skip
            moved = WordField(f"agitation of strip {label}", self._commit(key, type_agitation),
                              role=Role.BODY)  # fmt: skip
            for field in (time, warmth, bath, moved):
                field.refused.connect(self.refuse)
            self._rows[strip.strip.id] = (time, warmth, bath, moved)
            self._grid.addWidget(text(label, Role.HEADING), row, 0)
            self._grid.addWidget(text("", Role.LEAD), row, 1)
            self._grid.addWidget(time, row, 2)
            self._grid.addWidget(warmth, row, 3)
            self._grid.addWidget(text("", Role.LEAD), row, 4)
            self._grid.addWidget(bath, row, 5)
            self._grid.addWidget(moved, row, 6)
        self._grid.setColumnStretch(7, 1)

    def _fill(self, row: int, strip: StripSheet, reference_c: float, factor: float) -> None:
        line = strip_line(strip.strip, reference_c, factor)
        time, warmth, bath, moved = self._rows[strip.strip.id]
        if self._scene is not None and self._scene.sheet is not None:
            sheet = self._scene.sheet
            bath.show_value(chemistry_shown(self.bench.notebook, sheet, strip))
            moved.show_value(agitation_shown(sheet, strip))
        time.show_value(line.time)
        warmth.show_value(line.temperature)
        self._set_text(row, 1, line.planned)
        self._set_text(row, 4, line.restated)

    def _set_text(self, row: int, column: int, words: str) -> None:
        item = self._grid.itemAtPosition(row, column)
        label = item.widget() if item else None
        if isinstance(label, QLabel):
            label.setText(words)

    def _commit(
        self, strip_id: int, write: Callable[[Notebook, int, str], None]
    ) -> Callable[[str], None]:
        return lambda words: self.bench.edit_or_raise(lambda book: write(book, strip_id, words))

    def _as_planned(self) -> None:
        sheet = self.bench.sheet
        waiting = [s.strip for s in sheet.strips if s.strip.time_min is None] if sheet else []
        if waiting:
            reference = reference_of(sheet) if sheet else 20.0
            self.bench.edit(lambda book: develop_as_planned(book, waiting, reference))

    def put_away(self) -> None:
        """Stop the clock's looks and the thermometer."""
        self.clock.rest()

    def take_focus(self) -> None:
        """Begin at the first strip without a time, or at the clock's button."""
        if self._stack.currentWidget() is self.clock:
            self.clock.main.setFocus()
            return
        sheet = self.bench.sheet
        for strip in sheet.strips if sheet else ():
            if strip.strip.time_min is None and strip.strip.id in self._rows:
                self._rows[strip.strip.id][0].setFocus()
                return
        if self._rows:
            next(iter(self._rows.values()))[0].setFocus()

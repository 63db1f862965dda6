"""Process: what each strip really got, restated at the reference temperature."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtWidgets import QGridLayout, QWidget

from vadrin.app.display.quantities import minutes_text, minutes_typed, number_typed
from vadrin.app.process.development import develop_strip
from vadrin.app.process.run_conditions import (
    NAMES,
    condition_choices,
    condition_shown,
    set_condition,
)
from vadrin.app.test_sheet import StripSheet
from vadrin.app.workbench import Workbench
from vadrin.core.readings import REFERENCE_TEMPERATURE_C, restated_time
from vadrin.notebook.records.all_records import Strip
from vadrin.ui.stations.station import Scene, Station
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.parts import WordField, button, chooser, rule, sentence, text

_CAUTIONS = (
    "Gloves, eye protection and fresh air. Keep developer off the skin and all of it away from "
    "food, cups and children. Add acid to water, never mix what the makers do not, and follow "
    "the makers' safety sheets: this program does not replace them. Used fixer carries silver; "
    "hand it in as local rules say."
)


class ProcessStation(Station):
    """One line a strip: planned time, real time, real temperature, restated time."""

    keys = (
        ("Tab", "to the next time or temperature"),
        ("Enter", "take what you typed"),
        ("Ctrl+Enter", "all remaining strips as planned, at 20 °C"),
    )

    def __init__(self, bench: Workbench) -> None:
        super().__init__(bench)
        self.column.addWidget(text("What did each strip really get?", 17, 700))
        self.column.addWidget(text(_CAUTIONS, 12, tone="soft", wrap=True))
        self.column.addWidget(rule())
        self._holder = QWidget()
        self._grid = QGridLayout(self._holder)
        self._grid.setContentsMargins(0, px(4), 0, px(4))
        self._grid.setHorizontalSpacing(px(26))
        self._grid.setVerticalSpacing(px(10))
        self.column.addWidget(self._holder)
        self.column.addWidget(self.refusal)
        self._note = text("", 13, tone="soft", wrap=True)
        self.column.addWidget(self._note)
        self._all = button("All as planned, at 20 °C", self._as_planned)
        for keys in ("Ctrl+Return", "Ctrl+Enter"):
            self.bind(keys, self._as_planned)
        self.column.addWidget(self._all)
        self.column.addWidget(rule())
        self.conditions = {name: self._condition(name) for name in NAMES}
        c = self.conditions
        self.column.addWidget(
            sentence("Agitated", c["agitation"], "in", c["vessel"], "with water", c["water"],
                     "; from bottle", c["bottle"], ", as in", c["process"], ".", size=15)
        )  # fmt: skip
        self.column.addWidget(
            sentence("Metered with", c["light meter"], ", read with", c["instrument"],
                     ", for paper", c["paper"], ".", size=15)
        )  # fmt: skip
        self.column.addStretch(1)
        self._rows: dict[int, tuple[WordField, WordField]] = {}
        self._shown_for: tuple[int, ...] = ()

    def _condition(self, name: str) -> WordField:
        def commit(words: str) -> None:
            sheet = self.bench.sheet
            if sheet is not None:
                test = sheet.test
                self.bench.edit_or_raise(lambda book: set_condition(book, test, name, words))

        known = chooser(lambda: condition_choices(self.bench.notebook, name))
        field = WordField(name, commit, known, size=15)
        field.refused.connect(self.refuse)
        return field

    def show_scene(self, scene: Scene) -> None:
        """Show a line for each strip, and the conditions of the run."""
        if scene.sheet is None:
            return
        for name, field in self.conditions.items():
            field.show_value(condition_shown(self.bench.notebook, scene.sheet.test, name))
        ids = tuple(s.strip.id for s in scene.sheet.strips)
        if ids != self._shown_for:
            self._build(scene.sheet.strips)
            self._shown_for = ids
        for row, strip in enumerate(scene.sheet.strips, start=1):
            self._fill(row, strip.strip)
        waiting = [s for s in scene.sheet.strips if s.strip.time_min is None]
        self._all.setVisible(bool(waiting))
        self._note.setText(
            f"Restated: the minutes at {REFERENCE_TEMPERATURE_C:g} °C that do the same work, "
            "taking development to go 2.5 times as fast for each 10 °C."
        )

    def _build(self, strips: tuple[StripSheet, ...]) -> None:
        while self._grid.count():
            item = self._grid.takeAt(0)
            widget = item.widget() if item else None
            if widget:
                widget.hide()
                widget.deleteLater()
        self._rows = {}
        heads = ("Strip", "Planned", "Time it got", "Temperature °C", "Restated at 20 °C")
        for place, words in enumerate(heads):
            self._grid.addWidget(text(words, 12, tone="soft"), 0, place)
        for row, strip in enumerate(strips, start=1):
            label = strip.strip.label
            time = WordField(f"time of strip {label}", self._commit(strip.strip.id, True))
            warmth = WordField(f"temperature of strip {label}", self._commit(strip.strip.id, False))
            for field in (time, warmth):
                field.refused.connect(self.refuse)
            self._rows[strip.strip.id] = (time, warmth)
            self._grid.addWidget(text(label, 17, 700), row, 0)
            self._grid.addWidget(text("", 15), row, 1)
            self._grid.addWidget(time, row, 2)
            self._grid.addWidget(warmth, row, 3)
            self._grid.addWidget(text("", 15), row, 4)
        self._grid.setColumnStretch(5, 1)

    def _fill(self, row: int, strip: Strip) -> None:
        time, warmth = self._rows[strip.id]
        time.show_value("—" if strip.time_min is None else minutes_text(strip.time_min, exact=True))
        shown = "—" if strip.temperature_c is None else f"{strip.temperature_c:g}"
        warmth.show_value(shown)
        planned = "" if strip.planned_min is None else minutes_text(strip.planned_min, exact=True)
        self._set_text(row, 1, planned)
        restated = ""
        if strip.time_min is not None:
            restated = minutes_text(restated_time(strip.time_min, strip.temperature_c))
        self._set_text(row, 4, restated)

    def _set_text(self, row: int, column: int, words: str) -> None:
        item = self._grid.itemAtPosition(row, column)
        label = item.widget() if item else None
        if label is not None:
            label.setText(words)  # type: ignore[attr-defined]

    def _commit(self, strip_id: int, is_time: bool) -> Callable[[str], None]:
        def commit(words: str) -> None:
            strip = self.bench.notebook.get(Strip, strip_id)
            if strip is None:
                return
            empty = words.strip() in ("", "—")
            time, warmth = strip.time_min, strip.temperature_c
            if is_time:
                time = None if empty else minutes_typed(words)
                warmth = warmth if warmth is not None else REFERENCE_TEMPERATURE_C
            else:
                warmth = None if empty else number_typed(words.replace("°C", ""))
                if warmth is not None and not 5 <= warmth <= 60:
                    raise ValueError("a developer works between 5 and 60 °C")
                time = time if time is not None else strip.planned_min
            self.bench.edit(lambda notebook: develop_strip(notebook, strip, time, warmth))

        return commit

    def _as_planned(self) -> None:
        sheet = self.bench.sheet
        waiting = [s.strip for s in sheet.strips if s.strip.time_min is None] if sheet else []

        def develop(notebook: object) -> None:
            with self.bench.notebook.change("process all strips as planned"):
                for strip in waiting:
                    develop_strip(
                        self.bench.notebook, strip, strip.planned_min, REFERENCE_TEMPERATURE_C
                    )

        self.bench.edit(develop)

    def take_focus(self) -> None:
        """Begin at the first strip without a time."""
        sheet = self.bench.sheet
        for strip in sheet.strips if sheet else ():
            if strip.strip.time_min is None and strip.strip.id in self._rows:
                self._rows[strip.strip.id][0].setFocus()
                return
        if self._rows:
            next(iter(self._rows.values()))[0].setFocus()

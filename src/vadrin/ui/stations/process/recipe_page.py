"""The recipe of the Process station: cautions first, then what to measure out, and the time now."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import Any

from PyQt6.QtWidgets import QGridLayout, QVBoxLayout, QWidget

from vadrin.app.display.units import AMERICAN, METRIC, Units
from vadrin.app.document.workbench import Workbench
from vadrin.app.entry.densities import temperature_typed
from vadrin.app.entry.numbers import count_typed
from vadrin.app.entry.volumes import volume_typed
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.process.bath import note_bath
from vadrin.app.process.kept_units import choose_units, usual_units
from vadrin.app.process.recipe_today import Darkroom, recipe_today
from vadrin.ui.kept import OfProgram, OfTest
from vadrin.ui.stations.station import ViewState
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.grids import empty_grid
from vadrin.ui.widgets.labels import rule, text
from vadrin.ui.widgets.sentence import sentence


class RecipePage(QWidget):
    """What today's tank takes.

    Parameters
    ----------
    bench : Workbench
    refuse : callable
        Says why something typed was not taken.
    """

    _typed: OfTest[Darkroom | None] = OfTest(lambda: None)
    _units: OfProgram[Units] = OfProgram(usual_units)

    def __init__(self, bench: Workbench, refuse: Callable[[str], None]) -> None:
        super().__init__()
        self.bench = bench
        self._loaded: LoadedTest | None = None
        self.fields = {
            "films": WordField("films in the tank", self._films, role=Role.LEAD),
            "tank": WordField("what the tank holds", self._tank, role=Role.LEAD),
            "reel": WordField("what a reel takes", self._reel, role=Role.LEAD),
            "bath": WordField("temperature of the bath", self._bath, role=Role.LEAD),
            "room": WordField("temperature of the room", self._room, role=Role.LEAD),
            "tap": WordField("temperature of the other water", self._tap, role=Role.LEAD),
        }
        for field in self.fields.values():
            field.refused.connect(refuse)
        f = self.fields
        self._cautions = text("", Role.CAPTION, wrap=True)
        self._grid = QGridLayout()
        self._grid.setHorizontalSpacing(px(18))
        self._grid.setVerticalSpacing(px(8))
        self._grid.setColumnStretch(1, 1)
        self._times = text("", Role.SUBHEADING, wrap=True)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(px(8))
        column.addWidget(self._cautions)
        column.addWidget(rule())
        column.addWidget(
            sentence(
                "Films:",
                f["films"],
                "in a tank of",
                f["tank"],
                "; a reel takes",
                f["reel"],
                ".",
                role=Role.LEAD,
            )
        )
        column.addLayout(self._grid)
        column.addWidget(rule())
        column.addWidget(
            sentence(
                "The bath is at",
                f["bath"],
                "; other water at",
                f["tap"],
                "; the room at",
                f["room"],
                ".",
                role=Role.LEAD,
            )
        )
        column.addWidget(self._times)
        column.addStretch(1)

    @property
    def room(self) -> Darkroom:
        """What the recipe is for, with the bath as it is in the file."""
        loaded = self.bench.loaded
        bath = loaded.test.bath_c if loaded is not None else None
        return replace(self._typed or Darkroom(), bath_c=bath, units=self._units)

    def show_state(self, scene: ViewState) -> None:
        """Show the recipe of a test."""
        loaded = scene.loaded
        if loaded is None:
            return
        if self._typed is None:
            rolls = len({s.strip.roll for s in loaded.strips}) or 1
            tank = (loaded.routine.volume_ml if loaded.routine else None) or 600.0
            self._typed = Darkroom(films=rolls, tank_ml=tank)
        self._loaded = loaded
        self._show()

    def _show(self) -> None:
        loaded, room = self._loaded, self.room
        if loaded is None:
            return
        made = recipe_today(self.bench.notebook, loaded, room)
        self._cautions.setText(" ".join(made.cautions))
        empty_grid(self._grid)
        for row, (what, how) in enumerate(made.lines):
            self._grid.addWidget(text(what, Role.LEAD), row, 0)
            self._grid.addWidget(text(how, Role.SUBHEADING, wrap=True), row, 1)
        self._times.setText("\n".join(made.times))
        units = room.units
        reel = f"{units.plain_volume(room.reel_ml)} {units.volume}"
        shown = {
            "films": f"{room.films}",
            "tank": f"{units.plain_volume(room.tank_ml)} {units.volume}",
            "reel": reel if room.reel_ml else "all of it",
            "bath": "—" if room.bath_c is None else units.warmth_text(room.bath_c),
            "room": "—" if room.room_c is None else units.warmth_text(room.room_c),
            "tap": units.warmth_text(room.tap_c),
        }
        for name, words in shown.items():
            self.fields[name].show_value(words)

    def _change(self, **changes: Any) -> None:
        self._typed = replace(self.room, **changes)
        self._show()

    def _films(self, words: str) -> None:
        self._change(films=count_typed(words, 1, 1000, "one film or more"))

    def _tank(self, words: str) -> None:
        refusal = "a tank holds more than 0 ml, and at most 100 l"
        self._change(tank_ml=volume_typed(words, 100_000, refusal, self.room.units))

    def _reel(self, words: str) -> None:
        plain = words.strip()
        if plain in ("", "all of it", "0"):
            self._change(reel_ml=0.0)
            return
        refusal = "a reel takes more than 0 ml, and at most 10 l"
        self._change(reel_ml=volume_typed(plain, 10_000, refusal, self.room.units))

    def _bath(self, words: str) -> None:
        loaded = self.bench.loaded
        warmth = None if words.strip() in ("", "—") else self._degrees(words)
        if loaded is not None:
            self.bench.edit_or_raise(lambda book: note_bath(book, loaded, warmth))

    def _tap(self, words: str) -> None:
        self._change(tap_c=self._degrees(words, 0.0, 100.0))

    def _room(self, words: str) -> None:
        empty = words.strip() in ("", "—")
        self._change(room_c=None if empty else self._degrees(words, 0.0, 45.0))

    def _degrees(self, words: str, low: float = 5.0, high: float = 60.0) -> float:
        return temperature_typed(words, low, high, self.room.units.american)

    def turn_units(self) -> str:
        """Fluid ounces and Fahrenheit, or millilitres and Celsius; says which."""
        units = METRIC if self.room.units.american else AMERICAN
        self._units = units
        choose_units(units)
        self._show()
        return f"The recipe is in {units.volume} and {units.degree}."

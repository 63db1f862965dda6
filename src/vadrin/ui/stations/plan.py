"""Plan: the test as sentences, every underlined word changed in place."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING

from PyQt6.QtCore import QTimer
from PyQt6.QtWidgets import QWidget

from vadrin.app.expectation import FoundBefore, expected_strips, found_before
from vadrin.app.kinds import BRACKET, BY_KEY, ONE_TIME, ROLL, SECOND, TIMES, Kind
from vadrin.app.likewise import drift_from_model
from vadrin.app.planning import EditRefusedError, PlanEdit, apply_plan, by_contact
from vadrin.app.sheet import TestSheet
from vadrin.app.shooting import advice_on
from vadrin.app.words import list_text, number_typed
from vadrin.app.workbench import Workbench
from vadrin.notebook.kit import Camera, Lens
from vadrin.ui.curve_plot import CurvePlot
from vadrin.ui.forecaster import Forecaster
from vadrin.ui.parts import WordField, sentence, text
from vadrin.ui.plan_words import WORDS
from vadrin.ui.stations.station import Scene, Station
from vadrin.ui.type import px

if TYPE_CHECKING:
    from vadrin.app.forecast import Forecast

_PAUSE_MS = 120


def _finer(shown: str, way: int) -> str:
    return f"{max(0.05, number_typed(shown) + 0.05 * way):.2f}"


class PlanStation(Station):
    """The question, the plan in sentences, what it will tell, and where its frames will land."""

    keys = (
        ("Tab", "to the next underlined word"),
        ("↑ ↓", "step the word you are at"),
        ("Enter", "take what you typed"),
        ("Esc", "drop what you typed"),
    )

    def __init__(self, bench: Workbench) -> None:
        super().__init__(bench)
        self.column.setSpacing(px(4))
        self._fields: dict[str, WordField] = {}
        self._wish: PlanEdit | None = None
        self._sheet: TestSheet | None = None
        self._scene: Scene | None = None
        self._found: FoundBefore | None = None
        self._sentences: list[tuple[str, QWidget]] = []
        self._question = text("", 17, 700, wrap=True)
        self.column.addWidget(self._question)
        self._build()
        self.column.addWidget(self.refusal)
        self.advice = text("", 13, tone="grease", wrap=True)
        self.notes = text("", 13, tone="soft", wrap=True)
        self.forecast = text("", 13, wrap=True)
        for label in (self.advice, self.forecast, self.notes):
            self.column.addWidget(label)
        self._sureness = WordField("wanted sureness in stops", self._ask_smallest, _finer, 13)
        self._sureness.show_value("0.20")
        self._smallest = text("step or type it to see the smallest plan", 13)
        self._least = sentence("For an EI sure to ±", self._sureness, "stop:", self._smallest,
                               size=13)  # fmt: skip
        self.column.addWidget(self._least)
        self._plot = CurvePlot()
        # The sentences come first; the picture takes the room that is left.
        self._plot.setMinimumHeight(px(140))
        self.column.addWidget(self._plot, 1)
        self._caption = text("", 12, tone="soft", wrap=True)
        self.column.addWidget(self._caption)
        self.forecaster = Forecaster()
        self.forecaster.ready.connect(self._show_forecast)
        self.forecaster.smallest.connect(self._smallest.setText)
        # Asked a moment after the last step, so that held arrow keys stay quick.
        self._soon = QTimer(self)
        self._soon.setSingleShot(True)
        self._soon.timeout.connect(self._settle)

    def _build(self) -> None:
        f = self._field
        self._say("", "The film is", f("film"), "batch", f("batch"), "in", f("developer"),
                  f("dilution"), "; the meter is set to EI", f("ei"), ".")  # fmt: skip
        self._say(TIMES, "The same exposures on", f("strips"), ", one each developed", f("times"),
                  "min at 20 °C.")  # fmt: skip
        self._say(ONE_TIME, "Developed", f("time"), "min at 20 °C.")
        self._say("against", "The second strip goes into", f("against"), ".")
        self._second_at = len(self._sentences)
        self._say(SECOND, "The other factor:", f("second"), ".")
        self._say(BRACKET, "A", f("subject"), "in", f("light"), ", from", f("first"), "to",
                  f("last"), "stops in", f("step"), ", after", f("blanks"),
                  "kept blank.")  # fmt: skip
        self._say("tablet", "The tablet's steps have densities", f("tablet"),
                  "; the densest exposure is that through none.")  # fmt: skip
        self._say(ROLL, "The film comes as", f("form"), ", shot", f("order"),
                  "; the first exposure is", f("check"), ".")  # fmt: skip
        self._say("", "The meter says", f("shutter"), "at", f("aperture"), "; with", f("camera"),
                  "and", f("lens"), "turn the", f("prefer"), "first, neutral density up to",
                  f("filter"), "stops.")  # fmt: skip

    def _say(self, needed: str, *words: str | QWidget) -> None:
        made = sentence(*words, size=15)
        self._sentences.append((needed, made))
        self.column.addWidget(made)

    def _field(self, key: str) -> WordField:
        word = WORDS[key]
        step = word.step or self._kit_stepper(key)
        field = WordField(word.name, lambda typed: self._commit(key, typed), step, size=15)
        field.refused.connect(self.refuse)
        self._fields[key] = field
        return field

    def _kit_stepper(self, key: str) -> Callable[[str, int], str] | None:
        kinds: dict[str, type[Camera] | type[Lens]] = {"camera": Camera, "lens": Lens}
        if key not in kinds:
            return None

        def step(shown: str, way: int) -> str:
            names = [r.name for r in self.bench.notebook.all(kinds[key])]
            if not names:
                return shown
            return names[(names.index(shown) + way) % len(names) if shown in names else 0]

        return step

    def _commit(self, key: str, typed: str) -> None:
        if self._wish is None:
            return
        word = WORDS[key]
        wish = word.edit(self._wish, typed)
        try:
            self.bench.edit_or_raise(lambda book: apply_plan(book, wish, f"change the {word.name}"))
        except EditRefusedError as refusal:
            raise ValueError(str(refusal)) from refusal

    def take_focus(self) -> None:
        """Begin at the film's name."""
        self._fields["film"].setFocus()

    def show_scene(self, scene: Scene) -> None:
        """Fill the sentences from the test, and say and draw what is likely."""
        sheet = scene.sheet
        if sheet is None:
            return
        self._sheet = sheet
        self._found = found_before(self.bench.notebook, sheet)
        book, test = self.bench.notebook, sheet.test
        times = tuple(s.strip.planned_min or 8.0 for s in sheet.strips)
        kind = BY_KEY.get(test.kind, BY_KEY["time"])
        camera = book.get(Camera, test.camera_id) if test.camera_id else None
        lens = book.get(Lens, test.lens_id) if test.lens_id else None
        self._wish = PlanEdit(
            test, times if TIMES in kind.needs else times[:1] or (8.0,), sheet.stock.name,
            sheet.developer.name, sheet.developer.dilution, None,
            camera.name if camera else None, lens.name if lens else None,
        )  # fmt: skip
        self._show_sentences(kind, by_contact(test))
        for key, field in self._fields.items():
            field.show_value(WORDS[key].shown(sheet, self._wish))
        self._advise(sheet)
        # While one steps through a word, words answer at once and the picture follows.
        before = self._scene.sheet if self._scene else None
        stepped = before is not None and before is not sheet and before.test.id == test.id
        self._scene = scene
        if not stepped:
            self._draw(scene)
        self._soon.start(_PAUSE_MS)

    def _show_sentences(self, kind: Kind, tablet: bool) -> None:
        self._question.setText(kind.question)
        needs = {"", *kind.needs} | ({"against"} if kind.key == "compare" else set())
        needs |= {"tablet"} if tablet else set()
        for needed, made in self._sentences:
            made.setVisible(needed in needs)
        if kind.second_words:
            before, _, after = kind.second_words.partition("…")
            self._reword(self._sentences[self._second_at][1], before, after)

    def _reword(self, holder: QWidget, before: str, after: str) -> None:
        """Put the kind's own words around the other factor."""
        said = before + after
        if holder.property("said") == said:
            return
        flow = holder.layout()
        field = self._fields["second"]
        while flow is not None and flow.count():
            item = flow.takeAt(0)
            widget = item.widget() if item else None
            if widget is not None and widget is not field:
                widget.hide()
                widget.deleteLater()
        if flow is not None:
            for word in before.split():
                flow.addWidget(text(word, 15))
            flow.addWidget(field)
            for word in after.split():
                flow.addWidget(text(word, 15))
        holder.setProperty("said", said)

    def _advise(self, sheet: TestSheet) -> None:
        advice = advice_on(self.bench.notebook, sheet)
        changed = drift_from_model(self.bench.notebook, sheet)
        faults = list(advice.faults)
        if changed is not None and len(changed) > 1:
            names = list_text([d.name for d in changed])
            faults.append(
                f"This was to be like another test with one thing changed; now {names} differ, and "
                "what each does can't be told apart."
            )
        self.advice.setText(" ".join(faults))
        self.advice.setVisible(bool(faults))
        self.notes.setText(" ".join(advice.notes[:3]))
        self.notes.setVisible(bool(advice.notes))

    def _settle(self) -> None:
        """The word stands still: draw, and ask for the forecast."""
        if self._scene is not None:
            self._draw(self._scene)
        self._ask()

    def _ask(self) -> None:
        if self._sheet is None or self._sheet.read():
            self.forecast.hide()
            self._least.hide()
            return
        self._least.setVisible(self._sheet.test.kind == "time")
        known = self.forecaster.ask(self._sheet, self._found)
        if known is not None:
            self._show_forecast(known)

    def _ask_smallest(self, words: str) -> None:
        stops = number_typed(words)
        if not 0.02 <= stops <= 2:
            raise ValueError("a wanted sureness lies between 0.02 and 2 stops")
        self._sureness.show_value(f"{stops:.2f}")
        if self._sheet is not None:
            self._smallest.setText("being worked out …")
            self.forecaster.ask_smallest(self._sheet, self._found, stops)

    def _show_forecast(self, made: Forecast) -> None:
        self.forecast.setText(" ".join(made.sentences))
        self.forecast.setVisible(bool(made.sentences))

    def _draw(self, scene: Scene) -> None:
        if scene.sheet is None:
            return
        self._plot.show_look(scene.look)
        measured = scene.analysis if scene.sheet.read() else None
        expected = () if measured else expected_strips(scene.sheet, self._found)
        self._plot.draw(scene.sheet, measured, scene.frame_id, expected=expected)
        count = len(scene.sheet.frames())
        rolls = len({s.strip.roll for s in scene.sheet.strips})
        basis = "a typical film of this EI, assumed, not measured"
        if self._found:
            basis = f"this film as it was found on {self._found.day}, not measured anew"
        likely = f"Where the frames are likely to land: curves of {basis}."
        if measured:
            likely = "Curves as measured."
        on = f" on {rolls} rolls" if rolls > 1 else ""
        self._caption.setText(f"{count} frames in all{on}. {likely}")

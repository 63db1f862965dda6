"""Plan: the test as sentences, every underlined word changed in place."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from PyQt6.QtWidgets import QWidget

from vadrin.app.display.quantities import list_text
from vadrin.app.library.variants import changes_from_source
from vadrin.app.plan.camera_settings import advice_on
from vadrin.app.plan.compared_materials import on_twins
from vadrin.app.plan.expected_curves import found_before
from vadrin.app.plan.kind_pages import BRACKET, BY_KEY, ONE_TIME, ROLL, SECOND, TIMES, Kind
from vadrin.app.plan.planning import EditRefusedError, PlanEdit, apply_plan, by_contact, rolls_begun
from vadrin.app.plan.smallest_plan import Smallest
from vadrin.app.test_sheet import TestSheet
from vadrin.app.workbench import Workbench
from vadrin.notebook.records.all_records import Test
from vadrin.notebook.records.kit import Camera, Lens
from vadrin.ui.stations.plan.forecast_panel import ForecastPanel
from vadrin.ui.stations.plan.plan_words import FORMS, WORDS
from vadrin.ui.stations.station import Scene, Station
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.parts import WordField, chooser, sentence, text


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
        self._sentences: list[tuple[str, QWidget]] = []
        self._question = text("", 17, 700, wrap=True)
        self.column.addWidget(self._question)
        self._build()
        self.column.addWidget(self.refusal)
        self.advice = text("", 13, tone="grease", wrap=True)
        self.notes = text("", 13, tone="soft", wrap=True)
        for label in (self.advice, self.notes):
            self.column.addWidget(label)
        self.forecast_panel = ForecastPanel()
        self.forecast_panel.take.connect(self._take)
        self.forecast_panel.bracket.connect(self._move_bracket)
        self.column.addWidget(self.forecast_panel, 1)
        column = self.forecast_panel.forecast_column
        self.aside = column
        column.sureness.refused.connect(self.refuse)

    def _build(self) -> None:
        f = self._field
        self._say("", "The film is", f("film"), "batch", f("batch"), "in", f("developer"),
                  f("dilution"), "; the meter is set to EI", f("ei"), ".")  # fmt: skip
        self._say(TIMES, "The same exposures on", f("strips"), ", one each developed", f("times"),
                  "min at 20 °C.")  # fmt: skip
        self._say(ONE_TIME, "Developed", f("time"), "min at 20 °C.")
        self._say("against", "Beside the reference, other", f("compared"), ":", f("against"),
                  ".")  # fmt: skip
        self._second_at = len(self._sentences)
        self._say(SECOND, "The other factor:", f("second"), ".")
        self._say(BRACKET, "A", f("subject"), "in", f("light"), ", from", f("first"), "to",
                  f("last"), "stops in", f("step"), ", after", f("blanks"),
                  "kept blank.")  # fmt: skip
        self._say("tablet", "The tablet's steps have densities", f("tablet"),
                  "; the densest exposure is that through none.")  # fmt: skip
        self._say(ROLL, "The film comes as", f("form"), ", with", f("leader"),
                  "lost to the leader and", f("holder"), "of each strip to the holder; it is shot",
                  f("order"), ", the first exposure", f("check"), ".")  # fmt: skip
        self._say("twin", "The second camera is", f("twin"), ".")
        self._say("", "The meter says", f("shutter"), "at", f("aperture"), "; with", f("camera"),
                  "and", f("lens"), "turn the", f("prefer"), "first, neutral density up to",
                  f("filter"), "stops; beyond a second this film takes", f("law"),
                  ".")  # fmt: skip

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
        kinds: dict[str, type[Camera] | type[Lens]] = {
            "camera": Camera, "twin": Camera, "lens": Lens,
        }  # fmt: skip
        if key == "form":
            return chooser(self._forms)
        if key not in kinds:
            return None
        return chooser(lambda: [r.name for r in self.bench.notebook.all(kinds[key])])

    def _forms(self) -> list[str]:
        """Film as it is sold, and rolls other tests have begun and left room on."""
        begun = rolls_begun(self.bench.notebook, self._sheet) if self._sheet else []
        return [*FORMS, *begun]

    def _commit(self, key: str, typed: str) -> None:
        if self._wish is None:
            return
        word = WORDS[key]
        request = word.edit(self._wish, typed)
        try:
            self.bench.edit_or_raise(
                lambda book: apply_plan(book, request, f"change the {word.name}")
            )
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
        before, self._sheet = self._sheet, sheet
        book, test = self.bench.notebook, sheet.test
        times = tuple(s.strip.planned_min or 8.0 for s in sheet.strips)
        kind = BY_KEY.get(test.kind, BY_KEY["time"])
        camera = book.get(Camera, test.camera_id) if test.camera_id else None
        lens = book.get(Lens, test.lens_id) if test.lens_id else None
        twin = book.get(Camera, test.twin_id) if test.twin_id else None
        self._wish = PlanEdit(
            test, times if TIMES in kind.needs else times[:1] or (8.0,), sheet.stock.name,
            sheet.developer.name, sheet.developer.dilution, None,
            camera.name if camera else None, lens.name if lens else None,
            twin.name if twin else None, sheet.stock.reciprocity,
        )  # fmt: skip
        self._show_sentences(kind, test)
        for key, field in self._fields.items():
            field.show_value(WORDS[key].shown(sheet, self._wish))
        self._advise(sheet)
        # While one steps through a word, words answer at once and the picture follows.
        stepped = before is not None and before is not sheet and before.test.id == test.id
        self.forecast_panel.show_plan(scene, found_before(book, sheet), stepped)

    def _show_sentences(self, kind: Kind, test: Test) -> None:
        self._question.setText(kind.question)
        needs = {"", *kind.needs} | ({"against"} if kind.key == "compare" else set())
        needs |= {"tablet"} if by_contact(test) else set()
        needs |= {"twin"} if on_twins(test) else set()
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
        changed = changes_from_source(self.bench.notebook, sheet)
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

    def _take(self, smallest: Smallest) -> None:
        """Change the plan to the smallest one found."""
        if self._wish is not None:
            self._apply(smallest.taken(self._wish), "take the smallest plan")

    def _move_bracket(self, first: float, last: float) -> None:
        if self._wish is not None:
            test = replace(self._wish.test, first_stop=first, last_stop=last)
            self._apply(replace(self._wish, test=test), "move the bracket")

    def _apply(self, request: PlanEdit, label: str) -> None:
        try:
            self.bench.edit_or_raise(lambda book: apply_plan(book, request, label))
        except EditRefusedError as refusal:
            self.refuse(str(refusal))

"""Plan: the test as sentences, every underlined word changed in place."""

from __future__ import annotations

import re
from dataclasses import replace

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QWidget

from vadrin.app.descriptions import PlanSentence, TestDescription, description_of
from vadrin.app.descriptions.plan_word import Word
from vadrin.app.display.words import list_text
from vadrin.app.learning.makers_off import untested_words
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.plan.expected_curves import prior_finding
from vadrin.app.plan.plan_advice import advice_on
from vadrin.app.plan.plan_edit import PlanEdit, apply_plan, plan_edit_of
from vadrin.app.plan.plan_sentences import SENTENCES, Occasion, sentences_of
from vadrin.app.plan.plan_words import WORDS, kit_step
from vadrin.app.plan.small_print import folded_of, small_print
from vadrin.app.plan.smallest_plan import Smallest
from vadrin.app.plan.usual_film import usual_finding
from vadrin.app.plan.variants import changes_from_source
from vadrin.errors import EditRefusedError
from vadrin.ui.actions import hint
from vadrin.ui.kept import OfTest
from vadrin.ui.stations.plan.forecast_panel import ForecastPanel
from vadrin.ui.stations.plan.small_print_row import SmallPrint
from vadrin.ui.stations.station import Station, StationContext, ViewState
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.labels import text
from vadrin.ui.widgets.sentence import sentence


class PlanStation(Station):
    """The question, the plan in sentences, what it will tell, and where its frames will land."""

    _opened: OfTest[bool] = OfTest(bool)

    def __init__(self, given: StationContext) -> None:
        super().__init__(given)
        self.offer(
            hint("Tab", "next field"),
            hint("↑ ↓", "change this field"),
            hint("Enter", "take what you typed"),
            hint("Esc", "drop what you typed"),
        )
        self.column.setSpacing(px(4))
        self.fields: dict[str, WordField] = {}
        self._every: list[tuple[str, WordField]] = []
        self._plan: PlanEdit | None = None
        self._loaded: LoadedTest | None = None
        self._sentences: dict[Occasion | PlanSentence, QWidget] = {}
        self._own: QWidget | None = None
        self._own_of = ""
        self._own_words: dict[str, Word] = {}
        self._question = text("", Role.HEADING, wrap=True)
        self.column.addWidget(self._question)
        self._build()
        self.small_print = SmallPrint(self._unfold)
        self.column.addWidget(self.small_print)
        self.column.addWidget(self.refusal)
        self.advice = text("", Role.REFUSAL, wrap=True)
        self.notes = text("", Role.NOTE, wrap=True)
        for label in (self.advice, self.notes):
            self.column.addWidget(label)
        self.forecast_panel = ForecastPanel(self.given.jobs)
        self.forecast_panel.take.connect(self._take)
        self.forecast_panel.bracket.connect(self._move_bracket)
        self.column.addWidget(self.forecast_panel, 1)
        column = self.forecast_panel.forecast_column
        self.side_panel = column
        column.sureness.refused.connect(self.refuse)

    def _build(self) -> None:
        """Every sentence a plan can need; which of them are shown is decided with each plan."""
        for needed, words in SENTENCES:
            made = self._made(words)
            self._sentences[needed] = made
            self.column.addWidget(made)

    def _made(self, words: str) -> QWidget:
        """A sentence; every other piece of it is the key of a word to fill in."""
        pieces = re.split(r"\{(\w+)\}", words)
        parts: list[str | QWidget] = [
            self._field(piece) if place % 2 else piece for place, piece in enumerate(pieces)
        ]
        return sentence(*parts, role=Role.LEAD)

    def _word(self, key: str) -> Word:
        return self._own_words[key] if key in self._own_words else WORDS[key]

    def _field(self, key: str) -> WordField:
        word = self._word(key)
        step = word.step or kit_step(key, lambda: (self.bench.notebook, self._loaded))
        field = WordField(word.name, lambda typed: self._commit(key, typed), step, role=Role.LEAD)
        field.refused.connect(self.refuse)
        self.fields[key] = field
        self._every.append((key, field))
        return field

    def _commit(self, key: str, typed: str) -> None:
        if self._plan is None:
            return
        word = self._word(key)
        plan = word.edit(self._plan, typed)
        self.bench.edit_or_raise(lambda book: apply_plan(book, plan, f"change the {word.name}"))

    def take_focus(self) -> None:
        """Begin at the film's name."""
        self.fields["film"].setFocus()

    def show_state(self, scene: ViewState) -> None:
        """Fill the sentences from the test, and say and draw what is likely."""
        loaded = scene.loaded
        if loaded is None:
            return
        before, self._loaded = self._loaded, loaded
        book, test = self.bench.notebook, loaded.test
        self._plan = plan_edit_of(book, loaded)
        if test.kind != self._own_of:
            self._make_own(description_of(test.kind))
        values = {k: self._word(k).shown(loaded, self._plan) for k, _ in self._every}
        for key, field in self._every:
            field.show_value(values[key])
        self._advise(loaded)
        self._show_sentences(description_of(test.kind), values)
        # While one steps through a word, words answer at once and the picture follows.
        stepped = before is not None and before is not loaded and before.test.id == test.id
        found = prior_finding(book, loaded)
        usual = usual_finding(book, loaded) if found is None else None
        self.forecast_panel.show_plan(scene, found or usual, stepped)
        new = found is None and not loaded.read()
        self.forecast_panel.forecast_column.show_learnt(
            untested_words(book, loaded.test) if new else ""
        )

    def _show_sentences(self, page: TestDescription, values: dict[str, str]) -> None:
        if self._plan is None:
            return
        self._question.setText(page.question)
        shown = sentences_of(self._plan.test)
        # What was opened, or is at fault, stays open: a word must be there to be changed.
        open_all = self._opened or bool(self.advice.text())
        folded = [] if open_all else folded_of(self._plan, shown)
        for needed, made in self._sentences.items():
            made.setVisible(needed in shown and needed not in folded)
        self.small_print.show_words(small_print(folded, values))

    def _unfold(self, last: bool) -> None:
        """Open what is folded away, and begin at its first word, or its last."""
        loaded = self._loaded
        if loaded is None or self._plan is None:
            return
        folded = folded_of(self._plan, sentences_of(self._plan.test))
        self._opened = True
        self._show_sentences(description_of(loaded.test.kind), {})
        fields = [f for n in folded for f in self._sentences[n].findChildren(WordField)]
        if fields:
            fields[-1 if last else 0].setFocus(Qt.FocusReason.TabFocusReason)

    def _make_own(self, page: TestDescription) -> None:
        """Put the sentence of a type's own options after the one it follows in its list."""
        if self._own is not None:
            self._own.hide()
            self._own.deleteLater()
        self._own, self._own_of, self._own_words = None, page.key, dict(page.own_words)
        self.fields = {k: f for k, f in self.fields.items() if k in WORDS}
        self._every = [(k, f) for k, f in self._every if k in WORDS]
        if not page.own_sentence:
            return
        before = self._sentences[page.sentences[page.sentences.index(PlanSentence.OWN) - 1]]
        self._own = self._made(page.own_sentence)
        self.column.insertWidget(self.column.indexOf(before) + 1, self._own)
        # Made last, they would come last under Tab.
        last = before.findChildren(WordField)[-1]
        for field in self._own.findChildren(WordField):
            self.setTabOrder(last, field)
            last = field

    def _advise(self, loaded: LoadedTest) -> None:
        advice = advice_on(self.bench.notebook, loaded)
        changed = changes_from_source(self.bench.notebook, loaded)
        faults = list(advice.faults)
        if changed is not None and len(changed) > 1:
            names = list_text([d.name for d in changed])
            faults.append(
                f"{names} now differ from the earlier test, so their effects cannot be separated."
            )
        self.advice.setText(" ".join(faults))
        self.advice.setVisible(bool(faults))
        self.notes.setText(" ".join(advice.notes[:3]))
        self.notes.setVisible(bool(advice.notes))

    def _take(self, smallest: Smallest) -> None:
        """Change the plan to the smallest one found."""
        if self._plan is not None:
            self._apply(smallest.taken(self._plan), "take the smallest plan")

    def _move_bracket(self, first: float, last: float) -> None:
        if self._plan is not None:
            test = replace(self._plan.test, first_stop=first, last_stop=last)
            self._apply(replace(self._plan, test=test), "move the bracket")

    def _apply(self, plan: PlanEdit, label: str) -> None:
        try:
            self.bench.edit_or_raise(lambda book: apply_plan(book, plan, label))
        except EditRefusedError as refusal:
            self.refuse(str(refusal))

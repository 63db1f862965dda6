"""The rules of thumb of the Process station: predict, seal, and see what is left of them."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtWidgets import QGridLayout, QHBoxLayout, QVBoxLayout, QWidget

from vadrin.app.display.quantities import minutes_text
from vadrin.app.document.stations import key_to
from vadrin.app.document.workbench import Workbench
from vadrin.app.entry.numbers import number_typed
from vadrin.app.entry.stepping import chooser
from vadrin.app.entry.times import minutes_typed
from vadrin.app.process.rules_of_thumb import (
    RuleOfThumb,
    TrialLine,
    all_rules,
    by_developer,
    prediction,
    rule_score,
    rule_typed,
    seal,
    trial_lines,
    type_measured,
)
from vadrin.app.results.rule_scores import score_words
from vadrin.errors import EntryError
from vadrin.ui.kept import OfTest
from vadrin.ui.stations.station import ViewState
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.grids import empty_grid
from vadrin.ui.widgets.labels import rule as hairline
from vadrin.ui.widgets.labels import text
from vadrin.ui.widgets.sentence import sentence

_HEADS = ("Rule", "Sealed", "In", "Given", "It said", "Measured", "")


class RulesPage(QWidget):
    """A sentence that predicts, the score of its rule, and every trial so far.

    Parameters
    ----------
    bench : Workbench
    refuse : callable
        Says why something typed was not taken.
    """

    _rule: OfTest[RuleOfThumb | None] = OfTest(lambda: None)
    _given: OfTest[float | None] = OfTest(lambda: None)
    _usual: OfTest[float | None] = OfTest(lambda: None)

    def __init__(self, bench: Workbench, refuse: Callable[[str], None]) -> None:
        super().__init__()
        self.bench, self._refuse = bench, refuse
        names = chooser(lambda: [r.name for r in all_rules(bench.notebook)])
        self.name = WordField("rule of thumb", self._choose, names, role=Role.LEAD)
        self.given = WordField("what it is given", self._give, role=Role.LEAD)
        self.usual = WordField("usual time", self._usually, role=Role.LEAD)
        for field in (self.name, self.given, self.usual):
            field.refused.connect(refuse)
        self._says = text("", Role.ENTRY)
        self._score = text("", Role.NOTE, wrap=True)
        self.seal = button("Record this prediction", self.keep)
        self._grid = QGridLayout()
        self._grid.setHorizontalSpacing(px(22))
        self._grid.setVerticalSpacing(px(6))
        self._grid.setColumnStretch(len(_HEADS), 1)
        row = QHBoxLayout()
        row.addWidget(self._says)
        row.addWidget(self.seal)
        row.addStretch(1)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(px(8))
        column.addWidget(
            sentence(
                "The rule",
                self.name,
                "is given",
                self.given,
                "; the usual time is",
                self.usual,
                ".",
                role=Role.LEAD,
            )
        )
        column.addLayout(row)
        column.addWidget(self._score)
        column.addWidget(hairline())
        column.addLayout(self._grid)
        column.addStretch(1)

    def show_state(self, _scene: ViewState | None = None) -> None:
        """Show the chosen rule and all trials; they are the same for every test."""
        book = self.bench.notebook
        known = all_rules(book)
        if self._rule is None or self._rule not in known:
            self._rule = known[0] if known else None
        rule = self._rule
        self.name.show_value(rule.name if rule else "none yet")
        takes = f" {rule.takes}" if rule else ""
        self.given.show_value("—" if self._given is None else f"{self._given:g}{takes}")
        self.usual.show_value("—" if self._usual is None else minutes_text(self._usual, exact=True))
        said, words = self._prediction()
        self._says.setText(words)
        self._says.setFont(role_font(Role.ENTRY if said else Role.BODY))
        self.seal.setVisible(said)
        self._score.setText(
            f"{rule.name}: {score_words(rule_score(book, rule))}. {by_developer(book, rule)}"
            if rule
            else "No rule yet: type a share of the time for each stop, such as 25 %, or write one "
            f"down in the cupboard ({key_to('cupboard')}), under rules of thumb."
        )
        self._fill()

    def _prediction(self) -> tuple[bool, str]:
        """Whether the rule says anything, and what, or why not."""
        if self._rule is None or self._given is None:
            return False, ""
        try:
            minutes = prediction(self._rule, self._given, self._usual)
        except EntryError as error:
            return False, f"It says nothing yet: {error}."
        return True, f"It says {minutes_text(minutes)}."

    def _fill(self) -> None:
        empty_grid(self._grid)
        lines = trial_lines(self.bench.notebook)
        for column, words in enumerate(_HEADS if lines else ()):
            self._grid.addWidget(text(words, Role.CAPTION), 0, column)
        for row, line in enumerate(lines, start=1):
            measured = WordField(
                f"measured, trial {line.trial_id}", self._commit(line.trial_id), role=Role.BODY
            )
            measured.refused.connect(self._refuse)
            measured.show_value(line.measured)
            shown = (line.rule, line.when, line.where, line.given, line.predicted)
            for column, words in enumerate(shown):
                self._grid.addWidget(text(words), row, column)
            self._grid.addWidget(measured, row, 5)
            self._grid.addWidget(self._outcome(line), row, 6)

    def _outcome(self, line: TrialLine) -> QWidget:
        """How the rule did, or what the test found that it can be held against."""
        if not line.found:
            return text(line.ratio)
        commit = self._commit(line.trial_id)
        taken = button(f"Take {line.found}: {line.found_how}", lambda: commit(line.found))
        taken.setAccessibleName(f"take what the test found, trial {line.trial_id}")
        return taken

    def _commit(self, trial_id: int) -> Callable[[str], None]:
        def commit(words: str) -> None:
            self.bench.edit_or_raise(lambda book: type_measured(book, trial_id, words))
            self.show_state()

        return commit

    def _choose(self, words: str) -> None:
        self._rule = self.bench.edit_or_raise(lambda book: rule_typed(book, words)) or self._rule
        self.show_state()

    def _give(self, words: str) -> None:
        plain = words.strip().split()[0] if words.strip() else ""
        self._given = None if plain in ("", "—") else number_typed(plain, "40")
        self.show_state()

    def _usually(self, words: str) -> None:
        self._usual = None if words.strip() in ("", "—") else minutes_typed(words)
        self.show_state()

    def keep(self) -> None:
        """Write the prediction down, sealed with its date."""
        rule, given, usual = self._rule, self._given, self._usual
        loaded = self.bench.loaded
        if rule is None or given is None:
            return
        test = loaded.test if loaded else None
        self.bench.edit(lambda book: seal(book, rule, given, usual, test))
        self.show_state()

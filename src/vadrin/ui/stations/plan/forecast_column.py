"""What a plan is going to tell, where the finding will stand once there are readings."""

from __future__ import annotations

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QGridLayout, QLabel, QVBoxLayout, QWidget

from vadrin.app.entry.numbers import number_typed, number_within
from vadrin.app.plan.plan_forecast import ForecastLine, PlanForecast
from vadrin.app.plan.smallest_plan import Smallest
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.labels import rule, text
from vadrin.ui.widgets.sentence import sentence

_NOT_YET, _BLANK = "…", "\u00a0"
_HINT = "Change it to see the smallest plan."


def _finer(shown: str, way: int) -> str:
    return f"{max(0.05, number_typed(shown) + 0.05 * way):.2f}"


class _Lines(QWidget):
    """Names with what is told of each; the same labels take new words at every key."""

    def __init__(self, first: tuple[Role, ...], then: Role) -> None:
        super().__init__()
        self._first, self._then = first, then
        self._grid = QGridLayout(self)
        self._grid.setContentsMargins(0, 0, 0, 0)
        self._grid.setHorizontalSpacing(px(10))
        self._grid.setVerticalSpacing(px(3))
        self._grid.setColumnStretch(0, 1)
        self._rows: list[tuple[QLabel, QLabel, QLabel]] = []

    def show_lines(self, lines: tuple[ForecastLine, ...]) -> None:
        """Show as many lines as there are."""
        while len(self._rows) < len(lines):
            self._add()
        for place, row in enumerate(self._rows):
            line = lines[place] if place < len(lines) else ForecastLine("", "")
            for label, words in zip(row, (line.name, line.shown, line.why), strict=True):
                if label.text() != words:
                    label.setText(words)
                label.setVisible(bool(words))

    def wait(self) -> None:
        """Keep the names; what is told of them is not known yet."""
        for _, shown, why in self._rows:
            if shown.text():
                shown.setText(_NOT_YET)
            # Hidden, the lines under it would jump for the moment it takes.
            why.setText(_BLANK if why.text() else "")

    def _add(self) -> None:
        place = len(self._rows)
        role = self._first[place] if place < len(self._first) else self._then
        name, shown = text("", Role.BODY, wrap=True), text("", role)
        why = text("", Role.CAPTION, wrap=True)
        # Into the layout first: without a parent a label would flash up as a window.
        self._grid.addWidget(name, 2 * place, 0)
        self._grid.addWidget(shown, 2 * place, 1)
        self._grid.addWidget(why, 2 * place + 1, 0, 1, 2)
        self._rows.append((name, shown, why))


class ForecastColumn(QWidget):
    """The forecast as lines, what another plan would tell, and the smallest for a sureness."""

    asked = pyqtSignal(float)
    taken = pyqtSignal(object)

    def __init__(self) -> None:
        super().__init__()
        self.setAccessibleName("expected precision of this plan")
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(px(6))
        column.addWidget(text("Expected precision", Role.SECTION))
        self._answers, self._variants = (
            _Lines((Role.HEADING, Role.HEADING), Role.SUBHEADING),
            _Lines((), Role.STRONG),
        )
        column.addWidget(self._answers)
        self._between = rule()
        column.addWidget(self._between)
        column.addWidget(self._variants)
        self.basis = text("", Role.CAPTION, wrap=True)
        column.addWidget(self.basis)
        self.sureness = WordField("wanted precision in stops", self._ask, _finer, Role.BODY)
        self.sureness.show_value("0.20")
        self.smallest = text(_HINT, Role.BODY, wrap=True)
        self._learnt = text("", Role.CAPTION, wrap=True)
        self.take_it = button("Use this plan", self._take)
        self.take_it.hide()
        self._rule = rule()
        self._least = sentence(
            "Wanted precision of the EI: ±", self.sureness, "stop", role=Role.BODY
        )
        for part in (self._rule, self._least, self.smallest, self.take_it, self._learnt):
            column.addWidget(part)
        column.addStretch(1)
        self._found: Smallest | None = None

    def show_forecast(self, made: PlanForecast | None) -> None:
        """Show what to expect; None while the film's likely curves are worked out."""
        self.basis.setText(made.basis if made else "What to expect is being worked out …")
        self._answers.show_lines(made.answers if made else ())
        self._variants.show_lines(made.variants if made else ())
        self._between.setVisible(bool(made and made.variants))

    def show_learnt(self, words: str) -> None:
        """What fewer strips would tell by the other tests; empty for nothing."""
        self._learnt.setText(words)
        self._learnt.setVisible(bool(words))

    def wait(self) -> None:
        """The plan has changed: what was told of the one before is taken back."""
        for lines in (self._answers, self._variants):
            lines.wait()

    def show_least(self, wanted: bool) -> None:
        """Offer to look for the smallest plan, or not."""
        for part in (self._rule, self._least, self.smallest):
            part.setVisible(wanted)

    def forget_smallest(self) -> None:
        """What was found for another plan goes."""
        self.take_it.hide()
        self.smallest.setText(_HINT)

    def working(self) -> None:
        """The smallest plan is being looked for."""
        self.smallest.setText("Being worked out …")

    def show_smallest(self, found: Smallest) -> None:
        """Show the smallest plan, and offer to take it."""
        self._found = found
        self.smallest.setText(found.sentence)
        self.take_it.setVisible(found.layout is not None)

    def _ask(self, words: str) -> None:
        stops = number_within(
            words, 0.02, 2, "a wanted precision lies between 0.02 and 2 stops", "0.20"
        )
        self.sureness.show_value(f"{stops:.2f}")
        self.take_it.hide()
        self.asked.emit(stops)

    def _take(self) -> None:
        if self._found is not None:
            self.taken.emit(self._found)

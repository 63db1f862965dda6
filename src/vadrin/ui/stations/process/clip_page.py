"""The clip on the Process station: it goes first, and says go or another time."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from vadrin.app.document.workbench import Workbench
from vadrin.app.entry.stepping import chooser
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.process.clip_judging import (
    LOOKS,
    clip_answer,
    clip_answer_of,
    clip_pieces,
    seen_through_rule,
    type_clip,
    type_seen_through,
)
from vadrin.app.process.rules_of_thumb import rule_score
from vadrin.app.results.rule_scores import score_words
from vadrin.errors import EntryError
from vadrin.ui.kept import OfTest
from vadrin.ui.plots.two_greys import TwoGreys
from vadrin.ui.stations.station import ViewState
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.labels import text
from vadrin.ui.widgets.sentence import sentence

_HOW = (
    "1. Expose a clip of the film to full light.\n"
    "2. Develop it in this bath, at this temperature, for the planned time. Fix it.\n"
    "3. Lay it beside a clip known to be good. Read both, match each between two wedge steps "
    "(1.20-1.35), or hold print behind them.\n"
    "4. Weak developer still blackens film: judge how dense, not whether it is dark."
)


class ClipPage(QWidget):
    """Two ways of judging a clip, and what it says.

    Parameters
    ----------
    bench : Workbench
    refuse : callable
        Says why something typed was not taken.
    """

    _typed: OfTest[dict[str, str]] = OfTest(lambda: {"clip": "—", "good": "—", "base": "—"})

    def __init__(self, bench: Workbench, refuse: Callable[[str], None]) -> None:
        super().__init__()
        self.bench, self._refuse = bench, refuse
        self._loaded: LoadedTest | None = None
        names = {
            "clip": "density of the clip",
            "good": "density of the good clip",
            "base": "base plus fog",
        }
        self.fields = {
            key: WordField(name, self._taking(key), role=Role.LEAD) for key, name in names.items()
        }
        looks = chooser(lambda: list(LOOKS))
        self.looks = WordField("print through the clip", self._see, looks, role=Role.LEAD)
        for field in (*self.fields.values(), self.looks):
            field.refused.connect(refuse)
        self.judge = button("Compare these densities", self.by_densities)
        self.greys = TwoGreys()
        self._says = text("", Role.INDEX)
        self._words = text("", Role.LEAD, wrap=True)
        row = QHBoxLayout()
        f = self.fields
        row.addWidget(
            sentence(
                "The clip reads",
                f["clip"],
                ", the good clip",
                f["good"],
                ", the base",
                f["base"],
                ".",
                role=Role.LEAD,
            ),
            1,
        )
        row.addWidget(self.judge)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(px(8))
        column.addWidget(text(_HOW, Role.NOTE, wrap=True))
        column.addLayout(row)
        column.addWidget(
            sentence(
                "Or: print behind it looks", self.looks, "beside the good clip.", role=Role.LEAD
            )
        )
        self._score = text("", Role.NOTE, wrap=True)
        column.addWidget(self._score)
        column.addWidget(self.greys)
        column.addWidget(self._says)
        column.addWidget(self._words)
        column.addStretch(1)

    def show_state(self, scene: ViewState) -> None:
        """Show what the newest clip of a test says."""
        loaded, look = scene.loaded, scene.look
        if loaded is None:
            return
        self._loaded = loaded
        for key, field in self.fields.items():
            field.show_value(self._typed[key])
        self.looks.show_value("—")
        answer = clip_answer(loaded)
        self.greys.show_pieces(clip_pieces(loaded), look)
        self.greys.setVisible(clip_answer_of(loaded) is not None)
        self._says.setText(answer.says)
        book = self.bench.notebook
        rule = seen_through_rule(book)
        tried = score_words(rule_score(book, rule)) if rule else "not tried yet"
        self._score.setText(
            f"Judging this way is a rule of thumb under test ({tried}). Enter what the roll then "
            "needed under Rules of thumb."
        )
        self._words.setText(f"{answer.words[:1].upper()}{answer.words[1:]}")

    def _taking(self, key: str) -> Callable[[str], None]:
        def take(words: str) -> None:
            self._typed[key] = words.strip() or "—"

        return take

    def by_densities(self) -> None:
        """Keep the three densities and say what they mean."""
        loaded, typed = self._loaded, self._typed
        if loaded is None:
            return
        try:
            self.bench.edit_or_raise(
                lambda book: type_clip(book, loaded, typed["clip"], typed["good"], typed["base"])
            )
            self._refuse("")
        except EntryError as error:
            self._refuse(str(error))

    def _see(self, words: str) -> None:
        loaded = self._loaded
        if loaded is not None:
            self.bench.edit_or_raise(lambda book: type_seen_through(book, loaded, words))

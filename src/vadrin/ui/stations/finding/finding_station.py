"""Finding: the schools side by side, the push table by both holds, and the decision."""

from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QHBoxLayout, QScrollArea, QVBoxLayout, QWidget

from vadrin.app.display.quantities import date_text, minutes_text, number_typed
from vadrin.app.process.development import choose_school, choose_target, decide, sign
from vadrin.app.results.answer import answer_of
from vadrin.app.results.darkroom_card import target_text
from vadrin.app.results.decision_basis import changes_since_decision, present_answer
from vadrin.app.results.headline import SCHOOL_WORDS
from vadrin.app.results.school_rows import limits_text
from vadrin.app.test_sheet import TestSheet
from vadrin.app.workbench import Workbench
from vadrin.core.exposure.arithmetic import marked_ei
from vadrin.core.fitting.family import TARGETS
from vadrin.core.results.analysis import Analysis
from vadrin.ui.stations.finding.tables import comparison_table, push_table, school_table
from vadrin.ui.stations.station import Scene, Station
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.parts import WordField, button, chooser, rule, sentence, text

_KINDS = {
    "average gradient": "average_gradient",
    "Zone VIII density": "zone8",
    "delta D": "iso",
    "contrast index": "contrast_index",
    "scene range in stops": "scene",
}


class FindingStation(Station):
    """Weigh the answers against each other and decide."""

    keys = (
        ("↑ ↓", "step the target, at its underlined word"),
        ("Ctrl+D", "decide: write the finding down with its grounds"),
    )

    def __init__(self, bench: Workbench) -> None:
        super().__init__(bench)
        self._kind = WordField("measure of contrast", self._set_kind, chooser(list(_KINDS)))
        self._value = WordField("wanted value", self._set_value, self._step_value)
        self._school = WordField("school", self._set_school, chooser(list(SCHOOL_WORDS)))
        for field in (self._kind, self._value, self._school):
            field.refused.connect(self.refuse)
        self.column.addWidget(
            sentence(
                "Develop to an",
                self._kind,
                "of",
                self._value,
                "; rate by the",
                self._school,
                "school.",
            )
        )
        self.column.addWidget(self.refusal)
        self._area = QScrollArea()
        self._area.setWidgetResizable(True)
        self._area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.column.addWidget(self._area, 1)
        self.rotten = text("", 13, tone="grease", wrap=True)
        self.rotten.hide()
        self.column.addWidget(self.rotten)
        foot = QHBoxLayout()
        self._decide = button("Decide on this", self._write)
        self.bind("Ctrl+D", self._write)
        self._decided = text("", 13, tone="done")
        foot.addWidget(self._decide)
        foot.addWidget(self._decided)
        foot.addStretch(1)
        self.column.addLayout(foot)
        self._by = WordField("who decided", lambda w: self._sign(decided_by=w.strip()), size=15)
        self._because = WordField("why it was decided", lambda w: self._sign(note=w.strip()),
                                  size=15)  # fmt: skip
        self._signed = sentence("Decided by", self._by, "because", self._because, size=15)
        self.column.addWidget(self._signed)
        self._analysis: Analysis | None = None

    def show_scene(self, scene: Scene) -> None:
        """Show the answers."""
        if scene.sheet is None:
            return
        test = scene.sheet.test
        self._analysis = scene.analysis
        kinds = {key: name for name, key in _KINDS.items()}
        self._kind.show_value(kinds.get(test.target_kind, test.target_kind))
        self._value.show_value(f"{test.target_value:g}")
        self._school.show_value(test.school)
        body = QWidget()
        column = QVBoxLayout(body)
        column.setContentsMargins(0, 0, px(6), 0)
        column.setSpacing(px(6))
        if scene.analysis is None or not scene.analysis.strips:
            words = "No finding yet: read the blank frames and the bracket of two strips."
            column.addWidget(text(words, 15, wrap=True))
        else:
            if scene.analysis.compared:
                column.addWidget(comparison_table(scene.sheet, scene.analysis))
                column.addWidget(rule())
            self._tables(column, scene.analysis)
        column.addStretch(1)
        self._area.setWidget(body)
        self._show_decision(scene.sheet)

    @staticmethod
    def _tables(column: QVBoxLayout, analysis: Analysis) -> None:
        """The schools and the pushes, where more than one time was tried."""
        if not analysis.schools and not analysis.finding.time_min.present:
            words = f"No push or pull can be told: {analysis.finding.time_min.why}."
            column.addWidget(text(words, 13, tone="soft", wrap=True))
            return
        column.addWidget(school_table(analysis))
        column.addWidget(rule())
        column.addWidget(push_table(analysis))
        column.addWidget(text(limits_text(analysis), 13, tone="soft", wrap=True))

    def _show_decision(self, sheet: TestSheet) -> None:
        ready = self._analysis is not None and answer_of(sheet, self._analysis).ready
        self._decide.setEnabled(ready)
        rot = changes_since_decision(sheet)
        self.rotten.setVisible(rot is not None)
        self._decide.setText("Decide anew" if rot else "Decide on this")
        if rot is not None:
            now = present_answer(sheet, self._analysis) if self._analysis else "being worked out"
            self.rotten.setText(f"{rot.sentence()} With them it is now {now}. What was decided "
                                "stays as it is until you decide anew.")  # fmt: skip
        self._signed.setVisible(bool(sheet.findings))
        if sheet.findings:
            last = sheet.findings[-1]
            self._by.show_value(last.decided_by)
            self._because.show_value(last.note)
            when = date_text(last.decided_at)
            self._decided.setText(
                f"Decided {when}: EI {marked_ei(last.exposure_index)}, "
                f"{minutes_text(last.time_min)} min."
            )
        else:
            self._decided.setText("" if ready else "A decision needs an EI and a time.")

    def _set_kind(self, words: str) -> None:
        found = [key for name, key in _KINDS.items() if words.strip().lower() in name.lower()]
        if len(found) != 1:
            raise ValueError(f"a target is one of: {', '.join(_KINDS)}")
        sheet = self.bench.sheet
        if sheet is not None:
            test, kind = sheet.test, found[0]
            self.bench.edit(lambda n: choose_target(n, test, kind, TARGETS[kind]))

    def _set_value(self, words: str) -> None:
        sheet = self.bench.sheet
        if sheet is None:
            return
        value, test = number_typed(words), sheet.test
        top = 15.0 if test.target_kind == "scene" else 3.0
        if not 0.1 <= value <= top:
            raise ValueError(
                f"{target_text(test.target_kind, value)} is out of reach; try "
                f"{TARGETS.get(test.target_kind, 0.58):g}"
            )
        self.bench.edit(lambda n: choose_target(n, test, test.target_kind, value))

    def _step_value(self, shown: str, way: int) -> str:
        kind = self.bench.sheet.test.target_kind if self.bench.sheet else ""
        step = 1.0 if kind == "scene" else 0.01
        return f"{float(shown) + way * step:.4g}"

    def _set_school(self, words: str) -> None:
        found = [name for name in SCHOOL_WORDS if words.strip().lower() in name]
        if len(found) != 1:
            raise ValueError(f"a school is one of: {', '.join(SCHOOL_WORDS)}")
        sheet = self.bench.sheet
        if sheet is not None:
            test = sheet.test
            self.bench.edit(lambda n: choose_school(n, test, found[0]))

    def _sign(self, **words: str) -> None:
        sheet = self.bench.sheet
        if sheet is not None and sheet.findings:
            last = sheet.findings[-1]
            self.bench.edit(lambda notebook: sign(notebook, last, **words))

    def _write(self) -> None:
        sheet, analysis = self.bench.sheet, self._analysis
        if sheet is None or analysis is None or not answer_of(sheet, analysis).ready:
            return
        self.bench.edit(lambda notebook: decide(notebook, sheet, analysis))

    def take_focus(self) -> None:
        """Begin at the target."""
        self._value.setFocus()

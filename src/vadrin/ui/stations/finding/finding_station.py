"""Finding: the methods side by side, the push table by both holds, and the decision."""

from __future__ import annotations

from dataclasses import replace
from functools import cached_property, partial

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from vadrin.app.decisions.decision import decide, may_decide, sign
from vadrin.app.decisions.decision_basis import changes_since_decision, present_answer
from vadrin.app.descriptions import answers_itself
from vadrin.app.display.words import date_text
from vadrin.app.document.state import State
from vadrin.app.document.stations import station_place
from vadrin.app.document.workbench import Topic
from vadrin.app.findings.decided_words import decided_text
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.overview.finding_notes import beside_finding
from vadrin.app.overview.finding_sections import Section
from vadrin.app.results.rows_to_copy import answer_rows
from vadrin.app.test_types.long_exposures import may_write_law, write_law
from vadrin.errors import EntryError
from vadrin.ui.actions import Action, hint
from vadrin.ui.kept import OfTest
from vadrin.ui.stations.finding.answer_pictures import add_pictures
from vadrin.ui.stations.finding.answer_views import answer_view, with_sections
from vadrin.ui.stations.finding.asked_sentence import AskedSentence
from vadrin.ui.stations.finding.pictures_page import WAYS, PicturesPage
from vadrin.ui.stations.station import Station, StationContext, ViewState
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.clipboard import put_on_clipboard
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.labels import text
from vadrin.ui.widgets.page_links import PageLinks
from vadrin.ui.widgets.page_stack import PageStack
from vadrin.ui.widgets.scrolling import scrolled
from vadrin.ui.widgets.sentence import flowing, sentence

_ANSWER, _PICTURES = "answer", "pictures"
_PAGES = {_ANSWER: "Answer", _PICTURES: "Pictures"}
_SHORT = 30
"""Letters of an answer up to which it stands on the button that records it."""


class FindingStation(Station):
    """Weigh the answers against each other and decide."""

    wants_finding = False

    _in_full: OfTest[bool] = OfTest(bool)
    page: OfTest[str] = OfTest(str)

    def __init__(self, given: StationContext) -> None:
        super().__init__(given)
        self.asked = AskedSentence(self.bench, self.refuse)
        self._area = scrolled(by_keys=True)
        self._area.setAccessibleName("answers")
        self._area.setMinimumHeight(px(80))
        self.outdated = text("", Role.REFUSAL, wrap=True)
        self.outdated.hide()
        self._decide = button("Record decision", self._write)
        self.write_law = button("Save correction with this film", self._write_law, primary=True)
        self._decided = text("", Role.DONE)
        self._by = WordField(
            "who decided", lambda w: self._sign(decided_by=w.strip()), role=Role.LEAD
        )
        self._because = WordField(
            "why it was decided", lambda w: self._sign(note=w.strip()), role=Role.LEAD
        )
        self._methods = button("", self._unfold, link=True)
        self._signed = sentence("Decided by", self._by, "because", self._because, role=Role.LEAD)
        self._state: State | None = None
        self._last: ViewState | None = None
        self._head = PageLinks(_PAGES, self.turn_to)
        self._lay_out()
        self.offer(
            hint("↑ ↓", "step the target, at its underlined word"),
            Action(
                "finding.decide",
                "decide: write the finding down with what it rests on",
                self._write,
                ("Ctrl+D",),
            ),
            Action(
                "finding.methods",
                "what other EI methods find, in full or in a line",
                self._unfold,
                ("M",),
            ),
            Action("finding.copy", "copy the rows as a table", self.copy_rows, ("Ctrl+Shift+C",)),
            Action("finding.pictures", "pictures, and back", self._turn_over, ("Alt+P",)),
            *(
                Action(f"finding.{key}", f"pictures {way}", partial(self._arrange, way), (key,))
                for key, way in zip("BTW", WAYS, strict=True)
            ),
            Action("finding.negative", "pictures as negatives", partial(self._look, "N"), ("N",)),
            Action(
                "finding.print",
                "pictures printed by the other exposure",
                partial(self._look, "F"),
                ("F",),
            ),
            Action(
                "finding.marks", "hatch what pictures have lost", partial(self._look, "H"), ("H",)
            ),
            Action("finding.save", "save the pictures shown", self._save_pictures, ("Ctrl+S",)),
            hint("double click", "in one picture over the other: point the meter there"),
            hint("← → ↑ ↓", "in one picture over the other: move the seam, take another beside"),
        )

    def _lay_out(self) -> None:
        self._answer = QWidget()
        column = QVBoxLayout(self._answer)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(px(8))
        place = station_place("finding")
        onward = button(place.onward, lambda: self.bench.go(place.goes_on), primary=True)
        foot = QHBoxLayout()
        foot.setSpacing(px(14))
        acts = (self._decide, self.write_law, self._decided, self._methods)
        foot.addWidget(flowing(*acts, gap=14), 1)
        foot.addWidget(onward, 0, Qt.AlignmentFlag.AlignTop)
        column.addWidget(self.asked)
        column.addWidget(self._area, 1)
        column.addWidget(self.outdated)
        column.addLayout(foot)
        column.addWidget(self._signed)
        self._stack = PageStack()
        self.column.addWidget(self._head)
        self.column.addWidget(self.refusal)
        self.column.addWidget(self._stack, 1)
        self._put_up()

    @cached_property
    def pictures(self) -> PicturesPage:
        """The finding seen."""
        return PicturesPage(self.bench, self.given.jobs, self.refuse, self.given.ask_file)

    def turn_to(self, name: str) -> None:
        """Show the answer or its pictures, whenever this test is looked at here."""
        self.page = name
        self._put_up()
        if self._last is not None:
            self.show_state(self._last)
        self.take_focus()
        self.bench.changed.emit(Topic.PAGE)

    def _put_up(self) -> None:
        name = self.page or _ANSWER
        self._stack.show_page(self._answer if name == _ANSWER else self.pictures)
        self._head.show_page(name, _PAGES[name])

    def _turn_over(self) -> None:
        self.turn_to(_ANSWER if self.page == _PICTURES else _PICTURES)

    def _look(self, key: str) -> None:
        """Turn one thing of the pictures, and go to them where they are not shown."""
        if self.page != _PICTURES:
            self.turn_to(_PICTURES)
        self.pictures.look_otherwise(key)

    def _save_pictures(self) -> None:
        if self.page == _PICTURES:
            self.pictures.save_row.save()

    def _arrange(self, way: str) -> None:
        if self.page != _PICTURES:
            self.turn_to(_PICTURES)
        self.pictures.arrange(way)

    def show_state(self, scene: ViewState) -> None:
        """Show the answers."""
        if scene.loaded is None:
            return
        self._last = scene
        self._put_up()
        test = scene.loaded.test
        self._state = scene.state
        if self.page == _PICTURES:
            self.pictures.show_state(scene)
            return
        own = answers_itself(test.kind)
        self.asked.setVisible(not own)
        self.write_law.setVisible(may_write_law(scene.loaded))
        self.asked.show_asked(scene.loaded)
        self._methods.setVisible(not own and scene.analysis is not None)
        self._methods.setText("Fold EI methods (M)" if self._in_full else "Compare EI methods (M)")
        scene = replace(scene, in_full=self._in_full)
        view = answer_view(test.kind)(scene)
        self._area.setWidget(with_sections(view, scene, self._beside(scene)))
        add_pictures(
            view,
            scene,
            self.bench,
            self.given.jobs,
            self.pictures.looking,
            partial(self.turn_to, _PICTURES),
        )
        if scene.loaded is not None:
            self._show_decision(scene.loaded)

    def _unfold(self) -> None:
        """Show what other methods find in full, or in a line again."""
        if self._last is not None:
            self._in_full = not self._in_full
            self.show_state(self._last)

    def _beside(self, scene: ViewState) -> tuple[Section, ...]:
        """What an eye, paper or a rule says beside the finding."""
        return () if scene.state is None else beside_finding(self.bench.notebook, scene.state)

    def _show_decision(self, loaded: LoadedTest) -> None:
        state = self._state
        ready = state is not None and may_decide(state)
        self._decide.setEnabled(ready)
        changes = changes_since_decision(loaded)
        self.outdated.setVisible(changes is not None)
        act = "Record new decision" if changes else "Record decision"
        told = present_answer(state) if state is not None and ready else ""
        self._decide.setText(f"{act}: {told}" if told and len(told) <= _SHORT else act)
        if changes is not None:
            settled = state is not None and state.analysis is not None
            now = present_answer(state) if state is not None and settled else "being worked out"
            self.outdated.setText(
                f"{changes.sentence()} Current finding: {now}. The decision is "
                "kept until you record a new one."
            )
        self._signed.setVisible(bool(loaded.findings))
        if loaded.findings:
            last = loaded.findings[-1]
            self._by.show_value(last.decided_by)
            self._because.show_value(last.note)
            when = date_text(last.decided_at)
            self._decided.setText(f"Decided {when}: {decided_text(last)}.")
        else:
            own = answers_itself(loaded.test.kind)
            waits = "A decision needs an answer." if own else "A decision needs an EI and a time."
            self._decided.setText("" if ready else waits)

    def copy_rows(self) -> None:
        """Put the rows on the clipboard, tab-separated, with their heads."""
        rows = answer_rows(self._state) if self._state is not None else ""
        put_on_clipboard(rows)
        said = "The rows are on the clipboard." if rows else "There are no rows to copy yet."
        self.bench.said.emit(said)

    def _write_law(self) -> None:
        loaded = self.bench.loaded
        if loaded is None:
            return
        try:
            said = self.bench.edit_or_raise(lambda book: write_law(book, loaded))
            self.bench.said.emit(str(said))
        except EntryError as error:
            self.refuse(str(error))

    def _sign(self, **words: str) -> None:
        loaded = self.bench.loaded
        if loaded is not None and loaded.findings:
            last = loaded.findings[-1]
            self.bench.edit(lambda notebook: sign(notebook, last, **words))

    def _write(self) -> None:
        state = self.bench.state
        if state is None or (state.analysis is not None and not may_decide(state)):
            return
        self.bench.edit(lambda notebook: decide(notebook, state))
        loaded = self.bench.loaded
        if loaded is not None and loaded.findings:
            self.given.say(f"Decided: {decided_text(loaded.findings[-1])}")

    def take_focus(self) -> None:
        """Begin at the target; at the decision, where a type of test answers without one."""
        if self.page == _PICTURES:
            self.pictures.setFocus()
            return
        if self.asked.value.isVisibleTo(self):
            self.asked.value.setFocus()
        elif self._decide.isEnabled():
            self._decide.setFocus()
        else:
            self.setFocus()

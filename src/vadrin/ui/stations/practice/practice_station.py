"""Practice: a film nobody knows, what one commits to, its envelope, and the scores."""

from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QGridLayout, QWidget

from vadrin.app.display.words import capital
from vadrin.app.document.workbench import Topic
from vadrin.app.entry.stepping import chooser
from vadrin.app.practice.commitment import commitment_of
from vadrin.app.practice.envelope_pictures import EnvelopePicture, envelope_pictures
from vadrin.app.practice.envelope_report import EnvelopeReport, opening
from vadrin.app.practice.practice_notebook import Begun, begin_practice
from vadrin.app.practice.practice_place import is_opened, is_practice, practice_place
from vadrin.app.practice.practice_questions import KINDS
from vadrin.app.practice.practice_scores import practised_films, score_sentences
from vadrin.app.practice.practice_words import (
    LEVEL_SENTENCES,
    LEVELS,
    heading_on,
    level_to_begin,
    opened_envelope,
    outside_of,
    questions_on,
    trap_sentence,
)
from vadrin.errors import EntryError, FormatError, VadrinError
from vadrin.ui.actions import hint
from vadrin.ui.jobs import Said
from vadrin.ui.kept import OfProgram
from vadrin.ui.pictures.picture_image import image_of
from vadrin.ui.pictures.picture_tile import PictureTile
from vadrin.ui.plots.score_plot import ScorePlot
from vadrin.ui.stations.practice.commitment_form import CommitmentForm
from vadrin.ui.stations.station import Station, StationContext, ViewState
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.grids import empty_grid
from vadrin.ui.widgets.labels import rule, text
from vadrin.ui.widgets.sentence import sentence

_HEADS = ("", "True", "Yours", "Off", "Your range", "The program’s", "Off", "Its range")
_JOB = "practice"

_AFTER = {"first hour": "plain"}
"""The level that is offered after one whose envelope was opened, where it is another."""


def _kind_words() -> list[str]:
    return [kind.asked_for for kind in KINDS.values()]


class PracticeStation(Station):
    """Where practice films are begun, and their envelopes opened."""

    topics = Topic.NOTEBOOK | Topic.SHEET | Topic.ANALYSIS | Topic.LOOK
    wants_finding = False

    level: OfProgram[str] = OfProgram(lambda: level_to_begin(practice_place()))
    kind: OfProgram[str] = OfProgram(lambda: _kind_words()[0])

    def __init__(self, given: StationContext) -> None:
        super().__init__(given)
        self._level = WordField("level", self._set_level, chooser(lambda: list(LEVELS)))
        self._kind = WordField("what is asked", self._set_kind, chooser(_kind_words))
        for field in (self._level, self._kind):
            field.refused.connect(self.refuse)
        self.form = CommitmentForm(self.bench, self.refuse)
        self._head = text("", Role.HEADING, wrap=True)
        self._sealed = text("", Role.NOTE, wrap=True)
        self._about = text("", Role.NOTE, wrap=True)
        self.begin = button("Begin a practice film", self._begin, primary=True)
        self.open = button("Open the envelope", self._open, primary=True)
        self.stop = button("Cancel", self._cancel)
        self._working = text("", Role.BODY)
        self._body = QWidget()
        self._grid = QGridLayout(self._body)
        self._grid.setContentsMargins(0, 0, 0, 0)
        self._grid.setHorizontalSpacing(px(18))
        self._pictures = QWidget()
        self._shown = QGridLayout(self._pictures)
        self._shown.setContentsMargins(0, 0, 0, 0)
        self._told = text("", Role.BODY, wrap=True)
        self._scores = text("", Role.BODY, wrap=True)
        self._plot = ScorePlot()
        self._look: Look = DAY
        self._scene: ViewState | None = None
        self._ask = sentence("A film of the level", self._level, ", asked for", self._kind, ".")
        self._lay_out()
        self.offer(hint("Tab", "to the next word, or the button"))

    def _lay_out(self) -> None:
        left = Qt.AlignmentFlag.AlignLeft
        above: tuple[QWidget, ...] = (self._head, self._sealed, self.form, self.refusal)
        below: tuple[QWidget, ...] = (self._working, self._body, self._pictures, self._told)
        for part in above:
            self.column.addWidget(part)
        for made in (self.open, self.stop):
            self.column.addWidget(made, 0, left)
        for part in below:
            self.column.addWidget(part)
        self.column.addWidget(self._ask)
        self.column.addWidget(self._about)
        self.column.addWidget(self.begin, 0, left)
        self.column.addWidget(rule())
        self.column.addWidget(text("Over your practice films", Role.SECTION))
        self.column.addWidget(self._scores)
        self.column.addWidget(self._plot)
        self.column.addStretch(1)

    def show_state(self, scene: ViewState) -> None:
        """Show the film that is practised on, or how to begin one; and the scores."""
        path, self._scene, self._look = self.bench.notebook.path, scene, scene.look
        practising, opened = is_practice(path), is_opened(path)
        waiting = practising and not opened
        busy = self.given.jobs.busy(_JOB)
        self._head.setText(self._heading(practising, opened))
        self._sealed.setVisible(practising)
        if practising:
            level, digest = outside_of(path)
            how = "was" if opened else "is"
            self._sealed.setText(f"Level {level}. The truth {how} sealed under {digest}.")
        self.form.setVisible(waiting)
        if waiting:
            self._show_said()
        self.open.setVisible(waiting and not busy)
        self.stop.setVisible(busy)
        self._working.setVisible(busy)
        self._show_envelope(opened)
        for part in (self._ask, self._about, self.begin):
            part.setVisible(not waiting)
        self._level.show_value(self.level)
        self._kind.show_value(self.kind)
        self._about.setText(
            f"{LEVEL_SENTENCES[self.level]} It lies in a notebook of its own: plan, expose, "
            "develop and read it as any film, with the simulated instruments. Then say what it "
            "is, and open the envelope."
        )
        films = practised_films(practice_place())
        self._scores.setText(" ".join(score_sentences(films)))
        self._plot.show_films(films, scene.look)

    def _heading(self, practising: bool, opened: bool) -> str:
        if opened:
            return "The envelope is open"
        path = self.bench.notebook.path
        return heading_on(path) if practising else "Practise on a film nobody knows"

    def _show_said(self) -> None:
        try:
            path = self.bench.notebook.path
            self.form.show_said(commitment_of(path), questions_on(path))
        except FormatError as error:
            self.refuse(f"{capital(str(error))}.")

    def _show_envelope(self, opened: bool) -> None:
        empty_grid(self._grid)
        told = opened_envelope(self.bench.notebook.path) if opened else None
        self._body.setVisible(told is not None)
        self._pictures.setVisible(told is not None)
        self._told.setVisible(opened)
        if told is None:
            self._told.setText("What it said was damaged afterwards." if opened else "")
            return
        for row, cells in enumerate((_HEADS, *told["table"])):
            for column, words in enumerate(cells):
                role = Role.CAPTION if row == 0 else Role.LABEL if column < 2 else Role.BODY
                self._grid.addWidget(text(str(words), role), row, column)
        self._grid.setColumnStretch(len(_HEADS), 1)
        path = self.bench.notebook.path
        self.given.jobs.run(
            f"{_JOB} pictures", lambda _said: envelope_pictures(path), self._put_up, self._failed
        )
        traps = [trap_sentence(*trap) for trap in told["traps"]]
        lines = [str(told["film"]), *(traps or ["Nothing went wrong in it."]), *told["sentences"]]
        self._told.setText("\n".join(str(line) for line in lines))

    def _put_up(self, made: tuple[EnvelopePicture, ...]) -> None:
        """The pictures come beside the work."""
        empty_grid(self._shown)
        for column, one in enumerate(made):
            tile = PictureTile(one.exposed, self._look)
            tile.show_image(image_of(one.seen, self._look, marked=False), "")
            self._shown.addWidget(tile, 0, column)
        self._shown.setColumnStretch(len(made), 1)

    def _begin(self) -> None:
        """Make a film and open its notebook; what was open stays as it is in its file."""
        if self.given.jobs.busy(_JOB):
            return
        level, words = LEVELS[self.level], self.kind
        kind = next(key for key, said in KINDS.items() if said.asked_for == words)

        def work(_said: Said) -> Begun:
            return begin_practice(practice_place(), level, kind)

        self.given.jobs.run(_JOB, work, self._begun, self._failed)

    def _begun(self, begun: Begun) -> None:
        self.given.open_notebook(begun.notebook)
        if self.bench.notebook.path == begun.notebook:
            self.bench.open_test(begun.test_id)
            self.bench.go("plan")

    def _open(self) -> None:
        """Open the envelope, once something was committed to."""
        path, state = self.bench.notebook.path, self.bench.state
        self.refuse("")

        def work(said: Said) -> EnvelopeReport:

            steps = opening(path, state)
            while True:
                try:
                    said(*next(steps))
                except StopIteration as end:
                    report: EnvelopeReport = end.value
                    return report

        self._working.setText("Working out what could have been had …")
        self.given.jobs.run(_JOB, work, self._opened, self._failed, self._tell)
        self._refresh()
        # What was pressed is gone: the keyboard would be left with what happens to come next.
        self.stop.setFocus()

    def _tell(self, done: int, total: int) -> None:
        self._working.setText(f"Working out what could have been had … ({done} of {total})")

    def _opened(self, _report: EnvelopeReport) -> None:
        self.level = _AFTER.get(self.level, self.level)
        self._refresh()
        if self.isVisible():
            self.take_focus()
        self.bench.changed.emit(Topic.NOTEBOOK)

    def _failed(self, error: Exception) -> None:
        if not isinstance(error, VadrinError):
            raise error
        self._refresh()
        if self.isVisible():
            self.take_focus()
        self.refuse(f"{capital(str(error))}.")

    def _cancel(self) -> None:
        self.given.jobs.cancel(_JOB)
        self._refresh()

    def _refresh(self) -> None:
        if self._scene is not None:
            self.show_state(self._scene)

    def _set_level(self, words: str) -> None:
        if words not in LEVELS:
            raise EntryError(f"one of {', '.join(LEVELS)}")
        self.level = words
        self._refresh()

    def _set_kind(self, words: str) -> None:
        if words not in _kind_words():
            raise EntryError(f"one of {', '.join(_kind_words())}")
        self.kind = words
        self._refresh()

    def take_focus(self) -> None:
        """Begin at what is said of the film, or at the level of a new one."""
        if self.form.isVisibleTo(self):
            self.form.take_focus()
        else:
            self._level.setFocus()

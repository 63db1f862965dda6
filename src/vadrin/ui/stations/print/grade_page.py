"""The grade for the negative, what it makes of the frame, and the prints made of it."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from pathlib import Path

from PyQt6.QtCore import QRectF, QSize, Qt
from PyQt6.QtGui import QPainter, QPaintEvent
from PyQt6.QtWidgets import QGridLayout, QHBoxLayout, QSizePolicy, QVBoxLayout, QWidget

from vadrin.app.document.workbench import Workbench
from vadrin.app.entry.numbers import number_within
from vadrin.app.loaded.loaded_test import LoadedFrame, LoadedTest
from vadrin.app.printing.grade_choice import (
    SCENE_STOPS,
    GradeLine,
    grade_lines,
    keep_print,
    picture_of_print,
    print_lines,
    strip_on_grade,
    tones_of,
)
from vadrin.app.printing.paper_answer import (
    FIRST_BLACK_STEP,
    FIRST_GREY_STEP,
    PAPER,
    eye_step,
    type_eye_step,
)
from vadrin.app.scans.picture_files import PICTURES
from vadrin.errors import EntryError
from vadrin.ui.kept import OfTest
from vadrin.ui.stations.station import ViewState
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.regional import write
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.drawn import Drawn
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.grids import empty_grid
from vadrin.ui.widgets.labels import rule, text
from vadrin.ui.widgets.sentence import sentence

_HEADS = ("Grade", "Exposure scale", "It is", "Maximum black at", "Density of this frame")


class _Tones(Drawn):
    """The selected frame as each grade prints it, side by side."""

    def __init__(self) -> None:
        super().__init__()
        self._tones: tuple[tuple[str, float], ...] = ()
        self._look: Look = DAY
        self.setAccessibleName("tones of the frame on each grade")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    def sizeHint(self) -> QSize:
        return QSize(px(300), px(64))

    def show_tones(self, tones: tuple[tuple[str, float], ...], look: Look) -> None:
        self._tones, self._look = tones, look
        self.setVisible(bool(tones))
        self.setAccessibleDescription("; ".join(f"{g}: {d:.2f}" for g, d in tones))
        self.update()

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setFont(role_font(Role.LABEL))
        wide = min(self.width() / max(len(self._tones), 1), px(150))
        for place, (grade, density) in enumerate(self._tones):
            box = QRectF(place * wide, 0, wide - px(4), self.height())
            fill = self._look.film_colour(density)
            painter.fillRect(box, fill)
            painter.setPen(self._look.writing_on(fill))
            write(painter, box, Qt.AlignmentFlag.AlignCenter, f"{grade}: {density:.2f}")


class GradePage(QWidget):
    """Three grades beside the negative, and a line for each print.

    Parameters
    ----------
    bench : Workbench
    refuse : callable
    ask_file : callable
    to_strip : callable
        Goes to the test strip.
    """

    _stops: OfTest[float] = OfTest(lambda: SCENE_STOPS)

    def __init__(
        self,
        bench: Workbench,
        refuse: Callable[[str], None],
        ask_file: Callable[[str, str, Callable[[Path], object]], None],
        to_strip: Callable[[], None],
    ) -> None:
        super().__init__()
        self.bench, self._refuse, self._to_strip = bench, refuse, to_strip
        self.strip_on = button("", self.make_strip)
        self._best: GradeLine | None = None
        choose = partial(ask_file, "A picture of the print", PICTURES, self.keep_picture)
        self.picture = button("Attach picture of print …", choose, link=True)
        self._loaded: LoadedTest | None = None
        self._frame: LoadedFrame | None = None
        self._scene: ViewState | None = None
        self.range = WordField("stops of the scene", self._type_range, role=Role.LEAD)
        self.print = WordField("a print of this frame", self._keep, role=Role.LEAD)
        for field in (self.range, self.print):
            field.refused.connect(refuse)
        self._words = text("", Role.LEAD_STRONG, wrap=True)
        self._grid = QGridLayout()
        self._grid.setHorizontalSpacing(px(24))
        self._grid.setVerticalSpacing(px(6))
        self._grid.setColumnStretch(len(_HEADS), 1)
        self._tones = _Tones()
        self._head = text("", Role.HEADING)
        self._prints = text("", Role.BODY, wrap=True)
        self.eye = {
            asked: WordField(asked, self._eye(asked), role=Role.LEAD)
            for asked in (FIRST_GREY_STEP, FIRST_BLACK_STEP)
        }
        for field in self.eye.values():
            field.refused.connect(refuse)
        self._by_eye = sentence(
            "By eye, the first grey step is number",
            self.eye[FIRST_GREY_STEP],
            "and the first black one",
            self.eye[FIRST_BLACK_STEP],
            ".",
            role=Role.LEAD,
        )
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(px(8))
        column.addWidget(self._by_eye)
        self._of_a_negative = QWidget()
        column.addWidget(self._of_a_negative)
        self._lay_out(self._of_a_negative)
        column.addStretch(1)

    def _lay_out(self, holder: QWidget) -> None:
        """What is asked of a negative; a test of paper itself has none."""
        column = QVBoxLayout(holder)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(px(8))
        column.addWidget(sentence("The scene ranges over", self.range, "stops.", role=Role.LEAD))
        column.addWidget(self._words)
        column.addLayout(self._grid)
        column.addWidget(self._tones)
        row = QHBoxLayout()
        row.addWidget(self.strip_on)
        row.addStretch(1)
        column.addLayout(row)
        column.addWidget(rule())
        column.addWidget(self._head)
        column.addWidget(
            sentence(
                "It was printed",
                self.print,
                "(write it as: 12 s grade 3, burn sky +1 stop: good).",
                role=Role.LEAD,
            )
        )
        column.addWidget(self._prints)
        column.addWidget(self.picture)

    def show_state(self, scene: ViewState) -> None:
        """Show the grades for the strip, and the prints, of the selected frame."""
        loaded, place = scene.loaded, self.bench.selected()
        if scene.state is None or loaded is None or not loaded.strips:
            return
        strip, self._frame = place or (loaded.strips[0], None)
        self._loaded, self._scene = loaded, scene
        book = self.bench.notebook
        self._by_eye.setVisible(loaded.test.kind == PAPER)
        self._of_a_negative.setVisible(loaded.test.kind != PAPER)
        for asked, field in self.eye.items():
            step = eye_step(loaded, asked)
            field.show_value("—" if step is None else str(step))
        words, lines = grade_lines(book, scene.state, strip, self._stops)
        self._words.setText(words)
        self.range.show_value(f"{self._stops:g}")
        self._fill(lines, scene.look)
        named = f"Strip {strip.strip.label}, {self._frame.called}" if self._frame else ""
        self._head.setText(named)
        self.print.show_value("—")
        self._prints.setText("\n".join(print_lines(book, loaded)) or "No print is kept yet.")

    def make_strip(self) -> None:
        """Take the grade that fits best for the set-up, and go to its test strip."""
        loaded, best = self._loaded, self._best
        if loaded is None or best is None:
            return
        said = self.bench.edit_or_raise(lambda book: strip_on_grade(book, loaded, best))
        self._to_strip()
        self.bench.said.emit(str(said))

    def _fill(self, lines: tuple[GradeLine, ...], look: Look) -> None:
        empty_grid(self._grid)
        self._best = lines[0] if lines else None
        self.strip_on.setVisible(self._best is not None)
        if self._best is not None:
            self.strip_on.setText(f"Make a test strip on grade {self._best.grade}")
        tones = []
        for column, words in enumerate(_HEADS if lines else ()):
            self._grid.addWidget(text(words, Role.CAPTION), 0, column)
        for row, line in enumerate(lines, start=1):
            density, why = None, ""
            if self._loaded is not None and self._frame is not None:
                density, why = tones_of(self.bench.notebook, self._loaded, self._frame, line.grade)
            shown = why if density is None else f"{density:.2f}" + (f": {why}" if why else "")
            if density is not None:
                tones.append((line.grade, density))
            for column, words in enumerate((line.grade, line.scale, line.fit, line.seconds, shown)):
                self._grid.addWidget(text(words, Role.BODY, wrap=column > 2), row, column)
        self._tones.show_tones(tuple(tones), look)

    def _type_range(self, words: str) -> None:
        plain = words.replace("stops", "").replace("stop", "")
        self._stops = number_within(plain, 1, 15, "a scene ranges over 1 to 15 stops", "7")
        if self._scene is not None:
            self.show_state(self._scene)

    def _eye(self, asked: str) -> Callable[[str], None]:
        def take(words: str) -> None:
            loaded = self._loaded
            if loaded is not None and words.strip() not in ("", "—"):
                self.bench.edit_or_raise(lambda book: type_eye_step(book, loaded, asked, words))

        return take

    def keep_picture(self, path: Path) -> None:
        """Remember where a picture of the newest print lies."""
        loaded = self._loaded
        if loaded is None:
            return
        try:
            self.bench.edit_or_raise(lambda book: picture_of_print(book, loaded, path))
        except EntryError as error:
            self._refuse(str(error))

    def _keep(self, words: str) -> None:
        loaded, frame = self._loaded, self._frame
        if loaded is not None and frame is not None and words.strip() not in ("", "—"):
            self.bench.edit_or_raise(lambda book: keep_print(book, loaded, frame, words))

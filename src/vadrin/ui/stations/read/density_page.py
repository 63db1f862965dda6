"""Densities: the selected frame large, its reading typed, on to the next by itself."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QColor, QKeyEvent, QPainter, QPaintEvent
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from vadrin.app.display.spoken_frame import offset_words, spoken_frame
from vadrin.app.document.workbench import Workbench
from vadrin.app.entry.densities import readings_typed
from vadrin.app.loaded.frame_order import next_to_read
from vadrin.app.loaded.loaded_test import NOT_TRACED, LoadedFrame, LoadedTest
from vadrin.app.read.entering_readings import (
    keep_typed_readings,
    leave_out,
    readings_words,
    usual_channel,
)
from vadrin.app.read.likely_place import likely_place
from vadrin.app.read.reading_doubts import reading_doubt
from vadrin.app.scans.step_wedge import wedge_steps
from vadrin.core.channels import Channel
from vadrin.errors import EntryError
from vadrin.ui.ears import Ears
from vadrin.ui.kept import OfTest
from vadrin.ui.plots.curve_plot import CurvePlot
from vadrin.ui.stations.read.densitometer_row import DensitometerRow
from vadrin.ui.stations.read.wedge_row import WedgeRow
from vadrin.ui.stations.station import ViewState
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.regional import write
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.drawn import Drawn
from vadrin.ui.widgets.labels import text
from vadrin.ui.widgets.line_field import Field


class _Film(Drawn):
    """The selected frame, large, at the grey its density has on a light table."""

    def __init__(self) -> None:
        super().__init__()
        self._density: float | None = None
        self._look: Look = DAY
        self.setFixedSize(px(190), px(128))

    def show_density(self, density: float | None, look: Look) -> None:
        self._density, self._look = density, look
        self.setFixedSize(px(190), px(128))
        self.update()

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), QColor(self._look.film_base))
        inner = self.rect().adjusted(px(6), px(6), -px(6), -px(6))
        fill = QColor(self._look.table)
        if self._density is not None:
            fill = self._look.film_colour(self._density)
        painter.fillRect(inner, fill)
        painter.setPen(self._look.writing_on(fill))
        painter.setFont(role_font(Role.TIME))
        words = "—" if self._density is None else f"{self._density:.2f}"
        write(painter, inner, Qt.AlignmentFlag.AlignCenter, words)


class _DensityField(Field):
    """Where the reading is typed; the arrow keys walk along the strip."""

    def __init__(self, page: DensityPage) -> None:
        super().__init__()
        self._page = page
        self.setFont(role_font(Role.ENTRY))
        self.setFixedWidth(px(150))
        self.setPlaceholderText("0.00")
        self.setAccessibleName("density of the selected frame")

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            again = bool(event.modifiers() & Qt.KeyboardModifier.ControlModifier)
            self._page.take(self.text(), again)
        elif event.key() in (Qt.Key.Key_Left, Qt.Key.Key_Right) and self._page.may_step():
            self._page.step_wedge(1 if event.key() == Qt.Key.Key_Right else -1)
        elif event.key() == Qt.Key.Key_Down:
            self._page.walk(1)
        elif event.key() == Qt.Key.Key_Up:
            self._page.walk(-1)
        else:
            super().keyPressEvent(event)


_HEAD = (
    "Type a density, Enter. Type again to add a repeat. Between wedge steps: 1.20-1.35, "
    "or ← →. Other channel: 1.05 blue"
)


_LAYERS = (
    ". Red, green and blue in one line: 0.52 0.61 0.80. A number alone is {}; name another once"
)


class DensityPage(QWidget):
    """Type densities frame after frame; the curve grows beside them.

    Parameters
    ----------
    bench : Workbench
    ears : Ears
    refuse : callable
        Says why something typed was not taken.
    refusal : QWidget
        Where that is said; it stands beside its cause.
    """

    _channel: OfTest[str] = OfTest(lambda: str(Channel.VISUAL))

    def __init__(
        self, bench: Workbench, ears: Ears, refuse: Callable[[str], None], refusal: QWidget
    ) -> None:
        super().__init__()
        self.bench, self.refuse = bench, refuse
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(px(20))
        left = QVBoxLayout()
        self._title = text("", Role.HEADING, wrap=True)
        self._film = _Film()
        self.field = _DensityField(self)
        self._repeats = text("", Role.NOTE, wrap=True)
        self._expected = text("", Role.NOTE, wrap=True)
        self._noted = text("", Role.BODY, wrap=True)
        self._doubt = text("", Role.DOUBT, wrap=True)
        self._leave = button("Exclude this frame", self.toggle_left_out)
        self._leave.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self._head = text(_HEAD, Role.CAPTION, wrap=True)
        self.meter = DensitometerRow(bench, ears, refuse)
        self.steps = WedgeRow()
        for part in (
            self._title,
            self._noted,
            self._film,
            self.steps,
            self._head,
            self.field,
            self._repeats,
            self._expected,
            refusal,
            self._doubt,
            self._leave,
            self.meter,
        ):
            left.addWidget(part)
        left.addStretch(1)
        self._left, self._refusal_at = left, left.indexOf(refusal)
        holder = QWidget()
        holder.setLayout(left)
        left.setContentsMargins(0, 0, 0, 0)
        holder.setFixedWidth(px(210))
        row.addWidget(holder)
        self._plot = CurvePlot()
        self._plot.picked.connect(self.bench.select)
        self._plot.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        row.addWidget(self._plot, 1)

    def take_refusal(self, refusal: QWidget) -> None:
        """Hold what is refused beside the line where densities are typed."""
        self._left.insertWidget(self._refusal_at, refusal)

    def show_state(self, scene: ViewState) -> None:
        """Show the selected frame and the curve of its strip."""
        state, loaded = scene.state, scene.loaded
        if state is None or loaded is None:
            return
        place = self.bench.selected()
        if place is None:
            return
        strip, frame = place
        self._title.setText(f"Strip {strip.strip.label}, {self._named(frame)}")
        said = spoken_frame(strip, frame)
        if self.field.accessibleDescription() != said:
            self.field.setAccessibleDescription(said)
        usual = self._usual()
        layers = "" if usual is None else _LAYERS.format(usual)
        self._head.setText(_HEAD + layers)
        self._film.show_density(frame.density, scene.look)
        self._show_repeats(frame)
        noted = loaded.notes_on(frame.frame.id)
        self._noted.setText(f"Noted: {noted}" if noted else "")
        self._noted.setVisible(bool(noted))
        doubt = reading_doubt(state, frame)
        self._doubt.setText(doubt)
        self._doubt.setVisible(bool(doubt))
        out = bool(frame.readings) and all(r.left_out for r in frame.readings)
        self._leave.setText("Include this frame" if out else "Exclude this frame")
        self._leave.setVisible(bool(frame.readings))
        self.steps.show_steps(wedge_steps(self.bench.notebook), scene.look)
        self._plot.show_look(scene.look)
        likely = likely_place(state, strip, frame)
        self._expected.setText(f"◇ {likely.words}" if likely else "")
        self._expected.setVisible(likely is not None)
        self._plot.draw(state, frame.frame.id, strip.strip.label, likely=likely)

    @staticmethod
    def _named(frame: LoadedFrame) -> str:
        if frame.name == NOT_TRACED:
            return "Not traced yet: open the sheet's picture at Trace (Alt+T)"
        if not frame.readable:
            return f"{frame.called}: spoilt, not to be read"
        if frame.frame.blank:
            return f"frame {frame.number}, blank: base plus fog"
        if frame.frame.stops is None:
            return f"frame {frame.number}"
        return f"frame {frame.number}, {offset_words(frame)}"

    def _show_repeats(self, frame: LoadedFrame) -> None:
        self._repeats.setText(readings_words(frame.readings))

    def take(self, words: str, again: bool) -> None:
        """Take a typed density; `again` replaces what the frame has."""
        place = self.bench.selected()
        if place is None:
            return
        frame = place[1]
        if not words.strip():
            self._next(self.bench.loaded, frame)
            return
        try:
            typed = readings_typed(words, self._usual())
        except EntryError as error:
            self.refuse(str(error))
            self.field.selectAll()
            return
        self.steps.forget()
        if not frame.readable:
            self.refuse(f"{frame.called.capitalize()} holds nothing to read; go to another (↑ ↓).")
            self.field.selectAll()
            return
        self.refuse("")
        self.bench.edit(lambda notebook: keep_typed_readings(notebook, frame, typed, again))
        if len(typed) == 1:
            self._channel = str(typed[0].channel)
        self.field.clear()
        self._next(self.bench.loaded, frame)

    def _usual(self) -> Channel | None:
        """The channel a bare number is of on colour film: the one that was named last."""
        return usual_channel(self.bench.loaded, self._channel)

    def _next(self, loaded: LoadedTest | None, frame: LoadedFrame) -> None:
        following = next_to_read(loaded, frame.frame.id) if loaded else None
        if following is not None:
            self.bench.select(following.frame.id)
        else:
            self.walk(1)

    def may_step(self) -> bool:
        """Whether the arrows step along the wedge: nothing else is being typed."""
        return bool(self.steps.steps) and (not self.field.text() or self.steps.at is not None)

    def step_wedge(self, way: int) -> None:
        """Go to the next pair of steps that the frame may lie between."""
        self.field.setText(self.steps.step(way))

    def walk(self, way: int) -> None:
        """Go to the frame before or after."""
        if self.bench.loaded is None:
            return
        ids = [f.frame.id for _, f in self.bench.loaded.frames()]
        here = ids.index(self.bench.frame_id) if self.bench.frame_id in ids else 0
        self.bench.select(ids[max(0, min(here + way, len(ids) - 1))])

    def toggle_left_out(self) -> None:
        """Leave the frame out of the curve, or take it in again."""
        place = self.bench.selected()
        if place is None or not place[1].readings:
            return
        frame = place[1]
        out = not all(r.left_out for r in frame.readings)
        self.bench.edit(lambda notebook: leave_out(notebook, frame, out))

    def take_key(self, event: QKeyEvent) -> bool:
        """What is typed anywhere beside a frame is its density."""
        typed = event.text()
        if not typed or typed not in "0123456789.,":
            return False
        self.field.setFocus()
        self.field.insert(typed)
        return True

    def take_focus(self) -> None:
        """Type at once."""
        self.field.setFocus()

"""The light table: every strip as film, each frame at the grey its density really has."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QWheelEvent
from PyQt6.QtWidgets import QAbstractSlider, QToolTip

from vadrin.app.display.quantities import minutes_text
from vadrin.app.display.spoken_frame import spoken_frame
from vadrin.app.display.words import counted
from vadrin.app.loaded.loaded_test import LoadedFrame, LoadedStrip, LoadedTest
from vadrin.ui.light_table.film_painting import EDGE, ROW, FilmPainter
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.regional import write
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font, scale
from vadrin.ui.widgets.tips import plain_tip

_LABEL_PX = 150
_THIN_ROW = 11
_BARS = 44
"""Pixels all strips have where the station is not about film: bars, as thin as they must be."""
_LEAST_BAR = 4
_SHARE_OF_WINDOW = 0.32
WHOLE_KEY = "F4"
"""Shows the strips in full at any station, and as bars again."""
_FEWEST_ROWS = 12


def strip_words(strip: LoadedStrip, strips: tuple[LoadedStrip, ...]) -> str:
    """What stands under the name of one of a test's strips: what tells it from the others."""
    if strip.other:
        return f"{strip.other}, {minutes_text(strip.minutes or 0.0)}"
    if strip.strip.note and len({s.minutes for s in strips}) == 1:
        return strip.strip.note
    if strip.strip.time_min is not None:
        return f"{minutes_text(strip.strip.time_min)} min"
    if strip.strip.planned_min is not None:
        return f"{minutes_text(strip.strip.planned_min)} planned"
    return "no time yet"


def _alike(one: LoadedTest | None, other: LoadedTest | None) -> bool:
    """Whether two tests lie on the table alike."""
    if one is None or other is None:
        return one is other
    return one.strips == other.strips and one.notes == other.notes


class StripTable(QAbstractSlider):
    """Strips of the test on the bench, with one selection shared by every view.

    To a screen reader it is a slider along the film: its value is the frame's place among all.
    """

    picked = pyqtSignal(int)

    def __init__(self) -> None:
        super().__init__()
        self._loaded: LoadedTest | None = None
        self._look: Look = DAY
        self._frame_id: int | None = None
        self._thin = self._folded = self._bars = False
        self.whole_row = 0
        self._rows = range(0)
        self._shows: tuple[object, ...] = ()
        self.setMouseTracking(True)
        # Pointing at film does not take the keyboard from what is being typed.
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.setAccessibleName("light table")
        self.setAttribute(Qt.WidgetAttribute.WA_OpaquePaintEvent)

    def show_look(self, look: Look) -> None:
        """Draw in another look."""
        self._look = look
        self.show_test(self._loaded)

    def show_folded(self, folded: bool) -> None:
        """Only the selected strip in full, thin lines of the others: the window is small."""
        self._folded = folded
        self.show_test(self._loaded)

    def show_bars(self, bars: bool) -> None:
        """Thin bars alone, where the station needs the room; or film, to be looked at."""
        if bars != self._bars:
            self._bars = bars
            self.show_test(self._loaded)

    def show_test(self, loaded: LoadedTest | None) -> None:
        """Lay another test, or a changed one, on the table; drawn only where it looks another."""
        before, self._loaded = self._loaded, loaded
        count = len(loaded.strips) if loaded else 0
        whole = self.window()
        room = int(whole.height() * _SHARE_OF_WINDOW) if whole else px(280)
        self.whole_row = self._selected_row()
        crowded = self._folded or px(ROW) * count > room - px(18)
        self._thin = count > 1 and crowded and not self._bars
        self._rows = self._rows_in(count, room)
        high = sum(self._height_of(row) for row in self._rows)
        self.setVisible(count > 0)
        least = px(_BARS) if self._bars else 0
        self.setFixedHeight(max(px(14) + high + px(4), least))
        shows = (self._look, scale(), self._thin, self._bars, self.whole_row, self._rows)
        if shows != self._shows or not _alike(before, loaded):
            self._shows = shows
            self.update()

    def _rows_in(self, count: int, room: int) -> range:
        """The strips that are drawn: all, or as many as there is room for about the whole one."""
        most = max(_FEWEST_ROWS, (room - px(18) - px(ROW)) // px(_THIN_ROW) + 1)
        if self._bars:
            most = _BARS // _LEAST_BAR
        if not (self._thin or self._bars) or count <= most:
            return range(count)
        first = min(max(0, self.whole_row - most // 2), count - most)
        return range(first, first + most)

    def _selected_row(self) -> int:
        """The strip that is shown in full where the others are thin lines."""
        for row, strip in enumerate(self._loaded.strips if self._loaded else ()):
            if any(f.frame.id == self._frame_id for f in strip.frames):
                return row
        return 0

    def _height_of(self, row: int) -> int:
        if self._bars:
            return px(max(_LEAST_BAR, min(_THIN_ROW, _BARS // max(1, len(self._rows)))))
        return px(_THIN_ROW) if self._thin and row != self.whole_row else px(ROW)

    def _top_of(self, row: int) -> int:
        return px(14) + sum(self._height_of(r) for r in range(self._rows.start, row))

    def show_selection(self, frame_id: int | None) -> None:
        """Mark the frame that is selected."""
        self._frame_id = frame_id
        if (self._thin or self._bars) and self._selected_row() != self.whole_row:
            self.show_test(self._loaded)
        place = self._loaded.place_of(frame_id) if self._loaded and frame_id else None
        name = spoken_frame(*place) if place else "light table"
        if name != self.accessibleName():
            self.setAccessibleName(name)
        ids = [f.frame.id for _, f in self._loaded.frames()] if self._loaded else []
        self.setRange(1, max(1, len(ids)))
        self.setValue(ids.index(frame_id) + 1 if frame_id in ids else 1)
        self.update()

    def frame_box(self, frame_id: int | None) -> QRectF | None:
        """Where a frame lies, in widget pixels."""
        for _, boxes in self._boxes():
            for box, frame in boxes:
                if frame.frame.id == frame_id:
                    return box
        return None

    def _boxes(self) -> list[tuple[int, list[tuple[QRectF, LoadedFrame]]]]:
        """Where the frames of each strip that is drawn lie, by the strip's row."""
        if self._loaded is None:
            return []
        every = []
        left, right = px(_LABEL_PX), self.width() - px(14)
        longest = max((len(s.frames) for s in self._loaded.strips), default=1)
        width = min((right - left) / max(longest, 1), px(96))
        top = px(14)
        for row in self._rows:
            high = self._height_of(row)
            thin = high < px(ROW)
            edge, gap = (0, max(1, round(0.27 * high))) if thin else (EDGE, px(6))
            boxes = []
            for column, frame in enumerate(self._loaded.strips[row].frames):
                box = QRectF(
                    left + width * column + 1, top + edge, width - 2, high - gap - 2 * edge
                )
                boxes.append((box, frame))
            every.append((row, boxes))
            top += high
        return every

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Draw the table, the strips and the marks."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), QColor(self._look.table))
        painter.setPen(QColor(self._look.rule))
        painter.drawLine(0, self.height() - 1, self.width(), self.height() - 1)
        if self._loaded is None:
            return
        boxes, film = self._boxes(), FilmPainter(painter, self._look)
        if self._bars:
            self._paint_count(painter)
        for row, mine in boxes:
            if self._height_of(row) == px(ROW):
                self._paint_label(painter, row, self._loaded.strips[row])
                if mine:
                    film.paint_film([box for box, _ in mine])
        # Edges lie on whole pixels; smoothing them costs most of the time a key has.
        painter.setRenderHint(QPainter.RenderHint.Antialiasing, False)
        painter.setFont(role_font(Role.CAPTION))
        for _, mine in boxes:
            for box, frame in mine:
                film.paint_frame(box, frame, bool(self._loaded.notes_on(frame.frame.id)))
        selected = self.frame_box(self._frame_id)
        if selected is not None:
            painter.setPen(QPen(QColor(self._look.here), 2.5))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(selected.adjusted(0, -2, 0, 2))

    def _paint_label(self, painter: QPainter, row: int, strip: LoadedStrip) -> None:
        top = self._top_of(row)
        strips = self._loaded.strips if self._loaded else (strip,)
        count = len(strips)
        name = f"Strip {strip.strip.label}" + (f", {row + 1} of {count}" if self._thin else "")
        lines = (
            (name, Role.LABEL, self._look.ink, 17),
            (strip_words(strip, strips), Role.CAPTION, self._look.soft, 33),
        )
        for words, role, tone, base in lines:
            painter.setPen(QColor(tone))
            painter.setFont(role_font(role))
            room = px(_LABEL_PX) - px(20)
            shown = painter.fontMetrics().elidedText(words, Qt.TextElideMode.ElideMiddle, room)
            write(painter, QPointF(px(14), top + px(base)), shown)

    def _paint_count(self, painter: QPainter) -> None:
        """How many strips the bars are, and the key that shows them whole."""
        count = len(self._loaded.strips) if self._loaded else 0
        lines = (
            (counted(count, "strip"), Role.LABEL, self._look.ink, 22),
            (f"{WHOLE_KEY}: in full", Role.CAPTION, self._look.soft, 38),
        )
        for words, role, tone, base in lines:
            painter.setPen(QColor(tone))
            painter.setFont(role_font(role))
            write(painter, QPointF(px(14), px(base)), words)

    def _frame_at(self, point: QPointF) -> tuple[LoadedStrip, LoadedFrame] | None:
        for row, boxes in self._boxes():
            for box, frame in boxes:
                if self._loaded is not None and box.adjusted(-1, -4, 1, 4).contains(point):
                    return self._loaded.strips[row], frame
        return None

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Pick the frame under the mouse."""
        found = self._frame_at(event.position()) if event else None
        if found:
            self.picked.emit(found[1].frame.id)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        """Say what the frame under the mouse is."""
        if event is None:
            return
        found = self._frame_at(event.position())
        words = ""
        if found and self._loaded:
            notes = self._loaded.notes_on(found[1].frame.id)
            words = f"{spoken_frame(*found)}; {notes}" if notes else spoken_frame(*found)
        QToolTip.showText(event.globalPosition().toPoint(), plain_tip(words), self)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Walk along the film with the arrow keys."""
        rows = self._loaded.strips if self._loaded else ()
        places = [(r, c, f.frame.id) for r, s in enumerate(rows) for c, f in enumerate(s.frames)]
        if event is None or not places:
            return
        ids = [frame_id for _, _, frame_id in places]
        if self._frame_id not in ids:
            self.picked.emit(ids[0])
            return
        here = ids.index(self._frame_id)
        row, column, _ = places[here]
        if event.key() == Qt.Key.Key_Right:
            self.picked.emit(ids[min(here + 1, len(ids) - 1)])
        elif event.key() == Qt.Key.Key_Left:
            self.picked.emit(ids[max(here - 1, 0)])
        elif event.key() in (Qt.Key.Key_Up, Qt.Key.Key_Down):
            move = 1 if event.key() == Qt.Key.Key_Down else -1
            other = rows[max(0, min(row + move, len(rows) - 1))].frames
            if other:
                self.picked.emit(other[min(column, len(other) - 1)].frame.id)
        else:
            event.ignore()

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        """Nothing turns here: the film is walked by keys, or pointed at."""
        if event is not None:
            event.ignore()

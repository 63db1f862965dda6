"""The contact sheet: every frame as it prints, its verdicts under it, and which prints best."""

from __future__ import annotations

from PyQt6.QtCore import QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import (
    QColor,
    QFontMetrics,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPen,
    QResizeEvent,
)
from PyQt6.QtWidgets import QSizePolicy, QVBoxLayout, QWidget

from vadrin.app.document.workbench import Workbench
from vadrin.app.loaded.loaded_test import LoadedFrame, LoadedStrip, LoadedTest
from vadrin.app.printing.contact_sheet import (
    contact_words,
    give_paper_verdict,
    pick_best,
    print_beside_the_light_box,
)
from vadrin.app.read.verdict_entry import SCALE_LINES, VERDICT_KEYS
from vadrin.app.results.contact_prints import BEST, paper_verdict
from vadrin.ui.stations.station import ViewState
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.regional import write
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.drawn import Drawn
from vadrin.ui.widgets.labels import text

_HOW = (
    "Print every strip whole at its shortest time for maximum black. Keys, on the frame that is "
    "selected: {}; B prints best."
)
_MOST, _LEAST_WIDE, _PICTURE = 12, 62, 40


class ContactSheet(Drawn):
    """Frames in rows, a strip after the other; greys as a print turns them."""

    picked = pyqtSignal(int)

    def __init__(self) -> None:
        super().__init__()
        self._loaded: LoadedTest | None = None
        self._frame_id: int | None = None
        self._look: Look = DAY
        self.setAccessibleName("contact sheet")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)

    def minimumSizeHint(self) -> QSize:
        """Room for a strip."""
        return QSize(px(360), px(110))

    def show_test(self, loaded: LoadedTest, frame_id: int | None, look: Look) -> None:
        """Show the frames of a test."""
        self._loaded, self._frame_id, self._look = loaded, frame_id, look
        said = [f"frame {f.number}: {_verdicts(f)}" for _, f in loaded.frames() if _verdicts(f)]
        self.setAccessibleDescription("; ".join(said) or "nothing judged")
        self._make_room()
        self.update()

    def _across(self) -> int:
        """Frames in a row: as many as leave room for a word under each."""
        return max(3, min(_MOST, self.width() // px(_LEAST_WIDE)))

    @staticmethod
    def _row_high() -> float:
        """A picture, and three lines of verdicts under it."""
        return px(_PICTURE) + 3.0 * QFontMetrics(role_font(Role.CAPTION)).height() + px(6)

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """Rows are as high as they are; the page scrolls where there are many."""
        super().resizeEvent(event)
        self._make_room()

    def _make_room(self) -> None:
        boxes = self._boxes()
        need = int(max((box.bottom() for box, _, _ in boxes), default=0.0)) + px(4)
        if need != self.minimumHeight():
            self.setMinimumHeight(max(need, px(110)))

    def _boxes(self) -> list[tuple[QRectF, LoadedStrip, LoadedFrame]]:
        many = self._across()
        rows: list[tuple[LoadedStrip, tuple[LoadedFrame, ...]]] = []
        for strip in self._loaded.strips if self._loaded else ():
            shown = tuple(f for f in strip.frames if f.readable)
            rows += [(strip, shown[i : i + many]) for i in range(0, len(shown), many)]
        wide, high = self.width() / many, self._row_high()
        return [
            (QRectF(column * wide, row * high, wide - px(4), high - px(4)), strip, frame)
            for row, (strip, frames) in enumerate(rows)
            for column, frame in enumerate(frames)
        ]

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Draw the sheet."""
        painter = QPainter(self)
        painter.setFont(role_font(Role.CAPTION))
        look, letters = self._look, painter.fontMetrics()
        line = letters.height()
        for box, strip, frame in self._boxes():
            picture = box.adjusted(0, 0, 0, -3 * line)
            # A print turns the negative round: thin film prints black.
            tone = 2.0 - min(2.0, 1.6 * (frame.density or 0.0))
            fill = look.film_colour(tone) if frame.density is not None else QColor(look.rule)
            painter.fillRect(picture, fill)
            painter.setPen(look.writing_on(fill))
            name = f"{strip.strip.label}{frame.number} {frame.name}"
            write(
                painter,
                picture,
                Qt.AlignmentFlag.AlignCenter,
                letters.elidedText(name, Qt.TextElideMode.ElideRight, int(box.width())),
            )
            painter.setPen(QColor(look.ink))
            words = letters.elidedText(
                _verdicts(frame), Qt.TextElideMode.ElideRight, 3 * int(box.width())
            )
            under = QRectF(box.left(), picture.bottom(), box.width(), 3 * line)
            write(painter, under, Qt.TextFlag.TextWordWrap | Qt.AlignmentFlag.AlignTop, words)
            if frame.frame.id == self._frame_id:
                painter.setPen(QPen(QColor(look.here), 2.5))
                painter.drawRect(picture)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Select the frame under the mouse."""
        for box, _, frame in self._boxes():
            if event is not None and box.contains(event.position()):
                self.picked.emit(frame.frame.id)


def _verdicts(frame: LoadedFrame) -> str:
    said = [v for asked, _ in reversed(SCALE_LINES) if (v := paper_verdict(frame, asked))]
    return ", ".join((["best"] if paper_verdict(frame, BEST) else []) + said)


class ContactPage(QWidget):
    """The sheet, its keys, and what the verdicts come to.

    Parameters
    ----------
    bench : Workbench
    """

    def __init__(self, bench: Workbench) -> None:
        super().__init__()
        self.bench = bench
        self.loaded = ContactSheet()
        self.loaded.picked.connect(bench.select)
        keys = "; ".join(f"{asked}: {words}" for asked, words in SCALE_LINES)
        self._words = text("", Role.LEAD_STRONG, wrap=True)
        self._two = text("", Role.BODY, wrap=True)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(px(7))
        column.addWidget(text(_HOW.format(keys), Role.NOTE, wrap=True))
        # What they come to stands first: a sheet of many strips is longer than the window.
        column.addWidget(self._words)
        column.addWidget(self._two)
        column.addWidget(self.loaded, 1)

    def show_state(self, scene: ViewState) -> None:
        """Show the sheet of the test on the bench."""
        if scene.loaded is None:
            return
        self.loaded.show_test(scene.loaded, scene.frame_id, scene.look)
        self._words.setText(contact_words(scene.loaded))
        beside = print_beside_the_light_box(scene.loaded)
        self._two.setText(beside)
        self._two.setVisible(bool(beside))

    def take_key(self, event: QKeyEvent) -> bool:
        """One key gives a verdict on the selected frame's print."""
        place, key = self.bench.selected(), event.text().upper()
        if place is None:
            return False
        strip, frame = place
        if key == "B":
            self.bench.edit(lambda book: pick_best(book, strip, frame))
            return True
        said = VERDICT_KEYS.get(key)
        if said is None:
            return False
        self.bench.edit(lambda book: give_paper_verdict(book, frame, *said))
        return True

"""Frames as rows of film, each at the grey of its density: a process, a push, a sheet a row."""

from __future__ import annotations

from PyQt6.QtCore import QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QPainter, QPaintEvent, QPen, QShowEvent
from PyQt6.QtWidgets import QAbstractScrollArea, QSizePolicy

from vadrin.app.descriptions.answer_in_words import FilmCell, FilmRow
from vadrin.app.display.verdict_words import answer_words
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.regional import write
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.drawn import Drawn

_NAME, _NOTE, _HIGH, _WIDEST = 170, 96, 48, 98


class FilmRows(Drawn):
    """Rows of frames with what each stands for, its verdict, and the range that is held."""

    def __init__(self) -> None:
        super().__init__()
        self.rows: tuple[FilmRow, ...] = ()
        self._look: Look = DAY
        self._hears = False
        self.setAccessibleName("frames of the answer")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    def sizeHint(self) -> QSize:
        """A row each."""
        return QSize(px(460), px(_HIGH) * max(len(self.rows), 1))

    def show_rows(self, rows: tuple[FilmRow, ...], look: Look) -> None:
        """Show rows; nothing for none."""
        self.rows, self._look = rows, look
        self.setVisible(bool(rows))
        self.setFixedHeight(px(_HIGH) * max(len(rows), 1))
        said = []
        for row in rows:
            cells = [
                " ".join(w for w in (c.words, "held" * c.held, answer_words(c.mark)) if w)
                for c in row.cells
            ]
            said.append(f"{row.name}: {', '.join(cells)} {row.note}".strip())
        self.setAccessibleDescription("; ".join(said))
        self.update()

    def showEvent(self, event: QShowEvent | None) -> None:
        """Hear of it when more or less of the page is seen: a table under it may be wider."""
        super().showEvent(event)
        area = self._area()
        bar = area.horizontalScrollBar() if area is not None else None
        if bar is not None and not self._hears:
            self._hears = True
            bar.rangeChanged.connect(self._seen_otherwise)

    def _seen_otherwise(self) -> None:
        self.update()

    def _area(self) -> QAbstractScrollArea | None:
        above = self.parentWidget()
        while above is not None and not isinstance(above, QAbstractScrollArea):
            above = above.parentWidget()
        return above

    @property
    def shown_width(self) -> int:
        """How wide the rows are: as much as can be seen at once."""
        area = self._area()
        seen = area.viewport() if area is not None else None
        return min(self.width(), seen.width() if seen is not None else self.width())

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Draw the rows."""
        painter = QPainter(self)
        noted = px(_NOTE) if any(r.note for r in self.rows) else 0
        left, room = px(_NAME), self.shown_width - px(_NAME) - noted
        longest = max((len(r.cells) for r in self.rows), default=1)
        wide = min(room / max(longest, 1), px(_WIDEST))
        for place, row in enumerate(self.rows):
            top = place * px(_HIGH)
            painter.setFont(role_font(Role.LABEL))
            painter.setPen(QColor(self._look.ink))
            # On two lines where it is long: a name is not cut off.
            write(
                painter,
                QRectF(0, top, px(_NAME) - px(10), px(_HIGH) - px(14)),
                Qt.AlignmentFlag.AlignVCenter | Qt.TextFlag.TextWordWrap,
                row.name,
            )
            for column, cell in enumerate(row.cells):
                box = QRectF(left + column * wide, top + px(3), wide - 2, px(_HIGH) - px(20))
                self._draw(painter, box, cell)
            if row.note:
                painter.setPen(QColor(self._look.soft))
                painter.setFont(role_font(Role.CAPTION))
                at = QRectF(left + len(row.cells) * wide + px(6), top, noted, px(_HIGH) - px(14))
                write(painter, at, Qt.AlignmentFlag.AlignVCenter, row.note)

    def _draw(self, painter: QPainter, box: QRectF, cell: FilmCell) -> None:
        look = self._look
        fill = QColor(look.rule) if cell.density is None else look.film_colour(cell.density)
        painter.fillRect(box, fill)
        painter.setFont(role_font(Role.CAPTION))
        letters = painter.fontMetrics()
        words = cell.words
        if letters.horizontalAdvance(words) > box.width():
            words = words.removeprefix("EI ")
        if letters.horizontalAdvance(words) <= box.width():
            ink = look.writing_on(fill)
            plate = look.plate_under(ink, fill)
            if plate is not None:
                under = QRectF(0, 0, letters.horizontalAdvance(words) + 4, letters.height())
                under.moveCenter(box.center())
                painter.fillRect(under, plate)
            painter.setPen(ink)
            write(painter, box, Qt.AlignmentFlag.AlignCenter, words)
        if cell.mark:
            painter.setPen(QColor(look.soft))
            below = QRectF(box.left(), box.bottom(), box.width(), px(16))
            shown = letters.elidedText(
                answer_words(cell.mark), Qt.TextElideMode.ElideRight, int(box.width())
            )
            write(painter, below, Qt.AlignmentFlag.AlignCenter, shown)
        if cell.held:
            painter.setPen(QPen(QColor(look.grease), 2.5))
            painter.drawLine(box.bottomLeft(), box.bottomRight())
            painter.drawLine(box.topLeft(), box.topRight())

"""A small curve over the reference's, for a table's cell or a gallery's tile."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import (
    QColor,
    QFontMetrics,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPen,
    QPolygonF,
    QResizeEvent,
)
from PyQt6.QtWidgets import QScrollArea, QWidget

from vadrin.app.shelf.film_comparison import ComparedFilm, cells_of
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.regional import write
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.drawn import Drawn

Curve = tuple[tuple[float, float], ...]
_TOP_DENSITY = 2.4
_TILE, _TALL = 190, 150


def draw_curves(painter: QPainter, box: QRectF, curve: Curve, reference: Curve, look: Look) -> None:
    """A curve in ink over the reference's in soft, on one field."""
    every = [*curve, *reference]
    if not every:
        return
    left, right = min(x for x, _ in every), max(x for x, _ in every)
    high = max(_TOP_DENSITY, max(d for _, d in every))
    painter.save()
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    for points, tone, width in ((reference, look.rule, 2.4), (curve, look.ink, 1.5)):
        painter.setPen(QPen(QColor(tone), width))
        painter.drawPolyline(
            QPolygonF(
                [
                    QPointF(
                        box.left() + box.width() * (x - left) / max(right - left, 0.1),
                        box.bottom() - box.height() * d / high,
                    )
                    for x, d in points
                ]
            )
        )
    painter.restore()


class CurveGallery(Drawn):
    """A tile a film, in the order of the table."""

    picked = pyqtSignal(int)

    def __init__(self) -> None:
        super().__init__()
        self.films: tuple[ComparedFilm, ...] = ()
        self._reference: ComparedFilm | None = None
        self._row, self._look = -1, DAY
        self.setAccessibleName("gallery of curves")
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)

    def show_films(
        self, films: tuple[ComparedFilm, ...], reference: ComparedFilm | None, row: int, look: Look
    ) -> None:
        """Show films; one of them is picked."""
        self.films, self._reference, self._row, self._look = films, reference, row, look
        said = (
            f"{f.film}: {cells_of(f, reference)[3]}, {cells_of(f, reference)[4]}" for f in films
        )
        self.setAccessibleDescription("; ".join(said))
        self._make_room()
        self._keep_in_sight()
        self.update()

    def _keep_in_sight(self) -> None:
        """Scroll the page so far that the picked film is seen."""
        boxes = self._boxes()
        area: QWidget | None = self
        while area is not None and not isinstance(area, QScrollArea):
            area = area.parentWidget()
        page = area.widget() if area is not None and self.hasFocus() else None
        if area is not None and page is not None and 0 <= self._row < len(boxes):
            box = boxes[self._row].toRect()
            at = self.mapTo(page, box.center())
            area.ensureVisible(at.x(), at.y(), 0, box.height() // 2)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Walk along the films: to the side, or a row up or down."""
        steps = {
            Qt.Key.Key_Left: -1,
            Qt.Key.Key_Right: 1,
            Qt.Key.Key_Up: -self._across(),
            Qt.Key.Key_Down: self._across(),
        }
        step = steps.get(Qt.Key(event.key())) if event is not None else None
        if step is None:
            super().keyPressEvent(event)
        elif 0 <= self._row + step < len(self.films):
            self.picked.emit(self._row + step)

    def _across(self) -> int:
        return max(1, self.width() // px(_TILE))

    def _make_room(self) -> None:
        rows = -(-len(self.films) // self._across())
        self.setMinimumHeight(rows * px(_TALL))

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """As many tiles in a row as have room."""
        super().resizeEvent(event)
        self._make_room()

    def _boxes(self) -> list[QRectF]:
        many = self._across()
        wide = self.width() / many
        return [
            QRectF(n % many * wide, n // many * px(_TALL), wide - px(10), px(_TALL) - px(12))
            for n in range(len(self.films))
        ]

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Draw the tiles."""
        painter = QPainter(self)
        line = QFontMetrics(role_font(Role.CAPTION)).height()
        for place, (film, box) in enumerate(zip(self.films, self._boxes(), strict=True)):
            cells = cells_of(film, self._reference)
            reference = self._reference.curve if self._reference else ()
            room = box.adjusted(px(4), px(4), -px(4), -2.0 * line - px(4))
            draw_curves(painter, room, film.curve, reference, self._look)
            under = QRectF(box.left() + px(4), box.bottom() - 2 * line, box.width() - px(8), line)
            painter.setPen(QColor(self._look.ink))
            painter.setFont(role_font(Role.LABEL))
            fits = painter.fontMetrics().elidedText
            middle = Qt.TextElideMode.ElideMiddle
            write(painter, under, 0, fits(film.film, middle, int(under.width())))
            painter.setPen(QColor(self._look.soft))
            painter.setFont(role_font(Role.CAPTION))
            words = painter.fontMetrics().elidedText(
                f"{cells[3]}, {cells[4]}", middle, int(under.width())
            )
            write(painter, under.translated(0, line), 0, words)
            tone = self._look.here if place == self._row else self._look.rule
            painter.setPen(QPen(QColor(tone), 2.0 if place == self._row else 1.0))
            painter.drawRect(box)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Pick the film under the mouse."""
        for place, box in enumerate(self._boxes()):
            if event is not None and box.contains(event.position()):
                self.picked.emit(place)

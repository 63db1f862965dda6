"""One picture with what it is of under it; an empty frame with the reason where there is none."""

from __future__ import annotations

from PyQt6.QtCore import QRect, QSize, Qt, pyqtSignal
from PyQt6.QtGui import (
    QColor,
    QFontMetrics,
    QImage,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPen,
    QResizeEvent,
)
from PyQt6.QtWidgets import QSizePolicy

from vadrin.app.pictures.exposed import Exposed
from vadrin.ui.theme.look import Look
from vadrin.ui.theme.regional import write
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.drawn import Drawn

_SIDES = 2 / 3
"""Height of a picture by its width."""
_NARROWEST = 230
"""Pixels at scale 1 under which a picture is not made narrower so that more of them are seen."""


class PictureTile(Drawn):
    """A picture of a scene as one EI and development give it.

    Attributes
    ----------
    clicked : signal
        Somebody wants it large.
    """

    clicked = pyqtSignal()

    def __init__(self, exposed: Exposed, look: Look, lines: int = 2) -> None:
        super().__init__()
        self.exposed, self.look, self._lines = exposed, look, lines
        self._image: QImage | None = None
        self._waiting = not exposed.why
        self._wide = px(_NARROWEST)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setMinimumWidth(px(90))
        self._describe("")

    def show_image(self, image: QImage | None, lost: str) -> None:
        """Show the picture; None where its development was not tested."""
        self._image, self._waiting = image, False
        self._describe(lost)
        self.update()

    def _describe(self, lost: str) -> None:
        one = self.exposed
        said = [one.name, one.said, one.cost, one.why or lost]
        self.setAccessibleName("picture: " + ", ".join(words for words in said if words))

    @property
    def _caption_height(self) -> int:
        line = QFontMetrics(role_font(Role.BODY)).height()
        return self._lines * line + px(4)

    def _height_at(self, width: int) -> int:
        """Room for the picture and what stands under it."""
        return round(width * _SIDES) + self._caption_height

    def sizeHint(self) -> QSize:
        """A picture one can judge."""
        return QSize(self._wide, self._height_at(self._wide))

    def fit(self, height: int) -> None:
        """Be no higher than so much, caption and all."""
        widest = round((height - self._caption_height) / _SIDES)
        self._wide = max(px(_NARROWEST), widest)
        self.setMaximumWidth(self._wide)
        self.updateGeometry()

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """A picture keeps its sides: a grid does not ask how high a width makes it."""
        super().resizeEvent(event)
        if self.height() != self._height_at(self.width()):
            self.setFixedHeight(self._height_at(self.width()))

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        """A click asks for it large."""
        if event is not None and event.button() == Qt.MouseButton.LeftButton:
            self.clicked.emit()

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Draw picture and caption."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        room = QRect(0, 0, self.width(), self.height() - self._caption_height)
        if self._image is not None:
            size = self._image.size().scaled(room.size(), Qt.AspectRatioMode.KeepAspectRatio)
            painter.drawImage(QRect(room.topLeft(), size), self._image)
        else:
            painter.setPen(QColor(self.look.rule))
            painter.drawRect(room.adjusted(0, 0, -1, -1))
            self._empty(painter, room)
        if self.exposed.normal:
            pen = QPen(QColor(self.look.ink), px(3))
            painter.setPen(pen)
            half = px(3) // 2
            painter.drawRect(room.adjusted(half, half, -half - 1, -half - 1))
        self._caption(painter, room.bottom() + px(3))

    def _empty(self, painter: QPainter, room: QRect) -> None:
        words = "…" if self._waiting else self.exposed.why or "not tested"
        painter.setPen(QColor(self.look.soft))
        painter.setFont(role_font(Role.CAPTION))
        inside = room.adjusted(px(6), px(4), -px(6), -px(4))
        flags = Qt.AlignmentFlag.AlignCenter | Qt.TextFlag.TextWordWrap
        write(painter, inside, int(flags), words[:1].upper() + words[1:])

    def _caption(self, painter: QPainter, top: int) -> None:
        one, font = self.exposed, role_font(Role.BODY)
        painter.setFont(font)
        line = QFontMetrics(font).height()
        # One line has room for the name alone, where there is one.
        first = (
            one.name
            if self._lines == 1 and one.name
            else " · ".join(w for w in (one.name, one.said) if w)
        )
        for number, words in enumerate((first, one.cost)[: self._lines]):
            font.setBold(one.normal and not number)
            painter.setFont(font)
            painter.setPen(QColor(self.look.soft if number else self.look.ink))
            where = QRect(0, top + number * line, self.width(), line)
            cut = QFontMetrics(font).elidedText(words, Qt.TextElideMode.ElideRight, self.width())
            write(painter, where, int(Qt.AlignmentFlag.AlignLeft), cut)

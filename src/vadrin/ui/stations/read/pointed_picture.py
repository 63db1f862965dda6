"""A picture that is pointed at: named marks and plain points on it, and a crosshair."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

import numpy as np
from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QImage, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QSizePolicy

from vadrin.core.arrays import Array
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.regional import write
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.drawn import Drawn

Place = tuple[float, float]
_DIM = 0.4
"""Brightness of a picture by the safelight."""
_FAR = 10.0
"""Pixels that the crosshair goes with Shift held."""


class Mark(NamedTuple):
    """A named place on a picture; its name stands over it or under it."""

    at: Place
    name: str
    under: bool = False


class PointedPicture(Drawn):
    """The picture, pointed at by the mouse or by a crosshair that the arrows move.

    Parameters
    ----------
    name : str
        For those who do not see it.
    pointed : callable
        EyeVerdict the place in the picture that was pointed at.
    """

    def __init__(self, name: str, pointed: Callable[[Place], None]) -> None:
        super().__init__()
        self._pointed = pointed
        self._picture: Array | None = None
        self._marks: tuple[Mark, ...] = ()
        self._points: tuple[Place, ...] = ()
        self.at: Place = (0.0, 0.0)
        self._look: Look = DAY
        self._image: QImage | None = None
        self.setAccessibleName(name)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setCursor(Qt.CursorShape.CrossCursor)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)

    def minimumSizeHint(self) -> QSize:
        """Room for a curve."""
        return QSize(px(320), px(220))

    def show_picture(
        self,
        picture: Array | None,
        look: Look,
        marks: tuple[Mark, ...] = (),
        points: tuple[Place, ...] = (),
    ) -> None:
        """Show a picture, shape (h, w, 3) from 0 to 255, with what was pointed at."""
        fresh = picture is not self._picture
        if picture is not None and (fresh or look.red_only != self._look.red_only):
            self._image = _image_of(picture, look.red_only)
            if fresh:
                self.at = (picture.shape[1] / 2, picture.shape[0] / 2)
        self._picture, self._look, self._marks, self._points = picture, look, marks, points
        said = f"{len(marks)} marks, {len(points)} points" if picture is not None else "no picture"
        self.setAccessibleDescription(said)
        self.update()

    def shift(self, across: float, down: float) -> None:
        """Move the crosshair by pixels of the picture."""
        if self._picture is None:
            return
        high, wide = self._picture.shape[:2]
        self.at = (
            min(max(self.at[0] + across, 0.0), wide - 1.0),
            min(max(self.at[1] + down, 0.0), high - 1.0),
        )
        self.update()

    def take_key(self, event: QKeyEvent, acts: dict[Qt.Key, Callable[[], None]]) -> bool:
        """Arrows move the crosshair, Enter points; `acts` are the page's own keys."""
        if self._picture is None:
            return False
        key = Qt.Key(event.key())
        far = _FAR if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else 1.0
        moves = {
            Qt.Key.Key_Left: (-far, 0.0),
            Qt.Key.Key_Right: (far, 0.0),
            Qt.Key.Key_Up: (0.0, -far),
            Qt.Key.Key_Down: (0.0, far),
        }
        if key in moves:
            self.shift(*moves[key])
            return True
        if key in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self._pointed(self.at)
            return True
        act = acts.get(key)
        if act is not None:
            act()
        return act is not None

    def _scale(self) -> float:
        high, wide = self._picture.shape[:2] if self._picture is not None else (1, 1)
        return float(min(self.width() / wide, self.height() / high))

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Draw the picture and what was set on it."""
        if self._picture is None or self._image is None:
            return
        painter, scale = QPainter(self), self._scale()
        high, wide = self._picture.shape[:2]
        painter.drawImage(QRectF(0, 0, wide * scale, high * scale), self._image)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setFont(role_font(Role.CAPTION))
        for place, name, under in self._marks:
            self._draw_mark(painter, QPointF(*place) * scale, name, under)
        painter.setPen(QPen(QColor(self._look.here), 2))
        for x, y in self._points:
            painter.drawEllipse(QPointF(x * scale, y * scale), px(4), px(4))
        across, down = self.at[0] * scale, self.at[1] * scale
        for colour, style in (
            (self._look.sheet, Qt.PenStyle.SolidLine),
            (self._look.here, Qt.PenStyle.DashLine),
        ):
            painter.setPen(QPen(QColor(colour), 1, style))
            painter.drawLine(QPointF(across, 0), QPointF(across, high * scale))
            painter.drawLine(QPointF(0, down), QPointF(wide * scale, down))

    def _draw_mark(self, painter: QPainter, place: QPointF, name: str, under: bool) -> None:
        letters = painter.fontMetrics()
        # Paper under grease, so that a mark is seen on any colour.
        for colour, width in ((self._look.sheet, 4), (self._look.here, 2)):
            painter.setPen(QPen(QColor(colour), width))
            painter.drawLine(place - QPointF(px(7), 0), place + QPointF(px(7), 0))
            painter.drawLine(place - QPointF(0, px(7)), place + QPointF(0, px(7)))
        beside = place + QPointF(px(6), px(16) if under else -px(6))
        plate = QRectF(
            beside.x() - 2,
            beside.y() - letters.ascent(),
            letters.horizontalAdvance(name) + 4,
            letters.height(),
        )
        painter.fillRect(plate, QColor(self._look.sheet))
        write(painter, beside, name)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Point at a place."""
        if event is None or self._picture is None:
            return
        at = event.position() / self._scale()
        self.at = (at.x(), at.y())
        self._pointed(self.at)


def _image_of(picture: Array, red_only: bool) -> QImage:
    tones = np.clip(picture, 0, 255).astype(np.uint8)
    if red_only:
        tones = np.zeros_like(tones)
        tones[..., 0] = (np.clip(picture, 0, 255).mean(axis=2) * _DIM).astype(np.uint8)
    high, wide = tones.shape[:2]
    image = QImage(
        np.ascontiguousarray(tones).tobytes(), wide, high, 3 * wide, QImage.Format.Format_RGB888
    )
    return image.copy()

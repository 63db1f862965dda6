"""The picture of a sheet with the marks of its axes, the points of its curve, and a crosshair."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QImage, QMouseEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QSizePolicy, QWidget

from vadrin.app.read.sheet_axes import AXIS_ENDS
from vadrin.app.read.trace_steps import Place, Trace
from vadrin.core.arrays import Array
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font

_DIM = 0.4
"""Brightness of a picture by the safelight."""


class TraceView(QWidget):
    """The picture, pointed at by the mouse or by a crosshair that the arrows move.

    Parameters
    ----------
    pointed : callable
        Told the place in the picture that was pointed at.
    """

    def __init__(self, pointed: Callable[[Place], None]) -> None:
        super().__init__()
        self._pointed = pointed
        self.trace: Trace | None = None
        self.at: Place = (0.0, 0.0)
        self._look: Look = DAY
        self._image: QImage | None = None
        self._of: object = None
        self.setAccessibleName("picture of the sheet")
        self.setCursor(Qt.CursorShape.CrossCursor)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)

    def minimumSizeHint(self) -> QSize:
        """Room for a curve."""
        return QSize(px(320), px(220))

    def show_trace(self, trace: Trace | None, look: Look) -> None:
        """Show how far a picture was traced."""
        picture = trace.picture if trace else None
        if picture is not None and (
            picture is not self._of or look.red_only != self._look.red_only
        ):
            self._image = _image_of(picture, look.red_only)
            if picture is not self._of:
                self.at = (picture.shape[1] / 2, picture.shape[0] / 2)
            self._of = picture
        self.trace, self._look = trace, look
        said = f"{len(trace.marks)} marks, {len(trace.points)} points" if trace else "no picture"
        self.setAccessibleDescription(said)
        self.update()

    def shift(self, across: float, down: float) -> None:
        """Move the crosshair by pixels of the picture."""
        if self.trace is None:
            return
        high, wide = self.trace.picture.shape[:2]
        self.at = (min(max(self.at[0] + across, 0.0), wide - 1.0),
                   min(max(self.at[1] + down, 0.0), high - 1.0))  # fmt: skip
        self.update()

    def _scale(self) -> float:
        high, wide = self.trace.picture.shape[:2] if self.trace else (1, 1)
        return float(min(self.width() / wide, self.height() / high))

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Draw the picture and what was set on it."""
        if self.trace is None or self._image is None:
            return
        painter, scale = QPainter(self), self._scale()
        high, wide = self.trace.picture.shape[:2]
        painter.drawImage(QRectF(0, 0, wide * scale, high * scale), self._image)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setFont(role_font(Role.CAPTION))
        painter.setPen(QPen(QColor(self._look.grease), 2))
        for end, (x, y) in zip(AXIS_ENDS, self.trace.marks, strict=False):
            place = QPointF(x * scale, y * scale)
            painter.drawLine(place - QPointF(px(7), 0), place + QPointF(px(7), 0))
            painter.drawLine(place - QPointF(0, px(7)), place + QPointF(0, px(7)))
            # The left and the lower mark are often one place.
            beside = QPointF(px(6), px(16) if end == "lower" else -px(6))
            painter.drawText(place + beside, f"{end} {self.trace.values[end]:g}")
        for x, y in self.trace.points:
            painter.drawEllipse(QPointF(x * scale, y * scale), px(4), px(4))
        painter.setPen(QPen(QColor(self._look.grease), 1, Qt.PenStyle.DotLine))
        across, down = self.at[0] * scale, self.at[1] * scale
        painter.drawLine(QPointF(across, 0), QPointF(across, high * scale))
        painter.drawLine(QPointF(0, down), QPointF(wide * scale, down))

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Point at a place."""
        if event is None or self.trace is None:
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
    image = QImage(np.ascontiguousarray(tones).tobytes(), wide, high, 3 * wide,
                   QImage.Format.Format_RGB888)  # fmt: skip
    return image.copy()

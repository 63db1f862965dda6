"""How far a scan's calibration can be trusted: what each known step reads beside what it is."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QSizePolicy

from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.regional import write
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.drawn import Drawn

if TYPE_CHECKING:
    from vadrin.core.scanning.calibration import ScanCalibration

_REACH = 0.06
"""Density off that the plot shows to each side."""
_SURE = 0.02
_WORDS = "error at each wedge step"


class CalibrationPlot(Drawn):
    """Residuals of the steps over their density, and where trust ends."""

    def __init__(self) -> None:
        super().__init__()
        self._made: ScanCalibration | None = None
        self._look: Look = DAY
        self.setAccessibleName("calibration of the scan")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    def sizeHint(self) -> QSize:
        """A band under the picture."""
        return QSize(px(400), px(96))

    def show_calibration(self, made: ScanCalibration | None, look: Look) -> None:
        """Show a calibration; nothing where there was no wedge."""
        self._made, self._look = made, look
        self.setVisible(made is not None and bool(made.steps))
        if made is not None and made.steps:
            off = ", ".join(f"{known:.2f}: {told - known:+.3f}" for known, told in made.steps)
            self.setAccessibleDescription(f"reliable to {made.highest:.2f}; off by {off}")
        self.update()

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Draw the band that is close enough, the steps, and the end of trust."""
        made, look = self._made, self._look
        if made is None or not made.steps:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setFont(role_font(Role.CAPTION))
        room = QRectF(px(52), px(6), self.width() - px(66), self.height() - px(30))
        last = max(made.steps[-1][0], made.highest)

        def place(density: float, off: float) -> QPointF:
            shown = max(-_REACH, min(_REACH, off))
            return QPointF(
                room.left() + room.width() * density / last,
                room.center().y() - shown / _REACH * room.height() / 2,
            )

        top, bottom = place(0, _SURE).y(), place(0, -_SURE).y()
        painter.fillRect(QRectF(room.left(), top, room.width(), bottom - top), QColor(look.grid))
        painter.setPen(QColor(look.soft))
        for off in (_SURE, -_SURE):
            words = f"{off:+.2f}".replace("-", "−")
            write(painter, QPointF(px(4), place(0, off).y() + px(4)), words)
        write(painter, QPointF(room.left() + px(4), room.top() + px(11)), _WORDS)
        for tenth in range(0, int(last * 2) + 1):
            at = place(tenth / 2, 0)
            write(painter, QPointF(at.x() - px(8), self.height() - px(6)), f"{tenth / 2:.1f}")
        end = place(made.highest, 0).x()
        painter.setPen(QPen(QColor(look.here), 2))
        painter.drawLine(QPointF(end, room.top()), QPointF(end, room.bottom()))
        words = "reliable to here"
        wide = painter.fontMetrics().horizontalAdvance(words)
        write(painter, QPointF(end - wide - px(6), room.top() + px(11)), words)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(QColor(look.ink))
        for known, told in made.steps:
            if told == told:
                painter.drawEllipse(place(known, told - known), px(3), px(3))

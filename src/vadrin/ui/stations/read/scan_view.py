"""The picture of a scan, with the frames that were found drawn over it."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
from PyQt6.QtCore import QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QImage, QMouseEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QSizePolicy

from vadrin.app.scans.scan_frames import Scan
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.regional import write
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.drawn import Drawn

_DIM = 0.35
"""Brightness of a scan by the safelight."""


class ScanView(Drawn):
    """The strip as it was scanned; each frame's box with its number, and what it reads.

    Parameters
    ----------
    dragged : callable
        EyeVerdict which frame, as it was shot, was dragged along by which share of a frame.
    """

    def __init__(self, dragged: Callable[[int, float], None]) -> None:
        super().__init__()
        self._dragged = dragged
        self._held: tuple[int, float] | None = None
        self.scan: Scan | None = None
        self.look: Look = DAY
        self._image: QImage | None = None
        self.setAccessibleName("scan with its frames")
        self.setCursor(Qt.CursorShape.OpenHandCursor)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)

    def minimumSizeHint(self) -> QSize:
        """Room for a strip."""
        return QSize(px(360), px(140))

    def show_scan(self, scan: Scan | None, look: Look) -> None:
        """Show a scan."""
        fresh = scan is not None and (self.scan is None or scan.small is not self.scan.small)
        if scan is not None and (fresh or look.red_only != self.look.red_only):
            self._image = _image_of(scan, look.red_only)
        self.scan, self.look = scan, look
        said = []
        for place in scan.shots if scan else ():
            value = scan.value_of(place) if scan else None
            dense = value.density if value else None
            said.append(f"{place + 1}: {'too dense to read' if dense is None else f'{dense:.2f}'}")
        self.setAccessibleDescription("; ".join(said) or "no scan")
        self.update()

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Draw the picture and the boxes."""
        if self.scan is None or self._image is None:
            return
        painter = QPainter(self)
        high, wide = self.scan.small.shape
        scale = self._scale()
        room = QRectF(0, 0, wide * scale, high * scale)
        painter.drawImage(room, self._image)
        painter.setFont(role_font(Role.CAPTION))
        for lying, (left, top, right, bottom) in enumerate(self.scan.boxes):
            shot = self.scan.shot_of(lying)
            told = self.scan.values[lying].density is not None
            line = Qt.PenStyle.SolidLine if told else Qt.PenStyle.DotLine
            painter.setPen(QPen(QColor(self.look.here), 2, line))
            box = QRectF(left * scale, top * scale, (right - left) * scale, (bottom - top) * scale)
            painter.drawRect(box)
            painter.setPen(QColor(self.look.here))
            write(
                painter,
                box.adjusted(0, -px(16), 0, 0),
                Qt.AlignmentFlag.AlignTop | Qt.AlignmentFlag.AlignHCenter,
                str(shot + 1),
            )

    def _scale(self) -> float:
        """Pixels of the screen for each of the small picture."""
        high, wide = self.scan.small.shape if self.scan else (1, 1)
        return float(min(self.width() / wide, self.height() / high))

    def _lying_at(self, event: QMouseEvent) -> int | None:
        """Which frame lies under the mouse, counted along the picture."""
        scale, at = self._scale(), event.position()
        for lying, (left, top, right, bottom) in enumerate(self.scan.boxes if self.scan else ()):
            if QRectF(left, top, right - left, bottom - top).contains(at / scale):
                return lying
        return None

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Take hold of a frame's box."""
        lying = self._lying_at(event) if event else None
        self._held = (lying, event.position().x()) if event and lying is not None else None

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        """Let go of it where it lies now."""
        if event is None or self._held is None or self.scan is None:
            return
        lying, began = self._held
        self._held = None
        pitch = self.scan.place.pitch / self.scan.by * self._scale()
        shot = self.scan.shot_of(lying)
        self._dragged(shot, (event.position().x() - began) / pitch)


def _image_of(scan: Scan, red_only: bool) -> QImage:
    """The small picture as greys an eye sees, or as reds by the safelight."""
    share = np.clip(scan.small / max(float(scan.small.max()), 1e-9), 0, 1) ** (1 / 2.2)
    grey = (255 * share).astype(np.uint8)
    high, wide = grey.shape
    tones = np.repeat(grey[..., None], 3, axis=2)
    if red_only:
        # A bright picture would light the room: film is drawn no brighter than the rest.
        tones[..., 0] = (grey * _DIM).astype(np.uint8)
        tones[..., 1:] = 0
    image = QImage(tones.tobytes(), wide, high, 3 * wide, QImage.Format.Format_RGB888)
    return image.copy()

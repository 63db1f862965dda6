"""Two pictures in one frame, and a seam that is moved between them."""

from __future__ import annotations

from PyQt6.QtCore import QPoint, QRect, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QFontMetrics, QImage, QMouseEvent, QPainter, QPaintEvent
from PyQt6.QtWidgets import QSizePolicy

from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.regional import write
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.drawn import Drawn

_STEP = 0.02


class Wipe(Drawn):
    """The left picture up to the seam, the right one from it on.

    Attributes
    ----------
    pointed : signal of (int, float, float)
        0 for the left picture and 1 for the right; the place as shares of width and height.
    metered : signal of (float, float)
        Where the meter is to be pointed, by a double click.
    """

    pointed = pyqtSignal(int, float, float)
    metered = pyqtSignal(float, float)

    def __init__(self) -> None:
        super().__init__()
        self.look: Look = DAY
        self.names = ("", "")
        self._images: list[QImage | None] = [None, None]
        self.seam = 0.5
        self.setMouseTracking(True)
        self.setMinimumHeight(px(160))
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)

    def sizeHint(self) -> QSize:
        """A picture worth looking into."""
        return QSize(px(390), px(260))

    def show_images(
        self, left: QImage | None, right: QImage | None, names: tuple[str, str], look: Look
    ) -> None:
        """Show two pictures of one size."""
        self._images, self.names, self.look = [left, right], names, look
        self.setAccessibleName(f"two pictures in one frame: left {names[0]}, right {names[1]}")
        self.update()

    def move_seam(self, way: int) -> None:
        """Move the seam by a step."""
        self.seam = min(1.0, max(0.0, self.seam + way * _STEP))
        self.update()

    @property
    def frame(self) -> QRect:
        """Where the picture lies."""
        first = next((i for i in self._images if i is not None), None)
        if first is None:
            return self.rect()
        size = first.size().scaled(self.size(), Qt.AspectRatioMode.KeepAspectRatio)
        return QRect(QPoint(0, 0), size)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Take the seam along."""
        if event is not None:
            self._seam_to(event.position().x())

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        """Point the meter there."""
        if event is not None:
            frame, place = self.frame, event.position()
            across, down = place.x() / max(1, frame.width()), place.y() / max(1, frame.height())
            if 0 <= across < 1 and 0 <= down < 1:
                self.metered.emit(across, down)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        """Move the seam while a button is held; else tell what lies under the pointer."""
        if event is None:
            return
        if event.buttons() & Qt.MouseButton.LeftButton:
            self._seam_to(event.position().x())
            return
        frame, place = self.frame, event.position()
        across, down = place.x() / max(1, frame.width()), place.y() / max(1, frame.height())
        if 0 <= across < 1 and 0 <= down < 1:
            self.pointed.emit(int(across >= self.seam), across, down)

    def _seam_to(self, x: float) -> None:
        self.seam = min(1.0, max(0.0, x / max(1, self.frame.width())))
        self.update()

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Draw both sides of the seam."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        frame = self.frame
        seam = round(frame.width() * self.seam)
        for image, start, end in (
            (self._images[0], 0, seam),
            (self._images[1], seam, frame.width()),
        ):
            painter.setClipRect(QRect(start, 0, end - start, frame.height()))
            if image is not None:
                painter.drawImage(frame, image)
            else:
                painter.fillRect(
                    QRect(start, 0, end - start, frame.height()), QColor(self.look.sheet)
                )
        painter.setClipping(False)
        painter.fillRect(
            QRect(seam - px(1), 0, max(1, px(2)), frame.height()), QColor(self.look.here)
        )
        self._name(painter, self.names[0], frame, left=True)
        self._name(painter, self.names[1], frame, left=False)

    def _name(self, painter: QPainter, words: str, frame: QRect, left: bool) -> None:
        font = role_font(Role.BODY)
        painter.setFont(font)
        metrics = QFontMetrics(font)
        wide = metrics.horizontalAdvance(words) + px(10)
        x = px(6) if left else frame.width() - wide - px(6)
        plate = QRect(x, frame.height() - metrics.height() - px(10), wide, metrics.height() + px(4))
        painter.fillRect(plate, QColor(self.look.sheet))
        painter.setPen(QColor(self.look.ink))
        write(painter, plate, int(Qt.AlignmentFlag.AlignCenter), words)

"""Two strips' pictures, one above the other or one over the other, at the same size."""

from __future__ import annotations

from PyQt6.QtCore import QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QImage, QPainter, QPaintEvent
from PyQt6.QtWidgets import QSizePolicy

from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.regional import write
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.drawn import Drawn


class PairView(Drawn):
    """The pictures kept of two strips; nothing where they are in the hands."""

    def __init__(self) -> None:
        super().__init__()
        self._images: tuple[QImage, ...] = ()
        self._names = ("", "")
        self._look: Look = DAY
        self.over: int | None = None
        """Which of the two is shown alone; None for both."""
        self.setAccessibleName("pictures of the pair")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)

    def minimumSizeHint(self) -> QSize:
        """Room for two strips."""
        return QSize(px(320), px(90))

    def show_pair(self, previews: tuple[bytes, ...], names: tuple[str, str], look: Look) -> None:
        """Show two previews, or none."""
        images = tuple(QImage.fromData(p) for p in previews)
        self._images = images if len(images) == 2 and not any(i.isNull() for i in images) else ()
        self._names, self._look = names, look
        self.setVisible(bool(self._images))
        self.update()

    def turn_over(self) -> None:
        """Show both, the first alone, the second alone, and both again."""
        self.over = {None: 0, 0: 1, 1: None}[self.over]
        self.update()

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Draw the pictures with the names they go by."""
        painter = QPainter(self)
        painter.setFont(role_font(Role.LABEL))
        if not self._images:
            return
        shown = [0, 1] if self.over is None else [self.over]
        high = self.height() / len(shown)
        wide = max(i.width() for i in self._images)
        scale = min(self.width() / wide, (high - px(18)) / max(i.height() for i in self._images))
        for row, which in enumerate(shown):
            image = self._images[which]
            room = QRectF(0, row * high + px(16), image.width() * scale, image.height() * scale)
            if self._look.red_only:
                painter.setOpacity(0.3)
            painter.drawImage(room, image)
            painter.setOpacity(1.0)
            if self._look.red_only:
                painter.setCompositionMode(QPainter.CompositionMode.CompositionMode_Multiply)
                painter.fillRect(room, QColor(120, 0, 0))
                painter.setCompositionMode(QPainter.CompositionMode.CompositionMode_SourceOver)
            painter.setPen(QColor(self._look.ink))
            write(
                painter,
                QRectF(0, row * high, self.width(), px(16)),
                Qt.AlignmentFlag.AlignLeft,
                self._names[which],
            )

"""Two patches that touch, at their true luminances: the tester's own eye is asked, not told."""

from __future__ import annotations

from PyQt6.QtCore import QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QPainter, QPaintEvent
from PyQt6.QtWidgets import QSizePolicy

from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.regional import write
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.drawn import Drawn

Patch = tuple[str, float]
"""What a patch is called, and its density: over the bare light, or over white paper."""


class TruePatches(Drawn):
    """Patches side by side, without a number: what is seen is for the tester to say."""

    def __init__(self) -> None:
        super().__init__()
        self.patches: tuple[Patch, ...] = ()
        self._look: Look = DAY
        self.setAccessibleName("two patches to compare")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    def sizeHint(self) -> QSize:
        """Room for two patches and their names."""
        return QSize(px(460), px(170))

    def show_patches(self, patches: tuple[Patch, ...], look: Look) -> None:
        """Show patches; none hides it."""
        self.patches, self._look = patches, look
        self.setVisible(bool(patches))
        self.setAccessibleDescription(" beside ".join(name for name, _ in patches))
        self.update()

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Draw them edge to edge, their names underneath."""
        if not self.patches:
            return
        painter = QPainter(self)
        wide, low = self.width() / len(self.patches), float(px(24))
        painter.setFont(role_font(Role.LABEL))
        for place, (name, density) in enumerate(self.patches):
            room = QRectF(place * wide, 0, wide, self.height() - low)
            painter.fillRect(room, self._look.film_colour(density))
            painter.setPen(QColor(self._look.soft))
            under = QRectF(room.left(), room.bottom(), wide, low)
            write(painter, under, Qt.AlignmentFlag.AlignCenter, name)

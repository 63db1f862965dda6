"""Two pieces of film side by side, at the greys their densities have on a light table."""

from __future__ import annotations

from PyQt6.QtCore import QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QPainter, QPaintEvent
from PyQt6.QtWidgets import QSizePolicy

from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.regional import write
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.drawn import Drawn

Piece = tuple[str, float | None]
"""What a piece is called, and its density where it is known."""


class TwoGreys(Drawn):
    """Pieces that touch, so that the eye can tell them apart."""

    def __init__(self) -> None:
        super().__init__()
        self.pieces: tuple[Piece, ...] = ()
        self.look: Look = DAY
        self.setAccessibleName("pieces side by side")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    def sizeHint(self) -> QSize:
        """Room for two greys and their names."""
        return QSize(px(460), px(150))

    def show_pieces(self, pieces: tuple[Piece, ...], look: Look) -> None:
        """Show the pieces."""
        self.pieces, self.look = pieces, look
        said = "; ".join(f"{n}: {'not read' if d is None else f'{d:.2f}'}" for n, d in pieces)
        self.setAccessibleDescription(said)
        self.update()

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Draw them."""
        if not self.pieces:
            return
        painter = QPainter(self)
        wide = self.width() / len(self.pieces)
        for place, (name, density) in enumerate(self.pieces):
            room = QRectF(place * wide, 0, wide, self.height())
            fill = QColor(self.look.table)
            if density is not None:
                fill = self.look.film_colour(density)
            painter.fillRect(room, fill)
            painter.setPen(self.look.writing_on(fill))
            painter.setFont(role_font(Role.HEADING))
            words = f"{name}\n{'not read yet' if density is None else f'{density:.2f}'}"
            write(painter, room, Qt.AlignmentFlag.AlignCenter, words)

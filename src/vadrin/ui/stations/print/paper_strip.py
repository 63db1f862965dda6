"""A test strip drawn as paper: its sections by number, with the time each had in all."""

from __future__ import annotations

from PyQt6.QtCore import QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QSizePolicy

from vadrin.app.printing.print_setups import seconds_text
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.regional import write
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.drawn import Drawn


class PaperStrip(Drawn):
    """The sections of a strip side by side; the one chosen is ringed."""

    def __init__(self) -> None:
        super().__init__()
        self._totals: tuple[float, ...] = ()
        self._chosen: int | None = None
        self._look: Look = DAY
        self._tones: tuple[float, ...] = ()
        self.setAccessibleName("strip of paper")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    def sizeHint(self) -> QSize:
        """A strip."""
        return QSize(px(420), px(72))

    def show_strip(
        self,
        totals: tuple[float, ...],
        chosen: int | None,
        look: Look,
        tones: tuple[float, ...] = (),
    ) -> None:
        """Show the seconds of every section; `tones` are its reflection densities, where the
        strip was made in the practice room."""
        self._tones = tones
        self._totals, self._chosen, self._look = totals, chosen, look
        said = ", ".join(f"{n}: {seconds_text(t)}" for n, t in enumerate(totals, start=1))
        self.setAccessibleDescription(f"{said}; chosen {chosen or 'none'}")
        self.update()

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Draw the sections, light to dark as they will be."""
        if not self._totals:
            return
        painter = QPainter(self)
        painter.setFont(role_font(Role.LABEL))
        count = len(self._totals)
        wide, look = self.width() / count, self._look
        for place, seconds in enumerate(self._totals):
            box = QRectF(place * wide, px(4), wide - 2, self.height() - px(26))
            # Not what it will be, which nobody knows yet: only that each is darker than the last.
            fill = look.film_colour(0.1 + 1.9 * place / max(count - 1, 1))
            if self._tones:
                box = QRectF(place * wide, px(4), wide, self.height() - px(26))
                fill = look.film_colour(self._tones[place])
            painter.fillRect(box, fill)
            painter.setPen(look.writing_on(fill))
            write(painter, box, Qt.AlignmentFlag.AlignCenter, str(place + 1))
            painter.setPen(QColor(look.soft))
            under = QRectF(box.left(), box.bottom() + px(2), wide, px(18))
            write(painter, under, Qt.AlignmentFlag.AlignCenter, seconds_text(seconds))
            if self._chosen == place + 1:
                painter.setPen(QPen(QColor(look.here), 3))
                painter.setBrush(Qt.BrushStyle.NoBrush)
                painter.drawRect(box.adjusted(1, 1, -1, -1))

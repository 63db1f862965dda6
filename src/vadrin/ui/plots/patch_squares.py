"""Patches of a chart as patches: each as it was normally, beside what every push made of it."""

from __future__ import annotations

from PyQt6.QtCore import QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QSizePolicy

from vadrin.app.descriptions.answer_in_words import PatchColours
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.regional import write
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.drawn import Drawn

_NAME, _WIDE, _HIGH, _HEAD = 76, 92, 26, 18


class PatchSquares(Drawn):
    """A row a patch, a square a push: its left half as the first is, so that a change is a seam."""

    def __init__(self) -> None:
        super().__init__()
        self.patches: tuple[PatchColours, ...] = ()
        self._look: Look = DAY
        self.setAccessibleName("patches of the chart over the pushes")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    def sizeHint(self) -> QSize:
        """A row a patch under the names of the pushes."""
        across = max((len(p.places) for p in self.patches), default=1)
        return QSize(px(_NAME + _WIDE * across), px(_HEAD + _HIGH * len(self.patches) + 4))

    def show_patches(self, patches: tuple[PatchColours, ...], look: Look) -> None:
        """Show patches; nothing for none."""
        self.patches, self._look = patches, look
        self.setVisible(bool(patches))
        self.setFixedHeight(self.sizeHint().height())
        self.setAccessibleDescription("; ".join(f"{p.name}: {p.words}" for p in patches))
        self.update()

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Draw the squares."""
        if not self.patches:
            return
        painter = QPainter(self)
        painter.setFont(role_font(Role.CAPTION))
        painter.setPen(QColor(self._look.soft))
        for column, (of, _) in enumerate(self.patches[0].places):
            at = QRectF(px(_NAME + _WIDE * column), 0, px(_WIDE), px(_HEAD))
            write(painter, at, Qt.AlignmentFlag.AlignLeft, of)
        for row, patch in enumerate(self.patches):
            self._row(painter, px(_HEAD + _HIGH * row), patch)

    def _row(self, painter: QPainter, top: int, patch: PatchColours) -> None:
        painter.setPen(QColor(self._look.ink))
        name = QRectF(0, top, px(_NAME - 6), px(_HIGH - 4))
        write(painter, name, Qt.AlignmentFlag.AlignVCenter, patch.name)
        first = patch.places[0][1]
        for column, (_, colour) in enumerate(patch.places):
            box = QRectF(px(_NAME + _WIDE * column), top, px(_WIDE - 8), px(_HIGH - 4))
            half = QRectF(box.left(), box.top(), box.width() / 2, box.height())
            if colour is None or first is None:
                painter.setPen(QPen(QColor(self._look.rule), 1, Qt.PenStyle.DashLine))
                painter.drawRect(box)
                continue
            painter.fillRect(box, self._shade(colour))
            painter.fillRect(half, self._shade(first))

    def _shade(self, colour: tuple[int, int, int]) -> QColor:
        """The colour itself; under a safelight only how light it is."""
        if not self._look.red_only:
            return QColor(*colour)
        red, green, blue = colour
        return QColor(round(0.21 * red + 0.72 * green + 0.07 * blue), 0, 0)

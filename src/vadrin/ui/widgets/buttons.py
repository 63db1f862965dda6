"""Push buttons: plain, primary, or looking like text."""

from __future__ import annotations

from collections.abc import Callable
from enum import Enum
from typing import TYPE_CHECKING

from PyQt6.QtCore import QPoint, QSize, Qt
from PyQt6.QtGui import (
    QFocusEvent,
    QFont,
    QFontMetrics,
    QKeyEvent,
    QPainter,
    QPaintEvent,
    QPalette,
    QPen,
)
from PyQt6.QtWidgets import QAbstractButton, QPushButton, QRadioButton

from vadrin.app.display.region import local
from vadrin.ui.theme.look import MAIN, ON_MAIN, RULE, TONES
from vadrin.ui.theme.regional import write
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import role_font

_ROUND = 3
_ARROWS = (Qt.Key.Key_Left, Qt.Key.Key_Right, Qt.Key.Key_Up, Qt.Key.Key_Down)


def _with_modifier(event: QKeyEvent) -> bool:
    return event.modifiers() not in (
        Qt.KeyboardModifier.NoModifier,
        Qt.KeyboardModifier.KeypadModifier,
    )


def _bold(font: QFont) -> QFont:
    made = QFont(font)
    made.setWeight(QFont.Weight.Bold)
    return made


class ButtonKind(Enum):
    """What a button is; with the room beside and above its words, in pixels."""

    PLAIN = (13, 7)
    PRIMARY = (15, 11)
    """The one act a page is there for."""
    LINK = (0, 2)
    """Looks like text."""


# What is drawn is one thing and what a screen reader is told another: Qt tells it the class.
if TYPE_CHECKING:
    _AnyButton = QAbstractButton
else:
    _AnyButton = object


class _Drawn(_AnyButton):
    """How a button looks, in the palette's colours, and which keys press it."""

    kind = ButtonKind.PLAIN
    indent = 0
    """Pixels that a link's words stand to the right."""

    def setText(self, words: str | None) -> None:
        """Take words, as the region writes them."""
        super().setText(local(words or ""))

    def sizeHint(self) -> QSize:
        """Its words, with room about them."""
        beside, above = self.kind.value
        metrics = self.fontMetrics()
        if self.isCheckable():
            # As wide as when it is bold, so that its neighbours stand still.
            metrics = QFontMetrics(_bold(self.font()))
        words = metrics.size(Qt.TextFlag.TextShowMnemonic, self.text() or "XXXX")
        return QSize(words.width() + 2 * beside + self.indent, words.height() + 2 * above)

    def minimumSizeHint(self) -> QSize:
        """All of its words: a button cut short says something else."""
        return self.sizeHint()

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Draw it."""
        painter = QPainter(self)
        if self.kind is ButtonKind.LINK:
            self._draw_link(painter)
        else:
            self._draw_box(painter)

    def _draw_link(self, painter: QPainter) -> None:
        font = self.font()
        lively = self.isChecked() or self.hasFocus() or (self.isEnabled() and self.underMouse())
        if self.isChecked():
            font = _bold(font)
            under = self.rect().adjusted(0, self.height() - 2, 0, 0)
            painter.fillRect(under, self.palette().color(TONES["here"]))
        font.setUnderline(self.hasFocus())
        painter.setFont(font)
        painter.setPen(self.palette().color(TONES["" if lively else "soft"]))
        words = self.rect().adjusted(self.indent, 0, 0, 0)
        fitting = QFontMetrics(font).elidedText(
            self.text(), Qt.TextElideMode.ElideMiddle, words.width(), Qt.TextFlag.TextShowMnemonic
        )
        write(painter, words, self._placed(Qt.AlignmentFlag.AlignLeft), fitting)

    def _draw_box(self, painter: QPainter) -> None:
        palette, primary = self.palette(), self.kind is ButtonKind.PRIMARY
        ground, words, edge = None, TONES[""], RULE
        if primary:
            ground, words, edge = MAIN, ON_MAIN, TONES[""]
        if not self.isEnabled():
            ground, words, edge = (RULE if primary else None), TONES["soft"], RULE
        elif self.hasFocus():
            edge = TONES["done" if primary else "soft"]
        elif self.underMouse() and not primary:
            edge = TONES["soft"]
        self._draw_edge(painter, palette, ground, edge)
        painter.setPen(palette.color(words))
        write(painter, self.rect(), self._placed(Qt.AlignmentFlag.AlignHCenter), self.text())

    def _draw_edge(
        self,
        painter: QPainter,
        palette: QPalette,
        ground: QPalette.ColorRole | None,
        edge: QPalette.ColorRole,
    ) -> None:
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        thick = 2 if self.hasFocus() else 1
        painter.setPen(QPen(palette.color(edge), thick))
        painter.setBrush(Qt.BrushStyle.NoBrush if ground is None else palette.color(ground))
        box = self.rect().toRectF().adjusted(thick / 2, thick / 2, -thick / 2, -thick / 2)
        painter.drawRoundedRect(box, _ROUND, _ROUND)

    @staticmethod
    def _placed(across: Qt.AlignmentFlag) -> int:
        return int(across | Qt.AlignmentFlag.AlignVCenter) | int(Qt.TextFlag.TextShowMnemonic)


class Button(_Drawn, QPushButton):
    """A push button.

    Parameters
    ----------
    words : str
    kind : ButtonKind
    """

    def __init__(self, words: str, kind: ButtonKind = ButtonKind.PLAIN) -> None:
        super().__init__(local(words))
        self.kind = kind
        primary = kind is ButtonKind.PRIMARY
        self.setFont(role_font(Role.LEAD if primary else Role.BODY, bold=primary))

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Enter presses it, as Space does."""
        enter = (Qt.Key.Key_Return, Qt.Key.Key_Enter)
        if event is not None and event.key() in enter and not _with_modifier(event):
            self.click()
        elif event is not None and event.key() in _ARROWS:
            # Arrows belong to the page: they walk its film, or its rows.
            event.ignore()
        else:
            super().keyPressEvent(event)


class PlaceButton(QRadioButton):
    """One of several places, of which one is shown; a screen reader hears which.

    The program says which: a press only asks for a place.
    """

    def show_here(self, here: bool) -> None:
        """Mark it as the place that is shown, or not."""
        # One of an exclusive group could not be unmarked, as where another page has all the room.
        self.setAutoExclusive(False)
        self.setChecked(here)
        self.setAutoExclusive(True)

    def nextCheckState(self) -> None:
        """A press changes nothing by itself."""

    def hitButton(self, position: QPoint) -> bool:
        """All of it, not a circle that is not drawn."""
        return self.rect().contains(position)

    def focusInEvent(self, _event: QFocusEvent | None) -> None:
        """Every place can be come to by Tab, not the one alone that is shown."""
        self.update()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Enter presses it, as Space does; the arrows go to the places beside it."""
        enter = (Qt.Key.Key_Return, Qt.Key.Key_Enter)
        if event is not None and event.key() in enter and not _with_modifier(event):
            self.click()
        elif event is not None and event.key() in _ARROWS:
            self.focusNextPrevChild(event.key() in (Qt.Key.Key_Right, Qt.Key.Key_Down))
        else:
            super().keyPressEvent(event)


class PlaceLink(_Drawn, PlaceButton):
    """A link to a place.

    Parameters
    ----------
    words : str
    """

    def __init__(self, words: str) -> None:
        super().__init__(local(words))
        self.kind = ButtonKind.LINK
        self.setFont(role_font(Role.BODY))
        self.show_here(False)


def button(
    words: str, act: Callable[[], object], primary: bool = False, link: bool = False
) -> Button:
    """A push button; the primary one is filled, a link looks like text."""
    kind = ButtonKind.PRIMARY if primary else ButtonKind.LINK if link else ButtonKind.PLAIN
    made = Button(words, kind)
    made.clicked.connect(lambda: act())
    return made

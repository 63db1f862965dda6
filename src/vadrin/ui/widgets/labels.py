"""Labels by their role, and hairlines."""

from __future__ import annotations

import re

from PyQt6.QtCore import QSize, Qt
from PyQt6.QtGui import QPainter, QPaintEvent, QResizeEvent
from PyQt6.QtWidgets import QFrame, QLabel, QSizePolicy

from vadrin.app.display.region import local
from vadrin.ui.theme.look import RULE, TONES
from vadrin.ui.theme.regional import write
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import role_font
from vadrin.ui.widgets.tips import set_tip

_LONGEST_RUN = 28
_LONGEST_SHOWN = 6000
"""Letters of one label; nobody reads more at a glance, and laying them out takes seconds."""
_BREAK = "\u200b"
"""A place where a line may end, and nothing is seen."""


class _Plain(QLabel):
    """Words of the program, as the region writes them."""

    def __init__(self, words: str) -> None:
        super().__init__()
        self.setText(words)

    def setText(self, words: str | None) -> None:
        """Take words."""
        super().setText(local(words or ""))


class _Wrapped(_Plain):
    """Wraps even a name that has no space in it."""

    def setText(self, words: str | None) -> None:
        """Let runs of letters longer than any word be broken; what is endless is cut."""
        shown = words or ""
        if len(shown) > _LONGEST_SHOWN:
            shown = f"{shown[:_LONGEST_SHOWN]} …"
        run = rf"(\S{{{_LONGEST_RUN}}})(?=\S)"
        super().setText(re.sub(run, rf"\1{_BREAK}", shown))


def text(
    words: str = "",
    role: Role = Role.BODY,
    wrap: bool = False,
    bold: bool = False,
    tone: str | None = None,
) -> QLabel:
    """A label.

    Parameters
    ----------
    words : str
    role : Role
    wrap : bool
    bold : bool
        Heavier than its role is, to stand out among its like.
    tone : str, optional
        Another tone than the role's.
    """
    label = (_Wrapped if wrap else _Plain)(words)
    label.setFont(role_font(role, bold))
    label.setForegroundRole(TONES[role.tone if tone is None else tone])
    label.setWordWrap(wrap)
    label.setTextFormat(Qt.TextFormat.PlainText)
    return label


class ElidedLabel(QLabel):
    """One line that gives up its middle where room is short.

    The whole is in the tool tip, and said to screen readers.
    """

    elides = True

    def __init__(self, words: str = "", role: Role = Role.BODY) -> None:
        super().__init__()
        self.setFont(role_font(role))
        self.setForegroundRole(TONES[role.tone])
        self.setTextFormat(Qt.TextFormat.PlainText)
        self.setSizePolicy(QSizePolicy.Policy.Maximum, QSizePolicy.Policy.Fixed)
        self.setText(words)

    def setText(self, words: str | None) -> None:
        """Take words on a single line."""
        super().setText(local(" ".join((words or "").split())))
        self.updateGeometry()
        self._tell()

    def sizeHint(self) -> QSize:
        """Room for all of it."""
        metrics = self.fontMetrics()
        return QSize(metrics.horizontalAdvance(self.text()) + 2, metrics.height() + 2)

    def minimumSizeHint(self) -> QSize:
        """Room for its beginning and its end."""
        shortest = self.fontMetrics().horizontalAdvance(self.text()[:3] + "…" + self.text()[-3:])
        return QSize(min(shortest, self.sizeHint().width()), self.sizeHint().height())

    def shown_short(self) -> bool:
        """Whether its middle is left out now."""
        return self.fontMetrics().horizontalAdvance(self.text()) > self.width()

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """Tell the whole where it is not seen."""
        super().resizeEvent(event)
        self._tell()

    def _tell(self) -> None:
        set_tip(self, self.text() if self.shown_short() else "")

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Draw what there is room for."""
        painter = QPainter(self)
        middle = Qt.TextElideMode.ElideMiddle
        shown = self.fontMetrics().elidedText(self.text(), middle, self.width())
        painter.setPen(self.palette().color(self.foregroundRole()))
        write(painter, self.rect(), Qt.AlignmentFlag.AlignVCenter | self.alignment(), shown)


def rule() -> QFrame:
    """A hairline."""
    line = QFrame()
    line.setAutoFillBackground(True)
    line.setBackgroundRole(RULE)
    line.setFixedHeight(1)
    return line

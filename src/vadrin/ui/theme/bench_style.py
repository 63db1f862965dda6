"""How the window's standard parts are drawn: lines to type in, scroll bars, heads of tables.

No style sheet: Qt goes through every widget there is to put one on, and a look is to change
within a blink. What is drawn here takes its colours from the palette.
"""

from __future__ import annotations

from PyQt6 import sip
from PyQt6.QtCore import QCoreApplication, QEvent, QRect, Qt
from PyQt6.QtGui import QPainter, QPalette
from PyQt6.QtWidgets import (
    QApplication,
    QProxyStyle,
    QStyle,
    QStyleOption,
    QStyleOptionComplex,
    QStyleOptionSlider,
    QToolTip,
    QWidget,
)

from vadrin.ui.theme import typeface
from vadrin.ui.theme.look import RULE, TONES, Look, palette_of
from vadrin.ui.theme.roles import Role

_BAR, _LEAST_HANDLE, _HEAD_MARGIN = 8, 24, 6
_Metric, _Control, _Part = QStyle.PixelMetric, QStyle.ControlElement, QStyle.SubControl


class BenchStyle(QProxyStyle):
    """Flat parts in the palette's colours, over the style that ships with Qt.

    `red_only` hides the text caret: Qt draws it inverted, which would be cyan light. The field's
    underline shows where one types.
    """

    def __init__(self) -> None:
        super().__init__("Fusion")
        self.red_only = False

    def pixelMetric(
        self,
        metric: QStyle.PixelMetric,
        option: QStyleOption | None = None,
        widget: QWidget | None = None,
    ) -> int:
        """Thin scroll bars, and no caret where only red may shine."""
        if metric == _Metric.PM_ScrollBarExtent:
            return _BAR
        if metric == _Metric.PM_TextCursorWidth and self.red_only:
            return 0
        if metric == _Metric.PM_HeaderMargin:
            return _HEAD_MARGIN
        return super().pixelMetric(metric, option, widget)

    def drawPrimitive(
        self,
        element: QStyle.PrimitiveElement,
        option: QStyleOption | None,
        painter: QPainter | None,
        widget: QWidget | None = None,
    ) -> None:
        """A line to type in has a line under it, and no frame."""
        if element == QStyle.PrimitiveElement.PE_PanelLineEdit and option and painter:
            _draw_panel(option, painter, widget)
        else:
            super().drawPrimitive(element, option, painter, widget)

    def drawControl(
        self,
        element: QStyle.ControlElement,
        option: QStyleOption | None,
        painter: QPainter | None,
        widget: QWidget | None = None,
    ) -> None:
        """A table's heads stand over a hairline."""
        if element == _Control.CE_HeaderSection and option and painter:
            painter.fillRect(option.rect, option.palette.window())
            painter.fillRect(_under(option.rect, 1), option.palette.color(RULE))
        else:
            super().drawControl(element, option, painter, widget)

    def drawComplexControl(
        self,
        control: QStyle.ComplexControl,
        option: QStyleOptionComplex | None,
        painter: QPainter | None,
        widget: QWidget | None = None,
    ) -> None:
        """A scroll bar is its handle alone."""
        if control == QStyle.ComplexControl.CC_ScrollBar and option and painter:
            painter.fillRect(option.rect, option.palette.window())
            handle = self.subControlRect(control, option, _Part.SC_ScrollBarSlider, widget)
            painter.fillRect(handle, option.palette.color(RULE))
        else:
            super().drawComplexControl(control, option, painter, widget)

    def subControlRect(
        self,
        control: QStyle.ComplexControl,
        option: QStyleOptionComplex | None,
        part: QStyle.SubControl,
        widget: QWidget | None = None,
    ) -> QRect:
        """Where a part of a scroll bar is: it has no buttons at its ends."""
        if control == QStyle.ComplexControl.CC_ScrollBar and isinstance(option, QStyleOptionSlider):
            return _scroll_part(option, part)
        return super().subControlRect(control, option, part, widget)


def _under(rect: QRect, thick: int) -> QRect:
    return QRect(rect.x(), rect.bottom() + 1 - thick, rect.width(), thick)


def _draw_panel(option: QStyleOption, painter: QPainter, field: QWidget | None) -> None:
    word, wrong = getattr(field, "word", False), getattr(field, "wrong", False)
    palette, focused = option.palette, bool(option.state & QStyle.StateFlag.State_HasFocus)
    if focused or not word:
        painter.fillRect(option.rect, palette.base())
    line = TONES["trouble"] if wrong else TONES[""] if focused else TONES["soft"]
    thick = 2 if word or focused or wrong else 1
    painter.fillRect(_under(option.rect, thick), palette.color(line))


def _scroll_part(bar: QStyleOptionSlider, part: QStyle.SubControl) -> QRect:
    upright = bar.orientation == Qt.Orientation.Vertical
    room = bar.rect.height() if upright else bar.rect.width()
    span = bar.maximum - bar.minimum
    long = room
    if span > 0:
        long = min(room, max(_LEAST_HANDLE, room * bar.pageStep // max(span + bar.pageStep, 1)))
    start = QStyle.sliderPositionFromValue(
        bar.minimum, bar.maximum, bar.sliderPosition, room - long, bar.upsideDown
    )
    first, last = {
        _Part.SC_ScrollBarGroove: (0, room),
        _Part.SC_ScrollBarSlider: (start, start + long),
        _Part.SC_ScrollBarSubPage: (0, start),
        _Part.SC_ScrollBarAddPage: (start + long, room),
    }.get(part, (0, 0))
    if upright:
        return QRect(0, first, bar.rect.width(), last - first)
    return QRect(first, 0, last - first, bar.rect.height())


_worn: BenchStyle | None = None


def wear(app: QApplication, look: Look) -> None:
    """Put a look, and type of the size chosen, on everything there is and everything to come."""
    global _worn
    if _worn is None or sip.isdeleted(_worn):
        _worn = BenchStyle()
        app.setStyle(_worn)
    _worn.red_only = look.red_only
    app.setFont(typeface.role_font(Role.BODY))
    palette = palette_of(look)
    app.setPalette(palette)
    heads = QPalette(palette)
    heads.setColor(heads.ColorRole.ButtonText, palette.color(TONES["soft"]))
    app.setPalette(heads, "QHeaderView")
    # Qt would tell the widgets in a turn to come; by the safelight not one picture may be white.
    for told in (QEvent.Type.ApplicationPaletteChange, QEvent.Type.ApplicationFontChange):
        QCoreApplication.sendPostedEvents(None, told)
    QToolTip.setPalette(palette)
    QToolTip.setFont(typeface.role_font(Role.CAPTION))

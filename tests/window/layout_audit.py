"""What a pair of eyes would find wrong with a window: words cut off, lost, or on each other."""

import re

from PyQt6.QtCore import QPoint, QRect, Qt
from PyQt6.QtWidgets import (
    QAbstractButton,
    QAbstractScrollArea,
    QApplication,
    QLabel,
    QLineEdit,
    QWidget,
)

from vadrin.ui.widgets.sentence import FlowingSentence

SLACK = 2
"""Pixels that rounding may take."""


def readable(window, widgets):
    """Widgets with words of their own that can be seen, in the window's coordinates."""
    kinds = (QLabel, QLineEdit, QAbstractButton, FlowingSentence)
    for widget in widgets:
        if not isinstance(widget, kinds) or not widget.isVisible() or not widget.width():
            continue
        if isinstance(widget, QLabel) and (not widget.text() or not widget.pixmap().isNull()):
            continue
        yield widget, QRect(widget.mapTo(window, QPoint(0, 0)), widget.size())


def cut_words(widget):
    """Why a widget does not show all its words; empty where it does, or elides on purpose."""
    words = widget.text()
    if isinstance(widget, FlowingSentence):
        boxes = [word.box for word in widget.layout().plain_words]
        room = widget.rect().adjusted(-SLACK, -SLACK, 8, SLACK)
        return "" if all(room.contains(box) for box in boxes) else "a word outside its sentence"
    if getattr(widget, "elides", False):
        whole = widget.toolTip() if widget.shown_short() else words
        return "" if words in whole else f"elided, and nowhere whole {widget.width()}"
    metrics = widget.fontMetrics()
    if isinstance(widget, QLabel) and widget.wordWrap():
        widest = max(metrics.horizontalAdvance(w) for w in re.split(r"[\s\u200b]+", words))
        if widest > widget.width() + SLACK:
            return "a word is wider than its label"
        needed = widget.heightForWidth(widget.width())
        return "lines are missing" if needed > widget.height() + SLACK else ""
    if isinstance(widget, QLabel):
        lines = words.split("\n")
        wide = max(metrics.horizontalAdvance(line) for line in lines)
        if wide > widget.contentsRect().width() + SLACK:
            return f"{wide} px of words in {widget.contentsRect().width()}"
        high = metrics.height() * len(lines)
        return "cut at the foot" if high > widget.height() + SLACK + 2 else ""
    if isinstance(widget, QAbstractButton):
        short = widget.width() < widget.sizeHint().width() - SLACK
        return "a button narrower than its words" if short else ""
    return ""


def unreachable(window, widget, box):
    """Why a widget cannot be got at; empty where it lies in the window or scrolls into it."""
    inner, outer = widget, widget.parentWidget()
    while outer is not None and inner is not window:
        area = outer.parentWidget()
        if isinstance(area, QAbstractScrollArea) and area.viewport() is outer:
            if inner.width() > outer.width() + SLACK and _never(area.horizontalScrollBarPolicy()):
                return f"{inner.width()} px wide in {outer.width()}, with nothing to scroll"
            if inner.height() > outer.height() + SLACK and _never(area.verticalScrollBarPolicy()):
                return f"{inner.height()} px high in {outer.height()}, with nothing to scroll"
            return unreachable(window, area, QRect(area.mapTo(window, QPoint(0, 0)), area.size()))
        if not outer.rect().adjusted(-SLACK, -SLACK, SLACK, SLACK).contains(inner.geometry()):
            return f"outside the {type(outer).__name__} that holds it"
        inner, outer = outer, outer.parentWidget()
    return "" if window.rect().adjusted(0, 0, SLACK, SLACK).contains(box) else "outside the window"


def _never(policy):
    return policy == Qt.ScrollBarPolicy.ScrollBarAlwaysOff


def _text_box(label, box):
    """Where a label's words lie inside it."""
    metrics = label.fontMetrics()
    if label.wordWrap():
        return box
    wide = max(metrics.horizontalAdvance(line) for line in label.text().split("\n"))
    return QRect(box.left(), box.top(), min(wide, box.width()), box.height())


def overlaps(window, found):
    """Pairs of labels whose words lie on each other."""
    seen = []
    for widget, box in found:
        if isinstance(widget, QLabel) and not widget.visibleRegion().isEmpty():
            region = widget.visibleRegion().boundingRect()
            shown = region.translated(widget.mapTo(window, QPoint(0, 0)))
            seen.append((widget, _text_box(widget, box).intersected(shown)))
    pairs = []
    for place, (one, first) in enumerate(seen):
        for other, second in seen[place + 1 :]:
            common = first.intersected(second)
            if common.width() > SLACK and common.height() > SLACK + 2:
                pairs.append(f"“{one.text()[:30]}” lies on “{other.text()[:30]}”")
    return pairs


def nameless(widgets):
    """Widgets that take the keyboard and say nothing to a screen reader."""
    for widget in widgets:
        takes = widget.focusPolicy() & Qt.FocusPolicy.TabFocus
        if not takes or not widget.isVisible() or widget.focusProxy() is not None:
            continue
        text = widget.text() if isinstance(widget, QAbstractButton) else ""
        if not (widget.accessibleName() or text):
            yield f"{type(widget).__name__} has no name"


def faults_of(window):
    """Everything wrong with what a window shows now."""
    QApplication.processEvents()
    widgets = [w for w in window.findChildren(QWidget) if w.isVisible()]
    found = list(readable(window, widgets))
    faults = []
    for widget, box in found:
        why = cut_words(widget) or unreachable(window, widget, box)
        if why:
            faults.append(f"{type(widget).__name__} “{widget.text()[:40]}”: {why}")
    return [*faults, *overlaps(window, found), *nameless(widgets)]

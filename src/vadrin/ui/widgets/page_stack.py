"""Pages of a station, one of them shown; the others take no room."""

from __future__ import annotations

from functools import partial

from PyQt6 import sip
from PyQt6.QtCore import QTimer
from PyQt6.QtWidgets import QApplication, QScrollArea, QVBoxLayout, QWidget


class PageStack(QWidget):
    """As large as the page that is shown asks for; the others are not even asked."""

    def __init__(self) -> None:
        super().__init__()
        self._shown: QWidget | None = None
        self._column = QVBoxLayout(self)
        self._column.setContentsMargins(0, 0, 0, 0)

    @property
    def shown(self) -> QWidget | None:
        """The page that is shown."""
        return self._shown

    def show_page(self, page: QWidget) -> None:
        """Show a page, from its beginning; it is put on the stack when it is first shown."""
        before, self._shown = self._shown, page
        if page is before:
            return
        if self._column.indexOf(page) < 0:
            self._column.addWidget(page)
        if before is not None:
            typing = QApplication.focusWidget()
            page.show()
            if typing is not None and before.isAncestorOf(typing):
                # Hidden with it, Qt would hand it to whatever comes next.
                page.setFocus()
            elif typing is not None and QApplication.focusWidget() is not typing:
                # What had the keyboard on this page when it was seen last has taken it again.
                typing.setFocus()
            before.hide()
        # Once the page has its size: the one before may have been longer.
        QTimer.singleShot(0, self._to_the_top)

    def bring_into_view(self, part: QWidget) -> None:
        """Scroll so far that a part of the page is seen, once it has its place."""
        QTimer.singleShot(0, partial(self._show_part, part))

    def _show_part(self, part: QWidget) -> None:
        if sip.isdeleted(part):
            # The station was let go of meanwhile.
            return
        area = self._area()
        if area is not None and part.isVisibleTo(area):
            area.ensureWidgetVisible(part, 0, 0)

    def _to_the_top(self) -> None:
        if sip.isdeleted(self):
            return
        area = self._area()
        bar = area.verticalScrollBar() if area is not None else None
        if bar is not None:
            bar.setValue(0)

    def _area(self) -> QScrollArea | None:
        above = self.parentWidget()
        while above is not None and not isinstance(above, QScrollArea):
            above = above.parentWidget()
        return above

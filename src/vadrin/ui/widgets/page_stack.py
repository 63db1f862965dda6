"""Pages of a station, one of them shown; the others take no room."""

from __future__ import annotations

from functools import partial

from PyQt6 import sip
from PyQt6.QtCore import QTimer
from PyQt6.QtWidgets import QScrollArea, QSizePolicy, QStackedWidget, QWidget

_TAKES_ROOM, _TAKES_NONE = QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Ignored


class PageStack(QStackedWidget):
    """As large as the page that is shown asks for, whatever the others would."""

    def show_page(self, page: QWidget) -> None:
        """Show a page, from its beginning; it is put on the stack when it is first shown."""
        if self.indexOf(page) < 0:
            self.addWidget(page)
        if page is not self.currentWidget():
            # Once the page has its size: the one before may have been longer.
            QTimer.singleShot(0, self._to_the_top)
        self.setCurrentWidget(page)
        for place in range(self.count()):
            other = self.widget(place)
            if other is not None:
                policy = _TAKES_ROOM if other is page else _TAKES_NONE
                other.setSizePolicy(policy, policy)

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
        area = self._area()
        bar = area.verticalScrollBar() if area is not None else None
        if bar is not None:
            bar.setValue(0)

    def _area(self) -> QScrollArea | None:
        above = self.parentWidget()
        while above is not None and not isinstance(above, QScrollArea):
            above = above.parentWidget()
        return above

"""Pages of a station, one of them shown; the others take no room."""

from __future__ import annotations

from PyQt6.QtCore import QTimer
from PyQt6.QtWidgets import QScrollArea, QSizePolicy, QStackedWidget, QWidget

_TAKES_ROOM, _TAKES_NONE = QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Ignored


class PageStack(QStackedWidget):
    """As large as the page that is shown asks for, whatever the others would."""

    def show_page(self, page: QWidget) -> None:
        """Show a page, from its beginning."""
        if page is not self.currentWidget():
            # Once the page has its size: the one before may have been longer.
            QTimer.singleShot(0, self._to_the_top)
        self.setCurrentWidget(page)
        for place in range(self.count()):
            other = self.widget(place)
            if other is not None:
                policy = _TAKES_ROOM if other is page else _TAKES_NONE
                other.setSizePolicy(policy, policy)

    def _to_the_top(self) -> None:
        above = self.parentWidget()
        while above is not None and not isinstance(above, QScrollArea):
            above = above.parentWidget()
        bar = above.verticalScrollBar() if above is not None else None
        if bar is not None:
            bar.setValue(0)

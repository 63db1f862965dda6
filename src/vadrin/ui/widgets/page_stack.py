"""Pages of a station, one of them shown; the others take no room."""

from __future__ import annotations

from PyQt6.QtWidgets import QSizePolicy, QStackedWidget, QWidget

_TAKES_ROOM, _TAKES_NONE = QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Ignored


class PageStack(QStackedWidget):
    """As large as the page that is shown asks for, whatever the others would."""

    def show_page(self, page: QWidget) -> None:
        """Show a page."""
        self.setCurrentWidget(page)
        for place in range(self.count()):
            other = self.widget(place)
            if other is not None:
                policy = _TAKES_ROOM if other is page else _TAKES_NONE
                other.setSizePolicy(policy, policy)

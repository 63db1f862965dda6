"""The button that listens to an instrument, or no longer."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtWidgets import QVBoxLayout, QWidget

from vadrin.app.instruments import type_of_instrument
from vadrin.errors import EntryError
from vadrin.ui.ears import Ears
from vadrin.ui.widgets.buttons import button


class ListenButton(QWidget):
    """Listens to the instrument of a kind, and says why nothing comes.

    Parameters
    ----------
    kind : str
    ears : Ears
    refuse : callable
        Says why something was not taken; nothing, to take back what was said.
    """

    def __init__(self, kind: str, ears: Ears, refuse: Callable[[str], None]) -> None:
        super().__init__()
        self._type, self._ears, self._refuse = type_of_instrument(kind), ears, refuse
        self.link = button(self._type.ask, self.listen, link=True)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(self.link)
        ears.heard.connect(self._show_heard)
        self._show_heard()

    def listen(self) -> None:
        """Take what the instrument sends, or no longer."""
        listening, kind = self._ears.listening, self._type.kind
        self._refuse("")
        if kind in listening.lines:
            listening.rest(kind)
        else:
            try:
                listening.listen(kind)
            except EntryError as error:
                self._refuse(str(error))
        self._ears.look()
        # Whoever shows more of it than this button hears of it, too.
        self._ears.heard.emit()

    def _show_heard(self) -> None:
        trouble = self._ears.listening.troubles.pop(self._type.kind, "")
        if trouble:
            self._refuse(trouble)
        line = self._ears.listening.lines.get(self._type.kind)
        self.link.setText(self._type.stop.format(name=line.name) if line else self._type.ask)

"""The commonest question in one sentence: a roll was shot, how is it developed?"""

from __future__ import annotations

from PyQt6.QtWidgets import QVBoxLayout, QWidget

from vadrin.app.document.workbench import Workbench
from vadrin.app.entry.exposures import exposure_index_typed
from vadrin.errors import EditRefusedError
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.labels import text
from vadrin.ui.widgets.line_field import Field
from vadrin.ui.widgets.sentence import flowing

_A_ROLL = 36


class ShotRoll(QWidget):
    """I shot a roll of a film at an EI, in a developer: asks for its time.

    Parameters
    ----------
    bench : Workbench
    """

    def __init__(self, bench: Workbench) -> None:
        super().__init__()
        self.bench = bench
        self.film, self.index, self.bath = Field(), Field(), Field()
        for field, name, within, width in (
            (self.film, "film of the roll", "film, batch B7", 170),
            (self.index, "EI of the roll", "EI", 70),
            (self.bath, "developer of the roll", "developer 1+1", 150),
        ):
            field.setAccessibleName(name)
            field.setPlaceholderText(within)
            field.setFont(role_font(Role.LEAD))
            field.setFixedWidth(px(width))
            field.returnPressed.connect(self.ask)
        self._refusal = text("", Role.REFUSAL, wrap=True)
        self._refusal.hide()
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        words = [text(w, Role.LEAD_STRONG) for w in ("I shot a roll of", "at EI", "in")]
        column.addWidget(
            flowing(
                words[0],
                self.film,
                words[1],
                self.index,
                words[2],
                self.bath,
                button("Find its time", self.ask),
                gap=8,
            )
        )
        column.addWidget(self._refusal)

    def ask(self) -> None:
        """Write the roll down and go to its answer; to the first word that is missing, if any."""
        fields = (self.film, self.index, self.bath)
        missing = next((field for field in fields if not field.text().strip()), None)
        if missing is not None:
            missing.setFocus()
            return
        # Not before it is asked: the shelf is the first thing shown, and need not wait for numpy.
        from vadrin.app.expose.roll_entry import enter_roll

        film, typed, bath = (field.text().strip() for field in fields)
        try:
            index = exposure_index_typed(typed)
            line = f"{_A_ROLL} frames at EI {index:g}"
            test = self.bench.edit_or_raise(
                lambda book: enter_roll(book, film.replace(", batch", " batch"), bath, "", line)
            )
        except (EditRefusedError, ValueError) as refusal:
            self._refuse(str(refusal))
            return
        if test is not None:
            self._refuse("")
            for field in fields:
                field.clear()
            self.bench.open_test(test.id)
            self.bench.go("finding")

    def _refuse(self, words: str) -> None:
        self._refusal.setText(words)
        self._refusal.setVisible(bool(words))

"""The set-up that must not move, as one sentence, locked once a strip was made."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtWidgets import QVBoxLayout, QWidget

from vadrin.app.document.workbench import Workbench
from vadrin.app.entry.densities import density_typed
from vadrin.app.entry.stepping import chooser
from vadrin.app.printing.print_setups import (
    NOT_SAID,
    SETUP_FIELDS,
    black_words,
    elsewhere_words,
    present_room,
    print_rooms,
    setup_choices,
    setup_shown,
    type_setup,
)
from vadrin.ui.kept import OfTest
from vadrin.ui.stations.station import ViewState
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.labels import rule, text
from vadrin.ui.widgets.sentence import sentence

_CAUTION = (
    "Electrical kit stays dry and out of reach of the trays. Gloves or tongs, fresh air; the "
    "makers' sheets count. The screen is a light: keep it away from open paper, in the safelight "
    "look too."
)


class SetupPage(QWidget):
    """What stands where, and what was found at it.

    Parameters
    ----------
    bench : Workbench
    refuse : callable
        Says why something typed was not taken.
    """

    _other_fog: OfTest[float | None] = OfTest(lambda: None)
    _other_size: OfTest[str] = OfTest(str)

    def __init__(self, bench: Workbench, refuse: Callable[[str], None]) -> None:
        super().__init__()
        self.bench = bench
        self.fields = {name: self._field(name, refuse) for name in SETUP_FIELDS}
        f = self.fields
        self.fog = WordField("base plus fog of the other film", self._type_fog, role=Role.LEAD)
        self.other_size = WordField("the other image size", self._type_size, role=Role.LEAD)
        for field in (self.fog, self.other_size):
            field.refused.connect(refuse)
        self._locked = text("", Role.NOTE, wrap=True)
        self._black = text("", Role.SUBHEADING, wrap=True)
        self._elsewhere = text("", Role.BODY, wrap=True)
        self._before = text("", Role.NOTE, wrap=True)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(px(9))
        column.addWidget(text(_CAUTION, Role.CAPTION, wrap=True))
        column.addWidget(rule())
        column.addWidget(
            sentence(
                "In",
                f["enlarger"],
                ", an image of",
                f["image size"],
                "at",
                f["aperture"],
                ", on grade",
                f["grade"],
                role=Role.LEAD,
            )
        )
        column.addWidget(
            sentence(
                "of",
                f["paper"],
                ", batch",
                f["paper batch"],
                ", in",
                f["paper developer"],
                "for",
                f["its time"],
                ".",
                role=Role.LEAD,
            )
        )
        column.addWidget(self._locked)
        column.addWidget(rule())
        column.addWidget(self._black)
        column.addWidget(
            sentence(
                "Through base plus fog",
                self.fog,
                ", or at an image of",
                self.other_size,
                ":",
                role=Role.LEAD,
            )
        )
        column.addWidget(self._elsewhere)
        column.addWidget(rule())
        column.addWidget(self._before)
        column.addStretch(1)

    def _field(self, name: str, refuse: Callable[[str], None]) -> WordField:
        def commit(words: str) -> None:
            loaded = self.bench.loaded
            if loaded is not None:
                said = self.bench.edit_or_raise(lambda book: type_setup(book, loaded, name, words))
                if said:
                    self.bench.said.emit(said)

        known = chooser(lambda: setup_choices(self.bench.notebook, name))
        field = WordField(name, commit, known, role=Role.LEAD)
        field.refused.connect(refuse)
        return field

    def show_state(self, scene: ViewState) -> None:
        """Show the present series."""
        loaded, book = scene.loaded, self.bench.notebook
        if loaded is None:
            return
        room = present_room(book, loaded)
        for name, field in self.fields.items():
            field.show_value(setup_shown(book, room.setup, name))
        self._locked.setText(
            "Locked: a strip was made at it. A change of any word ends this series."
            if room.locked
            else "Free until the first strip is made; then nothing may move."
        )
        self._black.setText(black_words(room.setup))
        fog = self._other_fog
        self.fog.show_value(NOT_SAID if fog is None else f"{fog:.2f}")
        self.other_size.show_value(self._other_size or NOT_SAID)
        self._elsewhere.setText(elsewhere_words(room.setup, fog, self._other_size))
        ended = [r.setup for r in print_rooms(book, loaded) if r.setup.closed_at]
        self._before.setText(
            "\n".join(
                f"Series {n}, {s.note}: {black_words(s)}" for n, s in enumerate(ended, start=1)
            )
        )

    def _type_fog(self, words: str) -> None:
        plain = words.strip().lower()
        self._other_fog = None if plain in ("", NOT_SAID) else density_typed(words)
        self._refresh()

    def _type_size(self, words: str) -> None:
        self._other_size = "" if words.strip().lower() in ("", NOT_SAID) else words.strip()
        self._refresh()

    def _refresh(self) -> None:
        loaded = self.bench.loaded
        if loaded is not None:
            setup = present_room(self.bench.notebook, loaded).setup
            self._elsewhere.setText(elsewhere_words(setup, self._other_fog, self._other_size))

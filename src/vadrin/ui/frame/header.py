"""The header: the test's name, its process, counts, and the state of saving."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING

from PyQt6.QtCore import QTimer
from PyQt6.QtWidgets import QHBoxLayout, QMenu, QVBoxLayout, QWidget

from vadrin.app.display.words import counted
from vadrin.app.document.workbench import Workbench
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.buttons import PlaceLink, button
from vadrin.ui.widgets.labels import ElidedLabel, rule

if TYPE_CHECKING:
    from vadrin.ui.actions import Action

_SAID_FOR = 6000


def window_title(bench: Workbench) -> str:
    """What the window is called: test, notebook, and whether it may be written in."""
    loaded, notebook = bench.loaded, bench.notebook
    parts = [loaded.title if loaded is not None else "", notebook.path.stem]
    if notebook.read_only:
        parts[-1] += " (read only)"
    return " – ".join([*(part for part in parts if part), "Vadrin"])


class Header(QWidget):
    """One line over everything.

    Parameters
    ----------
    menu : callable
        The actions of the File menu, part by part.
    go : callable
        Goes to a place by its name.
    """

    def __init__(self, menu: Callable[[], list[list[Action]]], go: Callable[[str], None]) -> None:
        super().__init__()
        self._menu = menu
        outer = QVBoxLayout(self)
        outer.setContentsMargins(0, 0, 0, 0)
        outer.setSpacing(0)
        line = QHBoxLayout()
        line.setContentsMargins(px(14), px(10), px(14), px(10))
        line.setSpacing(px(12))
        self._name = ElidedLabel("Vadrin", Role.HEADING)
        self._process = ElidedLabel("", Role.NOTE)
        self._state = ElidedLabel("", Role.NOTE)
        self._state.setObjectName("state of saving")
        self._file = button("File", self._open_menu, link=True)
        self.places = {name: self._place(name, go) for name in ("shelf", "cupboard")}
        line.addWidget(self._name)
        line.addWidget(self._process)
        line.addStretch(1)
        line.addWidget(self._state)
        line.addSpacing(px(10))
        for link in (*self.places.values(), self._file):
            line.addWidget(link)
        outer.addLayout(line)
        outer.addWidget(rule())
        self._quiet = QTimer(self)
        self._quiet.setSingleShot(True)
        self._quiet.timeout.connect(self._show_state)
        self._words = ""
        self._said_of: int | None = None
        self._here: int | None = None

    def _place(self, name: str, go: Callable[[str], None]) -> PlaceLink:
        made = PlaceLink(name.capitalize())
        made.clicked.connect(lambda: go(name))
        return made

    def show_here(self, name: str) -> None:
        """Mark the place that is shown, if it is one of those kept here."""
        for each, link in self.places.items():
            link.show_here(each == name)

    def rescale(self) -> None:
        """Take on the text scale."""
        self._name.setFont(role_font(Role.HEADING))
        for part in (self._process, self._state, *self.places.values(), self._file):
            part.setFont(role_font(Role.NOTE))
            part.updateGeometry()

    def show_bench(self, bench: Workbench) -> None:
        """Show the test on the bench, or the notebook."""
        loaded, notebook = bench.loaded, bench.notebook
        saving = "read-only" if notebook.read_only else "all changes saved"
        if loaded is None:
            self._name.setText(notebook.path.stem)
            self._process.setText("notebook")
            self._words = saving
        else:
            self._name.setText(loaded.title)
            batch = f"batch {loaded.batch.name} · " if loaded.batch and loaded.batch.name else ""
            self._process.setText(batch + loaded.process)
            readings = sum(len(f.readings) for _, f in loaded.frames())
            counts: tuple[str, ...] = (
                counted(len(loaded.strips), "strip"),
                counted(len(loaded.frames()), "frame"),
                counted(readings, "reading"),
            )
            if not loaded.on_film:
                counts = counted(len(loaded.strips), "curve"), counted(readings, "point")
            self._words = " · ".join((*counts, saving))
        here = loaded.test.id if loaded is not None else None
        left = self._here is not None and self._here != here
        self._here = here
        if self._said_of != here and (left or self._said_of is not None):
            # What was said of one test, or while it was shown, is not carried to another.
            self._quiet.stop()
            self._said_of = None
        if not self._quiet.isActive():
            self._show_state()

    def say(self, words: str, test_id: int | None = None) -> None:
        """Say something for a few seconds in the place of the state; of a test, while it is
        shown."""
        self._said_of = test_id
        self._state.setText(words)
        self._quiet.start(_SAID_FOR)

    def _show_state(self) -> None:
        self._state.setText(self._words)

    def _open_menu(self) -> None:
        menu = QMenu(self)
        menu.setFont(role_font(Role.NOTE))
        for part in self._menu():
            if not menu.isEmpty() and part:
                menu.addSeparator()
            for action in part:
                self._entry(menu, action)
        menu.popup(self._file.mapToGlobal(self._file.rect().bottomLeft()))

    @staticmethod
    def _entry(menu: QMenu, action: Action) -> None:
        made = menu.addAction(f"{action.title}\t{action.key_text}".rstrip())
        if made is not None:
            made.setEnabled(action.usable())
            made.triggered.connect(lambda _checked: action.act())

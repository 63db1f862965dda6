"""The header: the test's name, its process, counts, and the state of saving."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import TYPE_CHECKING

from PyQt6.QtCore import QTimer
from PyQt6.QtWidgets import QHBoxLayout, QMenu, QVBoxLayout, QWidget

from vadrin.app.test_sheet import TestSheet
from vadrin.notebook.store import Notebook
from vadrin.ui.theme.typeface import font, px
from vadrin.ui.widgets.parts import button, rule, text

if TYPE_CHECKING:
    from vadrin.ui.frame.window import Window

_SAID_FOR = 6000


class Header(QWidget):
    """One line over everything."""

    def __init__(self, window: Window) -> None:
        super().__init__()
        self._window = window
        outer = QVBoxLayout(self)
        outer.setContentsMargins(0, 0, 0, 0)
        outer.setSpacing(0)
        line = QHBoxLayout()
        line.setContentsMargins(px(14), px(10), px(14), px(10))
        line.setSpacing(px(12))
        self._name = text("Vadrin", 17, 700)
        self._process = text("", 13, tone="soft")
        self._state = text("", 13, tone="soft")
        self._state.setAccessibleName("state of saving")
        self._file = button("File", self._menu, link=True)
        line.addWidget(self._name)
        line.addWidget(self._process)
        line.addStretch(1)
        line.addWidget(self._state)
        line.addSpacing(px(10))
        line.addWidget(self._file)
        outer.addLayout(line)
        outer.addWidget(rule())
        self._quiet = QTimer(self)
        self._quiet.setSingleShot(True)
        self._quiet.timeout.connect(self._show_state)
        self._words = ""

    def rescale(self) -> None:
        """Take on the text scale."""
        self._name.setFont(font(17, 700))
        for part in (self._process, self._state, self._file):
            part.setFont(font(13))

    def show_sheet(self, sheet: TestSheet | None, notebook: Notebook) -> None:
        """Show a test, or the notebook."""
        if sheet is None:
            self._name.setText(notebook.path.stem)
            self._process.setText("notebook")
            self._words = _saving(notebook)
        else:
            self._name.setText(sheet.title)
            batch = f"batch {sheet.batch.name} · " if sheet.batch and sheet.batch.name else ""
            self._process.setText(batch + sheet.process)
            readings = sum(len(f.readings) for _, f in sheet.frames())
            counts = f"{len(sheet.strips)} strips · {len(sheet.frames())} frames"
            self._words = f"{counts} · {readings} readings · {_saving(notebook)}"
        if not self._quiet.isActive():
            self._show_state()

    def say(self, words: str) -> None:
        """Say something for a few seconds in the place of the state."""
        self._state.setText(words)
        self._quiet.start(_SAID_FOR)

    def _show_state(self) -> None:
        self._state.setText(self._words)

    def _menu(self) -> None:
        window, menu = self._window, QMenu(self)
        menu.setFont(font(13))
        files, notebook = window.files, window.bench.notebook
        undo, redo = notebook.undo_label(), notebook.redo_label()
        on_bench = window.bench.sheet is not None
        acts: tuple[tuple[str, Callable[[], object], bool] | None, ...] = (
            ("New test\tCtrl+N", window.start_test, True),
            ("Import readings …\tCtrl+I", files.ask_import, True),
            ("Export the readings of this test …", files.ask_export, on_bench),
            ("Keep a file with this test …", files.ask_attach, on_bench),
            None,
            ("Open a notebook …\tCtrl+O", files.ask_open, True),
            ("New notebook …", files.ask_new, True),
            ("Save a copy …", files.ask_copy, True),
            ("Take in another notebook …", files.ask_merge, True),
            ("Export all as JSON …", files.ask_json, True),
            None,
            (f"Undo {undo}\tCtrl+Z", window.bench.undo, bool(undo)),
            (f"Redo {redo}\tCtrl+Shift+Z", window.bench.redo, bool(redo)),
            ("Next look: day, dim, safelight\tF8", window.next_look, True),
            ("Larger type\tCtrl++", lambda: window.scale_type(1), True),
            ("Smaller type\tCtrl+-", lambda: window.scale_type(-1), True),
            ("Keys of this station\tF1", lambda: window.keys.toggle(window.station()), True),
            ("Quit\tCtrl+Q", window.close, True),
        )
        for act in acts:
            if act is None:
                menu.addSeparator()
            else:
                self._entry(menu, *act)
        for kept in files.kept():
            words = f"Save the kept file {kept.name} …"
            self._entry(menu, words, partial(files.ask_kept, kept), True)
        self._recent(menu)
        menu.popup(self._file.mapToGlobal(self._file.rect().bottomLeft()))

    @staticmethod
    def _entry(menu: QMenu, words: str, act: Callable[[], object], usable: bool) -> None:
        action = menu.addAction(words)
        if action is not None:
            action.setEnabled(usable)
            action.triggered.connect(lambda _checked: act())

    def _recent(self, menu: QMenu) -> None:
        """The notebooks opened last, at the end."""
        from vadrin.app.library.recent_notebooks import recent_notebooks

        here = self._window.bench.notebook.path.absolute()
        others = [p for p in recent_notebooks() if p != here]
        if others:
            menu.addSeparator()
        for path in others:
            words = f"{path.stem} in {path.parent}"
            self._entry(menu, words, partial(self._window.files.open, path), True)


def _saving(notebook: Notebook) -> str:
    return "reading only" if notebook.read_only else "all saved"

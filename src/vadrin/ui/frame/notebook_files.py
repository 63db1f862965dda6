"""What the File menu does with whole notebooks and files, and what it says when that fails."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QApplication, QFileDialog

from vadrin.notebook.file import NotebookError
from vadrin.notebook.records.all_records import Attachment

if TYPE_CHECKING:
    from vadrin.notebook.json_file import Everything
    from vadrin.ui.frame.window import Window

_READINGS = "Readings (*.csv *.tsv *.txt *.xlsx *.ods *.cgats *.cgt *.it8 *.ti3 *.json)"
_NOTEBOOKS = "Notebooks (*.vadrin)"


class _StoppedError(Exception):
    """The person stopped long work."""


class NotebookFiles:
    """Asks for files and acts on them.

    Parameters
    ----------
    window : Window
    """

    def __init__(self, window: Window) -> None:
        self._window = window
        self._stopped = False

    def ask_import(self) -> None:
        """Ask for a table of readings."""
        self._ask("Import a table of readings", _READINGS, self._window.banner.offer)

    def ask_open(self) -> None:
        """Ask for a notebook."""
        self._ask("Open a notebook", _NOTEBOOKS, self.open)

    def ask_new(self) -> None:
        """Ask where a new notebook shall lie."""
        self._ask("A new notebook", _NOTEBOOKS, self._make, new=".vadrin")

    def ask_copy(self) -> None:
        """Ask where a copy of this notebook shall lie."""
        self._ask("Save a copy of this notebook", _NOTEBOOKS, self._copy, new=".vadrin")

    def ask_merge(self) -> None:
        """Ask for a notebook, or its JSON export, to take in."""
        self._ask("Take in another notebook", "Notebooks (*.vadrin *.json)", self.merge)

    def ask_json(self) -> None:
        """Ask where the whole notebook shall be written as JSON."""
        self._ask("Export the notebook as JSON", "JSON (*.json)", self.write_json, new=".json")

    def ask_export(self) -> None:
        """Ask where this test's readings shall be written."""
        self._ask("Export the readings of this test", _READINGS, self.write_readings, new=".csv")

    def ask_attach(self) -> None:
        """Ask for a picture or a sheet to keep with this test."""
        self._ask("Keep a file with this test", "Any file (*)", self.attach)

    def _ask(self, title: str, kinds: str, act: Callable[[Path], object], new: str = "") -> None:
        folder = str(self._window.bench.notebook.path.parent)
        dialog = QFileDialog(self._window, title, folder, kinds)
        dialog.setObjectName("ask for a file")
        dialog.setOption(QFileDialog.Option.DontUseNativeDialog)
        if new:
            dialog.setAcceptMode(QFileDialog.AcceptMode.AcceptSave)
            dialog.setDefaultSuffix(new)
        else:
            dialog.setFileMode(QFileDialog.FileMode.ExistingFile)
        dialog.fileSelected.connect(lambda path: act(Path(path)))
        dialog.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        dialog.open()

    def open(self, path: Path) -> None:
        """Open another notebook; a refusal leaves the present one open."""
        window = self._window
        try:
            window.bench.open_notebook(path)
        except NotebookError as error:
            self.offer_help(path, error)
            return
        window.notebook_opened()

    def offer_help(self, path: Path, error: NotebookError) -> None:
        """Say why a notebook cannot be opened, with what can still be done."""
        from vadrin.notebook.backups import backups_of

        acts: list[tuple[str, Callable[[], object]]] = []
        if error.damaged:
            kept = backups_of(path)
            if kept:
                acts.append(
                    ("Open a copy of the newest backup", lambda: self._revive(path, kept[0]))
                )
            acts.append(("Save what can be recovered as a copy", lambda: self._rescue(path)))
        self._window.banner.ask(str(error), "", acts, "Understood")

    def _beside(self, path: Path, word: str) -> Path:
        """A name beside a file that nothing has yet."""
        number = 1
        while True:
            tail = f" {number}" if number > 1 else ""
            target = path.with_name(f"{path.stem} {word}{tail}.vadrin")
            if not target.exists():
                return target
            number += 1

    def _revive(self, path: Path, backup: Path) -> None:
        target = self._beside(path, "from backup")
        try:
            target.write_bytes(backup.read_bytes())
        except OSError as error:
            self._window.banner.complain(f"{target.name} was not written: {error.strerror}.")
            return
        self.open(target)

    def _rescue(self, path: Path) -> None:
        from vadrin.notebook.recovery import recover

        target = self._beside(path, "recovered")
        try:
            counts = recover(path, target)
        except (NotebookError, OSError) as error:
            self._window.banner.complain(f"{error}.")
            return
        self.open(target)
        found = ", ".join(f"{n} {name.replace('_', ' ')}" for name, n in counts.items())
        self._window.bench.said.emit(f"Recovered into {target.name}: {found}.")

    def _make(self, path: Path) -> None:
        if path.exists():
            self._window.banner.complain(f"{path.name} is there already. Choose another name.")
            return
        self.open(path)

    def _written(self, path: Path, act: Callable[[], object]) -> None:
        """Write a file, and say that it was or why not."""
        from vadrin.formats.readings.readings_table import FormatError

        try:
            act()
        except (OSError, FormatError) as error:
            reason = getattr(error, "strerror", None) or str(error)
            self._window.banner.complain(f"{path.name} was not written: {reason}.")
            return
        self._window.bench.said.emit(f"{path.name} written.")

    def _copy(self, path: Path) -> None:
        self._written(path, lambda: self._window.bench.notebook.save_copy(path))

    def write_json(self, path: Path) -> None:
        """Write the whole notebook as JSON."""
        from vadrin.notebook.json_file import notebook_json

        notebook = self._window.bench.notebook
        self._written(path, lambda: path.write_text(notebook_json(notebook), encoding="utf-8"))

    def write_readings(self, path: Path) -> None:
        """Write the readings of the test on the bench."""
        from vadrin.app.read.export_readings import table_of_sheet
        from vadrin.formats.readings.any_file import write_readings

        sheet = self._window.bench.sheet
        if sheet is not None:
            self._written(path, lambda: write_readings(table_of_sheet(sheet), path))

    def kept(self) -> list[Attachment]:
        """The files kept with the test on the bench."""
        sheet = self._window.bench.sheet
        return self._window.bench.notebook.all(Attachment, test_id=sheet.test.id) if sheet else []

    def ask_kept(self, kept: Attachment) -> None:
        """Ask where a kept file shall be written."""
        self._ask(f"Save {kept.name}", "Any file (*)", lambda path: self.write_kept(kept, path),
                  new=Path(kept.name).suffix or ".bin")  # fmt: skip

    def write_kept(self, kept: Attachment, path: Path) -> None:
        """Write a kept file out again."""
        self._written(path, lambda: path.write_bytes(kept.data))

    def attach(self, path: Path) -> None:
        """Keep a file with the test on the bench."""
        from vadrin.app.read.export_readings import attach

        sheet = self._window.bench.sheet
        if sheet is not None:
            test_id = sheet.test.id
            if self._window.bench.edit(lambda book: attach(book, test_id, path)):
                self._window.bench.said.emit(f"{path.name} is kept with this test.")

    def merge(self, path: Path) -> None:
        """Take another notebook in; what is known already is not doubled."""
        from vadrin.notebook.json_file import records_of_json
        from vadrin.notebook.merge import everything_of

        try:
            theirs = records_of_json(path) if path.suffix == ".json" else everything_of(path)
        except NotebookError as error:
            self._window.banner.complain(f"Nothing was taken in. {error}")
            return
        self._stopped = False
        self._merge(path, theirs)

    def _merge(self, path: Path, theirs: Everything) -> None:
        from vadrin.notebook.merge import merge

        window = self._window
        window.pages.setEnabled(False)

        def said(done: int, total: int) -> None:
            if done % 10 == 0:
                window.banner.ask(f"Taking in {path.name}: {done} of {total} tests", "",
                                  [], "Stop, and take nothing")  # fmt: skip
                QApplication.processEvents()
            if done and not window.banner.notice.isVisible():
                raise _StoppedError

        try:
            report = window.bench.edit(
                lambda book: merge(book, theirs, f"taking in {path.name}", said)
            )
        except _StoppedError:
            window.bench.said.emit("Stopped; nothing was taken in.")
            return
        finally:
            window.pages.setEnabled(True)
            window.banner.notice.hide()
        if report is not None:
            window.bench.said.emit(f"Taken in from {path.name}: {report.sentence()}")

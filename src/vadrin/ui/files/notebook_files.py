"""What the File menu does with whole notebooks and files, and what it says when that fails."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QFileDialog, QWidget

from vadrin.app.display.words import counted
from vadrin.app.document.workbench import Workbench
from vadrin.app.library import notebook_exchange
from vadrin.app.library.copies_beside import copies_beside
from vadrin.errors import EditRefusedError, EntryError, FormatError, NotebookError, VadrinError
from vadrin.ui.jobs import Jobs, SlicedJob
from vadrin.ui.widgets.banner import Banner

if TYPE_CHECKING:
    from vadrin.notebook.inspection import Inspection
    from vadrin.notebook.merge import MergeReport
    from vadrin.notebook.records import Attachment

_NOTEBOOKS = "Notebooks (*.vadrin)"
_OPENING, _BESIDE = "notebook", "copies beside"
_MOST_SHOWN = 8


def _readings() -> str:
    """The kinds of file readings come in and go out as."""
    # Here, not above: the first window need not wait for what reads them.
    from vadrin.app.read.export_readings import readings_filter

    return readings_filter()


class NotebookFiles:
    """Asks for files and acts on them.

    Parameters
    ----------
    over : QWidget
        What the dialogs stand over.
    bench : Workbench
    banner : Banner
        Says what could not be done.
    import_readings : callable
        Brings a table of readings in.
    opened : callable
        Called when another notebook was opened.
    jobs : Jobs
        Look through large notebooks.
    """

    def __init__(
        self,
        over: QWidget,
        bench: Workbench,
        banner: Banner,
        import_readings: Callable[[Path], None],
        opened: Callable[[], None],
        jobs: Jobs,
    ) -> None:
        self._over, self._bench, self._banner, self._jobs = over, bench, banner, jobs
        self._import, self._opened = import_readings, opened
        self.merging: SlicedJob | None = None

    def ask_import(self) -> None:
        """Ask for a table of readings."""
        self.ask("Import a table of readings", _readings(), self._import)

    def ask_open(self) -> None:
        """Ask for a notebook."""
        self.ask("Open a notebook", _NOTEBOOKS, self.open)

    def ask_new(self) -> None:
        """Ask where a new notebook shall lie."""
        self.ask("A new notebook", _NOTEBOOKS, self.make, new=".vadrin")

    def ask_copy(self) -> None:
        """Ask where a copy of this notebook shall lie."""
        self.ask("Save a copy of this notebook", _NOTEBOOKS, self.copy, new=".vadrin")

    def ask_merge(self) -> None:
        """Ask for a notebook, or its JSON export, to take in."""
        self.ask("Merge another notebook", "Notebooks (*.vadrin *.json)", self.merge)

    def ask_json(self) -> None:
        """Ask where the whole notebook shall be written as JSON."""
        self.ask("Export the notebook as JSON", "JSON (*.json)", self.write_json, new=".json")

    def ask_export(self) -> None:
        """Ask where this test's readings shall be written."""
        self.ask("Export the readings of this test", _readings(), self.write_readings, new=".csv")

    def ask_attach(self) -> None:
        """Ask for a picture or a sheet to keep with this test."""
        self.ask("Attach a file to this test", "Any file (*)", self.attach)

    def ask(self, title: str, kinds: str, act: Callable[[Path], object], new: str = "") -> None:
        """Ask for a file and do something with it."""
        folder = str(self._bench.notebook.path.parent)
        dialog = QFileDialog(self._over, title, folder, kinds)
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
        """Open another notebook; a refusal leaves the present one open.

        A large one is looked through beside the work, and can be left.
        """
        if not notebook_exchange.takes_long(path):
            self._open_now(path)
            return
        self._banner.working(
            f"Looking through {path.name} …", "Stay with this one", self.stop_opening
        )
        self._jobs.run(
            _OPENING,
            lambda said: notebook_exchange.looked_through(path, partial(said, 0, 0)),
            partial(self._looked_through, path),
        )

    def stop_opening(self) -> None:
        """Stay with the notebook that is open."""
        self._jobs.cancel(_OPENING)
        self._banner.close_notice()

    def _looked_through(self, path: Path, inspection: Inspection) -> None:
        self._banner.close_notice()
        self._open_now(path, inspection)

    def _open_now(self, path: Path, inspection: Inspection | None = None) -> None:
        try:
            self._bench.open_notebook(path, inspection)
        except EditRefusedError as refusal:
            # Said, not put on the banner: that has the button which stops what is under way.
            self._bench.said.emit(f"{refusal}.")
            return
        except NotebookError as error:
            self.offer_help(path, error)
            return
        self._opened()

    def offer_help(self, path: Path, error: NotebookError) -> None:
        """Say why a notebook cannot be opened, with what can still be done."""
        acts: list[tuple[str, Callable[[], object]]] = []
        if error.damaged:
            backup = notebook_exchange.newest_backup(path)
            if backup is not None:
                words = "Open a copy of the newest backup"
                acts.append((words, partial(self._revive, path, backup)))
            acts.append(("Save what can be recovered as a copy", partial(self._recover, path)))
        self._banner.ask(str(error), "", acts, "Close")

    def _revive(self, path: Path, backup: Path) -> None:
        try:
            target = notebook_exchange.copy_of_backup(path, backup)
        except OSError as error:
            self._banner.complain(f"The copy was not written: {error.strerror}.")
            return
        self.open(target)

    def _recover(self, path: Path) -> None:
        try:
            target, words = notebook_exchange.recovered_copy(path)
        except (NotebookError, OSError) as error:
            self._banner.complain(f"{error}.")
            return
        self.open(target)
        self._bench.said.emit(words)

    def make(self, path: Path) -> None:
        """Make a new notebook and open it."""
        if path.exists():
            self._banner.complain(f"{path.name} is there already. Choose another name.")
            return
        self.open(path)

    def written(self, path: Path, act: Callable[[], object]) -> None:
        """Write a file, and say that it was or why not."""
        try:
            act()
        except (OSError, FormatError, EntryError) as error:
            reason = getattr(error, "strerror", None) or str(error)
            self._banner.complain(f"{path.name} was not written: {reason}.")
            return
        self._bench.said.emit(f"{path.name} written.")

    def copy(self, path: Path) -> None:
        """Save a copy of the notebook."""
        self.written(path, lambda: self._bench.notebook.save_copy(path))

    def write_json(self, path: Path) -> None:
        """Write the whole notebook as JSON."""
        self.written(path, lambda: notebook_exchange.write_json(self._bench.notebook, path))

    def write_readings(self, path: Path) -> None:
        """Write the readings of the test on the bench."""
        from vadrin.app.read.export_readings import write_test_readings

        loaded = self._bench.loaded
        if loaded is not None:
            self.written(path, lambda: write_test_readings(loaded, path))

    def kept(self) -> list[Attachment]:
        """The files kept with the test on the bench."""
        return notebook_exchange.attachments_of(self._bench.notebook, self._bench.loaded)

    def ask_kept(self, kept: Attachment) -> None:
        """Ask where a kept file shall be written."""
        suffix = Path(kept.name).suffix or ".bin"
        self.ask(f"Save {kept.name}", "Any file (*)", partial(self.write_kept, kept), new=suffix)

    def write_kept(self, kept: Attachment, path: Path) -> None:
        """Write a kept file out again."""
        self.written(path, lambda: notebook_exchange.write_kept(kept, path))

    def attach(self, path: Path) -> None:
        """Keep a file with the test on the bench."""
        from vadrin.app.read.export_readings import attach

        loaded = self._bench.loaded
        if loaded is not None:
            test_id = loaded.test.id
            if self._bench.edit(lambda book: attach(book, test_id, path)):
                self._bench.said.emit(f"{path.name} is kept with this test.")

    def look_beside(self) -> None:
        """Say it before the first edit where somebody else edits this notebook too."""
        there = self._bench.notebook.open_elsewhere
        if there:
            self._banner.ask(
                f"{there[:1].upper()}{there[1:]}.",
                "What both of you write will be two copies, to be merged afterwards.",
                [],
                of_test=False,
            )
        path = self._bench.notebook.path
        self._jobs.run(_BESIDE, lambda said: copies_beside(path), partial(self._found_beside, path))

    def _found_beside(self, path: Path, found: list[Path]) -> None:
        if not found or path != self._bench.notebook.path or self._banner.isVisible():
            return
        name = found[0].name
        self._banner.ask(
            f"{name} beside this notebook is a copy of it that was edited apart.",
            "Merged, this one has the work of both; the copy stays as it is.",
            [(f"Merge {name}", partial(self.merge, found[0]))],
            "Not now",
            of_test=False,
        )

    def merge(self, path: Path) -> None:
        """Take another notebook in, a slice at a time; it can be stopped, and then all goes."""
        bench = self._bench
        try:
            bench.check_free()
            theirs = notebook_exchange.records_of_file(path)
        except EditRefusedError as refusal:
            bench.said.emit(f"Nothing was taken in: {refusal}.")
            return
        except NotebookError as error:
            self._banner.complain(f"Nothing was taken in. {error}")
            return
        steps = bench.edit_in_steps(
            f"Merging {path.name}", lambda book: notebook_exchange.take_in(book, theirs, path.name)
        )
        self._progress(path.name, 0, 0)
        self.merging = SlicedJob(
            self._over,
            steps,
            partial(self._progress, path.name),
            partial(self._taken_in, path.name),
            self._not_taken_in,
        )

    def _progress(self, name: str, done: int, total: int) -> None:
        words = (
            f"Merging {name}: {done} of {counted(total, 'test')}" if total else f"Merging {name} …"
        )
        self._banner.working(words, "Stop, and take nothing", self.stop_merging)

    def stop_merging(self) -> None:
        """Stop taking a notebook in; nothing of it stays."""
        job, self.merging = self.merging, None
        if job is not None:
            job.cancel()
            self._banner.close_notice()
            self._bench.said.emit("Stopped; nothing was taken in.")

    def _taken_in(self, name: str, report: MergeReport) -> None:
        self.merging = None
        self._banner.close_notice()
        told = f"Taken in from {name}: {report.sentence()}"
        self._bench.said.emit(told)
        if report.conflicts:
            shown = [str(conflict) for conflict in report.conflicts[:_MOST_SHOWN]]
            more = len(report.conflicts) - len(shown)
            shown += [f"{more} more: see the notes of the tests"] if more else []
            self._banner.ask(told, "\n".join(shown), [], of_test=False)

    def _not_taken_in(self, error: Exception) -> None:
        self.merging = None
        if isinstance(error, VadrinError | OSError):
            self._banner.complain(f"Nothing was taken in. {error}")
            return
        self._banner.close_notice()
        self._bench.not_saved(error)

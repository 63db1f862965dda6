"""Opening the window on a notebook."""

from __future__ import annotations

import gc
import os
import sys
import traceback
from functools import partial
from importlib.resources import files
from pathlib import Path
from types import TracebackType
from typing import Any

from platformdirs import user_data_path, user_log_path
from PyQt6.QtCore import QTimer
from PyQt6.QtGui import QIcon
from PyQt6.QtWidgets import QApplication

from vadrin.app.demo.demo_copy import demo_notebook, leave_no_demos
from vadrin.app.display.region import set_region
from vadrin.app.document.workbench import Workbench
from vadrin.app.library.kept_choices import Choices, choices_kept, keep_choices
from vadrin.app.library.recent_notebooks import recent_notebooks
from vadrin.app.practice.practice_place import is_practice, practice_place
from vadrin.core.simulation.practice_level import Level
from vadrin.errors import FormatError, NotebookError, UsageError
from vadrin.notebook.inspection import Inspection
from vadrin.notebook.store import Notebook
from vadrin.ui.files.refusal_window import RefusalWindow
from vadrin.ui.frame.chosen_place import chosen_of, put_on_type, put_window
from vadrin.ui.frame.warm_up import warm_up
from vadrin.ui.frame.window import Window
from vadrin.ui.theme.regional import desktop_region
from vadrin.ui.theme.typeface import load_fonts

_TURN_S = 0.001


def default_notebook() -> Path:
    """Where the notebook lies when none is named, by the XDG folders."""
    folder = user_data_path("vadrin", ensure_exists=True)
    return folder / "notebook.vadrin"


def last_notebook() -> Path | None:
    """The notebook of one's own that was opened last, if it is still there."""
    return next((path for path in recent_notebooks() if not is_practice(path)), None)


def open_window(path: Path, inspection: Inspection | None = None) -> object:
    """Make the window for a notebook; the application must exist.

    Parameters
    ----------
    path : Path
    inspection : Inspection, optional
        A look at the file that was begun before.

    Raises
    ------
    NotebookError
        If the notebook cannot be opened.
    """
    return Window(Workbench(Notebook(path, inspection)))


def _no_screen() -> bool:
    shown = os.environ.get("DISPLAY") or os.environ.get("WAYLAND_DISPLAY")
    return sys.platform == "linux" and not shown


def make_application() -> object:
    """The Qt application with the program's type loaded."""
    if _no_screen():
        os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    app = QApplication.instance() or QApplication(["vadrin"])
    app.setApplicationName("vadrin")
    # One with its entry among the desktop's programs, under X11 and Wayland.
    QApplication.setDesktopFileName("vadrin")
    QApplication.setWindowIcon(QIcon(str(files("vadrin") / "icons" / "vadrin-128.png")))
    load_fonts()
    set_region(desktop_region())
    return app


def _stumble(
    window: Window, kind: type[BaseException], error: BaseException, trace: TracebackType | None
) -> None:
    """Say that something went wrong, keep the trace, and go on: edits are in the file already."""
    details = "".join(traceback.format_exception(kind, error, trace))
    kept = keep_details(details)
    window.tell_fault(kind.__name__, details, str(kept or ""))


def keep_details(details: str) -> Path | None:
    """Add a trace to the log of this user; None where it can't be written."""
    try:
        log = user_log_path("vadrin", ensure_exists=True) / "errors.txt"
        with log.open("a", encoding="utf-8", errors="backslashreplace") as kept:
            kept.write(details)
    except OSError:
        return None
    return log


def _show(path: Path, choices: Choices, inspection: Inspection | None = None) -> object:
    """Open a notebook in a window of its own, as it was chosen last."""
    window: Any = open_window(path, inspection)
    window.resize(1280, 800)
    # Before it is shown: beside film, not one bright picture may go out.
    put_window(window, choices)
    window.show()
    sys.excepthook = partial(_stumble, window)
    QTimer.singleShot(0, lambda: warm_up(window.jobs, window.bench, window.pages.make_ahead))
    QTimer.singleShot(0, window.notebook_opened)
    return window


def run_window(notebook: Path | None, demo: bool, in_window: bool = False) -> int:
    """Open the window and stay until it closes.

    Parameters
    ----------
    notebook : Path or None
    demo : bool
    in_window : bool
        Whether a refusal is shown in a window: nobody sees what a file manager's programs print.

    Raises
    ------
    UsageError
        If the notebook cannot be opened, or there is no screen.
    """
    if notebook is not None and not notebook.exists() and not notebook.parent.is_dir():
        raise UsageError(f"{notebook}: no such folder; make it first or name another place")
    _check_screen()
    # While modules load there is none to find; afterwards the window clears, on its own thread.
    gc.disable()
    # Whatever is worked out beside the window lets go of Python soon when a key comes.
    sys.setswitchinterval(_TURN_S)
    path = demo_notebook() if demo else notebook or last_notebook() or default_notebook()
    # A long notebook is looked through while Qt gets ready.
    inspection = Inspection(path)
    app, choices = make_application(), choices_kept()
    put_on_type(choices)
    shown: list[object] = []
    try:
        shown.append(_show(path, choices, inspection))
    except NotebookError as error:
        if not in_window:
            raise UsageError(str(error)) from error
        refusal = RefusalWindow(path, error, lambda other: shown.append(_show(other, choices)))
        refusal.show()
        shown.append(refusal)
    if os.environ.get("VADRIN_SAY_USABLE"):
        QTimer.singleShot(0, lambda: print("usable", flush=True))
    status = int(app.exec())  # type: ignore[attr-defined]
    for window in shown:
        if isinstance(window, Window):
            keep_choices(chosen_of(window))
    leave_no_demos()
    return status


def _check_screen() -> None:
    if _no_screen() and not os.environ.get("QT_QPA_PLATFORM"):
        raise UsageError(
            "there is no screen; start it on a desktop, or with QT_QPA_PLATFORM=offscreen to run "
            "without one"
        )


def run_practice_window(level: str, kind: str, seed: int | None) -> int:
    """Begin a practice film, say its digest, and open its notebook until the window closes.

    Raises
    ------
    UsageError
        If the number is none, or the film cannot be written.
    """
    # The window of one's own notebook need not wait for numbers.
    from vadrin.app.practice.practice_notebook import begin_practice
    from vadrin.commands.practice import seed_given

    _check_screen()
    try:
        number = None if seed is None else seed_given(seed)
        begun = begin_practice(practice_place(), Level(level), kind, number)
    except FormatError as error:
        raise UsageError(str(error)) from error
    print(f"{begun.notebook}: the truth is sealed beside it. Digest {begun.digest[:16]}.")
    return run_window(begun.notebook, demo=False)

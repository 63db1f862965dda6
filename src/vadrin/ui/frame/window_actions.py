"""What can be done anywhere in the window: the File menu, the shortcuts, the command box."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import partial

from vadrin.app.document.stations import PLACES
from vadrin.app.document.workbench import Workbench
from vadrin.app.library.notebook_exchange import KeptFile
from vadrin.app.library.recent_notebooks import recent_notebooks
from vadrin.ui.actions import Action
from vadrin.ui.files.notebook_files import NotebookFiles
from vadrin.ui.files.shown_files import ShownFiles
from vadrin.ui.light_table.strip_table import WHOLE_KEY

MENU_PARTS = ("readings", "shown", "notebook", "edit", "kept", "recent")
"""Parts of the File menu, a line between each."""


@dataclass(frozen=True)
class WindowActs:
    """What only the window itself can do."""

    start_test: Callable[[], None]
    next_look: Callable[[], None]
    scale_type: Callable[[int], None]
    show_keys: Callable[[], None]
    show_guide: Callable[[], None]
    explain_words: Callable[[], None]
    show_commands: Callable[[], None]
    unfold_finding: Callable[[], None]
    say_where_from: Callable[[], None]
    turn_estimates: Callable[[], None]
    show_strips: Callable[[], None]
    close: Callable[[], object]


def window_actions(
    bench: Workbench, files: NotebookFiles, shown: ShownFiles, window: WindowActs
) -> tuple[Action, ...]:
    """Every action of the window, in the order of its menu."""
    return (
        *_of_readings(bench, files, window),
        *_of_what_is_shown(shown),
        *_of_notebooks(files),
        *_of_editing(bench, window),
        *_of_places(bench),
    )


def _of_readings(bench: Workbench, files: NotebookFiles, window: WindowActs) -> tuple[Action, ...]:
    def on_bench() -> bool:
        return bench.loaded is not None

    part = "readings"
    return (
        Action("test.new", "New test", window.start_test, ("Ctrl+N",), part),
        Action("readings.import", "Import readings …", files.ask_import, ("Ctrl+I",), part),
        Action(
            "readings.export",
            "Export the readings of this test …",
            files.ask_export,
            (),
            part,
            on_bench,
        ),
        Action("test.attach", "Attach a file to this test …", files.ask_attach, (), part, on_bench),
    )


def _of_what_is_shown(shown: ShownFiles) -> tuple[Action, ...]:
    part = "shown"
    films = "Export the films decided on as a table …"
    return (
        Action("plot.copy", "Copy the plot as a picture", shown.copy_plot, ("Ctrl+Alt+C",), part),
        Action("plot.save", "Save the plot …", shown.ask_plot, (), part),
        Action("shelf.table", "Export all tests as a table …", shown.ask_shelf, (), part),
        Action("films.table", films, shown.ask_films, (), part),
    )


def _of_notebooks(files: NotebookFiles) -> tuple[Action, ...]:
    part = "notebook"
    return (
        Action("notebook.open", "Open a notebook …", files.ask_open, ("Ctrl+O",), part),
        Action("notebook.new", "New notebook …", files.ask_new, (), part),
        Action("notebook.copy", "Save a copy …", files.ask_copy, (), part),
        Action("notebook.merge", "Merge another notebook …", files.ask_merge, (), part),
        Action("notebook.json", "Export notebook as JSON …", files.ask_json, (), part),
    )


def _of_editing(bench: Workbench, window: WindowActs) -> tuple[Action, ...]:
    part = "edit"
    return (
        Action(
            "edit.undo",
            "Undo",
            bench.undo,
            ("Ctrl+Z",),
            part,
            lambda: bool(bench.notebook.undo_label()),
            said=lambda: f"Undo {bench.notebook.undo_label()}".rstrip(),
            always=True,
        ),
        Action(
            "edit.redo",
            "Redo",
            bench.redo,
            ("Ctrl+Shift+Z", "Ctrl+Y"),
            part,
            lambda: bool(bench.notebook.redo_label()),
            said=lambda: f"Redo {bench.notebook.redo_label()}".rstrip(),
            always=True,
        ),
        Action("look.next", "Change display: day, dim, safelight", window.next_look, ("F8",), part),
        Action(
            "type.larger", "Larger type", partial(window.scale_type, 1), ("Ctrl++", "Ctrl+="), part
        ),
        Action("type.smaller", "Smaller type", partial(window.scale_type, -1), ("Ctrl+-",), part),
        Action("help.commands", "Find a command", window.show_commands, ("Ctrl+K",), part),
        Action(
            "finding.unfold",
            "Show the full finding, where it is folded",
            window.unfold_finding,
            ("F2",),
            part,
            lambda: bench.loaded is not None,
        ),
        Action(
            "finding.rests",
            "Where the numbers of this test come from",
            window.say_where_from,
            ("F3",),
            part,
            lambda: bench.loaded is not None,
        ),
        Action(
            "learn.turn",
            "Estimates from other tests: use them, or leave them out",
            window.turn_estimates,
            ("Ctrl+Alt+E",),
            part,
        ),
        Action(
            "film.strips",
            "Strips in full, or as bars",
            window.show_strips,
            (WHOLE_KEY,),
            part,
            lambda: bench.loaded is not None,
        ),
        Action(
            "help.keys", "This station and its keyboard shortcuts", window.show_keys, ("F1",), part
        ),
        Action("help.guide", "Guide: look something up", window.show_guide, ("Shift+F1",), part),
        Action("help.words", "Explain the words here", window.explain_words, ("F9",), part),
        Action("window.quit", "Quit", window.close, ("Ctrl+Q",), part),
    )


def _of_places(bench: Workbench) -> tuple[Action, ...]:
    def has_test() -> bool:
        return bench.loaded is not None

    return tuple(
        Action(
            f"go.{place.name}",
            f"Go to {place.title}",
            partial(bench.go, place.name),
            (place.key,),
            usable=has_test if place.of_test else lambda: True,
        )
        for place in PLACES
        if place.key
    )


def menu_actions(
    bench: Workbench, files: NotebookFiles, see: Callable[[KeptFile], None]
) -> tuple[Action, ...]:
    """What the File menu holds beside the lasting actions: kept files, recent notebooks."""
    seen = (
        Action(f"seen.{one.id}", f"View attached file {one.name}", partial(see, one), menu="kept")
        for one in files.kept()
    )
    kept = (
        Action(
            f"kept.{one.id}",
            f"Save attached file {one.name} …",
            partial(files.ask_kept, one),
            menu="kept",
        )
        for one in files.kept()
    )
    here = bench.notebook.path.absolute()
    recent = (
        Action(
            f"recent.{path}",
            f"{path.stem} in {path.parent}",
            partial(files.open, path),
            menu="recent",
        )
        for path in recent_notebooks()
        if path != here
    )
    return (*seen, *kept, *recent)

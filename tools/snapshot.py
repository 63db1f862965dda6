"""``vadrin snapshot DIR [NAME …]``: the main views of the demo notebook as PNG, with no screen."""

from __future__ import annotations

import os
import tempfile
import time
from collections.abc import Sequence
from pathlib import Path
from typing import TYPE_CHECKING, Any

from vadrin.errors import UsageError

if TYPE_CHECKING:
    from vadrin.ui.frame.window import Window

VIEWS = (
    ("shelf", "", "shelf"),
    ("plan", "Kelda Pan 200", "plan"),
    ("expose", "Skerry Fine 50", "expose"),
    ("process", "Merrow Pan 125 M3", "process"),
    ("read", "Brannock 400 B7", "read"),
    ("curves", "Merrow Pan 125 M3", "curves"),
    ("tonight", "", "tonight"),
    ("finding", "Merrow Pan 125 M3", "finding"),
    ("cards", "Merrow Pan 125 M3", "cards"),
    ("cupboard", "", "cupboard"),
    ("films", "", "films"),
)
"""Picture, test and station of each main view."""

_PATIENCE_S = 20
_QUIET_TURNS = 16
"""Turns without work; a forecast begins a moment after the plan stands still."""


def _settle(app: Any, window: Window) -> None:
    """Wait until nothing shown is still being worked out or put off for a moment."""
    quiet = 0
    begun = time.perf_counter()
    while quiet < _QUIET_TURNS and time.perf_counter() - begun < _PATIENCE_S:
        app.processEvents()
        quiet = 0 if window.busy else quiet + 1
        time.sleep(0.01)


def _show(app: Any, window: Window, film: str, station: str) -> None:
    from vadrin.app.shelf.shelf_index import shelf_lines

    lines = [x for x in shelf_lines(window.bench.notebook) if film and x.film.startswith(film)]
    window.bench.go("shelf")
    window.bench.open_test(lines[0].test_id if lines else None)
    window.bench.go(station)
    _settle(app, window)


def _darkroom(app: Any, window: Window, folder: Path) -> None:
    """The clock some minutes after it was started."""
    from dataclasses import replace
    from datetime import timedelta

    from vadrin.app.process.darkroom_runs import begin_run
    from vadrin.app.process.uptime import moment_now

    _show(app, window, "Brannock 400", "process")
    station: Any = window.station()
    now, loaded = moment_now(), window.bench.loaded
    before = replace(now, wall=now.wall - timedelta(seconds=372), uptime=now.uptime - 372)
    if loaded is not None:
        begin_run(window.bench.notebook, loaded, before)
    station.turn_to("clock")
    _settle(app, window)
    _save(window, folder, "clock")


def _read_by_eye(app: Any, window: Window, folder: Path) -> None:
    """A scan with its frames found, and the light box after some looks."""
    from tools.demo.demo_scan import write_demo_scan
    from vadrin.app.read.light_box_judging import NO, YES
    from vadrin.app.scans.step_wedge import StepWedge, keep_steps

    _show(app, window, "Ostrel 400", "read")
    station, loaded = window.station(), window.bench.loaded
    page: Any = station
    if loaded is None:
        return
    with tempfile.TemporaryDirectory() as scratch:
        picture = Path(scratch) / "one strip left over.tif"
        wedge = StepWedge(write_demo_scan(picture, loaded.strips[0]))
        window.bench.edit(lambda book: keep_steps(book, wedge))
        page.turn_to("scan")
        page.scan.open(picture)
        _settle(app, window)
        _save(window, folder, "scan")
    page.turn_to("light box")
    for told in (YES, NO, NO, YES):
        page.light_box.answer(told)
        _settle(app, window)
    _save(window, folder, "light-box")


def _at_the_enlarger(app: Any, window: Window, folder: Path) -> None:
    """A test strip to be counted down, after a coarse one was chosen on."""
    from vadrin.app.printing.print_setups import type_setup

    _show(app, window, "Ostrel 400", "print")
    station, bench = window.station(), window.bench
    page: Any = station
    for name, words in (
        ("image size", "18 × 24 cm"),
        ("aperture", "f/8"),
        ("grade", "2"),
        ("paper", "Slip Bromide"),
    ):
        loaded = bench.loaded
        if loaded is not None:
            bench.edit(lambda book, n=name, w=words, s=loaded: type_setup(book, s, n, w))  # type: ignore[misc]
        _settle(app, window)
    page.turn_to("strip")
    page.strip.exposed()
    _settle(app, window)
    page.strip.choose(5)
    _settle(app, window)
    _save(window, folder, "print")


def _save(window: Window, folder: Path, name: str) -> None:
    target = folder / f"{name}.png"
    if not window.grab().save(str(target)):
        raise UsageError(f"{target}: cannot be written; choose another folder")


def _question(app: Any, window: Any, folder: Path) -> None:
    window.start_test()
    _settle(app, window)
    _save(window, folder, "question")


def _pictures(app: Any, window: Window, folder: Path) -> None:
    """Normal and the longest push in one frame, the seam between them, what is lost hatched."""
    _show(app, window, "Merrow Pan 125 M3", "finding")
    station: Any = window.station()
    station.turn_to("pictures")
    station.pictures.arrange("one over the other")
    station.pictures.look_otherwise("H")
    _settle(app, window)
    _save(window, folder, "pictures")


def _learnt(app: Any, window: Window, folder: Path) -> None:
    """The demo's notebook some films later."""
    from tools.demo.demo_notebook import write_winters_films

    window.bench.edit(write_winters_films)
    window.bench.refresh()
    window.bench.go("learnt")
    _settle(app, window)
    _save(window, folder, "learnt")


def _practice(app: Any, window: Window, folder: Path) -> None:
    """The envelope of a practice film that a scripted tester has shot, developed and read."""
    from tools.practice_testers import TESTERS, tested
    from vadrin.app.practice.commitment import Belief, Commitment, commit
    from vadrin.app.practice.envelope_report import opening
    from vadrin.app.practice.practice_notebook import begin_practice
    from vadrin.app.practice.practice_place import practice_place
    from vadrin.core.simulation.practice_level import Level
    from vadrin.notebook.store import Notebook

    with tempfile.TemporaryDirectory() as scratch:
        os.environ["XDG_DATA_HOME"] = scratch
        begun = begin_practice(practice_place(), Level.HARD, "push", 12)
        book = Notebook(begun.notebook)
        state = tested(book, begun.test_id, TESTERS[0], 12)
        book.close()
        found = state.settled().finding
        index, minutes = found.zone_ei.known(), found.time_min.known()
        said = Commitment(
            {
                "index": Belief(1.1 * index, 0.9 * index, 1.3 * index),
                "time_min": Belief(minutes, 0.9 * minutes, 1.1 * minutes),
                "push_min": Belief(1.4 * minutes, 1.25 * minutes, 1.6 * minutes),
            },
            "the light moved, the counter of strip A slipped",
        )
        commit(begun.notebook, said)
        for _ in opening(begun.notebook, state):
            pass
        window.bench.open_notebook(begun.notebook)
        window.bench.open_test(begun.test_id)
        window.bench.go("practice")
        _settle(app, window)
        _save(window, folder, "practice")


OTHERS = {
    ("question",): _question,
    ("clock",): _darkroom,
    ("scan", "light-box"): _read_by_eye,
    ("pictures",): _pictures,
    ("print",): _at_the_enlarger,
    ("learnt",): _learnt,
    # The last: it leaves another notebook open, whose folder is gone.
    ("practice",): _practice,
}
"""Pictures that take more than a station of a test, and what makes them."""


def names() -> list[str]:
    """Every picture there is."""
    return [name for name, _, _ in VIEWS] + [name for group in OTHERS for name in group]


def run(folder: Path, only: Sequence[str] = ()) -> int:
    """Write the pictures, or some of them by their names."""
    unknown = sorted(set(only) - set(names()))
    if unknown:
        raise UsageError(f"no picture is called {unknown[0]}; there are {', '.join(names())}")
    os.environ["QT_QPA_PLATFORM"] = "offscreen"
    from vadrin.app.demo.demo_copy import demo_notebook
    from vadrin.commands.desktop import make_application, open_window

    try:
        folder.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        raise UsageError(f"{folder}: {error.strerror}; choose another folder") from error
    app: Any = make_application()
    window: Any = open_window(demo_notebook())
    window.resize(1280, 800)
    window.show()
    for name, film, station in VIEWS:
        if not only or name in only:
            _show(app, window, film, station)
            _save(window, folder, name)
    for group, make in OTHERS.items():
        if not only or set(group) & set(only):
            make(app, window, folder)
    window.close()
    return 0

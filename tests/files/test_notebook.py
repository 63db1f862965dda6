"""The notebook file keeps what it was given, whatever happens to the program."""

import os
import signal
import sqlite3
import subprocess
import sys
from dataclasses import replace

import pytest
from sqlalchemy import create_engine, inspect

from tests.notebooks import new_test
from vadrin.app.document.test_loading import load_test
from vadrin.app.plan.plan_edit import PlanEdit, apply_plan
from vadrin.core.frames import FrameState
from vadrin.errors import EditRefusedError, NotebookError
from vadrin.notebook.records import Frame, Reading, Stock, Strip, Test
from vadrin.notebook.store import Notebook
from vadrin.notebook.tables import METADATA


def test_the_migrated_file_has_the_columns_of_the_records(notebook):
    found = inspect(create_engine(f"sqlite:///{notebook.path}"))
    for table in METADATA.sorted_tables:
        columns = {c["name"]: c["nullable"] for c in found.get_columns(table.name)}
        wanted = {c.name: bool(c.nullable) for c in table.columns}
        assert columns == wanted, table.name


def test_undo_and_redo_restore_every_row(notebook):
    empty = notebook.everything()
    test = new_test(notebook, "Merrow Pan 125", "Sable", "1+1", 125.0, (6.0, 9.0))
    full = notebook.everything()
    strip = notebook.all(Strip, test_id=test.id)[0]
    with notebook.change("lose a strip"):
        notebook.remove(strip)
    assert len(notebook.all(Frame)) == 14
    assert notebook.undo().label == "lose a strip"
    assert notebook.everything() == full
    assert notebook.undo().label == "new test"
    assert notebook.everything() == empty
    assert notebook.redo().label == "new test"
    assert notebook.everything() == full


def test_an_edit_that_fails_half_way_leaves_nothing(notebook):
    def half():
        with notebook.change("half"):
            notebook.add(Stock(name="half written"))
            raise ZeroDivisionError

    with pytest.raises(ZeroDivisionError):
        half()
    assert notebook.all(Stock) == []
    assert notebook.undo_label() == ""


def test_a_plan_keeps_its_script_once_frames_are_exposed(notebook):
    test = new_test(notebook, "Merrow Pan 125", "Sable", times=(6.0, 9.0))
    frame = notebook.all(Frame)[0]
    with notebook.change("tick"):
        notebook.put(replace(frame, state=FrameState.EXPOSED))
    request = PlanEdit(replace(test, step=0.5), (6.0, 9.0), "Merrow Pan 125", "Sable", "")
    with pytest.raises(EditRefusedError, match="already exposed"):
        apply_plan(notebook, request, "finer steps")
    apply_plan(notebook, replace(request, test=test, times=(7.0, 9.0)), "another time")
    loaded = load_test(notebook, test.id)
    assert [s.strip.planned_min for s in loaded.strips] == [7.0, 9.0]
    assert loaded.exposed() == 1


@pytest.mark.parametrize("kind", ["damaged", "foreign", "newer", "no database"])
def test_what_cannot_be_opened_is_refused_untouched(tmp_path, kind):
    path = tmp_path / "old.vadrin"
    Notebook(path).close()
    data = bytearray(path.read_bytes())
    if kind == "damaged":
        data[4096 : 4096 * 4] = b"\x5a" * (4096 * 3)
        path.write_bytes(data)
    elif kind == "no database":
        path.write_bytes(b"a shopping list, quite long enough to be read" * 40)
    else:
        pragma = "application_id = 7" if kind == "foreign" else "user_version = 99"
        with sqlite3.connect(path) as connection:
            connection.execute(f"PRAGMA {pragma}")
    before = path.read_bytes()
    with pytest.raises(NotebookError, match=r"old\.vadrin"):
        Notebook(path)
    assert path.read_bytes() == before
    assert [p.name for p in tmp_path.iterdir()] == ["old.vadrin"]


WRITER = """
import sys
from pathlib import Path
from vadrin.notebook.records import Reading, Frame
from vadrin.notebook.store import Notebook
book = Notebook(Path(sys.argv[1]))
frame = book.all(Frame)[0]
for n in range(100000):
    with book.change("read"):
        book.add(Reading(frame_id=frame.id, position=n, density=n / 1000))
    print(n, flush=True)
"""


def test_a_killed_program_loses_nothing_it_had_called_saved(tmp_path):
    path = tmp_path / "killed.vadrin"
    book = Notebook(path)
    new_test(book, "Merrow Pan 125", "Sable", times=(6.0,))
    book.close()
    environment = {**os.environ, "PYTHONPATH": os.pathsep.join(sys.path)}
    saved = -1
    for edits in (0, 1, 2, 5, 11, 23, 41):
        writer = subprocess.Popen(
            [sys.executable, "-c", WRITER, str(path)],
            stdout=subprocess.PIPE,
            env=environment,
            text=True,
        )
        first = [int(writer.stdout.readline()) for _ in range(edits + 1)]
        writer.send_signal(signal.SIGKILL)
        told = [*first, *(int(x) for x in writer.stdout.read().split())]
        writer.wait()
        book = Notebook(path)
        kept = [r.position for r in book.all(Reading)]
        assert book.get(Test, 1) is not None
        book.close()
        assert len(kept) - max(saved, 0) >= len(told)
        saved = len(kept)


def test_a_write_cut_off_half_way_is_undone_on_opening(tmp_path):
    """A journal as a killed program leaves it: the edit it belonged to never was."""
    path = tmp_path / "cut.vadrin"
    Notebook(path).close()
    connection = sqlite3.connect(path)
    connection.execute("PRAGMA synchronous = OFF")
    connection.execute("PRAGMA cache_spill = 1")
    connection.execute("PRAGMA cache_size = 5")
    connection.execute("BEGIN IMMEDIATE")
    row = ("x" * 3000, "kind", 100.0, "")
    for _ in range(60):
        connection.execute("INSERT INTO stock (name, kind, box_speed, note) VALUES (?,?,?,?)", row)
    torn = tmp_path / "torn.vadrin"
    torn.write_bytes(path.read_bytes())
    journal = tmp_path / "cut.vadrin-journal"
    assert journal.exists()
    (tmp_path / "torn.vadrin-journal").write_bytes(journal.read_bytes())
    connection.close()
    book = Notebook(torn)
    assert book.all(Stock) == []
    book.close()

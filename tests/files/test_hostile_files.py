"""The quick part of `tools/hostile.py`: what comes from anywhere is refused or taken whole."""

import errno
import sqlite3
import struct
from pathlib import Path

import numpy as np
import pytest

from tests.notebooks import merged
from tools import hostile_notebooks, hostile_pictures
from tools.hostile_guard import Counts, faults_in, guarded
from tools.hostile_notebooks import SCHEMA, damaged_notebook, hostile_notebook
from tools.hostile_tables import one_table
from tools.killed_statements import ACTS, killed_at_every_statement
from vadrin.errors import NotebookError, ReadOnlyError, StorageError
from vadrin.formats.pictures.picture_reader import read_picture
from vadrin.notebook import inspection, store
from vadrin.notebook.backups import KEPT, backups_of, folder_of
from vadrin.notebook.connection import Deadline, connect
from vadrin.notebook.inspection import SCHEMA_VERSION, Inspection
from vadrin.notebook.records import Attachment, Reading, Stock, Test
from vadrin.notebook.recovery import recover
from vadrin.notebook.store import Notebook

DEMO = hostile_notebooks.DEMO


def faults(counts):
    return {what: counts.first[what] for what in counts.of if what.startswith("FAULT")}


@pytest.mark.parametrize(
    ("case", "seeds"),
    [
        (one_table, range(70_000, 70_045)),
        (hostile_notebook, [*range(0, len(SCHEMA), 9), *range(200, 203)]),
        (damaged_notebook, range(4)),
    ],
)
def test_nothing_hostile_does_worse_than_be_refused(tmp_path, case, seeds):
    counts = Counts()
    for seed in seeds:
        case(seed, tmp_path, counts)
    assert faults(counts) == {}
    assert counts.of["refused"] > 2


@pytest.mark.parametrize(("act", "every"), [("create", 60), ("migrate from 3", 50), ("undo", 45)])
def test_a_kill_at_a_statement_leaves_a_whole_notebook(act, every):
    assert act in ACTS
    counts = killed_at_every_statement(act, every)
    assert counts.of["killed"] >= 2
    assert faults(counts) == {}


@pytest.mark.parametrize("act", ["create", "migrate from 13", "undo"])
def test_a_kill_between_two_calls_of_the_file_system_leaves_a_whole_notebook(act):
    counts = killed_at_every_statement(act, 1, files=True)
    assert counts.of["killed"] >= 2
    assert faults(counts) == {}


def altered(notebook, *statements):
    notebook.close()
    connection = sqlite3.connect(notebook.path)
    with connection:
        for statement in statements:
            connection.execute(statement)
    connection.close()
    return notebook.path


@pytest.mark.parametrize(
    ("statement", "words"),
    [
        ("CREATE VIEW v AS SELECT * FROM reading", "view v"),
        ("CREATE TRIGGER t AFTER INSERT ON note BEGIN DELETE FROM note; END", "trigger t"),
        ("ALTER TABLE note ADD COLUMN odd TEXT", "its note"),
        ("INSERT INTO stock VALUES (7, 'Fen', 'b', 'fast', '', '', '')", "box speed of stock 7"),
        ("INSERT INTO batch VALUES (3, 99, 'x', '', '', 1, '')", "stock of batch 3"),
        ("INSERT INTO process (id, temperature_c) VALUES (4, 1e300)", "temperature.* of process 4"),
    ],
)
def test_what_no_notebook_holds_is_named(notebook, statement, words):
    path = altered(notebook, statement)
    before = path.read_bytes()
    with pytest.raises(NotebookError, match=words) as refused:
        Notebook(path)
    assert refused.value.damaged
    assert path.read_bytes() == before


def test_one_bad_row_takes_no_other_away(notebook, tmp_path):
    with notebook.change("film"):
        notebook.add_all([Stock(name=f"Pan {i}") for i in range(5)])
    path = altered(notebook, "UPDATE stock SET box_speed = 'fast' WHERE id = 3")
    assert recover(path, tmp_path / "whole.vadrin") == {"stock": 4}
    book = Notebook(tmp_path / "whole.vadrin")
    assert [s.name for s in book.all(Stock)] == ["Pan 0", "Pan 1", "Pan 3", "Pan 4"]
    book.close()


def test_an_edit_the_file_ignores_is_not_called_saved(notebook):
    notebook._connection.execute(
        "CREATE TEMP TRIGGER t BEFORE INSERT ON stock BEGIN SELECT RAISE(IGNORE); END"
    )
    with pytest.raises(StorageError, match="0 of 1 row"), notebook.change("film"):
        notebook.add(Stock(name="Pan"))
    assert notebook.all(Stock) == []
    assert notebook.undo_label() == ""


def test_a_file_of_no_bytes_is_no_new_notebook(tmp_path):
    path = tmp_path / "winter.vadrin"
    path.touch()
    with pytest.raises(NotebookError, match="0 bytes"):
        Notebook(path)
    assert path.read_bytes() == b""


def test_a_journal_of_another_state_is_not_played_in(notebook):
    path = notebook.path
    notebook.close()
    page = path.read_bytes()[:4096]
    count = struct.unpack(">I", page[24:28])[0]
    other = page[:24] + struct.pack(">I", count + 9) + page[28:]
    header = bytes.fromhex("d9d505f920a163d7") + struct.pack(">5I", 1, 0, 1, 512, 4096)
    journal = Path(f"{path}-journal")
    journal.write_bytes(header.ljust(512, b"\0") + struct.pack(">I", 1) + other + bytes(4))
    before = path.read_bytes()
    with pytest.raises(NotebookError, match="another state"):
        Notebook(path)
    assert path.read_bytes() == before
    assert journal.exists()


def test_a_file_that_lost_its_end_gives_what_is_there(tmp_path):
    for share, least in ((0.5, 40), (0.97, 700)):
        cut = tmp_path / f"cut {share}.vadrin"
        cut.write_bytes(DEMO.read_bytes()[: int(DEMO.stat().st_size * share)])
        assert sum(recover(cut, tmp_path / f"whole {share}.vadrin").values()) >= least


def test_a_failed_recovery_leaves_nothing(tmp_path):
    path = tmp_path / "noise.vadrin"
    path.write_bytes(b"SQLite format 3\0" + bytes(range(256)) * 40)
    with pytest.raises(NotebookError, match="nothing could be recovered"):
        recover(path, tmp_path / "whole.vadrin")
    assert [p.name for p in tmp_path.iterdir()] == ["noise.vadrin"]


def test_backups_hold_what_lies_in_a_log_and_spare_what_is_not_theirs(notebook):
    path = notebook.path
    mine = folder_of(path) / "2025 winter.vadrin"
    mine.parent.mkdir(exist_ok=True)
    mine.write_bytes(b"of the person")
    with notebook.change("film"):
        notebook.add(Stock(name="Pan"))
    notebook.close()
    other = sqlite3.connect(path)
    other.execute("PRAGMA journal_mode = WAL")
    with other:
        other.execute("UPDATE stock SET note = 'in the log'")
    book = Notebook(path)
    book.close()
    other.close()
    copy = Notebook(backups_of(path)[0])
    assert [s.note for s in copy.all(Stock)] == ["in the log"]
    copy.close()
    for i in range(2 * KEPT + 4):
        book = Notebook(path)
        with book.change("film"):
            book.add(Stock(name=f"Pan {i}"))
        book.close()
    assert mine.read_bytes() == b"of the person"
    numbers = sorted(int(p.name[:4]) for p in backups_of(path))
    assert len([n for n in numbers[:-KEPT] if n % 8]) == 0


def test_the_fullest_backup_outlives_weeks_that_saw_little(notebook, demo_path):
    from vadrin.notebook.merge import everything_of

    path = notebook.path
    merged(notebook, everything_of(demo_path))
    notebook.close()
    book = Notebook(path)
    with book.change("all gone"):
        book.remove_all(book.all(Test))
    book.close()
    for i in range(3 * KEPT):
        book = Notebook(path)
        with book.change("film"):
            book.add(Stock(name=f"Pan {i}"))
        book.close()
    held = []
    for backup in backups_of(path):
        connection = connect(backup, "ro")
        held.append(connection.execute("SELECT count(*) FROM reading").fetchone()[0])
        connection.close()
    assert max(held) > 300


def test_what_is_kept_with_a_stock_comes_along(notebook, tmp_path, empty_path):
    other = Notebook(Path(tmp_path / "other.vadrin"))
    with other.change("sheet"):
        stock = other.add(Stock(name="Pan"))
        other.add(Attachment(stock_id=stock.id, name="sheet.txt", data=b"6 min at 20"))
    theirs = other.everything()
    other.close()
    for _ in range(2):
        merged(notebook, theirs)
    assert [a.data for a in notebook.all(Attachment)] == [b"6 min at 20"]
    theirs[Reading] = []
    theirs[Stock] = [Stock(id=1, name="Fen", box_speed=float("inf"))]
    with pytest.raises(NotebookError, match="box speed"):
        merged(notebook, theirs)
    assert [s.name for s in notebook.all(Stock)] == ["Pan"]


def test_a_question_without_an_end_is_stopped(empty_path):
    connection = connect(empty_path, "ro")
    endless = "WITH RECURSIVE c(i) AS (SELECT 1 UNION ALL SELECT i FROM c) SELECT count(*) FROM c"
    with Deadline(connection, 0.05), pytest.raises(sqlite3.OperationalError, match="interrupted"):
        connection.execute(endless).fetchone()
    assert connection.execute("SELECT 1").fetchone() == (1,)
    connection.close()


def test_a_full_disk_still_lets_a_notebook_be_read(notebook, monkeypatch):
    with notebook.change("film"):
        notebook.add(Stock(name="Pan"))
    notebook.close()

    def full(*_):
        raise OSError(errno.ENOSPC, "No space left on device")

    monkeypatch.setattr(store, "back_up", full)
    book = Notebook(notebook.path)
    assert "no space left" in book.read_only
    assert [s.name for s in book.all(Stock)] == ["Pan"]
    with pytest.raises(ReadOnlyError, match="Free the disk"), book.change("more"):
        book.add(Stock(name="Fen"))
    book.close()


@pytest.mark.parametrize("in_parts", [False, True])
def test_a_look_begun_before_holds_only_while_nobody_writes(
    tmp_path, demo_path, monkeypatch, in_parts
):
    if in_parts:
        monkeypatch.setattr(inspection, "_LARGE", 0)
    path = tmp_path / "long.vadrin"
    path.write_bytes(demo_path.read_bytes())
    Notebook(path, Inspection(path)).close()
    begun = Inspection(path)
    assert begun.version() == SCHEMA_VERSION
    with sqlite3.connect(path) as writer:
        writer.execute("UPDATE reading SET density = 'thin' WHERE id = 7")
    with pytest.raises(NotebookError, match="it can't hold the density of reading 7"):
        Notebook(path, begun)
    path.write_bytes(path.read_bytes()[: 3 * 4096])
    with pytest.raises(NotebookError, match="damaged"):
        Notebook(path, Inspection(path))


def test_no_hurt_picture_does_worse_than_be_refused(tmp_path):
    counts = Counts()
    whole = hostile_pictures.seeds(tmp_path)
    for number in range(160):
        rng = np.random.default_rng((5, number))
        path = tmp_path / f"hurt.{('tif', 'png', 'jpg')[number % 3]}"
        path.write_bytes(hostile_pictures.hurt(whole[number % len(whole)], rng))
        guarded(lambda at=path: read_picture(at).plane().sum(), counts, f"picture {number}")
    assert faults_in(counts) == 0, counts.lines()
    assert counts.of["refused"] > 40

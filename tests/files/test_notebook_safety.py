"""One writer, full disks, vanished folders, backups, damage, merging, older formats."""

import errno
import json
import os
import re
import resource
import shutil
import sqlite3
import subprocess
from dataclasses import replace
from importlib.util import module_from_spec, spec_from_file_location
from operator import attrgetter
from pathlib import Path
from xml.etree import ElementTree

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from PyQt6.QtGui import QImage

import vadrin
from tests.notebooks import fill_from_json, merged, new_test
from vadrin.app.demo.demo_copy import demo_notebook, leave_no_demo
from vadrin.app.document.test_loading import load_test
from vadrin.app.document.workbench import Workbench
from vadrin.app.entry.film_supply import film_supply_text
from vadrin.app.expose.exposing import mark_frame
from vadrin.app.library.recent_notebooks import recent_notebooks, remember
from vadrin.app.shelf.shelf_index import clock_doubt
from vadrin.commands import main
from vadrin.commands.parsers import COMMANDS
from vadrin.core.frames import FrameState
from vadrin.core.planning.test_options import SheetSource, options_as, options_from_json
from vadrin.errors import NotebookError, ReadOnlyError, RecordInUseError, StorageError
from vadrin.notebook.backups import KEPT, backups_of
from vadrin.notebook.columns import table_name
from vadrin.notebook.inspection import SCHEMA_VERSION
from vadrin.notebook.json_file import notebook_json
from vadrin.notebook.merge import everything_of
from vadrin.notebook.records import (
    Attachment,
    Batch,
    Camera,
    ControlStrip,
    DarkroomRun,
    Enlarger,
    Frame,
    Judgement,
    MakerTime,
    Note,
    Paper,
    PaperGrade,
    PrintSetup,
    PrintStrip,
    Process,
    Reading,
    Rule,
    RuleTrial,
    RunEvent,
    Stock,
    Strip,
    Test,
    Workprint,
)
from vadrin.notebook.recovery import recover
from vadrin.notebook.store import Notebook
from vadrin.notebook.upgrades import upgraded_table

ident = attrgetter("id")
RELEASED = Path(__file__).parent / "released"


def test_a_second_window_reads_only_and_says_who_writes(notebook):
    new_test(notebook, "Merrow Pan 125", "Sable")
    second = Notebook(notebook.path)
    assert len(second.all(Test)) == 1
    assert "has it open since" in second.read_only
    with pytest.raises(ReadOnlyError, match="has it open since"), second.change("tick"):
        second.add(Stock(name="never"))
    said = []
    bench = Workbench(second)
    bench.said.connect(said.append)
    bench.edit(lambda book: new_test(book, "Kelda Pan 200", "Tarn"))
    assert "reading only" in said[0]
    second.close()
    notebook.close()
    third = Notebook(notebook.path)
    assert third.read_only == ""
    assert [s.name for s in third.all(Stock)] == ["Merrow Pan 125"]
    third.close()


@pytest.mark.parametrize("way", ["lock file removed by hand", "hard link made while it is open"])
def test_one_writes_whatever_becomes_of_the_lock_file(notebook, tmp_path, way):
    path = notebook.path
    if way.startswith("lock"):
        path.with_name(f".{path.name}.lock").unlink()
    else:
        path = tmp_path / "another name.vadrin"
        os.link(notebook.path, path)
    second = Notebook(path)
    assert "another window has it open" in second.read_only
    assert len(second.all(Stock)) == len(notebook.all(Stock))
    with pytest.raises(ReadOnlyError), second.change("both"):
        second.add(Stock(name="two writers"))
    second.close()
    with notebook.change("on"):
        notebook.add(Stock(name="one writer"))
    notebook.close()
    third = Notebook(path)
    assert third.read_only == ""
    third.close()


def test_where_a_place_knows_no_locks_of_an_open_file_the_lock_file_holds(tmp_path, monkeypatch):
    def refused(*_):
        raise OSError(errno.EINVAL, "no such lock")

    monkeypatch.setattr("vadrin.notebook.lock.fcntl.fcntl", refused)
    first = Notebook(tmp_path / "winter.vadrin")
    assert first.read_only == ""
    second = Notebook(tmp_path / "winter.vadrin")
    assert "has it open" in second.read_only
    second.close()
    first.close()


def test_every_edit_is_written_through_to_the_disk(notebook):
    (level,) = notebook.rows("PRAGMA synchronous")[0]
    assert level == 2, "FULL: what was called saved outlives the power"
    (journal,) = notebook.rows("PRAGMA journal_mode")[0]
    assert journal == "delete", "a copy of the file alone is whole"


def test_a_full_disk_loses_nothing_and_is_said(notebook):
    """A limit on file size fails the write as a full disk does."""
    test = new_test(notebook, "Merrow Pan 125", "Sable")
    before = notebook.everything()
    said = []
    bench = Workbench(notebook)
    bench.said.connect(said.append)
    bench.open_test(test.id)
    limits = resource.getrlimit(resource.RLIMIT_FSIZE)
    resource.setrlimit(resource.RLIMIT_FSIZE, (notebook.path.stat().st_size, limits[1]))
    try:
        bench.edit(lambda book: new_test(book, "x" * 100_000, "Tarn"))
    finally:
        resource.setrlimit(resource.RLIMIT_FSIZE, limits)
    assert "Not saved" in said[-1]
    assert notebook.everything() == before
    frame = notebook.all(Frame)[0]
    bench.edit(lambda book: mark_frame(book, frame, FrameState.EXPOSED))
    assert notebook.get(Frame, frame.id).state == FrameState.EXPOSED


def test_a_vanished_folder_is_said_and_a_copy_can_be_saved(tmp_path):
    there, gone = tmp_path / "share", tmp_path / "unplugged"
    there.mkdir()
    notebook = Notebook(there / "winter.vadrin")
    test = new_test(notebook, "Merrow Pan 125", "Sable")
    bench = Workbench(notebook)
    said = []
    bench.said.connect(said.append)
    bench.open_test(test.id)
    frame = notebook.all(Frame)[0]
    there.rename(gone)
    bench.edit(lambda book: mark_frame(book, frame, FrameState.EXPOSED))
    assert "no longer in" in said[-1]
    assert notebook.get(Frame, frame.id).state == "planned"
    notebook.save_copy(tmp_path / "copy.vadrin")
    gone.rename(there)
    bench.edit(lambda book: mark_frame(book, frame, FrameState.EXPOSED))
    assert notebook.get(Frame, frame.id).state == FrameState.EXPOSED
    notebook.close()
    copy = Notebook(tmp_path / "copy.vadrin")
    assert len(copy.all(Frame)) == len(everything_of(there / "winter.vadrin")[Frame])
    copy.close()


def test_a_read_only_folder_opens_for_reading(notebook, monkeypatch):
    new_test(notebook, "Merrow Pan 125", "Sable")
    notebook.close()
    # The suite may run as root, whom no file mode keeps out.
    monkeypatch.setattr("vadrin.notebook.file.os.access", lambda *_: False)
    opened = Notebook(notebook.path)
    assert "you may not write" in opened.read_only
    assert len(opened.all(Test)) == 1
    opened.close()


def test_backups_are_made_when_something_changed_and_rotate(tmp_path):
    path = tmp_path / "winter.vadrin"
    for turn in range(KEPT + 4):
        notebook = Notebook(path)
        with notebook.change("note"):
            notebook.add(Stock(name=f"stock {turn}"))
        notebook.close()
    Notebook(path).close()
    kept = backups_of(path)
    assert len(kept) == KEPT
    assert len(everything_of(kept[0])[Stock]) == KEPT + 4
    assert len(everything_of(kept[-1])[Stock]) == 5


def test_a_copy_made_before_a_change_of_format_is_kept_however_many_follow(tmp_path):
    path = tmp_path / "old.vadrin"
    shutil.copy(RELEASED / "schema-12.vadrin", path)
    Notebook(path).close()
    (first,) = backups_of(path)
    for turn in range(KEPT * 3):
        notebook = Notebook(path)
        with notebook.change("note"):
            notebook.add(Stock(name=f"stock {turn}"))
        notebook.close()
    Notebook(path).close()
    assert first in backups_of(path)
    assert first.read_bytes() == (RELEASED / "schema-12.vadrin").read_bytes()


RENAMED = {
    "prefer": "turned_first",
    "check_last": "repeat_first",
    "grounds": "report",
    "question": "basis",
}
RENAMED_VALUES = {
    "step tablet by contact": "step wedge by contact",
    "full black": "maximum black",
    "adding up under a card": "adding up under a mask",
    "separate pieces": "separate sections",
}
STRUCTURED = ("film_form", "second", "second_factor", "against", "tablet", "arrangement")


def _other_factor(test):
    """The numbers that the options of its type hold."""
    (held,) = list(vars(test.options).values())[:1] or [()]
    return [float(v) for v in (held if isinstance(held, tuple) else (held,))]


def check_row(table, before, after):
    """A row of an older format holds what it held; what was typed text is now structure."""
    for name, value in before.items():
        if table == "test" and name in STRUCTURED:
            continue
        sheet = table == "test" and before["kind"] == "data sheet" and "options" not in before
        if sheet and name in ("subject", "note"):
            source = options_as(after.options, SheetSource)
            assert value == (source.axis if name == "subject" else source.speed_found)
            continue
        kept = getattr(after, RENAMED.get(name, name))
        if table == "test" and name == "options":
            assert kept == options_from_json(value)
            continue
        held = tuple(json.loads(value)) if isinstance(kept, tuple) else value
        held = RENAMED_VALUES.get(held, held) if name in ("subject", "purpose", "way") else held
        assert kept == held, (table, name)
    if table == "test" and before.get("film_form"):
        assert film_supply_text(after.film) == before["film_form"]
    if table == "test" and "second" in before:
        assert _other_factor(after) == [float(v) for v in before["second"].split(", ") if v]
        assert ", ".join(after.compared_names) == before["against"]
        assert ", ".join(f"{v:.2f}" for v in after.tablet) == before["tablet"]
        assert after.arrangement == (before["arrangement"] or "sequential")
    if table == "test" and json.loads(before.get("second_factor") or "[]"):
        assert _other_factor(after) == json.loads(before["second_factor"])


@pytest.mark.parametrize("version", range(1, SCHEMA_VERSION))
def test_every_released_format_opens_with_all_it_held(tmp_path, version):
    old = RELEASED / f"schema-{version}.vadrin"
    path = tmp_path / "old.vadrin"
    shutil.copy(old, path)
    with sqlite3.connect(path) as raw:
        tables = [r[0] for r in raw.execute("SELECT name FROM sqlite_master WHERE type='table'")]
        kept = {}
        for table in set(tables) - {"alembic_version"}:
            cursor = raw.execute(f"SELECT * FROM {table} ORDER BY id")
            names = [d[0] for d in cursor.description]
            kept[table] = [dict(zip(names, row, strict=True)) for row in cursor]
    raw.close()
    assert len(kept["reading"]) > 300
    notebook = Notebook(path)
    every = notebook.everything() | notebook.history()
    fresh = {table_name(k): v for k, v in every.items()}
    moved = {"stops"} if version == 1 else set()
    for table, rows in kept.items():
        now = sorted(fresh[upgraded_table(table, version)], key=ident)
        for before, after in zip(rows, now, strict=True):
            known = {k: before[k] for k in before if k not in moved or before["state"] != "doubled"}
            check_row(table, known, after)
    twice = [f for f in fresh["frame"] if f.state == "doubled"]
    assert [f.stops - f.wanted_stops for f in twice] == [1.0]
    assert all((f.role == "blank") == f.blank for f in fresh["frame"])
    assert len({t.uid for t in fresh["test"]}) == len(fresh["test"])
    assert [p.name for p in backups_of(path)] == [f"0001 before-format-{version + 1}.vadrin"]
    assert backups_of(path)[0].read_bytes() == old.read_bytes()
    notebook.close()


@pytest.mark.parametrize(
    ("version", "hurt"),
    [
        (2, "UPDATE alembic_version SET version_num = '0099'"),
        (14, "DROP TABLE alembic_version"),
        (11, "ALTER TABLE test DROP COLUMN second_factor"),
        (11, "UPDATE test SET second_factor = '[1,'"),
    ],
)
def test_an_older_notebook_that_is_not_what_it_says_is_refused_untouched(tmp_path, version, hurt):
    path = tmp_path / "old.vadrin"
    shutil.copy(RELEASED / f"schema-{version}.vadrin", path)
    raw = sqlite3.connect(path)
    raw.execute(hurt)
    raw.commit()
    raw.close()
    before = path.read_bytes()
    with pytest.raises(NotebookError, match=r"old\.vadrin is damaged.*It is not changed"):
        Notebook(path)
    assert path.read_bytes() == before
    assert not list(tmp_path.glob(".*.making*"))


def test_a_disk_that_fills_while_a_notebook_is_migrated_changes_nothing(tmp_path):
    path = tmp_path / "old.vadrin"
    shutil.copy(RELEASED / "schema-11.vadrin", path)
    before = path.read_bytes()
    # No file may grow past this: the copy fits, what a migration adds does not.
    limit = resource.getrlimit(resource.RLIMIT_FSIZE)
    resource.setrlimit(resource.RLIMIT_FSIZE, (len(before) + 4096, limit[1]))
    try:
        with pytest.raises(NotebookError, match="Nothing was changed; free the disk"):
            Notebook(path)
    finally:
        resource.setrlimit(resource.RLIMIT_FSIZE, limit)
    assert path.read_bytes() == before
    Notebook(path).close()


def a_page_of_readings(path, data):
    """A leaf of the readings' tree, by the file format: the first child of its root."""
    with sqlite3.connect(path) as raw:
        (page,) = raw.execute("SELECT rootpage FROM sqlite_master WHERE name='reading'").fetchone()
    raw.close()
    while data[4096 * (page - 1)] == 5:
        start = 4096 * (page - 1)
        cell = start + int.from_bytes(data[start + 12 : start + 14], "big")
        page = int.from_bytes(data[cell : cell + 4], "big")
    return page


def test_a_damaged_notebook_gives_what_can_be_read(tmp_path, demo_path):
    whole = everything_of(demo_path)
    data = bytearray(demo_path.read_bytes())
    damaged = tmp_path / "damaged.vadrin"
    hurt = a_page_of_readings(demo_path, data)
    data[4096 * (hurt - 1) : 4096 * hurt] = os.urandom(4096)
    damaged.write_bytes(data)
    with pytest.raises(NotebookError) as caught:
        Notebook(damaged)
    assert caught.value.damaged
    counts = recover(damaged, tmp_path / "recovered.vadrin")
    assert damaged.read_bytes() == data
    assert counts["test"] == len(whole[Test])
    wanted = len(whole[Frame]) + len(whole[Reading])
    assert wanted * 0.8 < counts["frame"] + counts["reading"] < wanted
    recovered = Notebook(tmp_path / "recovered.vadrin")
    for test in recovered.all(Test):
        assert load_test(recovered, test.id) is not None
    recovered.close()
    with pytest.raises(NotebookError, match="there already"):
        recover(damaged, tmp_path / "recovered.vadrin")
    assert main(["recover", str(damaged), str(tmp_path / "again.vadrin")]) == 0
    assert everything_of(tmp_path / "again.vadrin")[Test] == whole[Test]
    assert main(["recover", str(damaged), str(tmp_path / "again.vadrin")]) == 2
    assert main(["recover", str(tmp_path / "none.vadrin"), str(tmp_path / "x.vadrin")]) == 2


def test_the_file_manager_learns_of_notebooks(tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "share"))
    (tmp_path / "share" / "applications").mkdir(parents=True)
    others = tmp_path / "share" / "applications" / "another.desktop"
    others.write_text("[Desktop Entry]")
    assert main(["register"]) == 0
    entry = (tmp_path / "share/applications/vadrin.desktop").read_text()
    starts = re.findall(r'^Exec="([^"]+)" --in-window (?:%f|--demo)$', entry, re.MULTILINE)
    assert len(starts) == 2
    assert all(os.access(program, os.X_OK) and Path(program).is_file() for program in starts)
    for size in (16, 512):
        icon = tmp_path / f"share/icons/hicolor/{size}x{size}/apps/vadrin.png"
        assert QImage(str(icon)).width() == size
    kinds = ElementTree.parse(tmp_path / "share/mime/packages/vadrin.xml").getroot()
    assert kinds[0].get("type") == "application/x-vadrin"
    about = ElementTree.parse(tmp_path / "share/metainfo/vadrin.metainfo.xml").getroot()
    assert about.findtext("launchable") == "vadrin.desktop"
    assert about.find("releases/release").get("version") == vadrin.__version__
    written = {
        "man": tmp_path / "share/man/man1/vadrin.1",
        "bash": tmp_path / "share/bash-completion/completions/vadrin",
        "zsh": tmp_path / "share/zsh/site-functions/_vadrin",
        "fish": tmp_path / "share/fish/vendor_completions.d/vadrin.fish",
    }
    for path in written.values():
        told = path.read_text().replace("\\-", "-")
        assert all(word in told for word in (*COMMANDS, "meter-constant", "level")), path.name
    typed = f"source {written['bash']}; COMP_WORDS=(vadrin prac); COMP_CWORD=1; "
    shell = f"{typed} _shtab_vadrin; echo ${{COMPREPLY[@]}}"
    said = subprocess.run(["bash", "-c", shell], capture_output=True, text=True, check=False)
    assert said.stdout.split() == ["practice"], said.stderr
    assert main(["unregister"]) == 0
    left = {p.name for p in (tmp_path / "share").rglob("*") if "vadrin" in p.name}
    assert left <= {"x-vadrin.xml"}, "of the lists that the desktop's own tools make"
    assert others.exists()


def test_the_demo_leaves_nothing_behind_but_what_somebody_saved():
    path = demo_notebook()
    Notebook(path).close()
    remember(path)
    assert path not in recent_notebooks()
    (path.parent / "card.pdf").write_bytes(b"%PDF")
    leave_no_demo(path)
    assert path.exists(), "a card lies beside it"
    (path.parent / "card.pdf").unlink()
    leave_no_demo(path)
    assert not path.parent.exists()


def test_a_friends_notebook_comes_in_once(tmp_path, demo_path, notebook):
    new_test(notebook, "Kelda Pan 200", "Tarn", "1+9", times=(6.0,))
    theirs = everything_of(demo_path)
    report = merged(notebook, theirs)
    assert (report.new_tests, report.known_tests, report.differing_tests) == (6, 0, 0)
    assert len(notebook.all(Stock)) == len(theirs[Stock]), "a stock of the same name is one"
    assert len(notebook.all(Reading)) == len(theirs[Reading])
    whole = notebook.everything()
    again = merged(notebook, theirs)
    assert (again.new_tests, again.known_tests, again.new_kit) == (0, 6, 0)
    assert notebook.everything() == whole
    reading = theirs[Reading][0]
    theirs[Reading][0] = replace(reading, density=reading.density + 0.1)
    joined = merged(notebook, theirs)
    assert (joined.known_tests, joined.joined_tests, joined.differing_tests) == (5, 1, 0)
    assert [c.field for c in joined.conflicts] == ["density"]
    assert str(joined.conflicts[0]) in notebook.all(Note)[-1].words
    again = merged(notebook, theirs)
    assert (again.known_tests, again.joined_tests) == (6, 0)
    assert len(notebook.all(Test)) == 7
    assert len(notebook.all(Reading)) == len(theirs[Reading])
    while len(notebook.all(Test)) > 1:
        notebook.undo()
    assert len(notebook.all(Test)) == 1


TEXTS = st.text(st.characters(exclude_categories=("Cs",)), max_size=12)
NUMBERS = st.floats(allow_nan=False, allow_infinity=False)


def test_the_json_of_a_notebook_says_what_its_file_says(demo_path, tmp_path):
    """Held against the rows as SQLite has them, not against this program's own reader."""
    demo_path = Path(shutil.copy(demo_path, tmp_path / "demo.vadrin"))
    book = Notebook(demo_path)
    with book.change("a reading between two steps"):
        frame = book.all(Frame)[0]
        book.add(Reading(frame_id=frame.id, density=0.37, low=0.30, high=0.45, deviation=0.04))
    told = json.loads(notebook_json(book))["records"]
    book.close()
    raw = sqlite3.connect(demo_path)
    for table, rows in told.items():
        cursor = raw.execute(f"SELECT * FROM {table} ORDER BY id")
        names = [d[0] for d in cursor.description]
        kept = [dict(zip(names, row, strict=True)) for row in cursor]
        assert len(rows) == len(kept)
        for row, before in zip(sorted(rows, key=lambda r: r["id"]), kept, strict=True):
            for name, value in row.items():
                if isinstance(value, int | float) and not isinstance(value, bool):
                    assert value == before[name], (table, name)
    raw.close()


@given(rows=st.lists(st.tuples(TEXTS, TEXTS, NUMBERS, st.binary(max_size=50)), min_size=20))
@settings(max_examples=5, deadline=None)
def test_json_holds_every_value_exactly(tmp_path_factory, rows):
    folder = tmp_path_factory.mktemp("exact")
    first, second = Notebook(folder / "a.vadrin"), Notebook(folder / "b.vadrin")
    with first.change("fill"):
        for name, note, number, data in rows:
            stock = first.add(Stock(name=name, note=note, box_speed=number))
            first.add(Attachment(stock_id=stock.id, name=name, data=data))
            first.add(Camera(name=note, dial_low=number, frame_rate=None, bulb=False))
    path = folder / "a.json"
    path.write_text(notebook_json(first), encoding="utf-8")
    fill_from_json(second, path)
    assert second.everything() == first.everything()
    first.close()
    second.close()


def test_a_newer_or_foreign_export_is_refused(tmp_path, notebook):
    for held, words in (
        ({"schema": "vadrin-notebook/1", "format": 99, "records": {}}, "newer"),
        ({"schema": "other"}, "not a notebook"),
        ({"schema": "vadrin-notebook/1", "format": 2, "records": {"ghost": []}}, "unknown"),
        (
            {
                "schema": "vadrin-notebook/1",
                "format": 2,
                "records": {"reading": [{"id": 1, "frame_id": 7}]},
            },
            "contradict",
        ),
        (
            {
                "schema": "vadrin-notebook/1",
                "format": 2,
                "records": {"stock": [{"id": 1, "box_speed": "fast"}]},
            },
            "box_speed",
        ),
    ):
        path = tmp_path / "export.json"
        path.write_text(json.dumps(held))
        with pytest.raises(NotebookError, match=words):
            fill_from_json(notebook, path)
    assert notebook.all(Stock) == notebook.all(Reading) == []


def test_what_is_in_use_stays_and_optional_links_let_go(notebook):
    test = new_test(notebook, "Merrow Pan 125", "Sable")
    with notebook.change("kit"):
        camera = notebook.add(Camera(name="Quayside 35"))
        notebook.put(replace(test, camera_id=camera.id))
    with pytest.raises(RecordInUseError), notebook.change("remove"):
        notebook.remove(notebook.all(Stock)[0])
    assert len(notebook.all(Stock)) == 1
    with notebook.change("remove"):
        notebook.remove(notebook.get(Camera, camera.id))
    assert notebook.get(Test, test.id).camera_id is None
    notebook.undo()
    assert notebook.get(Test, test.id).camera_id == camera.id


def test_rolls_count_down_as_they_are_begun(notebook):
    test = new_test(notebook, "Merrow Pan 125", "Sable", times=(6.0, 9.0))
    with notebook.change("batch"):
        batch = notebook.add(Batch(stock_id=test.stock_id, name="M3", rolls_left=5))
        notebook.put(replace(test, batch_id=batch.id))
    first, second = notebook.all(Frame)[:2]
    mark_frame(notebook, first, FrameState.EXPOSED)
    mark_frame(notebook, second, FrameState.EXPOSED)
    assert notebook.get(Batch, batch.id).rolls_left == 4
    notebook.undo()
    notebook.undo()
    assert notebook.get(Batch, batch.id).rolls_left == 5


def test_a_clock_set_back_is_said(notebook):
    test = new_test(notebook, "Merrow Pan 125", "Sable")
    assert clock_doubt(notebook) == ""
    with notebook.change("later"):
        notebook.put(replace(test, created_at="2093-01-01T10:00:00+00:00"))
    assert "after this computer's clock" in clock_doubt(notebook)


def test_nothing_the_window_called_saved_is_lost_when_it_is_killed():
    path = Path(__file__).parents[2] / "tools" / "kill_trial.py"
    spec = spec_from_file_location("kill_trial", path)
    tool = module_from_spec(spec)
    spec.loader.exec_module(tool)
    told, lost, faults = tool.run(2)
    assert told > 10
    assert (lost, faults) == (0, [])


def test_a_commit_that_fails_leaves_nothing_behind(tmp_path, empty_path):
    """Another program reads the file at that moment, so that the commit is refused."""
    path = Path(shutil.copy(empty_path, tmp_path / "winter.vadrin"))
    book = Notebook(path)
    with book.change("name the film"):
        stock = book.add(Stock(name="Gannet"))
    reader = sqlite3.connect(path)
    reader.execute("BEGIN")
    reader.execute("SELECT count(*) FROM stock").fetchall()
    with pytest.raises(StorageError), book.change("spoil it"):
        book.put(replace(stock, name="lost"))
    reader.close()
    assert book.get(Stock, stock.id).name == "Gannet", "on screen as in the file"
    assert book.undo_label() == "name the film"
    with book.change("another"):
        book.add(Stock(name="Tern"))
    book.undo()
    book.close()
    again = Notebook(path)
    assert [s.name for s in again.all(Stock)] == ["Gannet"]
    again.close()


def test_what_was_judged_and_run_comes_in_with_its_test(tmp_path, notebook):
    theirs = Notebook(tmp_path / "theirs.vadrin")
    test = new_test(theirs, "Kelda Pan 200", "Sable", "1+1", times=(6.0,))
    (strip,) = theirs.all(Strip, test_id=test.id)
    frame = theirs.all(Frame, strip_id=strip.id)[3]
    with theirs.change("judged"):
        theirs.add(Judgement(frame_id=frame.id, asked="shadows", answer="thin"))
        theirs.add(Judgement(strip_id=strip.id, asked="clip", answer="go", detail='"same"'))
        process = theirs.add(Process(name="ours"))
        run = theirs.add(DarkroomRun(test_id=test.id))
        theirs.add(ControlStrip(process_id=process.id, run_id=run.id, low=0.4, high=1.2))
        rule = theirs.add(Rule(name="a third more"))
        theirs.add(RuleTrial(rule_id=rule.id, test_id=test.id, predicted_min=8.0))
        theirs.add(MakerTime(stock_id=test.stock_id, developer_id=test.developer_id, time_min=7.0))
    theirs.close()
    new_test(notebook, "Ostrel 400", "Tarn", "1+9", times=(6.0, 8.0))
    for _ in range(2):
        merged(notebook, everything_of(tmp_path / "theirs.vadrin"))
    came = next(t for t in notebook.all(Test) if t.uid == test.uid)
    loaded = load_test(notebook, came.id)
    assert [j.answer for j in loaded.strips[0].frames[3].judgements] == ["thin"]
    assert [j.answer for j in loaded.judged("clip")] == ["go"]
    assert [m.time_min for m in loaded.makers] == [7.0]
    (control,), (trial,) = notebook.all(ControlStrip), notebook.all(RuleTrial)
    (run,) = notebook.all(DarkroomRun)
    assert (control.run_id, trial.test_id, run.test_id) == (run.id, came.id, came.id)


def test_prints_and_runs_come_in_with_their_test_and_once(tmp_path):
    theirs, ours = Notebook(tmp_path / "theirs.vadrin"), Notebook(tmp_path / "ours.vadrin")
    test = new_test(theirs, "Kelda Pan 200", "Sable", "1+1", kind="speed")
    strip = theirs.all(Strip, test_id=test.id)[0]
    frame = theirs.all(Frame, strip_id=strip.id)[3]
    with theirs.change("an evening"):
        paper = theirs.add(Paper(name="Quay matt"))
        theirs.add(PaperGrade(paper_id=paper.id, grade="2", exposure_scale=1.05))
        lamp = theirs.add(Enlarger(name="Slipway column"))
        setup = theirs.add(
            PrintSetup(test_id=test.id, paper_id=paper.id, enlarger_id=lamp.id, black_s=8.0)
        )
        theirs.add(
            PrintStrip(
                setup_id=setup.id,
                strip_id=strip.id,
                frame_id=frame.id,
                base_s=8.0,
                step=1.0,
                densities=(0.06, 0.02),
                answer="yes",
            )
        )
        theirs.add(Workprint(setup_id=setup.id, frame_id=frame.id, seconds=12.0))
        run = theirs.add(DarkroomRun(test_id=test.id, steps="[]"))
        theirs.add(RunEvent(run_id=run.id, what="start"))
        theirs.add(Attachment(test_id=test.id, strip_id=strip.id, name="s.tif", path="/x/s.tif"))
    everything = theirs.everything()
    assert merged(ours, everything).new_tests == 1
    (setup,), (made,), (shown,) = (ours.all(k) for k in (PrintSetup, PrintStrip, Workprint))
    assert ours.get(Paper, setup.paper_id).name == "Quay matt"
    assert ours.get(Enlarger, setup.enlarger_id).name == "Slipway column"
    assert ours.get(Frame, made.frame_id).position == frame.position
    assert ours.get(Strip, made.strip_id).label == strip.label
    assert shown.setup_id == setup.id
    assert ours.all(Attachment)[0].strip_id == made.strip_id
    assert len(ours.all(RunEvent)) == len(ours.all(PaperGrade)) == 1
    again = merged(ours, everything)
    assert (again.new_tests, again.known_tests, again.new_kit) == (0, 1, 0)
    with ours.change("gone"):
        ours.remove(ours.all(Test)[0])
    assert ours.all(PrintSetup) == ours.all(PrintStrip) == ours.all(Workprint) == []
    for book in (theirs, ours):
        book.close()

"""A notebook in a shared folder: another who has it open, and a copy edited apart, are said."""

import json
import shutil

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QPushButton

from tests.notebooks import with_time
from tests.window.pages import settle, words_of
from vadrin.notebook.records import Note
from vadrin.notebook.store import Notebook


@pytest.fixture
def shared(demo_path, tmp_path):
    """A notebook, and a copy of it that a folder brought back from another machine."""
    mine, theirs = tmp_path / "winter.vadrin", tmp_path / "winter, from the shed.vadrin"
    shutil.copy(demo_path, mine)
    with_time(mine, 7.0)
    shutil.copy(mine, theirs)
    return mine, theirs


def opened(open_window, qtbot, path):
    window = open_window(path)
    window.notebook_opened()
    qtbot.waitUntil(lambda: not window.jobs.busy("copies beside"), timeout=20_000)
    return window


def test_a_copy_that_was_edited_apart_is_said_and_merged_with_what_both_wrote(
    open_window, qtbot, shared
):
    mine, theirs = shared
    with_time(mine, 6.25)
    with_time(theirs, 6.75)
    window = opened(open_window, qtbot, mine)
    assert "was edited apart" in words_of(window.banner)
    merge = next(b for b in window.banner.findChildren(QPushButton) if b.text().startswith("Merge"))
    assert merge.hasFocus(), "one key takes it in"
    QTest.keyClick(merge, Qt.Key.Key_Space)
    qtbot.waitUntil(lambda: not window.busy, timeout=30_000)
    settle(qtbot, window)
    told = words_of(window.banner)
    assert "1 field said differently" in told
    assert "6.25" in told
    assert "6.75" in told
    assert [n for n in window.bench.notebook.all(Note) if "Two copies" in n.words]
    # Once taken in, it is no longer news.
    window.banner.close_notice()
    window.notebook_opened()
    qtbot.waitUntil(lambda: not window.jobs.busy("copies beside"), timeout=20_000)
    assert not window.banner.isVisible()


def test_an_untouched_copy_and_strangers_are_no_news(open_window, qtbot, shared):
    mine, theirs = shared
    Notebook(theirs.with_name("another.vadrin")).close()
    theirs.with_name("damaged.vadrin").write_bytes(theirs.read_bytes()[:5000])
    window = opened(open_window, qtbot, mine)
    assert not window.banner.isVisible()


def test_somebody_who_has_it_open_on_another_machine_is_named(open_window, qtbot, shared):
    mine, theirs = shared
    theirs.unlink()
    mark = {"who": "the keeper", "machine": "shed", "since": "2026-11-30 18:20"}
    mine.with_name(f".{mine.name}.lock").write_text(json.dumps(mark), encoding="utf-8")
    window = opened(open_window, qtbot, mine)
    assert "The keeper on shed has it open since 2026-11-30 18:20" in words_of(window.banner)
    assert not window.bench.notebook.read_only

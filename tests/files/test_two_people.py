"""Two copies of a notebook that were both edited come together: the work of both, once."""

import shutil
import sqlite3
from contextlib import closing
from dataclasses import replace
from pathlib import Path
from random import Random

import pytest

from tests.notebooks import merged, with_time
from tools.two_people import history
from vadrin.notebook.merge import everything_of
from vadrin.notebook.records import Frame, Note, Reading, Strip, Test
from vadrin.notebook.store import Notebook


@pytest.mark.parametrize("seed", range(3))
def test_nothing_is_lost_or_doubled_and_either_order_gives_the_same(tmp_path, seed):
    assert history(tmp_path, Random(f"suite {seed}")) == []


@pytest.fixture
def copies(demo_path, tmp_path):
    """Two copies of a notebook that was written to before."""
    first, second = tmp_path / "first.vadrin", tmp_path / "second.vadrin"
    shutil.copy(demo_path, first)
    with_time(first, 7.0)
    shutil.copy(first, second)
    return first, second


def together(one, other):
    theirs = everything_of(other)
    book = Notebook(one)
    report = merged(book, theirs)
    return book, report


@pytest.mark.parametrize("way", [1, -1])
def test_what_one_of_them_changed_is_the_newer_whoever_takes_it_in(copies, way):
    with_time(copies[1], 6.25)
    book, report = together(*copies[::way])
    assert book.all(Strip)[0].time_min == 6.25
    assert report.conflicts == ()
    book.close()


def test_what_both_changed_is_said_with_both_values_and_said_once(copies):
    first, second = copies
    with_time(first, 6.25)
    with_time(second, 6.75)
    book, report = together(first, second)
    (conflict,) = report.conflicts
    assert {conflict.kept, conflict.other} == {"6.25", "6.75"}
    assert f"{book.all(Strip)[0].time_min:g}" == conflict.kept
    assert [n.words for n in book.all(Note) if str(conflict) in n.words] != []
    assert merged(book, everything_of(second)).conflicts == (), "it was settled"
    # Taken back, it is as it was, and the other copy is still to be asked.
    while book.undo_label():
        book.undo()
    assert book.all(Strip)[0].time_min == 6.25
    assert merged(book, everything_of(second)).conflicts != ()
    book.close()


@pytest.mark.parametrize("way", [1, -1])
def test_what_one_took_away_stays_away_unless_the_other_wrote_on_it(copies, way):
    first, second = copies
    book = Notebook(first)
    gone, kept = book.all(Reading)[:2]
    with book.change("misread"):
        book.remove_all([gone, kept])
    book.close()
    other = Notebook(second)
    with other.change("left out"):
        other.put(replace(kept, left_out=True))
    count = other.count(Reading)
    other.close()
    book, _ = together(*copies[::way])
    assert book.count(Reading) == count - 1
    assert [r.density for r in book.all(Reading) if r.left_out and r.read_at == kept.read_at]
    book.close()


@pytest.mark.parametrize("way", [1, -1])
@pytest.mark.parametrize("worked_on", [False, True])
def test_a_test_that_one_took_away_stays_where_the_other_worked_on_it(copies, way, worked_on):
    first, second = copies
    book = Notebook(first)
    gone = book.all(Test)[0]
    with book.change("no longer wanted"):
        book.remove(gone)
    book.close()
    if worked_on:
        other = Notebook(second)
        strip = other.all(Strip, test_id=gone.id)[0]
        frame = other.all(Frame, strip_id=strip.id)[0]
        with other.change("read"):
            other.add(Reading(frame_id=frame.id, position=9, density=1.234))
        other.close()
    book, _ = together(*copies[::way])
    assert any(t.uid == gone.uid for t in book.all(Test)) is worked_on
    assert any(r.density == 1.234 for r in book.all(Reading)) is worked_on
    book.close()


def test_what_no_history_tells_of_is_said_and_never_given_up_in_silence(demo_path, tmp_path):
    """Copies of a file that nobody wrote to since it is kept who did: an older program may have."""
    first, second = (Path(shutil.copy(demo_path, tmp_path / f"{n}.vadrin")) for n in "ab")
    for path in (first, second):
        with closing(sqlite3.connect(path)) as raw, raw:
            raw.execute("DELETE FROM rewrite")
            raw.execute("DELETE FROM writing_session")
    with closing(sqlite3.connect(second)) as raw, raw:
        raw.execute("UPDATE strip SET time_min = 6.75 WHERE id = (SELECT min(id) FROM strip)")
    with_time(first, 6.25)
    book, report = together(first, second)
    assert [{c.kept, c.other} for c in report.conflicts] == [{"6.25", "6.75"}]
    book.close()

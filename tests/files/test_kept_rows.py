"""Rows kept in memory never differ from those in the file, whatever is done and taken back."""

import tempfile
from dataclasses import replace
from functools import lru_cache
from pathlib import Path

import pytest
from hypothesis import settings
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, invariant, rule

from vadrin.notebook.merge import everything_of
from vadrin.notebook.records import Batch, Camera, ShutterTime, Stock
from vadrin.notebook.store import Notebook

NAMES = st.sampled_from(["Merrow", "Kelda", "Skerry", "Ostrel"])


@lru_cache(maxsize=1)
def _empty():
    """A notebook of the newest format without a record, made once."""
    with tempfile.TemporaryDirectory() as folder:
        Notebook(Path(folder) / "empty.vadrin").close()
        return (Path(folder) / "empty.vadrin").read_bytes()


class _LostPowerError(Exception):
    """Breaks a change off half-way."""


class Kept(RuleBasedStateMachine):
    """A notebook that is worked with, asked at every step, and read from the side."""

    def __init__(self):
        super().__init__()
        self.folder = tempfile.TemporaryDirectory()
        self.path = Path(self.folder.name) / "kept.vadrin"
        self.path.write_bytes(_empty())
        self.book = Notebook(self.path)

    def teardown(self):
        self.book.close()
        self.folder.cleanup()

    @rule(name=NAMES)
    def write(self, name):
        with self.book.change("write"):
            stock = self.book.add(Stock(name=name))
            self.book.add(Batch(stock_id=stock.id, name=name))
            camera = self.book.add(Camera(name=name))
            self.book.add(ShutterTime(camera_id=camera.id))
            self.book.add(Camera(name=f"{name} twin"))

    @rule(name=NAMES, at=st.integers(0, 20))
    def rename(self, name, at):
        found = self.book.all(Stock)
        if found:
            with self.book.change("rename"):
                self.book.put(replace(found[at % len(found)], name=name, reciprocity="t^1.3"))

    @rule(at=st.integers(0, 20))
    def remove(self, at):
        found = self.book.all(Camera)
        if found:
            with self.book.change("remove"):
                self.book.remove(found[at % len(found)])

    @rule(name=NAMES)
    def break_off(self, name):
        def half():
            with self.book.change("broken off"):
                self.book.add(Stock(name=name))
                assert any(s.name == name for s in self.book.all(Stock))
                raise _LostPowerError

        with pytest.raises(_LostPowerError):
            half()

    @rule()
    def take_back(self):
        self.book.undo()

    @rule()
    def do_again(self):
        self.book.redo()

    @invariant()
    def what_is_kept_is_what_is_there(self):
        there = everything_of(self.path)
        for kind in (Stock, Batch, Camera, ShutterTime):
            rows = sorted(there[kind], key=lambda r: r.id)
            assert sorted(self.book.all(kind), key=lambda r: r.id) == rows
            assert all(self.book.get(kind, row.id) == row for row in rows)
        for name in ("Merrow", "Kelda"):
            wanted = [s for s in there[Stock] if s.name == name]
            assert self.book.all(Stock, name=name) == wanted


TestKept = Kept.TestCase
TestKept.settings = settings(max_examples=7, stateful_step_count=14, deadline=None)


def test_a_list_that_was_handed_out_can_be_changed_without_harm(tmp_path):
    book = Notebook(tmp_path / "list.vadrin")
    with book.change("write"):
        book.add(Stock(name="Merrow"))
    book.all(Stock).clear()
    assert [s.name for s in book.all(Stock)] == ["Merrow"]
    book.close()


def test_a_reader_sees_what_the_writer_writes(tmp_path):
    """Nothing is kept where another program may write."""
    writer = Notebook(tmp_path / "both.vadrin")
    reader = Notebook(tmp_path / "both.vadrin")
    assert reader.all(Stock) == []
    with writer.change("write"):
        writer.add(Stock(name="Merrow"))
    assert [s.name for s in reader.all(Stock)] == ["Merrow"]
    reader.close()
    writer.close()

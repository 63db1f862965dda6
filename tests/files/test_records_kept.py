"""Every record comes back from the file as it went in; old words become structure."""

import sqlite3
from dataclasses import fields
from enum import StrEnum

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from sqlalchemy import create_engine, select

from tests.notebooks import new_test
from vadrin.app.document.workbench import Workbench
from vadrin.app.entry.film_supply import film_supply_text, film_supply_typed
from vadrin.core.frames import FrameRole, FrameState
from vadrin.core.planning.plan_request import FilmSupply, FilmUnit
from vadrin.core.planning.test_options import options_to_json
from vadrin.errors import StorageError
from vadrin.notebook.columns import ENUMERATIONS, OPTIONS, columns_of
from vadrin.notebook.record_writer import RecordWriter
from vadrin.notebook.records import PARENTS, RECORDS, Frame, Reading, Stock, Test
from vadrin.notebook.store import Notebook
from vadrin.notebook.tables import TABLES
from vadrin.notebook.upgrades import (
    film_of_text,
    names_of_text,
    numbers_of_text,
    upgraded_row,
    upgraded_table,
)

ONE_FILE = [HealthCheck.function_scoped_fixture]
WORDS = st.text(st.characters(exclude_categories=("Cs",), exclude_characters="\x00"), max_size=9)
VALUES = {
    "int": st.integers(-(2**40), 2**40),
    "float": st.floats(allow_nan=False, allow_infinity=False),
    "str": WORDS,
    "bool": st.booleans(),
    "bytes": st.binary(max_size=20),
    "tuple[float, ...]": st.lists(st.floats(-9, 9), max_size=4).map(tuple),
    "tuple[str, ...]": st.lists(WORDS, max_size=4).map(tuple),
    **{name: st.sampled_from(kind) for name, kind in ENUMERATIONS.items()},
}


def any_record(kind):
    """A record of a kind with any values, that points at nothing."""
    parents = {name for name, _ in PARENTS.get(kind, ())}
    made = {}
    for column in columns_of(kind):
        values = VALUES[column.kind.removesuffix(" | None")]
        if column.name == "id" or column.name in parents:
            values = st.just(0 if column.name == "id" else None)
        elif column.optional:
            values = st.one_of(st.none(), values)
        made[column.name] = values
    return st.builds(kind, **made)


FREE = [
    kind for kind in RECORDS if all(c.optional for c in columns_of(kind) if c.parent is not None)
]


@given(data=st.data())
@settings(max_examples=60, deadline=None, suppress_health_check=ONE_FILE)
def test_any_record_is_read_as_it_was_written(notebook, data):
    kind = data.draw(st.sampled_from(FREE))
    record = data.draw(any_record(kind))
    with notebook.change("write"):
        written = notebook.add(record)
    again = notebook.get(kind, written.id)
    assert again == written
    for field in fields(kind):
        before, after = getattr(record, field.name), getattr(again, field.name)
        if field.name != "id":
            assert before == after
            assert isinstance(after, StrEnum) == isinstance(before, StrEnum)
    notebook.undo()
    assert notebook.get(kind, written.id) is None


def test_both_ways_of_reading_agree_on_every_table_of_the_demo(demo_path):
    book = Notebook(demo_path)
    engine = create_engine(f"sqlite:///{demo_path}")
    with engine.connect() as connection:
        for kind in RECORDS:
            mine = sorted(book.all(kind), key=lambda r: r.id)
            theirs = list(connection.execute(select(TABLES[kind]).order_by(TABLES[kind].c.id)))
            assert len(mine) == len(theirs) == book.count(kind)
            for record, row in zip(mine, theirs, strict=True):
                for column, value in zip(columns_of(kind), row, strict=True):
                    held = getattr(record, column.name)
                    if column.kind == OPTIONS:
                        held = options_to_json(held)
                    if not column.kind.startswith("tuple"):
                        assert held == value
    engine.dispose()
    book.close()


def test_a_field_there_is_not_cannot_be_asked_for(notebook):
    new_test(notebook, "Merrow Pan 125", "Sable")
    with pytest.raises(ValueError, match="no such field"):
        notebook.all(Stock, colour="red")
    with pytest.raises(ValueError, match="no such field"):
        notebook.all(Stock, **{"name = '' OR 1": 1})
    assert notebook.all(Stock, name="' OR 1=1 --") == []


def test_a_word_a_newer_program_wrote_stays_a_word(notebook):
    test = new_test(notebook, "Merrow Pan 125", "Sable")
    frame = notebook.all(Frame)[0]
    notebook.close()
    with sqlite3.connect(notebook.path) as raw:
        raw.execute("UPDATE frame SET state = 'sunburnt' WHERE id = ?", (frame.id,))
    raw.close()
    again = Notebook(notebook.path)
    assert again.get(Frame, frame.id).state == "sunburnt"
    assert again.get(Frame, frame.id + 1).state is FrameState.PLANNED
    assert again.get(Frame, frame.id).role is FrameRole.BLANK
    assert again.get(Test, test.id).film is None
    again.close()


def test_a_file_that_refuses_is_said_and_nothing_half_written_stays(notebook):
    new_test(notebook, "Merrow Pan 125", "Sable")
    bench, said = Workbench(notebook), []
    bench.said.connect(said.append)
    bench.open_test(1)
    frame = notebook.all(Frame)[0]

    def twice(book):
        with book.change("the same id twice"):
            book.add(Reading(id=7, frame_id=frame.id, density=0.2))
            book.add(Reading(id=7, frame_id=frame.id, density=0.3))

    bench.edit(twice)
    assert said[-1].startswith("Not saved: UNIQUE constraint failed")
    assert notebook.all(Reading) == []
    assert bench.loaded.read() == 0
    with pytest.raises(StorageError), notebook.change("a reading of no frame"):
        notebook.add(Reading(frame_id=10**6, density=0.2))
    assert notebook.undo_label() == "new test"
    with pytest.raises(StorageError, match="no such table"):
        notebook.rows("SELECT * FROM prints")


def test_an_undo_that_the_file_refuses_takes_nothing_back_by_halves(notebook, monkeypatch):
    new_test(notebook, "Merrow Pan 125", "Sable")
    frames = notebook.all(Frame)[:3]
    with notebook.change("read three"):
        notebook.add_all([Reading(frame_id=f.id, density=0.2) for f in frames])
    read = notebook.all(Reading)
    writer, left = RecordWriter, [2]

    def refusing(self, kind, ids):
        left[0] -= 1
        if left[0] < 0:
            raise StorageError("disk I/O error")
        return whole(self, kind, ids)

    whole = writer.delete
    monkeypatch.setattr(writer, "delete", refusing)
    bench, said = Workbench(notebook), []
    bench.said.connect(said.append)
    bench.undo()
    assert said[-1].startswith("Not saved: disk I/O error")
    assert notebook.all(Reading) == read
    assert notebook.undo_label() == "read three", "it can be tried again"
    monkeypatch.setattr(writer, "delete", whole)
    with notebook.change("a stock of my own"):
        notebook.add(Stock(name="Ostrel 400"))
    assert notebook.all(Reading) == read, "the next edit writes only itself"
    bench.undo()
    bench.undo()
    assert notebook.all(Reading) == []
    bench.redo()
    assert notebook.all(Reading) == read


SUPPLIES = st.builds(
    FilmSupply, st.integers(1, 400).map(float), st.sampled_from(FilmUnit), st.integers(0, 35)
)


@given(supply=SUPPLIES)
def test_film_kept_as_words_becomes_what_those_words_meant(supply):
    words = film_supply_text(supply)
    amount, unit, taken = film_of_text(words)
    assert FilmSupply(amount, FilmUnit(unit), taken) == film_supply_typed(words) == supply


@given(values=st.lists(st.sampled_from([-2.0, 0.0, 0.5, 1.0, 3.25]), max_size=5))
def test_numbers_kept_as_words_become_numbers(values):
    for between in (", ", "; ", " "):
        assert numbers_of_text(between.join(f"{v:g}" for v in values)) == values
    assert numbers_of_text("−1, soon, 2") == [-1.0, 2.0]


def test_a_row_of_an_older_format_is_the_same_in_the_file_and_in_its_json():
    old = {
        "id": 3,
        "film_form": "24 frames after 9",
        "prefer": "aperture",
        "check_last": True,
        "second": "0, 1, 2",
        "against": "Tarn 1+9 and Brine",
        "tablet": "",
        "arrangement": "",
    }
    old["kind"] = "push"
    new = upgraded_row("test", old, 3)
    assert (new["film_amount"], new["film_unit"], new["film_taken"]) == (24.0, "frames", 9)
    assert (new["turned_first"], new["repeat_first"]) == ("aperture", True)
    assert new["options"] == {"pushes": {"stops": [0.0, 1.0, 2.0]}}
    assert new["compared_names"] == names_of_text("Tarn 1+9 and Brine") == ["Tarn 1+9", "Brine"]
    assert (new["tablet"], new["arrangement"]) == ([], "sequential")
    assert upgraded_row("test", new, 15) is new
    assert upgraded_row("test", new | {"subject": "step tablet by contact"}, 14) == new | {
        "subject": "step wedge by contact"
    }
    assert upgraded_row("print_strip", {"purpose": "full black", "way": ""}, 14) == {
        "purpose": "maximum black",
        "way": "",
    }
    assert film_of_text("as much as it takes") == (None, "frames", 0)
    assert upgraded_table("matching", 3) == "column_matching"
    assert upgraded_row("finding", {"grounds": "{}", "question": ""}, 2) == {
        "report": "{}",
        "basis": "",
    }
    with pytest.raises(ValueError, match="no test of format 3"):
        upgraded_row("test", {"film_form": 36}, 3)

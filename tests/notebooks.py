"""Short ways for tests to fill notebooks and to read tables from text."""

from dataclasses import replace

from vadrin.app.document.test_loading import load_test
from vadrin.app.expose.exposing import mark_frame
from vadrin.app.library.named_records import developer_named, stock_named
from vadrin.app.plan.drafting import lay_out
from vadrin.app.process.development import develop_as_planned
from vadrin.app.stamps import fresh_uid, now
from vadrin.core.frames import FrameState
from vadrin.formats.readings.column_matching import exact_columns, table_of
from vadrin.formats.readings.csv_table import raw_of_text
from vadrin.notebook.json_file import records_of_json, write_all
from vadrin.notebook.merge import merge
from vadrin.notebook.records import Strip, Test
from vadrin.notebook.store import Notebook


def new_test(
    notebook, film, developer, dilution="", index=None, times=(6.0, 8.0, 11.0, 15.0), **asked
):
    """A planned test of development times, as one edit."""
    with notebook.change("new test"):
        stock = stock_named(notebook, film, index or 100.0)
        test = Test(
            uid=fresh_uid(),
            stock_id=stock.id,
            created_at=now(),
            developer_id=developer_named(notebook, developer, dilution).id,
            exposure_index=index or stock.box_speed,
            **asked,
        )
        test = notebook.add(test)
        lay_out(notebook, test, times)
    return test


def developed_test(notebook, film, **asked):
    """A test that was exposed and developed as planned, and not read."""
    test = new_test(notebook, film, "Sable", "1+1", **asked)
    loaded = load_test(notebook, test.id)
    with notebook.change("shot"):
        for _, frame in loaded.frames():
            mark_frame(notebook, frame.frame, FrameState.EXPOSED)
        develop_as_planned(notebook, loaded)
    return test


def fill_from_json(notebook, path):
    """Write a JSON export into an empty notebook, ids and all."""
    write_all(notebook, records_of_json(path), "fill")


def merged(notebook, theirs):
    """Take another notebook's records in without a stop; gives the report."""
    steps = merge(notebook, theirs, "take in", "theirs.vadrin")
    while True:
        try:
            next(steps)
        except StopIteration as end:
            return end.value


def parsed(text, name="t.csv"):
    """A table of readings from delimited text."""
    raw = raw_of_text(text, name)
    return table_of(raw, exact_columns(raw))


def with_time(path, minutes):
    """The first strip's actual time, written over in a file."""
    book = Notebook(path)
    with book.change("time"):
        book.put(replace(book.all(Strip)[0], time_min=minutes))
    book.close()

"""Answers, decisions, patches and traces go to another notebook and say there what they said."""

import numpy as np
import pytest

from tests.app.test_kind_answers import PLAIN, Bench
from tests.notebooks import fill_from_json, merged
from tests.states import state_of, worked_out
from vadrin.app.decisions.decision import decide
from vadrin.app.descriptions import own_answer
from vadrin.app.document.test_loading import load_tests
from vadrin.app.findings.decided_words import decided_text
from vadrin.app.library.notebook_exchange import write_json
from vadrin.app.read.data_sheet_tracing import keep_trace
from vadrin.app.read.patch_entry import keep_patch, patch_typed, patches_of
from vadrin.core.channels import Channel
from vadrin.core.planning.test_options import Pushes
from vadrin.notebook.records import Attachment, Finding, Judgement, Test
from vadrin.notebook.store import Notebook


@pytest.fixture
def years(notebook, tmp_path):
    """A colour test with patches, a sheet that was traced, two baths; all decided."""
    colour = Bench(notebook, "colour", index=32.0, options=Pushes((0.0, 1.0)), times=(8.0,))
    for channel in (Channel.RED, Channel.GREEN, Channel.BLUE):
        colour.read(lambda _s, f: PLAIN.density(colour.at(f), 8.0), channel)
    for label, line in (("A", "red 52 60 40"), ("B", "red 50 66 30"), ("B", "sky looks green")):
        strip = next(s for s in colour.loaded.strips if s.strip.label == label)
        keep_patch(notebook, strip, patch_typed(line))
    loaded = Bench(notebook, "data sheet", index=32.0, times=(8.0,))
    x = np.linspace(-3.0, 0.4, 18)
    points = np.column_stack([x, [PLAIN.density(v, 8.0) for v in x]])
    picture = tmp_path / "sheet.png"
    picture.write_bytes(b"a picture")
    keep_trace(
        notebook, loaded.loaded.strips[0], points, picture, "digest", np.full((40, 60, 3), 200.0)
    )
    baths = Bench(notebook, "two developers", index=32.0, compared_names=("Tidewrack 1+9",))
    baths.read(lambda _s, f: PLAIN.density(baths.at(f), 8.0))
    for bench in (colour, loaded, baths):
        decide(notebook, state_of(bench.loaded, bench.analysis))
    return notebook


def answers_of(book):
    """What every test says, and what was decided, by its kind."""
    said = {}
    for loaded in load_tests(book, book.all(Test)):
        analysis = worked_out(loaded)
        answer = own_answer(state_of(loaded, analysis))
        patches = [{n: p.shown for n, p in patches_of(s).items()} for s in loaded.strips]
        said[loaded.test.kind] = (
            answer.says,
            answer.table,
            answer.more,
            patches,
            [decided_text(f) for f in loaded.findings],
        )
    return said


def test_they_go_through_json_and_back(years, tmp_path):
    before = answers_of(years)
    write_json(years, tmp_path / "all.json")
    again = Notebook(tmp_path / "again.vadrin")
    fill_from_json(again, tmp_path / "all.json")
    assert answers_of(again) == before
    assert len(again.all(Judgement)) == 3
    (scan,) = again.all(Attachment)
    assert (scan.name, scan.size) == ("sheet.png", 9)
    again.close()


def test_they_are_merged_once(years, tmp_path):
    before = answers_of(years)
    friend = Notebook(tmp_path / "friend.vadrin")
    for _ in range(2):
        merged(friend, years.everything())
        assert answers_of(friend) == before
        assert (len(friend.all(Test)), len(friend.all(Finding))) == (3, 3)
    friend.close()


def test_undo_takes_a_decision_a_trace_and_a_patch_back_one_by_one(years):
    for left in (2, 1, 0):
        years.undo()
        assert len(years.all(Finding)) == left
    assert "pair" not in years.undo_label()
    while years.all(Attachment):
        years.undo()
    loaded = next(s for s in load_tests(years, years.all(Test)) if s.test.kind == "data sheet")
    assert loaded.read() == 0, "the points went with the trace"
    while years.all(Judgement):
        years.undo()
    for _ in range(200):
        if not years.redo():
            break
    assert len(years.all(Finding)) == 3
    assert len(years.all(Judgement)) == 3

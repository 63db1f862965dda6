"""What one type of test alone asks for is kept as that and nothing else, and refused where odd."""

import json
import sqlite3

import pytest

from tests.notebooks import new_test
from vadrin.app.descriptions import description_of
from vadrin.app.document.test_loading import load_test
from vadrin.app.plan.plan_edit import apply_plan, plan_edit_of
from vadrin.app.plan.variants import start_variant
from vadrin.core.planning.test_options import LightsInTurn, Pushes, SheetAxis, SheetSource
from vadrin.errors import EntryError, NotebookError
from vadrin.notebook.json_file import notebook_json, records_of_json
from vadrin.notebook.records import Test
from vadrin.notebook.recovery import recover
from vadrin.notebook.store import Notebook


def typed(notebook, test, name, words):
    """Type a word of a type's own sentence."""
    loaded = load_test(notebook, test.id)
    word = description_of(test.kind).own_words[name]
    apply_plan(notebook, word.edit(plan_edit_of(notebook, loaded), words), "type it")
    return notebook.get(Test, test.id)


def test_a_sheet_planned_like_another_keeps_how_its_speed_was_found(notebook):
    first = new_test(notebook, "Merrow Pan 125", "Sable", "1+1", kind="data sheet", times=(8.0,))
    first = typed(notebook, first, "how", "by the standard")
    first = typed(notebook, first, "axis", "relative")
    like = start_variant(notebook, first.id, "target", "a painted board")
    assert like.options == SheetSource(SheetAxis.RELATIVE, "by the standard")
    assert (like.subject, like.note[:8]) == ("a painted board", "Like the")


def test_a_light_there_is_none_of_is_refused(notebook):
    test = new_test(notebook, "Ostrel 400", "Sable", "1+1", kind="cine", times=(8.0,))
    with pytest.raises(EntryError, match="1 sun, 2 open shade and 3 lamp"):
        typed(notebook, test, "lights", "1, 4")
    assert typed(notebook, test, "lights", "3, 1").options == LightsInTurn((3, 1))
    notes = [s.strip.note for s in load_test(notebook, test.id).strips]
    assert notes == ["lamp", "sun"]


ODD = (
    '{"pushes": {"stops": "x"}}',
    '{"pushes": {"stops": []}}',
    '{"pushes": {"stops": [NaN]}}',
    '{"tides": {"stops": [1.0]}}',
    '{"pushes": {"stops": [1.0], "by": 1}}',
    "[1]",
    "{",
    '{"control strips": {"count": true}}',
)


@pytest.mark.parametrize("odd", ODD)
def test_odd_options_are_refused_and_what_can_be_read_is_saved(notebook, tmp_path, odd):
    test = new_test(notebook, "Ostrel 400", "Sable", "1+1", kind="push", times=(8.0,))
    assert typed(notebook, test, "pushes", "0, 2").options == Pushes((0.0, 2.0))
    path = tmp_path / "odd.vadrin"
    notebook.save_copy(path)
    with sqlite3.connect(path) as raw:
        raw.execute("UPDATE test SET options = ?", (odd,))
    raw.close()
    before = path.read_bytes()
    with pytest.raises(NotebookError):
        Notebook(path)
    assert path.read_bytes() == before
    saved = tmp_path / "saved.vadrin"
    assert recover(path, saved)["test"] == 1
    held = json.loads(notebook_json(notebook))
    held["records"]["test"][0]["options"] = odd
    (tmp_path / "odd.json").write_text(json.dumps(held), encoding="utf-8")
    with pytest.raises(NotebookError):
        records_of_json(tmp_path / "odd.json")

"""A maker's table: typed in any of its ways, used for pushes, and scored by what was measured."""

import json
import shutil
from dataclasses import replace

import pytest

from tests.notebooks import new_test
from vadrin.app.document.test_loading import load_test
from vadrin.app.entry.makers_lines import makers_lines_typed, makers_table_typed
from vadrin.app.loaded.makers_told import makers_told
from vadrin.app.process.makers_times import makers_rows, makers_score, type_makers_line
from vadrin.app.results.rule_scores import one_strip_fares, one_strip_score, share_score
from vadrin.core.planning.test_options import Pushes
from vadrin.core.process.makers_table import MakersLine, makers_minutes, makers_times
from vadrin.errors import EntryError
from vadrin.notebook.records import Finding, Test
from vadrin.notebook.store import Notebook

PUSHES = {"kind": "push", "options": Pushes((0.0, 1.0, 2.0))}


@pytest.mark.parametrize(
    ("words", "stops", "minutes"),
    [
        ("normal 8", (0.0,), (8.0,)),
        ("push 1 10:30", (1.0,), (10.5,)),
        ("pull 1 6,5 min", (-1.0,), (6.5,)),
        ("EI 400 14", (1.0,), (14.0,)),
        ("+60 s on 3:30 for 1 stop", (0.0, 1.0), (3.5, 4.5)),
        ("+1:30 min on 8 for 2 stops", (0.0, 2.0), (8.0, 9.5)),
    ],
)
def test_a_line_is_typed_as_the_sheet_has_it(words, stops, minutes):
    lines = makers_lines_typed(words)
    assert tuple(line.push(200.0) for line in lines) == stops
    assert tuple(line.minutes for line in lines) == pytest.approx(minutes)


@pytest.mark.parametrize(
    "words", ["", "push", "EI 400", "push 1 0", "push 12 8", "8 h", "push 1 8 at 400 C"]
)
def test_what_is_no_line_is_refused_in_words(words):
    with pytest.raises(EntryError, match=r"type|lies|goes|works|not a number"):
        makers_lines_typed(words)


def test_a_pasted_table_names_the_row_that_is_wrong():
    lines = makers_table_typed("EI;time\n200;8\n400;10,5\n")
    assert [(line.exposure_index, line.minutes) for line in lines] == [(200, 8), (400, 10.5)]
    with pytest.raises(EntryError, match="row 3"):
        makers_table_typed("stops,time_min\n0,8\n1,soon\n")


def test_the_line_nearest_the_reference_speaks_and_nothing_beyond_the_table():
    lines = (
        MakersLine(8.0, 0.0),
        MakersLine(5.0, 0.0, None, 24.0),
        MakersLine(12.0, 2.0),
        MakersLine(6.0, -1.0, None, 22.0),
    )
    told = makers_times(lines, 100.0)
    assert told[1:] == ((0.0, 8.0), (2.0, 12.0))
    assert told[0][1] == pytest.approx(6.0 * 2.5**0.2), "restated from 22 °C"
    assert makers_minutes(told, 1.0) == pytest.approx((8.0 * 12.0) ** 0.5), "between two lines"
    assert makers_minutes(told, 3.0) is None


def test_a_push_is_planned_by_the_makers_table(notebook):
    plain = new_test(notebook, "Kelda Pan 200", "Sable", "1+1", times=(6.0,), **PUSHES)
    loaded = load_test(notebook, plain.id)
    assert [s.strip.planned_min for s in loaded.strips] == [6.0, 7.75, 10.25], "30 % a stop"
    type_makers_line(notebook, loaded, "normal 8\npush 1 10\npush 2 14\n")
    told = new_test(notebook, "Kelda Pan 200", "Sable", "1+1", times=(6.0,), **PUSHES)
    assert makers_told(notebook, told) == ((0.0, 8.0), (1.0, 10.0), (2.0, 14.0))
    times = [s.strip.planned_min for s in load_test(notebook, told.id).strips]
    assert times == [6.0, 7.5, 10.5], "as much longer than the normal as the maker says"
    notebook.undo()
    notebook.undo()
    assert load_test(notebook, plain.id).makers == ()


def test_the_table_is_scored_against_what_was_found(tmp_path, demo_path):
    book = Notebook(shutil.copy(demo_path, tmp_path / "demo.vadrin"))
    test = book.get(Test, book.all(Finding)[0].test_id)
    loaded = load_test(book, test.id)
    normal = loaded.findings[-1].time_min
    type_makers_line(book, loaded, f"normal {normal:.2f}\npush 1 {normal * 3:.2f}\n")
    loaded = load_test(book, test.id)
    rows = {r.what: r for r in makers_rows(book, loaded)}
    assert rows["normal"].ratio == "× 1.00"
    assert float(rows["push of 1 stop"].ratio[2:]) > 1.5
    score = makers_score(book, loaded)
    assert score.verdict.value == "fails"
    assert 1 <= score.close < score.count
    book.close()


def test_rules_are_scored_by_the_notebooks_own_findings(tmp_path, demo_path, notebook):
    assert "not tried on any film" in one_strip_fares(notebook)
    book = Notebook(shutil.copy(demo_path, tmp_path / "demo.vadrin"))
    (finding,) = (f for f in book.all(Finding) if '"push": [{' in f.report)
    report = json.loads(finding.report)
    strips = [s for s in report["strips"].values() if s["average_gradient"]["value"]]
    wanted = report["finding"]["target"]["value"]
    said = [s["time_min"] * (wanted / s["average_gradient"]["value"]) ** 1.35 for s in strips]
    measured = report["finding"]["time_min"]["value"]
    score = one_strip_score(book)
    assert score.count == len(said)
    assert score.rough == sum(abs(m / measured - 1) <= 0.25 for m in said)
    rows = [r for r in report["push"] if r["stops"] and r["hold_highlight"]["time_min"]["value"]]
    assert share_score(book).count == len(rows) > 0
    with book.change("hurt"):
        book.put(replace(finding, report='{"push": [3], "strips": {"A": 1}}'))
    assert (share_score(book).count, one_strip_score(book).count) == (0, 0)
    book.close()

"""The demo holds a finished test of every kind, and one that is not."""

import pytest

from vadrin.app.demo.demo_notebook import make_demo
from vadrin.app.kinds import all_pages
from vadrin.app.library.shelf_index import undecided_answer
from vadrin.app.sheet_loading import load_sheets
from vadrin.core.planning.test_kinds import kind_of
from vadrin.notebook.records import Test
from vadrin.notebook.store import Notebook


@pytest.fixture(scope="module")
def answers(tmp_path_factory):
    """What every test of the demo comes to, by its kind."""
    path = tmp_path_factory.mktemp("kinds") / "demo.vadrin"
    make_demo(path)
    book = Notebook(path)
    found = {}
    for sheet in load_sheets(book, book.all(Test)):
        found.setdefault(sheet.test.kind, []).append((sheet, undecided_answer(sheet)))
    yield found
    book.close()


@pytest.mark.parametrize("kind", [page.key for page in all_pages()])
def test_a_kind_has_an_answer_and_a_question_still_open(answers, kind):
    known = [(sheet, answer) for sheet, answer in answers[kind] if answer.index]
    open_yet = [sheet for sheet, answer in answers[kind] if not answer.index or sheet.read() == 0]
    assert known, "one is finished"
    assert open_yet, "one is not"
    sheet, _ = known[0]
    if kind_of(kind).scripted and kind != "wrong setting":
        assert sheet.read() > 0
        assert {s.strip.time_min for s in sheet.strips} or kind == "paper"


def test_the_answers_are_those_of_the_films_behind_them(answers):
    said = {kind: [a.index for _, a in rows if a.index] for kind, rows in answers.items()}
    assert said["cine"] == ["EI 50 in sun and EI 25 in open shade"]
    assert said["clip"] == ["Develop longer"]
    assert said["process control"] == ["Out of control"]
    assert any(words.startswith("Push") for words in said["wrong setting"])
    assert any("faster" in words for words in said["two developers"])

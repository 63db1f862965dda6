"""The demo holds a finished test of every kind, and one that is not."""

import shutil
from collections import Counter

import pytest

import vadrin.app.demo as vadrin_demo
from tests.states import state_of
from tests.window.pages import pdf_words
from tools.demo.demo_notebook import make_demo
from vadrin.app.decisions.cards_offered import WHOLE_FINDING, card_named, card_names
from vadrin.app.decisions.darkroom_card import card_document
from vadrin.app.decisions.film_card import films_compared
from vadrin.app.descriptions import descriptions
from vadrin.app.document.state import answered
from vadrin.app.document.test_loading import load_tests
from vadrin.app.shelf.shelf_index import undecided_answer
from vadrin.core.planning.test_types import type_of
from vadrin.notebook.records import Test
from vadrin.notebook.store import Notebook


@pytest.fixture(scope="module")
def answers(tmp_path_factory):
    """What every test of the demo comes to, by its kind."""
    path = tmp_path_factory.mktemp("kinds") / "demo.vadrin"
    make_demo(path)
    book = Notebook(path)
    found = {}
    for loaded in load_tests(book, book.all(Test)):
        found.setdefault(loaded.test.kind, []).append((loaded, undecided_answer(loaded)))
    yield found
    book.close()


@pytest.mark.parametrize("kind", [page.key for page in descriptions()])
def test_a_kind_has_an_answer_and_a_question_still_open(answers, kind):
    known = [(loaded, answer) for loaded, answer in answers[kind] if answer.index]
    open_yet = [
        loaded for loaded, answer in answers[kind] if not answer.index or loaded.read() == 0
    ]
    assert known, "one is finished"
    assert open_yet, "one is not"
    loaded, _ = known[0]
    if type_of(kind).scripted and kind != "wrong setting":
        assert loaded.read() > 0
        assert {s.strip.time_min for s in loaded.strips} or kind == "paper"


def test_the_demo_that_ships_is_the_one_that_is_made(answers, tmp_path):
    shipped = Notebook(shutil.copy(vadrin_demo.__path__[0] + "/demo.vadrin", tmp_path / "d.vadrin"))
    kinds = Counter(test.kind for test in shipped.all(Test))
    assert kinds == {kind: len(rows) for kind, rows in answers.items()}
    shipped.close()


def test_no_card_of_the_demo_cuts_a_word_off(answers, tmp_path):
    looked = set()
    for kind, rows in answers.items():
        for loaded, answer in rows:
            if not answer.index:
                continue
            analysis = answered(loaded).analysis
            names = [
                n
                for n in card_names(state_of(loaded, analysis))
                if n == WHOLE_FINDING or n in films_compared(state_of(loaded, analysis))
            ]
            for name in names:
                card = card_named(None, state_of(loaded, analysis), name)
                if card is not None:
                    path = tmp_path / f"{loaded.test.id} {name}.pdf"
                    path.write_bytes(card_document(card, "A6"))
                    pages, words = pdf_words(path)
                    assert (pages, "…" in words) == (1, False), (kind, name, words)
                    looked.add(kind)
    assert looked >= {p.key for p in descriptions()} - {"time"}


def test_the_answers_are_those_of_the_films_behind_them(answers):
    said = {kind: [a.index for _, a in rows if a.index] for kind, rows in answers.items()}
    assert said["cine"] == ["EI 50 in sun and EI 25 in open shade"]
    assert said["clip"] == ["Develop longer"]
    assert said["process control"] == ["Outside limits"]
    assert any(words.startswith("Develop ") for words in said["wrong setting"])
    assert any("faster" in words for words in said["two developers"])

"""The demo holds a finished test of every kind, and one that is not."""

import shutil
from collections import Counter
from dataclasses import asdict, replace
from datetime import date

import pytest

import vadrin.app.demo as vadrin_demo
from tests.states import state_of
from tests.window.pages import pdf_words
from tools.demo.demo_notebook import make_demo
from vadrin.app.decisions.cards_offered import card_named
from vadrin.app.decisions.darkroom_card import card_document, card_of, present_card
from vadrin.app.decisions.film_card import films_compared
from vadrin.app.descriptions import description_of, descriptions, own_answer
from vadrin.app.display.marks import marked_ei
from vadrin.app.display.quantities import minutes_text
from vadrin.app.document.state import answered
from vadrin.app.document.test_loading import load_tests
from vadrin.app.loaded.reference_temperature import reference_of
from vadrin.app.results.push_rows import push_lines
from vadrin.app.results.rating import rating_of
from vadrin.app.shelf.shelf_index import undecided_answer
from vadrin.core.planning.test_types import Metering, type_of
from vadrin.formats.reports.card import CARD_SIZES
from vadrin.notebook.moved_dates import bring_up_to
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
def test_a_kind_is_met_with_an_answer(answers, kind):
    rows = answers[kind]
    assert any(answer.index for _, answer in rows)
    assert len(rows) == 1 or kind == "time", "each for a reason of its own"


def test_it_is_one_winter_in_which_questions_are_still_open(answers):
    tests = [loaded for rows in answers.values() for loaded, _ in rows]
    days = sorted(loaded.test.created_at[:10] for loaded in tests)
    assert days[0] >= "2026-09-01"
    assert days[-1] <= "2026-11-30"
    assert sum(bool(loaded.findings) for loaded in tests) >= 5
    assert sum(not loaded.findings for loaded in tests) >= 8
    assert all(loaded.test.note for loaded in tests)
    # Nothing goes through a bath that is not for it.
    baths = {loaded.test.kind: loaded.developer for loaded in tests}
    assert len({baths[k].name for k in ("colour", "paper", "speed")}) == 3


def test_the_winter_of_the_demo_is_the_one_we_are_in(tmp_path):
    moved = shutil.copy(vadrin_demo.__path__[0] + "/demo.vadrin", tmp_path / "d.vadrin")
    bring_up_to(moved, date(2031, 5, 2))
    book = Notebook(moved)
    loaded = load_tests(book, book.all(Test))
    assert max(t.test.created_at[:10] for t in loaded) == "2031-05-01"
    kept = next(t for t in loaded if t.findings and t.test.kind == "time")
    assert kept.findings[0].decided_at[:10] == "2031-04-08"
    assert f"decided {kept.findings[0].decided_at[:10]}" == card_of(state_of(kept)).status
    assert all("2026" not in t.findings[0].card for t in loaded if t.findings)
    book.close()


def test_the_demo_that_ships_is_the_one_that_is_made(answers, tmp_path):
    shipped = Notebook(shutil.copy(vadrin_demo.__path__[0] + "/demo.vadrin", tmp_path / "d.vadrin"))
    kinds = Counter(test.kind for test in shipped.all(Test))
    assert kinds == {kind: len(rows) for kind, rows in answers.items()}
    shipped.close()


def all_words(told):
    """Every word in whatever is put on a card."""
    if isinstance(told, str):
        return told.split()
    inside = told.values() if isinstance(told, dict) else told
    return [word for part in inside if not isinstance(part, bool) for word in all_words(part)]


def recipe_of(state):
    """What a card must say for somebody else to shoot and develop by it, from the test itself."""
    loaded, kind = state.loaded, type_of(state.loaded.test.kind)
    own = own_answer(state)
    wanted = [loaded.title, loaded.developer.bath, description_of(loaded.test.kind).question]
    wanted += [loaded.test.light, loaded.batch.name if loaded.batch else ""]
    if own is not None:
        wanted.append(own.says)
        index = own.figures.get("ei")
        wanted += [f"EI {marked_ei(index.value)}"] if index is not None and index.value else []
    else:
        rating = rating_of(state)
        times = [s.minutes for s in loaded.strips if s.looked_at]
        times = [rating.time_min.value] if rating.time_min.present else times
        wanted += [f"EI {marked_ei(rating.index.value)}", *map(minutes_text, times)]
        pushes = push_lines(state.analysis, loaded.test.push_rule)
        wanted += [line.time.shown for line in pushes if line.time.shown != "not tested"]
    if kind.scripted and kind.metering is not Metering.ENLARGER:
        wanted += [f"{reference_of(loaded):g} °C", loaded.test.agitation]
    if kind.key in ("cine", "colour", "compare", "mixed roll", "two developers"):
        wanted += [minutes_text(s.minutes) for s in loaded.strips if s.looked_at]
    return [" ".join(words.split()) for words in wanted if words]


@pytest.mark.parametrize("size", CARD_SIZES)
def test_every_card_of_the_demo_is_a_whole_recipe(answers, tmp_path, size):
    looked, printed_of = set(), {}
    for kind, rows in answers.items():
        for loaded, answer in rows:
            if not answer.index:
                continue
            state = state_of(loaded, answered(loaded).analysis)
            names = films_compared(state) if size == "A6" else ()
            for card in (present_card(state), *(card_named(None, state, n) for n in names)):
                if card is None:
                    continue
                path = tmp_path / "card.pdf"
                path.write_bytes(card_document(card, size))
                sides, printed = pdf_words(path)
                flat = "".join(printed.split())
                lost = [w for w in all_words(asdict(replace(card, rule=""))) if w not in flat]
                assert lost == [], (kind, card.says)
                assert sides <= (2 if size == "A6" else 4), (kind, card.says)
                printed_of.setdefault(kind, flat)
            missing = [w for w in recipe_of(state) if "".join(w.split()) not in printed_of[kind]]
            assert missing == [], kind
            looked.add(kind)
            printed_of.pop(kind)
    assert looked == {p.key for p in descriptions()}


def test_the_answers_are_those_of_the_films_behind_them(answers):
    said = {kind: [a.index for _, a in rows if a.index] for kind, rows in answers.items()}
    assert said["cine"] == ["EI 16 in sun and EI 12 in open shade"]
    assert said["clip"] == ["Develop longer"]
    assert said["process control"] == ["Outside limits"]
    assert any(words.startswith("Develop ") for words in said["wrong setting"])
    assert any("faster" in words for words in said["two developers"])

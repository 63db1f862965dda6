"""Practice in the window: a film nobody knows, decided on, and its envelope opened after that."""

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from tests.window.pages import CTRL, settle, words_of
from vadrin.app.decisions.decision import choose_target, decide
from vadrin.app.document.state import answered
from vadrin.app.document.test_loading import load_test
from vadrin.app.practice.practice_notebook import begin_practice, envelope_told
from vadrin.app.practice.practice_place import is_practice, practice_place
from vadrin.core.simulation.practice_level import Level
from vadrin.errors import EntryError
from vadrin.notebook.records import Finding, Test
from vadrin.notebook.store import Notebook


@pytest.fixture
def window(open_window, tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "data"))
    return open_window(tmp_path / "winter.vadrin")


def act(window, name):
    """Do what the File menu has under a name; nothing where it can't be done now."""
    action = next(a for a in window.actions_everywhere if a.id == name)
    assert action.menu == "notebook"
    if action.usable():
        action.act()
    return action.usable()


def test_a_film_is_practised_on_and_its_envelope_opened_once_it_is_decided(qtbot, window):
    own = window.bench.notebook.path
    assert not act(window, "practice.open"), "this is no practice film"
    act(window, "practice.begin")
    settle(qtbot, window)
    qtbot.waitUntil(lambda: window.bench.notebook.path != own, timeout=20_000)
    settle(qtbot, window)
    book = window.bench.notebook
    assert book.path.is_relative_to(practice_place())
    assert "Practice film 1" in words_of(window)
    (test,) = book.all(Test)
    window.bench.open_test(test.id)
    act(window, "practice.open")
    settle(qtbot, window)
    assert "The envelope stays closed: decide on it first" in words_of(window)
    QTest.keyClick(window, Qt.Key.Key_7, CTRL)
    settle(qtbot, window)
    QTest.keyClick(window, Qt.Key.Key_D, CTRL)
    settle(qtbot, window)
    (finding,) = book.all(Finding)
    assert finding.exposure_index > 0
    act(window, "practice.open")
    settle(qtbot, window)
    said = words_of(window)
    for part in ("The film: ", "True: EI ", "Yours: EI ", "by the program", "were read swapped"):
        assert part in said, part
    assert own.exists()


def test_each_practice_film_is_another_in_a_notebook_of_its_own(tmp_path):
    first, second = (begin_practice(tmp_path, Level.PLAIN) for _ in range(2))
    assert (first.name, second.name) == ("practice 1.vadrin", "practice 2.vadrin")
    assert is_practice(first)
    assert is_practice(second)
    assert (first.parent / "truth.json").read_text() != (second.parent / "truth.json").read_text()
    with pytest.raises(EntryError, match="decide on it first"):
        envelope_told(first, None)


def test_an_envelope_is_not_held_against_another_contrast(tmp_path):
    path = begin_practice(tmp_path, Level.PLAIN, seed=4)
    book = Notebook(path)
    (test,) = book.all(Test)
    choose_target(book, test, "time", 12.0)
    decide(book, answered(load_test(book, test.id)))
    with pytest.raises(EntryError, match=r"average gradient 0\.58"):
        envelope_told(path, load_test(book, test.id))
    choose_target(book, book.get(Test, test.id), "average_gradient", 0.58)
    decide(book, answered(load_test(book, test.id)))
    assert envelope_told(path, load_test(book, test.id))[2].startswith("Yours: EI ")
    book.close()

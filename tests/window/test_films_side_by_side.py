"""Everything that was decided on, beside one reference: sorted, turned to a gallery, opened."""

import shutil
from dataclasses import replace

import numpy as np
import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QLabel, QScrollArea

from oracles.film_shapes import SHAPES
from tests.notebooks import developed_test
from tests.states import state_of, worked_out
from tests.window.pages import CTRL, settle, type_into, words_of
from vadrin.app.decisions.decision import decide
from vadrin.app.document.test_loading import load_test
from vadrin.app.shelf.film_comparison import films_decided
from vadrin.app.shelf.nearest_film import nearest_words
from vadrin.notebook.records import Finding, Reading, Strip, Test

PLAIN = SHAPES["plain"]
FILMS = {"Kelda Pan 200": (0.0, 1.0), "Brannock 400": (1.0, 1.2), "Skerry Fine 50": (-2.0, 0.9)}
"""Stops by which each is faster than the first, and its contrast beside it."""


def decided(book, name, stops, share, day):
    """A film that was read and decided on."""
    test = developed_test(book, name, kind="speed", times=(8.0,), step=0.5, index=100.0)
    film = replace(PLAIN, contrast=PLAIN.contrast * share)
    rng = np.random.default_rng(5)
    with book.change("read"):
        for _, frame in load_test(book, test.id).frames():
            x = frame.log_h(test.meter_constant)
            moved = None if x is None else x + 0.30103 * stops
            dense = film.density(moved, 8.0) + 0.004 * rng.standard_normal()
            book.add(Reading(frame_id=frame.frame.id, density=round(float(dense), 3)))
    loaded = load_test(book, test.id)
    analysis = worked_out(loaded)
    return decide(book, state_of(loaded, analysis), f"2026-1{day}-01T10:00:00+00:00")


@pytest.fixture
def films(qtbot, open_window, tmp_path):
    """The window at Films, with three films over as many months and one not decided."""
    window = open_window(tmp_path / "years.vadrin")
    book = window.bench.notebook
    for day, (name, (stops, share)) in enumerate(FILMS.items()):
        decided(book, name, stops, share, day)
    developed_test(book, "Merrow Pan 125", kind="speed", times=(8.0,), index=100.0)
    QTest.keyClick(window, Qt.Key.Key_B, CTRL)
    settle(qtbot, window)
    return window


def column(window, name):
    table = window.station().table
    place = [table.headerData(n, Qt.Orientation.Horizontal, 0) for n in range(9)].index(name)
    return [table.index(row, place).data() for row in range(table.rowCount())]


def press(window, key, times=1):
    for _ in range(times):
        QTest.keyClick(window.station().view, key)
    window.updates.flush()


def test_they_stand_beside_the_reference_that_was_chosen(films):
    assert "3 decided strips, compared with Skerry Fine 50" in words_of(films.station())
    assert column(films, "Film") == ["Skerry Fine 50", "Brannock 400", "Kelda Pan 200"]
    press(films, Qt.Key.Key_Down, 2)
    press(films, Qt.Key.Key_R)
    stops = dict(zip(column(films, "Film"), column(films, "Stops"), strict=True))
    assert stops["Kelda Pan 200"] == "the reference"
    for name, (true, _) in FILMS.items():
        if name != "Kelda Pan 200":
            assert float(stops[name].replace("−", "-")) == pytest.approx(true, abs=0.25)
    contrast = dict(zip(column(films, "Film"), column(films, "Contrast"), strict=True))
    assert float(contrast["Brannock 400"].removeprefix("× ")) == pytest.approx(1.2, abs=0.04)


def test_they_are_ordered_by_any_column_with_what_is_not_known_last(qtbot, films):
    station = films.station()
    type_into(station.by, "EI")
    type_into(station.way, "upwards")
    assert column(films, "Film") == ["Skerry Fine 50", "Kelda Pan 200", "Brannock 400"]
    book = films.bench.notebook
    unknown = book.all(Finding)[0]
    with book.change("no longer told"):
        book.put(replace(unknown, report=unknown.report.replace('"zone_ei"', '"zone_was"')))
    films.bench.go("shelf")
    films.bench.go("films")
    settle(qtbot, films)
    assert column(films, "Film")[-1] == "Kelda Pan 200"
    type_into(films.station().way, "downwards")
    assert column(films, "Film") == ["Brannock 400", "Skerry Fine 50", "Kelda Pan 200"]
    type_into(films.station().by, "luck")
    assert "Contrast" in films.station().refusal.text()


def test_the_gallery_shows_the_same_films_and_a_film_is_opened(qtbot, films):
    press(films, Qt.Key.Key_Down)
    press(films, Qt.Key.Key_G)
    gallery = films.station().gallery
    assert [f.film for f in gallery.films] == column(films, "Film")
    assert "Brannock 400" in gallery.accessibleDescription()
    assert not [a for a in films.station().findChildren(QScrollArea) if a.isVisible()], "one scroll"
    here = films.station().picked()
    for key in (Qt.Key.Key_Left, Qt.Key.Key_Right):
        QTest.keyClick(QApplication.focusWidget(), key)
    assert films.station().picked() == here
    QTest.keyClick(films.station(), Qt.Key.Key_Plus, CTRL)
    settle(qtbot, films)
    assert films.station().gallery.isVisible(), "larger type keeps what one looks at"
    QTest.keyClick(films.station(), Qt.Key.Key_Minus, CTRL)
    settle(qtbot, films)
    press(films, Qt.Key.Key_G)
    QTest.keyClick(films.station().view, Qt.Key.Key_Return, CTRL)
    films.updates.flush()
    assert (films.bench.station, films.bench.loaded.title) == ("finding", "Brannock 400")


def test_nothing_decided_says_how_a_film_comes_here(qtbot, open_window, tmp_path):
    window = open_window(tmp_path / "new.vadrin")
    window.bench.go("films")
    settle(qtbot, window)
    assert "No film was decided on yet" in words_of(window.station())
    assert list(films_decided(window.bench.notebook)) == []


def years_of_them(films):
    """Twelve decided tests, of which the first six are laid out by now."""
    book, station = films.bench.notebook, films.station()
    newest = book.all(Finding)[-1]
    with book.change("years of them"):
        for _ in range(9):
            test = book.add(replace(book.get(Test, newest.test_id), id=0, uid=""))
            for strip in book.all(Strip, test_id=newest.test_id):
                book.add(replace(strip, id=0, test_id=test.id))
            book.add(replace(newest, id=0, test_id=test.id))
    station.show_state(films.scene())
    return station


def test_many_films_come_in_while_the_screen_stays_alive(films, qtbot):
    station = years_of_them(films)
    said = [label.text() for label in station.findChildren(QLabel)]
    assert "6 of 12 tests laid out …" in said, "before the screen has turned once"
    qtbot.waitUntil(lambda: station.table.rowCount() == 12, timeout=20_000)
    assert "laid out" not in words_of(station)


def test_films_that_still_come_in_are_let_go_when_another_notebook_is_opened(
    films, qtbot, empty_path, tmp_path
):
    station = years_of_them(films)
    films.bench.go("shelf")
    films.bench.open_notebook(shutil.copy(empty_path, tmp_path / "other.vadrin"))
    qtbot.waitUntil(lambda: station._coming is None, timeout=20_000)
    assert station.table.rowCount() == 0
    films.bench.go("films")
    settle(qtbot, films)
    assert "No film was decided on yet" in words_of(station)


@pytest.mark.parametrize(
    ("stops", "share", "said"),
    [(0.05, 1.01, "it could be the same film"), (0.9, 1.35, "too far apart to be the same film")],
)
def test_a_film_under_a_new_name_is_set_beside_those_that_are_known(notebook, stops, share, said):
    """Written down first: it is Kelda in another box, or it is not; Brannock is a stop faster."""
    for day, (name, of) in enumerate(FILMS.items()):
        decided(notebook, name, *of, day)
    decided(notebook, "Ninepenny 200", stops, share, 0)
    found = films_decided_all(notebook)
    new = next(f for f in found if f.film == "Ninepenny 200")
    words = nearest_words(new, found)
    near = "Kelda Pan 200" if share < 1.1 else "Brannock 400"
    assert words.startswith(f"Nearest to Ninepenny 200 in the same bath: {near} (")
    assert said in words
    assert nearest_words(new, (new,)) == ""
    elsewhere = tuple(replace(f, process="in Tarn 1+9") for f in found if f != new)
    assert nearest_words(new, (new, *elsewhere)) == ""


def films_decided_all(notebook):
    """Every film that was decided on, however many turns it takes."""
    laying = films_decided(notebook)
    while True:
        try:
            next(laying)
        except StopIteration as done:
            return done.value

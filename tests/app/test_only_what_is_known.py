"""What is known of one film, batch or camera is not taken for another's."""

from dataclasses import replace

import pytest

from tests.notebooks import new_test
from vadrin.app.document.sheet_loading import load_sheet
from vadrin.app.expose.roll_entry import enter_roll
from vadrin.app.expose.wrong_setting import wrong_setting_of, wrong_setting_words
from vadrin.app.library.named_records import batch_named, camera_named, stock_named
from vadrin.app.plan.starting_tests import start_kind
from vadrin.app.results.conditions import conditions_of
from vadrin.notebook.records import Batch, Camera, Finding, Strip, Test


def decided(book, kind, batch, index, minutes):
    """A decided test of one batch of the same film in the same developer."""
    with book.change("decided"):
        test = new_test(book, "Kelda Pan 200", "Sable", "1+1", kind=kind, times=(8.0,))
        kept = batch_named(book, test.stock_id, batch)
        test = book.put(replace(test, batch_id=kept.id))
        book.add(Finding(test_id=test.id, exposure_index=index, time_min=minutes))
    return test


def roll(book, batch="", index=200):
    line = f"24 frames at EI {index}"
    film = f"Kelda Pan 200 batch {batch}" if batch else "Kelda Pan 200"
    return enter_roll(book, film, "Sable", "1+1", line)


def test_old_films_ei_is_not_the_fresh_films(notebook):
    decided(notebook, "rescue", "found in a cellar", 6.0, 8.0)
    assert wrong_setting_of(notebook, roll(notebook)) is None, "no push of five stops"
    decided(notebook, "time", "K9", 200.0, 8.0)
    assert wrong_setting_of(notebook, roll(notebook)) is None, "normal"
    assert wrong_setting_of(notebook, roll(notebook, index=400)).stops == 1.0


@pytest.mark.parametrize(
    ("batch", "index", "of"), [("K9", 200.0, ""), ("K10", 160.0, ""), ("", 160.0, "K10")]
)
def test_a_roll_is_laid_beside_its_own_batch(notebook, batch, index, of):
    decided(notebook, "time", "K9", 200.0, 8.0)
    decided(notebook, "time", "K10", 160.0, 7.0)
    test = roll(notebook, batch, 800)
    wrong = wrong_setting_of(notebook, test)
    assert (wrong.found_index, wrong.batch) == (index, of)
    words = wrong_setting_words(notebook, load_sheet(notebook, test.id))
    assert ("nobody said" in words) is (not batch)


def test_a_bracket_entered_in_a_line_has_no_time_nobody_gave(notebook):
    test = enter_roll(notebook, "Kelda Pan 200", "Sable", "1+1", "13 frames, -6 to +6")
    (strip,) = notebook.all(Strip, test_id=test.id)
    assert (strip.planned_min, strip.time_min) == (None, None)
    assert conditions_of(load_sheet(notebook, test.id)) == ()


def test_a_cine_camera_is_inherited_by_cine_alone(notebook):
    with notebook.change("kit"):
        still = camera_named(notebook, "folding camera")
        cine = notebook.add(Camera(name="spring camera", frame_rate=18.0, shutter_angle=160.0)).id
    first = start_kind(notebook, "speed")
    with notebook.change("with its camera"):
        notebook.put(replace(first, camera_id=still))
        notebook.put(replace(start_kind(notebook, "cine"), camera_id=cine))
    assert start_kind(notebook, "push").camera_id == still
    assert start_kind(notebook, "cine").camera_id == cine


@pytest.mark.parametrize(
    ("name", "speed"), [("Brannock 400", 400), ("Lunar", 64), ("Pan 7", 64), ("Kelda 200 T", 200)]
)
def test_a_new_film_is_not_said_to_be_100(notebook, name, speed):
    with notebook.change("film"):
        assert stock_named(notebook, name, 64.0).box_speed == speed
    assert notebook.all(Batch) == []
    assert notebook.all(Test) == []

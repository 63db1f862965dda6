"""What is known of one film, batch or camera is not taken for another's."""

import shutil
from dataclasses import replace

import pytest

from tests.notebooks import new_test
from tests.states import state_of, worked_out
from vadrin.app.document.test_loading import load_test
from vadrin.app.expose.roll_entry import enter_roll
from vadrin.app.expose.wrong_setting import wrong_setting_of, wrong_setting_words
from vadrin.app.library.named_records import batch_named, camera_named, stock_named
from vadrin.app.plan.starting_tests import start_kind
from vadrin.app.printing.contact_sheet import give_paper_verdict
from vadrin.app.read.verdict_entry import give_verdict
from vadrin.app.results.conditions import conditions_of
from vadrin.app.results.headline import headline_of
from vadrin.app.results.provenance import provenance
from vadrin.app.test_types.film_cells import usable_indexes
from vadrin.app.test_types.rescue import rescue_answer
from vadrin.core.results.rating_method import CONTACT
from vadrin.notebook.records import Batch, Camera, Finding, Strip, Test
from vadrin.notebook.store import Notebook


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
    words = wrong_setting_words(notebook, load_test(notebook, test.id))
    assert ("nobody said" in words) is (not batch)


def test_a_bracket_entered_in_a_line_has_no_time_nobody_gave(notebook):
    test = enter_roll(notebook, "Kelda Pan 200", "Sable", "1+1", "13 frames, -6 to +6")
    (strip,) = notebook.all(Strip, test_id=test.id)
    assert (strip.planned_min, strip.time_min) == (None, None)
    assert conditions_of(load_test(notebook, test.id)) == ()


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


def test_what_is_seen_on_prints_leaves_what_was_seen_on_the_film(notebook):
    """Written down first: on the film every frame down to EI 25 can be used, on paper to 100."""
    test = new_test(notebook, "Kelda Pan", "Sable", "1+1", kind="rescue", times=(8.0,))

    def look(give, least):
        for _, frame in load_test(notebook, test.id).frames():
            index = frame.frame.exposure_index
            if index is not None:
                thin = index / 2.0 ** (frame.frame.stops or 0.0)
                give(notebook, frame, "the frame", "use it" if thin <= least else "nothing there")

    look(give_verdict, 25.0)
    loaded = load_test(notebook, test.id)
    on_film = usable_indexes(loaded.strips[0])
    assert on_film[1] == pytest.approx(25.0)
    look(give_paper_verdict, 100.0)
    loaded = load_test(notebook, test.id)
    assert usable_indexes(loaded.strips[0]) == on_film
    answer = rescue_answer(state_of(loaded, worked_out(loaded)))
    assert answer.says == "EI 25"
    assert "on its contact print beside it" in answer.words
    assert answer.more[0].rows[0][1:] == ("EI 25", "between 16 and 40", "rates")
    with notebook.change("rate by prints"):
        notebook.put(replace(loaded.test, school=CONTACT.key))
    loaded = load_test(notebook, test.id)
    by_print = rescue_answer(state_of(loaded, worked_out(loaded)))
    assert by_print.says == "EI 100"
    assert "the thinnest frame of use, on its contact print" in by_print.words
    assert [row[-1] for row in by_print.more[0].rows] == ["", "rates"]


@pytest.mark.parametrize(
    ("name", "speed"), [("Brannock 400", 400), ("Lunar", 100), ("Pan 7", 100), ("Kelda 200 T", 200)]
)
def test_a_new_film_is_as_fast_as_its_name_says(notebook, name, speed):
    with notebook.change("film"):
        assert stock_named(notebook, name).box_speed == speed
    assert notebook.all(Batch) == []
    assert notebook.all(Test) == []


def test_a_finding_says_where_its_numbers_come_from(tmp_path, demo_path):
    book = Notebook(shutil.copy(demo_path, tmp_path / "demo.vadrin"))
    told = {}
    for test in book.all(Test):
        loaded = load_test(book, test.id)
        if any(strip.looked_at for strip in loaded.strips):
            state = state_of(loaded, worked_out(loaded))
            told[len(loaded.strips)] = provenance(state), headline_of(state).pushes
    five, pushes = told[5]
    assert five == (
        "EI found from 5 strips, 125 frames, read 2026-10-27; shadow method, 0.10 above base "
        "plus fog.",
        "Time found between strips B (6:30) and C (9:00).",
    )
    assert [line.came_from for line in pushes[:2]] == [
        "as strip B (6:30)",
        "between strips B (6:30) and C (9:00)",
    ]
    assert told[1][0][1].startswith("The time is that of the one development there was")
    book.close()

"""A table with exposures belongs to the test that waits for it; what it is can be set right."""

import pytest
from PyQt6.QtWidgets import QApplication

from oracles.closed_form import ClosedForm
from tests.notebooks import developed_test
from tests.window.pages import PlanPage, button_of, said_by, settle, words_of
from vadrin.notebook.records import Reading, Strip, Test

FILM = ClosedForm()
TIMES = (5.0, 7.0, 10.0)


@pytest.fixture
def waiting(qtbot, open_window, tmp_path):
    """A planned, exposed test of three times with nothing read, on the bench."""
    window = open_window(tmp_path / "winter.vadrin")
    test = developed_test(window.bench.notebook, "Kelda Pan", times=TIMES)
    window.bench.open_test(test.id)
    settle(qtbot, window)
    return window


def table(window, path, labels="ABC", shift=0.0):
    """A file of what an instrument read of the test on the bench: stops, times, densities."""
    loaded, lines = window.bench.loaded, ["strip,frame,time_min,ei,stops,density"]
    for label, strip in zip(labels, loaded.strips, strict=True):
        minutes = strip.strip.planned_min
        for place, frame in enumerate(strip.frames, start=1):
            x = frame.log_h(loaded.test.meter_constant)
            asked = "," if x is None else f"100,{frame.frame.stops + shift:.3f}"
            lines.append(f"{label},{place},{minutes},{asked},{FILM.density(x, minutes):.3f}")
    path.write_text("\n".join(lines) + "\n", encoding="utf-8")
    return path


@pytest.mark.parametrize(("labels", "by"), [("ABC", "their letters"), ("XYZ", "their order")])
def test_it_is_offered_and_says_what_matched_by_what(qtbot, waiting, tmp_path, labels, by):
    window, book = waiting, waiting.bench.notebook
    window.importing.offer(table(window, tmp_path / "evening.csv", labels))
    QApplication.processEvents()
    said = words_of(window.banner)
    assert "Kelda Pan waits for readings" in said
    assert f"strips by {by}" in said
    assert "frames by their stops from the meter" in said
    button_of(window.banner, "To Kelda Pan").click()
    settle(qtbot, window)
    assert len(book.all(Test)) == 1, "no second test of the same film"
    loaded = window.bench.loaded
    assert loaded.read() == len(loaded.frames())
    for strip, frame in loaded.frames():
        x = frame.log_h(loaded.test.meter_constant)
        assert frame.density == pytest.approx(FILM.density(x, strip.strip.planned_min), abs=6e-4)
    assert "to Kelda Pan" in said_by(window)
    window.bench.undo()
    assert book.all(Reading) == [], "one edit"


def test_what_fits_no_waiting_test_is_a_test_of_its_own_and_can_be_named(qtbot, waiting, tmp_path):
    window, book = waiting, waiting.bench.notebook
    path = table(window, tmp_path / "evening.csv", shift=0.4)
    window.importing.offer(path)
    settle(qtbot, window)
    assert len(book.all(Test)) == 2, "these are other exposures"
    assert window.bench.loaded.title == "evening"
    window.bench.go("plan")
    settle(qtbot, window)
    plan = PlanPage(qtbot, window)
    for word, typed in (("film", "Merrow Pan 125"), ("developer", "Tarn"), ("dilution", "1+9")):
        plan.word(word, typed)
        assert plan.refusal == "", word
    loaded = window.bench.loaded
    assert (loaded.title, loaded.process) == ("Merrow Pan 125", "in Tarn 1+9")
    assert loaded.read() == len(loaded.frames()), "nothing that was read went"
    assert [s.time_min for s in book.all(Strip, test_id=loaded.test.id)] == list(TIMES)


def test_a_new_test_can_be_chosen_and_what_was_read_is_never_written_over(qtbot, waiting, tmp_path):
    window, book = waiting, waiting.bench.notebook
    path = table(window, tmp_path / "evening.csv")
    window.importing.offer(path)
    QApplication.processEvents()
    button_of(window.banner, "A new test of them").click()
    settle(qtbot, window)
    assert len(book.all(Test)) == 2
    window.importing.offer(path)
    QApplication.processEvents()
    button_of(window.banner, "To Kelda Pan").click()
    settle(qtbot, window)
    window.importing.offer(path)
    settle(qtbot, window)
    assert not window.banner.isVisible(), "it waits no more"
    assert len(book.all(Test)) == 3

"""The real window walked at random: after every step it tells the truth."""

import pytest
from PyQt6.QtWidgets import QLabel

from tools.walker import COMMAS, FaultError, Walker, walk
from vadrin.app.display.region import PLAIN, set_region
from vadrin.ui.stations.station import Station
from vadrin.ui.theme.typeface import load_fonts, set_scale


@pytest.fixture(autouse=True)
def program(qapp):
    """The fonts are there, and the type has its size again afterwards."""
    load_fonts()
    yield
    set_scale(1.0)


def test_no_walk_of_the_window_meets_a_fault():
    walk(examples=2, steps=36)


@pytest.fixture
def walker():
    made = Walker()
    yield made
    made.teardown()


def refused_at_plan(walker):
    walker.other_test(0)
    walker.go("plan")
    walker.window.station().fields["last"].setFocus()
    walker.write("+400", "Return")
    walker.it_tells_the_truth()
    assert "+400" in walker._refusal()


def test_it_catches_a_refusal_that_is_left_over(walker, monkeypatch):
    refused_at_plan(walker)
    walker.other_test(1)
    refused_at_plan(walker)
    monkeypatch.setattr(Station, "forget_words", lambda self: None)
    with pytest.raises(FaultError, match="refused in another test"):
        walker.other_test(1)


def test_it_catches_a_hidden_keyboard_a_stale_field_and_a_lost_edit(walker):
    refused_at_plan(walker)
    field = walker.window.station().fields["ei"]
    shown = field.text()
    field.setText("999")
    with pytest.raises(FaultError, match="999"):
        walker.it_tells_the_truth()
    field.setText(shown)
    held = walker.hand.app.focusWidget()
    held.clearFocus()
    with pytest.raises(FaultError, match="nothing has the keyboard"):
        walker.it_tells_the_truth()
    held.setFocus()
    walker.begun = {kind: [] for kind in walker.begun}
    with pytest.raises(FaultError, match="did not give back the file"):
        walker._to_and_fro()
    walker.begun = walker.book.everything()


def test_it_catches_a_point_where_commas_are_written(walker):
    set_region(COMMAS)
    try:
        walker.it_tells_the_truth()
        left = QLabel("0.58", walker.window)
        left.show()
        with pytest.raises(FaultError, match=r"0\.58"):
            walker.it_tells_the_truth()
    finally:
        set_region(PLAIN)

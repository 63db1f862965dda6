"""Colour film is read in one line a frame, or through the channel that was named last."""

import pytest

from tests.notebooks import developed_test
from tests.window.pages import Hands, refusal_of, words_of
from vadrin.core.channels import Channel


def opened(qtbot, open_window, tmp_path, kind):
    window = open_window(tmp_path / "winter.vadrin")
    test = developed_test(window.bench.notebook, "Gannet Colour", kind=kind, times=(6.5,))
    window.bench.open_test(test.id)
    window.bench.go("read")
    hands = Hands(qtbot, window)
    hands.settle()
    return hands


def read_of(window, place):
    frame = window.bench.loaded.frames()[place][1]
    return {r.channel: r.density for r in frame.readings}


def test_three_numbers_are_the_layers_and_one_keeps_its_channel(qtbot, open_window, tmp_path):
    hands = opened(qtbot, open_window, tmp_path, "colour")
    window = hands.window
    hands.write("0,52 0,61 0,80")
    layers = {Channel.RED: 0.52, Channel.GREEN: 0.61, Channel.BLUE: 0.80}
    assert read_of(window, 0) == layers
    assert window.bench.selected()[1].frame.id == window.bench.loaded.frames()[1][1].frame.id
    assert "A number alone is visual" in words_of(window.station())
    hands.write("1.05 blue")
    assert read_of(window, 1) == {Channel.BLUE: 1.05}
    assert "A number alone is blue" in words_of(window.station())
    hands.write("0.93")
    assert read_of(window, 2) == {Channel.BLUE: 0.93}
    window.bench.undo()
    window.bench.undo()
    window.bench.undo()
    assert read_of(window, 0) == {}, "a line is one edit"


@pytest.mark.parametrize("typed", ["0.52 0.61 0.80", "0.5 0.6"])
def test_on_other_film_a_line_of_numbers_is_asked_about(qtbot, open_window, tmp_path, typed):
    hands = opened(qtbot, open_window, tmp_path, "time")
    hands.write(typed)
    assert refusal_of(hands.window)
    assert read_of(hands.window, 0) == {}

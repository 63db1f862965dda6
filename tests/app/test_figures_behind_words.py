"""Small figures that words rest on: each against what it should be by hand."""

import io
from types import SimpleNamespace

import numpy as np
import pytest
from PIL import Image

from tests.notebooks import developed_test
from vadrin.app.document.test_loading import load_test
from vadrin.app.learning import makers_off
from vadrin.app.learning.past_tests import PastTest
from vadrin.app.read.entering_readings import add_reading
from vadrin.app.read.paired_judging import Pair
from vadrin.app.read.verdict_entry import share_words
from vadrin.app.scans.kept_scans import preview_of
from vadrin.app.test_types.two_developers import in_channel
from vadrin.core.channels import Channel
from vadrin.core.judging.verdicts import share_of
from vadrin.core.learning.contrast_law import ContrastSeen
from vadrin.notebook.records import Stock
from vadrin.notebook.store import Notebook

SEEN = ContrastSeen(np.array([6.0, 9.0]), np.array([0.5, 0.6]), np.array([0.02, 0.02]))


@pytest.fixture
def book(tmp_path):
    made = Notebook(tmp_path / "winter.vadrin")
    yield made
    made.close()


def said_at_the_counter(book, monkeypatch, stops_over_box):
    """The EI of a new film of 100 on its box, after films that lay so many stops over theirs."""
    test = developed_test(book, "The next film", index=100.0, times=(8.0,))
    past = []
    with book.change("films"):
        for number, stops in enumerate(stops_over_box, start=1):
            stock = book.add(Stock(name=f"Film {number}", box_speed=200.0))
            index = 200.0 * 2.0**stops
            film = (number, number, test.developer_id, stock.id, stock.name)
            past.append(PastTest(*film, 8.0, 0.58, SEEN, index))
    monkeypatch.setattr(makers_off, "past_tests", lambda _book, _but: tuple(past))
    return makers_off.counter_estimate(book, load_test(book, test.id).test).index


def test_a_film_at_the_counter_is_as_far_off_its_box_as_the_others_were(book, monkeypatch):
    # All of them just what their boxes say; films lie under their boxes more often than over.
    told = said_at_the_counter(book, monkeypatch, [0.0] * 4)
    assert 92.0 < told.value < 100.0
    assert told.low < 90.0 < 108.0 < told.high
    slower = said_at_the_counter(book, monkeypatch, [-1.0, -0.9, -1.1, -1.0])
    assert slower.value == pytest.approx(52.0, rel=0.06)
    assert slower.high < 100.0


def test_nothing_is_said_at_the_counter_where_the_others_foretell_each_other_badly(
    book, monkeypatch
):
    assert said_at_the_counter(book, monkeypatch, [0.0, 0.05, -0.05, 0.0, 4.0]) is None
    assert said_at_the_counter(book, monkeypatch, [0.0, 0.0]) is None


def test_the_preview_of_a_wide_scan_keeps_its_shape():
    wide = Image.open(io.BytesIO(preview_of(np.ones((120, 3600)))))
    assert wide.size == (900, 30)
    small = Image.open(io.BytesIO(preview_of(np.ones((40, 300)))))
    assert small.size == (300, 40)


def test_a_pair_that_is_turned_is_named_and_answered_the_other_way_round():
    one, other = (SimpleNamespace(strip=SimpleNamespace(label=label)) for label in "AB")
    assert Pair(one, other, turned=False, blind=False).names == ("strip A", "strip B")
    assert Pair(one, other, turned=True, blind=False).names == ("strip B", "strip A")
    assert Pair(one, other, turned=True, blind=True).names == ("P", "Q")


def test_a_share_is_told_with_its_range():
    # Wilson's range for 11 of 24, by hand.
    n, p, z = 24, 11 / 24, 1.96
    middle = (p + z**2 / (2 * n)) / (1 + z**2 / n)
    reach = z / (1 + z**2 / n) * np.sqrt(p * (1 - p) / n + z**2 / (4 * n**2))
    low, high = round(100 * (middle - reach)), round(100 * (middle + reach))
    assert share_words(share_of(11, 24)) == (
        f"11 of 24 frames can be used ({low} to {high} of 100)"
    )


def test_a_frame_read_twice_through_a_filter_has_the_mean_of_both(book):
    test = developed_test(book, "Film", index=100.0, times=(8.0,))
    frame = load_test(book, test.id).strips[0].frames[3]
    with book.change("read"):
        for density, channel in ((0.5, Channel.BLUE), (0.7, Channel.BLUE), (1.9, Channel.RED)):
            add_reading(book, frame, density, channel)
    frame = load_test(book, test.id).strips[0].frames[3]
    assert in_channel(frame, Channel.BLUE) == pytest.approx(0.6)
    assert in_channel(frame, Channel.RED) == pytest.approx(1.9)
    assert in_channel(frame, Channel.GREEN) is None

"""Numbers and days are shown as the desktop's region writes them, and typed in either way."""

import re

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.window.pages import field_of, pdf_words, settle, type_into, words_of
from vadrin.app.display.region import PLAIN, Region, region_of, set_region
from vadrin.app.entry.numbers import number_typed
from vadrin.app.entry.times import day_typed
from vadrin.errors import EntryError
from vadrin.notebook.records import Finding

COMMA = Region(decimal_comma=True, day="%d.%m.%Y")
POINT = re.compile(r"(?<![\w/.,-])\d+\.\d+(?!\.?\w)")


@pytest.fixture
def with_commas():
    set_region(COMMA)
    yield
    set_region(PLAIN)


@pytest.mark.parametrize(
    ("plain", "shown"),
    [
        ("EI 1.5 at f/5.6, base 0.30.", "EI 1,5 at f/5.6, base 0,30."),
        ("mixed 2026-11-30, kept as card-2026-11-30.pdf", None),
        ("strip 1.5.csv, scan_1.5.tif, Vadrin 1.2.3", "strip 1.5.csv, scan_1.5.tif, Vadrin 1.2.3"),
        ("−0.05 to 1.312, 1.20-1.35", "−0,05 to 1,312, 1,20-1,35"),
    ],
)
def test_numbers_and_days_but_no_names(plain, shown):
    expected = shown or "mixed 30.11.2026, kept as card-2026-11-30.pdf"
    assert COMMA.words(plain) == expected == COMMA.words(expected)
    assert PLAIN.words(plain) == plain


@given(value=st.floats(-50, 50), digits=st.integers(0, 4))
def test_what_a_field_shows_is_read_back(value, digits):
    shown = COMMA.typed(f"{value:.{digits}f}")
    assert "." not in shown
    assert number_typed(shown) == pytest.approx(value, abs=0.5 * 10**-digits + 1e-9)


@pytest.mark.parametrize(
    ("point", "form", "day"),
    [
        (",", "dd.MM.yy", "23.11.2026"),
        (".", "M/d/yy", "11/23/2026"),
        (".", "yyyy-MM-dd", "2026-11-23"),
        (".", "d MMM yyyy", "2026-11-23"),
    ],
)
def test_a_day_that_is_shown_is_typed_so(point, form, day):
    assert region_of(point, form).words("2026-11-23") == day
    assert day_typed(day) == "2026-11-23"


@pytest.mark.parametrize("words", ["03/04/2026", "13/13/2026", "31.02.2026"])
def test_a_day_that_may_be_two_is_refused(words):
    with pytest.raises(EntryError) as refused:
        day_typed(words)
    assert ("2026-03-04 or 2026-04-03" in str(refused.value)) == (words == "03/04/2026")


@pytest.mark.parametrize("station", ["plan", "expose", "process", "read", "curves", "finding"])
def test_no_point_is_left_in_what_a_station_says(with_commas, qtbot, demo, station):
    window = demo("Merrow Pan 125", station)
    settle(qtbot, window)
    words = words_of(window)
    assert not POINT.findall(words)
    assert re.search(r"\d,\d", words)


def test_a_density_is_typed_in_either_way(with_commas, qtbot, demo):
    window = demo("Merrow Pan 125", "read")
    settle(qtbot, window)
    frame = window.bench.frame_id
    for typed in ("0,43", "0.43"):
        window.bench.select(frame)
        type_into(field_of(window.station(), "density of the selected frame"), typed)
        settle(qtbot, window)
        window.bench.select(frame)
        _, read = window.bench.selected()
        assert read.readings[-1].density == 0.43


def test_a_name_keeps_its_point(with_commas, qtbot, demo):
    window = demo("Kelda Pan 200", "plan")
    film = field_of(window.station(), "film")
    type_into(film, "Pan 4.5")
    settle(qtbot, window)
    assert field_of(window.station(), "film").text() == "Pan 4.5"
    assert window.bench.loaded.stock.name == "Pan 4.5"


def test_a_card_is_printed_as_it_is_shown_and_kept_with_points(with_commas, qtbot, demo, tmp_path):
    window = demo("Merrow Pan 125", "cards")
    settle(qtbot, window)
    type_into(field_of(window.station(), "file to save the card to"), str(tmp_path / "card.pdf"))
    qtbot.waitUntil((tmp_path / "card.pdf").exists)
    _, words = pdf_words(tmp_path / "card.pdf")
    assert not POINT.findall(words)
    assert re.search(r"\d,\d", words)
    kept = window.bench.notebook.all(Finding)
    assert kept
    assert not any(re.search(r"\d,\d\d", finding.card) for finding in kept)

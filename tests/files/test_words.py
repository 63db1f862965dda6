"""Numbers as people type them."""

import pytest

from vadrin.app.display.quantities import minutes_text
from vadrin.app.entry.numbers import number_typed
from vadrin.app.entry.times import minutes_typed, times_typed


@pytest.mark.parametrize(
    ("typed", "minutes"),
    [("8", 8), ("8,5", 8.5), ("7:50", 7 + 50 / 60), ("7 min 50 s", 7 + 50 / 60), ("9 min", 9)],
)
def test_minutes(typed, minutes):
    assert minutes_typed(typed) == pytest.approx(minutes)


@pytest.mark.parametrize(
    ("typed", "times"),
    [
        ("6, 8, 11 and 15", (6, 8, 11, 15)),
        ("6,8,11", (6, 8, 11)),
        ("5; 8; 12,5", (5, 8, 12.5)),
        ("6,5, 9,25", (6.5, 9.25)),
        ("7:30 11:00", (7.5, 11)),
    ],
)
def test_several_times(typed, times):
    assert times_typed(typed) == pytest.approx(times)


@pytest.mark.parametrize("typed", ["", "6,8", "soon", "6, -3", "nan", "6, 900"])
def test_what_is_no_time_is_refused(typed):
    with pytest.raises(ValueError, match=r"\w"):
        times_typed(typed)


def test_fractions_and_signs():
    assert number_typed("−1⅔") == pytest.approx(-5 / 3)
    assert number_typed("+½") == 0.5
    assert minutes_text(7.83) == "7:50"
    assert minutes_text(1.51) == "1:31"

"""Quantities as people write them: read right, or asked about; never taken apart."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.notebooks import new_test
from vadrin.app.descriptions import description_of
from vadrin.app.display.marks import marked_ei
from vadrin.app.display.quantities import minutes_text
from vadrin.app.entry.exposures import exposure_index_typed, exposure_indexes_typed
from vadrin.app.entry.makers_lines import makers_lines_typed, makers_table_typed
from vadrin.app.entry.numbers import numbers_typed
from vadrin.app.entry.roll_line import roll_typed
from vadrin.app.entry.times import minutes_typed, times_typed
from vadrin.app.plan.plan_edit import PlanEdit
from vadrin.app.plan.variants import start_variant
from vadrin.core.exposure.arithmetic import stops_text
from vadrin.core.planning.test_options import SharedIndexes
from vadrin.errors import EntryError

NORMAL = (0.0, None)

MAKERS_LINES = {
    "normal 9:30": (9.5, *NORMAL),
    "9:30": (9.5, *NORMAL),
    "9:30 min": (9.5, *NORMAL),
    "normal 3:15": (3.25, *NORMAL),
    "normal: 8": (8.0, *NORMAL),
    "normal:8": (8.0, *NORMAL),
    "Normal, 11": (11.0, *NORMAL),
    "8,5": (8.5, *NORMAL),
    "8.5": (8.5, *NORMAL),
    "12": (12.0, *NORMAL),
    "7 min 50 s": (7 + 5 / 6, *NORMAL),
    "normal 7 min 50 sec": (7 + 5 / 6, *NORMAL),
    "push 1 10:30": (10.5, 1.0, None),
    "push 1: 10:30": (10.5, 1.0, None),
    "push 1, 10:30": (10.5, 1.0, None),
    "push 1,10:30": (10.5, 1.0, None),
    "push 1 stop 10:30": (10.5, 1.0, None),
    "push 2 stops 14": (14.0, 2.0, None),
    "push +1 10:30 min": (10.5, 1.0, None),
    "push 1½ 12,5": (12.5, 1.5, None),
    "push ½ 9": (9.0, 0.5, None),
    "pull 1 6,5 min": (6.5, -1.0, None),
    "pull 1: 6": (6.0, -1.0, None),
    "+1 10": (10.0, 1.0, None),
    "+1\t10:15": (10.25, 1.0, None),
    "−1 6": (6.0, -1.0, None),
    "-1; 6": (6.0, -1.0, None),
    "EI 400 12": (12.0, None, 400.0),
    "EI400 12": (12.0, None, 400.0),
    "ISO 400: 12 min": (12.0, None, 400.0),
    "EI 1,600 8": (8.0, None, 1600.0),
    "EI 1600 8": (8.0, None, 1600.0),
    "EI 1 600 8": (8.0, None, 1600.0),
    "ei 12,800 22:30": (22.5, None, 12800.0),
    "400 12": (12.0, None, 400.0),
    "400;12": (12.0, None, 400.0),
    "3200 16:45": (16.75, None, 3200.0),
}
ASKED_ABOUT = (
    "",
    "push",
    "pull",
    "normal",
    "EI 400",
    "EI",
    "1 10",
    "5 12",
    "push 1:10:30",
    "400,12",
    "8 h",
    "soon",
    "push one 10",
    "push 1 0",
    "push 12 8",
    "normal 9:75",
    "normal 9:30:10",
    "8..5",
    "EI 0 8",
    "push 1 2 10",
    "eight",
    "normal -8",
    "8:5:",
    "push 1 10:3O",
)


@pytest.mark.parametrize("words", MAKERS_LINES)
def test_a_line_of_a_makers_table_is_read_as_it_is_meant(words):
    (line,) = makers_lines_typed(words)
    minutes, stops, index = MAKERS_LINES[words]
    assert line.minutes == pytest.approx(minutes)
    assert (line.stops, line.exposure_index) == (stops, index)
    (pasted,) = makers_table_typed(f"{words}\n")
    assert pasted == line


@pytest.mark.parametrize("words", ASKED_ABOUT)
def test_what_may_be_meant_otherwise_is_asked_about_and_never_guessed(words):
    with pytest.raises(EntryError) as refused:
        makers_lines_typed(words)
    assert len(str(refused.value)) > 20, "the form is named"


@settings(deadline=None)
@given(st.integers(1, 6 * 600), st.sampled_from(["push", "pull", "normal"]), st.integers(1, 5))
def test_what_the_program_shows_of_a_time_is_read_back(tens, what, stops):
    minutes = tens / 6
    shown = minutes_text(minutes, exact=True)
    assert minutes_typed(shown) == pytest.approx(minutes, abs=1e-6)
    assert minutes_typed(f"{shown} min") == pytest.approx(minutes, abs=1e-6)
    label = what if what == "normal" else f"{what} {stops_text(float(stops))}"
    (line,) = makers_lines_typed(f"{label} {shown}")
    assert line.minutes == pytest.approx(minutes, abs=1e-6)
    assert line.stops == {"normal": 0, "push": stops, "pull": -stops}[what]


@settings(deadline=None)
@given(st.floats(0.5, 90_000))
def test_an_ei_is_read_back_however_its_thousands_are_parted(index):
    shown = marked_ei(index)
    for words in (f"{shown}", f"EI {shown}", f"{shown:,}", f"{shown:,}".replace(",", " ")):
        assert exposure_index_typed(words) == shown


def test_several_eis_are_never_one_and_one_is_never_several():
    assert exposure_indexes_typed("25, 50, 100") == (25, 50, 100)
    assert exposure_indexes_typed("25,50,100") == (25, 50, 100)
    assert exposure_indexes_typed("800, 1,600 and 3200") == (800, 1600, 3200)
    assert exposure_indexes_typed("800; 1600") == (800, 1600)
    for words in ("1,600", "100,200", ""):
        with pytest.raises(EntryError):
            exposure_indexes_typed(words)
    assert roll_typed("36 frames at EI 1,600").exposure_index == 1600
    assert roll_typed("36 frames at EI 1600, frame 5 doubled").exposure_index == 1600


def test_times_are_parted_by_what_parts_them():
    assert times_typed("6, 8,5 and 11:30") == (6, 8.5, 11.5)
    with pytest.raises(EntryError, match="two times, or one"):
        times_typed("6,8")
    with pytest.raises(EntryError):
        minutes_typed("9:75")


def test_numbers_in_a_list_keep_their_decimal_commas():
    assert numbers_typed("0, 0,5 and 1") == (0, 0.5, 1)
    assert numbers_typed("0; 0,5; 1") == (0, 0.5, 1)
    assert numbers_typed("0,1,2") == (0, 1, 2)
    with pytest.raises(EntryError, match="two numbers, or one"):
        numbers_typed("0,5")


def test_several_eis_on_a_roll_and_an_ei_that_is_changed_are_eis(notebook):
    made = new_test(notebook, "Cairn Pan 100", "Sable", "1+1", kind="mixed roll")
    before = PlanEdit(made, (60.0, 8.0), "Cairn Pan 100", "Sable", "1+1")
    plan = description_of("mixed roll").own_words["indexes"].edit(before, "100, 400, 1,600")
    assert plan.test.options == SharedIndexes((100, 400, 1600))
    changed = start_variant(notebook, made.id, "EI on the meter", "1,600")
    assert changed.exposure_index == 1600

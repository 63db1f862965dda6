"""Readings tables as people really save them."""

import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.notebooks import parsed
from vadrin.errors import FormatError
from vadrin.formats.readings.any_file import read_readings
from vadrin.formats.readings.readings_table import strips_of

PLAIN = "strip,frame,time_min,log_h,density\nA,b,8,,0.21\nA,1,8,-2.1,0.30\nA,1,8,-2.1,0.32\n"


def test_a_table_of_more_rows_than_a_notebook_could_hold_is_refused(tmp_path):
    path = tmp_path / "endless.csv"
    path.write_bytes(b"strip,log_h,density\n" + b"A,0,1\n" * 1_000_001)
    with pytest.raises(FormatError, match="more than 1000000 rows; split the file"):
        read_readings(path)


def test_repeats_and_blanks():
    (strip,) = strips_of(parsed(PLAIN, "t.csv"))
    assert (strip.label, strip.time_min, strip.channel) == ("A", 8.0, "visual")
    assert [(r.log_h, r.density) for r in strip.readings] == [
        (None, 0.21),
        (-2.1, 0.30),
        (-2.1, 0.32),
    ]


@pytest.mark.parametrize("delimiter", [";", "\t"])
def test_decimal_comma_bom_and_windows_lines(tmp_path, delimiter):
    lines = PLAIN.replace(".", "§").replace(",", delimiter).replace("§", ",").split("\n")
    path = tmp_path / "komma.csv"
    path.write_bytes(b"\xef\xbb\xbf" + "\r\n".join(lines).encode())
    table = read_readings(path)
    assert not table.problems
    assert strips_of(table) == strips_of(parsed(PLAIN, "t.csv"))


def test_exposures_by_the_meter():
    text = "density,ei,strip,stops\n0.5,100,A,-3\n0.2,,A,\n"
    (strip,) = strips_of(parsed(text, "t.csv"), meter_constant=10.0)
    assert strip.readings[0].log_h == pytest.approx(-1.0 - 3 * 0.30103, abs=1e-5)
    assert strip.readings[1].log_h is None


def test_a_bad_cell_is_named_and_the_rest_is_kept():
    table = parsed(PLAIN + "A,2,8,-1.9,dark\nA,3,8,-1.6,0.51\n", "t.csv")
    (problem,) = table.problems
    assert (problem.row, problem.column, problem.text) == (5, "density", "dark")
    assert "row 5, column density" in problem.sentence()
    assert [row.frame for row in table.rows] == ["b", "1", "1", "3"]


def test_unknown_columns_are_kept():
    table = parsed("strip,density,log_h,operator\nA,0.3,-2,night shift\n", "t.csv")
    assert table.extra_columns == ("operator",)
    assert table.rows[0].extra == {"operator": "night shift"}


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (b"", "empty"),
        (b"strip,log_h\nA,1\n", "no column “density”"),
        (b"strip,density\nA,1\n", "no column “log_h”"),
        (b"strip,density,log_h\n", "no readings"),
        (b"strip,density,log_h\nA,\xff\xfe\xfa,1\n", "row 2: not UTF-8"),
        (b"PK\x03\x04\x00\x00", "not a spreadsheet"),
        (b"strip,density,density,log_h\nA,1,1,1\n", "stands twice"),
        (b"strip," * 100000, "too long"),
    ],
)
def test_what_is_no_table_is_refused_in_one_line(tmp_path, data, words):
    path = tmp_path / "odd.csv"
    path.write_bytes(data)
    with pytest.raises(FormatError, match=words) as caught:
        read_readings(path)
    assert "odd.csv" in str(caught.value)
    assert "\n" not in str(caught.value)


@given(text=st.text(max_size=300))
@settings(max_examples=150, deadline=None)
def test_any_text_is_read_or_refused(text):
    for header in ("", "strip,density,log_h\n"):
        try:
            table = parsed(header + text, "any.csv")
        except FormatError:
            continue
        assert table.rows or table.problems


def test_an_ei_is_a_mark_and_counts_as_what_is_behind_it():
    table = parsed("strip,frame,ei,stops,density\nA,1,64,0,0.5\nA,2,70,0,0.5\nA,3,100,-1,0.3\n")
    exact, between, plain = (row.exposure(8.125) for row in table.rows)
    assert exact == pytest.approx(math.log10(8.125 / (100 * 2 ** (-2 / 3))))
    assert between == pytest.approx(math.log10(8.125 / 70))
    assert plain == pytest.approx(math.log10(8.125 / 100) - math.log10(2))
    assert [row.ei for row in table.rows] == [64.0, 70.0, 100.0], "kept as it was written"


@pytest.mark.parametrize(("column", "values"), [("time_min", (6, 12)), ("temperature_c", (20, 24))])
def test_one_strip_has_one_development(column, values):
    first, second = values
    rows = f"A,1,-1,0.5,{first}\nA,2,-0.5,0.7,{second}\nB,1,-1,0.6,{second}\nA,3,0,0.9,\n"
    table = parsed(f"strip,frame,log_h,density,{column}\n{rows}")
    (problem,) = table.problems
    assert (problem.row, problem.column) == (3, column)
    assert f"strip A has {first} above" in problem.sentence()
    assert [(r.strip, r.frame) for r in table.rows] == [("A", "1"), ("B", "1"), ("A", "3")]

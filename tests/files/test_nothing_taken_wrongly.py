"""What a file says is taken as it says it, asked about, or named as left out."""

import os
import zipfile

import openpyxl
import pytest

from vadrin.errors import FormatError
from vadrin.formats.readings.any_file import read_readings, write_readings

HEADER = "strip,frame,ei,stops,density\n"


def read_text(tmp_path, text, name="table.csv"):
    path = tmp_path / name
    path.write_text(text, encoding="utf-8")
    return read_readings(path)


@pytest.mark.parametrize(
    ("rows", "eis", "asked"),
    [
        ('A,1,"1,600",0,0.49\n', [], ["1,600"]),
        ('A,1,"1,600",0,"0,49"\n', [1.6], []),
        ("A,1,1600,0,0.49\nA,2,1_0,0,0.5\n", [1600], ["1_0"]),
        ('A,1,"1,234,567",0,0.49\n', [], ["1,234,567"]),
        ('A,1,100,0,"1,234"\n', [100], []),
    ],
)
def test_a_number_that_may_be_two_is_asked_about(tmp_path, rows, eis, asked):
    table = read_text(tmp_path, HEADER + rows)
    assert [r.ei for r in table.rows] == eis
    assert [p.text for p in table.problems] == asked


def test_semicolons_leave_the_comma_to_decimals(tmp_path):
    table = read_text(tmp_path, "strip;frame;ei;stops;density\nA;1;1,600;0;0\n")
    assert table.rows[0].ei == 1.6


def test_stops_without_an_ei_are_no_blank(tmp_path):
    table = read_text(tmp_path, HEADER + "A,1,,-2,0.2\nA,2,100,0,0.5\nA,b1,,,0.1\n")
    assert [(p.row, p.column) for p in table.problems] == [(2, "ei")]
    assert [r.frame for r in table.rows] == ["2", "b1"]


def test_a_reading_without_a_strip_is_asked_about(tmp_path):
    table = read_text(tmp_path, "strip,log_h,density,note\nA,-1,0.4,\n,0,0.9,\n\x02,0,0.9,\n")
    assert [(p.row, p.column) for p in table.problems] == [(3, "strip"), (4, "strip")]


def test_every_column_is_kept_also_without_a_heading(tmp_path):
    table = read_text(tmp_path, "strip,,log_h,density\nA,lid open,-1,0.4\n")
    assert table.rows[0].extra == {"column 2": "lid open"}


def workbook(path, *loaded_tests):
    """Sheets of title, state and rows."""
    book = openpyxl.Workbook()
    book.remove(book.active)
    for title, state, rows in loaded_tests:
        loaded = book.create_sheet(title)
        loaded.sheet_state = state
        for row in rows:
            loaded.append(row)
    book.save(path)
    return path


def sheet_of(density):
    return [["strip", "log_h", "density"], ["A", -1.0, density]]


def test_the_sheet_meant_is_read_and_the_others_named(tmp_path):
    path = workbook(
        tmp_path / "book.xlsx",
        ("old", "hidden", sheet_of(0.1)),
        ("kit", "visible", [["camera"]]),
        ("Readings", "visible", sheet_of(0.3)),
    )
    table = read_readings(path)
    assert [r.density for r in table.rows] == [0.3]
    assert table.left_out_words == "Left out: the hidden sheet “old” and the sheet “kit”."
    sums = ("sums", "visible", [["=1+1"]])
    beside = workbook(tmp_path / "s.xlsx", ("readings", "visible", sheet_of(0.3)), sums)
    assert "sheet “sums”" in read_readings(beside).left_out_words
    with pytest.raises(FormatError, match="formula"):
        read_readings(workbook(tmp_path / "f.xlsx", sums))
    hidden = workbook(tmp_path / "h.xlsx", ("a", "hidden", sheet_of(1)), ("b", "visible", []))
    with pytest.raises(FormatError, match="hidden"):
        read_readings(hidden)


def altered(path, part, old, new):
    """A copy of an archive with one text of one part changed."""
    target = path.with_name("altered" + path.suffix)
    with zipfile.ZipFile(path) as source, zipfile.ZipFile(target, "w") as out:
        for item in source.infolist():
            data = source.read(item)
            if item.filename == part:
                assert old in data
                data = data.replace(old, new)
            out.writestr(item, data)
    return target


@pytest.mark.parametrize("number", [b"1", b"2000000000", b"9999999999999", b"x"])
def test_row_numbers_that_no_sheet_has_are_refused_at_once(tmp_path, number):
    path = workbook(tmp_path / "book.xlsx", ("readings", "visible", sheet_of(0.3)))
    odd = altered(path, "xl/worksheets/sheet1.xml", b'<row r="2"', b'<row r="' + number + b'"')
    with pytest.raises(FormatError, match="again"):
        read_readings(odd)


def test_rows_of_an_open_document_keep_their_numbers(tmp_path):
    source = read_text(tmp_path, "strip,log_h,density\nA,-1,0.4\nA,-0.5,0.9\n")
    path = tmp_path / "table.ods"
    write_readings(source, path)
    with zipfile.ZipFile(path) as archive:
        content = archive.read("content.xml")
    second = content.index(b"<table:table-row", content.index(b"<table:table-row") + 5)
    gap = b'<table:table-row table:number-rows-repeated="5"><table:table-cell/></table:table-row>'
    odd = altered(path, "content.xml", content, content[:second] + gap + content[second:])
    assert [r.row for r in read_readings(odd).rows] == [7, 8]


def test_a_table_is_told_by_what_it_holds(tmp_path):
    plain = read_text(tmp_path, "strip,log_h,density\nA,-1,0.4\n")
    for suffix in (".cgats", ".xlsx", ".ods", ".json", ".csv"):
        written = tmp_path / f"out{suffix}"
        write_readings(plain, written)
        renamed = written.rename(tmp_path / f"out{suffix}.cie")
        assert [r.density for r in read_readings(renamed).rows] == [0.4]


def test_unknown_columns_go_through_cgats_and_mean_nothing_there(tmp_path):
    text = 'strip,log_h,density,channel,grain size,d_vis,450\nA,-1,0.4,red,"3,5 µ",0.9,7\n'
    written = tmp_path / "out.cgats"
    write_readings(read_text(tmp_path, text), written)
    (row,) = read_readings(written).rows
    assert (row.channel, row.density) == ("red", 0.4)
    assert row.extra == {"450": "7", "d_vis": "0.9", "grain_size": "3,5 µ"}


def test_two_times_on_one_strip_are_asked_about_in_cgats_too(tmp_path):
    text = "BEGIN_DATA_FORMAT\nSTRIP FRAME TIME_MIN LOG_H D_VIS\nEND_DATA_FORMAT\nBEGIN_DATA\n"
    table = read_text(tmp_path, f"{text}A 1 6 -1 0.4\nA 2 12 0 0.9\nEND_DATA\n", "two.cgats")
    assert [r.frame for r in table.rows] == ["1"]
    assert [(p.column, p.text) for p in table.problems] == [("time_min", "12")]


def test_a_lone_return_in_a_note_comes_back(tmp_path):
    source = read_text(tmp_path, 'strip,log_h,density,note\nA,-1,0.4,"one\rtwo"\n')
    path = tmp_path / "out.csv"
    write_readings(source, path)
    assert [r.note for r in read_readings(path).rows] == ["one\rtwo"]
    assert path.read_bytes().count(b"\n") == 2


@pytest.mark.parametrize("name", ["pipe.csv", "pipe.xlsx"])
def test_pipes_and_devices_are_no_files(tmp_path, name):
    os.mkfifo(tmp_path / name)
    (tmp_path / "endless.csv").symlink_to("/dev/zero")
    for path in (tmp_path / name, tmp_path / "endless.csv"):
        with pytest.raises(FormatError, match="no file"):
            read_readings(path)


def test_repeats_that_unfold_to_too_much_are_refused(tmp_path):
    source = read_text(tmp_path, "strip,log_h,density\nA,-1,0.4\n")
    path = tmp_path / "table.ods"
    write_readings(source, path)
    row = (
        b'<table:table-row table:number-rows-repeated="39000"><table:table-cell '
        b'table:number-columns-repeated="399" office:value-type="float" office:value="1"/>'
        b"</table:table-row></table:table>"
    )
    with zipfile.ZipFile(path) as archive:
        content = archive.read("content.xml")
    odd = altered(path, "content.xml", content, content.replace(b"</table:table>", row))
    with pytest.raises(FormatError, match="cells"):
        read_readings(odd)

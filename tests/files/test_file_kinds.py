"""Readings go from any kind of file to any other, and foreign files give what they hold."""

import json
import zipfile

import numpy as np
import pytest
from openpyxl import Workbook

from oracles.closed_form import ClosedForm
from tests.notebooks import fill_from_json
from vadrin.app.document.test_loading import load_test
from vadrin.app.read.export_readings import table_of_test
from vadrin.app.read.import_readings import import_table
from vadrin.commands import main
from vadrin.errors import EditRefusedError, FormatError, UnmatchedColumnsError
from vadrin.formats.readings.any_file import read_readings, write_readings
from vadrin.formats.readings.column_matching import STRIP_DENSITY, guessed_columns, table_of
from vadrin.formats.readings.readings_table import ReadingsTable, TableRow
from vadrin.notebook.json_file import notebook_json
from vadrin.notebook.store import Notebook


def a_table(seed=3, extra=True):
    """A table with repeats, blanks, two channels, both exposure forms and odd words."""
    rng = np.random.default_rng(seed)
    rows = []
    for strip in ClosedForm().strips((5.0, 8.0), step=1.0):
        for place, r in enumerate(strip.readings):
            meter = strip.label == "B" and r.log_h is not None
            shared = {
                "strip": strip.label,
                "frame": str(place),
                "time_min": strip.time_min / 3,
                "temperature_c": 20.1,
                "log_h": None if meter else r.log_h,
                "ei": 100 / 3 if meter else None,
                "stops": place / 3 if meter else None,
            }
            for channel in ("visual", "visual", "blue"):
                density = float(r.density + rng.normal(0, 0.01))
                note = '=1+1, "seen" by; all' if place == 3 else ""
                more = {"operator": f"hand {place}"} if extra else {}
                rows.append(
                    TableRow(
                        len(rows) + 2,
                        density=density,
                        channel=channel,
                        note=note,
                        extra=more,
                        **shared,
                    )
                )
    return ReadingsTable("a table", tuple(rows), extra_columns=("operator",) if extra else ())


def values_of(table):
    """What a table says, whatever its order and row numbers."""
    return sorted(
        (
            r.strip,
            r.frame,
            str(r.time_min),
            str(r.temperature_c),
            str(r.log_h),
            str(r.ei),
            str(r.stops),
            r.density.hex(),
            r.channel,
            r.note,
            json.dumps(r.extra, sort_keys=True),
        )
        for r in table.rows
    )


def through_notebook(table, path):
    notebook = Notebook(path)
    loaded = load_test(notebook, import_table(notebook, table).id)
    made = table_of_test(loaded)
    notebook.close()
    return made


def test_readings_survive_every_kind_of_file_and_the_notebook_between(tmp_path):
    table = a_table()
    wanted = values_of(table)
    for step, kind in enumerate(("csv", "cgats", "ods", "xlsx", "tsv", "json")):
        path = tmp_path / f"readings.{kind}"
        write_readings(table, path)
        table = read_readings(path)
        assert table.problems == ()
        assert values_of(table) == wanted, kind
        table = through_notebook(table, tmp_path / f"{step}.vadrin")
        assert values_of(table) == wanted, f"{kind} through the notebook"
    first, second = Notebook(tmp_path / "5.vadrin"), Notebook(tmp_path / "whole.vadrin")
    (tmp_path / "whole.json").write_text(notebook_json(first), encoding="utf-8")
    fill_from_json(second, tmp_path / "whole.json")
    assert second.everything() == first.everything()
    first.close()
    second.close()


def test_a_frame_called_dash_and_words_no_sheet_can_hold_come_through(tmp_path):
    odd = a_table().rows[2]._replace(frame="-", note="n/a")
    table = ReadingsTable("odd", (odd,), (), ())
    for kind in ("csv", "cgats", "ods", "xlsx", "tsv", "json"):
        write_readings(table, tmp_path / f"a.{kind}")
        (back,) = read_readings(tmp_path / f"a.{kind}").rows
        assert (back.frame, back.note) == ("-", "n/a"), kind
    path = tmp_path / "control.csv"
    path.write_text("strip,frame,log_h,density,a\x01b\nA,1,-1.0,0.5,\x02z\n", encoding="utf-8")
    table = read_readings(path)
    for kind in ("ods", "xlsx"):
        write_readings(table, tmp_path / f"b.{kind}")
        (back,) = read_readings(tmp_path / f"b.{kind}").rows
        assert (back.density, dict(back.extra)) == (0.5, {"a b": " z"}), kind


def test_convert_does_all_of_a_file_or_nothing(tmp_path, capsys):
    source, target = tmp_path / "a.csv", tmp_path / "b.ods"
    write_readings(a_table(), source)
    assert main(["convert", str(source), str(target)]) == 0
    assert values_of(read_readings(target)) == values_of(a_table())
    source.write_text(source.read_text() + "\nC,1,,,0,,,smudge,,\n")
    assert main(["convert", str(source), str(tmp_path / "c.xlsx")]) == 2
    said = capsys.readouterr().err.strip().splitlines()[-1]
    assert "a.csv, row" in said
    assert "column density: “smudge”" in said
    assert not (tmp_path / "c.xlsx").exists()


FOREIGN = """CGATS.17
# made elsewhere
ORIGINATOR "some ""other"" program"
KEYWORD "LOT"
LOT "12 b"
NUMBER_OF_FIELDS 4
BEGIN_DATA_FORMAT
SAMPLE_ID SAMPLE_NAME D_RED
D_VIS
END_DATA_FORMAT
NUMBER_OF_SETS 2
BEGIN_DATA
1 "clear base" 0.21 0.18
2 "step 2" 0,55 0.49 # a comment
END_DATA

NUMBER_OF_SETS 1
BEGIN_DATA
3 third 1.1 1.0
END_DATA
BEGIN_DATA_FORMAT
SAMPLE_ID XYZ_X XYZ_Y XYZ_Z
END_DATA_FORMAT
BEGIN_DATA
a1 9 10.0 8
END_DATA
BEGIN_DATA_FORMAT
SAMPLE_ID LAB_L LAB_A LAB_B
END_DATA_FORMAT
BEGIN_DATA
w 100 0 0
END_DATA
"""


def test_foreign_cgats_gives_what_it_holds(tmp_path):
    path = tmp_path / "elsewhere.txt"
    nm = range(380, 731, 10)
    spectral = ["BEGIN_DATA_FORMAT", "SAMPLE_ID " + " ".join(f"SPECTRAL_NM{w}" for w in nm)]
    spectral += ["END_DATA_FORMAT", "BEGIN_DATA", "grey " + " ".join("1.0" for _ in nm)]
    spectral += ["half " + " ".join("50.0" for _ in nm), "END_DATA"]
    path.write_text(FOREIGN + "\n".join(spectral))
    table = read_readings(path)
    assert table.problems == ()
    found = {(r.strip, r.frame, r.channel): r.density for r in table.rows}
    assert found["A", "1", "visual"] == 0.18
    assert found["A", "2", "red"] == 0.55
    assert found["B", "3", "visual"] == 1.0
    assert found["C", "a1", "visual"] == pytest.approx(1.0)
    assert found["D", "w", "visual"] == pytest.approx(0.0)
    assert found["E", "half", "visual"] == pytest.approx(np.log10(2), abs=1e-6)
    assert found["E", "grey", "visual"] == pytest.approx(2.0, abs=1e-6)
    assert next(r for r in table.rows if r.frame == "2").extra["sample_name"] == "step 2"
    assert not table.exposures_known


def test_densities_without_exposures_make_no_test(tmp_path, notebook):
    path = tmp_path / "elsewhere.cgats"
    path.write_text(FOREIGN)
    with pytest.raises(EditRefusedError, match="no exposures"):
        import_table(notebook, read_readings(path))


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("CGATS.17\nBEGIN_DATA\n1 2\nEND_DATA\n", "row 4: data without BEGIN_DATA_FORMAT"),
        (
            "BEGIN_DATA_FORMAT\nSAMPLE_ID D_VIS\nEND_DATA_FORMAT\nBEGIN_DATA\n1 .2 3\nEND_DATA",
            "row 5: 3 values",
        ),
        ("BEGIN_DATA_FORMAT\nSAMPLE_ID D_VIS\nEND_DATA_FORMAT\nBEGIN_DATA\n1 .2", "END_DATA"),
        (
            "BEGIN_DATA_FORMAT\nID CMYK_C\nEND_DATA_FORMAT\nBEGIN_DATA\n1 2\nEND_DATA",
            "no densities",
        ),
    ],
)
def test_a_broken_cgats_file_is_refused_by_row(tmp_path, text, words):
    path = tmp_path / "broken.cgats"
    path.write_text(text)
    with pytest.raises(FormatError, match=words):
        read_readings(path)


def test_a_column_a_strip_is_matched_and_tells_its_time(tmp_path):
    book = Workbook()
    loaded = book.active
    loaded.append([])
    loaded.append(["Step", "rel log H", "A 6 min", "B 8,5 min", "remarks"])
    for i in range(6):
        loaded.append([i, -2.5 + 0.3 * i, 0.1 + 0.05 * i, 0.1 + 0.08 * i, "ok"])
    path = tmp_path / "from the club.xlsx"
    book.save(path)
    with pytest.raises(UnmatchedColumnsError, match="row 2: no column “strip”") as caught:
        read_readings(path)
    raw = caught.value.raw
    columns = guessed_columns(raw)
    wide = (f"{STRIP_DENSITY}A 6 min", f"{STRIP_DENSITY}B 8,5 min")
    assert columns == ("frame", "log_h", *wide, "note")
    table = table_of(raw, columns)
    assert {(r.strip, r.time_min) for r in table.rows} == {("A 6 min", 6.0), ("B 8,5 min", 8.5)}
    assert len(table.rows) == 12
    assert table.rows[-1].density == 0.1 + 0.08 * 5


def ods_with(path, body, name="content.xml"):
    space = "urn:oasis:names:tc:opendocument:xmlns"
    with zipfile.ZipFile(path, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr(
            name,
            f'<?xml version="1.0"?><office:d xmlns:office="{space}:office:1.0" '
            f'xmlns:table="{space}:table:1.0" xmlns:text="{space}:text:1.0">'
            f'<table:table table:name="s">{body}</table:table></office:d>',
        )
    return path


def xlsx_with(path, cell):
    book = Workbook()
    book.active.append(["strip", "log_h", "density"])
    book.active.append(["A", 0.5, cell])
    book.save(path)
    return path


def entity_bomb(path):
    with zipfile.ZipFile(path, "w") as archive:
        nested = "".join(f'<!ENTITY a{i} "&a{i - 1};&a{i - 1};">' for i in range(1, 60))
        archive.writestr("content.xml", f'<!DOCTYPE x [<!ENTITY a0 "x">{nested}]><x>&a59;</x>')
    return path


def zip_bomb(path):
    with zipfile.ZipFile(path, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("content.xml", b"0" * 60_000_000)
        archive.writestr("xl/workbook.xml", b"0" * 10)
    return path


WIDE = '<table:table-cell table:number-columns-repeated="1000000" office:value-type="float" '
HOSTILE = {
    "formula.xlsx": lambda p: xlsx_with(p, "=1/3"),
    "formula.ods": lambda p: ods_with(
        p, '<table:table-row><table:table-cell table:formula="of:=1"/></table:table-row>'
    ),
    "entities.ods": entity_bomb,
    "entities.xlsx": entity_bomb,
    "bomb.xlsx": zip_bomb,
    "bomb.ods": zip_bomb,
    "wide.ods": lambda p: ods_with(
        p, f'<table:table-row>{WIDE} office:value="1"/></table:table-row>'
    ),
    "tall.ods": lambda p: ods_with(
        p,
        '<table:table-row table:number-rows-repeated="900000000">'
        '<table:table-cell office:value-type="float" office:value="1"/></table:table-row>',
    ),
    "wide.csv": lambda p: p.write_text("strip,log_h,density\nA," + "1," * 1_000_000),
    "wrong.csv": lambda p: p.write_bytes("strip,log_h,density\nä,1,1".encode("latin-1")),
    "zeros.csv": lambda p: p.write_bytes(b"\0" * 1000),
    "deep.json": lambda p: p.write_text("[" * 200_000),
    "wide.cgats": lambda p: p.write_text("BEGIN_DATA_FORMAT\n" + "X " * 1_000_000),
    "huge.csv": lambda p: p.write_bytes(b"a" * 21_000_000),
    "not a zip.xlsx": lambda p: p.write_bytes(b"PK\x03\x04 nonsense"),
}


@pytest.mark.parametrize("name", HOSTILE)
def test_a_hostile_file_is_refused_in_one_line(tmp_path, name, capsys):
    path = tmp_path / name
    HOSTILE[name](path)
    assert main(["convert", str(path), str(tmp_path / "out.csv")]) == 2
    said = capsys.readouterr().err
    assert said.count("\n") == 1
    assert name in said
    assert not (tmp_path / "out.csv").exists()

"""The command line given nonsense: one line that says what and how to mend it, nothing written."""

import json
import math
import shutil

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from oracles.closed_form import ClosedForm
from vadrin.commands import main, source_tree

HEAD = "strip,frame,time_min,log_h,density\n"


def row_of(strip, reading):
    x = "" if reading.log_h is None else f"{reading.log_h:.4f}"
    return f"{strip.label},{reading.frame},{strip.time_min:g},{x},{reading.density}\n"


STRIPS = ClosedForm().strips((5.0, 8.0, 12.0), step=1.0)
TRUE = HEAD + "".join(row_of(s, r) for s in STRIPS for r in s.readings)


@pytest.fixture
def table(tmp_path):
    path = tmp_path / "true.csv"
    path.write_text(TRUE, encoding="utf-8")
    return path


def refused(capsys, *arguments):
    """The one line a command was refused with."""
    assert main([str(a) for a in arguments]) == 2
    out, err = capsys.readouterr()
    assert out == "", "nothing that a script would take for an answer"
    lines = err.strip().splitlines()
    assert len(lines) == 1, lines
    assert "Traceback" not in err
    return lines[0]


BAD_TABLES = (
    ("", "empty"),
    ("strip,frame\nA,1\n", "no column “density”"),
    ("strip,frame,density\nA,1,0.4\n", "no column “log_h” and no “ei”"),
    (HEAD, "no readings under the header"),
    (HEAD + "A,1,8,-2,much\n", "row 2, column density: “much”"),
    (HEAD + "A,1,8,-2,0.4\nA,2,-8,-1,0.6\n", "row 3, column time_min: “-8”"),
    (HEAD + "A,1,8,-2,-1\n", "enter a density from 0 to 6"),
    (HEAD + ",1,8,-2,0.4\n", "name the strip"),
    (HEAD.replace("density", "density,density") + "A,1,8,-2,0.4,0.5\n", "stands twice"),
    ("strip,frame,ei,stops,density\nA,4,100,,0.4\n", "column stops: empty"),
    (HEAD + 'A,"1,8,-2,0.4\n', "row 2"),
)


@pytest.mark.parametrize(("text", "words"), BAD_TABLES)
@pytest.mark.parametrize("command", ["analyse", "convert"])
def test_a_table_that_cannot_be_read_is_refused_by_its_place(
    tmp_path, capsys, command, text, words
):
    path, out = tmp_path / "bad.csv", tmp_path / "out.json"
    path.write_text(text, encoding="utf-8")
    extra = ("--out", out) if command == "analyse" else (out,)
    said = refused(capsys, command, path, *extra)
    assert "bad.csv" in said
    assert words in said
    assert not out.exists()


@pytest.mark.parametrize(
    ("name", "data"),
    [
        ("picture.csv", b"\x89PNG\r\n\x1a\n" + bytes(range(256))),
        ("latin.csv", "strip,frame,log_h,density\nA,1,-2,0.4 ± 0.01\n".encode("latin-1")),
        ("nothing.xlsx", b"PK\x03\x04 not a workbook"),
        ("nothing.ods", b""),
        ("nothing.json", b"{"),
        ("list.json", b"[1, 2]"),
        ("deep.json", b"[" * 5000),
        ("nothing.cgats", b"CGATS.17\n"),
        ("odd.xyz", b"hello"),
    ],
)
def test_a_file_that_is_something_else_is_refused_by_its_name(tmp_path, capsys, name, data):
    path = tmp_path / name
    path.write_bytes(data)
    assert name in refused(capsys, "analyse", path)


def test_paths_that_lead_nowhere_are_named(tmp_path, capsys, table):
    assert "no such file" in refused(capsys, "analyse", tmp_path / "missing.csv")
    (tmp_path / "folder.csv").mkdir()
    assert "directory" in refused(capsys, "analyse", tmp_path / "folder.csv")
    assert "no such file" in refused(capsys, "recover", tmp_path / "missing", tmp_path / "copy")
    lost = tmp_path / "no such folder" / "out.json"
    assert str(lost) in refused(capsys, "analyse", table, "--out", lost)
    assert "out.csv" in refused(capsys, "convert", table, lost.with_name("out.csv"))
    taken = tmp_path / "taken"
    taken.write_text("here already")
    assert "taken" in refused(capsys, "snapshot", taken)
    assert taken.read_text() == "here already"


@pytest.mark.parametrize(
    ("options", "words"),
    [
        (("--target", "steepness=3"), "target"),
        (("--target", "zone8=much"), "zone8"),
        (("--target", "average_gradient=nan"), "target"),
        (("--push", "two"), "push"),
        (("--push", ",".join(["1"] * 200)), "push"),
        (("--meter-constant", "0"), "above 0"),
        (("--meter-constant", "inf"), "above 0"),
        (("--meter-constant", "k"), "meter-constant"),
        (("--colour",), "--colour"),
        (("second.csv",), "second.csv"),
    ],
)
def test_options_that_mean_nothing_say_what_would_do(capsys, table, options, words):
    assert words in refused(capsys, "analyse", table, "--json", *options)


def test_what_is_no_notebook_is_not_recovered_into_one(tmp_path, capsys):
    odd, copy = tmp_path / "odd.vadrin", tmp_path / "copy.vadrin"
    odd.write_bytes(b"SQLite format 3\0" + b"\1" * 4096)
    refused(capsys, "recover", odd, copy)
    assert odd.read_bytes()[16:20] == b"\1" * 4
    assert not copy.exists()


def test_a_copy_is_never_written_over_what_is_there(tmp_path, capsys, demo_path):
    source = shutil.copy(demo_path, tmp_path / "whole.vadrin")
    kept = tmp_path / "kept.vadrin"
    kept.write_text("another's work")
    assert "kept.vadrin" in refused(capsys, "recover", source, kept)
    assert kept.read_text() == "another's work"


HALVES = (
    ("analyse",),
    ("convert", "one.csv"),
    ("no-such-command", "x"),
    ("--no-such-option",),
    ("recover", "one"),
)


@pytest.mark.parametrize("arguments", HALVES)
def test_half_a_command_points_to_help(capsys, arguments):
    assert "see --help" in refused(capsys, *arguments)


CELLS = st.sampled_from(
    ["", "A", "0.4", "-2", "1e9", "nan", "−1,5", "8", "x" * 300, "=1+1", "\u200b"]
)


@given(rows=st.lists(st.lists(CELLS, min_size=1, max_size=7), max_size=6))
@settings(
    max_examples=60, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture]
)
def test_any_table_gives_a_report_or_one_line(tmp_path, capsys, rows):
    path = tmp_path / "any.csv"
    path.write_text(HEAD + "\n".join(",".join(r) for r in rows), encoding="utf-8")
    code = main(["analyse", str(path), "--json"])
    out, err = capsys.readouterr()
    assert code in (0, 2)
    if code:
        assert (out, len(err.strip().splitlines())) == ("", 1)
        return
    report = json.loads(out)
    assert report["schema"] == "vadrin-report/1"
    for strip in report["strips"].values():
        value = strip["speed"]["value"]
        assert value is None or (math.isfinite(value) and value > 0)


def test_a_round_trip_through_every_kind_of_file_changes_no_answer(tmp_path, capsys, table):
    assert main(["analyse", str(table), "--json"]) == 0
    wanted = json.loads(capsys.readouterr().out)
    before = table
    for suffix in ("xlsx", "ods", "cgats", "json", "csv"):
        after = tmp_path / f"again.{suffix}"
        assert main(["convert", str(before), str(after)]) == 0
        before = after
    capsys.readouterr()
    assert main(["analyse", str(before), "--json"]) == 0
    found = json.loads(capsys.readouterr().out)
    assert {**found, "source": ""} == {**wanted, "source": ""}


@pytest.mark.parametrize("words", [["bench"], ["snapshot", "shots"]])
def test_what_needs_the_source_tree_says_so_where_there_is_none(
    tmp_path, monkeypatch, capsys, words
):
    monkeypatch.setattr(source_tree, "_ROOT", tmp_path)
    assert main(words) == 2
    assert "needs the source tree" in capsys.readouterr().err

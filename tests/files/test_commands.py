"""The command line: exact keys, exit codes, one line for an error."""

import json
import os
import re
import shutil
import subprocess
import sys
from dataclasses import replace
from pathlib import Path

import pytest

from oracles.closed_form import ClosedForm
from tests.notebooks import new_test
from vadrin.app.shelf.shelf_index import remove_test, shelf_lines
from vadrin.commands import main
from vadrin.notebook.records import Stock, Strip, Test
from vadrin.notebook.store import Notebook

ROOT = Path(__file__).parents[2]
DEMO = ROOT / "src" / "vadrin" / "app" / "demo" / "demo.vadrin"

STRIP_FIGURES = {
    "base_fog",
    "log_h_m",
    "delta_d",
    "speed",
    "zone_ei",
    "fractional_gradient_speed",
    "average_gradient",
    "contrast_index",
    "gamma",
    "zone8_density",
}


@pytest.fixture
def table(tmp_path):
    """A table of exact readings of five strips."""
    lines = ["strip,frame,time_min,temperature_c,log_h,density,channel"]
    for strip in ClosedForm().strips((4.0, 5.75, 8.0, 11.0, 15.5)):
        for r in strip.readings:
            x = "" if r.log_h is None else f"{r.log_h:.5f}"
            lines.append(f"{strip.label},{r.frame},{strip.time_min},20,{x},{r.density},visual")
    path = tmp_path / "exact.csv"
    path.write_text("\n".join(lines) + "\n", encoding="utf-8")
    return path


def is_figure(value):
    if value["value"] is None:
        return bool(value["why"])
    return value["low"] <= value["value"] <= value["high"]


def test_the_report_has_its_keys(table, capsys):
    assert main(["analyse", str(table), "--json", "--push", "-1,0,1,3"]) == 0
    report = json.loads(capsys.readouterr().out)
    assert report["schema"] == "vadrin-report/1"
    assert (report["source"], report["meter_constant"]) == ("exact.csv", 8.125)
    strip = report["strips"]["C"]
    assert set(strip) >= STRIP_FIGURES | {
        "time_min",
        "temperature_c",
        "channel",
        "iso_valid",
        "warnings",
    }
    assert all(is_figure(strip[name]) for name in STRIP_FIGURES)
    assert report["iso"]["tested"] is True
    assert is_figure(report["iso"]["time_min"])
    assert report["finding"]["target"] == {"kind": "average_gradient", "value": 0.58}
    assert [p["stops"] for p in report["push"]] == [-1, 0, 1, 3]
    normal, far = report["push"][1], report["push"][3]
    assert normal["exposure_index"] == pytest.approx(report["finding"]["zone_ei"]["value"])
    assert is_figure(normal["hold_highlight"]["shadow_loss_stops"])
    assert far["hold_midtone"]["tested"] is False
    assert far["hold_midtone"]["nearest_tested_min"] == 15.5


def test_targets_and_out_file(table, tmp_path, capsys):
    out = tmp_path / "report.json"
    for target in ("zone8=1.30", "iso", "contrast_index=0.56", "scene=7"):
        assert main(["analyse", str(table), "--target", target, "--out", str(out)]) == 0
        report = json.loads(out.read_text(encoding="utf-8"))
        assert report["finding"]["target"]["kind"] == target.split("=")[0]
        assert is_figure(report["finding"]["time_min"])
    capsys.readouterr()


def test_channels_are_worked_out_apart(table, tmp_path, capsys):
    rows = table.read_text(encoding="utf-8").splitlines()
    lines = [rows[0]]
    for channel, lift in (("visual", 0.0), ("red", 0.02), ("green", 0.0), ("blue", 0.25)):
        for row in rows[1:]:
            cells = row.split(",")
            cells[5], cells[6] = f"{float(cells[5]) + lift:.6f}", channel
            lines.append(",".join(cells))
    coloured = tmp_path / "colour.csv"
    coloured.write_text("\n".join(lines), encoding="utf-8")
    assert main(["analyse", str(coloured), "--json"]) == 0
    report = json.loads(capsys.readouterr().out)
    assert report["strips"]["A"]["channel"] == "visual"
    assert set(report["channels"]) == {"red", "green", "blue"}
    fog = [report["channels"][c]["strips"]["A"]["base_fog"]["value"] for c in ("green", "blue")]
    assert fog[1] - fog[0] == pytest.approx(0.25, abs=0.001)
    assert is_figure(report["colour_negative_speed"]["C"])
    assert any("stained" in warning for warning in report["warnings"])


def test_tables_on_a_terminal_speak_in_ei_and_time(table, capsys):
    assert main(["analyse", str(table)]) == 0
    shown = capsys.readouterr().out
    assert re.search(r"finding at average gradient 0.58: EI \d+ .*time \d+:\d\d", shown)
    assert "push 1" in shown


@pytest.mark.parametrize(
    ("arguments", "words"),
    [
        (["analyse", "no-such.csv"], "no-such.csv"),
        (["analyse", "{bad}"], "row 3, column density"),
        (["analyse", "{bad}", "--target", "sharpness=3"], "no kind"),
        (["analyse", "{bad}", "--push", "one"], "no list of stops"),
        (["analyse", "{bad}", "--meter-constant", "0"], "above 0"),
        (["analyse"], "readings"),
        (["snapshot"], "folder"),
        (["--frobnicate"], "frobnicate"),
        (["analize"], "was vadrin analyse meant?"),
        (["demoo"], "was vadrin demo meant?"),
        (["winter"], "ends in .vadrin"),
    ],
)
def test_bad_use_is_one_line_and_two(tmp_path, capsys, arguments, words):
    bad = tmp_path / "bad.csv"
    bad.write_text("strip,density,log_h\nA,0.2,\nA,thick,-2\n", encoding="utf-8")
    assert main([a.format(bad=bad) for a in arguments]) == 2
    printed = capsys.readouterr()
    assert words in printed.err
    assert printed.err.strip().count("\n") == 0
    assert printed.out == ""


def test_snapshot_writes_the_views_that_are_asked_for(tmp_path, capsys):
    from PyQt6.QtGui import QImage

    from tools.snapshot import names

    kept = {p.stem for p in (ROOT / "docs" / "screenshots").glob("*.png")}
    assert set(names()) == kept, "every picture of the docs can be made anew"
    assert main(["snapshot", str(tmp_path / "shots"), "curves", "question"]) == 0
    pictures = sorted(p.stem for p in (tmp_path / "shots").glob("*.png"))
    assert pictures == ["curves", "question"]
    assert main(["snapshot", str(tmp_path / "shots"), "curve"]) == 2
    assert "no picture is called curve; there are shelf" in capsys.readouterr().err
    image = QImage(str(tmp_path / "shots" / "curves.png"))
    assert (image.width(), image.height()) == (1280, 800)


def said_by_a_fresh_program(code):
    """What code prints in a process of its own, where nothing is loaded yet."""
    environment = {**os.environ, "QT_QPA_PLATFORM": "offscreen"}
    command = [sys.executable, "-c", code]
    return subprocess.run(
        command, capture_output=True, text=True, env=environment, check=True
    ).stdout


@pytest.fixture
def a_mixed_roll(tmp_path):
    """The demo notebook with nothing left in it but its undecided mixed roll."""
    path = Path(shutil.copy(DEMO, tmp_path / "roll.vadrin"))
    book = Notebook(path)
    for line in shelf_lines(book):
        if line.kind != "mixed roll test":
            remove_test(book, line)
    book.close()
    return path


def test_the_first_shelf_says_what_a_type_of_its_own_answers(a_mixed_roll):
    """In a process of its own: what types answer by is loaded only when it is asked for."""
    code = (
        "import time\n"
        "from pathlib import Path\n"
        "from vadrin.commands.desktop import make_application, open_window\n"
        f"app = make_application(); window = open_window(Path({str(a_mixed_roll)!r}))\n"
        "window.resize(1280, 800); window.show(); window.bench.go('shelf')\n"
        "window.updates.flush(); model = window.station()._model\n"
        "told, end = '', time.monotonic() + 60\n"
        "while 'not decided' not in told and time.monotonic() < end:\n"
        "    app.processEvents(); time.sleep(0.01)\n"
        "    rows = range(model.rowCount())\n"
        "    told = next(t for t in (str(model.data(model.index(r), 0)) for r in rows)\n"
        "                if 'mixed roll' in t)\n"
        "print(told)"
    )
    assert said_by_a_fresh_program(code).strip().endswith("not decided: EI 25 or lower to 200")


def test_the_first_window_waits_for_no_heavy_package():
    """Numbers, plots and papers load while the person looks around, not before."""
    code = (
        "import sys\n"
        "from vadrin.app.demo.demo_copy import demo_notebook\n"
        "from vadrin.commands.desktop import make_application, open_window\n"
        "app = make_application(); window = open_window(demo_notebook())\n"
        "window.show(); app.processEvents()\n"
        "print(*sorted(sys.modules))"
    )
    loaded = set(said_by_a_fresh_program(code).split())
    assert "vadrin.ui.frame.window" in loaded
    heavy = {"numpy", "scipy", "pyqtgraph", "sqlalchemy", "alembic", "reportlab", "openpyxl", "odf"}
    assert not heavy & loaded


def test_long_work_says_on_a_terminal_that_it_goes_on(tmp_path, capsys, monkeypatch):
    from vadrin.commands import analyse as command

    rows = ["strip,frame,time_min,log_h,density"]
    for strip, minutes in (("A", 6), ("B", 9), ("C", 13)):
        rows += [
            f"{strip},{i},{minutes},{-3 + 0.15 * i},{0.2 + 0.02 * minutes * max(0, i - 4):.3f}"
            for i in range(16)
        ]
    table = tmp_path / "film.csv"
    table.write_text("\n".join(rows))
    assert main(["analyse", str(table)]) == 0
    assert "working" not in capsys.readouterr().err, "a file that reads it gets no such line"
    monkeypatch.setattr(command, "PROGRESS_EVERY_S", 0.0)
    monkeypatch.setattr("sys.stderr.isatty", lambda: True, raising=False)
    assert main(["analyse", str(table), "--json"]) == 0
    shown = capsys.readouterr()
    assert "3 strips, working for" in shown.err
    assert "working" not in shown.out


def test_without_a_screen_it_says_so_and_leaves(tmp_path):
    """In a process of its own, as from a terminal at the far end of a line."""
    kept = {k: v for k, v in os.environ.items() if k not in ("DISPLAY", "WAYLAND_DISPLAY")}
    kept.pop("QT_QPA_PLATFORM", None)
    run = subprocess.run(
        [sys.executable, "-m", "vadrin", str(tmp_path / "winter.vadrin")],
        capture_output=True,
        text=True,
        env={**kept, "PYTHONPATH": str(ROOT / "src")},
        timeout=60,
        check=False,
    )
    assert (run.returncode, len(run.stderr.splitlines())) == (2, 1)
    assert "there is no screen" in run.stderr
    assert list(tmp_path.iterdir()) == [], "nothing was made"


def edited(path, name, note):
    """A notebook in which a test of its own was begun, and one it shares got a note."""
    book = Notebook(path)
    new_test(book, name, "Sable")
    shared = book.all(Test)[0]
    with book.change("a note"):
        book.put(replace(shared, note=note))
    book.close()


def held_in(path):
    book = Notebook(path)
    stocks = {s.id: s.name for s in book.all(Stock)}
    made = sorted(
        (stocks[t.stock_id], t.note, len(book.all(Strip, test_id=t.id))) for t in book.all(Test)
    )
    book.close()
    return made


def test_two_copies_that_were_both_edited_come_together_without_loss(tmp_path, demo_path, capsys):
    one, other = (Path(shutil.copy(demo_path, tmp_path / f"{n}.vadrin")) for n in ("one", "other"))
    shared = held_in(one)
    edited(one, "Cairn Pan", "by the window")
    edited(other, "Ostrel Fine", "by the lamp")
    before = {p: p.read_bytes() for p in (one, other)}
    assert main(["merge", str(one), str(other), "-o", str(tmp_path / "both.vadrin")]) == 0
    told = capsys.readouterr().out
    assert "1 new test, " in told
    assert "1 with the work of both" in told
    assert "note: by the window is kept, the other copy says by the lamp" in told
    assert main(["merge", str(other), str(one), "-o", str(tmp_path / "again.vadrin")]) == 0
    both = held_in(tmp_path / "both.vadrin")
    assert both == held_in(tmp_path / "again.vadrin"), "either order gives the same tests"
    lost = [note for _, note, _ in held_in(one) + held_in(other) if note not in str(both)]
    assert lost == ["by the lamp"], "which is said"
    assert len(both) == len(shared) + 2, "one of their own each, and the shared one once"
    assert {p: p.read_bytes() for p in before} == before
    assert main(["merge", str(one), str(other), "-o", str(one)]) == 2
    assert (
        main(["merge", str(one), str(tmp_path / "no.vadrin"), "-o", str(tmp_path / "x.vadrin")])
        == 2
    )
    assert not (tmp_path / "x.vadrin").exists()

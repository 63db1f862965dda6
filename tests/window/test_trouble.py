"""Long files, long analyses, refusals and faults, as the person at the window meets them."""

import shlex
import subprocess
import sys

import numpy as np
import pytest
from PyQt6.QtGui import QGuiApplication
from PyQt6.QtWidgets import QLabel, QPushButton, QToolTip

from tests.window.pages import settle, words_of
from vadrin.commands import main
from vadrin.commands.desktop import _stumble
from vadrin.commands.register import _quoted
from vadrin.core.interruption import interruptible
from vadrin.core.readings import Reading, StripReadings
from vadrin.core.results.analysis import analyse
from vadrin.errors import NotebookError, StoppedError
from vadrin.notebook.records import Reading as ReadingRecord
from vadrin.notebook.records import Test
from vadrin.notebook.store import Notebook
from vadrin.ui.files.refusal_window import RefusalWindow
from vadrin.ui.widgets.tips import set_tip


@pytest.fixture
def long_table(tmp_path):
    path = tmp_path / "long.csv"
    rows = [
        f"S{i // 13},{-3 + 0.3 * (i % 13):.2f},{0.1 + 0.1 * (i % 13):.2f},{'lid open ' * 9}"
        for i in range(3_000)
    ]
    path.write_text("\n".join(["strip,log_h,density,note", *rows]))
    return path


def press_button(widget, words):
    found = next(b for b in widget.findChildren(QPushButton) if b.text() == words)
    found.click()


def test_a_long_file_is_read_beside_the_work_and_can_be_stopped(
    qtbot, open_window, tmp_path, long_table
):
    window = open_window(tmp_path / "winter.vadrin")
    window.importing.offer(long_table)
    assert "Reading long.csv" in words_of(window.banner)
    press_button(window.banner, "Stop, and import nothing")
    settle(qtbot, window)
    assert window.bench.notebook.all(Test) == []
    assert not window.banner.isVisible()
    window.importing.offer(long_table.with_name("long.csv"))
    qtbot.waitUntil(lambda: window.bench.notebook.count(ReadingRecord) == 3_000, timeout=60_000)
    # Hundreds of strips are being worked out; closing waits for none of it.
    window.close()
    assert not window.jobs.busy()


def test_a_computation_stops_where_it_asks():
    x = np.linspace(-3, 0, 9)
    strips = tuple(
        StripReadings(
            f"S{i}",
            5.0 + 0.1 * i,
            20.0,
            tuple(Reading(str(j), float(v), 0.1 + 0.2 * j) for j, v in enumerate(x)),
        )
        for i in range(20)
    )
    asked = []

    def ask():
        asked.append(1)
        if len(asked) == 3:
            raise StoppedError

    with interruptible(ask), pytest.raises(StoppedError):
        analyse(strips)
    assert len(asked) == 3


def test_a_fault_says_what_was_being_done_and_gives_its_details(demo, monkeypatch, tmp_path):
    monkeypatch.setenv("XDG_STATE_HOME", str(tmp_path))
    window = demo("Merrow Pan 125", "read")
    try:
        raise KeyError("odd")
    except KeyError as error:
        _stumble(window, KeyError, error, error.__traceback__)
    said = words_of(window.banner)
    assert "went wrong at read" in said
    assert "KeyError" in said
    assert "errors.txt" in said
    press_button(window.banner, "Copy the details")
    assert "raise KeyError" in QGuiApplication.clipboard().text()


def test_a_notebook_refused_from_the_file_manager_is_saved_in_a_window(qtbot, tmp_path, demo_path):
    path = tmp_path / "hurt.vadrin"
    data = bytearray(demo_path.read_bytes())
    path.write_bytes(data[: int(len(data) * 0.97)])
    opened = []
    try:
        Notebook(path)
    except NotebookError as error:
        window = RefusalWindow(path, error, opened.append)
    qtbot.addWidget(window)
    window.show()
    assert "hurt.vadrin is damaged" in words_of(window)
    press_button(window, "Save what can be recovered as a copy")
    assert [p.name for p in opened] == ["hurt recovered.vadrin"]
    assert not window.isVisible()


def test_tips_show_markup_and_obey_none(qtbot):
    label = QLabel()
    qtbot.addWidget(label)
    set_tip(label, "<img src='/etc/passwd'>\nA & B")
    assert "&lt;img" in label.toolTip()
    set_tip(label, "A & B")
    assert label.toolTip() == "A & B"
    assert QToolTip.text() == ""


@pytest.mark.parametrize(
    ("name", "inside"), [('a"b', r'a\\"b'), ("a$b`", r"a\\$b\\`"), ("50%", "50%%")]
)
def test_names_in_a_desktop_entry_are_quoted(name, inside):
    assert _quoted(name) == f'"{inside}"'


def test_every_refusal_is_one_line(tmp_path, capsys):
    odd = tmp_path / "two\nlines.csv"
    assert main(["analyse", str(odd)]) == 2
    assert capsys.readouterr().err.count("\n") == 1
    run, program = [sys.executable, "-m", "vadrin"], shlex.quote(sys.executable)
    table = tmp_path / "t.csv"
    table.write_text("strip,log_h,density\nA,-2,0.1\nA,-1,0.4\nA,0,0.9\n")
    for command, words in (
        ([*run, "analyse", b"/no/su\xffch.csv"], b"such"),
        (["sh", "-c", f"{program} -m vadrin analyse {table} > /dev/full"], b"space"),
    ):
        done = subprocess.run(command, capture_output=True, timeout=60)
        assert done.returncode == 2
        assert words in done.stderr
        assert done.stderr.count(b"\n") == 1
    piped = f"{program} -m vadrin analyse --json {table} | true"
    done = subprocess.run(["bash", "-o", "pipefail", "-c", piped], capture_output=True, timeout=60)
    assert (done.returncode, done.stderr) == (0, b"")

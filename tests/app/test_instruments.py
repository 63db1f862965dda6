"""Instruments on a line: told by one example, heard over a pseudo-terminal."""

import os
import threading
import time
from collections import Counter

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tools import wires
from vadrin.core.channels import Channel
from vadrin.instruments import serial_line
from vadrin.instruments.line_format import LineFormat
from vadrin.instruments.serial_line import SerialLine
from vadrin.instruments.simulated import (
    DENSITOMETER_LINE,
    THERMOMETER_LINE,
    SimulatedDensitometer,
    SimulatedThermometer,
)
from vadrin.instruments.watched_folder import WatchedFolder


def heard(line, count=1):
    """So many readings of a line."""
    made, end = [], time.monotonic() + 10
    while len(made) < count and time.monotonic() < end:
        made += line.take_all()
        time.sleep(0.005)
    return made


@pytest.mark.parametrize(
    ("example", "line", "value", "channel"),
    [
        ("T= {20.4} C", "T= 18.9 C", 18.9, None),
        ("T= {20.4} C", "T=-3,5C", -3.5, None),
        ("[V] D {1.23}", "R D 0.07", 0.07, Channel.RED),
        ("00:01 {1.23} ok", "13:59 2.07 ok", 2.07, None),
        ("{0.49}", " 1.5 \r\n", 1.5, None),
        ("D[Y]{0.1}", "dB1.4", 1.4, Channel.BLUE),
    ],
)
def test_a_number_is_taken_where_the_example_has_it(example, line, value, channel):
    read = LineFormat(example).read(line)
    assert (read.value, read.channel) == (pytest.approx(value), channel)


@pytest.mark.parametrize("example", ["", "T= 20.4", "{1.2} {2.3}", "{twenty}", "[V] {1} [R]"])
def test_an_example_without_one_number_is_refused(example):
    with pytest.raises(ValueError, match="in braces"):
        LineFormat(example)


@given(st.text(max_size=80))
def test_no_line_makes_it_stumble(line):
    read = LineFormat("T= {20.4} C").read(line)
    assert read is None or np.isfinite(read.value)


def test_a_thermometer_drifts_to_the_room_by_its_clock():
    passed = [0.0]
    probe = SimulatedThermometer(
        24.0, 18.0, 30.0, np.random.default_rng(1), 0.02, lambda: passed[0]
    )
    line = SerialLine(probe.port, LineFormat(THERMOMETER_LINE))
    first = heard(line)[0].value
    passed[0] = 30 * 60.0
    heard(line, 3)
    later = heard(line)[-1].value
    line.close()
    probe.close()
    assert first == pytest.approx(24.0, abs=0.15)
    assert later == pytest.approx(18 + 6 / np.e, abs=0.15)


def test_a_line_that_goes_away_or_speaks_otherwise_is_told():
    meter = SimulatedDensitometer(np.random.default_rng(2), noise=0.0)
    line = SerialLine(meter.port, LineFormat(DENSITOMETER_LINE))
    meter._terminal.say("READY")
    meter.press({Channel.VISUAL: 0.42})
    assert heard(line)[0].value == pytest.approx(0.42)
    assert line.passed_over.take() == "READY"
    meter._terminal.say("x" * 100_000)
    meter.press({Channel.VISUAL: 0.5})
    assert heard(line)[0].value == pytest.approx(0.5), "a flood of rubbish is passed over"
    meter.close()
    end = time.monotonic() + 10
    while not line.lost and time.monotonic() < end:
        time.sleep(0.01)
    assert line.lost
    line.close()


def test_every_way_of_writing_a_file_gives_each_reading_once():
    counts = Counter()
    for number, way in enumerate(2 * wires.WAYS):
        wires.history(number, way, counts)
    wires.lines(counts)
    assert set(counts) == {*(f"{way}: right" for way in wires.WAYS), "lines: right"}


def test_what_is_passed_over_is_counted_and_a_folder_that_goes_is_told(tmp_path):
    folder = WatchedFolder(str(tmp_path), LineFormat("D {1.23}"), every_s=0.01)
    (tmp_path / "log.txt").write_text("READY\nD 0.31\nnoise\n")
    assert [r.value for r in heard(folder)] == [0.31]
    assert folder.passed_over.take() == "noise (2 lines passed over)"
    assert folder.passed_over.take() == "", "told once"
    (tmp_path / "log.txt").unlink()
    tmp_path.rmdir()
    end = time.monotonic() + 10
    while not folder.lost and time.monotonic() < end:
        time.sleep(0.01)
    assert folder.lost
    folder.close()


def test_a_line_begun_before_anybody_listened_is_no_reading(monkeypatch):
    """An instrument that never stops: whenever one begins to listen, a line is under way."""
    # As long as it takes: on a busy machine the one that sends may itself stand still for a while.
    monkeypatch.setattr(serial_line, "_QUIET_S", 30.0)
    meter = SimulatedDensitometer(np.random.default_rng(2), noise=0.0)
    ended = threading.Event()

    def chatter():
        while not ended.is_set():
            for letter in "10.312\r\n":
                os.write(meter._terminal._ours, letter.encode())
                time.sleep(0.001)

    thread = threading.Thread(target=chatter)
    thread.start()
    made = []
    for _ in range(12):
        line = SerialLine(meter.port, LineFormat("{0.31}"))
        made += heard(line, 2)
        line.close()
    ended.set()
    thread.join()
    meter.close()
    assert {r.value for r in made} == {10.312}

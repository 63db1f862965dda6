"""A tester's evening at the enlarger, through the window by keyboard, in the safelight look."""

import re

import numpy as np
import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from tests.notebooks import developed_test
from tests.states import state_of
from tests.window.pages import refusal_of, settle, type_into, words_of
from vadrin.app.decisions.darkroom_card import present_card
from vadrin.app.decisions.decision import choose_method, decide
from vadrin.app.decisions.decision_basis import changes_since_decision
from vadrin.app.printing.print_setups import present_room, print_rooms
from vadrin.app.printing.print_strips import exposures_of
from vadrin.app.process.uptime import Moment, moment_now
from vadrin.app.results.judged_ei import judged_ei
from vadrin.app.results.print_ei import print_answer
from vadrin.app.results.rating import rating_of
from vadrin.core.curves import metrics
from vadrin.core.simulation.film import curve_at, densities, invent_film
from vadrin.notebook.records import (
    Enlarger,
    Judgement,
    Paper,
    PaperGrade,
    PrintSetup,
    PrintStrip,
    Workprint,
)
from vadrin.ui.stations.print import countdown

ALT = Qt.KeyboardModifier.AltModifier
BLACK_S = 9.0
"""Seconds at which the made-up paper is as black as it gets."""


class PrintRoom:
    """A made-up film, developed and read, and a paper that blackens at `BLACK_S`."""

    def __init__(self, qtbot, window):
        self.qtbot, self.window, self.book = qtbot, window, window.bench.notebook
        self.film = invent_film(np.random.default_rng(4), 200.0)
        with self.book.change("kit"):
            self.book.add(Enlarger(name="Slipway column", head="diffuse"))
            paper = self.book.add(Paper(name="Quay matt", grade="2", exposure_scale=1.05))
            for grade, scale, factor in (("1", 1.3, 0.9), ("2", 1.05, 1.0), ("3", 0.8, 1.6)):
                self.book.add(
                    PaperGrade(
                        paper_id=paper.id,
                        grade=grade,
                        exposure_scale=scale,
                        factor=factor,
                        measured=grade == "2",
                    )
                )
        test = developed_test(self.book, "Kelda Pan 200", kind="speed", times=(9.0,))
        window.bench.open_test(test.id)
        window.bench.go("print")
        settle(qtbot, window)
        x = [f.log_h(test.meter_constant) for _, f in window.bench.loaded.frames()]
        self.true = densities(self.film, 9.0, np.array([np.nan if v is None else v for v in x]))
        curve = curve_at(self.film, 9.0)
        self.zone_ei = test.meter_constant / 16 / 10 ** float(metrics.speed_point(curve))

    @property
    def station(self):
        return self.window.station()

    def turn(self, key):
        self.station.setFocus()
        QTest.keyClick(self.station, key, ALT)
        self.window.updates.flush()

    def press(self, key):
        QTest.keyClick(self.station, key)
        self.window.updates.flush()

    def type(self, field, words):
        type_into(field, words)
        self.window.updates.flush()

    def room(self):
        return present_room(self.book, self.window.bench.loaded)

    def make_and_choose(self):
        """Make the strip that is asked for, and choose as an eye does."""
        page = self.station.strip
        page.done.click()
        self.window.updates.flush()
        totals = page.paper._totals
        black = next((n for n, t in enumerate(totals, start=1) if t >= BLACK_S), len(totals))
        self.press(getattr(Qt.Key, f"Key_{black}"))

    def read_densities(self):
        self.window.bench.go("read")
        settle(self.qtbot, self.window)
        field = self.window.station().field
        self.window.bench.select(self.window.bench.loaded.strips[0].frames[0].frame.id)
        for density in self.true:
            type_into(field, f"{density:.2f}")
            self.window.updates.flush()
        settle(self.qtbot, self.window)
        self.window.bench.go("print")
        settle(self.qtbot, self.window)

    def told(self, frame):
        ids = [f.frame.id for f in self.window.bench.loaded.strips[0].frames]
        return self.true[ids.index(frame.frame.id)] - self.true[0] > 0.06


@pytest.fixture
def room(qtbot, open_window, tmp_path):
    return PrintRoom(qtbot, open_window(tmp_path / "winter.vadrin"))


def test_a_whole_evening_from_black_to_the_print(qtbot, room):
    room.read_densities()
    room.window.next_look()
    room.window.next_look()
    setup = room.station.setup.fields
    for name, words in (
        ("enlarger", "Slipway column"),
        ("image size", "18 x 24 cm"),
        ("aperture", "f/8"),
        ("grade", "2"),
        ("paper", "Quay matt"),
        ("its time", "90 s"),
    ):
        room.type(setup[name], words)
    assert not room.room().locked
    room.turn(Qt.Key.Key_T)
    room.make_and_choose()
    coarse = room.room().setup
    assert coarse.black_low_s < BLACK_S <= coarse.black_high_s
    room.make_and_choose()
    once = room.room().setup
    room.make_and_choose()
    fine = room.room().setup
    made = room.room().strips
    assert exposures_of(made[1]) == exposures_of(made[2]), "the fine strip is made twice"
    assert made[1].step == pytest.approx(1 / 3, abs=0.01)
    assert (once.black_s, fine.black_s) == (fine.black_s, pytest.approx(BLACK_S, rel=0.2))
    assert fine.black_low_s < BLACK_S <= fine.black_high_s
    assert fine.black_high_s / fine.black_low_s < coarse.black_high_s / coarse.black_low_s
    assert fine.base_fog == pytest.approx(room.true[0], abs=0.01)
    assert "Locked" not in words_of(room.station) or room.room().locked
    room.turn(Qt.Key.Key_H)
    asked = 0
    while (frame := room.station.covered._asked.frame) is not None:
        room.press(Qt.Key.Key_Y if room.told(frame) else Qt.Key.Key_N)
        asked += 1
    assert 2 <= asked <= 6
    _, index = print_answer(room.window.bench.loaded)
    densitometer = room.window.bench.analysis.strips[0].zone_ei
    assert max(index.low, densitometer.low) < min(index.high, densitometer.high)
    assert densitometer.low <= room.zone_ei <= densitometer.high
    assert "On paper: EI" in words_of(room.window)
    room.window.bench.go("finding")
    settle(qtbot, room.window)
    room.type(room.station.asked.method, "paper")
    settle(qtbot, room.window)
    found = rating_of(room.window.bench.state)
    assert found.index == index, "rated by what the paper tells, once that is chosen"
    room.window.bench.go("print")
    settle(qtbot, room.window)
    room.turn(Qt.Key.Key_C)
    frames = room.window.bench.loaded.strips[0].frames
    for frame, net in zip(frames, room.true - room.true[0], strict=True):
        room.window.bench.select(frame.frame.id)
        room.press(Qt.Key.Key_U if net > 0.3 else Qt.Key.Key_S if net > 0.1 else Qt.Key.Key_N)
        room.press(Qt.Key.Key_4 if net > 0.3 else Qt.Key.Key_1)
    room.press(Qt.Key.Key_B)
    assert f"of {len(frames)} can be used" in words_of(room.station)
    assert "Prints best: frame" in words_of(room.station.contact)
    room.window.bench.go("finding")
    settle(qtbot, room.window)
    room.type(room.station.asked.method, "contact")
    settle(qtbot, room.window)
    best = rating_of(room.window.bench.state)
    assert best.index.value == pytest.approx(100 / 2 ** frames[-1].frame.stops)
    assert "by what prints best on the contact sheet" in words_of(room.window)
    room.window.bench.go("print")
    settle(qtbot, room.window)
    verdicts = [j for j in room.book.all(Judgement) if j.way == "contact sheet"]
    assert len(verdicts) == 2 * len(frames) + 1
    room.turn(Qt.Key.Key_G)
    assert "the negative ranges over" in words_of(room.station.grade)
    room.window.bench.select(frames[6].frame.id)
    room.window.updates.flush()
    room.type(room.station.grade.print, "12 s grade 3, burn sky +1 stop: good")
    (made,) = room.book.all(Workprint)
    assert (made.seconds, made.grade, made.work, made.verdict) == (
        12.0,
        "3",
        "burn sky +1 stop",
        "good",
    )
    assert "12 s on grade 3, burn sky +1 stop: good" in words_of(room.station)
    room.station.grade.keep_picture(room.book.path.parent / "good.png")
    room.window.updates.flush()
    assert "its picture: good.png" in words_of(room.station)
    best = room.station.grade._best
    room.station.grade.strip_on.click()
    settle(qtbot, room.window)
    assert room.station.shown == "strip"
    now = present_room(room.book, room.window.bench.loaded)
    assert now.setup.grade == best.grade
    while room.book.undo_label() and room.book.all(PrintSetup):
        room.window.bench.undo()
        room.window.updates.flush()
    assert not room.book.all(PrintStrip)
    assert not [j for j in room.book.all(Judgement) if j.way == "contact sheet"]


def test_nothing_may_move_once_a_strip_is_made(room):
    fields = room.station.setup.fields
    room.type(fields["aperture"], "f/8")
    room.type(fields["aperture"], "f/11")
    assert len(print_rooms(room.book, room.window.bench.loaded)) == 1
    room.turn(Qt.Key.Key_T)
    room.make_and_choose()
    said = []
    room.window.bench.said.connect(said.append)
    room.turn(Qt.Key.Key_S)
    assert "Locked" in words_of(room.station)
    room.type(fields["grade"], "3")
    assert any("has changed, so the earlier series is closed" in words for words in said)
    before, now = print_rooms(room.book, room.window.bench.loaded)
    assert before.setup.closed_at
    assert before.setup.black_s
    assert (now.setup.grade, now.setup.black_s, now.locked) == ("3", None, False)
    assert "ended: grade changed" in words_of(room.station)
    room.type(fields["aperture"], "wide")
    assert "not a number" in refusal_of(room.window)
    room.type(fields["enlarger"], "nobody's")
    assert "in the cupboard yet" in refusal_of(room.window)


def test_the_lamp_is_counted_down_exposure_by_exposure(room, monkeypatch):
    passed, first = [0.0], moment_now()
    monkeypatch.setattr(
        countdown, "moment_now", lambda: Moment(first.wall, first.uptime + passed[0], "one")
    )
    room.turn(Qt.Key.Key_T)
    page = room.station.strip
    room.type(page.fields["first section"], "4 s")
    room.type(page.fields["sections"], "3")
    room.type(page.fields["step"], "2 s")
    assert page.countdown.times == (4.0, 2.0, 2.0)
    assert "Total: section 1 4.0 s, section 2 6.0 s, section 3 8.0 s" in words_of(page)
    heard = []
    page.countdown._cue.next = lambda turned: heard.append(turned)
    room.press(Qt.Key.Key_Space)
    for _ in range(5):
        page.countdown.tick()
        passed[0] += 1.0
    assert heard == [False] * 4 + [True], "a sound a second, another at the end"
    assert not page.countdown.running
    assert "exposure 2 of 3" in page.countdown.accessibleDescription()
    for _ in range(2):
        room.press(Qt.Key.Key_Space)
        passed[0] += 2.0
        page.countdown.tick()
    room.window.updates.flush()
    (made,) = room.book.all(PrintStrip)
    assert (made.base_s, made.step, made.step_unit, made.pieces) == (4.0, 2.0, "seconds", 3)
    assert "matches the next one" in words_of(page)


@pytest.mark.parametrize(
    ("name", "words", "why"),
    [
        ("first section", "0", "above 0|lies between"),
        ("sections", "40", "2 to 24"),
        ("step", "none", "not a number"),
        ("covering", "by magic", "adding up"),
        ("purpose", "luck", "maximum black"),
        ("first section", "2000 s", "over an hour"),
    ],
)
def test_a_strip_that_is_none_is_refused_in_words(room, name, words, why):
    room.turn(Qt.Key.Key_T)
    room.type(room.station.strip.fields[name], words)
    assert re.search(why, refusal_of(room.window))
    assert room.book.all(PrintStrip) == []


def test_black_is_told_by_densities_and_carried_to_another_film(room):
    room.turn(Qt.Key.Key_T)
    page = room.station.strip
    room.type(page.densities, "1.0 1.5")
    assert "make a strip for maximum black first" in refusal_of(room.window)
    page.done.click()
    room.window.updates.flush()
    room.type(page.densities, "0.4 0.9 1.4")
    assert "8 sections, and 3 were typed" in refusal_of(room.window)
    room.type(page.densities, "0.4 0.8 1.2 1.6 1.9 2.05 2.07 2.08")
    setup = room.room().setup
    assert setup.black_way == "by reflection density"
    assert setup.black_low_s < setup.black_s < setup.black_high_s
    assert setup.black_high_s == pytest.approx(2.0 * 2**2.6, rel=1e-3)
    room.turn(Qt.Key.Key_S)
    room.type(room.station.setup.fog, "0.55")
    assert "read the blanks first" in words_of(room.station)
    room.type(room.station.setup.other_size, "30 x 40 cm")
    assert "Say both sizes" in words_of(room.station)


def test_grades_wait_for_what_they_need(room):
    room.turn(Qt.Key.Key_G)
    assert "no curve yet" in words_of(room.station)
    room.turn(Qt.Key.Key_H)
    assert "Find the shortest time for maximum black first" in words_of(room.station)
    room.turn(Qt.Key.Key_C)
    assert "No contact print was judged yet" in words_of(room.station)


def test_a_roll_that_was_only_printed_is_rated_and_gets_its_card(qtbot, room):
    room.turn(Qt.Key.Key_H)
    room.turn(Qt.Key.Key_T)
    for _ in range(3):
        room.make_and_choose()
    room.turn(Qt.Key.Key_C)
    frames = room.window.bench.loaded.strips[0].frames
    best = next(f for f in frames if f.frame.stops == 1.0)
    room.window.bench.select(best.frame.id)
    room.press(Qt.Key.Key_U)
    room.press(Qt.Key.Key_B)
    settle(qtbot, room.window)
    loaded, analysis = room.window.bench.loaded, room.window.bench.analysis
    found = rating_of(state_of(loaded, analysis))
    assert found.index.value == pytest.approx(50.0)
    assert found.index.low < 50.0 < found.index.high
    assert found.time_min.value == pytest.approx(9.0, rel=0.01)
    card = present_card(state_of(loaded, analysis))
    assert card.exposure_index == "50"
    assert "by what prints best on the contact sheet, 1 contact print; no density" in card.basis
    assert "Prints at" in card.basis
    decide(room.book, state_of(loaded, analysis))
    settle(qtbot, room.window)
    assert changes_since_decision(room.window.bench.loaded) is None
    room.turn(Qt.Key.Key_H)
    while (frame := room.station.covered._asked.frame) is not None:
        room.press(Qt.Key.Key_Y if room.told(frame) else Qt.Key.Key_N)
    settle(qtbot, room.window)
    loaded = room.window.bench.loaded
    assert judged_ei(loaded).way.method.key == "paper", "half-covered strips come before a look"
    room.window.bench.edit(lambda book: choose_method(book, loaded.test, "contact sheet"))
    settle(qtbot, room.window)
    assert judged_ei(room.window.bench.loaded).index.value == pytest.approx(50.0)

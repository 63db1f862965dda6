"""Jobs that end elsewhere than at a kind's own answer, through the real window by keyboard."""

import math
import re

import numpy as np
import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QApplication

from oracles.film_shapes import SHAPES
from tests.window.film_tester import ALT
from tests.window.pages import CTRL, DOWN, ENTER, SPACE, TAB, UP, Hands, pdf_words, words_of
from vadrin.notebook.records import Judgement, PaperGrade, RuleTrial, Workprint

PLAIN = SHAPES["plain"]


def turning(x):
    """Density of a film that is densest at lg exposure 1.4 and thinner beyond."""
    if x is None:
        return 0.22
    over = max(0.0, x - 1.4)
    return 0.22 + 2.1 / (1 + np.exp(-2.4 * (x + 0.6))) - 0.4 * over - 0.1 * over**2


def test_how_much_light_a_film_stands_is_told_where_it_turns_back(tester):
    tester.plan("speed", index="100")
    for name, words in (("step of the bracket", "whole stops"), ("most exposure in stops", "+14")):
        tester.to(name)
        tester.write(words)
    tester.shoot_and_develop()
    tester.read(lambda _s, f: turning(tester.at(f)))
    words, told, _ = tester.decide_and_print()
    strip = told["strips"]["A"]
    assert strip["max_density"]["value"] == pytest.approx(2.1, abs=0.08)
    assert strip["usable_stops"]["low"] < strip["usable_stops"]["high"]
    assert [w for w in strip["warnings"] if "turns back" in w]
    assert not [w for w in strip["warnings"] if "neighbours" in w], "none of them is misread"
    tester.press(Qt.Key.Key_5, CTRL)
    tester.settle()
    assert "Strip A turns back: 2.3" in words_of(tester.window)
    assert "EI" in words


def test_a_friend_gets_a_card_to_push_by(tester):
    tester.plan("time", film="Brannock 400", index="400")
    tester.shoot_and_develop()
    tester.read(lambda s, f: PLAIN.density(tester.at(f), s.minutes))
    _, told, _ = tester.decide_and_print()
    tester.to("what the card is of")
    tester.write("push 2")
    tester.to("file to save the card to")
    tester.press(Qt.Key.Key_A, CTRL)
    path = tester.folder / "friend.pdf"
    tester.write(str(path))
    pages, words = pdf_words(path)
    assert pages == 1
    assert "decided" in words
    assert "not decided" not in words
    for step in ("1 Set the meter to EI", "2 Shoot", "3 Mark", "4 Develop", "5 Expect"):
        assert step in words
    assert told["finding"]["time_min"]["value"] < 10
    # What was decided has changed since: the card says so.
    tester.press(Qt.Key.Key_7, CTRL)
    tester.to("wanted value")
    tester.write("0.62")
    tester.settle()
    tester.press(Qt.Key.Key_8, CTRL)
    tester.to("what the card is of")
    tester.write("push 2")
    tester.to("file to save the card to")
    tester.press(Qt.Key.Key_A, CTRL)
    tester.write(str(path))
    assert "changed since" in pdf_words(path)[1]


def test_a_laboratory_pushes_by_its_table_and_the_plan_follows(tester):
    tester.plan("push", film="Gannet Colour", index="32")
    tester.press(Qt.Key.Key_3, CTRL)
    tester.press(Qt.Key.Key_M, ALT)
    for line in ("normal 3:15", "push 1 3:45", "push 2 4:30"):
        tester.to("line of the maker's table")
        tester.write(line)
    tester.press(Qt.Key.Key_G, ALT)
    tester.press(Qt.Key.Key_1, CTRL)
    tester.settle()
    said = words_of(tester.window)
    assert (
        "has 3:15 for the normal, 3:45 for push 1 and 4:30 for push 2; this plan does not" in said
    )
    assert "as the maker's table has them" not in said
    for typed, times, says in (
        ("6:30", [6.5, 7.5, 9.0], "as much longer than the normal as in the maker's table"),
        ("3:15", [3.25, 3.75, 4.5], "as the maker's table has them: not measured here"),
    ):
        tester.to("pushes in stops")
        tester.write("0, 1 and 2")
        tester.to("development time in minutes")
        tester.write(typed)
        tester.settle()
        assert [s.strip.planned_min for s in tester.loaded.strips] == pytest.approx(times)
        assert says in words_of(tester.window)
    tester.shoot_and_develop()
    tester.read(lambda s, f: PLAIN.density(tester.at(f), 2.0 * s.minutes))
    words, told, _ = tester.decide_and_print()
    assert "push 1" in words
    assert told["finding"]["tested"] is True


def test_a_rule_of_thumb_is_sealed_before_and_scored_after(tester):
    tester.plan("push", index="32", development_time_in_minutes="6")
    tester.press(Qt.Key.Key_3, CTRL)
    tester.to("Rules")
    tester.press(ENTER)
    tester.to("rule of thumb")
    tester.write("33 %", TAB)
    tester.write("1", TAB)
    tester.write("6")
    assert "It says 8:00." in words_of(tester.window)
    tester.to("Record this prediction")
    tester.press(ENTER)
    tester.press(Qt.Key.Key_G, ALT)
    tester.shoot_and_develop()
    tester.read(lambda s, f: PLAIN.density(tester.at(f), s.minutes))
    _, told, _ = tester.decide_and_print()
    normal = told["finding"]["time_min"]["value"]
    tester.press(Qt.Key.Key_3, CTRL)
    tester.to("Rules")
    tester.press(ENTER)
    tester.to("take what the test found, trial 1")
    true = 6 * PLAIN.push_time(normal, 1, 3) / normal
    offered = re.search(r"Take (\d+):(\d+)", QApplication.focusWidget().text())
    assert int(offered[1]) + int(offered[2]) / 60 == pytest.approx(true, rel=0.02)
    tester.press(ENTER)
    tester.settle()
    (trial,) = tester.bench.notebook.all(RuleTrial)
    assert (trial.predicted_min, trial.test_id) == (pytest.approx(7.98), tester.loaded.test.id)
    assert trial.predicted_min / trial.measured_min == pytest.approx(7.98 / true, rel=0.02)
    said = words_of(tester.window)
    assert "33 % a stop: Close so far. Of 1 trial 1 was within 10 %" in said
    assert "Sable 1+1 1 stop 8:00 × 1.09" in said
    tester.to("measured, trial 1")
    tester.write("not reached")
    tester.settle()
    (trial,) = tester.bench.notebook.all(RuleTrial)
    assert (trial.measured_min, trial.note) == (None, "not reached")


def test_beyond_the_meters_dial_in_a_semi_stand_that_cools(tester, hours):
    tester.plan("speed", index="3200", camera="Quay folder", development_time_in_minutes="60")
    tester.press(Qt.Key.Key_9, CTRL)
    tester.qtbot.keyClicks(QApplication.focusWidget(), "Cameras")
    tester.to("meter dial to EI")
    tester.write("800")
    tester.to("exposure compensation ±")
    tester.write("3")
    tester.press(Qt.Key.Key_2, CTRL)
    tester.settle()
    said = "Set the meter to EI 3200 (the dial ends before it: set 800 and −2 compensation)"
    assert said in words_of(tester.window)
    with tester.unseen():
        tester.press(SPACE, times=len(tester.loaded.frames()))
    tester.press(Qt.Key.Key_3, CTRL)
    tester.to("agitation")
    tester.write("first 60 s, then 10 s at 30 min")
    tester.to("Clock")
    tester.press(ENTER)
    assert "Nobody noted how warm the bath is" in words_of(tester.window)
    tester.to("temperature of the bath")
    tester.write("21")
    tester.to("Start the clock")
    tester.press(ENTER)
    clock = tester.window.pages.station("process").clock
    for seconds, warm in ((1200, "20.5"), (1200, "19.5"), (600, "19")):
        hours.passed += seconds
        clock.tick()
        tester.to("temperature of the bath")
        tester.write(warm)
    # Worth what was done: the bath went evenly from each noted temperature to the next.
    done = sum(
        s * np.mean(2.5 ** ((np.linspace(a, b, 200) - 20) / 10))
        for s, a, b in ((1200, 21, 20.5), (1200, 20.5, 19.5), (600, 19.5, 19))
    )
    last = (3600 - done) / 2.5**-0.1
    minutes, seconds = divmod(math.ceil(last), 60)
    assert f"take out strip A in {minutes}:{seconds:02d}" in clock.face.whole()
    hours.passed += last
    clock.tick()
    tester.settle()
    tester.to("On to: Stop")
    tester.press(ENTER)
    tester.press(ENTER, CTRL)
    (strip,) = tester.loaded.strips
    assert strip.strip.time_min * 60 == pytest.approx(3000 + last, abs=1.5)
    assert strip.strip.temperature_c == pytest.approx(
        20 + 10 * np.log(3600 / (3000 + last)) / np.log(2.5), abs=0.02
    )
    true = 8.125 / 16 / 10 ** (PLAIN.x_m(8.0) - 2.0)
    tester.read(lambda _s, f: PLAIN.density(tester.at(f) and tester.at(f) + 2.0, 8.0))
    words, told, _ = tester.decide_and_print()
    figures = told["strips"]["A"]
    assert figures["zone_ei"]["low"] <= true <= figures["zone_ei"]["high"]
    assert figures["restated_min"] == pytest.approx(60.0, rel=0.002)
    assert (figures["time_from"], figures["temperature_from"]) == ("done", "told")
    for part in ("EI 3200", "60:00", "60:05 min tested", "first 60 s, then 10 s at 30 min"):
        assert part in words


def test_from_a_pushed_roll_to_a_print(tester):
    black_s = 9.0
    tester.press(Qt.Key.Key_9, CTRL)
    tester.qtbot.keyClicks(QApplication.focusWidget(), "Papers")
    for down, typed in enumerate(
        (
            ("Quay matt", "2", "1.05"),
            ("Quay matt", "1", "1.3", "0.9", "no"),
            ("Quay matt", "2", "1.05", "1", "yes"),
            ("Quay matt", "3", "0.8", "1.6", "no"),
        )
    ):
        tester.to("kinds")
        tester.press(DOWN, times=down == 1)
        tester.press(Qt.Key.Key_E, CTRL)
        for words in typed:
            tester.write(words, TAB)
    book = tester.bench.notebook
    assert [g.factor for g in book.all(PaperGrade)] == [0.9, 1.0, 1.6]
    tester.plan("push", index="32", development_time_in_minutes="6")
    tester.shoot_and_develop()
    tester.read(lambda s, f: PLAIN.density(tester.at(f), s.minutes))
    tester.press(Qt.Key.Key_6, CTRL)
    tester.to("enlarger")
    for words in ("Slipway column", "18 x 24 cm", "f/8", "2", "Quay matt", "", "", "90 s"):
        tester.write(words, TAB)
    tester.press(Qt.Key.Key_T, ALT)
    tester.settle()
    for _ in range(3):
        tester.to("Mark as exposed")
        tester.press(ENTER)
        tester.settle()
        said = words_of(tester.window).partition("Total:")[2]
        totals = [float(t) for t in re.findall(r"\d+ ([\d.]+) s", said)]
        black = next(n for n, t in enumerate(totals, start=1) if t >= black_s)
        tester.press(getattr(Qt.Key, f"Key_{black}"))
    assert "Maximum black from 9.0 s (7.5 s to 11 s), by eye" in words_of(tester.window)
    tester.press(Qt.Key.Key_C, ALT)
    with tester.unseen():
        tester.press(UP, times=len(tester.loaded.frames()))
        for strip, frame in tester.loaded.frames():
            net = PLAIN.density(tester.at(frame), strip.minutes) - 0.2
            tester.press(Qt.Key.Key_U if net > 0.3 else Qt.Key.Key_S if net > 0.1 else Qt.Key.Key_N)
            tester.press(DOWN)
    seen = [j.answer for j in book.all(Judgement, way="contact sheet")]
    assert len(seen) == len(tester.loaded.frames())
    tester.press(Qt.Key.Key_G, ALT)
    said = words_of(tester.window)
    ranges = re.search(r"negative ranges over (\d+\.\d+)", said)[1]
    minutes = tester.bench.selected()[0].minutes
    assert float(ranges) == pytest.approx(PLAIN.zone8(minutes) - 0.10, abs=0.05)
    assert f"1 1.30, as its maker says {float(ranges) - 1.30:.2f} harder than it asks for" in said
    tester.to("a print of this frame")
    tester.write("12 s grade 1, burn sky +1 stop: good")
    (made,) = book.all(Workprint)
    assert (made.seconds, made.grade, made.verdict) == (12.0, "1", "good")
    words, _, _ = tester.decide_and_print()
    assert "Prints at 9.0 s on grade 2, 18 x 24 cm." in " ".join(words.split())
    assert "push 1" in words
    tester.press(Qt.Key.Key_6, CTRL)
    assert "12 s on grade 1, burn sky +1 stop: good" in words_of(tester.window)


def worth(strip):
    """Minutes at 20 °C that a strip got."""
    return strip.strip.time_min * 2.5 ** ((strip.strip.temperature_c - 20) / 10)


def test_one_thing_at_a_time_in_a_long_stand_and_a_share_on_trial(tester):
    # A stand bath works ever slower: the longest does no more than 16 minutes of the usual.
    def stands(usual):
        return -45 * np.log(1 - usual / 16)

    tester.plan("push", index="32", development_time_in_minutes="20")
    tester.to("pushes in stops")
    tester.write("0, 1, 2, 3")
    tester.press(Qt.Key.Key_3, CTRL)
    tester.to("agitation")
    tester.write("first 60 s, then stand")
    got = (("A", "20", "20"), ("B", "45", "20,5"), ("C", "60", "21"), ("D", "120", "22"))
    for label, minutes, degrees in got:
        tester.to(f"time of strip {label}")
        tester.write(minutes)
        tester.to(f"temperature of strip {label}")
        tester.write(degrees)
    tester.press(Qt.Key.Key_2, CTRL)
    tester.press(SPACE, times=len(tester.loaded.frames()))
    tester.read(lambda s, f: PLAIN.density(tester.at(f), 16 * (1 - np.exp(-worth(s) / 45))))
    words, told, _ = tester.decide_and_print()
    usual = PLAIN.time_for(PLAIN.gradient, 0.58)
    time = told["finding"]["time_min"]
    assert time["low"] <= stands(usual) <= time["high"]
    for push in told["push"]:
        figure = push["hold_highlight"]["time_min"]
        true = stands(PLAIN.push_time(usual, push["stops"], 3))
        if push["stops"] > 2:
            # Shot, too, and it has its row: the longest strip did not reach it.
            assert true > 120
            assert "run a strip for more" in figure["why"]
        elif push["stops"] > 0:
            assert figure["low"] <= true <= figure["high"]
    assert "first 60 s, then stand" in words
    assert re.search(r"push 2 100 \S+ −1⅔ stops salvageable", words)
    tester.press(Qt.Key.Key_7, CTRL)
    tester.settle()
    assert "thin shadows are exposure, and no time brings them back" in words_of(tester.window)
    assert "typically 0.9" in words_of(tester.window), "a share a stop is on trial here"
    before = tester.loaded
    tester.press(Qt.Key.Key_0, CTRL)
    tester.press(Qt.Key.Key_L, CTRL)
    tester.write("agitation", TAB)
    tester.write("first 60 s, then stand")
    assert "there too" in words_of(tester.window)
    tester.write("first 60 s, then 10 s every 10 min")
    tester.settle()
    assert tester.loaded.test.like_id == before.test.id
    assert tester.loaded.test.agitation == "first 60 s, then 10 s every 10 min"
    assert [s.strip.planned_min for s in tester.loaded.strips] == [
        s.strip.planned_min for s in before.strips
    ]


@pytest.mark.parametrize(
    ("film", "index", "says", "words"),
    [
        ("Merrow Pan 125, batch M3", "160", "Develop 9:20 min", "Push 1 stop: shot at EI 160"),
        ("Merrow Pan 125, batch M3", "80", "Develop 7:35 min", "In Sable 1+1 at 20 °C"),
        ("Gull Pan 50", "50", "", "no maker's time is kept for it"),
    ],
)
def test_a_roll_that_was_shot_is_told_its_time_from_the_shelf(
    demo, qtbot, film, index, says, words
):
    window = demo("Merrow Pan", "shelf")
    hands = Hands(qtbot, window)
    hands.press(Qt.Key.Key_R, CTRL)
    for typed in (film, index, "Sable 1+1"):
        hands.write(typed, TAB if typed != "Sable 1+1" else ENTER)
    hands.settle()
    assert window.bench.station == "finding"
    assert window.bench.loaded.test.kind == "wrong setting"
    said = words_of(window.station())
    assert says in said
    assert words in said
    assert hands.steps <= 5


def test_an_untested_roll_goes_by_the_makers_figure_marked_as_that(tester):
    tester.plan("push", film="Gannet Colour 100", index="100")
    tester.press(Qt.Key.Key_3, CTRL)
    tester.press(Qt.Key.Key_M, ALT)
    for line in ("normal 3:15", "push 1 3:45"):
        tester.to("line of the maker's table")
        tester.write(line)
    tester.press(Qt.Key.Key_0, CTRL)
    tester.press(Qt.Key.Key_R, CTRL)
    tester.write("Gannet Colour 100", TAB)
    tester.write("banana", TAB)
    tester.write("Sable 1+1")
    assert tester.bench.station == "shelf"
    assert "EI" in words_of(tester.window.station().shot)
    tester.to("EI of the roll")
    tester.write("200")
    tester.settle()
    said = words_of(tester.window.station())
    assert "Develop 3:45 min" in said
    assert "the maker's figure, not measured here. Push 1 stop: shot at EI 200" in said

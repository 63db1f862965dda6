"""A notebook that has tested films in a developer foretells the next one, says so, and can be told
not to."""

import json
import re
from dataclasses import replace

import numpy as np
import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtGui import QGuiApplication

from oracles.film_shapes import SHAPES, varied
from tests.notebooks import developed_test, new_test
from tests.window.pages import CTRL, Hands, field_of, pdf_words, settle, type_into, words_of
from vadrin.app.decisions.decision import decide
from vadrin.app.display.quantities import minutes_text
from vadrin.app.document.state import State, answer_to
from vadrin.app.document.test_loading import load_test
from vadrin.app.document.workbench import Topic
from vadrin.app.learning.left_out import leave_estimates_out
from vadrin.app.learning.past_tests import past_tests
from vadrin.app.loaded.light_boxes import light_box_result
from vadrin.app.read.entering_readings import add_reading
from vadrin.app.read.light_box_judging import answer_question, begin_again
from vadrin.core.judging.eye_answers import EyeVerdict
from vadrin.notebook.records import Finding, MakerTime, Stock, Test
from vadrin.ui.frame.learning_ahead import LearningAhead
from vadrin.ui.plots.range_rows import RangeRows

ALT = Qt.KeyboardModifier.AltModifier
PLAIN = SHAPES["plain"]
SAID = "Estimated from your other tests"


def read_film(book, name, film, times):
    test = developed_test(book, name, index=100.0, times=times)
    loaded = load_test(book, test.id)
    with book.change("read"):
        for strip, frame in loaded.frames():
            x = frame.log_h(loaded.test.meter_constant)
            if frame.readable:
                density = film.density(None if frame.frame.blank else x, strip.minutes)
                add_reading(book, frame, round(float(density), 3))
    return test


@pytest.fixture
def learnt(open_window, tmp_path):
    window = open_window(tmp_path / "winter.vadrin")
    book, rng = window.bench.notebook, np.random.default_rng(3)
    for number in range(4):
        test = read_film(
            book, f"Film {number}", varied(SHAPES["plain"], rng), (6.0, 8.0, 11.0, 15.0)
        )
        loaded = load_test(book, test.id)
        state = State(loaded)
        decide(book, State(loaded, answer_to(state.question)))
    film = varied(SHAPES["plain"], rng)
    last = read_film(book, "The next film", film, (7.0,))
    window.bench.refresh()
    window.bench.open_test(last.id)
    window.bench.go("finding")
    yield window, film
    leave_estimates_out(False)


def minutes_of(words):
    whole, _, seconds = words.partition(":")
    return int(whole) + int(seconds) / 60


def ranges_told(said):
    """Bounds of the time, the EI and each push that are estimated."""
    assert f"{SAID}, not measured" in said
    time = re.search(r"About [\d:]+ min, ([\d:]+) to ([\d:]+), would meet", said)
    index = re.search(r"EI \d+ then, between ([\d.]+) and ([\d.]+)", said)
    pushed = re.findall(r"(push \d|pull \d) [\d:]+, ([\d:]+) to ([\d:]+)", said.lower())
    told = {"time": tuple(map(minutes_of, time.groups()))}
    told |= {"EI": tuple(map(float, index.groups()))} if index else {}
    return told | {name: (minutes_of(a), minutes_of(b)) for name, a, b in pushed}


def test_one_strip_of_the_next_film_has_ei_time_and_pushes_whose_ranges_hold(qtbot, learnt):
    window, film = learnt
    settle(qtbot, window)
    said = words_of(window)
    assert "if this film develops like 4 films in this developer" in said
    true = film.time_for(film.gradient, 0.58)
    told, third = ranges_told(said), 2 ** (1 / 6)
    assert told["time"][0] <= true <= told["time"][1], (minutes_text(true), told)
    # Both bounds are the nearest marks.
    assert told["EI"][0] / third <= film.zone_ei(true) <= told["EI"][1] * third
    assert told["push 1"][0] <= film.push_time(true, 1, 3) <= told["push 1"][1]
    assert "pull 1" not in told, "no film of this developer was pulled so far"


def test_what_is_estimated_is_told_apart_on_the_card_and_in_the_report(qtbot, learnt, tmp_path):
    window, _ = learnt
    window.bench.go("cards")
    settle(qtbot, window)
    for name in ("card.pdf", "answer.json"):
        type_into(field_of(window.station(), "file to save the card to"), str(tmp_path / name))
        qtbot.waitUntil((tmp_path / name).exists)
    _, words = pdf_words(tmp_path / "card.pdf")
    assert ranges_told(" ".join(words.split()))["time"]
    report = json.loads((tmp_path / "answer.json").read_text())
    assert report["finding"]["time_min"]["value"] is None
    told = report["estimated"]
    assert (told["basis"], told["films"]) == ("estimated from your other tests", 4)
    assert told["time_min"]["low"] < told["time_min"]["value"] < told["time_min"]["high"]
    assert told["time_min"]["basis"] == told["basis"]
    leave_estimates_out(True)
    type_into(field_of(window.station(), "file to save the card to"), str(tmp_path / "b.json"))
    qtbot.waitUntil((tmp_path / "b.json").exists)
    assert "estimated" not in json.loads((tmp_path / "b.json").read_text())


def test_times_that_end_short_of_the_target_are_led_on_by_the_law_of_the_others(qtbot, learnt):
    window, film = learnt
    true = film.time_for(film.gradient, 0.58)
    test = read_film(window.bench.notebook, "Short of it", film, (0.55 * true, 0.75 * true))
    window.bench.refresh()
    window.bench.open_test(test.id)
    settle(qtbot, window)
    said = words_of(window)
    assert "not tested: longer than" in said
    low, high = ranges_told(said)["time"]
    assert low <= true <= high
    assert high / low < 1.6


def test_a_plan_of_a_new_film_says_what_fewer_strips_would_tell(qtbot, learnt):
    window, _ = learnt
    new_test(window.bench.notebook, "A film of tomorrow", "Sable", "1+1", index=100.0)
    window.bench.refresh()
    window.bench.open_test(window.bench.notebook.all(Test)[-1].id)
    window.bench.go("plan")
    settle(qtbot, window)
    said = words_of(window)
    found = re.findall(r"(one strip|two) would have told the time within ± (\d+) %", said)
    assert [name for name, _ in found] == ["one strip", "two"]
    assert int(found[1][1]) < int(found[0][1])
    assert "a film like 4 films in this developer, estimated" in said
    window.bench.open_test(window.bench.notebook.all(Test)[0].id)
    window.bench.go("plan")
    settle(qtbot, window)
    said = words_of(window)
    assert "would have told" not in said, "that film was tested"
    assert "in this developer, estimated" not in said


def test_a_page_shows_how_it_fares_and_one_key_leaves_it_out_of_every_answer(qtbot, learnt):
    window, _ = learnt
    hands = Hands(qtbot, window)
    settle(qtbot, window)
    for _ in range(2):
        hands.press(Qt.Key.Key_F, CTRL | ALT)
        settle(qtbot, window)
        fares = words_of(window.station())
        assert "foretold by the others from one strip alone: 16 of 16 ranges held" in fares
        assert re.search(r"\d of 16 strips would have been saved", fares)
        rows = window.station().findChild(RangeRows)
        assert [film.film for film in rows.films] == [f"Film {n}" for n in range(4)]
        assert rows.accessibleDescription().count("from ") == 16
        # Made anew, and worked out from the same tests.
        window.scale_type(1)
        settle(qtbot, window)
    hands.press(Qt.Key.Key_C, CTRL | Qt.KeyboardModifier.ShiftModifier)
    table = QGuiApplication.clipboard().text().splitlines()
    assert (len(table), table[0].split("\t")[0]) == (17, "Film")
    hands.press(Qt.Key.Key_E, CTRL | ALT)
    settle(qtbot, window)
    assert "left out of every answer" in words_of(window.station())
    window.bench.go("finding")
    settle(qtbot, window)
    assert SAID not in words_of(window)
    hands.press(Qt.Key.Key_E, CTRL | ALT)
    settle(qtbot, window)
    assert SAID in words_of(window)


def test_a_film_that_comes_up_unlike_all_others_is_named(qtbot, open_window, tmp_path):
    class Slow:
        """Hardly answers to time."""

        def density(self, x, minutes):
            return 0.2 if x is None else 0.2 + PLAIN.net(x, 8.0 * (minutes / 8.0) ** 0.15)

    window = open_window(tmp_path / "winter.vadrin")
    book = window.bench.notebook
    for number in range(6):
        test = read_film(book, f"Film {number}", PLAIN, (6.0, 9.0, 14.0))
        state = State(load_test(book, test.id))
        decide(book, State(state.loaded, answer_to(state.question)))
    like, unlike = (
        read_film(book, n, f, (6.0, 9.0, 14.0)) for n, f in (("a", PLAIN), ("b", Slow()))
    )
    window.bench.refresh()
    for test, named in ((like, False), (unlike, True)):
        window.bench.open_test(test.id)
        window.bench.go("finding")
        settle(qtbot, window)
        assert ("comes with time unlike that of 6 films" in words_of(window)) is named


def decided(book, name, film, times=(6.0, 9.0, 14.0)):
    test = read_film(book, name, film, times)
    state = State(load_test(book, test.id))
    decide(book, State(state.loaded, answer_to(state.question)))
    return test


class Weaker:
    """A film in a bath in which minutes count for less."""

    def __init__(self, share):
        self._share = share

    def density(self, x, minutes):
        return PLAIN.density(x, minutes * self._share)


@pytest.mark.parametrize(
    ("share", "said"), [(1.0, ""), (0.75, "less than this film had by then in 2 tests")]
)
def test_a_bath_that_does_less_than_the_last_times_is_said(
    qtbot, open_window, tmp_path, share, said
):
    window = open_window(tmp_path / "winter.vadrin")
    book = window.bench.notebook
    for _ in range(2):
        decided(book, "Film", PLAIN)
    again = read_film(book, "Film", Weaker(share), (8.0,))
    window.bench.refresh()
    window.bench.open_test(again.id)
    window.bench.go("finding")
    settle(qtbot, window)
    words = words_of(window)
    assert said in words
    assert ("Is the developer older than noted" in words) is bool(said)


def test_an_untested_film_gets_ei_and_time_by_how_far_makers_were_off_here(
    qtbot, open_window, tmp_path
):
    """Every film came out two thirds of a stop under its box, and took a tenth longer than told."""
    window = open_window(tmp_path / "winter.vadrin")
    book, rng = window.bench.notebook, np.random.default_rng(2)
    for number in range(5):
        film = varied(PLAIN, rng)
        true = film.time_for(film.gradient, 0.58)
        test = decided(book, f"Film {number}", film, (0.7 * true, true, 1.5 * true))
        stock = book.get(Stock, test.stock_id)
        with book.change("the maker's words"):
            book.put(replace(stock, box_speed=film.zone_ei(true) * 2 ** (2 / 3)))
            book.add(
                MakerTime(stock_id=stock.id, developer_id=test.developer_id, time_min=true / 1.1)
            )
    new = new_test(book, "A film of tomorrow", "Sable", "1+1", index=200.0)
    with book.change("the maker's words"):
        book.put(replace(book.get(Stock, new.stock_id), box_speed=200.0))
        book.add(MakerTime(stock_id=new.stock_id, developer_id=new.developer_id, time_min=8.0))
    window.bench.refresh()
    window.bench.open_test(new.id)
    window.bench.go("plan")
    settle(qtbot, window)
    said = words_of(window)
    index = re.search(r"By the box speeds of 5 films .* about EI (\d+), (\d+) to (\d+)", said)
    low, high = (float(mark) for mark in index.groups()[1:])
    assert index[1] == "125"
    assert 80 <= low < 125 < high <= 200
    time = re.search(
        r"makers’ times of 5 films, its time is about ([\d:]+), ([\d:]+) to ([\d:]+)", said
    )
    middle, shortest, longest = map(minutes_of, time.groups())
    assert middle == pytest.approx(8.8, rel=0.05)
    assert 6.5 < shortest < 8.8 < longest < 12
    leave_estimates_out(True)
    window.bench.refresh()
    window.bench.changed.emit(Topic.EVERYTHING)
    settle(qtbot, window)
    assert "By the box speeds" not in words_of(window)


def test_an_eye_is_known_by_frames_it_judged_that_were_read_as_well(qtbot, open_window, tmp_path):
    """It tells 0.060 where others tell 0.045; taken, its EIs are told by that and more sharply."""
    window = open_window(tmp_path / "winter.vadrin")
    book, eye = window.bench.notebook, 0.060
    rng = np.random.default_rng(8)
    for n in range(5):
        test = read_film(book, f"Film {n}", varied(PLAIN, rng), (6.0, 8.0, 11.0))
        for strip in load_test(book, test.id).strips:
            blank = next(f.density for f in strip.frames if f.frame.blank)
            for frame in [f for f in strip.frames if f.density is not None and not f.frame.blank]:
                seen = frame.density - blank > eye
                answer_question(book, strip, frame, EyeVerdict.YES if seen else EyeVerdict.NO)
    by_eye = developed_test(book, "By eye", index=100.0, times=(8.0,))
    window.bench.refresh()
    window.bench.open_test(by_eye.id)
    window.bench.go("read")
    page = window.station()
    page.turn_to("light box")
    settle(qtbot, window)
    found = re.search(r"the smallest density you see is ([\d.]+) ± ([\d.]+)", words_of(page))
    assert abs(float(found[1]) - eye) <= float(found[2]) <= 0.013
    assert field_of(page, "smallest density I can see").text() == "usual"
    widths = []
    for take in (False, True):
        if take:
            page.light_box.take_known.click()
            settle(qtbot, window)
            assert field_of(page, "smallest density I can see").text() == f"{float(found[1]):g}"
            assert "you see is" not in words_of(page), "it is in force"
        strip = load_test(book, by_eye.id).strips[0]
        begin_again(book, strip)
        for frame in [f for f in strip.frames if not f.frame.blank]:
            net = PLAIN.net(frame.log_h(8.125), 8.0)
            told = EyeVerdict.YES if net > eye else EyeVerdict.NO
            answer_question(book, load_test(book, by_eye.id).strips[0], frame, told)
        loaded = load_test(book, by_eye.id)
        index = light_box_result(loaded, loaded.strips[0]).zone_ei
        widths.append(np.log2(index.high / index.low))
        if take:
            assert index.low <= PLAIN.zone_ei(8.0) <= index.high
    assert widths[1] < widths[0]


def test_times_nobody_noted_count_little(notebook):
    test = decided(notebook, "Film", PLAIN)
    (sure,) = past_tests(notebook, 0)
    finding = notebook.all(Finding, test_id=test.id)[-1]
    report = json.loads(finding.report)
    for strip in report["strips"].values():
        strip["time_from"] = "planned"
    with notebook.change("as if nobody had noted them"):
        notebook.put(replace(finding, report=json.dumps(report)))
    (doubtful,) = past_tests(notebook, 0)
    assert (doubtful.seen.contrast == sure.seen.contrast).all()
    assert (doubtful.seen.deviation > 3 * sure.seen.deviation).all()


def test_what_was_only_read_is_learnt_behind_the_window(qtbot, learnt):
    window, _ = learnt
    book, rng = window.bench.notebook, np.random.default_rng(8)
    for number in range(2):
        read_film(book, f"Read {number}", varied(PLAIN, rng), (6.0, 9.0, 14.0))
    settle(qtbot, window)
    assert "like 4 films in this developer" in words_of(window)
    LearningAhead(window.jobs, window.bench)
    qtbot.waitUntil(lambda: "like 6 films in this developer" in words_of(window), timeout=30_000)
    # A test of one's own that is left behind is told of the next; what is on the bench is not.
    last = window.bench.loaded.test.id
    window.bench.open_test(next(p.test_id for p in past_tests(book, last) if not p.finding_id))
    settle(qtbot, window)
    assert len([p for p in past_tests(book, 0) if not p.finding_id]) == 1

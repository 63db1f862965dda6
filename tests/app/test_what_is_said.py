"""States, headlines, doubts and cards, in the words a tester reads."""

import json
import re
from dataclasses import replace

import pytest

from tests.notebooks import developed_test
from tests.states import state_of
from vadrin.app.decisions.darkroom_card import card_of, kept_card
from vadrin.app.display.quantities import (
    ei_range_text,
    minutes_range_text,
    push_name,
    shadow_detail_text,
)
from vadrin.app.display.words import date_text
from vadrin.app.document.analysis_input import channel_of, readings_of, settings_of
from vadrin.app.document.state import State
from vadrin.app.document.test_loading import load_test
from vadrin.app.expose.exposing import mark_frame
from vadrin.app.overview.progress import steps_of
from vadrin.app.plan.expected_curves import expected_film, expected_strips
from vadrin.app.read.entering_readings import add_reading
from vadrin.app.read.reading_doubts import reading_doubt
from vadrin.app.results.headline import headline_of
from vadrin.app.results.method_rows import limits_text, method_lines
from vadrin.app.results.push_rows import push_lines
from vadrin.app.results.target_words import target_text, target_value_typed
from vadrin.app.shelf.shelf_index import shelf_details, shelf_lines
from vadrin.core.channels import Channel
from vadrin.core.figure import Figure
from vadrin.core.frames import FrameState
from vadrin.core.results.analysis import analyse
from vadrin.errors import EntryError
from vadrin.formats.reports.card import CARD_SIZES
from vadrin.formats.reports.card_pdf import card_pdf
from vadrin.notebook.store import Notebook


@pytest.fixture(scope="module")
def book(demo_path):
    book = Notebook(demo_path)
    yield book
    book.close()


@pytest.fixture(scope="module")
def told(book):
    """Every demo test by its film: the sheet and its analysis."""
    found = {}
    for line in shelf_lines(book):
        loaded = load_test(book, line.test_id)
        found[line.film] = loaded, analyse(readings_of(loaded), settings_of(loaded))
    return found


def test_the_demo_holds_a_test_in_every_state(book):
    lines = {line.film: line for line in shelf_lines(book)}
    assert len(lines) == 6
    details = shelf_details(book, [line.test_id for line in lines.values()])
    said = {film: details[line.test_id] for film, line in lines.items()}
    assert said["Kelda Pan 200 K4"].state == "planned, 56 frames"
    assert said["Skerry Fine 50 S2"].state == "19 of 42 frames taken"
    assert said["Brannock 400 B7"].state == "31 of 56 frames read"
    assert said["Ostrel 400 O1"].state == "read, 1 strip"
    assert said["Brannock 400 B6"].state == "read, 4 strips"
    whole = lines["Merrow Pan 125 M3"]
    assert whole.index.startswith("EI ")
    assert re.fullmatch(r"\d+:\d\d", whole.time)
    assert [x.station for x in said.values()] == [
        "plan",
        "expose",
        "read",
        "curves",
        "curves",
        "curves",
    ]
    dates = [x.date for x in shelf_lines(book)]
    assert dates == sorted(dates, reverse=True)


def test_the_rail_tells_the_true_state(told):
    steps = steps_of(state_of(*told["Brannock 400 B7"]))
    assert (steps["expose"].words, steps["expose"].done) == ("56 of 56", True)
    assert (steps["read"].words, steps["read"].done) == ("31 of 56 frames", False)
    assert steps["curves"].words == "2 fitted"
    whole = steps_of(state_of(*told["Merrow Pan 125 M3"]))
    assert all(step.done for name, step in whole.items() if name != "print")
    fresh = steps_of(state_of(*told["Kelda Pan 200 K4"]))
    assert [name for name, step in fresh.items() if step.done] == ["plan"]
    assert steps_of(None) == {}


def test_the_headline_speaks_in_ei_and_time(told):
    loaded, analysis = told["Merrow Pan 125 M3"]
    headline = headline_of(state_of(loaded, analysis))
    assert re.fullmatch(r"EI \d+", headline.index)
    assert re.fullmatch(r"\d+:\d\d min", headline.time)
    assert "± 0" in headline.index_note
    assert [line.name for line in headline.pushes] == ["pull 1", "normal", "push 1", "push 2"]
    assert [line.grave for line in headline.pushes] == [False, False, False, True]
    assert headline.next_act
    assert headline_of(State(loaded)).index_note == "working it out …"


@pytest.mark.parametrize(
    ("film", "words"),
    [
        ("Brannock 400 B6", "Read strip B, frame"),
        ("Ostrel 400 O1", "Develop a second strip for about 12:00"),
        ("Brannock 400 B7", "Read strip C: it was developed 13:00 min and waits."),
        ("Kelda Pan 200 K4", ""),
    ],
)
def test_the_next_act_fits_the_state(told, film, words):
    act = headline_of(state_of(*told[film])).next_act
    assert words in act
    assert bool(act) is bool(words)


def test_one_strip_is_a_rule_of_thumb_in_the_headline(told):
    headline = headline_of(state_of(*told["Ostrel 400 O1"]))
    assert (headline.index, headline.time) == ("EI 320", "")
    assert headline.time_note.startswith("as developed; one strip cannot show other times")
    assert "Rule of thumb, not measured: about " in headline.time_note
    assert headline.pushes == ()
    assert {line.time.shown for line in push_lines(told["Ostrel 400 O1"][1])} == {"not tested"}


def test_methods_mark_the_one_that_rates(told):
    lines = method_lines(told["Merrow Pan 125 M3"][1])
    assert [line.name for line in lines if line.chosen] == ["Gradient"]
    assert len({line.name for line in lines}) == 5
    assert "rule of thumb" in limits_text(told["Merrow Pan 125 M3"][1])
    assert "stops keep usable shadow" in limits_text(told["Merrow Pan 125 M3"][1])


def test_a_swapped_pair_is_doubted_beside_both_frames(told):
    loaded, analysis = told["Brannock 400 B6"]
    frames = loaded.strips[1].frames
    for place in (8, 9):
        assert "left out" in reading_doubt(state_of(loaded, analysis), frames[place])
    assert "Thinner than frame 9 (0), which had less exposure" in reading_doubt(
        State(loaded), frames[9]
    )
    assert reading_doubt(state_of(loaded, analysis), frames[4]) == ""


def test_the_card_holds_what_the_wall_needs(told):
    loaded, analysis = told["Merrow Pan 125 M3"]
    card = card_of(state_of(loaded, analysis))
    assert (card.film, card.developer) == ("Merrow Pan 125, batch M3", "Sable 1+1")
    assert (card.status, card.temperature) == ("decided 2026-10-29", "at 20 °C")
    assert [row.name for row in card.rows] == ["pull 1", "normal", "push 1", "push 2"]
    assert "5 strips, 250 readings, 4:30 to 17:30 min tested" in card.basis
    assert "makers' sheets" in card.care
    one_strip = card_of(state_of(*told["Ostrel 400 O1"]))
    assert (one_strip.says, one_strip.time) == ("EI 320", "")
    assert one_strip.steps == (("Set", "the meter to EI 320"), ("Develop", "8:00 min at 20 °C"))
    for size, (width, height) in CARD_SIZES.items():
        data = card_pdf(card, size)
        box = re.search(rb"/MediaBox \[ 0 0 ([\d.]+) ([\d.]+) \]", data)
        assert float(box[1]) == pytest.approx(width * 72 / 25.4, abs=0.01)
        assert float(box[2]) == pytest.approx(height * 72 / 25.4, abs=0.01)
    assert card_pdf(card) == card_pdf(card)


def test_a_very_long_name_still_prints(told):
    card = card_of(state_of(*told["Merrow Pan 125 M3"]))
    for words in ("A stock with a name as long as the quay wall " * 67, "x" * 3000):
        for name in ("film", "developer", "status", "exposure_index", "time", "says", "basis"):
            assert card_pdf(replace(card, **{name: words})).startswith(b"%PDF"), name
        for rows in ({"steps": (("Set", words), (words, "x"))}, {"lines": (("", ""), (words, ""))}):
            assert card_pdf(replace(card, says="EI 80", **rows)).startswith(b"%PDF")


@pytest.mark.parametrize(
    "hurt", [{"film": 5}, {"lines": [["a", "b"]] * 1000}, {"rows": [{"name": None}]}, {"mind": [3]}]
)
def test_a_kept_card_that_was_hurt_hurts_nobody(told, hurt):
    loaded, analysis = told["Merrow Pan 125 M3"]
    card = card_of(state_of(loaded, analysis))
    kept = json.dumps(json.loads(kept_card(card)) | hurt)
    finding = replace(loaded.findings[-1], card=kept)
    shown = card_of(state_of(replace(loaded, findings=(finding,)), analysis))
    assert shown.status == card.status
    assert card_pdf(shown).startswith(b"%PDF")


def test_expected_curves_are_steeper_for_longer_times(told):
    loaded, _ = told["Kelda Pan 200 K4"]
    film = expected_film(loaded.test.exposure_index, None)
    strips = expected_strips(loaded, film)
    assert [s.label for s in strips] == ["A", "B", "C", "D"]
    tops = [float(s.curve.net[-1]) for s in strips]
    assert tops == sorted(tops)
    assert expected_strips(loaded, film) is strips


def test_readings_left_out_and_spoilt_frames_are_not_asked_about(told):
    loaded, _ = told["Merrow Pan 125 M3"]
    strip = loaded.strips[0]
    frame = strip.frames[3]
    out = replace(frame, readings=tuple(replace(r, left_out=True) for r in frame.readings))
    skipped = replace(
        strip.frames[4], frame=replace(strip.frames[4].frame, state=FrameState.SKIPPED)
    )
    frames = (*strip.frames[:3], out, skipped, *strip.frames[5:])
    changed = replace(loaded, strips=(replace(strip, frames=frames), *loaded.strips[1:]))
    before, after = (len(readings_of(s)[0].readings) for s in (loaded, changed))
    assert before - after == 4
    assert channel_of(changed) is Channel.VISUAL
    assert out.density is None


def test_small_words():
    assert shadow_detail_text(0.1) == "no change"
    assert shadow_detail_text(-0.9) == "+1 stop"
    assert shadow_detail_text(1.7) == "−1⅔ stops"
    assert shadow_detail_text(0.7) == "−⅔ stop"
    assert (push_name(0), push_name(2), push_name(-0.5)) == ("normal", "push 2", "pull ½")
    assert ei_range_text(Figure(80, 64, 100)) == "between 64 and 100"
    assert ei_range_text(Figure(80, 79, 82)) == "80 to the nearest third of a stop"
    assert minutes_range_text(Figure(8, 7.5, 8.5)) == "7:30 to 8:30"
    assert ei_range_text(Figure(80)) == minutes_range_text(Figure(8)) == date_text("") == ""
    assert target_text("zone8", 1.3) == "Zone VIII density 1.30"


def test_a_measure_nobody_knows_is_worked_out_as_usual(told):
    loaded, usual = told["Merrow Pan 125 M3"]
    hurt = replace(loaded, test=replace(loaded.test, target_kind="averagf gradient"))
    answer = analyse(readings_of(hurt), settings_of(hurt))
    assert answer.finding.time_min == usual.finding.time_min
    assert headline_of(state_of(hurt, answer)).time == headline_of(state_of(loaded, usual)).time
    with pytest.raises(EntryError, match="choose one first"):
        target_value_typed("averagf gradient", "0.6")


def test_frames_spoilt_after_they_were_read_are_not_counted_as_read(notebook):
    test = developed_test(notebook, "Kelda Pan 200", times=(8.0,))
    for _, frame in load_test(notebook, test.id).frames():
        if frame.readable:
            add_reading(notebook, frame, 0.4)
    frames = [f for _, f in load_test(notebook, test.id).frames() if f.readable]
    whole = steps_of(State(load_test(notebook, test.id)))["read"].words
    mark_frame(notebook, frames[3].frame, FrameState.SKIPPED)
    count = len(frames)
    assert whole == f"{count} of {count} frames"
    step = steps_of(State(load_test(notebook, test.id)))["read"]
    assert (step.words, step.done) == (f"{count - 1} of {count - 1} frames", True)

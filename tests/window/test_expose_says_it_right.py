"""What Expose, its papers and the camera's counter say: one number a frame, the meter's EI."""

import re
from dataclasses import replace

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QApplication

from tests.window.pages import CTRL, ENTER, Hands, field_of, refusal_of, settle, type_into, words_of
from tests.window.test_plan_and_expose import pdf_words
from vadrin.app.document.test_loading import load_test
from vadrin.app.expose.cassette_labels import labels_of
from vadrin.app.expose.frame_counter import counter_remedies, frames_wound
from vadrin.app.expose.roll_entry import enter_roll
from vadrin.app.expose.script import script_rows
from vadrin.app.expose.ticked_script import tick_script
from vadrin.app.plan.plan_edit import PlanEdit, apply_plan
from vadrin.app.plan.plan_word_readers import others_typed
from vadrin.app.plan.starting_tests import start_kind
from vadrin.core.frames import FrameRole, FrameState
from vadrin.core.planning.plan_request import Arrangement, Compared, FilmUnit
from vadrin.core.planning.test_options import SecondSteps, SheetUse
from vadrin.errors import EditRefusedError, EntryError
from vadrin.notebook.records import Camera, Strip, Test


def planned(book, kind, times=(6.0, 9.0), **changes):
    """A plan of a kind on a plain film; gives its sheet."""
    test = replace(start_kind(book, kind), **changes)
    apply_plan(book, PlanEdit(test, times, "Merrow Pan 125", "Sable", "1+1", "M3"), "plan")
    return load_test(book, test.id)


def bring(qtbot, window, loaded, station):
    window.bench.open_test(loaded.test.id)
    window.bench.go(station)
    settle(qtbot, window)


@pytest.fixture
def window(open_window, tmp_path):
    return open_window(tmp_path / "winter.vadrin")


def test_a_frame_has_one_number_wherever_it_is_named(qtbot, window):
    book = window.bench.notebook
    loaded = planned(book, "time")
    bring(qtbot, window, loaded, "expose")
    hands = Hands(qtbot, window)
    hands.press(Qt.Key.Key_Space, times=5)
    assert "Strip A, frame 6 of" in words_of(window.station())
    assert "−3 · 5 taken" in words_of(window.station()), "the name beside the number"
    now = load_test(book, loaded.test.id)
    (ticked, *_), number = counter_remedies(now, frames_wound(now) + 1), 6
    assert ticked.words.startswith(f"strip A, frame {number} (−3) was taken")
    row = next(r for r in script_rows(book, now) if r[0] == str(number))
    assert row[1:2] + row[3:4] == ("A", "−3")
    hands.press(Qt.Key.Key_Space, times=len(now.frames()))
    hands.press(Qt.Key.Key_3, CTRL)
    hands.press(ENTER, CTRL)
    hands.press(Qt.Key.Key_4, CTRL)
    window.bench.select(now.strips[0].frames[number - 1].frame.id)
    QApplication.processEvents()
    assert "Strip A, frame 6, −3 stops" in words_of(window.station())
    assert window.table.accessibleName().startswith("strip A, frame 6, minus 3 stops")
    hands.write("0.31")
    assert book.undo_label() == "read 0.31 on frame 6"


def test_one_sheet_is_drawn_by_the_dark_slide_and_its_exposures_add_up(qtbot, window):
    """Worked out by hand: at 1/30 f/5.6 and −2 to +1 stops the sheet gets 1/125, 1/60, 1/30, 1/15.

    That is 1/125 to all of it, then 1/125, 1/60 and 1/30 to what is still open.
    """
    book = window.bench.notebook
    options = SecondSteps((-1.0, 0.0, 1.0), SheetUse.DARK_SLIDE, base_s=30.0)
    ends = {"first_stop": -2.0, "last_stop": 1.0, "blanks": 1}
    loaded = planned(book, "reversal", times=(6.0,), options=options, **ends)
    assert [[f.frame.stops for f in s.frames] for s in loaded.strips] == [[None, -2, -1, 0, 1]] * 3
    assert {s.strip.roll for s in loaded.strips} == {1}, "three bands of one sheet"
    bring(qtbot, window, loaded, "expose")
    hands, said = Hands(qtbot, window), []
    for _ in range(5):
        said.append(words_of(window.station()))
        hands.press(Qt.Key.Key_Space)
    assert "Cell 1 of 5" in said[0]
    assert "stays covered, and blank" in said[0]
    assert "all that is open gets this exposure" in said[1]
    assert [re.search(r"1/\d+", words)[0] for words in said[1:]] == [
        "1/125", "1/125", "1/60", "1/30",
    ]  # fmt: skip
    assert "over cell 3: give 1/60 more, 1/30 in all" in said[3]
    now = load_test(book, loaded.test.id)
    assert now.exposed() == 15, "every band was open"
    done = words_of(window.station())
    assert "15 s to the whole sheet; cover A: 15 s more; cover A and B: 30 s more" in done
    hands.press(Qt.Key.Key_Backspace)
    assert load_test(book, loaded.test.id).exposed() == 12
    hands.press(Qt.Key.Key_D)
    assert "every cell still open gets this exposure too" in refusal_of(window)
    assert load_test(book, loaded.test.id).exposed() == 12


def test_steps_that_a_slide_cannot_give_are_refused(qtbot, window):
    book = window.bench.notebook
    options = SecondSteps((0.0,), SheetUse.DARK_SLIDE)
    with pytest.raises(EditRefusedError, match="take whole stops"):
        planned(book, "reversal", times=(6.0,), options=options, step=0.5)
    camera = {"camera_id": None, "metered_seconds": 1.0}
    with book.change("a camera without long times"):
        camera["camera_id"] = book.add(Camera(name="Plate 4", slowest=1.0, bulb=False)).id
    with pytest.raises(EditRefusedError, match="no mark for 2 s: open the lens"):
        planned(book, "reversal", times=(6.0,), options=options, last_stop=2.0, **camera)


def test_a_push_says_what_to_set_the_meter_to_and_what_it_should_say(qtbot, window):
    book = window.bench.notebook
    loaded = planned(book, "push", times=(8.0,), exposure_index=125.0)
    bring(qtbot, window, loaded, "expose")
    said = words_of(window.station())
    assert "Set the meter to EI 125: it should say 1/30 at f/5.6 (M)." in said
    hands = Hands(qtbot, window)
    hands.press(Qt.Key.Key_Space, times=len(loaded.strips[0].frames))
    said = words_of(window.station())
    assert "Strip B, frame 1" in said
    assert "Set the meter to EI 250: it should say 1/60 at f/5.6 (M)." in said
    hands.press(Qt.Key.Key_Space, times=loaded.test.blanks)
    assert "4 stops under the meter at EI 250" in words_of(window.station())


def test_an_ei_beyond_the_dial_is_told_on_the_first_screen(qtbot, window):
    book = window.bench.notebook
    with book.change("kit"):
        camera = book.add(
            Camera(
                name="Quayside 35",
                slowest=1.0,
                fastest=1 / 1000,
                dial_low=25.0,
                dial_high=1600.0,
                compensation=2.0,
            )
        )
    loaded = planned(book, "speed", camera_id=camera.id, exposure_index=6400.0)
    bring(qtbot, window, loaded, "expose")
    assert "EI 6400 (the dial ends before it: set 1600 and −2 compensation)" in words_of(
        window.station()
    )


@pytest.mark.parametrize(("kind", "focus"), [("speed", True), ("rescue", False)])
def test_only_an_even_target_is_put_out_of_focus(qtbot, window, kind, focus):
    loaded = planned(window.bench.notebook, kind)
    bring(qtbot, window, loaded, "expose")
    Hands(qtbot, window).press(Qt.Key.Key_Space, times=loaded.test.blanks)
    said = words_of(window.station())
    assert "then set it" in said
    assert ("focus at infinity" in said) is focus


def test_the_clip_of_a_rescued_roll_is_its_end(notebook):
    loaded = planned(notebook, "rescue", times=(8.0,), repeat_first=True)
    roles = [f.frame.role for f in loaded.strips[0].frames]
    assert roles[-2:] == [FrameRole.FOGGED] * 2
    assert roles[-3] is FrameRole.CHECK


def test_sheets_are_not_wound_on(qtbot, window, tmp_path):
    """Two sets of sheets, as on the script and on the screen: nothing of it is a roll."""
    sheets = {"film_amount": 16.0, "film_unit": FilmUnit.SHEETS}
    loaded = planned(window.bench.notebook, "two developers", times=(8.0,), **sheets)
    bring(qtbot, window, loaded, "expose")
    hands = Hands(qtbot, window)
    said = words_of(window.station())
    assert "Leave the dark slide in: this sheet stays blank." in said
    hands.press(Qt.Key.Key_P)
    script = next(tmp_path.glob("script*.pdf"))
    _, words = pdf_words(script)
    assert "Set of sheets 2" in words
    for gone in ("wind on", "Wind on", "roll", "Roll", "cap on"):
        assert gone not in said, gone
        assert gone not in words, gone


def test_forty_films_are_one_test_and_each_is_named_when_it_is_loaded(notebook):
    names = ", ".join(f"Quay Pan {n}" for n in range(1, 41))
    test = start_kind(notebook, "compare")
    plan = PlanEdit(
        replace(test, compared=Compared.STOCKS), (8.0,), "Kelda Pan 200", "Sable", "1+1"
    )
    assert test.arrangement is Arrangement.INTERLEAVED
    apply_plan(notebook, others_typed(plan, names), "plan")
    loaded = load_test(notebook, test.id)
    assert len(loaded.strips) == 41
    heads = [row[2] for row in script_rows(notebook, loaded) if not row[0]]
    assert heads[0].startswith("Roll 1. Load Kelda Pan 200. Set the meter")
    assert heads[40].startswith("Roll 41. Load Quay Pan 40. Set the meter")
    with pytest.raises(EntryError, match="at most 60"):
        others_typed(plan, ", ".join(f"Quay Pan {n}" for n in range(61)))


def test_what_was_set_instead_stands_on_the_paper_printed_again(qtbot, window, tmp_path):
    book = window.bench.notebook
    loaded = planned(book, "speed")
    tick_script(book, loaded, "5 at 1/60; 6 at f/4 1/30, 7 at +2")
    bring(qtbot, window, loaded, "expose")
    Hands(qtbot, window).press(Qt.Key.Key_P)
    _, words = pdf_words(tmp_path / "script Merrow Pan 125.pdf")
    for part in ("taken at 1/60", "taken at 1/30 f/4", "taken at +2"):
        assert part in words, part
    assert words.count("taken at") == 3, "the others were taken as asked"


def test_the_paper_marks_where_a_roll_begins(qtbot, window, tmp_path):
    book = window.bench.notebook
    loaded = planned(book, "push", times=(8.0,), film_amount=15.0)
    heads = [r[2] for r in script_rows(book, loaded) if not r[0]]
    assert [h.split(".")[0] for h in heads] == ["Roll 1", "Roll 2", "Roll 3"]
    assert [h.split("EI ")[1].split(":")[0] for h in heads] == ["125", "250", "500"]
    bring(qtbot, window, loaded, "expose")
    Hands(qtbot, window).press(Qt.Key.Key_P)
    _, words = pdf_words(tmp_path / "script Merrow Pan 125.pdf")
    assert "Roll 2. Set the meter to EI 250" in words


@pytest.mark.parametrize("apart", [4, -3])
def test_a_counter_off_by_several_is_explained_by_several(notebook, apart):
    loaded = planned(notebook, "time")
    tick_script(notebook, loaded, "A1-5")
    before = load_test(notebook, loaded.test.id)
    says = frames_wound(before) + apart
    remedies = counter_remedies(before, says)
    assert any("frames" in r.words and " to " in r.words for r in remedies)
    for remedy in remedies:
        remedy.act(notebook)
        after = load_test(notebook, loaded.test.id)
        assert frames_wound(after) == says, remedy.words
        notebook.undo()
        assert load_test(notebook, loaded.test.id) == before


def test_labels_give_each_piece_its_time_and_a_whole_roll_one(notebook):
    loaded = planned(notebook, "time", times=(3.5, 4.5, 8 + 1 / 6), film_amount=None)
    (label,) = labels_of(loaded)
    assert "strips A 3:30, B 4:30, C 8:10 min" in label.lines
    (whole,) = labels_of(planned(notebook, "speed", times=(9.75,)))
    assert "whole roll: 9:45 min" in whole.lines


class TestARollShotAtAnotherSetting:
    """A whole roll of pictures at EI 400, on a film that was found to be EI 80 here."""

    @pytest.fixture
    def roll(self, qtbot, demo):
        window = demo("Merrow Pan 125", "shelf")
        hands = Hands(qtbot, window)
        hands.press(Qt.Key.Key_N, CTRL)
        hands.press(Qt.Key.Key_R, CTRL)
        hands.write("Merrow Pan 125", Qt.Key.Key_Tab)
        hands.write("Sable 1+1", Qt.Key.Key_Tab)
        hands.write("36 frames at EI 400, frame 7 skipped")
        hands.settle()
        return window

    def test_it_is_taken_in_a_line_and_named_a_push(self, roll):
        frames = [f.frame for _, f in roll.bench.loaded.frames()]
        assert len(frames) == 36
        assert {f.role for f in frames} == {FrameRole.PICTURE}
        assert frames[6].state == FrameState.SKIPPED
        said = words_of(roll.station())
        assert "this roll is a push of 2⅓ stops: this film was found to be EI 80 here" in said

    def test_process_label_and_expose_name_one_time(self, qtbot, roll):
        (strip,) = roll.bench.notebook.all(Strip, test_id=roll.bench.loaded.test.id)
        assert strip.push == pytest.approx(7 / 3)
        time = words_of(roll.station()).split("Develop the whole roll ")[1].split(" ")[0]
        (label,) = labels_of(roll.bench.loaded)
        assert f"whole roll: {time} min" in label.lines
        assert "push 2⅓" in label.lines
        roll.bench.go("process")
        settle(qtbot, roll)
        assert time in words_of(roll.station())

    def test_a_picture_tells_nothing_of_the_curve(self, roll):
        assert not any(f.counts for _, f in roll.bench.loaded.frames())

    def test_the_rule_of_the_test_is_the_one_that_is_named(self, roll):
        book = roll.bench.notebook
        before = words_of(roll.station())
        decided = next(
            t
            for t in book.all(Test)
            if t.id != roll.bench.loaded.test.id and load_test(book, t.id).findings
        )
        roll.bench.open_test(decided.id)
        roll.bench.go("finding")
        QApplication.processEvents()
        rule = field_of(roll.station(), "rule of pushes")
        type_into(rule, "midtone")
        again = enter_roll(book, "Merrow Pan 125", "Sable", "1+1", "24 frames at EI 160")
        roll.bench.open_test(again.id)
        roll.bench.go("expose")
        said = words_of(roll.station())
        assert "highlight density" in before or "rule of thumb" in before
        assert "measured, mid-tone density kept" in said


def test_a_finished_test_is_never_told_to_be_developed_whole(qtbot, demo):
    window = demo("Merrow Pan 125", "expose")
    said = words_of(window.station())
    assert "All frames are taken" in said
    assert "whole roll" not in said


def test_a_name_without_its_dilution_is_the_one_there_is_or_is_asked(notebook):
    planned(notebook, "speed")
    test = enter_roll(notebook, "Merrow Pan 125", "Sable", "", "12 frames at EI 200")
    assert load_test(notebook, test.id).process == "in Sable 1+1"
    enter_roll(notebook, "Merrow Pan 125", "Sable", "1+3", "12 frames at EI 200")
    with pytest.raises(ValueError, match=r"which dilution\? There are Sable 1\+1, Sable 1\+3"):
        enter_roll(notebook, "Merrow Pan 125", "Sable", "", "12 frames at EI 200")

"""Every kind of test planned by keyboard, shot with mistakes, and what the notebook then says."""

import shutil
from math import log2

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QApplication

from tests.window.pages import (
    CTRL,
    ENTER,
    SHIFT,
    TAB,
    Hands,
    PlanPage,
    pdf_words,
    refusal_of,
    said_by,
    settle,
    words_of,
)
from vadrin.app.descriptions import descriptions
from vadrin.app.document.test_loading import load_test
from vadrin.app.entry.roll_line import roll_typed
from vadrin.app.expose.roll_entry import enter_roll
from vadrin.app.library.differences import conditions_of, differences
from vadrin.core.exposure.arithmetic import exact_aperture
from vadrin.core.exposure.shutter_dial import exact_shutter
from vadrin.core.frames import FrameRole, FrameState
from vadrin.core.planning.test_types import type_of
from vadrin.errors import EditRefusedError
from vadrin.notebook.records import (
    Batch,
    Camera,
    Developer,
    Exposure,
    Lens,
    MeterReading,
    Note,
    ShutterTime,
    Test,
)


def begin(typist, kind):
    """From the shelf to the plan of a kind, with film and developer named; however soon after
    another name was typed there."""
    usual = QApplication.keyboardInputInterval()
    QApplication.setKeyboardInputInterval(60_000)
    typist.settle()
    typist.press(Qt.Key.Key_N, CTRL)
    window = typist.window
    typist.qtbot.waitUntil(lambda: QApplication.focusWidget() is window.station().list)
    typist.qtbot.keyClicks(window.station().list, kind)
    QApplication.setKeyboardInputInterval(usual)
    typist.steps += 1
    typist.press(ENTER)
    typist.write("Merrow Pan 125", TAB)
    typist.write("M3", TAB)
    typist.write("Sable", TAB)
    typist.write("1+1", TAB)
    typist.write("125", TAB)


@pytest.mark.parametrize("kind", [p.key for p in descriptions()])
def test_every_kind_is_planned_in_few_steps_and_shot_with_two_mistakes(
    qtbot, open_window, tmp_path, kind
):
    window = open_window(tmp_path / "winter.vadrin")
    typist, bench = Hands(qtbot, window), window.bench
    begin(typist, kind)
    assert typist.steps < 15
    loaded = bench.loaded
    assert (loaded.test.kind, loaded.title, loaded.test.exposure_index) == (
        kind,
        "Merrow Pan 125",
        125.0,
    )
    assert (loaded.batch.name, loaded.process) == ("M3", "in Sable 1+1")
    roles = [f.frame.role for _, f in loaded.frames()]
    assert "blank" in roles or not type_of(kind).needs_blank
    assert ("check" in roles) == type_of(kind).repeats_first
    asked = [(f.frame.id, f.frame.wanted_stops) for _, f in loaded.shots()]
    lit = [i for i, (_, stops) in enumerate(asked) if stops is not None]
    doubled = lit[0] if lit else 1
    skipped = lit[1] if lit else 2
    typist.press(Qt.Key.Key_2, CTRL)
    with typist.unseen():
        for place in range(len(asked)):
            key = {doubled: Qt.Key.Key_D, skipped: Qt.Key.Key_S}.get(place, Qt.Key.Key_Space)
            typist.press(key)
    taken = {f.frame.id: f.frame for _, f in bench.loaded.frames()}
    if not type_of(kind).scripted:
        assert {f.state for f in taken.values()} == {FrameState.PLANNED}, (
            "nothing is exposed for it"
        )
        assert "Nothing is exposed" in words_of(window.station())
        return
    exposures = bench.notebook.all(Exposure)
    for place, (frame_id, wanted) in enumerate(asked):
        frame = taken[frame_id]
        count = sum(e.frame_id == frame_id for e in exposures)
        state = {doubled: FrameState.DOUBLED, skipped: FrameState.SKIPPED}.get(
            place, FrameState.EXPOSED
        )
        assert frame.state == state
        if wanted is not None:
            assert (
                count
                == {FrameState.DOUBLED: 2, FrameState.SKIPPED: 0, FrameState.EXPOSED: 1}[state]
            )
            if state != FrameState.SKIPPED:
                assert frame.stops == pytest.approx(
                    wanted + (state == FrameState.DOUBLED), abs=1 / 6
                )
    assert "All frames are taken" in words_of(window.station())


def kit(book):
    """A camera with a slow shutter at its top mark, in whole stops, and a lens."""
    with book.change("kit"):
        camera = book.add(
            Camera(
                name="Quayside 35",
                slowest=1.0,
                fastest=1 / 500,
                dial_low=25.0,
                dial_high=400.0,
                compensation=2.0,
                bulb=False,
            )
        )
        book.add(ShutterTime(camera_id=camera.id, marked=1 / 500, measured=1 / 350))
        book.add(Lens(name="Lugger 50", widest=2.8, smallest=16.0, aperture_step=1.0))


@pytest.fixture
def planned(qtbot, open_window, tmp_path, tmp_path_factory):
    """A plan of two strips on the camera of `kit`, typed once, and hands on the keyboard."""
    typed, path = tmp_path_factory.getbasetemp() / "planned.vadrin", tmp_path / "winter.vadrin"
    if typed.exists():
        window = open_window(shutil.copy(typed, path))
        window.bench.open_test(window.bench.notebook.all(Test)[0].id)
        window.bench.go("plan")
        settle(qtbot, window)
        return PlanPage(qtbot, window), Hands(qtbot, window)
    window = open_window(path)
    kit(window.bench.notebook)
    typist = Hands(qtbot, window)
    begin(typist, "time")
    plan = PlanPage(qtbot, window)
    plan.word("times", "6 and 9")
    plan.word("camera", "Quayside 35")
    plan.word("lens", "Lugger 50")
    window.bench.notebook.save_copy(typed)
    return plan, typist


def test_the_plan_uses_what_the_camera_has_and_says_what_it_cannot(planned):
    plan, _ = planned
    window = plan.window
    shots = [f.frame for _, f in window.bench.loaded.shots() if f.frame.wanted_stops is not None]
    marks = {exact_shutter(1 / 2**n) for n in range(10)}
    stops = {exact_aperture(2.0 ** (n / 2)) for n in range(3, 9)}
    assert {s.seconds for s in shots} <= marks
    assert all(min(abs(log2(s.aperture / n)) for n in stops) < 0.01 for s in shots)
    assert all(s.seconds < 0.9 for s in shots), "no exposure of a second or longer"
    quick = [s for s in shots if abs(log2(s.seconds * 500)) < 0.1]
    for shot in quick:
        assert shot.stops != shot.wanted_stops, "the measured time counts, not the mark"
    plan.word("first", "-12")
    assert "The camera cannot give −12" in plan.advice
    assert "neutral density of" in plan.advice
    plan.word("filter", "6")
    assert plan.advice == ""
    assert any(f.frame.filter_stops for _, f in window.bench.loaded.frames())
    plan.word("ei", "1600")
    assert "dial stops before EI 1600" in plan.station.notes.text()


def test_film_too_short_for_a_strip_is_refused_with_what_would_help(planned):
    plan, _ = planned
    window = plan.window
    plan.word("supply", "12 frames")
    assert "strip A takes 14 frames and the film holds 12" in refusal_of(window)
    assert window.bench.loaded.test.film.amount == 36
    plan.word("supply", "24 frames")
    assert [s.strip.roll for s in window.bench.loaded.strips] == [1, 2]
    plan.word("blanks", "0")
    assert "keep 1 to 6 frames blank" in refusal_of(window)


def test_orders_put_drift_across_the_answer(planned):
    plan, _ = planned
    window = plan.window
    plan.word("order", "in pairs on twin cameras")
    loaded = window.bench.loaded
    order = [(s.strip.label, f.frame.name) for s, f in loaded.shots()][:6]
    assert order == [("A", "b1"), ("B", "b1"), ("A", "b2"), ("B", "b2"), ("A", "1"), ("B", "1")]
    plan.word("order", "each strip back to front")
    stops = [f.frame.wanted_stops for f in window.bench.loaded.strips[1].frames]
    lit = [s for s in stops if s is not None][:12]
    assert lit == sorted(lit, reverse=True)


def test_the_forecast_narrows_with_more_strips(qtbot, planned):
    plan, _ = planned
    said = plan.forecast()
    assert "one more strip" in said
    before = plan.half_width()
    plan.word("times", "5, 7, 9.5, 13 and 18")
    assert plan.half_width() < before


def test_something_else_is_taken_for_what_it_was(planned):
    plan, typist = planned
    window = plan.window
    typist.press(Qt.Key.Key_2, CTRL)
    typist.press(Qt.Key.Key_Space, times=2)
    first = window.bench.frame_id
    asked = next(f.frame for _, f in window.bench.loaded.frames() if f.frame.id == first)
    typist.press(Qt.Key.Key_O)
    typist.write("soon")
    assert "a shutter (1/60" in refusal_of(window)
    QApplication.focusWidget().selectAll()
    typist.write("1/60")
    taken = next(f.frame for _, f in window.bench.loaded.frames() if f.frame.id == first)
    apart = log2(exact_shutter(1 / 60) / asked.seconds)
    assert taken.stops == pytest.approx(asked.wanted_stops + apart, abs=0.6)
    assert window.bench.notebook.all(Exposure, frame_id=first)[0].seconds == pytest.approx(1 / 60)
    second = window.bench.frame_id
    typist.press(Qt.Key.Key_O)
    typist.write("+2")
    taken = next(f.frame for _, f in window.bench.loaded.frames() if f.frame.id == second)
    assert taken.stops == 2.0
    typist.press(Qt.Key.Key_Backspace)
    back = next(f.frame for _, f in window.bench.loaded.frames() if f.frame.id == second)
    assert (back.state, back.stops) == ("planned", pytest.approx(back.wanted_stops, abs=1 / 6))
    assert window.bench.notebook.all(Exposure, frame_id=second) == []


def test_light_that_moves_is_flagged_and_the_rest_rescaled_or_spoilt(planned):
    plan, typist = planned
    window = plan.window
    typist.press(Qt.Key.Key_2, CTRL)
    typist.press(Qt.Key.Key_Space, times=4)
    typist.press(Qt.Key.Key_M)
    typist.write("1/30")
    assert not window.station().asked.isVisible()
    typist.press(Qt.Key.Key_Space, times=2)
    waiting = [f.frame for _, f in window.bench.loaded.shots()][8]
    typist.press(Qt.Key.Key_M)
    typist.write("1/15")
    assert "1 stop dimmer" in words_of(window.station())
    typist.press(Qt.Key.Key_1)
    now = [f.frame for _, f in window.bench.loaded.shots()][8]
    brighter = log2(now.seconds / now.aperture**2 / (waiting.seconds / waiting.aperture**2))
    assert brighter == pytest.approx(1.0, abs=0.35)
    assert now.stops == pytest.approx(now.wanted_stops, abs=1 / 6)
    since = [f.frame.id for _, f in window.bench.loaded.shots()[6:9]]
    typist.press(Qt.Key.Key_Space, times=3)
    typist.press(Qt.Key.Key_M)
    typist.write("1/60")
    typist.press(Qt.Key.Key_2)
    spoilt = [
        f.frame for _, f in window.bench.loaded.frames() if f.frame.state == FrameState.SKIPPED
    ]
    assert len(window.bench.notebook.all(MeterReading)) == 3
    assert [f.id for f in spoilt] == since
    assert all("light moved" in f.note for f in spoilt)


def test_a_counter_that_disagrees_is_put_right(planned):
    plan, typist = planned
    window = plan.window
    typist.press(Qt.Key.Key_2, CTRL)
    typist.press(Qt.Key.Key_Space, times=5)
    typist.press(Qt.Key.Key_C)
    typist.write("6")
    said = words_of(window.station())
    assert "was taken but not ticked" in said
    assert "wound on once without an exposure" in said
    typist.press(Qt.Key.Key_2)
    strip = window.bench.loaded.strips[0]
    assert [f.frame.role for f in strip.frames][5] == FrameRole.LOST
    assert window.bench.loaded.exposed() == 6
    following = window.bench.selected()[1].frame
    assert (following.name, following.wanted_stops) == ("4", -3.0)
    typist.press(Qt.Key.Key_Space, times=2)
    typist.press(Qt.Key.Key_C)
    typist.write("7")
    assert "share one frame" in words_of(window.station())
    typist.press(Qt.Key.Key_2)
    piled = [
        f.frame for _, f in window.bench.loaded.frames() if f.frame.state == FrameState.DOUBLED
    ]
    assert [p.stops for p in piled] == [pytest.approx(log2(2**-3 + 2**-2), abs=0.2)]
    assert window.bench.loaded.exposed() == 7
    typist.press(Qt.Key.Key_C)
    typist.write("7")
    assert "agree" in said_by(window)


def test_a_note_goes_to_the_frame_that_is_next(planned):
    plan, typist = planned
    window = plan.window
    typist.press(Qt.Key.Key_2, CTRL)
    typist.press(Qt.Key.Key_N)
    typist.write("a gull walked through")
    (note,) = window.bench.notebook.all(Note)
    assert (note.words, note.frame_id) == ("a gull walked through", window.bench.frame_id)
    typist.press(Qt.Key.Key_0, CTRL)
    window.station().filter.setText("gull")
    assert "1 test" in words_of(window.station())


def test_the_ticked_sheet_comes_back_in_one_line(planned, tmp_path):
    plan, typist = planned
    window = plan.window
    typist.press(Qt.Key.Key_2, CTRL)
    typist.press(Qt.Key.Key_P)
    pages, words = pdf_words(tmp_path / "script Merrow Pan 125.pdf")
    total = len(window.bench.loaded.frames())
    assert pages == 1
    for part in ("1/250", "f/5.6", "Meter at the start", "14"):
        assert part in words
    typist.press(Qt.Key.Key_P, SHIFT)
    assert pdf_words(tmp_path / "script Merrow Pan 125 pocket.pdf")[0] == 1
    typist.press(Qt.Key.Key_T)
    QApplication.focusWidget().selectAll()
    typist.write("all, A 99 skipped")
    assert "strip A has frames 1 to 15" in refusal_of(window)
    assert window.bench.loaded.exposed() == 0
    QApplication.focusWidget().selectAll()
    typist.steps = 0
    typist.write("all, A 4 skipped, 6 doubled, 8 at +3")
    assert typist.steps == 1
    frames = [f.frame for _, f in window.bench.loaded.shots()]
    assert window.bench.loaded.exposed() == total
    assert (frames[3].state, frames[5].state, frames[7].stops) == (
        FrameState.SKIPPED,
        FrameState.DOUBLED,
        3.0,
    )
    typist.press(Qt.Key.Key_Z, CTRL)
    assert window.bench.loaded.exposed() == 0


def test_labels_say_what_was_shot(planned, tmp_path):
    _, typist = planned
    typist.press(Qt.Key.Key_2, CTRL)
    typist.press(Qt.Key.Key_L)
    _, words = pdf_words(tmp_path / "labels Merrow Pan 125.pdf")
    for part in (
        "Merrow Pan 125 M3",
        "EI 125 as shot",
        "strips A 6:00, B 9:00 min",
        "in Sable 1+1",
    ):
        assert part in words


def test_a_roll_shot_without_a_plan_is_entered_in_a_line(demo):
    window = demo("Merrow Pan 125", "shelf")
    book = window.bench.notebook
    line = "13 frames, −6 to +6, one blank first, frame 5 doubled, at EI 320"
    test = enter_roll(book, "Merrow Pan 125", "Sable", "1+1", line)
    loaded = load_test(book, test.id)
    frames = [f.frame for _, f in loaded.frames()]
    assert [f.role for f in frames] == ["blank"] + ["bracket"] * 13
    assert [f.stops for f in frames[1:]] == [-6, -5, -4, -2, -2, -1, 0, 1, 2, 3, 4, 5, 6]
    assert frames[4].state == FrameState.DOUBLED, "the fifth on the film, its blank counted"
    assert {f.exposure_index for f in frames[1:]} == {320.0}
    window.bench.open_test(test.id)
    window.bench.go("expose")
    said = words_of(window.station())
    assert "this roll is a push of 2 stops: this film was found to be EI 80 here" in said
    assert "measured, highlight density kept" in said or "rule of thumb" in said
    book.undo()
    assert load_test(book, test.id) is None


@pytest.mark.parametrize(
    ("line", "words"),
    [
        ("a roll", "say how many frames"),
        ("12 frames, -6 to +6", "count them again"),
        ("5 frames, 2 to -2", "from few stops to more"),
    ],
)
def test_a_roll_that_does_not_add_up_is_refused(line, words):
    with pytest.raises(EditRefusedError, match=words):
        roll_typed(line)


def test_the_batch_counts_down_with_the_first_frame(planned):
    plan, typist = planned
    window = plan.window
    book = window.bench.notebook
    (batch,) = book.all(Batch)
    with book.change("rolls"):
        book.put(Batch(**{**vars(batch), "rolls_left": 3}))
    typist.press(Qt.Key.Key_2, CTRL)
    typist.press(Qt.Key.Key_Space)
    assert book.all(Batch)[0].rolls_left == 2


def test_a_tablet_in_contact_gives_every_step_its_exposure(planned):
    plan, typist = planned
    window = plan.window
    plan.word("subject", "step wedge by contact")
    plan.word("tablet", "0.05, 0.35, 0.65, 0.95")
    lit = [
        f.frame for f in window.bench.loaded.strips[0].frames if f.frame.wanted_stops is not None
    ]
    top = window.bench.loaded.test.last_stop
    assert [f.stops for f in lit] == [
        pytest.approx(top - d / 0.30103, abs=1e-3) for d in (0.05, 0.35, 0.65, 0.95)
    ]
    assert len({f.seconds for f in lit}) == 1
    typist.press(Qt.Key.Key_2, CTRL)
    typist.press(Qt.Key.Key_Space, times=3)
    taken = window.bench.loaded.strips[0].frames[2].frame
    assert (taken.state, taken.stops) == (FrameState.EXPOSED, lit[0].stops)


def test_a_roll_another_test_began_is_gone_on_with(planned):
    plan, typist = planned
    window = plan.window
    plan.word("supply", "36 frames after 14")
    loaded = window.bench.loaded
    assert [s.strip.roll for s in loaded.strips] == [1, 2]
    typist.press(Qt.Key.Key_2, CTRL)
    typist.press(Qt.Key.Key_Space, times=2)
    typist.press(Qt.Key.Key_C)
    assert "16 frames are done" in words_of(window.station())


def test_the_smallest_plan_for_a_wanted_sureness(qtbot, planned):
    plan, _ = planned
    window = plan.window
    plan.forecast()
    plan.ask_smallest("0.30", until="frames do")
    plan.word("blanks", "3")
    column = plan.panel.forecast_column
    assert "frames do" not in column.smallest.text(), "it was found for another plan"
    window.bench.undo()
    plan.word("step", "1/2")
    frames = int(plan.ask_smallest("0.45", until="frames do").split()[0])
    assert frames < sum(f.frame.role != FrameRole.LOST for _, f in window.bench.loaded.frames())
    column.take_it.click()
    loaded = window.bench.loaded
    laid = [f for _, f in loaded.frames() if f.frame.role in ("bracket", "blank")]
    assert len(laid) == frames
    assert plan.half_width() <= 0.45, "the check frame and the camera's marks shift it a little"
    window.bench.undo()
    assert [s.minutes for s in window.bench.loaded.strips] == [6.0, 9.0]


def test_a_shot_roll_is_typed_in_from_the_question_page(qtbot, demo):
    window = demo("Merrow Pan 125", "shelf")
    typist = Hands(qtbot, window)
    typist.press(Qt.Key.Key_N, CTRL)
    typist.press(Qt.Key.Key_R, CTRL)
    typist.write("Merrow Pan 125", TAB)
    typist.write("Sable 1+1", TAB)
    typist.write("a roll of boats")
    assert "say how many frames" in refusal_of(window)
    QApplication.focusWidget().selectAll()
    typist.write("9 frames, -4 to +4, two blank first")
    assert window.bench.station == "expose"
    loaded = window.bench.loaded
    assert (loaded.title, loaded.process, loaded.exposed()) == (
        "Merrow Pan 125",
        "in Sable 1+1",
        11,
    )


def test_a_plan_counts_on_what_the_film_was_found_to_do(qtbot, demo):
    window = demo("Merrow Pan 125", "shelf")
    typist = Hands(qtbot, window)
    typist.press(Qt.Key.Key_N, CTRL)
    typist.press(ENTER)
    for typed in ("Merrow Pan 125", "M3", "Sable", "1+1"):
        typist.write(typed, TAB)
    panel = PlanPage(qtbot, window).panel
    qtbot.waitUntil(
        lambda: "this film's own curves of 2026-10-29" in words_of(panel.forecast_column),
        timeout=10000,
    )
    known = panel.forecaster.forecast(window.bench.loaded, panel.film).forecast
    assert known.zone_ei.value == pytest.approx(80, rel=0.1)
    assert known.time_min.value == pytest.approx(7.55, rel=0.05)


def test_a_comparison_names_its_other_developer(qtbot, open_window, tmp_path):
    window = open_window(tmp_path / "winter.vadrin")
    begin(Hands(qtbot, window), "compare")
    plan = PlanPage(qtbot, window)
    plan.word("others", "Tarn 1+9")
    strips = window.bench.loaded.strips
    book = window.bench.notebook
    other = book.get(Developer, strips[1].strip.developer_id)
    assert (other.name, other.dilution) == ("Tarn", "1+9")
    assert strips[0].strip.developer_id is None
    assert [s.strip.roll for s in strips] == [1, 2]
    found = differences(*(conditions_of(book, window.bench.loaded, x) for x in "AB"))
    assert [d.name for d in found] == ["developer", "dilution"]


def test_a_push_plan_asks_each_frame_from_its_own_ei(planned):
    plan, hands = planned
    window = plan.window
    typist = Hands(hands.qtbot, window)
    begin(typist, "push")
    plan.word("pushes", "0, 2")
    normal, pushed = window.bench.loaded.strips
    assert [s.strip.push for s in (normal, pushed)] == [0.0, 2.0]
    assert pushed.strip.planned_min > normal.strip.planned_min
    first, second = (
        next(f for f in s.frames if f.frame.wanted_stops == 0.0) for s in (normal, pushed)
    )
    assert second.frame.exposure_index == 4 * first.frame.exposure_index
    light = [f.frame.seconds / f.frame.aperture**2 for f in (first, second)]
    assert log2(light[0] / light[1]) == pytest.approx(2.0, abs=0.35)
    assert second.log_h(8.125) == pytest.approx(first.log_h(8.125) - 0.602, abs=0.06)


def test_long_exposures_of_a_reciprocity_test_take_light_away(planned):
    plan, hands = planned
    window = plan.window
    typist = Hands(hands.qtbot, window)
    begin(typist, "reciprocity")
    frames = [f.frame for _, f in window.bench.loaded.frames() if f.frame.wanted_stops is not None]
    short, *longs = frames
    assert short.wanted_stops == 0.0
    assert [f.seconds for f in longs[:4]] == [1.0, 2.0, 4.0, 4.0]
    for frame in longs:
        start = exact_shutter(1 / 30) / exact_aperture(5.6) ** 2
        light = log2(frame.seconds / frame.aperture**2 / start) - frame.filter_stops
        assert frame.stops == pytest.approx(light, abs=1e-3)
        assert abs(frame.stops - frame.wanted_stops) <= 0.5

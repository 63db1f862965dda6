"""Plans of many materials, two cameras and long exposures; film kept for leader and holder."""

from dataclasses import replace
from math import log2

import numpy as np
import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication

from tests.window.pages import CTRL, ENTER, ESCAPE, SPACE, UP, Hands, PlanPage, settle, words_of
from tests.window.test_plan_and_expose import begin, kit, refusal_of
from vadrin.app.entry.reciprocity_entry import reciprocity_typed
from vadrin.app.expose.cassette_labels import labels_of
from vadrin.app.expose.script import script_rows
from vadrin.app.process.darkroom_runs import clock_steps, process_steps
from vadrin.core.exposure.arithmetic import STOP
from vadrin.core.exposure.reciprocity import corrected_time
from vadrin.core.planning.plan_request import Arrangement
from vadrin.core.simulation.film import densities, invent_film
from vadrin.notebook.records import Batch, Camera, Exposure, Reading, Stock, Test


@pytest.fixture
def plan(qtbot, open_window, tmp_path):
    """Begin a plan of a kind on the camera of `kit`; gives the window and the hands."""

    def make(kind):
        window = open_window(tmp_path / "winter.vadrin")
        kit(window.bench.notebook)
        typist = Hands(qtbot, window)
        begin(typist, kind)
        page = PlanPage(qtbot, window)
        page.word("camera", "Quayside 35")
        page.word("lens", "Lugger 50")
        return page, typist

    return make


def test_many_stocks_are_compared_each_on_its_roll_and_told_apart(qtbot, plan):
    page, typist = plan("compare")
    window = page.window
    bench = window.bench
    page.word("compared", "stocks")
    page.word("others", "Brannock 400 batch B7, Ostrel 400")
    page.word("order", "in pairs on twin cameras")
    assert "compare one at a time" in refusal_of(window), "pairs are of two"
    assert bench.loaded.test.arrangement is Arrangement.SEQUENTIAL, "several follow each other"
    loaded, book = bench.loaded, bench.notebook
    stocks = [book.get(Stock, s.strip.stock_id or loaded.test.stock_id).name for s in loaded.strips]
    assert stocks == ["Merrow Pan 125", "Brannock 400", "Ostrel 400"]
    assert book.get(Batch, loaded.strips[1].strip.batch_id).name == "B7"
    assert [s.strip.roll for s in loaded.strips] == [1, 2, 3]
    assert [s.frames[-1].name for s in loaded.strips] == ["again"] * 3, "each roll its own check"
    assert [x.stock for x in labels_of(loaded)] == [
        "Merrow Pan 125 M3",
        "Brannock 400 batch B7",
        "Ostrel 400",
    ]
    assert "EI difference from the reference" in page.forecast()
    assert page.curve_names() == ["8:00 A"], "nothing is known of the others"
    typist.press(Qt.Key.Key_2, CTRL)
    assert "Set the meter to EI 125: it should say 1/30 at f/5.6" in words_of(window.station())
    typist.press(SPACE, times=len(loaded.strips[0].frames))
    assert "Load Brannock 400 batch B7. Set the meter to EI 125" in words_of(window.station())
    typist.press(SPACE, times=len(loaded.frames()))
    gains = {"B": 0.7, "C": -0.4}
    read_like(bench, gains)
    bench.go("finding")
    settle(qtbot, window)
    shown = words_of(window.station())
    compared = window.bench.analysis.compared
    assert [(c.strip, c.reference) for c in compared] == [("B", "A"), ("C", "A")]
    for one in compared:
        assert one.speed_stops.value == pytest.approx(gains[one.strip], abs=0.1)
        assert one.contrast.low < 1 < one.contrast.high
        assert f"{one.speed_stops.value:+.1f} stop".replace("-", "−") in shown
    assert "+0.7 stop" in shown
    assert "Brannock 400 batch B7 beside Merrow Pan 125 M3" in shown
    assert "Judge grain and sharpness blind" in shown
    typist.press(Qt.Key.Key_D, CTRL)
    (finding,) = bench.loaded.findings
    assert (finding.target_kind, finding.time_min) == ("its own words", 8.0)
    assert '"material": "stock' in finding.basis


def read_like(bench, gains):
    """Develop and read all strips; films alike but for their speed, in stops."""
    rng = np.random.default_rng(11)
    film = invent_film(rng, 125.0)
    loaded, book = bench.loaded, bench.notebook
    with book.change("read"):
        for strip in loaded.strips:
            book.put(replace(strip.strip, time_min=8.0, temperature_c=20.0))
            toe = film.toe - STOP * gains.get(strip.strip.label, 0.0)
            x = np.array(
                [
                    np.nan if at is None else at
                    for f in strip.frames
                    for at in [f.log_h(loaded.test.meter_constant)]
                ]
            )
            dense = densities(replace(film, toe=toe), 8.0, x) + rng.normal(0, 0.004, len(x))
            book.add_all(
                [
                    Reading(frame_id=f.frame.id, density=round(float(d), 3))
                    for f, d in zip(strip.frames, dense, strict=True)
                    if f.counts
                ]
            )
    bench.refresh()


def test_twin_cameras_each_keep_to_their_own_marks(plan):
    page, _ = plan("compare")
    window = page.window
    book = window.bench.notebook
    with book.change("a second camera"):
        book.add(Camera(name="Slip folder", slowest=1.0, fastest=1 / 125, bulb=False))
    page.word("others", "Tarn 1+9")
    page.word("shutter", "1/60")
    assert "Slip folder" not in words_of(window.station())
    page.word("twin", "Slip folder")
    first, second = window.bench.loaded.strips
    assert book.get(Camera, second.strip.camera_id).name == "Slip folder"
    assert first.strip.camera_id is None
    quickest = [min(f.frame.seconds for f in s.frames if f.frame.seconds) for s in (first, second)]
    assert quickest[0] < 1 / 400
    assert quickest[1] >= 1 / 130
    page.word("turned", "shutter")
    page.word("first", "-9")
    assert "Slip folder: The camera cannot give" in words_of(window.station())
    window.bench.undo()
    assert window.bench.loaded.test.first_stop == -6.0


def test_a_known_law_lengthens_long_exposures_and_says_so(plan):
    page, typist = plan("speed")
    window = page.window
    bench = window.bench
    with bench.notebook.change("a cable release"):
        camera = bench.notebook.all(Camera)[0]
        bench.notebook.put(replace(camera, bulb=True))
    page.word("shutter", "1/2")
    page.word("step", "whole stops")
    page.word("lens", "")
    bare = [f.frame for _, f in bench.loaded.frames() if f.frame.wanted_stops is not None]
    assert "film answers as to less light" in words_of(window.station())
    page.word("reciprocity", "slowly")
    assert "t^1.3" in refusal_of(window)
    QTest.keyClick(window.station().fields["reciprocity"], ESCAPE)
    page.word("reciprocity", "t^1.4")
    law = reciprocity_typed("t^1.4")
    assert bench.notebook.all(Stock, name="Merrow Pan 125")[0].reciprocity == "t^1.4"
    assert "lengthened as this film's own law" in words_of(window.station())
    held = [f.frame for _, f in bench.loaded.frames() if f.frame.wanted_stops is not None]
    longer = 0
    for before, after in zip(bare, held, strict=True):
        assert after.stops == pytest.approx(after.wanted_stops, abs=1 / 6 + 1e-3)
        if (after.seconds or 0) >= 2:
            longer += 1
            light = 2**after.stops * 0.5
            assert after.seconds == pytest.approx(corrected_time(law, light), rel=0.02)
            assert after.seconds > before.seconds
    assert longer >= 2
    page.word("film", "Brannock 400")
    assert bench.loaded.stock.reciprocity == "", "another film has its own law, or none"
    bench.undo()
    typist.press(Qt.Key.Key_2, CTRL)
    typist.press(SPACE, times=2)
    frame_id = bench.frame_id
    typist.press(Qt.Key.Key_O)
    typist.write("8 s")
    (taken,) = bench.notebook.all(Exposure, frame_id=frame_id)
    asked = next(f.frame for _, f in bench.loaded.frames() if f.frame.id == frame_id)
    assert taken.stops == pytest.approx(log2(8) / 1.4 - log2(0.5), abs=0.05)
    assert asked.stops == taken.stops


@pytest.mark.parametrize(
    ("typed", "seconds", "gives"),
    [
        ("t^1.3", 10, 10**1.3),
        ("T ^ 1,3", 10, 10**1.3),
        ("+0.15 t^1.4", 10, 10 + 0.15 * 10**1.4),
        ("t^1.2 from 4 s", 2, 2),
        ("1: 1.5, 10: 25, 100: 500", 10, 25),
        ("2:3; 10:25", 2, 3),
        ("1: 2, 10: 50", 0.4, 0.4),
    ],
)
def test_laws_are_read_as_they_are_written(typed, seconds, gives):
    assert corrected_time(reciprocity_typed(typed), seconds) == pytest.approx(gives, rel=1e-6)


@pytest.mark.parametrize(
    "typed", ["t^0.8", "t^9", "10: 5", "10: 20, 5: 9", "1.3", "1: 2, ten", "t^1.3 from 500 s"]
)
def test_laws_that_cannot_be_are_refused(typed):
    with pytest.raises(ValueError, match=r"t\^1\.3|number|rise|between|lies|shorten"):
        reciprocity_typed(typed)


def test_film_is_kept_for_the_leader_and_the_holder(plan):
    page, typist = plan("time")
    window = page.window
    page.word("times", "6 and 9")
    before = len(window.bench.loaded.frames())
    page.word("leader", "2")
    page.word("holder", "1 frame")
    loaded = window.bench.loaded
    assert [[f.name for f in s.frames][:4] for s in loaded.strips] == [
        ["leader", "leader", "holder", "blank"],
        ["holder", "blank", "blank", "−6"],
    ]
    assert len(loaded.frames()) == before + 4
    printed = script_rows(window.bench.notebook, loaded)
    rows = [(setting, does) for number, _, setting, does, _ in printed if number]
    assert rows[0] == ("wind on", "the leader")
    assert rows[2] == ("cap on", "goes to the holder")
    typist.press(Qt.Key.Key_2, CTRL)
    assert "fogged as the film was loaded" in words_of(window.station())
    typist.press(SPACE, times=2)
    assert "this frame goes to the holder" in words_of(window.station())
    window.bench.go("plan")
    window.bench.undo(), window.bench.undo()
    page.word("supply", "20 sheets")
    assert all(f.name not in ("leader", "cut") for _, f in window.bench.loaded.frames())
    page.word("supply", "12 frames")
    assert "takes 17 frames and the film holds 12" in refusal_of(window)


def test_a_roll_another_test_has_begun_is_offered(plan):
    page, typist = plan("speed")
    window = page.window
    page.word("step", "whole stops")
    used = len(window.bench.loaded.frames())
    typist.press(Qt.Key.Key_N, CTRL)
    QTest.keyClicks(QApplication.focusWidget(), "clip")
    typist.press(ENTER)
    page.word("film", "Merrow Pan 125")
    page.word("batch", "M3")
    page.step("supply", UP)
    assert page.station.fields["supply"].text() == f"36 frames after {used + 1}"
    film = window.bench.loaded.test.film
    assert (film.amount, film.taken) == (36, used + 1)


def test_frames_are_dragged_along_the_likely_curves(qtbot, plan):
    page, _ = plan("time")
    page.word("times", "6 and 9")
    before, bench, panel = page.forecast(), page.window.bench, page.panel
    page.drag(-1, -3, drop=False)
    qtbot.waitUntil(lambda: words_of(panel.forecast_column) != before, timeout=5000)
    assert (bench.loaded.test.last_stop, page.half_width() > 0) == (5.0, True)
    QTest.keyClick(panel.plot, ESCAPE)
    assert words_of(panel.forecast_column) == before
    page.drop()
    assert bench.loaded.test.last_stop == 5.0
    page.drag(-1, -2)
    assert (bench.loaded.test.first_stop, bench.loaded.test.last_stop) == (-6.0, 3.0)
    assert len(bench.loaded.strips[0].frames) == 2 + 10 + 1
    page.drag(0, 1)
    assert (bench.loaded.test.first_stop, bench.loaded.test.last_stop) == (-5.0, 3.0)
    page.drag(4, -2)
    assert (bench.loaded.test.first_stop, bench.loaded.test.last_stop) == (-7.0, 1.0)
    for _ in range(3):
        bench.undo()
    assert (bench.loaded.test.first_stop, bench.loaded.test.last_stop) == (-6.0, 5.0)
    bench.go("expose")
    page.window.updates.flush()
    QTest.keyClick(page.window.station(), SPACE)
    bench.go("plan")
    settle(qtbot, page.window)
    panel.draw_now()
    assert not panel.plot.draggable, "what is shot stays"


def test_times_beyond_the_measured_ones_are_said_to_be(qtbot, demo):
    window = demo("Merrow Pan 125", "shelf")
    begin(Hands(qtbot, window), "time")
    page = PlanPage(qtbot, window)
    page.forecast()
    assert "own curves of 2026-10-29" in words_of(page.panel)
    assert "beyond the times measured" not in words_of(page.panel)
    page.word("times", "8, 12 and 25")
    page.panel.draw_now()
    assert "Its curves for 25:00 are drawn beyond the times measured" in words_of(page.panel)


def test_the_smallest_plan_of_one_strip(qtbot, plan):
    page, _ = plan("speed")
    page.forecast()
    page.ask_smallest("0.3", until="frames do, 1 strip of")
    page.ask_smallest("5", until="frames do, 1 strip of")
    assert "between 0.02 and 2 stops" in refusal_of(page.window)
    page.ask_smallest("0.02", until="no plan within this bracket")
    assert not page.panel.forecast_column.take_it.isVisible()


def test_what_nobody_changed_is_small_print_and_tab_goes_on_in_it(qtbot, plan):
    page, typist = plan("time")
    station, window = page.station, page.window
    seen = [key for key in ("film", "first", "supply", "shutter") if in_view(station, key)]
    assert seen == ["film", "first"]
    assert words_of(station.small_print).startswith(
        "Assumed: film 36 frames, one strip after the other, first exposure repeated at the end; "
        "Quayside 35 with Lugger 50, the meter at 1/30 and f/5.6; "
        "develop, stop 1:00, fix 5:00, wash 10:00."
    )
    assert station.forecast_panel.plot.height() >= 200
    station.fields["blanks"].setFocus()
    for _ in range(20):
        typist.press(Qt.Key.Key_Tab)
        if QApplication.focusWidget() is station.fields["supply"]:
            break
    assert QApplication.focusWidget() is station.fields["supply"], "as if it had stood open"
    typist.press(Qt.Key.Key_Backtab)
    assert QApplication.focusWidget() is not station.fields["supply"]
    assert in_view(station, "shutter"), "what was opened stays open"
    page.word("filter", "1")
    window.bench.go("shelf")
    window.bench.open_test(window.bench.notebook.all(Test)[-1].id)
    window.bench.session.of_test(window.bench.loaded.test.id).clear()
    window.bench.go("plan")
    settle(qtbot, window)
    station = page.station
    assert in_view(station, "filter"), "what was changed stands as a sentence"
    assert not in_view(station, "supply")
    assert "Quayside" not in words_of(station.small_print)


def test_what_a_laboratory_does_is_said_in_the_plan_and_kept_for_the_bath(plan):
    page, typist = plan("time")
    bench = page.window.bench
    page.word("process_steps", "stop 1:00, fix 5")
    assert "only the developer goes without" in refusal_of(page.window)
    page.word("process_steps", "presoak 2, develop, stop 0:30, fix 4:30 at 21 °C, wash 12")
    own = [
        (s.name, s.seconds, s.temperature_c) for s in process_steps(bench.notebook, bench.loaded)
    ]
    assert own == [
        ("Presoak", 120.0, None),
        ("Develop", 0.0, None),
        ("Stop", 30.0, None),
        ("Fix", 270.0, 21.0),
        ("Wash", 720.0, None),
    ]
    assert [s.name for s in clock_steps(bench.notebook, bench.loaded) if s.develops] == ["Develop"]
    assert in_view(page.station, "process_steps"), "one's own steps stand open"
    typist.press(Qt.Key.Key_Z, CTRL)
    usual = "develop, stop 1:00, fix 5:00, wash 10:00"
    assert page.station.fields["process_steps"].text() == usual


def test_colour_film_keeps_the_steps_of_its_laboratory(plan):
    page, typist = plan("colour")
    bench = page.window.bench
    with bench.notebook.change("colour film"):
        bench.notebook.add(Stock(name="Merrow Colour 200", box_speed=200, kind="colour negative"))
    page.word("film", "Merrow Colour 200")
    assert page.station.fields["process"].text() == "colour negative, as usual"
    page.word("process_steps", "develop, bleach 4:20, fix 4:20, wash 3:15, stabilise 1")
    page.word("process", "Quay laboratory")
    shown = page.station.fields["process_steps"].text()
    assert bench.loaded.routine.name == "Quay laboratory"
    assert bench.loaded.routine.temperature_c == 37.8
    assert shown == "develop, bleach 4:20, fix 4:20, wash 3:15, stabilise 1:00"
    bath = bench.loaded.test.developer_id
    begin(typist, "colour")
    again = PlanPage(page.qtbot, page.window)
    again.word("film", "Merrow Colour 200")
    assert bench.loaded.test.developer_id == bath
    assert again.station.fields["process_steps"].text() == shown
    begin(typist, "time")
    again.word("film", "Kelda Pan 200")
    assert bench.loaded.routine is None, "black-and-white film has its own"


def in_view(station, key):
    return station.fields[key].isVisibleTo(station)


def test_what_a_test_takes_is_told_with_its_question_and_its_plan(plan):
    page, _ = plan("time")
    assert "In all 59 frames on 2 rolls, 4 developments, about 4 hours of work." in page.caption()
    page.word("times", "6, 8")
    assert "In all 30 frames on 1 roll, 2 developments, about 2 hours of work." in page.caption()

"""The darkroom through the window, by a clock the test turns: runs, crashes, drift, recipes."""

from dataclasses import replace

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from tests.notebooks import new_test
from tests.window.pages import type_into, words_of
from vadrin.app.expose.cassette_labels import labels_of
from vadrin.app.instruments import listening, thermometer
from vadrin.app.process import darkroom_runs
from vadrin.app.process.rules_of_thumb import trial_lines
from vadrin.app.process.running_clocks import RunningClock
from vadrin.app.process.uptime import moment_now, seconds_at
from vadrin.core.process.agitation import Agitation
from vadrin.core.process.clock_records import ClockEvent, ClockStep, RunEventType, StripTime
from vadrin.core.process.darkroom_clock import DarkroomClock
from vadrin.core.restated_time import restated_time
from vadrin.notebook.records import DarkroomRun, Developer, Process, RunEvent, Strip
from vadrin.ui.widgets.fields import WordField


class ClockRoom:
    """The Process station's clock, pressed as a person would."""

    def __init__(self, window, hours):
        self.window, self.hours = window, hours
        window.bench.go("process")
        window.updates.flush()
        self.station = window.pages.station("process")
        self.station.turn_to("clock")
        self.page = self.station.clock

    def wait(self, seconds):
        self.hours.passed += seconds
        self.page.tick()

    def press(self, words):
        button = next(
            b
            for b in (self.page.main, self.page.pause, self.page.stop, self.page.take)
            if b.text() == words and b.isVisibleTo(self.page)
        )
        button.setFocus()
        QTest.keyClick(button, Qt.Key.Key_Space)
        self.window.updates.flush()

    def said(self):
        return self.page.face.whole()

    def note(self, degrees):
        type_into(self.page.warmth, degrees)
        self.window.updates.flush()

    def strips(self):
        return {s.label: s for s in self.window.bench.notebook.all(Strip)}


def room_of(open_window, tmp_path, hours, times, **process):
    window = open_window(tmp_path / "winter.vadrin")
    book = window.bench.notebook
    test = new_test(book, "Kelda Pan 200", "Sable", "1+1", times=times)
    if process:
        with book.change("process"):
            made = book.add(Process(name="ours", **process))
            book.put(replace(test, process_id=made.id, agitation=made.agitation))
    window.bench.open_test(test.id)
    return ClockRoom(window, hours)


def test_four_strips_are_pulled_and_recorded_to_the_second(open_window, tmp_path, hours):
    room = room_of(open_window, tmp_path, hours, (5.0, 7.0, 10.0, 15.0))
    assert "Develop · step 1 of 4: 15:00 left, not started" in room.said()
    room.press("Start the clock")
    room.note("20.5")
    got = {}
    for label, until in (("A", 287.0), ("B", 401.0), ("C", 573.0)):
        room.wait(until - room.hours.passed - 2)
        assert f"take out strip {label}" in room.said()
        room.wait(2)
        room.press(f"Strip {label} is out")
        got[label] = until
    room.wait(860.0 - room.hours.passed)
    room.press("On to: Stop")
    assert "agitate" in room.said()
    room.station.setFocus()
    QTest.keyClick(room.station, Qt.Key.Key_Return, Qt.KeyboardModifier.ControlModifier)
    room.window.updates.flush()
    for label, strip in room.strips().items():
        assert strip.time_min * 60 == pytest.approx(got.get(label, 860.0), abs=0.51)
        assert strip.temperature_c == pytest.approx(20.5, abs=0.02)
        worth = restated_time(strip.time_min, strip.temperature_c)
        assert worth == pytest.approx(strip.planned_min, rel=0.005)
    room.window.bench.notebook.undo()
    assert all(s.time_min is None for s in room.strips().values())


def test_a_semi_stand_goes_on_to_the_second_after_a_crash(open_window, tmp_path, hours):
    room = room_of(
        open_window,
        tmp_path,
        hours,
        (120.0,),
        kind="semi-stand",
        agitation="first 60 s, then 10 s at 30 and 60 min",
    )
    room.press("Start the clock")
    room.wait(1790)
    assert "agitate in 0:10" in room.said()
    room.wait(3000 - 1790)
    # The program dies, the machine is started anew, and the wall's clock goes on alone.
    path = room.window.bench.notebook.path
    room.window.bench.notebook._let_go()
    room.hours.passed, room.hours.boot = 3725.0, "two"
    again = open_window(path)
    again.bench.open_test(room.window.bench.loaded.test.id)
    back = ClockRoom(again, room.hours)
    assert "57:55 left" in back.said()
    # The wall's clock is set an hour ahead: within one start it tells nothing.
    back.press("End run")
    assert "stopped" in back.said()
    back.press("Record these times")
    (strip,) = back.strips().values()
    assert strip.time_min * 60 == pytest.approx(3725, abs=0.51)


def test_what_stands_says_until_when_and_what_was_missed_is_said(
    open_window, tmp_path, hours, monkeypatch
):
    for module in (listening, thermometer):
        monkeypatch.setattr(module, "moment_now", hours)
    room = room_of(
        open_window,
        tmp_path,
        hours,
        (120.0,),
        kind="semi-stand",
        agitation="first 60 s, then 10 s at 30 and 60 min",
    )
    room.press("Start the clock")
    room.wait(200)
    assert "agitate in 26:40" in room.said(), "half an hour is not left unsaid"
    # The lid is closed over the first agitation.
    ears = room.window.ears
    ears.hear()
    room.wait(2000 - 200)
    ears.hear()
    assert "agitation was due at 30:00, 3:20 ago" in words_of(room.window.banner)
    assert "Do it now" in words_of(room.window.banner)
    # The program dies, and is opened again after the second.
    path = room.window.bench.notebook.path
    room.window.bench.notebook._let_go()
    room.hours.passed = 3725.0
    again = open_window(path)
    again.notebook_opened()
    assert "agitation was due at 1:00:00, 2:05 ago" in words_of(again.banner)


def test_frequent_agitation_is_not_called_missed_and_an_overdue_tank_is():
    moved = Agitation(30, 10, 60)
    steps = (ClockStep("develop", 900, moved, (StripTime("A", 900),), develops=True),)
    clock = DarkroomClock(steps, (ClockEvent(0.0, RunEventType.START),))
    tank = RunningClock(1, "Kelda Pan", clock)
    assert tank.missed(10.0, 400.0) == ""
    assert not tank.overdue(890.0)
    assert tank.words(840.0) == "Kelda Pan: develop 1:00"
    assert tank.overdue(980.0)
    assert tank.words(980.0) == "Kelda Pan: develop is overdue by 1:20"
    assert not tank.forgotten(980.0)
    assert tank.forgotten(900.0 + 3601), "a run from last week keeps no computer awake"


def test_a_wall_clock_set_anew_changes_nothing_within_one_start(open_window, tmp_path, hours):
    room = room_of(open_window, tmp_path, hours, (8.0,))
    room.press("Start the clock")
    room.wait(100)
    room.hours.wall_off = 3600.0
    room.page._load()
    room.page.tick()
    assert "6:20 left" in room.said()
    now = hours()
    assert seconds_at(now.stamp, 1.0, "other", now) == pytest.approx(now.uptime, abs=0.01)


def test_colour_that_drifts_is_retimed_and_restated(open_window, tmp_path, hours):
    room = room_of(
        open_window,
        tmp_path,
        hours,
        (3.25,),
        kind="colour negative",
        temperature_c=37.8,
        agitation="first 30 s, then 5 s every 30 s",
    )
    assert "step 1 of 6: 3:15 left" in room.said()
    room.press("Start the clock")
    room.note("37.8")
    room.wait(100)
    room.note("36.9")
    # The first 100 s were worth 97 at 37.8 °C; the other 98 take 104 at 36.9.
    assert "1:45 left" in room.said()
    room.wait(104.0)
    room.press("On to: Bleach")
    room.press("Record these times")
    (strip,) = room.strips().values()
    assert strip.time_min * 60 == pytest.approx(204.0)
    worth = restated_time(strip.time_min, strip.temperature_c, 37.8, 2.0)
    assert worth == pytest.approx(3.25, rel=0.005)
    room.station.turn_to("got")
    assert "2 × as fast for each 10 °C" in words_of(room.station)


def test_a_reversal_sheet_goes_through_all_its_steps(open_window, tmp_path, hours):
    room = room_of(open_window, tmp_path, hours, (6.0,), kind="reversal")
    room.press("Start the clock")
    seen = []
    for _ in range(8):
        seen.append(room.said().split(" · ")[0])
        paused = room.page.pause.isVisibleTo(room.page)
        assert paused == (seen[-1] in ("Second exposure", "Fix", "Wash") and len(seen) > 2)
        room.wait(30)
        if seen[-1] == "Fix":
            room.press("Pause")
            room.wait(500)
            assert "4:30 left, paused" in room.said()
            room.press("Go on")
        room.press(room.page.main.text())
    assert seen == [
        "First developer",
        "Wash",
        "Bleach",
        "Clear",
        "Second exposure",
        "Second developer",
        "Fix",
        "Wash",
    ]
    assert "stopped" in room.said()
    run = room.window.bench.notebook.all(DarkroomRun)[0]
    events = room.window.bench.notebook.all(RunEvent)
    assert [e.what for e in events if e.run_id == run.id].count("next step") == 7
    room.press("Record these times")
    assert next(iter(room.strips().values())).time_min == 0.5


def test_a_recipe_says_what_goes_into_the_tank(demo):
    window = demo("Merrow Pan 125", "process")
    station = window.pages.station("process")
    station.turn_to("recipe")
    page = station.recipe
    told = words_of(page)
    assert told.index("Gloves") < told.index("Sable 1+1")
    assert "300 ml, water to 600 ml" in told
    assert "225 ml water at 50 °C, then 0.6 g Osmel, then 30 g Marl salt" in told
    assert "Do not breathe powders" in told
    assert told.index("Sable 1+1") < told.index("Tern 1+19") < told.index("Brine 1+4")
    assert "Scaur" not in told, "no step of a negative process bleaches"
    type_into(page.fields["tank"], "0")
    assert "more than 0 ml" in words_of(station)
    assert page.room.tank_ml == 600.0
    type_into(page.fields["tank"], "1000")
    assert "500 ml, water to 1000 ml" in words_of(page)
    type_into(page.fields["bath"], "-3")
    assert "between 5 and 60" in words_of(station)
    type_into(page.fields["bath"], "23")
    told = words_of(page)
    assert "Strip A: develop 3:25 in this bath (equal to 4:30 at 20 °C)." in told
    assert "take water colder than 20 °C" in told
    type_into(page.fields["tap"], "10")
    assert "300 ml" in words_of(page) or "water bath" in words_of(page)
    type_into(page.fields["bath"], "34")
    assert "too far" in words_of(page)


def test_a_run_that_means_nothing_here_is_passed_over(notebook):
    test = new_test(notebook, "Kelda Pan 200", "Sable", "1+1", times=(6.0,))
    with notebook.change("from elsewhere"):
        for steps in ("[]", "7", '[{"name": 1}]', ""):
            notebook.add(DarkroomRun(test_id=test.id, steps=steps))
    assert darkroom_runs.run_under_way(notebook, test.id, moment_now()) is None


def test_what_the_chemistry_forbids_is_refused(notebook, tmp_path):
    test = new_test(notebook, "Kelda Pan 200", "Sable", "1+1", times=(6.0,))
    from vadrin.app.document.test_loading import load_test
    from vadrin.core.process.clock_records import RunEventType
    from vadrin.errors import EntryError

    now = moment_now()
    run = darkroom_runs.begin_run(notebook, load_test(notebook, test.id), now)
    with pytest.raises(EntryError, match="can't be paused"):
        darkroom_runs.note_event(notebook, run, now, RunEventType.PAUSE)
    with pytest.raises(EntryError, match="no strip has left"):
        darkroom_runs.confirm_run(notebook, run, now)
    assert len(notebook.all(RunEvent)) == 1


def test_twin_rolls_in_stand_and_in_the_usual_way_are_told_apart(open_window, tmp_path, hours):
    """Two rolls shot alike: one stands in a weak bath at the room's warmth, one is agitated."""
    from oracles.film_shapes import SHAPES
    from vadrin.app.document.analysis_input import readings_of, settings_of
    from vadrin.app.library.differences import conditions_of
    from vadrin.core.results.analysis import analyse
    from vadrin.notebook.records import Frame, Reading

    room = room_of(open_window, tmp_path, hours, (8.0, 60.0))
    book = room.window.bench.notebook
    with book.change("cupboard"):
        bath = book.add(Developer(name="Mire", dilution="1+100"))
        book.add(
            Process(
                name="Ebb stand",
                kind="stand",
                developer_id=bath.id,
                temperature_c=22.0,
                agitation="first 60 s, then stand",
                q10=2.0,
            )
        )
    room.station.turn_to("got")
    second = next(s for s in book.all(Strip) if s.label == "B")
    _, _, way, bath, moved = room.station.got._rows[second.id]
    type_into(way, "Ebb stand")
    room.window.updates.flush()
    assert (bath.text(), moved.text()) == ("Mire 1+100", "first 60 s, then stand")
    loaded = room.window.bench.loaded
    assert [s.material for s in readings_of(loaded)] == []
    for label, degrees, seconds in (("A", "20", 480), ("B", "23.5", 3600)):
        room.station.turn_to("clock")
        room.press("Start the clock")
        room.note(degrees)
        assert ("agitate in" in room.said()) == (label == "A")
        # The second goes by its own process: 60 min at 22 °C, twice as fast for each 10 °C.
        factor, reference = (2.5, 20) if label == "A" else (2.0, 22)
        room.wait(seconds / factor ** ((float(degrees) - reference) / 10))
        room.press("On to: Stop")
        room.press("Record these times")
        assert room.strips()[label].time_min is not None
        assert (room.strips()["B"].time_min is None) == (label == "A")
    shape = SHAPES["plain"]
    frames = {s.id: list(book.all(Frame, strip_id=s.id)) for s in book.all(Strip)}
    with book.change("read"):
        for strip in book.all(Strip):
            speed = 0.0 if strip.label == "A" else 0.15
            for frame in frames[strip.id]:
                x = None if frame.stops is None else -1.0 + 0.301 * frame.stops + speed
                density = shape.density(x, 8.0)
                book.add(Reading(frame_id=frame.id, density=round(density, 3)))
                book.put(replace(frame, state="exposed"))
    room.window.bench.open_test(room.window.bench.loaded.test.id)
    loaded = room.window.bench.loaded
    first, other = (conditions_of(book, loaded, label) for label in "AB")
    differing = {k for k in first if first[k] != other[k]}
    assert {"process", "developer", "dilution", "temperature", "agitation"} <= differing
    answer = analyse(readings_of(loaded), settings_of(loaded))
    assert len({s.material for s in readings_of(loaded)}) == 2
    restated = {s.label: s.restated_min for s in answer.strips}
    assert restated == pytest.approx({"A": 8.0, "B": 60.0}, rel=0.005)
    lines = [line for label in labels_of(loaded) for line in label.lines]
    assert "A: in Sable 1+1 at 20 °C" in lines
    assert any(line.startswith("B: ") and "at 22 °C" in line for line in lines)
    assert [c.strip for c in answer.compared] == ["B"]


def test_a_drop_test_is_tried_on_three_developers_and_refuted(demo):
    """Predicted before, measured after, scored where the rule is offered."""
    window = demo("Merrow Pan 125", "process")
    station = window.pages.station("process")
    station.turn_to("rules")
    page = station.rules
    type_into(page.name, "drop test, a quarter")
    assert "not tried yet" in words_of(page)
    book = window.bench.notebook
    baths = {d.name: d.id for d in book.all(Developer) if d.role == "developer"}
    trials = (
        ("Merrow", "Sable", "52", "8"),
        ("Brannock 400 B6", "Mire", "30", "11"),
        ("Kelda", "Gannet", "41", "6:30"),
    )
    for film, bath, seconds, measured in trials:
        demo(film, "process")
        station.turn_to("rules")
        with book.change("another developer"):
            book.put(replace(window.bench.loaded.test, developer_id=baths[bath]))
        type_into(page.given, seconds)
        page.seal.click()
        newest = next(t for t in trial_lines(window.bench.notebook) if t.measured == "—")
        field = next(
            f
            for f in page.findChildren(WordField)
            if f.accessibleName() == f"measured, trial {newest.trial_id}"
        )
        type_into(field, measured)
    said = words_of(page)
    assert "Not reliable. Of 3 trials 0 were within 10 %" in said
    assert "× 1.62" in said
    assert "By developer: Gannet stock × 1.58, Mire 1+100 × 0.68, Sable 1+1 × 1.62." in said
    type_into(page.name, "no such rule")
    assert "no rule called" in words_of(station)
    type_into(page.name, "a third more a stop")
    type_into(page.given, "1")
    assert "give that too" in words_of(station)
    type_into(page.usual, "7:30")
    assert "It says 10:00." in words_of(page)

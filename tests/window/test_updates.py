"""What is told to the views, and how often; actions in one list; jobs that answer once."""

from PyQt6 import sip
from PyQt6.QtCore import QEvent, QObject, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QMenu
from pyqtgraph import ScatterPlotItem

from tests.window.pages import CTRL, DOWN, ENTER, ESCAPE, Hands, button_of, settle, words_of
from vadrin.app.document.stations import STATIONS
from vadrin.app.document.workbench import Topic
from vadrin.errors import StoppedError
from vadrin.notebook.records import Frame, Reading, Stock, Test
from vadrin.ui.frame.command_box import actions_matching
from vadrin.ui.jobs import Jobs, SlicedJob
from vadrin.ui.plots.curve_plot import CurvePlot
from vadrin.ui.widgets.input_watch import InputWatch


class Counted:
    """Counts how often a view is shown anew, and with which call."""

    def __init__(self, monkeypatch, window):
        self.shown = {}
        views = {
            "header": (window.header, "show_bench"),
            "table": (window.table, "show_test"),
            "rail": (window.rail, "show_steps"),
            "finding": (window.finding.column, "show_finding"),
            "station": (window.station(), "show_state"),
        }
        for name, (view, method) in views.items():
            self._watch(monkeypatch, name, view, method)

    def _watch(self, monkeypatch, name, view, method):
        show = getattr(view, method)

        def counted(*given):
            self.shown[name] = self.shown.get(name, 0) + 1
            return show(*given)

        monkeypatch.setattr(view, method, counted)

    def since(self):
        """What was shown since it was last asked."""
        QApplication.processEvents()
        told, self.shown = self.shown, {}
        return told


def test_a_typed_density_shows_every_view_once_and_its_answer_only_where_it_is_seen(
    qtbot, demo, monkeypatch
):
    window = demo("Brannock 400 B7", "read")
    hands, counted = Hands(qtbot, window), Counted(monkeypatch, window)
    jobs = window.jobs
    held = []
    run = jobs.run
    monkeypatch.setattr(jobs, "run", lambda *given, **more: held.append((given, more)))
    hands.write("0.2437")  # a value that no other test has asked about
    assert counted.since() == {"header": 1, "table": 1, "rail": 1, "finding": 1, "station": 1}
    monkeypatch.setattr(jobs, "run", run)
    ((asked, more),) = held
    jobs.run(*asked, **more)
    settle(qtbot, window)
    assert counted.since() == {"rail": 1, "finding": 1, "station": 1}, "the answer, once"


def test_each_view_of_a_long_test_has_a_turn_of_its_own_and_a_key_waits_for_none(
    qtbot, demo, monkeypatch, tmp_path
):
    rows = [
        f"S{strip},{5 + strip},{frame},{-3 + 0.03 * frame:.2f},{0.2 + 0.01 * frame:.2f}"
        for strip in range(11)
        for frame in range(100)
    ]
    path = tmp_path / "long.csv"
    path.write_text("\n".join(["strip,time_min,frame,log_h,density", *rows]), encoding="utf-8")
    window = demo("Merrow Pan 125", "curves")
    window.importing.offer(path)
    qtbot.waitUntil(lambda: not window.busy and window.bench.loaded.is_long)
    settle(qtbot, window)
    assert len(window.station().findChild(CurvePlot).points) == len(rows)
    qtbot.waitUntil(lambda: marks_in(window) == len(rows))  # some at a time, and all of them
    counted = Counted(monkeypatch, window)
    turns = []
    window.bench.changed.emit(Topic.SHEET)
    for _ in range(30):
        before = dict(counted.shown)
        window.updates._take_turn()
        turns.append([n for n, c in counted.shown.items() if c != before.get(n)])
    assert sorted(filter(None, turns)) == [[n] for n in sorted(counted.shown)]
    assert counted.since() == dict.fromkeys(("header", "table", "rail", "finding", "station"), 1)
    window.bench.go("read")
    QTest.keyClick(window.windowHandle(), Qt.Key.Key_5)
    assert window.station().field.text() == "5", "turned before the key came"


def marks_in(window):
    items = window.station().findChild(CurvePlot).getPlotItem().items
    readings = [i for i in items if isinstance(i, ScatterPlotItem) and i.zValue() == 5]
    return sum(len(i.data) for i in readings)


def test_a_selection_reaches_only_those_who_show_it(demo, monkeypatch):
    window = demo("Merrow Pan 125", "curves")
    counted = Counted(monkeypatch, window)
    for frame in window.bench.loaded.strips[0].frames[:5]:
        window.bench.select(frame.frame.id)
    assert counted.since() == {"table": 1, "station": 1}, "five changes in one turn are one"


def test_showing_a_scene_never_changes_the_bench(qtbot, demo):
    window = demo("Merrow Pan 125", "shelf")
    bench, told = window.bench, []
    bench.changed.connect(told.append)
    for station in STATIONS:
        bench.go(station)
        settle(qtbot, window)
        told.clear()
        before = bench.loaded, bench.frame_id, bench.station, bench.notebook.revision
        for topic in Topic:
            window.updates.note(topic)
        window.updates.flush()
        QApplication.processEvents()
        assert told == [], station
        assert (bench.loaded, bench.frame_id, bench.station, bench.notebook.revision) == before


def test_a_key_never_meets_a_view_that_is_behind(qtbot, demo):
    window = demo("Brannock 400 B7", "plan")
    window.bench.go("read")
    # As a desktop sends it: to the window, which gives it to what has the keyboard.
    QTest.keyClick(window.windowHandle(), Qt.Key.Key_5)
    assert window.station().field.text() == "5", "turned before the key came"


def test_nothing_looks_at_widgets_that_are_just_being_deleted(qtbot, demo, monkeypatch):
    """Python would make a half for what is gone, and take it for the next widget at its place."""
    met, destroyed = set(), 16

    def look(_watch, _watched, event):
        met.add(getattr(event.type(), "value", event.type()))
        return False

    window = demo("Kelda Pan 200", "plan")
    monkeypatch.setattr(InputWatch, "eventFilter", look)
    # Beside the station's own page, so that nothing hides it before it is deleted.
    field = window.station().side_panel.sureness
    field.setFocus()
    assert field.hasFocus()
    QTest.keyClicks(field, "+400")
    QTest.keyClick(field, Qt.Key.Key_Return)
    window.bench.changed.emit(Topic.NOTEBOOK)
    QTest.keyClick(field, Qt.Key.Key_Shift, CTRL)
    window.updates.note(Topic.EVERYTHING)
    window.pages.let_go()
    assert QEvent.Type.KeyPress.value in met, "it looks"
    assert destroyed not in met


def keys_of(actions):
    return [keys for action in actions for keys in action.keys]


def test_every_key_does_one_thing_and_is_listed(qtbot, demo):
    window = demo("Merrow Pan 125", "shelf")
    for station in ("shelf", "cupboard", "question", *STATIONS):
        window.bench.go(station)
        settle(qtbot, window)
        check_keys(qtbot, window)


def check_keys(qtbot, window):
    here, everywhere = window.station().actions_here, window.actions_everywhere
    used = keys_of(here) + keys_of(everywhere)
    assert len(used) == len(set(used))
    ids = [a.id for a in (*here, *everywhere)]
    assert len(ids) == len(set(ids))
    assert here, "every station says its keys"
    qtbot.keyClick(window, Qt.Key.Key_F1)
    said = words_of(window.over.keys)
    for action in (*here, *everywhere):
        if action.key_text:
            assert action.words in said
            assert action.key_text in said
    assert window.over.keys.height() <= window.height()
    qtbot.keyClick(window.over.keys, ESCAPE)
    assert not window.over.keys.isVisible()


def test_anything_that_can_be_done_is_found_by_a_part_of_its_words(qtbot, demo):
    window = demo("Brannock 400 B7", "read")
    hands = Hands(qtbot, window)
    before = QApplication.focusWidget()
    hands.press(Qt.Key.Key_K, CTRL)
    box = window.over.commands
    assert box.isVisible()
    assert box.found.count() == len(window.runnable_actions())
    hands.write("cupb", None)
    assert [box.found.item(r).text() for r in range(box.found.count())] == [
        "Go to the cupboard    Ctrl+9"
    ]
    hands.press(ESCAPE)
    assert (box.isVisible(), QApplication.focusWidget()) == (False, before)
    hands.press(Qt.Key.Key_K, CTRL)
    hands.write("go to", None)
    hands.press(DOWN)
    hands.press(ENTER)
    assert window.bench.station == "expose"
    hands.press(Qt.Key.Key_K, CTRL)
    hands.write("no such act", None)
    assert "Nothing that can be done here" in words_of(box)
    hands.press(ENTER)
    assert box.isVisible()


def test_a_found_command_does_what_its_key_does(qtbot, demo):
    window = demo("Brannock 400 B7", "read")
    hands, bench = Hands(qtbot, window), window.bench
    count = bench.notebook.count(Reading)
    hands.write("0.2437")  # a value that no other test has asked about
    hands.press(Qt.Key.Key_K, CTRL)
    hands.write("undo read 0.24")
    assert bench.notebook.count(Reading) == count
    for words, station in (("shelf", "shelf"), ("new test", "question")):
        hands.press(Qt.Key.Key_K, CTRL)
        hands.write(words)
        assert bench.station == station
    assert not [a for a in window.runnable_actions() if a.id == "edit.undo"], "nothing to undo"
    titles = [a.title for a in actions_matching(window.runnable_actions(), "go")]
    assert titles[0].startswith("Go to"), "what begins so comes first"


def test_the_menu_holds_what_the_list_holds(demo):
    window = demo("Merrow Pan 125", "curves")
    button_of(window.header, "File").click()
    menu = window.header.findChild(QMenu)
    shown = [a.text().split("\t")[0] for a in menu.actions() if a.text()]
    wanted = [a.title for a in window.actions_everywhere if a.menu]
    assert shown[: len(wanted)] == wanted
    menu.close()


def test_of_many_jobs_of_a_kind_the_newest_answers(qtbot):
    jobs, answers, failures = Jobs(), [], []
    for n in range(20):
        jobs.run("count", lambda said, n=n: n, answers.append)
    jobs.run("other", lambda said: 1 / 0, answers.append, failures.append)
    qtbot.waitUntil(lambda: not jobs.busy(), timeout=5000)
    assert answers == [19]
    assert [type(f) for f in failures] == [ZeroDivisionError]
    jobs.close()


class _Shown(QObject):
    """A view that may be gone when its answer comes."""

    def take(self, made):
        raise AssertionError("nothing is there to take it")


def test_an_answer_for_a_view_that_is_gone_goes_nowhere(qtbot):
    jobs, view, answers = Jobs(), _Shown(), []
    jobs.run("view", lambda said: 1, view.take)
    jobs.run("other", lambda said: 2, answers.append)
    sip.delete(view)
    qtbot.waitUntil(lambda: answers == [2], timeout=5000)
    assert not jobs.busy()
    jobs.close()


def test_a_job_tells_how_far_it_is_and_stops_when_asked(qtbot):
    jobs, told, answers = Jobs(), [], []

    def work(said):
        for done in range(1000):
            said(done, 1000)
        return "done"

    jobs.run("long", work, answers.append, said=lambda *at: told.append(at))
    qtbot.waitUntil(lambda: answers == ["done"], timeout=5000)
    assert told[0] == (0, 1000)
    assert told == sorted(told)

    def forever(said):
        while True:
            said(0, 1)

    jobs.run("long", forever, answers.append)
    jobs.cancel("long")
    jobs.close()
    QApplication.processEvents()
    assert answers == ["done"]


def test_sliced_work_that_fails_or_is_stopped_is_taken_back(qtbot, notebook):
    parent, heard = QObject(), []

    def steps(fails):
        with notebook.change("many stocks"):
            for n in range(6):
                notebook.add(Stock(name=f"stock {n}"))
                yield n, 6
                if fails and n == 3:
                    raise StoppedError
        return "all"

    def slice_job(fails):
        return SlicedJob(
            parent, steps(fails), lambda *at: heard.append(at), heard.append, heard.append
        )

    slice_job(fails=True)
    qtbot.waitUntil(lambda: bool(heard) and isinstance(heard[-1], StoppedError), timeout=5000)
    assert notebook.all(Stock) == []
    heard.clear()
    stopped = slice_job(fails=False)
    while not heard:
        QApplication.processEvents()
    stopped.cancel()
    assert notebook.all(Stock) == []
    assert notebook.undo_label() == ""
    heard.clear()
    slice_job(fails=False)
    qtbot.waitUntil(lambda: heard[-1:] == ["all"], timeout=5000)
    assert len(notebook.all(Stock)) == 6
    assert heard[0] == (0, 6)
    assert notebook.count(Test) == notebook.count(Frame) == 0


def test_the_keyboard_is_where_the_work_begins_before_another_turn(demo, qtbot):
    window = demo("Kelda Pan 200", "plan")
    window.bench.go("process")
    window.updates.flush()
    assert QApplication.focusWidget().accessibleName() == "time of strip A"

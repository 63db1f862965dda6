"""A sheet traced with the mouse and taken back, patches typed and seen to turn."""

import re

import numpy as np
import pytest
from PIL import Image
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QWidget

from oracles.film_shapes import SHAPES
from tests.notebooks import developed_test, new_test
from tests.window.pages import CTRL, refusal_of, settle, type_into, words_of
from tests.window.test_kinds_to_their_cards import drawn_sheet
from vadrin.core.planning.test_options import Pushes
from vadrin.notebook.records import Attachment, Judgement, MakerTime, Reading
from vadrin.ui.plots.hue_wedges import HueWedges
from vadrin.ui.plots.patch_squares import PatchSquares
from vadrin.ui.theme.look import SAFELIGHT

PLAIN = SHAPES["plain"]
ALT = Qt.KeyboardModifier.AltModifier
CORNERS = ((100, 450), (600, 450), (100, 450), (100, 50))


def shine_of(lightness, a, b):
    """sRGB of L*a*b* under D50, by the definitions (CIE 15, IEC 61966-2-1; Bradford)."""
    y = (lightness + 16) / 116
    f = np.array([y + a / 500, y, y - b / 200])
    xyz = np.array([0.96422, 1.0, 0.82521]) * np.where(f > 6 / 29, f**3, (f - 4 / 29) * 108 / 841)
    linear = (
        np.array(
            [
                [3.1338561, -1.6168667, -0.4906146],
                [-0.9787684, 1.9161415, 0.0334540],
                [0.0719453, -0.2289914, 1.4052427],
            ]
        )
        @ xyz
    )
    light = np.clip(linear, 0, 1)
    level = np.where(light <= 0.0031308, 12.92 * light, 1.055 * light ** (1 / 2.4) - 0.055)
    return np.rint(255 * level)


class Tracing:
    """The trace page with a drawn sheet, pointed at by the mouse."""

    def __init__(self, qtbot, window, folder):
        self.qtbot, self.window, self.book = qtbot, window, window.bench.notebook
        test = new_test(
            self.book,
            "Kelda Pan 200",
            "Sable",
            "1+1",
            kind="data sheet",
            index=200.0,
            times=(6.0, 8.0),
        )
        window.bench.open_test(test.id)
        window.bench.go("read")
        settle(qtbot, window)
        QTest.keyClick(window.station(), Qt.Key.Key_T, ALT)
        window.updates.flush()
        self.page = window.station().trace
        x = np.linspace(-2.8, 0.4, 400)
        self.path = folder / "sheet.png"
        drawn_sheet(self.path, x, [PLAIN.density(v, 8.0) for v in x])

    def open(self, path):
        self.page.open(path)
        self.qtbot.waitUntil(lambda: not self.window.jobs.busy("sheet"), timeout=20_000)
        self.window.updates.flush()

    def click(self, across, down):
        view = self.page.view
        scale = min(view.width() / 700, view.height() / 500)
        QTest.mouseClick(
            view, Qt.MouseButton.LeftButton, pos=QPoint(round(across * scale), round(down * scale))
        )
        self.window.updates.flush()

    def mark_axes(self):
        for corner in CORNERS:
            self.click(*corner)

    def curve_at(self, log_h):
        return 100 + (log_h + 3) * 125, 450 - PLAIN.density(log_h, 8.0) * 400 / 3


@pytest.fixture
def tracing(qtbot, open_window, tmp_path):
    return Tracing(qtbot, open_window(tmp_path / "winter.vadrin"), tmp_path)


def test_points_set_by_the_mouse_make_the_curve(tracing):
    tracing.open(tracing.path)
    tracing.mark_axes()
    places = np.linspace(-2.6, 0.3, 12)
    for x in places:
        tracing.click(*tracing.curve_at(x))
    assert "12 points set" in words_of(tracing.page)
    tracing.page.take.click()
    settle(tracing.qtbot, tracing.window)
    frames = tracing.window.bench.loaded.strips[0].frames
    assert [f.frame.log_h for f in frames] == pytest.approx(list(places), abs=0.02)
    assert [f.density for f in frames] == pytest.approx(
        [PLAIN.density(x, 8.0) for x in places], abs=0.02
    )
    assert {r.way for r in tracing.book.all(Reading)} == {"traced"}
    (kept,) = tracing.book.all(Attachment)
    assert (kept.name, bool(kept.checksum), bool(kept.data)) == ("sheet.png", True, True)
    tracing.window.bench.undo()
    assert tracing.book.all(Reading) == tracing.book.all(Attachment) == []


def test_marks_and_points_are_taken_back_one_by_one(tracing):
    tracing.open(tracing.path)
    tracing.mark_axes()
    tracing.click(*tracing.curve_at(-1.0))
    for left in (0, 0, 0, 0, 0):
        QTest.keyClick(tracing.window.station(), Qt.Key.Key_Backspace)
        assert len(tracing.page.steps.points) == left
    assert tracing.page.steps.marks == ()
    assert "left mark" in words_of(tracing.page)
    assert tracing.page.view.accessibleDescription() == "0 marks, 0 points"


def test_a_second_curve_keeps_the_axes_of_the_picture(tracing):
    tracing.open(tracing.path)
    tracing.mark_axes()
    tracing.click(*tracing.curve_at(-1.0))
    QTest.keyClick(tracing.window.station(), Qt.Key.Key_F)
    tracing.window.updates.flush()
    tracing.page.take.click()
    settle(tracing.qtbot, tracing.window)
    second = tracing.window.bench.loaded.strips[1].frames[0].frame.id
    tracing.window.bench.select(second)
    tracing.window.updates.flush()
    assert "Curve B, 8 min" in words_of(tracing.page)
    assert (len(tracing.page.steps.marks), tracing.page.steps.points) == (4, ())


def charted(path, minutes_at, in_stops):
    """A chart of EI over time from 4 to 16 min and EI 50 to 1600; gives where a point lies."""
    index = 98 * 2.0 ** np.linspace(0.0, 3.1, 400)
    up = np.log2(index / 50) / 5 if in_stops else (index - 50) / 1550
    along = (np.array([minutes_at(i) for i in index]) - 4) / 12
    drawn_sheet(path, -3 + 4 * along, 3 * up)
    half = 200
    return 100 + 500 * along[half], 450 - 400 * up[half]


@pytest.mark.parametrize("in_stops", [True, False], ids=["even stops", "even numbers"])
def test_a_chart_of_ei_over_time_gives_the_makers_times(tracing, tmp_path, in_stops):
    # 4:30 at EI 100, and a quarter longer for every stop.
    at = charted(tmp_path / "chart.png", lambda ei: 4.5 * 1.25 ** np.log2(ei / 100), in_stops)
    title = f"chart of EI over time in even {'stops' if in_stops else 'numbers'}"
    type_into(tracing.page.shows, title)
    tracing.open(tmp_path / "chart.png")
    assert "left mark of the time axis, where 4 stands" in words_of(tracing.page)
    type_into(tracing.page.fields["lower"], "50")
    tracing.mark_axes()
    tracing.click(*at)
    QTest.keyClick(tracing.window.station(), Qt.Key.Key_F)
    tracing.window.updates.flush()
    tracing.page.take.click()
    settle(tracing.qtbot, tracing.window)
    told = {m.exposure_index: m.time_min for m in tracing.book.all(MakerTime)}
    assert sorted(told) == [100, 200, 400, 800]
    for index, minutes in told.items():
        assert minutes == pytest.approx(4.5 * 1.25 ** np.log2(index / 100), rel=0.015)
    assert tracing.book.all(Reading) == [], "a chart is no curve"
    tracing.window.bench.go("finding")
    settle(tracing.qtbot, tracing.window)
    assert "EIs it has times for" in words_of(tracing.window.station())
    tracing.window.bench.undo()
    assert tracing.book.all(MakerTime) == []


def test_a_chart_that_falls_gives_no_times(tracing, tmp_path):
    charted(tmp_path / "chart.png", lambda ei: 4.5 * 1.25 ** np.log2(ei / 100), True)
    type_into(tracing.page.shows, "even stops")
    tracing.open(tmp_path / "chart.png")
    type_into(tracing.page.fields["lower"], "0.1")
    assert "EIs up, 0.5 to 102400" in refusal_of(tracing.window)
    tracing.mark_axes()
    for down in (100, 300):
        tracing.click(200 + down, down + 50)
    tracing.page.take.click()
    assert "a longer time gives no lower EI" in refusal_of(tracing.window)
    type_into(tracing.page.fields["lower"], "51200")
    type_into(tracing.page.fields["upper"], "102400")
    tracing.click(500, 20)
    tracing.page.take.click()
    assert "times or EIs there are none of" in refusal_of(tracing.window)
    assert tracing.book.all(MakerTime) == []


def test_a_sheet_that_was_not_traced_is_no_lost_film(tracing):
    window = tracing.window
    said = [w.accessibleName() for w in window.rail.findChildren(QWidget)]
    assert "Read: not traced" in said
    for station, told in (
        ("expose", "Nothing is exposed for a data sheet"),
        ("process", "The maker's sheet says"),
        ("read", "Open the picture from the sheet"),
    ):
        window.bench.go(station)
        settle(tracing.qtbot, window)
        shown = words_of(window)
        assert told in shown, station
        assert not {"lost", "cut", "spoilt", "skipped"} & set(re.findall(r"[a-z]+", shown.lower()))
    QTest.keyClick(window.station(), Qt.Key.Key_D, ALT)
    settle(tracing.qtbot, window)
    assert "Not traced yet" in words_of(window.station())


def test_what_cannot_be_traced_is_said_on_this_page(tracing, tmp_path):
    (tmp_path / "words.png").write_text("no picture")
    tracing.open(tmp_path / "words.png")
    assert "words.png: no picture" in refusal_of(tracing.window)
    assert tracing.window.station().refusal.isVisible()
    Image.new("RGB", (700, 500), "white").save(tmp_path / "white.png")
    tracing.open(tmp_path / "white.png")
    tracing.mark_axes()
    tracing.click(300, 200)
    QTest.keyClick(tracing.window.station(), Qt.Key.Key_F)
    assert "no line goes on" in refusal_of(tracing.window) or "not a line" in refusal_of(
        tracing.window
    )
    tracing.page.take.click()
    assert "6 points at least" in refusal_of(tracing.window)
    type_into(tracing.page.fields["right"], "-3")
    tracing.page.take.click()
    assert "different values" in refusal_of(tracing.window)
    assert tracing.book.all(Reading) == []


def test_another_station_page_is_offered_only_where_it_is_used(tracing, qtbot):
    links = tracing.window.station()._head._links
    assert not links["patches"].isVisible()
    test = developed_test(
        tracing.book,
        "Gannet Colour 200",
        kind="colour",
        index=200.0,
        options=Pushes((0.0, 1.0)),
        times=(6.5,),
    )
    tracing.window.bench.open_test(test.id)
    tracing.window.bench.go("read")
    settle(qtbot, tracing.window)
    tracing.window.station().turn_to("densities")
    assert links["patches"].isVisible()
    assert not links["trace"].isVisible()


@pytest.mark.parametrize("red_only", [False, True])
def test_patches_are_typed_strip_by_strip_and_seen_to_turn(qtbot, open_window, tmp_path, red_only):
    window = open_window(tmp_path / "winter.vadrin")
    book = window.bench.notebook
    test = developed_test(
        book,
        "Gannet Colour 200",
        kind="colour",
        index=200.0,
        options=Pushes((0.0, 1.0)),
        times=(6.5,),
    )
    window.bench.open_test(test.id)
    while red_only and window.look is not SAFELIGHT:
        window.next_look()
    window.bench.go("read")
    settle(qtbot, window)
    QTest.keyClick(window.station(), Qt.Key.Key_C, ALT)
    window.updates.flush()
    page = window.station().patches
    assert "No patch of this strip is known yet" in words_of(page)
    type_into(page.patch, "red 52 60")
    assert "its L* a* b*" in refusal_of(window)
    for strip, hue in ((0, "red 52 60 40"), (1, "red 52 40 60")):
        window.bench.select(window.bench.loaded.strips[strip].frames[0].frame.id)
        window.updates.flush()
        type_into(page.patch, hue)
        window.updates.flush()
    assert "red: 52 40 60" in words_of(page)
    assert len(book.all(Judgement)) == 2
    window.bench.go("finding")
    settle(qtbot, window)
    (wedges,) = [w for w in window.station().findChildren(HueWedges) if w.isVisibleTo(window)]
    assert "red: normal at 34 degrees, push 1 at 56 degrees" in wedges.accessibleDescription()
    image = wedges.grab().toImage()
    assert len({image.pixel(x, y) for x in range(0, 120, 3) for y in range(0, 110, 3)}) > 3
    (squares,) = [w for w in window.station().findChildren(PatchSquares) if w.isVisibleTo(window)]
    assert "red: normal red, push 1 orange" in squares.accessibleDescription()
    shown = squares.grab().toImage()
    halves = [shown.pixelColor(x, 26).getRgb()[:3] for x in (190, 236)]
    wanted = [shine_of(52, 60, 40), shine_of(52, 40, 60)]
    if window.look is SAFELIGHT:
        assert all(green == blue == 0 for _, green, blue in halves), "nothing but red shines"
    else:
        assert np.abs(np.array(halves) - wanted).max() <= 2, "left as normal, right as pushed"
    assert "it reads as orange and no longer as red" in words_of(window.station())
    QTest.keyClick(window, Qt.Key.Key_Z, CTRL)
    settle(qtbot, window)
    assert "reads as orange" not in words_of(window.station())

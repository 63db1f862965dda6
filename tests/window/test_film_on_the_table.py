"""The light table, the rail and the header, as they are seen, pointed at and heard."""

from dataclasses import replace
from itertools import pairwise

import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtGui import QColor
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QPushButton, QToolTip, QWidget

from tests.window.pages import DOWN, UP, Hands, button_of, settle, words_of
from vadrin.app.display.spoken_frame import spoken_frame as spoken
from vadrin.app.expose.exposing import mark_frame
from vadrin.app.read.entering_readings import leave_out
from vadrin.core.frames import FrameState
from vadrin.notebook.records import Reading
from vadrin.ui.theme import typeface
from vadrin.ui.theme.look import DAY, DIM, SAFELIGHT


def spot(window, frame, dx=0.5, dy=0.85):
    """A place on a frame beside its name, in pixels of the table."""
    box = window.table.frame_box(frame.frame.id)
    return QPoint(round(box.left() + dx * box.width()), round(box.top() + dy * box.height()))


def colour_of(window, frame, **place):
    QApplication.processEvents()
    return window.table.grab().toImage().pixelColor(spot(window, frame, **place))


def narrow(window, width=1024):
    window.resize(width, 700)
    QApplication.processEvents()


def test_every_read_frame_has_the_grey_of_its_density(demo):
    window = demo("Merrow Pan 125", "read")
    for look in (DIM, SAFELIGHT, DAY):
        window.set_look(look)
        window.bench.select(None)
        image = window.table.grab().toImage()
        for strip in window.bench.loaded.strips:
            for frame in strip.frames[::6]:
                at = spot(window, frame, dx=0.06, dy=0.06)
                assert image.pixelColor(at) == look.film_colour(frame.density)
    shades = [
        image.pixelColor(spot(window, f, dx=0.06, dy=0.06)).red()
        for f in window.bench.loaded.strips[4].frames[2:]
    ]
    assert shades == sorted(shades, reverse=True), "more exposure is darker"


def test_planned_latent_and_read_frames_are_told_apart(demo):
    window = demo("Skerry Fine 50", "expose")
    strip = window.bench.loaded.strips[1]
    latent, planned = strip.frames[2], strip.frames[9]
    assert colour_of(window, latent) == QColor(DAY.rule)
    assert colour_of(window, planned) == QColor(DAY.table)
    assert spoken(strip, latent).endswith("waits for a reading")
    assert spoken(strip, planned).endswith("not taken yet")


def test_what_became_of_a_frame_is_said_and_drawn_without_colour_alone(demo):
    window = demo("Skerry Fine 50", "expose")
    fates = {
        FrameState.SKIPPED: "skipped",
        FrameState.DOUBLED: "exposed twice",
        FrameState.EXPOSED: "waits for a reading",
    }
    place = window.bench.loaded.strips[1].frames[8]
    box = window.table.frame_box(place.frame.id).toRect()
    for state, words in fates.items():
        before = window.table.grab().toImage().copy(box)
        window.bench.edit(lambda book, state=state: mark_frame(book, place.frame, state))
        QApplication.processEvents()
        strip = window.bench.loaded.strips[1]
        assert words in spoken(strip, strip.frames[8])
        assert window.table.grab().toImage().copy(box) != before


def test_a_reading_left_out_is_struck_through(demo):
    window = demo("Merrow Pan 125", "read")
    frame = window.bench.loaded.strips[0].frames[6]
    window.bench.edit(lambda book: leave_out(book, frame, True))
    window.bench.select(None)
    QApplication.processEvents()
    image, box = window.table.grab().toImage(), window.table.frame_box(frame.frame.id)
    along = [box.topLeft() + (box.bottomRight() - box.topLeft()) * part for part in (0.1, 0.2, 0.9)]
    near = [image.pixelColor(p.toPoint() + QPoint(dx, 0)) for p in along for dx in (-1, 0, 1)]
    trouble = QColor(DAY.trouble)
    assert any(
        abs(c.red() - trouble.red()) + abs(c.green() - trouble.green()) + abs(c.blue()) < 60
        for c in near
    )


def test_the_selected_frame_alone_is_marked_as_here(demo):
    window = demo("Merrow Pan 125", "read")
    chosen, other = (window.bench.loaded.strips[2].frames[i] for i in (5, 9))
    window.bench.select(chosen.frame.id)
    QApplication.processEvents()
    image = window.table.grab().toImage()
    here = QColor(DAY.here)
    assert image.pixelColor(spot(window, chosen, dx=0.0, dy=0.5)) == here
    assert image.pixelColor(spot(window, other, dx=0.0, dy=0.5)) != here


def test_arrow_keys_walk_the_film_and_stop_at_its_ends(qtbot, demo):
    window = demo("Brannock 400 B6", "curves")
    strips = window.bench.loaded.strips
    window.bench.select(strips[0].frames[0].frame.id)
    table = window.table
    table.setFocus()
    qtbot.keyClick(table, Qt.Key.Key_Left)
    assert window.bench.frame_id == strips[0].frames[0].frame.id
    qtbot.keyClick(table, UP)
    assert window.bench.frame_id == strips[0].frames[0].frame.id
    for _ in range(len(strips[0].frames)):
        qtbot.keyClick(table, Qt.Key.Key_Right)
    assert window.bench.frame_id == strips[1].frames[0].frame.id, "on to the next strip"
    for _ in range(9):
        qtbot.keyClick(table, DOWN)
    assert window.bench.frame_id == strips[3].frames[0].frame.id
    assert table.accessibleName().startswith("strip D, frame 1, blank")


def test_a_thin_line_of_film_can_be_pointed_at_and_comes_up_whole(qtbot, demo):
    window = demo("Merrow Pan 125", "read")
    narrow(window)
    first, last = window.bench.loaded.strips[0], window.bench.loaded.strips[4]
    window.bench.select(first.frames[3].frame.id)
    QApplication.processEvents()
    thin = window.table.frame_box(last.frames[8].frame.id)
    assert thin.height() < window.table.frame_box(first.frames[8].frame.id).height() / 2
    QTest.mouseMove(window.table, thin.center().toPoint())
    qtbot.waitUntil(lambda: "strip E, frame 9" in QToolTip.text(), timeout=3000)
    QTest.mouseClick(window.table, Qt.MouseButton.LeftButton, pos=thin.center().toPoint())
    QApplication.processEvents()
    assert window.bench.frame_id == last.frames[8].frame.id
    assert window.table.frame_box(last.frames[8].frame.id).height() > 2 * thin.height()
    assert window.table.frame_box(first.frames[8].frame.id).height() == thin.height()


def test_film_stays_on_the_table_and_no_strip_on_another(demo):
    window = demo("Merrow Pan 125", "curves")
    table = window.table
    for scale in (1.0, 2.0):
        typeface.set_scale(scale)
        window.scale_type(0)
        for size in ((1024, 700), (1920, 1080)):
            window.resize(*size)
            QApplication.processEvents()
            rows = [
                [table.frame_box(f.frame.id) for f in strip.frames]
                for strip in window.bench.loaded.strips
            ]
            for row in rows:
                assert all(table.rect().toRectF().contains(box) for box in row)
                assert all(a.right() <= b.left() + 1e-6 for a, b in pairwise(row))
            for above, below in pairwise(rows):
                assert above[0].bottom() < below[0].top()
            assert table.height() < window.height() * 0.37
    typeface.set_scale(1.0)


def test_names_that_do_not_fit_their_frame_are_left_away(demo):
    window = demo("Merrow Pan 125", "curves")
    narrow(window, 1024)
    typeface.set_scale(2.0)
    window.scale_type(0)
    QApplication.processEvents()
    window.bench.select(None)
    image = window.table.grab().toImage()
    strip = window.bench.loaded.strips[window.table.whole_row]
    frame = next(f for f in strip.frames if f.name == "−4½")
    box = window.table.frame_box(frame.frame.id).toRect().adjusted(2, 2, -2, -2)
    shades = {
        image.pixelColor(x, y).name()
        for x in range(box.left(), box.right(), 2)
        for y in range(box.top(), box.bottom(), 2)
    }
    assert shades == {DAY.film_colour(frame.density).name()}, "a plain frame, no cut-off name"
    typeface.set_scale(1.0)


class TestTheRail:
    STEPS = ("Plan", "Expose", "Process", "Read", "Curves", "Finding", "Cards")

    def step(self, window, name):
        return next(
            w
            for w in window.rail.findChildren(QWidget)
            if w.accessibleName().startswith(f"{name}: ") and w.isVisible()
        )

    def test_each_step_says_what_it_has_come_to(self, demo):
        window = demo("Brannock 400 B7", "read")
        said = [self.step(window, name).accessibleName() for name in self.STEPS]
        assert said[:4] == [
            "Plan: 56 frames, 4 strips",
            "Expose: 56 of 56",
            "Process: 4 of 4 strips",
            "Read: 31 of 56 frames",
        ]

    def test_one_strip_is_one_strip(self, demo):
        window = demo("Ostrel 400", "read")
        assert self.step(window, "Plan").accessibleName() == "Plan: 14 frames, 1 strip"

    @pytest.mark.parametrize("width", [1280, 1024])
    def test_a_step_is_gone_to_by_mouse_and_by_key(self, qtbot, demo, width):
        window = demo("Merrow Pan 125", "plan")
        narrow(window, width)
        for name in self.STEPS:
            qtbot.mouseClick(self.step(window, name), Qt.MouseButton.LeftButton)
            settle(qtbot, window)
            assert window.bench.station == name.lower()
        step = self.step(window, "Plan")
        step.setFocus()
        qtbot.keyClick(step, Qt.Key.Key_Return)
        assert window.bench.station == "plan"

    def test_laid_flat_it_keeps_every_place_and_its_state_in_the_tip(self, qtbot, demo):
        window = demo("Merrow Pan 125", "curves")
        tall = window.rail.height()
        narrow(window)
        assert window.rail.height() < tall / 4
        assert window.rail.width() == window.width()
        left = [self.step(window, name).x() for name in self.STEPS]
        assert left == sorted(left)
        assert self.step(window, "Finding").toolTip() == "EI 80, 7:35"
        for name in ("Shelf", "Cupboard"):
            made = button_of(window.header, name)
            qtbot.mouseClick(made, Qt.MouseButton.LeftButton)
            settle(qtbot, window)
            assert window.bench.station == name.lower()

    def test_done_here_and_waiting_are_drawn_apart(self, demo):
        window = demo("Brannock 400 B7", "read")

        def bar(name):
            step = self.step(window, name)
            return step.grab().toImage().pixelColor(round(typeface.px(16)), step.height() // 2)

        assert bar("Expose") == QColor(DAY.done)
        assert bar("Read") == QColor(DAY.here)
        assert bar("Cards") == QColor(DAY.rule)


class TestTheLineOverTheStation:
    def test_it_follows_the_readings_and_leads_on(self, qtbot, demo):
        window = demo("Brannock 400 B7", "read")
        narrow(window)
        before = words_of(window.finding.line)
        assert "Read strip C" in before
        button = next(
            b for b in window.finding.line.findChildren(QPushButton) if b.text() == "Go to Curves"
        )
        qtbot.mouseClick(button, Qt.MouseButton.LeftButton)
        settle(qtbot, window)
        assert window.bench.station == "curves"
        assert "Go to Finding" in [b.text() for b in window.finding.line.findChildren(QPushButton)]

    def test_a_plan_puts_what_it_will_tell_there(self, qtbot, demo):
        window = demo("Kelda Pan 200", "plan")
        narrow(window)
        assert "Expected precision (F2)" in window.finding.line.unfold.text()
        Hands(qtbot, window).press(Qt.Key.Key_F2)
        qtbot.waitUntil(
            lambda: "Expected precision" in words_of(window.finding.column), timeout=5000
        )
        window.bench.go("expose")
        settle(qtbot, window)
        assert window.station().isVisible(), "another station is shown at once"

    def test_the_shelf_has_none(self, demo):
        window = demo("Merrow Pan 125", "curves")
        narrow(window)
        window.bench.go("shelf")
        QApplication.processEvents()
        assert not window.finding.line.isVisible()


def test_the_header_counts_in_the_right_number(qtbot, demo):
    window = demo("Ostrel 400", "read")
    state = window.header.findChild(QWidget, "state of saving")
    assert state.text().startswith("1 strip · 14 frames · 14 readings")
    book = window.bench.notebook
    frames = [f.frame.id for _, f in window.bench.loaded.frames()]
    with book.change("all but one"):
        for reading in book.all_of(Reading, "frame_id", frames)[1:]:
            book.remove(reading)
    window.bench.refresh()
    settle(qtbot, window)
    assert state.text().startswith("1 strip · 14 frames · 1 reading ·")


def test_a_strip_of_another_film_is_named_on_the_table(demo):
    window = demo("Merrow Pan 125", "curves")
    strip = window.bench.loaded.strips[1]
    other = replace(strip, strip=replace(strip.strip, note="Ostrel 400", stock_id=99))
    assert spoken(other, other.frames[0]).startswith("strip B, Ostrel 400, frame 1, blank")

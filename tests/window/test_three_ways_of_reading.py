"""One roll read on a light box, by scan and by densitometer, beside each other and undone."""

import math

import numpy as np
import pyqtgraph as pg
import pytest
import tifffile
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from tests.notebooks import developed_test
from tests.window.pages import settle, type_into, words_of
from vadrin.app.curves.places_by_eye import judged_places
from vadrin.app.results.light_box_ei import light_box_answer
from vadrin.core.curves import metrics
from vadrin.core.simulation.film import curve_at, densities, invent_film
from vadrin.core.simulation.scanner import Scanner, scanned_strip
from vadrin.notebook.records import Judgement, Reading

ALT = Qt.KeyboardModifier.AltModifier
WEDGE = np.arange(0.05, 3.1, 0.15)


class Roll:
    """A made-up roll of one strip at Read, whose truth is known."""

    def __init__(self, qtbot, window):
        self.qtbot, self.window, self.book = qtbot, window, window.bench.notebook
        self.film = invent_film(np.random.default_rng(11), 200.0)
        test = developed_test(
            self.book,
            "Kelda Pan 200",
            kind="speed",
            times=(9.0,),
            step=1.0,
            first_stop=-6.0,
            last_stop=5.0,
        )
        window.bench.open_test(test.id)
        window.bench.go("read")
        settle(qtbot, window)
        constant = test.meter_constant
        x = [f.log_h(constant) for _, f in window.bench.loaded.frames()]
        self.true = densities(self.film, 9.0, np.array([np.nan if v is None else v for v in x]))
        point = float(metrics.speed_point(curve_at(self.film, 9.0)))
        self.zone_ei = constant / 16 / 10**point

    @property
    def strip(self):
        return self.window.bench.loaded.strips[0]

    def turn(self, key):
        self.window.station().setFocus()
        QTest.keyClick(self.window.station(), key, ALT)
        self.window.updates.flush()

    def on_the_light_box(self):
        self.turn(Qt.Key.Key_B)
        page = self.window.station().light_box
        by_id = {f.frame.id: d for f, d in zip(self.strip.frames, self.true, strict=True)}
        while page._question.frame is not None:
            net = by_id[page._question.frame.frame.id] - self.true[0]
            QTest.keyClick(self.window.station(), Qt.Key.Key_Y if net > 0.045 else Qt.Key.Key_N)
            self.window.updates.flush()

    def by_scan(self, path):
        self.turn(Qt.Key.Key_S)
        page = self.window.station().scan
        type_into(page.known.wedge, " ".join(f"{step:.2f}" for step in WEDGE))
        rng = np.random.default_rng(5)
        picture, _ = scanned_strip(Scanner(dust=0.01), self.true, self.true[0], rng, 80, WEDGE)
        tifffile.imwrite(path, picture)
        page.open(path)
        self.qtbot.waitUntil(lambda: not self.window.jobs.busy("scan"), timeout=20_000)
        page.take.click()

    def by_densitometer(self):
        self.turn(Qt.Key.Key_D)
        field = self.window.station().field
        self.window.bench.select(self.strip.frames[0].frame.id)
        for density in self.true:
            field.setFocus()
            QTest.keyClicks(field, f"{density:.2f}")
            QTest.keyClick(field, Qt.Key.Key_Return)
            self.window.updates.flush()

    def index(self):
        settle(self.qtbot, self.window)
        return self.window.bench.analysis.strips[0].zone_ei


@pytest.fixture
def roll(qtbot, open_window, tmp_path):
    return Roll(qtbot, open_window(tmp_path / "winter.vadrin"))


def far_off(figure, true):
    """How far a figure lies from the truth, in halves of its own range."""
    return abs(math.log(figure.value / true)) / (0.5 * math.log(figure.high / figure.low))


def test_each_way_comes_as_near_the_truth_as_it_says(roll, tmp_path):
    roll.on_the_light_box()
    _, eye = light_box_answer(roll.window.bench.loaded)
    assert far_off(eye, roll.zone_ei) < 1.5
    assert "EI" in words_of(roll.window)
    roll.window.station().light_box.again.click()
    roll.by_scan(tmp_path / "roll.tif")
    scan = roll.index()
    assert far_off(scan, roll.zone_ei) < 1.5
    assert scan.high / scan.low < eye.high / eye.low, "a scan is surer than an eye"
    roll.window.bench.undo()
    roll.by_densitometer()
    meter = roll.index()
    # Of one film no range can be tried closer: tests/core/test_sureness.py counts many.
    assert far_off(meter, roll.zone_ei) < 1.5
    assert meter.high / meter.low < scan.high / scan.low, "an instrument is surer than a scan"
    roll.on_the_light_box()
    settle(roll.qtbot, roll.window)
    assert "EI found from" not in words_of(roll.window), "an eye that judges is not led"
    for station in ("curves", "finding"):
        roll.window.bench.go(station)
        settle(roll.qtbot, roll.window)
        assert "On the light box EI" in words_of(roll.window), station
    roll.window.bench.go("curves")
    settle(roll.qtbot, roll.window)
    (place,) = judged_places(roll.window.bench.loaded)
    plot = roll.window.station()._plot
    lines = [i for i in plot.getPlotItem().items if isinstance(i, pg.InfiniteLine)]
    assert [line.value() for line in lines] == [pytest.approx(place.log_h)]
    assert place.low < float(metrics.speed_point(curve_at(roll.film, 9.0))) < place.high
    assert place.words in plot.accessibleDescription()


def test_undo_goes_back_through_all_three(roll, tmp_path):
    roll.on_the_light_box()
    looks = len(roll.book.all(Judgement))
    roll.by_scan(tmp_path / "roll.tif")
    roll.by_densitometer()
    count = len(roll.true)
    assert len(roll.book.all(Reading)) == 2 * count
    for _ in range(count):
        roll.window.bench.undo()
    assert {r.way for r in roll.book.all(Reading)} == {"scan"}
    roll.window.bench.undo()
    assert roll.book.all(Reading) == []
    roll.window.bench.undo()
    assert len(roll.book.all(Judgement)) == looks, "the wedge of the scanner came before"
    for left in reversed(range(looks)):
        roll.window.bench.undo()
        assert len(roll.book.all(Judgement)) == left
    roll.window.bench.redo()
    assert len(roll.book.all(Judgement)) == 1

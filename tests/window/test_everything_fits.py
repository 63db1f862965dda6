"""Every station at every size, type and length of name: nothing is cut off, lost or nameless."""

from dataclasses import replace

import pytest
from PyQt6.QtCore import QPoint, QRect, Qt
from PyQt6.QtGui import QColor, QImage, QPainter
from PyQt6.QtWidgets import QApplication, QLabel, QScrollArea

from tests.window.layout_audit import faults_of
from tests.window.pages import Hands, field_of, settle, words_of
from vadrin.app.shelf.shelf_index import shelf_lines
from vadrin.notebook.records import Batch, Developer, Stock
from vadrin.ui.plots.film_rows import FilmRows
from vadrin.ui.theme import typeface
from vadrin.ui.theme.look import LEAST_CONTRAST, LOOKS, contrast
from vadrin.ui.widgets.labels import ElidedLabel

SIZES = ((1024, 700), (1280, 800), (3840, 2160))
SCENES = (
    ("plan", "Kelda"),
    ("expose", "Skerry"),
    ("process", "Merrow"),
    ("read", "Brannock 400 B7"),
    ("curves", "Merrow"),
    ("finding", "Merrow"),
    ("finding", "Ostrel"),
    ("cards", "Merrow"),
    ("shelf", ""),
    ("cupboard", ""),
    ("question", ""),
    ("films", ""),
)
PAGES = {
    "read": ("densities", "scan", "light box", "verdicts", "side by side", "patches", "trace"),
    "process": ("recipe", "clip", "dark", "clock", "control", "makers", "rules", "got"),
    "print": ("setup", "strip", "covered", "contact", "grade"),
    "finding": ("answer", "pictures"),
}
"""Pages of the stations that have several."""


def lengthen(window):
    """Names as long as anybody would type, and one that nobody would."""
    book = window.bench.notebook
    with book.change("long names"):
        for stock in book.all(Stock):
            long = f"{stock.name} of the long quay wall by the harbour master and his daughters"
            book.put(replace(stock, name=long))
        for batch in book.all(Batch):
            book.put(replace(batch, name="B" * 300))
        for bath in book.all(Developer):
            long = f"{bath.name} as it was mixed in the shed on a wet evening in November"
            book.put(replace(bath, name=long))
    window.bench.refresh()


@pytest.fixture
def scaled(demo):
    """A window at a type scale, put back afterwards."""
    window = demo("Merrow Pan 125", "plan")

    def scale(size):
        typeface.set_scale(size)
        window.scale_type(0)
        return window

    yield scale
    typeface.set_scale(1.0)


@pytest.mark.parametrize("names", ["short", "long"])
@pytest.mark.parametrize("scale", [1.0, 2.0])
def test_nothing_is_cut_off_lost_or_nameless(scaled, scale, names):
    window = scaled(scale)
    ids = {line.film: line.test_id for line in shelf_lines(window.bench.notebook)}
    if names == "long":
        lengthen(window)
    # Painting is most of the time and changes no layout.
    window.setUpdatesEnabled(False)
    faults = []
    for size in SIZES:
        window.resize(*size)
        for station, film in SCENES:
            test_id = next((i for name, i in ids.items() if film and name.startswith(film)), None)
            window.bench.open_test(test_id)
            window.bench.go(station)
            # A layout that asks for another height is answered in the turn after.
            for _ in range(3):
                QApplication.processEvents()
            faults += [(size, station, fault) for fault in faults_of(window)]
    window.setUpdatesEnabled(True)
    assert faults == []


@pytest.mark.parametrize(("scale", "size"), [(1.0, (1024, 700)), (2.0, (1280, 800))])
def test_no_page_is_wider_than_the_window_and_each_begins_at_its_top(qtbot, scaled, scale, size):
    window = scaled(scale)
    window.resize(*size)
    window.bench.open_test(
        next(x.test_id for x in shelf_lines(window.bench.notebook) if x.film.startswith("Merrow"))
    )
    sideways = []
    for station, pages in PAGES.items():
        window.bench.go(station)
        settle(qtbot, window)
        area = window.pages.area(station)
        for page in pages:
            area.verticalScrollBar().setValue(area.verticalScrollBar().maximum())
            window.station().turn_to(page)
            for _ in range(4):
                QApplication.processEvents()
            if area.horizontalScrollBar().maximum() > 0:
                sideways.append((station, page, area.horizontalScrollBar().maximum()))
            if page != pages[0]:
                assert area.verticalScrollBar().value() == 0, page
    assert sideways == []


def test_where_room_is_short_the_finding_is_a_line_that_a_key_opens(qtbot, scaled):
    window = scaled(2.0)
    window.resize(1024, 700)
    window.bench.go("curves")
    settle(qtbot, window)
    line = window.finding.line
    assert line.isVisible()
    assert "EI 80 · 7:35 min" in words_of(line)
    assert window.finding.column is None or not window.finding.column.isVisible()
    hands = Hands(qtbot, window)
    hands.press(Qt.Key.Key_F2)
    assert "push 1" in words_of(window.finding.column)
    assert not window.station().isVisible()
    hands.press(Qt.Key.Key_Escape)
    assert window.station().isVisible()
    assert not window.finding.column.isVisible()
    window.resize(2600, 1400)
    settle(qtbot, window)
    assert window.finding.column.isVisible()
    assert not line.isVisible()


def test_the_plan_keeps_its_picture_with_six_strips_at_the_smallest_size(qtbot, scaled):
    window = scaled(1.0)
    window.resize(1024, 700)
    window.bench.open_test(
        next(x.test_id for x in shelf_lines(window.bench.notebook) if x.film.startswith("Kelda"))
    )
    window.bench.go("plan")
    settle(qtbot, window)
    times = window.station().fields["times"]
    times.setText("4, 5, 6, 8, 10, 12")
    qtbot.keyClick(times, Qt.Key.Key_Return)
    settle(qtbot, window)
    assert len(window.bench.loaded.strips) == 6
    assert window.station().forecast_panel.plot.height() >= 140
    assert window.table.height() < 130
    boxes = {
        f.frame.id: window.table.frame_box(f.frame.id) for _, f in window.bench.loaded.frames()
    }
    assert all(box is not None and box.height() >= 5 for box in boxes.values())
    window.bench.go("expose")
    settle(qtbot, window)
    boxes = {
        f.frame.id: window.table.frame_box(f.frame.id) for _, f in window.bench.loaded.frames()
    }
    assert all(box is not None and box.height() >= 6 for box in boxes.values())
    last = window.bench.loaded.strips[5].frames[3].frame.id
    window.bench.select(last)
    QApplication.processEvents()
    assert window.table.frame_box(last).height() > 3 * boxes[last].height(), "shown in full now"


def test_a_long_name_gives_up_its_middle_and_is_whole_in_the_tip(demo):
    window = demo("Merrow Pan 125", "plan")
    lengthen(window)
    QApplication.processEvents()
    field = field_of(window.station(), "batch")
    assert field.text() == "B" * 300
    assert field.width() < window.station().width()
    assert "B" * 300 in field.toolTip()
    name = next(x for x in window.header.findChildren(ElidedLabel) if "quay" in x.text())
    assert name.shown_short()
    assert name.toolTip() == name.text()


def test_tables_fit_the_smallest_window_in_the_largest_type(qtbot, scaled):
    window = scaled(2.0)
    window.resize(1024, 700)
    window.bench.go("finding")
    settle(qtbot, window)
    area = next(
        a for a in window.station().findChildren(QScrollArea) if a.accessibleName() == "answers"
    )
    assert area.horizontalScrollBar().maximum() == 0, "ranges stand under their times"
    verdict = next(x for x in area.findChildren(QLabel) if x.text() == "salvageable")
    area.ensureWidgetVisible(verdict)
    shown = QRect(verdict.mapTo(area.viewport(), QPoint(0, 0)), verdict.size())
    assert area.viewport().rect().contains(shown)
    with window.bench.notebook.change("asked otherwise"):
        window.bench.notebook.put(replace(window.bench.loaded.test, kind="push"))
    window.bench.open_test(window.bench.loaded.test.id)
    settle(qtbot, window)
    (film,) = window.station().findChildren(FilmRows)
    assert area.horizontalScrollBar().maximum() == 0
    assert film.shown_width <= area.viewport().width(), "film is seen whole"


@pytest.mark.parametrize("look", LOOKS, ids=lambda look: look.name)
def test_words_stand_out_from_their_ground_in_every_look(look):
    for ink in (look.ink, look.soft, look.grease, look.done):
        for ground in (look.desk, look.sheet, look.table):
            assert contrast(QColor(ink), QColor(ground)) >= LEAST_CONTRAST, (ink, ground)
    assert contrast(QColor(look.desk), QColor(look.ink)) >= LEAST_CONTRAST, "the main button"


@pytest.mark.parametrize("look", LOOKS, ids=lambda look: look.name)
def test_names_on_frames_can_be_read_at_every_density(look):
    for hundredths in range(0, 400, 5):
        film = look.film_colour(hundredths / 100)
        ink = look.writing_on(film)
        ground = look.plate_under(ink, film) or film
        assert contrast(ink, ground) >= LEAST_CONTRAST, hundredths


def test_elided_words_are_drawn_within_their_label(qtbot):
    label = ElidedLabel("the harbour master's own film")
    qtbot.addWidget(label)
    label.resize(80, 24)
    image = QImage(200, 24, QImage.Format.Format_RGB32)
    image.fill(QColor("white"))
    painter = QPainter(image)
    label.render(painter)
    painter.end()
    inked = [x for x in range(200) for y in range(24) if image.pixelColor(x, y).lightness() < 90]
    assert inked, "something is drawn"
    assert max(inked) < 80
    assert label.text() == "the harbour master's own film", "a screen reader hears the whole"

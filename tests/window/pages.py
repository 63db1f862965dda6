"""The window as a tester sees it: fields by their names, buttons by their words, films by name."""

import re
from contextlib import contextmanager

import pyqtgraph as pg
from PyQt6.QtCore import QBuffer, QByteArray, QIODevice, QPoint, QPointF, Qt
from PyQt6.QtPdf import QPdfDocument
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QAbstractButton, QApplication, QLabel, QLineEdit, QListView

from vadrin.ui.widgets.sentence import FlowingSentence

CTRL = Qt.KeyboardModifier.ControlModifier
SHIFT = Qt.KeyboardModifier.ShiftModifier
NONE = Qt.KeyboardModifier.NoModifier
ENTER, TAB, SPACE = Qt.Key.Key_Return, Qt.Key.Key_Tab, Qt.Key.Key_Space
UP, DOWN, ESCAPE = Qt.Key.Key_Up, Qt.Key.Key_Down, Qt.Key.Key_Escape
STOP = 0.30103


def settle(qtbot, window):
    """Wait until nothing shown is still being worked out."""
    QApplication.processEvents()
    qtbot.waitUntil(lambda: not window.busy, timeout=20000)
    # A page that scrolls may find its size in a second turn.
    QApplication.processEvents()
    QApplication.processEvents()


def words_of(widget):
    """All words a widget shows, in one line."""
    QApplication.processEvents()
    parts = (x for x in widget.findChildren((QLabel, FlowingSentence)) if x.isVisibleTo(widget))
    return " ".join(x.text() for x in parts).replace("\u200b", "")


def named(parent, kind, name):
    """The widget of a kind that a screen reader calls by a name."""
    QApplication.processEvents()
    found = [w for w in parent.findChildren(kind) if w.accessibleName() == name]
    assert found, f"no {kind.__name__} is called {name}"
    return found[-1]


def field_of(parent, name):
    """The field with a name."""
    return named(parent, QLineEdit, name)


def button_of(parent, words):
    """The button whose words begin so."""
    QApplication.processEvents()
    return next(b for b in parent.findChildren(QAbstractButton) if b.text().startswith(words))


def said_by(window):
    """What the header says."""
    return window.header.findChild(QLabel, "state of saving").text()


def refusal_of(window):
    """Why the station did not take what was typed last."""
    QApplication.processEvents()
    return window.station().refusal.text()


def pdf_words(path):
    document, buffer = QPdfDocument(None), QBuffer()
    buffer.setData(QByteArray(path.read_bytes()))
    buffer.open(QIODevice.OpenModeFlag.ReadOnly)
    document.load(buffer)
    return document.pageCount(), " ".join(
        document.getAllText(i).text() for i in range(document.pageCount())
    )


def type_into(field, words, key=ENTER):
    """Put words in a field in the place of what is there, and press a key."""
    field.setFocus()
    field.selectAll()
    QTest.keyClicks(field, words) if words else QTest.keyClick(field, Qt.Key.Key_Delete)
    QTest.keyClick(field, key)
    QApplication.processEvents()


class Hands:
    """Hands on the keyboard: every key goes to whatever has the focus; steps are counted.

    A step is one key, or a word with the key after it.
    """

    def __init__(self, qtbot, window):
        self.qtbot, self.window, self.steps = qtbot, window, 0

    def press(self, key, modifier=NONE, times=1):
        self.steps += times
        for _ in range(times):
            self.qtbot.keyClick(QApplication.focusWidget() or self.window, key, modifier)
        QApplication.processEvents()

    @contextmanager
    def unseen(self):
        """For hundreds of keys: painting is most of their time, and nobody looks meanwhile."""
        self.window.setUpdatesEnabled(False)
        yield
        self.window.setUpdatesEnabled(True)

    def write(self, words, key=ENTER):
        if words:
            self.qtbot.keyClicks(QApplication.focusWidget(), words)
        if key is not None:
            self.press(key)

    def choose_file(self, path):
        """Type a file's name into the dialog that asks for one."""
        asking = QApplication.activeModalWidget()
        name = asking.findChild(QLineEdit, "fileNameEdit")
        assert name.hasFocus()
        self.write(str(path), None)
        name.completer().popup().hide()
        self.press(ENTER)
        self.window.activateWindow()
        QApplication.processEvents()

    def settle(self):
        settle(self.qtbot, self.window)


class PlanPage:
    """The plan: its words by their keys, what it will tell, and the frames on its curves."""

    def __init__(self, qtbot, window):
        self.qtbot, self.window = qtbot, window

    @property
    def station(self):
        return self.window.station()

    @property
    def panel(self):
        return self.station.forecast_panel

    def word(self, key, typed):
        """Type a word of the plan."""
        QApplication.processEvents()
        field = self.station.fields[key]
        field.setFocus()
        field.setText(typed)
        QTest.keyClick(field, ENTER)
        QApplication.processEvents()

    def step(self, key, way):
        """Step a word of the plan by an arrow key."""
        QTest.keyClick(self.station.fields[key], way)
        QApplication.processEvents()

    @property
    def refusal(self):
        QApplication.processEvents()
        return self.station.refusal.text()

    @property
    def advice(self):
        QApplication.processEvents()
        return self.station.advice.text()

    def caption(self):
        QApplication.processEvents()
        self.panel.draw_now()
        return self.panel.caption.text()

    def forecast(self):
        """What the plan is said to tell, once that is known, with the picture drawn."""
        self.qtbot.waitUntil(lambda: "EI ±" in words_of(self.panel.forecast_column), timeout=20000)
        self.panel.draw_now()
        return words_of(self.panel.forecast_column)

    def half_width(self):
        """Stops of the EI's interval that the plan is said to give."""
        self.qtbot.waitUntil(lambda: "EI ±" in words_of(self.panel.forecast_column), timeout=20000)
        said = words_of(self.panel.forecast_column)
        return float(re.search(r"EI ± ([\d.]+) stop", said)[1])

    def ask_smallest(self, stops, until):
        """Ask for the smallest plan of a sureness, and wait for words in the answer."""
        column = self.panel.forecast_column
        type_into(column.sureness, stops)
        self.qtbot.waitUntil(lambda: until in column.smallest.text(), timeout=20000)
        return column.smallest.text()

    def curve_names(self):
        """What stands at the ends of the curves drawn."""
        items = self.panel.plot.getPlotItem().items
        return [i.toPlainText() for i in items if isinstance(i, pg.TextItem)]

    def _spot(self, place):
        plot = self.panel.plot
        x, y = plot.planned_spots()[0][place]
        box = plot.getPlotItem().getViewBox()
        scene = box.mapViewToScene(QPointF(x, y))
        wide = box.mapViewToScene(QPointF(x + STOP, 0.0)).x() - scene.x()
        return plot.mapFromScene(scene), wide

    def drag(self, place, stops, drop=True):
        """Drag a planned frame of the first strip by some stops."""
        self.panel.draw_now()
        at, wide = self._spot(place)
        view = self.panel.plot.viewport()
        QTest.mousePress(view, Qt.MouseButton.LeftButton, pos=at)
        for part in (0.5, 1.0):
            QTest.mouseMove(view, at + QPoint(round(part * stops * wide), 0))
        if drop:
            self.drop(at + QPoint(round(stops * wide), 0))

    def drop(self, at=None):
        """Let go of what is dragged."""
        view = self.panel.plot.viewport()
        QTest.mouseRelease(view, Qt.MouseButton.LeftButton, pos=at or QPoint(0, 0))
        QApplication.processEvents()


class ShelfPage:
    """The shelf: its tests by their films."""

    def __init__(self, qtbot, window):
        self.qtbot, self.window = qtbot, window
        self.hands = Hands(qtbot, window)

    @property
    def list(self):
        return named(self.window.station(), QListView, "tests")

    def films(self):
        """What the lines are headed by, headings too."""
        model = self.list.model()
        rows = range(model.rowCount())
        return [model.line(r).film if model.line(r) else model.data(model.index(r)) for r in rows]

    def pick(self, film):
        """Put the cursor on a test; gives its line."""
        row = self.films().index(film)
        self.list.setFocus()
        self.list.setCurrentIndex(self.list.model().index(row))
        QApplication.processEvents()
        return self.list.model().line(row)

    def mark(self, film):
        """Mark a test."""
        self.pick(film)
        self.hands.press(Qt.Key.Key_M, CTRL)

    @property
    def side(self):
        return self.window.station().side


def click_reading(window, plot, place):
    """Click a reading drawn on a plot; gives the frame it is of."""
    x, y, frame_id = plot.points[place]
    where = plot.getPlotItem().getViewBox().mapViewToScene(QPointF(x, y))
    QTest.mouseClick(plot.viewport(), Qt.MouseButton.LeftButton, pos=plot.mapFromScene(where))
    QApplication.processEvents()
    return frame_id


def plot_of(station, kind):
    """The plot that a station shows."""
    return next(p for p in station.findChildren(kind) if p.isVisible())

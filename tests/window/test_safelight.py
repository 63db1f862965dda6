"""By the safelight look nothing shines: red alone, large things dim, and all text can be read."""

import numpy as np
import pytest
from PyQt6.QtGui import QColor, QImage
from PyQt6.QtWidgets import QAbstractButton, QLabel, QLineEdit

from tests.window.pages import settle
from tools.demo.demo_scan import write_demo_scan
from vadrin.app.document.stations import STATIONS
from vadrin.app.scans.step_wedge import StepWedge, keep_steps
from vadrin.ui.theme.look import DAY, LEAST_CONTRAST, SAFELIGHT, contrast
from vadrin.ui.widgets.sentence import FlowingSentence

DARKROOM = ("recipe", "clip", "dark", "clock", "control", "makers", "rules", "got")
READING = ("scan", "light box", "verdicts", "side by side", "patches", "trace", "densities")
PRINTING = ("strip", "covered", "contact", "grade", "setup")
"""Pages of the stations that have several."""
MOST_GREEN_OR_BLUE = 8


def pixels(widget):
    image = widget.grab().toImage().convertToFormat(QImage.Format.Format_RGB32)
    bits = image.constBits()
    bits.setsize(image.sizeInBytes())
    rows = np.frombuffer(bytes(bits), np.uint8).reshape(image.height(), -1, 4)
    return rows[:, : image.width(), :3][..., ::-1].astype(int)


@pytest.fixture
def safelit(demo):
    def make(station):
        window = demo("Merrow Pan 125", station)
        while window.look is not SAFELIGHT:
            window.next_look()
        return window

    return make


def words_and_grounds(window, shown):
    """Every text with the colour that stands out most in its place, and that of its ground."""
    for widget in window.findChildren((QLabel, QLineEdit, QAbstractButton, FlowingSentence)):
        seen = widget.visibleRegion().boundingRect()
        if seen.height() < widget.height() or not widget.text().strip() or widget.width() < 8:
            # Scrolled out of sight, wholly or in part.
            continue
        corner = widget.mapTo(window, widget.rect().topLeft())
        down = slice(max(corner.y(), 0), corner.y() + widget.height())
        across = slice(max(corner.x(), 0), corner.x() + widget.width())
        part = shown[down, across].reshape(-1, 3)
        if part.size:
            ground = part[np.argsort(part[:, 0])[len(part) // 2]]
            ink = part[np.argmax(np.abs(part[:, 0] - ground[0]))]
            yield widget.text()[:40], QColor(*map(int, ink)), QColor(*map(int, ground))


def check_view(window, what):
    """No green, no blue, dark on the whole, and every text readable."""
    seen = pixels(window)
    assert seen[..., 1].max() <= MOST_GREEN_OR_BLUE, what
    assert seen[..., 2].max() <= MOST_GREEN_OR_BLUE, what
    assert seen[..., 0].mean() < 60, what
    weak = [
        (said, round(contrast(ink, ground), 1))
        for said, ink, ground in words_and_grounds(window, seen)
        if contrast(ink, ground) < LEAST_CONTRAST
    ]
    assert not weak, (what, weak)


def test_no_view_shines_and_every_text_can_be_read(qtbot, safelit):
    window = safelit("plan")
    pages = {
        "process": DARKROOM,
        "read": READING,
        "print": PRINTING,
        "finding": ("answer", "pictures"),
    }
    # First by day: what was made then may not keep its colours.
    for look in (DAY, SAFELIGHT):
        window.set_look(look)
        for station in (*STATIONS, "cupboard", "shelf", "films"):
            window.bench.go(station)
            for page in pages.get(station, ("",)):
                if page:
                    window.station().turn_to(page)
                settle(qtbot, window)
                if look is SAFELIGHT:
                    check_view(window, (station, page))


def test_a_scan_is_shown_in_dim_reds(qtbot, safelit, tmp_path):
    window = safelit("read")
    window.station().turn_to("scan")
    page, strip = window.station().scan, window.bench.loaded.strips[0]
    wedge = write_demo_scan(tmp_path / "strip.tif", strip)
    window.bench.edit(lambda book: keep_steps(book, StepWedge(wedge)))
    window.updates.flush()
    page.open(tmp_path / "strip.tif")
    settle(qtbot, window)
    assert page.scan is not None
    seen = pixels(page)
    assert seen[..., 1:].max() <= MOST_GREEN_OR_BLUE
    assert np.percentile(seen[..., 0], 99) > 20
    assert seen[..., 0].mean() < 90

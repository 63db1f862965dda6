"""A notebook of tests that went wrong: each opens at every station and says so in words."""

import pytest
from PyQt6.QtWidgets import QApplication

from tests.app.test_every_kind_spoilt import KINDS, at_random, bench_of, without_times
from tests.window.pages import settle, words_of
from vadrin.app.document.stations import STATIONS


@pytest.fixture
def spoilt(qtbot, open_window, tmp_path):
    """The window on a notebook with a test of every kind that was spoilt alike."""

    def make(spoil):
        window = open_window(tmp_path / "spoilt.vadrin")
        benches = []
        for kind in KINDS:
            bench = bench_of(window.bench.notebook, kind)
            spoil(bench, kind)
            benches.append(bench)
        return window, benches

    return make


@pytest.mark.parametrize("spoil", [at_random, without_times], ids=lambda spoil: spoil.__name__)
def test_every_station_shows_every_spoilt_test(qtbot, spoilt, spoil):
    window, benches = spoilt(spoil)
    silent = []
    # Painted once: what is painted of the other is the same, with less in it.
    window.setUpdatesEnabled(spoil is at_random)
    for bench in benches:
        window.bench.open_test(bench.test.id)
        for station in STATIONS:
            window.bench.go(station)
            for _ in range(2):
                QApplication.processEvents()
            if not words_of(window.station()).strip():
                silent.append((bench.test.kind, station))
        settle(qtbot, window)
        window.bench.go("finding")
        settle(qtbot, window)
        if window.finding.column is not None and window.finding.column.isVisible():
            assert words_of(window.finding.column).strip(), bench.test.kind
    assert silent == []
    window.setUpdatesEnabled(True)
    window.bench.go("shelf")
    settle(qtbot, window)
    model = window.station()._model
    shown = [model.data(model.index(row), 0) for row in range(model.rowCount())]
    assert len(shown) == len(KINDS)
    assert all("Kelda" in str(words) for words in shown)

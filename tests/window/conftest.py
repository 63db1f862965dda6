"""The window on the demo notebook."""

import shutil
from datetime import timedelta

import pytest

from tests.window.film_tester import FilmTester
from tests.window.pages import settle
from vadrin.app.process.uptime import Moment, moment_now
from vadrin.app.shelf.shelf_index import shelf_lines
from vadrin.ui.stations.process import clock_page


@pytest.fixture
def demo(open_window, demo_path, tmp_path, qtbot):
    """The window on a copy of the demo notebook, and a way to open a test by its film."""
    window = open_window(shutil.copy(demo_path, tmp_path / "demo.vadrin"))

    def bring(film, station):
        line = next(x for x in shelf_lines(window.bench.notebook) if x.film.startswith(film))
        window.bench.open_test(line.test_id)
        window.bench.go(station)
        settle(qtbot, window)
        return window

    return bring


@pytest.fixture
def tester(qtbot, open_window, tmp_path, request):
    """Someone at the keyboard; the keys of the whole job are counted and told at the end."""
    made = FilmTester(qtbot, open_window(tmp_path / "winter.vadrin"), tmp_path)
    yield made
    request.node.user_properties.append(("keys", made.steps))


class Hours:
    """A clock that stands until it is turned."""

    def __init__(self):
        self.first, self.passed, self.boot, self.wall_off = moment_now(), 0.0, "one", 0.0

    def __call__(self):
        wall = self.first.wall + timedelta(seconds=self.passed + self.wall_off)
        return Moment(wall, 5000.0 + self.passed, self.boot)


@pytest.fixture
def hours(monkeypatch):
    made = Hours()
    monkeypatch.setattr(clock_page, "moment_now", made)
    return made

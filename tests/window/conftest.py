"""The window on the demo notebook."""

import shutil

import pytest

from tests.window.pages import settle
from vadrin.app.shelf.shelf_index import shelf_lines


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

"""The window on the demo notebook."""

import shutil

import pytest

from tests.window.film_tester import FilmTester
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


@pytest.fixture
def tester(qtbot, open_window, tmp_path, request):
    """Someone at the keyboard; the keys of the whole job are counted and told at the end."""
    made = FilmTester(qtbot, open_window(tmp_path / "winter.vadrin"), tmp_path)
    yield made
    request.node.user_properties.append(("keys", made.steps))

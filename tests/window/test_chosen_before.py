"""What a person chose of the window is there the next time; a spoilt list is let be."""

import pytest

from tests.window.pages import settle
from vadrin.app.library.kept_choices import Choices, _file, choices_kept, keep_choices
from vadrin.app.practice.practice_notebook import begin_practice
from vadrin.commands import desktop
from vadrin.ui.frame.chosen_place import chosen_of, put_on_type, put_window
from vadrin.ui.theme import typeface
from vadrin.ui.theme.look import DAY, SAFELIGHT


@pytest.fixture(autouse=True)
def own_choices(tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_CONFIG_HOME", str(tmp_path / "config"))
    monkeypatch.setenv("XDG_STATE_HOME", str(tmp_path / "state"))
    scale = typeface.scale()
    yield
    typeface.set_scale(scale)


def test_look_type_and_place_are_there_the_next_time(open_window, tmp_path):
    window = open_window(tmp_path / "winter.vadrin")
    window.set_look(SAFELIGHT)
    window.setGeometry(40, 30, 1100, 720)
    typeface.set_scale(1.5)
    keep_choices(chosen_of(window))
    typeface.set_scale(1.0)
    other = open_window(tmp_path / "spring.vadrin")
    assert other.look is DAY
    kept = choices_kept()
    put_on_type(kept)
    put_window(other, kept)
    assert (other.look, typeface.scale()) == (SAFELIGHT, 1.5)
    assert other.geometry().getRect() == (40, 30, 1100, 720)


def test_a_place_on_a_screen_that_is_gone_is_not_gone_to(open_window, tmp_path):
    window = open_window(tmp_path / "winter.vadrin")
    before = window.geometry()
    put_window(window, Choices(place=(9000, 9000, 1100, 720)))
    assert window.geometry() == before


@pytest.mark.parametrize(
    "spoilt",
    [
        "",
        "[]",
        "{}",
        '{"scale": "big", "place": [], "look": "", "whole_screen": false}',
        '{"scale": NaN, "place": [], "look": "", "whole_screen": false}',
        '{"scale": 1, "place": [1, 2], "look": "", "whole_screen": false}',
        '{"scale": 1, "place": [1, 2, 1e400, 4], "look": "", "whole_screen": false}',
    ],
)
def test_a_spoilt_list_is_as_none(spoilt):
    _file().parent.mkdir(parents=True)
    _file().write_text(spoilt)
    assert choices_kept() == Choices()


def test_the_program_comes_back_to_the_notebook_opened_last(open_window, tmp_path, monkeypatch):
    """In the order in which they were opened; one that is gone is passed over."""
    assert desktop.last_notebook() is None
    for name in ("winter", "spring"):
        open_window(tmp_path / f"{name}.vadrin").notebook_opened()
    assert desktop.last_notebook() == tmp_path / "spring.vadrin"
    (tmp_path / "spring.vadrin").rename(tmp_path / "elsewhere")
    assert desktop.last_notebook() == tmp_path / "winter.vadrin"
    open_window(begin_practice(tmp_path / "practice").notebook).notebook_opened()
    assert desktop.last_notebook() == tmp_path / "winter.vadrin", "practice is no work of one's own"


def test_the_title_names_test_notebook_and_whether_it_may_be_written(qtbot, demo, open_window):
    window = demo("Merrow Pan 125", "curves")
    assert window.windowTitle() == "Merrow Pan 125 – demo – Vadrin"
    second = open_window(window.bench.notebook.path)
    settle(qtbot, second)
    assert second.windowTitle().endswith("demo (read only) – Vadrin")

"""A chart in a picture: its patches pointed at by mouse or keys, for pushes and for films."""

import numpy as np
import pytest
from coloraide import Color
from PIL import Image, ImageCms
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest

from tests.notebooks import developed_test
from tests.window.pages import ENTER, refusal_of, settle, type_into, words_of
from vadrin.app.read.patch_entry import patches_of
from vadrin.core.planning.test_options import Pushes
from vadrin.notebook.records import Judgement

ALT = Qt.KeyboardModifier.AltModifier
RED, GREEN, GREY = (180, 60, 50), (70, 140, 60), (128, 128, 128)
SIDE = 150


def chart(path, *colours, **options):
    """A chart of squares in a row, with a black line between them."""
    picture = np.zeros((SIDE, SIDE * len(colours), 3), dtype=np.uint8)
    for place, colour in enumerate(colours):
        picture[4:-4, SIDE * place + 4 : SIDE * (place + 1) - 4] = colour
    Image.fromarray(picture).save(path, **options)
    return path


def lab_of(rgb):
    return Color("srgb", [v / 255 for v in rgb]).convert("lab").coords()


class Patches:
    """The page of patches of a test, with its pictures."""

    def __init__(self, qtbot, window, kind, **asked):
        self.qtbot, self.window, self.book = qtbot, window, window.bench.notebook
        test = developed_test(self.book, "Gannet Colour 200", kind=kind, index=200.0, **asked)
        window.bench.open_test(test.id)
        window.bench.go("read")
        settle(qtbot, window)
        QTest.keyClick(window.station(), Qt.Key.Key_C, ALT)
        window.updates.flush()
        self.page = window.station().patches

    def strip(self, place):
        return self.window.bench.loaded.strips[place]

    def turn(self, place):
        self.window.bench.select(self.strip(place).frames[0].frame.id)
        self.window.updates.flush()

    def open(self, path):
        self.page.open(path)
        self.qtbot.waitUntil(lambda: not self.window.jobs.busy("chart"), timeout=20_000)
        self.window.updates.flush()

    def click(self, across, down):
        high, wide = self.page.steps.picture.shape[:2]
        view = self.page.view
        scale = min(view.width() / wide, view.height() / high)
        QTest.mouseClick(
            view, Qt.MouseButton.LeftButton, pos=QPoint(round(across * scale), round(down * scale))
        )
        self.window.updates.flush()

    def key(self, key, times=1, modifier=Qt.KeyboardModifier.NoModifier):
        for _ in range(times):
            QTest.keyClick(self.window.station(), key, modifier)


@pytest.fixture
def colour(qtbot, open_window, tmp_path):
    return Patches(
        qtbot,
        open_window(tmp_path / "winter.vadrin"),
        "colour",
        options=Pushes((0.0, 1.0)),
        times=(6.5,),
    )


def test_patches_are_pointed_at_in_turn_and_taken_as_one_edit(colour, tmp_path):
    type_into(colour.page.names, "red green grey")
    colour.open(chart(tmp_path / "chart.png", RED, GREEN, GREY))
    assert "Point at the middle of red" in words_of(colour.page)
    assert "taken as sRGB" in words_of(colour.page)
    colour.click(SIDE, 75)
    assert "no even patch" in refusal_of(colour.window)
    colour.click(75, 75)
    # The crosshair stays where the mouse left it: fifteen times ten pixels on.
    colour.key(Qt.Key.Key_Right, 15, Qt.KeyboardModifier.ShiftModifier)
    colour.key(Qt.Key.Key_Return)
    assert "Point at the middle of grey" in words_of(colour.page)
    colour.key(Qt.Key.Key_Backspace)
    assert "Point at the middle of green" in words_of(colour.page)
    colour.key(Qt.Key.Key_Return)
    colour.click(375, 75)
    assert "3 patches pointed at: take them" in words_of(colour.page)
    colour.click(375, 75)
    assert "every patch was pointed at" in refusal_of(colour.window)
    QTest.mouseClick(colour.page.take, Qt.MouseButton.LeftButton)
    colour.window.updates.flush()
    known = patches_of(colour.strip(0))
    for name, rgb in (("red", RED), ("green", GREEN), ("grey", GREY)):
        c = known[name].colour
        assert (c.lightness, c.a, c.b) == pytest.approx(lab_of(rgb), abs=0.06)
    assert "off a picture" in words_of(colour.page)
    QTest.keyClick(colour.window, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    settle(colour.qtbot, colour.window)
    assert colour.book.all(Judgement) == []


def test_a_profile_in_the_picture_says_what_its_numbers_mean(colour, tmp_path):
    type_into(colour.page.names, "red")
    profile = ImageCms.ImageCmsProfile(ImageCms.createProfile("sRGB")).tobytes()
    colour.open(chart(tmp_path / "chart.png", RED, icc_profile=profile))
    assert "by the profile in the picture" in words_of(colour.page)
    colour.click(75, 75)
    QTest.mouseClick(colour.page.take, Qt.MouseButton.LeftButton)
    c = patches_of(colour.strip(0))["red"].colour
    assert (c.lightness, c.a, c.b) == pytest.approx(lab_of(RED), abs=1.0)
    colour.open(chart(tmp_path / "hurt.png", RED, icc_profile=b"no profile at all"))
    assert "taken as sRGB" in words_of(colour.page)


def test_a_picture_is_put_away_and_what_is_no_picture_is_refused(colour, tmp_path):
    colour.open(chart(tmp_path / "chart.png", RED))
    QTest.mouseClick(colour.page.take, Qt.MouseButton.LeftButton)
    assert "nothing was pointed at yet: begin with red" in refusal_of(colour.window)
    colour.key(Qt.Key.Key_Escape)
    assert colour.page.steps is None
    (tmp_path / "words.png").write_bytes(b"not a picture")
    colour.open(tmp_path / "words.png")
    assert refusal_of(colour.window)
    type_into(colour.page.names, "red red")
    assert "each once" in refusal_of(colour.window)
    colour.open(chart(tmp_path / "chart.png", RED))
    colour.turn(1)
    assert colour.page.steps is None, "each strip has a picture of its own"


def test_films_are_compared_by_their_patches_too(qtbot, open_window, tmp_path):
    films = Patches(
        qtbot,
        open_window(tmp_path / "winter.vadrin"),
        "compare",
        compared="stocks",
        compared_names=("Brannock 400",),
    )
    for place, red in enumerate((RED, (190, 100, 40))):
        films.turn(place)
        type_into(films.page.names, "red", ENTER)
        films.open(chart(tmp_path / f"{place}.png", red))
        films.click(75, 75)
        QTest.mouseClick(films.page.take, Qt.MouseButton.LeftButton)
        films.window.updates.flush()
    films.window.bench.go("finding")
    settle(qtbot, films.window)
    said = words_of(films.window.station())
    one, other = (Color("lab", [round(v, 1) for v in lab_of(rgb)]) for rgb in (RED, (190, 100, 40)))
    apart = one.delta_e(other, method="2000", space="lab")
    assert f"Red differs most, by {apart:.1f} on Brannock 400" in said
    assert "it reads as orange and no longer as red" in said

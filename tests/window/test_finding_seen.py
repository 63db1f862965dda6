"""The finding seen: pictures of a scene beside the answer, by keys, as the numbers have them."""

import json
import shutil
from dataclasses import replace

import numpy as np
import pytest
from PIL import Image
from PyQt6.QtCore import Qt
from PyQt6.QtGui import QImage
from tifffile import TiffFile, imwrite

from tests.window.pages import CTRL, DOWN, Hands, pdf_words, settle, words_of
from vadrin.app.demo.demo_copy import demo_notebook
from vadrin.app.descriptions import own_answer
from vadrin.app.display.quantities import minutes_text
from vadrin.app.pictures import scenes
from vadrin.app.pictures.exposed import exposed_of
from vadrin.app.pictures.looking import Looking, paper_used, scene_titles
from vadrin.app.pictures.scenes import scene_named
from vadrin.app.pictures.seen import seen
from vadrin.app.shelf.shelf_index import shelf_lines
from vadrin.notebook.records import Test
from vadrin.ui.pictures.picture_rows import PictureRows
from vadrin.ui.pictures.picture_tile import PictureTile
from vadrin.ui.theme import typeface

ALT = Qt.KeyboardModifier.AltModifier


def levels_of(image):
    """The pixels of an image, shape (rows, columns, 3)."""
    image = image.convertToFormat(QImage.Format.Format_RGB888)
    bits = image.constBits().asarray(image.sizeInBytes())
    rows = np.frombuffer(bits, np.uint8).reshape(image.height(), image.bytesPerLine())
    return rows[:, : 3 * image.width()].reshape(image.height(), image.width(), 3).astype(int)


def tiles(window):
    """The pictures that are shown, from left to right and top to bottom."""
    return [t for t in window.station().findChildren(PictureTile) if t.isVisible()]


@pytest.fixture
def hands(qtbot, demo):
    made = Hands(qtbot, demo("Merrow Pan 125 M3", "finding"))
    typeface.set_scale(1.0)
    return made


def page_of(hands):
    hands.press(Qt.Key.Key_P, ALT)
    hands.settle()
    return hands.window.station().pictures


def test_every_row_of_the_push_table_has_its_picture(hands):
    shown = tiles(hands.window)
    assert [t.exposed.name for t in shown] == ["pull 1", "normal", "push 1", "push 2"]
    assert all(t._image is not None for t in shown)
    dark = [float((levels_of(t._image) < 40).mean()) for t in shown]
    assert dark == sorted(dark), "each push loses shadow"
    assert "EI 80, 7:35" in shown[1].accessibleName()
    assert "lost in black" in shown[3].accessibleName()


def test_pictures_are_of_the_answer_as_it_is_now(hands):
    before = [t.exposed.minutes for t in tiles(hands.window)]
    hands.press(Qt.Key.Key_Up, times=3)
    hands.settle()
    after = [t.exposed.minutes for t in tiles(hands.window)]
    told = [p.by(hands.window.bench.loaded.test.push_rule).time_min.value
            for p in hands.window.bench.state.analysis.push]  # fmt: skip
    assert after != before
    assert after == told


def test_one_over_the_other_by_keys(hands):
    page = page_of(hands)
    hands.press(Qt.Key.Key_W)
    hands.settle()
    seam, second = page._wipe.seam, page._wipe.names[1]
    hands.press(Qt.Key.Key_Right, times=5)
    hands.press(DOWN)
    hands.settle()
    assert page._wipe.seam == pytest.approx(seam + 0.1)
    assert page._wipe.names[1] != second
    printed = levels_of(page._wipe._images[0]).mean()
    hands.press(Qt.Key.Key_N)
    hands.settle()
    assert levels_of(page._wipe._images[0]).mean() > printed + 40, "film of a dark room is thin"
    card = scene_named("shed").of_thing("grey card")
    down, across = np.argwhere(card).mean(0) / card.shape
    page._wipe.pointed.emit(0, across, down)
    assert "grey card" in words_of(page)
    assert "Zone V," in words_of(page)


def test_what_is_lost_is_hatched_by_a_key_and_the_print_flipped_by_another(hands):
    page = page_of(hands)
    plain = [levels_of(t._image) for t in tiles(hands.window)]
    hands.press(Qt.Key.Key_H)
    hands.settle()
    hatched = [levels_of(t._image) for t in tiles(hands.window)]
    changed = [float((a != b).any(axis=-1).mean()) for a, b in zip(plain, hatched, strict=True)]
    assert changed == sorted(changed)
    assert changed[-1] > 0.05
    assert "Hatched" in words_of(page)
    hands.press(Qt.Key.Key_F)
    hands.settle()
    assert "mid-tone held" in page._rule.text()
    assert page.looking.marked


def test_pictures_are_saved_with_what_made_them(hands, tmp_path):
    page = page_of(hands)
    for name, count in (("seen.pdf", 1), ("seen.png", 4), ("seen.tif", 4)):
        page.save_row.path.setFocus()
        hands.write(str(tmp_path / name))
        hands.settle()
        files = sorted(tmp_path.glob(f"*{name[-4:]}"))
        assert len(files) == count, words_of(page)
    _, words = pdf_words(tmp_path / "seen.pdf")
    assert "EI 80, 7:35" in words
    assert "boat shed at dusk" in words
    with Image.open(next(tmp_path.glob("*push-1*.png"))) as png:
        assert png.text["Metered at"] == "grey card by the bulb"
        assert png.text["Exposure"] == "EI 160, 9:20"
        assert np.array_equal(np.asarray(png), levels_of_array(hands, "push 1")), (
            "what is saved is what is shown"
        )
    told = json.loads(TiffFile(next(tmp_path.glob("*normal*.tif"))).pages[0].description)
    assert told["Paper"].startswith("a typical grade 2")
    page.save_row.path.setFocus()
    hands.write(str(tmp_path / "seen.bmp"))
    hands.settle()
    assert "end the name in one of" in words_of(hands.window.station())


def levels_of_array(hands, name):
    """The levels of a picture, made once more in full size."""
    state, page = hands.window.bench.state, hands.window.station().pictures
    exposed = next(e for e in exposed_of(state) if e.name == name)
    paper = paper_used(hands.window.bench.notebook, state)
    return seen(state, exposed, page.looking, paper).levels


def test_another_scene_and_spot_are_typed_and_a_wrong_word_is_refused(hands):
    page = page_of(hands)
    before = levels_of(tiles(hands.window)[0]._image)
    for field, typed in ((page._place, "slip"), (page._spot, "snow")):
        field.setFocus()
        hands.write(typed)
        hands.settle()
    assert page.looking.scene == "slip"
    assert page._spot.text() == "snow"
    after = levels_of(tiles(hands.window)[0]._image)
    assert before.shape != after.shape or (before != after).any()
    page._place.setFocus()
    hands.write("moon")
    assert "slip under overcast" in words_of(hands.window.station())
    assert page.looking.scene == "slip"


def test_a_longer_print_is_darker_and_more_flare_greyer_in_the_shadows(hands):
    page = page_of(hands)
    hands.press(Qt.Key.Key_W)
    hands.settle()
    plain = levels_of(page._wipe._images[0])
    for field, typed in ((page._longer, "+1"), (page._longer, "0"), (page._flare, "4 %")):
        field.setFocus()
        hands.write(typed)
        hands.settle()
        now = levels_of(page._wipe._images[0])
        if typed == "+1":
            assert now.mean() < plain.mean() - 10
        elif typed == "0":
            assert (now == plain).all()
    dark = scene_named("shed").of_thing("black cloth")
    assert now[dark].mean() > plain[dark].mean() + 5
    page._flare.setFocus()
    hands.write("40")
    assert "between 0 and 10 %" in words_of(hands.window.station())


def test_ei_by_time_frames_the_finding_and_keeps_its_place_through_larger_type(hands):
    page_of(hands)
    hands.press(Qt.Key.Key_T)
    hands.settle()
    framed = [t.exposed for t in tiles(hands.window) if t.exposed.normal]
    assert [(e.name, e.said) for e in framed] == [("normal", "EI 80, 7:35")]
    assert len({t.exposed.minutes for t in tiles(hands.window)}) == 5
    count = len(tiles(hands.window))
    hands.window.scale_type(1)
    settle(hands.qtbot, hands.window)
    assert len(tiles(hands.window)) == count
    assert hands.window.station().page == "pictures"
    typeface.set_scale(1.0)


def test_a_positive_is_seen_cell_by_cell_and_not_printed(qtbot, open_window, tmp_path):
    window = open_window(shutil.copy(demo_notebook(), tmp_path / "winter.vadrin"))
    positive = next(x for x in shelf_lines(window.bench.notebook) if x.kind.startswith("reversal"))
    window.bench.open_test(positive.test_id)
    window.bench.go("finding")
    settle(qtbot, window)
    hands = Hands(qtbot, window)
    page = page_of(hands)
    hands.press(Qt.Key.Key_T)
    hands.settle()
    grid = tiles(hands.window)
    assert len(grid) == 15
    assert [t.exposed.name for t in grid[::5]] == [
        "−1 stop, 15 s",
        "±0 stop, 30 s",
        "+1 stop, 60 s",
    ]
    dark = np.array([levels_of(t._image).mean() for t in grid]).reshape(3, 5)
    assert np.all(np.diff(dark, axis=1) < 0), "a higher EI gives a darker positive"
    assert np.all(np.diff(dark, axis=0) > 0), "more of the second exposure, lighter in this demo"
    assert [t.exposed.said for t in grid if t.exposed.normal] == ["EI 6"]
    assert "no print is made" in words_of(page)
    assert "clear film just black" not in words_of(page)


def test_colour_film_is_seen_in_colour_at_the_pushes_it_was_shot_at(qtbot, open_window, tmp_path):
    window = open_window(shutil.copy(demo_notebook(), tmp_path / "demo.vadrin"))
    lines = shelf_lines(window.bench.notebook)
    colour = next(line for line in lines if line.film.startswith("Gannet Colour"))
    window.bench.open_test(colour.test_id)
    window.bench.go("finding")
    settle(qtbot, window)
    shown = tiles(window)
    assert [t.exposed.name for t in shown] == ["normal", "push 1", "push 2"]
    normal = levels_of(next(t for t in shown if t.exposed.normal)._image)
    assert np.ptp(normal, axis=-1).max() > 60
    # The words and the picture say the same of push 2, by the steps of the wedge in one light.
    answer = own_answer(window.bench.state)
    row = next(r for r in answer.table.rows if r[0] == "push 2")
    assert "highlights shift towards blue, shadows towards yellow" in row[-1]
    bluer = {}
    for tile in (shown[0], shown[2]):
        state, exposed = window.bench.state, tile.exposed
        picture = seen(state, exposed, Looking(), paper_used(window.bench.notebook, state))
        for thing in ("wedge 2", "wedge 9", "grey card"):
            tone = np.median(picture.levels[scene_named("shed").of_thing(thing)], axis=0)
            bluer[exposed.name, thing] = tone[2] - tone[:2].mean()
    assert abs(bluer["normal", "grey card"]) < 4, "what was metered is neutral"
    assert abs(bluer["push 2", "grey card"]) < 4
    assert bluer["push 2", "wedge 2"] > bluer["normal", "wedge 2"] + 8
    assert bluer["push 2", "wedge 9"] < bluer["normal", "wedge 9"] - 5


def test_what_was_not_tested_has_its_reason_in_place_of_a_picture(qtbot, demo):
    window = demo("Brannock 400 B7", "finding")
    hands = Hands(qtbot, window)
    shown = tiles(window)
    empty = [t for t in shown if t._image is None]
    assert empty
    assert all("not tested" in t.exposed.why for t in empty)
    page_of(hands)
    hands.press(Qt.Key.Key_W)
    hands.settle()
    assert "not tested" not in window.station().pictures._wipe.names[0]


def test_a_test_without_a_curve_says_what_it_waits_for(qtbot, demo):
    window = demo("Kelda Pan 200", "finding")
    assert window.station().findChildren(PictureRows) == []
    hands = Hands(qtbot, window)
    hands.press(Qt.Key.Key_7, CTRL)
    page = page_of(hands)
    assert "read a strip's densities" in words_of(page)


def test_a_plan_shows_what_it_is_likely_to_lead_to_and_being_off_by_its_range(qtbot, demo):
    window = demo("Kelda Pan 200", "plan")
    row = window.station().forecast_panel.likely
    qtbot.waitUntil(lambda: bool(row.tiles) and row.tiles[-1]._image is not None, timeout=20000)
    names = [t.exposed.name for t in row.tiles]
    assert names[0].endswith("slower")
    assert names[1].startswith("likely: EI ")
    assert names[2].endswith("faster")
    light = [levels_of(t._image).mean() for t in row.tiles]
    assert light == sorted(light), "a slower film loses shadow at the same EI"
    window = demo("Merrow Pan 125 M3", "plan")
    settle(qtbot, window)
    assert not row.isVisible(), "what was read is no guess any more"


def test_a_time_is_dragged_along_the_curves_and_the_picture_follows(hands):
    hands.press(Qt.Key.Key_5, CTRL)
    hands.settle()
    row = hands.window.station().at_time
    hands.press(Qt.Key.Key_T)
    assert row.scale.hasFocus()
    seen_before, said = levels_of(row.tile._image).mean(), row.said.text()
    hands.press(Qt.Key.Key_End)
    assert row.said.text() != said
    longest = max(s.restated_min for s in hands.window.bench.state.analysis.strips)
    assert row.minutes == pytest.approx(longest)
    assert levels_of(row.tile._image).mean() > seen_before + 5, "more density prints lighter"
    strip = max(hands.window.bench.state.analysis.strips, key=lambda s: s.restated_min)
    assert f"average gradient {strip.average_gradient.value:.2f}" in row.said.text()
    hands.press(Qt.Key.Key_7, CTRL)
    hands.press(Qt.Key.Key_5, CTRL)
    hands.settle()
    assert row.minutes == pytest.approx(longest), "the marker stays where it was put"


def test_a_picture_of_ones_own_is_a_scene_and_what_it_cannot_say_is_dotted(
    hands, tmp_path, monkeypatch
):
    rng = np.random.default_rng(4)
    light = np.full((120, 180, 3), 2000.0)
    light[:, 60:120] *= 4.0
    light[:, 120:150] = 65535.0
    light[:, 150:] = 4.0
    noisy = np.clip(light + rng.normal(0, 6, light.shape), 0, 65535).astype(np.uint16)
    imwrite(tmp_path / "quay.tif", noisy, photometric="rgb")
    page = page_of(hands)
    page.take(tmp_path / "quay.tif")
    hands.settle()
    assert page._place.text() == "quay"
    unread = page._pair[0].ground == 3
    assert unread[:, 125:145].all(), "the sensor was full"
    assert unread[:, 155:175].mean() > 0.9, "it drowns in its noise"
    assert not unread[:, 65:115].any()
    page._wipe.metered.emit(0.5, 0.5)
    hands.settle()
    assert page._spot.text() == "50 % across, 50 % down"
    codes = page._pair[0].tones.log_h[scene_named(page.looking.scene).luminance]
    constant = hands.window.bench.loaded.test.meter_constant
    index = hands.window.bench.state.analysis.finding.zone_ei.value
    assert codes[60, 90] == pytest.approx(np.log10(constant / index), abs=0.03)
    assert codes[60, 90] - codes[60, 30] == pytest.approx(np.log10(4.0), abs=0.02)
    Image.fromarray((noisy >> 8).astype(np.uint8)).save(tmp_path / "bent.png")
    page.take(tmp_path / "bent.png")
    hands.settle()
    assert "bent by a tone curve" in words_of(hands.window.station())
    assert page._place.text() == "quay"
    page.looking = Looking()
    monkeypatch.setattr(scenes, "_own", {})
    assert scene_titles()[-1] == "quay", "the next time the program runs it is still offered"
    page._place.setText("quay")
    page._place.settle()
    hands.settle()
    assert page._place.text() == "quay"
    assert page._pair[0].levels.shape == (120, 180)
    (tmp_path / "quay.tif").unlink()
    monkeypatch.setattr(scenes, "_own", {})
    assert "quay" not in scene_titles(), "a file that is gone is not offered"


def test_a_card_has_small_pictures_where_they_are_asked_for(hands, tmp_path):
    hands.press(Qt.Key.Key_8, CTRL)
    hands.settle()
    station = hands.window.station()
    plain = station._pdf
    hands.press(Qt.Key.Key_P, ALT)
    hands.settle()
    (tmp_path / "card.pdf").write_bytes(station._pdf)
    assert station._pdf.count(b"/Subtype /Image") == 4
    assert plain.count(b"/Subtype /Image") == 0
    _, words = pdf_words(tmp_path / "card.pdf")
    assert words.count("EI 160, 9:20") == 1
    hands.press(Qt.Key.Key_P, ALT)
    hands.settle()
    assert station._pdf == plain


def test_a_pushed_roll_is_seen_by_each_rule_and_old_film_beside_fresh(qtbot, open_window, tmp_path):
    window = open_window(shutil.copy(demo_notebook(), tmp_path / "demo.vadrin"))
    lines = {test.kind: test.id for test in window.bench.notebook.all(Test)}
    window.bench.open_test(lines["wrong setting"])
    window.bench.go("finding")
    settle(qtbot, window)
    shown = tiles(window)
    assert shown[0].exposed.normal
    assert f"{minutes_text(shown[0].exposed.minutes)} min" in words_of(window.station())
    light = {t.exposed.minutes: levels_of(t._image).mean() for t in shown}
    assert [light[m] for m in sorted(light)] == sorted(light.values()), "longer prints lighter"
    window.bench.open_test(lines["rescue"])
    settle(qtbot, window)
    assert [t.exposed.name for t in tiles(window)] == ["fresh film", "this film, strip A"]
    window.bench.open_test(lines["reciprocity"])
    with window.bench.notebook.change("a law"):
        window.bench.notebook.put(replace(window.bench.loaded.stock, reciprocity="t^1.3"))
    window.bench.refresh()
    settle(qtbot, window)
    given, short = tiles(window)
    assert "given 205 s" in given.exposed.name, "60 to the power 1.3"
    assert short.exposed.exposure_index > 2 * given.exposed.exposure_index
    assert levels_of(short._image).mean() < levels_of(given._image).mean() - 5
    window.bench.open_test(lines["paper"])
    settle(qtbot, window)
    own, *grades = tiles(window)
    assert own.exposed.normal
    assert "its own curve" in own.exposed.paper.words
    assert {g.exposed.minutes for g in grades} == {own.exposed.minutes}, "one negative"
    scales = [scale_read(g) for g in grades]
    assert len(grades) > 1
    assert scales == sorted(scales)
    contrast = [levels_of(g._image).std() for g in grades]
    assert contrast == sorted(contrast, reverse=True), "a harder grade prints harder"
    near = min(range(len(scales)), key=lambda n: abs(scales[n] - scale_read(own)))
    least = min(abs(levels_of(own._image).std() - c) for c in contrast)
    assert abs(levels_of(own._image).std() - contrast[near]) == least, "as hard as its scale says"


def scale_read(tile) -> float:
    """The exposure scale in a picture's name."""
    return float(tile.exposed.name.split("scale ")[1][:4])

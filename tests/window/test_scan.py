"""A strip read from a scan, through the window: opened, moved, taken, undone, refused."""

import numpy as np
import pytest
import tifffile
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest

from tests.core.test_printing import Paper
from tests.core.test_scanning import scanned_paper
from tests.notebooks import developed_test
from tests.window.pages import pdf_words, refusal_of, settle, type_into, words_of
from vadrin.app.descriptions import own_answer
from vadrin.app.pictures.exposed import Exposed
from vadrin.app.pictures.looking import Looking, PaperUsed
from vadrin.app.pictures.measured_grain import grain_words
from vadrin.app.pictures.scenes import scene_named
from vadrin.app.pictures.seen import seen
from vadrin.core.pictures.printing_paper import typical_paper
from vadrin.core.simulation.scanner import Scanner, scanned_strip
from vadrin.notebook.records import Attachment

WEDGE = np.arange(0.05, 3.1, 0.15)


@pytest.fixture
def scan(qtbot, demo, tmp_path):
    """The window at Read's scan page, and a way to write a scan of its first strip."""
    window = demo("Ostrel 400", "read")
    true = np.array([f.density for f in window.bench.loaded.strips[0].frames])
    book = window.bench.notebook
    with book.change("not read yet"):
        for _, frame in window.bench.loaded.frames():
            for reading in frame.readings:
                book.remove(reading)
    window.bench.open_test(window.bench.loaded.test.id)
    window.station().setFocus()
    QTest.keyClick(window.station(), Qt.Key.Key_S, Qt.KeyboardModifier.AltModifier)
    window.updates.flush()
    page = window.station().scan

    def write(turn=False, name="strip.tif", without=None, resolution=None, **seen):
        frames = true[::-1] if turn else true
        if without is not None:
            frames = np.delete(frames, without)
        rng = np.random.default_rng(3)
        picture, _ = scanned_strip(Scanner(dust=0.005, **seen), frames, true[0], rng, 80, WEDGE)
        tifffile.imwrite(tmp_path / name, picture, resolution=resolution, resolutionunit="INCH")
        page.open(tmp_path / name)
        qtbot.waitUntil(lambda: not window.jobs.busy("scan"), timeout=20_000)
        return true

    type_into(page.known.wedge, " ".join(f"{step:.2f}" for step in WEDGE))
    window.updates.flush()
    return window, page, write


def press(window, key):
    QTest.keyClick(window.station(), key)


def test_a_scan_is_opened_and_its_densities_taken(qtbot, scan):
    window, page, write = scan
    true = write(skew=0.01)
    assert refusal_of(window) == ""
    assert "Wedge matched within" in words_of(page)
    page.take.click()
    settle(qtbot, window)
    frames = window.bench.loaded.strips[0].frames
    read = np.array([f.density for f in frames])
    assert np.max(np.abs(read - true)) < 0.02
    kept = frames[0].readings[0]
    assert (kept.way, kept.deviation > 0) == ("scan", True)
    assert "checksum" in kept.extra
    assert "EI" in words_of(window)
    window.bench.undo()
    assert window.bench.loaded.read() == 0, "one scan is one edit"


def test_a_strip_that_lay_the_other_way_round_is_turned(scan):
    window, page, write = scan
    true = write(turn=True)
    assert "frame order was reversed" in words_of(page)
    page.take.click()
    window.updates.flush()
    read = [f.density for f in window.bench.loaded.strips[0].frames]
    assert np.corrcoef(read, true)[0, 1] > 0.99
    press(window, Qt.Key.Key_R)
    assert not page.scan.mirrored


def test_a_frame_that_is_not_in_the_picture_is_pointed_at(qtbot, scan):
    """Frame 5 was cut away: the others keep their places in the script."""
    window, page, write = scan
    true = write(without=4)
    assert "If a frame of the script is missing, select it and say so (M)" in words_of(page)
    frames = window.bench.loaded.strips[0].frames
    window.bench.select(frames[4].frame.id)
    settle(qtbot, window)
    assert page.gone.isVisible()
    assert "Frame 5" in page.gone.text()
    press(window, Qt.Key.Key_M)
    qtbot.waitUntil(lambda: not window.jobs.busy("scan"), timeout=20_000)
    assert "not whole" not in words_of(page)
    assert page.scan.absent == (4,)
    page.take.click()
    settle(qtbot, window)
    read = [f.density for f in window.bench.loaded.strips[0].frames]
    assert read[4] is None
    rest = [n for n in range(len(true)) if n != 4 and read[n] is not None]
    assert len(rest) >= 11
    assert [read[n] for n in rest] == pytest.approx([true[n] for n in rest], abs=0.05)
    assert "Frame 5" in page.gone.text()
    window.bench.select(frames[4].frame.id)
    settle(qtbot, window)
    press(window, Qt.Key.Key_M)
    qtbot.waitUntil(lambda: not window.jobs.busy("scan"), timeout=20_000)
    assert page.scan.absent == (), "the same key takes it back"


def test_frames_are_moved_by_the_arrows(scan):
    window, page, write = scan
    write()
    start, pitch = page.scan.place.start, page.scan.place.pitch
    press(window, Qt.Key.Key_Right)
    press(window, Qt.Key.Key_Plus)
    assert page.scan.place.start > start
    assert page.scan.place.pitch > pitch
    press(window, Qt.Key.Key_Left)
    press(window, Qt.Key.Key_Minus)
    assert (page.scan.place.start, page.scan.place.pitch) == pytest.approx((start, pitch), rel=1e-3)


def test_what_cannot_be_read_is_said_and_the_wedge_is_kept(qtbot, scan, tmp_path):
    window, page, _ = scan
    (tmp_path / "words.tif").write_text("no picture")
    page.open(tmp_path / "words.tif")
    qtbot.waitUntil(lambda: not window.jobs.busy("scan"), timeout=20_000)
    assert "words.tif: no picture" in refusal_of(window)
    tifffile.imwrite(tmp_path / "light.tif", np.full((200, 900), 50_000, np.uint16))
    page.open(tmp_path / "light.tif")
    qtbot.waitUntil(lambda: not window.jobs.busy("scan"), timeout=20_000)
    assert "no strip was found" in refusal_of(window)
    type_into(page.known.wedge, "0.5 0.4")
    assert "at least four densities" in refusal_of(window)
    assert page.known.wedge.why_refused


def opened(qtbot, window, page, path, which=None):
    page.open(path, which)
    qtbot.waitUntil(lambda: not window.jobs.busy("scan"), timeout=20_000)


def strip_picture(true, wedge=None, seed=3, **seen):
    rng = np.random.default_rng(seed)
    return scanned_strip(Scanner(**seen), true, true[0], rng, 80, wedge)[0]


def test_a_wedge_may_lie_in_another_picture(qtbot, scan, tmp_path):
    window, page, write = scan
    true = write()
    rows = strip_picture(true, WEDGE)[-110:]
    light = np.full((30, rows.shape[1]), 58_000, np.uint16)
    tifffile.imwrite(tmp_path / "wedge.tif", np.concatenate([light, rows, light]))
    page.known.wedge_from(tmp_path / "wedge.tif")
    qtbot.waitUntil(lambda: not window.jobs.busy("known steps"), timeout=20_000)
    assert "As seen in wedge.tif" in words_of(page.known)
    tifffile.imwrite(tmp_path / "alone.tif", strip_picture(true))
    opened(qtbot, window, page, tmp_path / "alone.tif")
    assert refusal_of(window) == ""
    read = np.array([page.scan.value_of(i).density for i in range(len(true))])
    assert np.max(np.abs(read - true)) < 0.02
    tifffile.imwrite(tmp_path / "brighter.tif", strip_picture(true, white=50_000.0))
    opened(qtbot, window, page, tmp_path / "brighter.tif")
    assert "were the settings the same?" in words_of(page)


def test_a_camera_may_bracket_the_bare_light(qtbot, scan, tmp_path):
    window, page, write = scan
    true = write(flare=0.0)
    for place, value in enumerate(58_000 * 0.5 ** np.arange(10)):
        tifffile.imwrite(tmp_path / f"light{place}.tif", np.full((64, 96), value, np.uint16))
    type_into(page.known.bracket, "1/30 1/30")
    assert "from the longest down" in refusal_of(window)
    type_into(page.known.bracket, "1 1/2 1/4 1/8 1/15 1/30 1/60 1/125 1/250 1/500")
    page.known.bracket_from(tmp_path / "light0.tif")
    qtbot.waitUntil(lambda: not window.jobs.busy("known steps"), timeout=20_000)
    assert "As seen in a bracket from light0.tif" in words_of(page.known)
    opened(qtbot, window, page, tmp_path / "strip.tif")
    read = np.array([page.scan.value_of(i).density for i in range(len(true))])
    assert np.max(np.abs(read - true)) < 0.05
    page.known.bracket_from(tmp_path / "light5.tif")
    qtbot.waitUntil(lambda: not window.jobs.busy("known steps"), timeout=20_000)
    assert "10 pictures are wanted" in refusal_of(window)


def test_several_strips_lie_in_one_picture(qtbot, scan, tmp_path):
    window, page, write = scan
    true = write()
    type_into(page.known.wedge, "none")
    dense = np.minimum(true + 0.2, 1.4)
    both = [strip_picture(t, seed=4) for t in (np.minimum(true, 1.4), dense)]
    wide = max(b.shape[1] for b in both)
    light = [np.pad(b, ((0, 0), (0, wide - b.shape[1])), constant_values=58_000) for b in both]
    tifffile.imwrite(tmp_path / "two.tif", np.concatenate(light))
    opened(qtbot, window, page, tmp_path / "two.tif")
    assert "number 1 from the top" in words_of(page)
    first = page.scan.value_of(0).density
    press(window, Qt.Key.Key_B)
    qtbot.waitUntil(lambda: not window.jobs.busy("scan"), timeout=20_000)
    assert "number 2 from the top" in words_of(page)
    assert page.scan.value_of(0).density == pytest.approx(first + 0.2, abs=0.03)


def test_one_frame_is_moved_alone_by_keys_and_mouse(scan):
    window, page, write = scan
    write()
    window.bench.select(window.bench.loaded.strips[0].frames[3].frame.id)
    before = [page.scan.place.box(i) for i in range(5)]
    QTest.keyClick(window.station(), Qt.Key.Key_Right, Qt.KeyboardModifier.ShiftModifier)
    press(window, Qt.Key.Key_Comma)
    after = [page.scan.place.box(i) for i in range(5)]
    assert [a == b for a, b in zip(before, after, strict=True)] == [True] * 3 + [False, True]
    assert after[3][2] - after[3][0] < before[3][2] - before[3][0]
    view, scale = page._view, page._view._scale()
    left, top, right, bottom = (int(v * scale) for v in page.scan.boxes[1])
    held, let_go = QPoint((left + right) // 2, (top + bottom) // 2), QPoint(right, bottom - 1)
    QTest.mousePress(view, Qt.MouseButton.LeftButton, pos=held)
    QTest.mouseRelease(view, Qt.MouseButton.LeftButton, pos=let_go)
    assert page.scan.place.box(1)[0] > before[1][0]


def test_uneven_light_is_taken_out(scan):
    _, page, write = scan
    true = write(uneven=0.12)
    read = np.array([page.scan.value_of(i).density for i in range(len(true))])
    assert np.max(np.abs(read - true)) < 0.02


def test_the_picture_is_kept_by_reference_and_found_where_it_went(qtbot, scan, tmp_path):
    window, page, write = scan
    write()
    page.take.click()
    settle(qtbot, window)
    (kept,) = window.bench.notebook.all(Attachment)
    assert (kept.name, len(kept.checksum)) == ("strip.tif", 64)
    assert kept.size > 8 * len(kept.data) > 0, "a small preview, not the picture"
    moved = tmp_path / "scans" / "first strip.tif"
    moved.parent.mkdir()
    (tmp_path / "strip.tif").rename(moved)
    window.bench.open_test(window.bench.loaded.test.id)
    page.scan = None
    window.updates.flush()
    page.show_state(window.station()._scene)
    page.again.click()
    qtbot.waitUntil(lambda: page.scan is not None, timeout=20_000)
    assert window.bench.notebook.all(Attachment)[0].path == str(moved)
    moved.write_bytes(b"another picture")
    page.again.click()
    assert "not the picture that was read" in refusal_of(window)


def test_opening_can_be_stopped_and_raw_files_are_read(qtbot, scan, tmp_path):
    window, page, write = scan
    true = write()
    page.open(tmp_path / "strip.tif")
    assert page.stop.isVisibleTo(page)
    page.stop.click()
    assert not window.jobs.busy("scan")
    assert page.choose.isVisibleTo(page)
    grey = strip_picture(true, WEDGE).repeat(2, 0).repeat(2, 1)
    tags = [
        (33421, "H", 2, (2, 2), True),
        (33422, "B", 4, bytes([0, 1, 1, 2]), True),
        (50706, "B", 4, bytes([1, 4, 0, 0]), True),
        (50708, "s", 0, "Stand-in", True),
        (50717, "I", 1, 65535, True),
        (50714, "H", 1, 0, True),
        (50778, "H", 1, 21, True),
        (50721, "2i", 9, (1, 1, 0, 1, 0, 1, 0, 1, 1, 1, 0, 1, 0, 1, 0, 1, 1, 1), True),
        (50728, "2I", 3, (1, 1, 1, 1, 1, 1), True),
    ]
    tifffile.imwrite(tmp_path / "strip.dng", grey, photometric=32803, extratags=tags)
    opened(qtbot, window, page, tmp_path / "strip.dng")
    read = np.array([page.scan.value_of(i).density for i in range(len(true))])
    assert np.max(np.abs(read - true)) < 0.02
    (tmp_path / "broken.raw").write_bytes(b"II*\x00" + bytes(400))
    opened(qtbot, window, page, tmp_path / "broken.raw")
    assert "broken.raw: no picture" in refusal_of(window)


def test_a_page_for_a_wedge_of_ones_own_is_written(scan):
    window, page, _ = scan
    page.known.page.click()
    pages, said = pdf_words(window.bench.notebook.path.parent / "a wedge of your own.pdf")
    assert pages == 1
    for words in ("blank", "step 11", "Have each step measured", "at Read, Scan"):
        assert words in said


def test_a_strip_of_paper_is_scanned_into_its_curve(qtbot, open_window, tmp_path):
    window = open_window(tmp_path / "winter.vadrin")
    book = window.bench.notebook
    test = developed_test(
        book,
        "Slip Bromide",
        kind="paper",
        index=6.0,
        first_stop=-4.0,
        last_stop=4.0,
        step=0.5,
        metered_seconds=8.0,
        blanks=0,
    )
    window.bench.open_test(test.id)
    window.bench.go("read")
    settle(qtbot, window)
    seconds = np.array([f.frame.seconds for _, f in window.bench.loaded.frames()])
    paper = Paper(1.0, mid=np.log10(8.0))
    window.station().setFocus()
    QTest.keyClick(window.station(), Qt.Key.Key_S, Qt.KeyboardModifier.AltModifier)
    window.updates.flush()
    page = window.station().scan
    assert "face down by reflection" in words_of(page)
    wedge = np.round(np.arange(0.05, 2.3, 0.15), 2)
    type_into(page.known.wedge, " ".join(f"{step:.2f}" for step in wedge))
    picture = scanned_paper(
        Scanner(dust=0.003),
        paper.density(np.log10(seconds)),
        0.06,
        np.random.default_rng(6),
        80,
        wedge,
    )
    tifffile.imwrite(tmp_path / "paper.tif", picture)
    opened(qtbot, window, page, tmp_path / "paper.tif")
    assert refusal_of(window) == ""
    page.take.click()
    settle(qtbot, window)
    scale = own_answer(window.bench.state).figures["exposure_scale"]
    assert scale.low <= 1.0 <= scale.high
    assert scale.value == pytest.approx(1.0, rel=0.05)
    assert f"R {100 * scale.value:.0f}" in words_of(window)


def test_a_sharpened_scan_is_suspected_aloud(scan):
    _, page, write = scan
    write(sharpened=0.3)
    assert "Edges look sharpened" in words_of(page)
    write()
    assert "sharpened" not in page._doubts.text()


def test_the_grain_of_a_fine_scan_is_seen_in_the_pictures_and_only_there(qtbot, scan):
    window, page, write = scan
    scene = scene_named("shed")
    card = scene.things == scene.names.index("grey card")

    def tone(name, resolution):
        """Mean and scatter of the grey card on the film, and what is said of grain."""
        write(name=name, resolution=resolution, noise=0.03)
        page.take.click()
        settle(qtbot, window)
        state = window.bench.state
        exposed = Exposed(100.0, None, strip=state.loaded.strips[0].strip.label)
        made = seen(state, exposed, Looking(negative=True), PaperUsed(typical_paper(), ""))
        return made.levels[card].mean(), made.levels[card].std(), grain_words(state)

    even, coarse, words = tone("coarse.tif", None)
    assert words == "No grain is shown: none was measured."
    window.bench.undo()
    window.updates.flush()
    mean, fine, words = tone("fine.tif", (1250, 1250))
    assert words.startswith("Grain as scanned, RMS ")
    assert fine > coarse + 0.1
    assert abs(mean - even) < 2

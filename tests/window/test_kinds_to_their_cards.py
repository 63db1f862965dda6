"""Every kind of test from its question to its card, through the real window by keyboard."""

import json
import re
import shutil
from dataclasses import replace

import numpy as np
import pytest
from PIL import Image, ImageDraw
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QAbstractButton, QApplication

from oracles.film_shapes import SHAPES
from tests.core.test_printing import Paper
from tests.window.film_tester import FilmTester
from tests.window.pages import CTRL, DOWN, ENTER, SHIFT, SPACE, TAB, UP, pdf_words, words_of
from vadrin.app.display.marks import marked_ei
from vadrin.app.display.spoken_frame import spoken_frame as spoken
from vadrin.app.shelf.shelf_index import shelf_lines
from vadrin.core.exposure.reciprocity import Reciprocity, corrected_time, effective_time
from vadrin.core.frames import FrameRole
from vadrin.notebook.records import Finding, Stock
from vadrin.ui.light_table.strip_table import strip_words
from vadrin.ui.plots.film_rows import FilmRows

PLAIN = SHAPES["plain"]
ALT = Qt.KeyboardModifier.AltModifier
SHADOW_POINT = PLAIN.x_m(8.0)
TRUE_EI = 8.125 / 16 / 10**SHADOW_POINT
STOP = 0.30103


def negative(tester, minutes=8.0, moved=0.0):
    return lambda _s, f: PLAIN.density(
        None if tester.at(f) is None else tester.at(f) + moved, minutes
    )


def holds(figure, true):
    return figure["low"] <= true <= figure["high"]


def test_speed_by_a_series_of_three_exposures_an_ei(tester):
    tester.plan("speed", EIs_of_the_series="50 100 200 400 800")
    assert len([f for _, f in tester.loaded.frames() if f.frame.role == FrameRole.BRACKET]) == 15
    assert {f.frame.wanted_stops for _, f in tester.loaded.frames() if not f.frame.blank} == {
        0.0,
        3.0,
        -4.0,
    }
    tester.shoot_and_develop()
    tester.read(negative(tester))
    words, told, line = tester.decide_and_print()
    assert holds(told["strips"]["A"]["zone_ei"], TRUE_EI)
    assert line.index in words
    tester.press(Qt.Key.Key_7, CTRL)
    tester.settle()
    (film,) = tester.window.station().findChildren(FilmRows)
    assert [r.name for r in film.rows] == ["as metered", "three stops over", "four stops under"]
    assert [c.words for c in film.rows[0].cells] == [f"EI {n}" for n in (50, 100, 200, 400, 800)]


def test_push_by_a_row_of_film_each(tester):
    tester.plan("push", index="32", development_time_in_minutes="6")
    tester.shoot_and_develop()
    tester.read(lambda s, f: PLAIN.density(tester.at(f), s.minutes))
    words, told, _ = tester.decide_and_print()
    assert "push 1" in words
    assert holds(
        told["finding"]["zone_ei"],
        8.125 / 16 / 10 ** PLAIN.x_m(told["finding"]["time_min"]["value"]),
    )


def test_a_mixed_roll_by_densities_and_by_verdicts(tester):
    tester.plan("mixed roll")
    tester.shoot_and_develop()
    soft = replace(PLAIN, contrast=PLAIN.contrast * 0.75)
    tester.read(lambda s, f: (soft if s.strip.label == "A" else PLAIN).density(tester.at(f), 8.0))
    good = {50.0, 100.0, 200.0}
    tester.judge(lambda _s, f: "U" if f.frame.exposure_index in good else "N")
    words, figures, says = tester.own_answer()
    assert "EI 50 to 200" in words
    assert holds(figures["B_highest_ei"], 2 * TRUE_EI)
    assert says.startswith("EI ")


def test_old_film_is_rescued(tester):
    tester.plan("rescue", index="400", least_exposure_in_stops="-2")
    tester.shoot_and_develop()
    tester.read(
        lambda s, f: None if f.frame.role == FrameRole.FOGGED else negative(tester, 8.0, -0.6)(s, f)
    )
    words, figures, says = tester.own_answer()
    assert holds(figures["ei"], TRUE_EI / 10**0.6)
    assert says in words


def test_a_comparison_names_what_differs(tester):
    tester.plan("compare", what_is_compared="stocks", what_is_set_beside_the_reference="Brannock 9")
    tester.shoot_and_develop()
    tester.read(lambda s, f: negative(tester, 8.0, 1.2 * STOP if s.strip.position else 0.0)(s, f))
    tester.press(Qt.Key.Key_P, ALT)
    tester.press(Qt.Key.Key_5, times=6)
    tester.press(Qt.Key.Key_7, CTRL)
    tester.settle()
    assert "Judge sharpness blind" in words_of(tester.window)
    words, figures, _ = tester.own_answer()
    assert holds(figures["B_speed_stops"], 1.2)
    assert figures["B_grain"] == 2.0
    assert "Brannock 9, grain more than the reference" in re.sub(r"\s+", " ", words)
    assert "B_sharpness" not in figures
    assert "Brannock 9" in words
    tester.to("what the card is of")
    tester.write("Brannock")
    tester.to("file to save the card to")
    tester.press(Qt.Key.Key_A, CTRL)
    tester.write(str(tester.folder / "its own.pdf"))
    _, its_own = pdf_words(tester.folder / "its own.pdf")
    assert "Brannock 9 decided" in its_own
    assert f"EI {marked_ei(figures['B_ei']['value'])}" in its_own
    assert "by the strip beside Kelda Pan 200" in its_own


def test_films_are_compared_with_a_light_box_alone(tester):
    tester.plan("compare", what_is_compared="stocks", what_is_set_beside_the_reference="Brannock 9")
    tester.shoot_and_develop()
    reference, other = tester.loaded.strips
    assert strip_words(other, (reference, other)).startswith("Brannock 9")
    tester.press(Qt.Key.Key_4, CTRL)
    tester.press(Qt.Key.Key_B, ALT)
    page, fog = tester.window.station().light_box, PLAIN.density(None, 8.0)
    for strip, moved in zip(tester.loaded.strips, (0.0, 1.2 * STOP), strict=True):
        tester.press(UP, times=len(tester.loaded.frames()))
        tester.press(DOWN, times=len(tester.loaded.strips[0].frames) * strip.strip.position)
        while (frame := page._question.frame) is not None:
            dense = negative(tester, 8.0, moved)(strip, frame) - fog
            tester.press(Qt.Key.Key_Y if dense > 0.05 else Qt.Key.Key_N)
    words, figures, says = tester.own_answer()
    assert holds(figures["B_speed_stops"], 1.2)
    assert "stop" in says
    assert "by one eye on the light box" in " ".join(words.split())
    assert "by a wedge where there is no instrument" in " ".join(words.split())
    tester.press(Qt.Key.Key_4, CTRL)
    offered = [b.text() for b in tester.window.findChildren(QAbstractButton) if b.isVisible()]
    assert "Verdicts and faults" in offered
    assert "Patches" not in offered
    tester.press(Qt.Key.Key_D, ALT)
    tester.read(lambda s, f: None if s.strip.position else negative(tester, 8.0)(s, f))
    tester.press(Qt.Key.Key_7, CTRL)
    tester.settle()
    shown = words_of(tester.window)
    assert f"{says.split()[0]} stop by eye" in shown
    assert re.search(r"EI \d+ by eye", shown)
    assert "Brannock 9 by eye beside Kelda Pan 200" in shown


def test_two_developers_in_pairs_with_stain(tester):
    tester.plan(
        "two developers",
        what_is_set_beside_the_reference="Tidewrack 1+100",
        order_of_the_exposures="one strip after the other",
    )
    tester.shoot_and_develop()
    tester.rng = np.random.default_rng(12)
    seen = negative(tester)
    thin = negative(tester, 8.0, 0.5 * STOP)

    def visual(strip, frame):
        return seen(strip, frame) if strip.strip.label == "A" else thin(strip, frame)

    def printing(strip, frame):
        dense = visual(strip, frame)
        return dense if strip.strip.label == "A" else dense + 0.04 + 0.22 * (dense - 0.2)

    tester.read(visual)
    tester.read(printing, "blue")
    words, figures, says = tester.own_answer()
    assert holds(figures["B_stain_at_1"], 0.22)
    assert abs(figures["A_stain_at_1"]["value"]) < 0.02
    assert holds(figures["B_seen_ei"], TRUE_EI * 2**0.5)
    assert figures["B_printing_gradient"]["value"] == pytest.approx(
        1.22 * figures["B_seen_gradient"]["value"], rel=0.04
    )
    assert "contrast ×" in says
    assert "Paper sees the stain of Tidewrack 1+100" in " ".join(words.split())


def test_cine_film_is_rated_light_by_light(tester):
    tester.plan("cine", index="100")
    assert [s.strip.note for s in tester.loaded.strips] == ["sun", "open shade"] * 2
    tester.shoot_and_develop()
    good = {"sun": {-1.0, 0.0, 1.0}, "open shade": {0.0, 1.0, 2.0}}

    def verdict(strip, frame):
        if frame.frame.blank or not frame.readable:
            return ""
        long = strip.minutes > 7 and frame.frame.stops == -1.0
        return "U" if frame.frame.stops in good[strip.strip.note] and not long else "N"

    tester.judge(verdict)
    words, figures, says = tester.own_answer()
    assert holds(figures["sun_ei"], 100.0)
    assert holds(figures["open_shade_ei"], 50.0)
    assert says == "EI 100 in sun and EI 50 in open shade"
    assert "1 stop apart" in " ".join(words.split())


def test_long_exposures_are_written_into_the_stock(tester):
    law = Reciprocity(factor=0.15, exponent=1.4)
    tester.plan("reciprocity")

    def density(_strip, frame):
        x, held = tester.at(frame), frame.frame.seconds
        if x is not None and held is not None and held > 0.5:
            stops = frame.frame.stops or 0.0
            x += np.log10(effective_time(law, held) / (held / 2.0**stops)) - STOP * stops
        return PLAIN.density(x, 8.0)

    tester.shoot_and_develop()
    tester.read(density)
    tester.press(Qt.Key.Key_7, CTRL)
    tester.settle()
    tester.to("Save correction with this film")
    tester.press(SPACE)
    (stock,) = [s for s in tester.bench.notebook.all(Stock) if s.name.startswith("Kelda")]
    assert stock.reciprocity
    _, figures, _ = tester.own_answer()
    assert holds(figures["corrected_8s"], corrected_time(law, 8))


def test_colours_are_told_layer_by_layer(tester):
    tester.plan(
        "colour",
        film="Gannet Colour 200",
        index="32",
        least_exposure_in_stops="-3",
        most_exposure_in_stops="4",
    )
    tester.shoot_and_develop()
    base = {"red": 0.2, "green": 0.5, "blue": 0.8}

    def layers(strip, frame):
        net = PLAIN.density(tester.at(frame), 8.0) - PLAIN.density(None, 8.0)
        push = strip.strip.push or 0.0
        return [
            fog + net * (1.0 + (0.12 * push if channel == "blue" else 0.0))
            for channel, fog in base.items()
        ]

    tester.read(layers)
    tester.press(Qt.Key.Key_C, ALT)
    for label, line in (
        ("A", "red 52 60 40"),
        ("A", "pale 50 2.5 0"),
        ("B", "red 52 66 24"),
        ("B", "pale 73 25 -18"),
        ("C", "red looks orange"),
    ):
        while tester.bench.selected()[0].strip.label != label:
            way = UP if tester.bench.selected()[0].strip.label > label else DOWN
            tester.press(way)
        tester.to("a patch of this strip")
        tester.write(line)
    words, figures, says = tester.own_answer()
    # A pair of the data that CIEDE2000 was published with.
    assert figures["B_pale_delta_e00"] == pytest.approx(27.1492, abs=1e-4)
    assert figures["B_red_hue_turned"] == pytest.approx(-13.7, abs=0.1)
    assert "drifts most" in " ".join(words.split())
    assert figures["A_blue_base"]["value"] == pytest.approx(0.8, abs=0.02)
    assert says == "Crossover at push 1", words
    assert "highlights shift towards blue" in " ".join(words.split())


def test_a_positive_is_found_cell_by_cell(tester):
    baths = "first developer, bleach 5:00, clear 1:30, second developer 3:00, fix 4:00"
    tester.plan("reversal", film="Fathom Positive 6", index="6", steps_of_the_process=baths)
    tester.shoot_and_develop()
    middle = np.log10(8.125 / 6)

    def density(strip, frame):
        x = tester.at(frame)
        return 2.1 if x is None else 0.14 + 1.95 / (1 + np.exp(4 * (x - middle)))

    tester.read(density)
    best = {(1, 0.0)}
    tester.judge(
        lambda s, f: (
            "" if f.frame.blank else "U" if (s.strip.position, f.frame.stops) in best else "S"
        )
    )
    words, _, says = tester.own_answer()
    assert says in words
    assert baths in " ".join(words.split()), "somebody else goes through every bath"
    (strip, *_), frame = tester.loaded.strips, tester.loaded.strips[0].frames[2]
    assert spoken(strip, frame).startswith("strip A, second exposure −1 stop, frame 3")
    assert strip_words(strip, tester.loaded.strips) == "second exposure −1 stop"


def test_paper_is_read_into_its_range(tester):
    tester.plan(
        "paper",
        film="Slip Bromide",
        index="6",
        least_exposure_in_stops="-5",
        most_exposure_in_stops="5",
        step_of_the_bracket="half stops",
    )
    tester.press(Qt.Key.Key_2, CTRL)
    tester.press(SPACE, times=len(tester.loaded.frames()))
    paper = Paper(1.0)
    tester.read(lambda _s, f: float(paper.density(np.log10(f.frame.seconds / 8.0))))
    _, figures, says = tester.own_answer()
    assert holds(figures["iso_range"], 100.0)
    assert says.startswith("R ")


def test_a_roll_at_another_setting_is_told_its_push(qtbot, open_window, demo_path, tmp_path):
    window = open_window(shutil.copy(demo_path, tmp_path / "demo.vadrin"))
    tester = FilmTester(qtbot, window, tmp_path)
    found = next(f for f in reversed(window.bench.notebook.all(Finding)) if f.time_min > 0)
    report = json.loads(found.report)
    test = next(x for x in shelf_lines(window.bench.notebook) if x.test_id == found.test_id)
    film, (developer, _, dilution) = test.stock, test.process.removeprefix("in ").rpartition(" ")
    pushed = next(p for p in report["push"] if p["stops"] == 1)
    tester.press(Qt.Key.Key_N, CTRL)
    qtbot.keyClicks(QApplication.focusWidget(), "wrong setting")
    tester.press(ENTER)
    for typed in (film, "", developer, dilution):
        tester.write(typed, TAB)
    tester.write(f"{found.exposure_index * 2:.0f}")
    tester.settle()
    assert {f.frame.role for _, f in tester.loaded.frames()} == {FrameRole.PICTURE}
    words, figures, says = tester.own_answer()
    assert says.startswith("Develop ")
    assert "Push 1 stop" in words
    rule = tester.loaded.beside.rule.value
    assert figures["time_min"]["value"] == pytest.approx(pushed[rule]["time_min"]["value"])
    assert figures["shadow_lost"]["value"] == pytest.approx(
        pushed[rule]["shadow_loss_stops"]["value"]
    )
    assert "a fixed share a stop" in words


def test_a_clip_says_go_or_another_time(tester):
    tester.plan("clip")
    tester.shoot_and_develop()
    dense = {"A": 2.2, "B": 1.95}
    tester.read(lambda s, f: 0.24 if f.frame.blank else dense[s.strip.label])
    words, figures, says = tester.own_answer()
    assert says == "Develop longer"
    assert figures["low"] <= figures["factor"] <= figures["high"]
    assert figures["factor"] > 1.1
    assert "instead of 8:00" in " ".join(words.split())


def test_process_control_says_which_run_left_its_place(tester):
    tester.plan("process control")
    tester.shoot_and_develop()
    warm = replace(PLAIN, contrast=PLAIN.contrast * 1.15)
    last = len(tester.loaded.strips) - 1
    tester.read(
        lambda s, f: (warm if s.strip.position == last else PLAIN).density(tester.at(f), 8.0),
        noise=0.002,
    )
    words, figures, says = tester.own_answer()
    assert says == "Outside limits"
    assert figures["contrast step off"] > 0.05
    assert "too warm" in " ".join(words.split())


def drawn_sheet(path, log_h, density, seed=1):
    """A picture of a printed curve: axes at −3 and 1, 0 and 3; a grid, a curve, specks."""
    picture = Image.new("RGB", (700, 500), "white")
    pen = ImageDraw.Draw(picture)
    across = 100 + (np.asarray(log_h) + 3) / 4 * 500
    down = 450 - np.asarray(density) / 3 * 400
    for n in range(5):
        pen.line([(100 + 125 * n, 50), (100 + 125 * n, 450)], fill=(190, 190, 190))
        pen.line([(100, 50 + 100 * n), (600, 50 + 100 * n)], fill=(190, 190, 190))
    pen.line([(100, 50), (100, 450), (600, 450)], fill="black", width=2)
    pen.line(list(zip(across, down, strict=True)), fill=(30, 70, 160), width=3)
    specks = np.random.default_rng(seed)
    for _ in range(60):
        pen.point((specks.integers(700), specks.integers(500)), fill="black")
    picture.save(path)


def test_a_makers_sheet_is_traced_and_stands_beside_ones_own_test(tester, qtbot):
    tester.plan(
        "data sheet",
        index="32",
        how_the_sheet_s_speed_was_found="by the standard",
        development_times_in_minutes="8",
    )
    tester.press(Qt.Key.Key_4, CTRL)
    tester.press(Qt.Key.Key_T, ALT)
    station = tester.window.station()
    log_h = np.linspace(-2.8, 0.4, 400)
    drawn_sheet(tester.folder / "sheet.png", log_h, [PLAIN.density(x, 8.0) for x in log_h])
    tester.to("Open the picture …")
    tester.press(SPACE)
    tester.choose_file(tester.folder / "sheet.png")
    qtbot.waitUntil(lambda: not tester.window.jobs.busy("sheet"), timeout=20_000)
    tester.press(Qt.Key.Key_F)
    assert "mark the axes first" in words_of(station)
    for across, down in ((100, 450), (600, 450), (100, 450), (100, 50)):
        now = station.trace.view.at
        for key, steps in ((Qt.Key.Key_Left, now[0] - across), (Qt.Key.Key_Up, now[1] - down)):
            back = {Qt.Key.Key_Left: Qt.Key.Key_Right, Qt.Key.Key_Up: Qt.Key.Key_Down}[key]
            tester.press(key if steps > 0 else back, SHIFT, times=round(abs(steps) / 10))
        tester.press(ENTER)
    assert "Point at the line" in words_of(station)
    middle = 450 - PLAIN.density(-1.0, 8.0) / 3 * 400
    tester.press(Qt.Key.Key_Right, SHIFT, times=25)
    tester.press(Qt.Key.Key_Down, SHIFT, times=round((middle - 50) // 10))
    tester.press(Qt.Key.Key_Down, times=round((middle - 50) % 10))
    tester.press(Qt.Key.Key_F)
    assert "24 points set" in words_of(station)
    tester.to("Use this line")
    tester.press(SPACE)
    tester.settle()
    points = [(f.frame.log_h, f.density) for _, f in tester.loaded.frames()]
    off = [d - PLAIN.density(x, 8.0) for x, d in points]
    assert np.sqrt(np.mean(np.square(off))) < 0.015
    words, figures, says = tester.own_answer()
    assert says == "EI 32 to begin with"
    assert figures["A_zone_ei"] == pytest.approx(TRUE_EI, rel=0.12)
    assert figures["A_gradient"] == pytest.approx(PLAIN.gradient(8.0), rel=0.03)
    assert "by the standard" in " ".join(words.split())
    assert "a starting point" in " ".join(words.split())
    tester.press(Qt.Key.Key_1, CTRL)
    tester.to("what the sheet's axis is")
    tester.write("relative")
    tester.press(Qt.Key.Key_7, CTRL)
    tester.settle()
    assert "relative: it gives no EI" in words_of(tester.window)


@pytest.mark.parametrize(
    ("kind", "why"),
    [
        ("two developers", "nothing was read yet"),
        ("cine", "no frame was judged"),
        ("wrong setting", "no finding with an EI and a time"),
        ("mixed roll", ""),
        ("rescue", ""),
        ("compare", "Nothing was read yet"),
        ("reciprocity", ""),
        ("colour", "No layer was read"),
        ("data sheet", "nothing of the sheet"),
        ("reversal", ""),
        ("paper", "no step of the paper was read"),
    ],
)
def test_a_kind_that_was_only_planned_says_what_is_missing_and_decides_nothing(tester, kind, why):
    tester.plan(kind)
    tester.press(Qt.Key.Key_7, CTRL)
    tester.settle()
    tester.press(Qt.Key.Key_D, CTRL)
    assert tester.bench.notebook.all(Finding) == []
    assert why.lower() in words_of(tester.window).lower()
    tester.press(Qt.Key.Key_8, CTRL)
    tester.settle()
    assert "No card yet" in words_of(tester.window)

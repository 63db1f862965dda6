"""Densities out of made-up scans: frames found, dust and skew and flare met, limits kept."""

import numpy as np
import pytest

from oracles.scanner import FAULTS, scanned
from tools import scanner_trial
from vadrin.app.scans.scan_frames import nudged
from vadrin.app.scans.scan_reading import open_scan
from vadrin.app.scans.step_wedge import StepWedge
from vadrin.core.scanning.calibration import calibrated, on_clear_base
from vadrin.core.scanning.film_bands import film_bands
from vadrin.core.scanning.frame_finding import find_frames
from vadrin.core.scanning.frame_values import frame_value, suspicions
from vadrin.core.scanning.sharpening import sharpened
from vadrin.core.simulation.film import densities, invent_film
from vadrin.core.simulation.scanner import FULL_SCALE, Scanner, lay_wedge, scanned_strip, seen

WEDGE = np.arange(0.05, 3.1, 0.15)


def scanned_paper(scanner, steps, white, rng, pitch=90, wedge=None):
    """A picture of a strip of paper by reflection: steps edge to edge, and white ends."""
    side, high = int(0.6 * pitch), int(1.1 * pitch)
    lead = int(rng.uniform(0.15, 0.5) * pitch)
    wide = 2 * (side + lead) + len(steps) * pitch
    below = int(1.2 * pitch) if wedge is not None else 0
    density = np.zeros((2 * side + high + below, wide))
    density[side : side + high, side : wide - side] = white
    for place, step in enumerate(steps):
        left = side + lead + place * pitch
        density[side : side + high, left : left + pitch] = step
    lay_wedge(density, wedge, side + high + int(0.5 * pitch), side, pitch)
    return seen(scanner, density, rng)


def film_of(seed, step=1.0):
    rng = np.random.default_rng(seed)
    stops = np.arange(-6, 5.1, step)
    x = np.concatenate([[np.nan] * 2, np.log10(8.125 / 125) + 0.30103 * stops])
    return densities(invent_film(rng), 9.0, x), rng


def test_a_scan_goes_no_deeper_than_its_veil_lets_it_see():
    wedge, deepest = np.arange(0.05, 3.6, 0.15), []
    for veil in (1e-6, 0.002, 0.02):
        made = calibrated(60000.0 * (10.0**-wedge + veil), wedge)
        # A third of what is scattered may lie elsewhere: beside little light that is much.
        assert veil / 3 * 10.0**made.highest / np.log(10) < 0.06
        deepest.append(made.highest)
    assert deepest == sorted(deepest, reverse=True)
    assert deepest[0] > 3.3, "a clean scan is told to its dense end"


def read_all(picture, boxes, count):
    """Every frame of a picture with a wedge under the strip: densities and the strip's place."""
    steps = np.array([np.median(picture[t + 6 : b - 6, a + 6 : c - 6]) for a, t, c, b in boxes])
    calibration = calibrated(steps, WEDGE)
    strip = picture[: boxes[0][1] - 20]
    place = find_frames(strip, count)
    made = []
    for frame in range(count):
        left, top, right, bottom = place.box(frame)
        made.append(frame_value(strip[top:bottom, left:right], calibration, FULL_SCALE))
    return made, place


@pytest.mark.parametrize("step", [0.5, 1.0])
def test_frames_are_found_and_read_in_any_scan(step):
    off, sure = [], 0
    for seed in range(6):
        true, rng = film_of(seed, step)
        scanner = Scanner(flare=rng.uniform(20, 120), dust=0.01, skew=rng.uniform(-0.02, 0.02))
        read, place = read_all(*scanned_strip(scanner, true, true[0], rng, 90, WEDGE), len(true))
        sure += place.sure
        off += [r.density - t for r, t in zip(read, true, strict=True) if r.density is not None]
    assert sure == 6
    assert np.sqrt(np.mean(np.square(off))) <= 0.015
    assert abs(np.mean(off)) <= 0.005


def test_dust_changes_nothing():
    true, _ = film_of(3)
    reads = []
    for dust in (0.0, 0.01):
        rng = np.random.default_rng(8)
        picture, boxes = scanned_strip(Scanner(dust=dust), true, true[0], rng, 90, WEDGE)
        reads.append([r.density for r in read_all(picture, boxes, len(true))[0]])
    assert np.max(np.abs(np.subtract(*reads))) < 0.004


def test_what_flare_hides_is_refused_and_not_guessed():
    true, rng = film_of(2)
    scanner = Scanner(white=8000.0, flare=40.0)
    picture, boxes = scanned_strip(scanner, true + 1.2, true[0] + 1.2, rng, 90, WEDGE)
    read, _ = read_all(picture, boxes, len(true))
    refused = [r for r, t in zip(read, true + 1.2, strict=True) if r.density is None]
    assert refused
    assert all("denser than this scan can read" in r.why for r in refused)
    told = [abs(r.density - t) for r, t in zip(read, true + 1.2, strict=True) if r.density]
    assert max(told) < 0.12


def test_a_strip_of_nothing_is_flagged_as_guessed():
    rng = np.random.default_rng(1)
    picture, _ = scanned_strip(Scanner(), np.full(12, 0.25), 0.25, rng, 90)
    assert not find_frames(picture, 12).sure


@pytest.mark.parametrize(
    ("picture", "why"),
    [
        (np.full((200, 900), 50_000.0), "no strip was found"),
        (np.full((8, 8), 1.0), "of some size"),
        (np.full((200, 900), np.nan), "of some size"),
    ],
)
def test_no_strip_is_said(picture, why):
    with pytest.raises(ValueError, match=why):
        find_frames(picture, 12)


def test_a_strip_and_its_wedge_are_told_apart_by_their_size():
    true, rng = film_of(5)
    picture, boxes = scanned_strip(Scanner(), true, true[0], rng, 90, WEDGE)
    bands = film_bands(picture, with_wedge=True)
    ((low, high),), wedge = bands.strips, bands.wedge
    assert low < 54 < 54 + 99 < high < wedge[0]
    assert wedge[0] == pytest.approx(boxes[0][1], abs=3)


def test_a_scratch_beside_a_strip_is_no_wedge():
    true, rng = film_of(5)
    picture, _ = scanned_strip(Scanner(), true, true[0], rng, 90)
    picture[-12:-9] = 0
    bands = film_bands(picture, with_wedge=True)
    assert (len(bands.strips), bands.wedge) == (1, None)


@pytest.mark.parametrize(
    ("values", "why"),
    [
        ([100, 200, 300, 400, 500], "do not darken"),
        ([60000, 30000, 20000], "at least four"),
        ([60000, 59999, 59998, 59997, 59996], "do not darken"),
        ([60000, 59400, 58800, 58200, 57600], "do not go with"),
    ],
)
def test_a_wedge_that_is_none_is_refused(values, why):
    with pytest.raises(ValueError, match=why):
        calibrated(np.array(values), np.linspace(0.05, 2.0, len(values)))


def test_clear_base_alone_is_relative_and_flagged():
    made = on_clear_base(40_000.0, FULL_SCALE)
    assert made.relative
    assert float(made.density(4_000.0)) == pytest.approx(1.0)
    with pytest.raises(ValueError, match="clipped"):
        on_clear_base(65_500.0, FULL_SCALE)


def test_levels_pulled_apart_are_suspected_and_even_patches_are_not():
    rng = np.random.default_rng(0)
    true, _ = film_of(1)
    plain, _ = scanned_strip(Scanner(), true, true[0], rng, 90, WEDGE)
    assert suspicions(plain, FULL_SCALE) == ()
    eight = (plain >> 8).astype(np.uint8)
    assert suspicions(eight, 255.0) == ()
    stretched = np.clip((eight.astype(float) - 20) * 1.4, 0, 255).round()
    assert "automatic levels" in suspicions(stretched, 255.0)[0]
    assert "automatic levels" in suspicions(eight.astype(float) * 257, FULL_SCALE)[0]


@pytest.mark.parametrize(("amount", "suspected"), [(0.0, False), (0.3, True), (0.5, True)])
def test_sharpening_is_suspected_by_what_it_puts_on_borders(amount, suspected):
    true, rng = film_of(4)
    picture, _ = scanned_strip(Scanner(sharpened=amount), true, true[0], rng, 90)
    place = find_frames(picture, len(true))
    across = []
    for frame in range(place.count):
        left, top, right, bottom = place.box(frame)
        middle, reach = (left + right) // 2, round(0.518 * place.pitch)
        across.append(np.median(picture[top:bottom, middle : middle + reach], axis=0))
    assert sharpened(across) is suspected
    assert not sharpened(across[:1]), "one border tells nothing"


@pytest.mark.parametrize("skew", [0.0, 0.012])
def test_the_steps_of_paper_are_found_without_gaps(skew):
    steps = 0.07 + 2.0 / (1 + np.exp(-1.1 * (np.arange(14) - 6.5)))
    for seed in range(4):
        rng = np.random.default_rng(seed)
        picture = scanned_paper(Scanner(skew=skew, dust=0.003), steps, 0.07, rng, 80)
        place = find_frames(picture, len(steps), gap=0.0)
        assert place.sure
        assert place.pitch == pytest.approx(80, rel=0.01)
        white = on_clear_base(float(np.percentile(picture, 90)), FULL_SCALE)
        boxes = [place.box(n) for n in range(len(steps))]
        read = [frame_value(picture[t:b, a:c], white, FULL_SCALE).density for a, t, c, b in boxes]
        told = [(r, s) for r, s in zip(read, steps, strict=True) if r is not None]
        assert len(told) >= 8
        assert np.max(np.abs(np.subtract(*np.array(told).T))) < 0.03


def test_no_picture_of_a_scanner_as_they_are_is_wrong_in_silence(tmp_path):
    """Each fault once, everything else at random strength, as the oracle makes them."""
    for number, fault in enumerate(FAULTS):
        picture = scanned(np.random.default_rng((11, number)), fault, tmp_path)
        what, words = scanner_trial.judged(picture)
        assert what != scanner_trial.WRONG, (fault, words)
        if fault not in scanner_trial.TO_BE_TOLD:
            assert what in (scanner_trial.RIGHT, scanner_trial.WARNED_RIGHT), (fault, what, words)


def test_frames_set_by_hand_are_read_though_they_were_taken_for_cut_off(tmp_path):
    picture = scanned(np.random.default_rng((11, 1)), "first cut", tmp_path)
    scan = open_scan(picture.path, picture.script, StepWedge(picture.typed))
    assert scan.values[0].why == "not whole in the picture"
    assert "the first frame is not whole in the picture" in scan.doubts
    by_hand = nudged(scan, along=0)
    assert "not whole" not in " ".join(by_hand.doubts)
    assert by_hand.values[0].why != "not whole in the picture"

"""A scene through a film of known truth and a paper: the picture says what the numbers say."""

import math

import numpy as np
import pytest
from scipy.optimize import brentq

from oracles.closed_form import STOP, ClosedForm
from oracles.dark_prints import BlackPaper
from vadrin.app.pictures.scenes import SCENE_NAMES, scene_named
from vadrin.core.curves.shape import net_density_at
from vadrin.core.pictures.developed_film import developed
from vadrin.core.pictures.film_grain import FilmGrain, grained
from vadrin.core.pictures.picture import (
    GROUNDS,
    Ground,
    PrintRule,
    looked_up,
    screen_levels,
    tones_of,
)
from vadrin.core.pictures.positive_film import PositiveFilm
from vadrin.core.pictures.printing_paper import measured_paper, typical_paper
from vadrin.core.pictures.scene import Spot, codes_of, light_at, log_h_of_codes, mean_light
from vadrin.core.printing.print_threshold import print_threshold
from vadrin.core.readings import Reading, StripReadings
from vadrin.core.results.analysis import analyse
from vadrin.core.results.analysis_result import Settings
from vadrin.formats.pictures.scene_file import read_scene, write_scene

TIMES = (4.0, 5.75, 8.0, 11.0, 15.5)
FILM = ClosedForm()
K = 8.125
LUMINANCES = 0.18 * 2.0 ** np.arange(-6.0, 5.5, 0.5)
"""A wedge of half stops about a grey card."""
PAPER = typical_paper()


@pytest.fixture(scope="module")
def answer():
    return analyse(FILM.strips(TIMES), Settings(pushes=(0.0, 1.0, 2.0)))


def through(answer, index, minutes, flare=0.0, rule=PrintRule.CLEAR_BLACK):
    """The tones of every code for a meter on the grey card."""
    log_h = log_h_of_codes(index, K, 0.18, flare, 0.09)
    return tones_of(developed(answer, minutes), log_h, PAPER, rule, math.log10(K / index))


@pytest.mark.parametrize("minutes", [4.0, 8.0, 9.6, 15.5])
@pytest.mark.parametrize("index", [25.0, 100.0, 400.0])
def test_a_wedge_lies_on_the_negative_as_the_curve_has_it(answer, index, minutes):
    tones = through(answer, index, minutes)
    codes = codes_of(LUMINANCES)
    shown = looked_up(tones.density, codes)
    x = math.log10(K / index) + np.log10(LUMINANCES / 0.18)
    read = developed(answer, minutes).read_at(x)
    assert read.sum() > 8
    strips = [s for s in answer.strips if s.restated_min == minutes]
    for strip in strips:
        curve = net_density_at(strip.curve, x)
        assert shown[read] == pytest.approx(curve[read], abs=0.005)
    truth = np.array([FILM.net(at, minutes) for at in x])
    assert shown[read] == pytest.approx(truth[read], abs=0.02)


def test_the_print_leaves_black_as_far_up_as_the_table_says_shadow_is_lost(answer):
    def first_grey(push):
        row = push.hold_highlight
        tones = through(answer, push.exposure_index.value, row.time_min.value)
        printed = np.flatnonzero(tones.ground != GROUNDS.index(Ground.BLACK))
        return math.log2(0.18) - math.log2(_luminance(printed[0]))

    normal, *pushes = answer.push
    for push in pushes:
        moved = first_grey(normal) - first_grey(push)
        lost = push.hold_highlight.shadow_loss_stops.value
        assert moved == pytest.approx(lost, abs=0.1), push.stops


def _luminance(code):
    return 2.0 ** (code / 128 - 18)


def test_the_ei_at_which_zone_one_has_a_tenth_of_density_is_the_finding(answer):
    minutes = answer.finding.time_min.value
    zone_one = codes_of(np.array([0.18 / 16]))

    def density(index):
        return float(looked_up(through(answer, index, minutes).density, zone_one)[0])

    low, high = 5.0, 2000.0
    for _ in range(40):
        middle = math.sqrt(low * high)
        low, high = (middle, high) if density(middle) > 0.10 else (low, middle)
    found = answer.finding.zone_ei
    assert found.low <= low <= found.high
    assert low == pytest.approx(FILM.zone_ei(minutes), rel=0.02)


def test_both_print_rules_keep_what_they_are_named_for(answer):
    grey, clear = codes_of(np.array([0.18])), codes_of(np.array([1e-5]))
    held = through(answer, 200.0, 8.0, rule=PrintRule.MID_TONE_HELD)
    assert looked_up(held.reflection, grey)[0] == pytest.approx(-math.log10(0.18), abs=0.01)
    black = through(answer, 200.0, 8.0)
    assert looked_up(black.reflection, clear)[0] == pytest.approx(PAPER.black - 0.04, abs=0.005)
    assert black.over_black == 0.0
    threshold, _ = print_threshold(None)
    just = np.interp(threshold, black.density, np.arange(len(black.density)))
    where = black.ground[int(just) + 25], black.ground[int(just) - 25]
    assert where == (GROUNDS.index(Ground.SEEN), GROUNDS.index(Ground.BLACK))


def test_flare_lifts_the_shadows_by_its_share_of_the_mean(answer):
    deep = codes_of(np.array([0.18 / 64]))
    plain, veiled = through(answer, 100.0, 8.0), through(answer, 100.0, 8.0, flare=0.02)
    lifted = looked_up(veiled.log_h, deep)[0] - looked_up(plain.log_h, deep)[0]
    assert lifted == pytest.approx(math.log10(1 + 0.02 * 0.09 / (0.18 / 64)), abs=1e-3)


def test_what_was_not_tested_or_read_is_no_picture(answer):
    assert developed(answer, 3.5) is None
    assert developed(answer, 18.0) is None
    tones = through(answer, 100.0, 8.0)
    beyond = tones.log_h > answer.strips[2].last
    assert set(tones.ground[beyond]) == {GROUNDS.index(Ground.UNREAD)}
    thin = tones.log_h < answer.strips[2].first
    assert GROUNDS.index(Ground.UNREAD) not in tones.ground[thin], "clear film is known"


def test_one_strip_alone_has_its_own_picture_and_no_other_time():
    one = analyse(FILM.strips((8.0,)), Settings())
    film = developed(one, 8.0)
    x = np.linspace(-2.0, 0.5, 20)
    assert film.net_density(x) == pytest.approx([FILM.net(at, 8.0) for at in x], abs=0.02)
    assert developed(one, 9.0) is None


def test_a_display_shines_as_the_density_does():
    levels = screen_levels(np.array([0.0, 0.3, 0.745, 2.0, 9.0]))
    linear = ((levels / 255 + 0.055) / 1.055) ** 2.4
    assert linear[:3] == pytest.approx([1.0, 10**-0.3, 0.18], abs=0.004)
    assert list(levels) == sorted(levels, reverse=True)


def test_a_scene_is_the_same_after_it_was_written(tmp_path):
    rng = np.random.default_rng(5)
    light = np.exp(rng.normal(-2, 2, (6, 8, 1))) * np.array([2.0, 1.0, 0.3])
    things = rng.integers(0, 2, (6, 8)).astype(np.uint8)
    write_scene(tmp_path, "cove", "a cove", light, things, ("sky", "card"), (Spot("card", "card"),))
    parts = [(tmp_path / f"cove{end}").read_bytes() for end in (".png", "-things.png", ".json")]
    scene = read_scene("cove", *parts)
    grey = light @ np.array([0.2126, 0.7152, 0.0722])
    stops = np.log2(_luminance(scene.luminance.astype(float)) / grey)
    assert np.abs(stops).max() <= 0.5 / 128 + 1e-9
    for layer in range(3):
        stops = np.log2(_luminance(scene.layers[layer].astype(float)) / light[..., layer])
        assert np.abs(stops).max() < 1 / 16
    assert np.array_equal(scene.things, things)
    met = light_at(scene, scene.spots[0])
    assert met == pytest.approx(grey[things == 1].mean(), rel=0.003)
    assert mean_light(scene.luminance) == pytest.approx(grey.mean(), rel=0.003)


@pytest.mark.parametrize(("name", "stops"), list(zip(SCENE_NAMES, (12.0, 6.0, 10.0), strict=True)))
def test_a_shipped_scene_has_the_range_and_the_things_it_is_named_for(name, stops):
    scene = scene_named(name)
    assert scene.luminance.shape[1] >= 1280
    low, high = np.percentile(scene.luminance, [0.1, 99.9]) / 128
    assert high - low >= stops
    for spot in scene.spots:
        if spot.thing:
            assert scene.of_thing(spot.thing).mean() > 5e-4, spot.name
    assert light_at(scene, scene.spots[0]) == pytest.approx(1.0, abs=0.02)
    steps = [np.median(scene.luminance[scene.of_thing(f"wedge {n}")]) for n in range(1, 12)]
    assert steps == sorted(steps, reverse=True)
    ratio = (steps[2] - steps[8]) / 128
    assert ratio == pytest.approx(math.log2(0.44 / 0.054), abs=0.8), "its light is nearly even"
    for thing in ("carved head", "white cloth", "black cloth", "hung rope", "fine line"):
        assert scene.of_thing(thing).any(), thing
    assert pytest.approx(0.30103, abs=1e-5) == STOP


@pytest.mark.parametrize("scale", [0.2, 0.5, 1.05, 1.9])
def test_every_grade_goes_from_grey_to_black_over_its_scale(scale):
    paper = typical_paper(scale)
    reach = paper.exposure_for(0.9 * paper.black) - paper.exposure_for(0.04)
    assert reach == pytest.approx(scale, abs=0.01)
    assert paper.print_density(np.array([0.0]))[0] == pytest.approx(paper.black - 0.04, abs=0.01)
    assert (np.diff(paper.density) > -1e-9).all()


def test_a_papers_own_curve_prints_as_it_was_read():
    paper = BlackPaper("gompertz", 0.9, 1.95)
    steps = np.linspace(-1.0, 2.2, 33)
    own = measured_paper(steps, paper.density(steps) - 0.06)
    black = brentq(lambda x: paper.density(x) - (1.95 - 0.04), 0, 4)
    away = np.linspace(-1.2, 0.4, 41)
    assert own.print_density(away) == pytest.approx(paper.density(black + away) - 0.06, abs=0.02)
    assert own.measured


def test_a_positive_is_seen_as_its_own_curve_has_it():
    x = np.arange(-2.5, 1.6, 0.15)

    def falling(at):
        return 0.1 + 2.0 / (1 + 10 ** (1.7 * at))

    rows = [*zip(x.tolist(), falling(x).tolist(), strict=True)]
    readings = tuple(Reading(str(i), *row) for i, row in enumerate(rows))
    (stages,) = analyse((StripReadings("A", 6.0, 20.0, readings),)).stages
    log_h = log_h_of_codes(6.0, K, 0.18, 0.0, 0.09)
    tones = PositiveFilm(stages).tones(log_h)
    codes = codes_of(LUMINANCES)
    at = math.log10(K / 6.0) + np.log10(LUMINANCES / 0.18)
    inside = (at > x[0]) & (at < x[-1])
    assert tones.reflection[codes][inside] == pytest.approx(
        falling(at)[inside] - falling(x[-1]), abs=0.03
    )
    shine = screen_levels(tones.reflection[codes])
    assert np.all(np.diff(shine.astype(int)) >= 0), "more light is lighter"


def test_an_even_tone_scatters_as_the_films_grain_does_through_a_point_of_the_picture(answer):
    """48 um see a granularity of 12; a point of 1,200 over 36 mm is a square of 30 um."""
    grain = FilmGrain(np.array([0.3, 1.0]), np.array([8.0, 12.0]))
    tones = through(answer, 100.0, 8.0)
    code = int(np.argmin(np.abs(tones.density - 1.0)))
    even = np.full((800, 1200), code, dtype=np.uint16)

    def levels(density):
        return np.clip(np.rint(500 * (density - 0.75)), 0, 255).astype(np.uint8)

    seen = grained(even, tones.density, grain, levels) / 500 + 0.75
    expected = 0.012 * math.sqrt(math.pi * 24.0**2 / 30.0**2)
    assert seen.mean() == pytest.approx(tones.density[code], abs=0.003)
    assert seen.std() == pytest.approx(expected, rel=0.06)
    # Half as many points see four times the area.
    halved = grained(even[::2, ::2], tones.density, grain, levels) / 500
    assert halved.std() == pytest.approx(expected / 2, rel=0.1)
    # What is thinner than anything that was scanned is as its thinnest.
    assert grain.deviation(np.array([0.0]), 48.0) == pytest.approx(0.008 * math.sqrt(math.pi / 4))

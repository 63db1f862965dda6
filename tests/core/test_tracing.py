"""Curves off a picture: axes that lie askew, lines followed through what crosses them."""

import numpy as np
import pytest
from PIL import Image, ImageDraw

from vadrin.core.tracing.line_following import follow_line, thinned
from vadrin.core.tracing.picture_axes import AxisMark, PictureAxes

WHITE, GREY, BLUE, RED = (255, 255, 255), (185, 185, 185), (30, 70, 160), (200, 40, 40)


def marks(turned=0.0, exposures=(-3.0, 1.0), densities=(0.0, 3.0)):
    """Axes in a picture turned by some degrees about its corner."""
    turn = np.radians(turned)

    def at(across, down, value):
        x = across * np.cos(turn) - down * np.sin(turn)
        return AxisMark(x, across * np.sin(turn) + down * np.cos(turn), value)

    return PictureAxes(
        (at(100, 450, exposures[0]), at(600, 450, exposures[1])),
        (at(100, 450, densities[0]), at(100, 50, densities[1])),
    )


@pytest.mark.parametrize("turned", [0.0, 2.0, -7.5, 90.0])
def test_values_come_back_however_the_picture_lies(turned):
    axes, turn = marks(turned), np.radians(turned)
    rng = np.random.default_rng(3)
    exposure, density = rng.uniform(-3, 1, 40), rng.uniform(0, 3, 40)
    across, down = 100 + (exposure + 3) * 125, 450 - density * 400 / 3
    places = np.column_stack(
        [across * np.cos(turn) - down * np.sin(turn), across * np.sin(turn) + down * np.cos(turn)]
    )
    assert axes.values(places) == pytest.approx(np.column_stack([exposure, density]), abs=1e-9)


def test_marks_may_stand_anywhere_on_their_axis():
    axes = PictureAxes(
        (AxisMark(225, 450, -2.0), AxisMark(475, 450, 0.0)),
        (AxisMark(100, 316.667, 1.0), AxisMark(100, 183.333, 2.0)),
    )
    assert axes.values(np.array([[100.0, 450.0], [600.0, 50.0]])) == pytest.approx(
        np.array([[-3.0, 0.0], [1.0, 3.0]]), abs=1e-4
    )


@pytest.mark.parametrize(
    ("exposure", "density", "why"),
    [
        (((100, 450, 1.0), (600, 450, 1.0)), ((100, 450, 0), (100, 50, 3)), "different values"),
        (((100, 450, -3), (104, 451, 1)), ((100, 450, 0), (100, 50, 3)), "lie on each other"),
        (((100, 450, -3), (600, 450, 1)), ((100, 400, 0), (600, 410, 3)), "run the same way"),
        (((100, 450, -3), (600, 450, 1)), ((100, 450, 2), (100, 50, 2)), "different values"),
    ],
)
def test_what_makes_no_axes_is_refused_in_words(exposure, density, why):
    with pytest.raises(ValueError, match=why):
        PictureAxes(*(tuple(AxisMark(*m) for m in axis) for axis in (exposure, density)))


def curve(across):
    return 430 - 380 / (1 + np.exp(-(across - 330) / 60.0))


def picture(line=BLUE, width=3, grid=True, others=(), gap=None):
    made = Image.new("RGB", (700, 500), WHITE)
    pen = ImageDraw.Draw(made)
    for n in range(8) if grid else ():
        pen.line([(40 + 85 * n, 20), (40 + 85 * n, 480)], fill=GREY)
        pen.line([(20, 40 + 55 * n), (680, 40 + 55 * n)], fill=GREY)
    across = np.linspace(60, 640, 600)
    for colour, points in others:
        pen.line(points, fill=colour, width=3)
    drawn = [(x, curve(x)) for x in across if gap is None or not gap[0] < x < gap[1]]
    pen.line([p for p in drawn if p[0] < (gap or (1e9,))[0]], fill=line, width=width)
    if gap is not None:
        pen.line([p for p in drawn if p[0] > gap[1]], fill=line, width=width)
    return np.asarray(made, dtype=np.float64)


@pytest.mark.parametrize(("line", "width"), [(BLUE, 3), (RED, 2), ((20, 20, 20), 4)])
def test_a_line_is_followed_both_ways_through_a_grid(line, width):
    found = follow_line(picture(line, width), 300, round(curve(300)))
    assert found[0, 0] < 70
    assert found[-1, 0] > 630
    assert np.max(np.abs(found[:, 1] - curve(found[:, 0]))) < 3.5
    assert np.all(np.diff(found[:, 0]) > 0)


def test_a_line_goes_on_behind_another_and_over_a_gap():
    crossing = [(RED, [(60, 60), (640, 440)])]
    found = follow_line(picture(others=crossing, gap=(420, 428)), 200, round(curve(200)))
    assert found[-1, 0] > 630
    off = np.abs(found[:, 1] - curve(found[:, 0]))
    assert np.median(off) < 1.0
    assert np.max(off) < 5.0
    wide = follow_line(picture(gap=(400, 460)), 200, round(curve(200)))
    assert wide[-1, 0] < 405, "what is hidden that long is another line's business"


@pytest.mark.parametrize(
    ("across", "down", "why"),
    [(10, 10, "paper, not a line"), (900, 10, "not in the picture"), (-4, 0, "not in the picture")],
)
def test_pointing_beside_the_line_is_said(across, down, why):
    with pytest.raises(ValueError, match=why):
        follow_line(picture(grid=False), across, down)


def test_a_speck_is_no_line():
    plain = np.full((200, 300, 3), 255.0)
    plain[100, 150] = (10, 10, 10)
    with pytest.raises(ValueError, match="no line goes on"):
        follow_line(plain, 150, 100)


def test_points_are_thinned_evenly_and_few_stay_as_they_are():
    line = np.column_stack([np.arange(480.0), 0.5 * np.arange(480.0)])
    few = thinned(line, 24)
    assert len(few) == 24
    assert np.ptp(np.diff(few[1:-1, 0])) < 1e-9
    assert few[[0, -1]] == pytest.approx(line[[0, -1]]), "a line reaches as far as it did"
    assert few[:, 1] == pytest.approx(0.5 * few[:, 0])
    assert thinned(line[:10]) == pytest.approx(line[:10])

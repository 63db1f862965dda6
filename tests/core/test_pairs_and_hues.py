"""Twins of one exposure, stain against density, and colours as an eye names them."""

import numpy as np
import pytest

from vadrin.core.materials.hues import Lab, chroma_kept, hue_turned
from vadrin.core.results.paired_frames import paired_difference, stain_share


def test_the_range_of_pairs_holds_what_they_differ_by():
    held = 0
    for seed in range(200):
        rng = np.random.default_rng(seed)
        one = rng.uniform(0.2, 1.6, 9)
        other = one + 0.07 + 0.012 * rng.standard_normal(9)
        found = paired_difference(one, other)
        held += found.low <= 0.07 <= found.high
    assert 180 <= held <= 198


def test_stain_is_told_from_a_veil_over_the_whole_film():
    held = 0
    for seed in range(200):
        rng = np.random.default_rng(seed)
        visual = np.linspace(0.2, 1.8, 12)
        printing = visual + 0.05 + 0.2 * visual
        read = [d + 0.006 * rng.standard_normal(12) for d in (visual, printing)]
        found = stain_share(*read)
        held += found.low <= 0.2 <= found.high
    assert 178 <= held <= 198
    veil = stain_share(visual, visual + 0.3)
    assert veil.value == pytest.approx(0.0, abs=1e-12), "general stain has no share in density"


@pytest.mark.parametrize(
    ("visual", "why"),
    [([0.2, 0.8], "four frames"), ([0.3, 0.32, 0.34, 0.36], "over 0.3 of density")],
)
def test_too_little_says_no_stain(visual, why):
    found = stain_share(np.array(visual), np.array(visual) + 0.1)
    assert found.value is None
    assert why in found.why
    assert "3 pairs" in paired_difference(np.array([0.3]), np.array([0.4])).why


@pytest.mark.parametrize(
    ("colour", "name"),
    [
        (Lab(52, 60, 40), "red"),
        (Lab(80, 5, 80), "yellow"),
        (Lab(45, -50, 30), "green"),
        (Lab(30, 10, -45), "blue"),
        (Lab(50, 3, -2), "grey"),
        (Lab(40, 60, -40), "purple"),
        (Lab(65, 40, 60), "orange"),
        (Lab(60, 55, 2), "pink-red"),
    ],
)
def test_hues_have_the_names_an_eye_gives_them(colour, name):
    assert colour.name == name


def test_hues_turn_the_short_way_round_and_greys_have_none():
    assert hue_turned(Lab(50, 40, -4), Lab(50, 40, 4)) == pytest.approx(11.4, abs=0.1)
    assert hue_turned(Lab(50, 40, 4), Lab(50, 40, -4)) == pytest.approx(-11.4, abs=0.1)
    assert hue_turned(Lab(50, -40, 1), Lab(50, -40, -1)) == pytest.approx(2.9, abs=0.1)
    assert hue_turned(Lab(50, 1, 1), Lab(50, 40, 4)) is None
    assert chroma_kept(Lab(50, 30, 40), Lab(50, 15, 20)) == pytest.approx(0.5)
    assert chroma_kept(Lab(50, 1, 0), Lab(50, 20, 0)) is None

"""Marks, stops and exposures."""

import math

import pytest

from vadrin.core.exposure.arithmetic import (
    bracket,
    exact_aperture,
    exact_ei,
    log_h_of_frame,
    marked_ei,
    stops_text,
)
from vadrin.core.exposure.shutter_dial import exact_shutter, shutter_name


def test_marks_stand_for_exact_values():
    assert exact_shutter(1 / 60) == 1 / 64
    assert exact_aperture(11) == pytest.approx(11.314, abs=0.001)
    assert exact_ei(125) == pytest.approx(100 * 2 ** (1 / 3))
    series = [80, 100, 125, 160, 200, 250, 320, 400, 500, 640, 800, 1000, 1250, 1600]
    assert [marked_ei(100 * 2 ** (k / 3)) for k in range(-1, 13)] == series


def test_a_metered_frame_gets_k_over_ei():
    assert 10 ** float(log_h_of_frame(100, 0)) == pytest.approx(0.08125)
    assert float(log_h_of_frame(100, -3)) == pytest.approx(math.log10(0.08125) - 3 * 0.30103)


def test_brackets_and_names():
    assert bracket(-1, 1, 0.5) == (-1, -0.5, 0, 0.5, 1)
    assert len(bracket(-6, 5, 1 / 3)) == 34
    assert [shutter_name(2.0**-n) for n in (0, 1, 4, 7, 10)] == [
        "1 s",
        "½ s",
        "1/15",
        "1/125",
        "1/1000",
    ]
    assert stops_text(-5 / 3, signed=True) == "−1⅔"
    assert stops_text(2.5, signed=True) == "+2½"
    assert stops_text(0.0) == "0"
    with pytest.raises(ValueError, match="positive"):
        marked_ei(0)

"""Colours measured as three kinds of colour vision see them, by a library of colour science."""

import itertools

import pytest
from coloraide import Color
from PyQt6.QtGui import QColor

from vadrin.ui.theme.look import LOOKS

VISIONS = (None, "protan", "deutan", "tritan")
JUST_SEEN, A_STEP = 2.3, 0.03


def seen(colour, vision):
    return colour.filter(vision) if vision else colour


@pytest.mark.parametrize("vision", VISIONS)
@pytest.mark.parametrize("count", [2, 3, 4, 6])
@pytest.mark.parametrize("look", LOOKS, ids=lambda look: look.name)
def test_strips_keep_their_order_in_lightness_for_every_eye(look, count, vision):
    lines = [Color(look.strip_colour(n, count).name()) for n in range(count)]
    lines = [seen(line, vision) for line in lines]
    light = [line.convert("oklab")["l"] for line in lines]
    assert all(a - b >= A_STEP for a, b in itertools.pairwise(light)), light
    apart = [a.delta_e(b, method="2000") for a, b in itertools.pairwise(lines)]
    assert min(apart) > JUST_SEEN, apart


@pytest.mark.parametrize("look", LOOKS, ids=lambda look: look.name)
def test_words_and_lines_stand_off_their_ground(look):
    grounds = [Color(g) for g in (look.desk, look.sheet, look.table)]
    words = {name: getattr(look, name) for name in ("ink", "soft", "here", "trouble", "done")}
    for name, colour in (words | {"grease": look.grease}).items():
        assert min(Color(colour).contrast(g) for g in grounds) >= 4.5, name
    assert Color(look.on_main).contrast(look.main) >= 4.5
    for line in (look.strip_colour(n, 6) for n in range(6)):
        label = look.legible(QColor(line))
        assert Color(label.name()).contrast(look.sheet) >= 4.5, line.name()
        # By the safelight a line may be dark: its label and its dashes tell it.
        assert look.red_only or Color(line.name()).contrast(look.sheet) >= 3.0, line.name()

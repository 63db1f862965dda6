"""Colours measured as three kinds of colour vision see them, by a library of colour science."""

import itertools

import pytest
from coloraide import Color
from PyQt6.QtCore import QEvent, Qt
from PyQt6.QtGui import QColor
from PyQt6.QtWidgets import QApplication

from vadrin.ui.theme import system_contrast
from vadrin.ui.theme.look import DAY, DIM, LOOKS, with_more_contrast

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


@pytest.mark.parametrize("look", [DAY, DIM], ids=lambda look: look.name)
def test_high_contrast_makes_words_and_lines_stronger(look):
    strong = with_more_contrast(look)
    words = {name: getattr(strong, name) for name in ("ink", "soft", "here", "trouble", "done")}
    for name, colour in words.items():
        assert Color(colour).contrast(strong.desk) >= 7.0, name
        assert Color(colour).contrast(strong.desk) >= Color(getattr(look, name)).contrast(look.desk)
    assert Color(strong.rule).contrast(strong.desk) >= 4.5
    assert Color(strong.on_main).contrast(strong.main) >= 7.0


def test_the_desktops_high_contrast_is_obeyed_in_every_look_and_left_again(demo, monkeypatch):
    class Hints:
        asked = Qt.ContrastPreference.HighContrast

        def contrastPreference(self):
            return self.asked

    hints = Hints()
    window = demo("Merrow Pan 125", "curves")
    monkeypatch.setattr(system_contrast, "_hints", lambda: hints)
    QApplication.sendEvent(window, QEvent(system_contrast.THEME_CHANGE))
    assert window.look == with_more_contrast(DAY)
    window.next_look()
    assert window.look == with_more_contrast(DIM), "going round goes on from it"
    hints.asked = Qt.ContrastPreference.NoPreference
    QApplication.sendEvent(window, QEvent(system_contrast.THEME_CHANGE))
    assert window.look == DIM

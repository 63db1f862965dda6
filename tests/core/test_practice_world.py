"""What acts do to a practice film, held against its own formula; nothing of the fit is asked."""

import re
from dataclasses import replace

import numpy as np
import pytest

from vadrin.core.simulation.practice_drawing import draw_world
from vadrin.core.simulation.practice_film import SHAPES, draw_film
from vadrin.core.simulation.practice_level import Level
from vadrin.core.simulation.practice_limits import ShotStrip, reach_of
from vadrin.core.simulation.practice_paper import PracticePaper
from vadrin.core.simulation.practice_reciprocity import PracticeReciprocity
from vadrin.core.simulation.practice_trap import WORDS_FOR, Trap, TrapKind
from vadrin.core.simulation.practice_world import PracticeWorld, TreatedStrip

STOP = 0.30103
X = np.append(np.nan, -1.8 + STOP * np.arange(9))


@pytest.fixture(scope="module")
def film():
    return draw_film(np.random.default_rng(4))


def by_hand(film, log_h, minutes, celsius=20.0):
    """Density from fog, net density and the factor of temperature, frame by frame."""
    worth = minutes * film.q10 ** ((celsius - 20.0) / 10.0)
    return np.array(
        [film.base_fog(worth) + (0.0 if np.isnan(x) else float(film.net(x, worth))) for x in log_h]
    )


def strips_of(film, *traps, times=(5.0, 7.0, 10.0)):
    made = PracticeWorld(film, traps).developed([TreatedStrip(X, t) for t in times])
    return [strip.densities for strip in made]


def test_a_film_that_nothing_happens_to_is_its_formula(film):
    for made, minutes in zip(strips_of(film), (5.0, 7.0, 10.0), strict=True):
        assert made == pytest.approx(by_hand(film, X, minutes), abs=1e-12)


def test_each_trap_does_what_it_says_to_its_strip_and_nothing_to_the_others(film):
    plain = [by_hand(film, X, t) for t in (5.0, 7.0, 10.0)]
    at = int(0.5 * 9) + 1
    drift = X + STOP * 0.3 * np.append(0.0, np.linspace(0.0, 1.0, 9))
    dark = X.copy()
    dark[at] = np.nan
    slipped = np.concatenate([X[:at], [np.nan], X[at:-1]])
    times = (5.0, 7.0, 10.0)
    expected = {
        Trap(TrapKind.BATH, 1, amount=1.2): {1: by_hand(film, X, 7.0, 21.2)},
        Trap(TrapKind.LATE, 1, amount=0.5): {1: by_hand(film, X, 7.5)},
        Trap(TrapKind.SHUTTER, 1): {1: by_hand(film, dark, 7.0)},
        Trap(TrapKind.LABELS, 1): {1: plain[2], 2: plain[1]},
        Trap(TrapKind.LIGHT, amount=0.3): {n: by_hand(film, drift, t) for n, t in enumerate(times)},
        Trap(TrapKind.METER, amount=-1 / 3): {
            n: by_hand(film, X - STOP / 3, t) for n, t in enumerate(times)
        },
        Trap(TrapKind.COUNTER, 1): {1: by_hand(film, slipped, 7.0)},
        Trap(TrapKind.BOTTLE, amount=0.1): {
            n: by_hand(film, X, t * 0.9**n) for n, t in enumerate(times)
        },
    }
    for trap, changed in expected.items():
        for n, made in enumerate(strips_of(film, trap)):
            assert made == pytest.approx(changed.get(n, plain[n]), abs=1e-9), trap.kind
    short = strips_of(film, Trap(TrapKind.SHORT, 1, amount=3.0))[1]
    assert np.isnan(short[-3:]).all()
    assert short[:-3] == pytest.approx(plain[1][:-3])


def test_light_that_comes_slowly_is_lost_and_another_developer_brings_out_another_film(film):
    loss, held = PracticeReciprocity(3.0, 0.3), np.array([np.nan, *np.geomspace(0.01, 200.0, 9)])
    other = draw_film(np.random.default_rng(5))
    world = PracticeWorld(film, other=other, reciprocity=loss)
    strips = [TreatedStrip(X, 7.0, seconds=held), TreatedStrip(X, 7.0, seconds=held, other=True)]
    short = X - 0.3 * np.log10(1.0 + np.nan_to_num(held) / 3.0)
    for made, mine in zip(world.developed(strips), (film, other), strict=True):
        assert made.densities == pytest.approx(by_hand(mine, short, 7.0), abs=1e-9)
    for metered in (1.0, 15.0, 240.0):
        needed = loss.needed(metered)
        assert needed * (1.0 + needed / 3.0) ** -0.3 == pytest.approx(metered)


def test_film_that_is_moved_less_comes_slower_and_more_moves_add_less_and_less(film):
    world = PracticeWorld(film, still=0.75)
    made = world.developed([TreatedStrip(X, 8.0, moved=share) for share in (0.0, 1 / 6, 1.0)])
    still, usual, always = (strip.minutes_at_20 for strip in made)
    assert still == pytest.approx(0.75 * 8.0)
    assert usual == pytest.approx(8.0)
    # What is spent gives way as exp(-moves): the whole gain of moving, beside that of a sixth.
    gain = (1 - np.exp(-1 / 0.15)) / (1 - np.exp(-1 / 0.9))
    assert always == pytest.approx(8.0 * (0.75 + 0.25 * gain))
    assert made[2].densities == pytest.approx(by_hand(film, X, always), abs=1e-9)


def test_a_film_whose_speed_gains_with_time_gains_and_one_whose_falls_falls():
    for shape, way in (("speed that gains with time", 1), ("speed that falls with time", -1)):
        for seed in range(3):
            made = draw_film(np.random.default_rng(seed), shape)
            starts = made.log_h_m(4.0), made.log_h_m(20.0)
            # Steeper film reaches 0.10 sooner: beside one of the same without any gain.
            plain = replace(made, speed_gain=0.0)
            moved = (starts[0] - starts[1]) - (plain.log_h_m(4.0) - plain.log_h_m(20.0))
            assert way * moved > 0.05


def test_every_shape_bends_the_curve_its_own_way(film):
    usual = replace(film, shape=SHAPES[0])
    lit, plain = X[1:], usual.net(X[1:], 9.0)
    bent = {
        "density that saturates": 2.0 * (1.0 - np.exp(-plain / 2.0)),
        "contrast that still rises": plain * (1.0 + 0.09 * plain),
        "a developer that exhausts itself": plain / (1.0 + 0.12 * plain),
    }
    for shape in SHAPES:
        made = replace(film, shape=shape).net(lit, 9.0)
        if shape in bent:
            assert made == pytest.approx(bent[shape]), shape
        assert (np.diff(made) >= 0).all(), shape
    for shape in (SHAPES[0], "fog that grows", "speed that gains with time"):
        assert replace(film, shape=shape).net(lit, 9.0) == pytest.approx(plain), shape


def test_what_goes_wrong_stays_what_a_darkroom_has_seen():
    told = {kind: [] for kind in TrapKind}
    for seed in range(120):
        for level in (Level.USUAL, Level.HARD, Level.ANY):
            for trap in draw_world(np.random.default_rng(seed), level).traps:
                told[trap.kind].append(abs(trap.amount))
    most = {"light": 0.35, "bath": 1.4, "late": 0.8, "misread": 0.4, "meter": 0.334, "bottle": 0.12}
    for name, high in most.items():
        amounts = told[TrapKind(name)]
        assert len(amounts) > 10
        assert 0.3 * high <= min(amounts)
        assert max(amounts) <= high


def test_nobody_is_credited_with_what_another_word_holds():
    said = {
        "the thermometer was off, the bath was colder": {TrapKind.BATH},
        "the light meter was off": {TrapKind.METER, TrapKind.LIGHT},
        "the developer was old": {TrapKind.BOTTLE},
        "the light moved over strip A": {TrapKind.LIGHT},
        "strip A was inverted too seldom": {TrapKind.AGITATION},
    }
    for words, kinds in said.items():
        assert {k for k in TrapKind if re.search(WORDS_FOR[k], words)} == kinds, words


def test_a_misreading_is_of_one_frame_of_one_strip(film):
    world = PracticeWorld(film, (Trap(TrapKind.MISREAD, 4, 0.5, 0.3),))
    off = {
        (place, frame): world.misread(place, 3, frame, 9)
        for place in range(3)
        for frame in range(9)
    }
    assert {key: value for key, value in off.items() if value} == {(1, 4): 0.3}


def test_what_nothing_could_contradict_does_not_happen_to_a_strip_alone(film):
    for kind in (TrapKind.BATH, TrapKind.LATE, TrapKind.LABELS, TrapKind.BOTTLE):
        (made,) = strips_of(film, Trap(kind, amount=1.0), times=(7.0,))
        assert made == pytest.approx(by_hand(film, X, 7.0))


def test_levels_go_from_nothing_to_much():
    counts = {
        level: [len(draw_world(np.random.default_rng(n), level).traps) for n in range(20)]
        for level in Level
    }
    assert set(counts[Level.PLAIN]) == set(counts[Level.FIRST]) == {0}
    assert set(counts[Level.USUAL]) == {2}
    assert set(counts[Level.HARD]) == {5, 6}
    assert len(set(counts[Level.ANY])) > 2


def test_paper_is_white_where_no_light_came_and_black_where_all_grains_were_reached():
    paper = PracticePaper(0.3, 0.28, 0.06, 2.0)
    assert float(paper.density(1e-6, 0.3)) == pytest.approx(0.06, abs=1e-6)
    assert float(paper.density(1e6, 0.3)) == pytest.approx(2.0, abs=1e-6)
    half = 10.0 ** (0.3 + 0.4)
    assert float(paper.density(half, 0.4)) == pytest.approx(1.03)


def test_more_frames_and_less_noise_come_nearer(film):
    rng = np.random.default_rng(2)
    normal = film.time_for_gradient()
    x = np.log10(8.125 / film.zone_ei(normal)) + STOP * np.arange(-5, 5, 0.5)
    many = [ShotStrip(np.append(np.nan, x), normal * s) for s in (0.7, 1.0, 1.5)]
    few = [ShotStrip(np.append(np.nan, x[::3]), normal * s) for s in (0.7, 1.5)]
    near, far = (reach_of(film, s, n, rng) for s, n in ((many, 0.004), (few, 0.03)))
    assert near.index_stops < 0.1
    assert near.cost < far.cost

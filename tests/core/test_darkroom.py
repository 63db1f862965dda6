import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vadrin.core.process.agitation import Agitation, agitation_of
from vadrin.core.process.clock_records import (
    ClockEvent,
    ClockStep,
    DueAction,
    DueActionKind,
    RunEventType,
    StripTime,
)
from vadrin.core.process.darkroom_clock import DarkroomClock, effective_c
from vadrin.core.process.fixer import FixerCheck, check_fixer
from vadrin.core.process.recipe import (
    Governs,
    dilution_parts,
    ingredients_of,
    mix_for,
    resolved,
    scaled,
    tempering_water,
    total_volume,
)
from vadrin.core.process.rules_on_trial import (
    RuleFormula,
    RuleVerdict,
    Trial,
    predicted_minutes,
    score_of,
)
from vadrin.core.restated_time import restated_time

AMOUNTS = st.floats(0.5, 500.0)


@pytest.mark.parametrize(
    ("words", "wanted"),
    [
        ("continuous", Agitation(continuous=True)),
        ("Stand", Agitation()),
        ("first 30 s, then 10 s every minute", Agitation(30, 10, 60)),
        ("first 30 s, then 4 turns a minute", Agitation(30, 10, 60)),
        ("5 s every 30 s", Agitation(0, 5, 30)),
        ("first 1 min, then 10 s at 30, 60 and 90 min", Agitation(60, 10, 0, (1800, 3600, 5400))),
        ("gently, as always", None),
    ],
)
def test_agitation_is_understood_as_it_is_written(words, wanted):
    assert agitation_of(words) == wanted


def test_spans_of_agitation_join_and_end_with_the_step():
    assert Agitation(30, 10, 30).spans(100) == ((0, 40), (60, 70), (90, 100))
    assert Agitation(continuous=True).spans(5) == ((0, 5),)


@given(st.integers(1, 100), AMOUNTS, st.integers(1, 20), st.floats(100.0, 5000.0))
def test_a_mix_carries_enough_and_fits_the_tank(water, least, films, tank):
    parts = (1.0, float(water))
    try:
        mix = mix_for(parts, tank, films, least, reel_ml=90.0)
    except ValueError:
        assert least * (1 + water) > tank or tank < 90
        return
    assert mix.volume_ml <= tank + 1e-6
    assert mix.parts_ml[0] >= least * mix.films_a_run - 1e-6
    assert math.isclose(sum(mix.parts_ml), mix.volume_ml)
    assert mix.films_a_run * mix.runs >= films
    assert mix.volume_ml >= 90.0 * mix.films_a_run - 1e-6


def test_the_larger_of_tank_and_film_wins_and_is_named():
    assert mix_for((1, 9), 600, 1, least_ml=50).governs is Governs.TANK
    thin = mix_for((1, 100), 1200, 2, least_ml=5, reel_ml=290)
    assert (thin.governs, round(thin.volume_ml)) == (Governs.FILM, 1010)
    split = mix_for((1, 100), 600, 2, least_ml=5)
    assert (split.runs, split.films_a_run) == (2, 1)
    assert mix_for(dilution_parts("stock"), 300, 1).parts_ml == (300.0,)


@pytest.mark.parametrize(
    ("act", "words"),
    [
        (lambda: dilution_parts("1+0"), "above 0"),
        (lambda: dilution_parts("0+9"), "above 0"),
        (lambda: dilution_parts("strong"), "no dilution"),
        (lambda: mix_for((1, 9), 0, 1), "more than 0 ml"),
        (lambda: mix_for((1, 100), 300, 1, least_ml=10), "larger tank"),
        (lambda: ingredients_of("a pinch of salt"), "an amount"),
        (lambda: ingredients_of("0 g salt"), "above 0"),
        (lambda: total_volume(ingredients_of("2 g salt")), "water to"),
        (lambda: tempering_water(500, 20, 400, 50), "between 5 and 60"),
        (lambda: tempering_water(500, 20, -3, 5), "between 5 and 60"),
        (lambda: tempering_water(0, 20, 24, 50), "above 0"),
        (lambda: tempering_water(500, 20, 24, 22), "warmer"),
        (lambda: DarkroomClock((ClockStep("develop", 0),)), "above 0"),
        (lambda: DarkroomClock(()), "at least one"),
    ],
)
def test_nonsense_is_refused_in_words(act, words):
    with pytest.raises(ValueError, match=words):
        act()


@given(
    st.lists(st.tuples(AMOUNTS, st.sampled_from(("g", "ml", "kg", "mg"))), min_size=1, max_size=8),
    st.floats(100.0, 5000.0),
)
def test_weights_keep_their_order_and_scale_with_the_volume(lines, volume):
    words = "; ".join(f"{amount} {unit} part{i}" for i, (amount, unit) in enumerate(lines))
    recipe = ingredients_of(f"750 ml water at 50; {words}; water to 1 l")
    assert total_volume(recipe) == 1000.0
    made = scaled(recipe, volume)
    assert [i.name for i in made] == [i.name for i in recipe]
    for before, after in zip(recipe, made, strict=True):
        assert after.amount == pytest.approx(before.amount * volume / 1000.0)
    assert made[-1].up_to
    assert made[0].warmth_c == 50.0


@given(st.floats(50, 5000), st.floats(5, 40), st.floats(15, 40))
def test_tempering_water_brings_it_there(volume, now, wanted):
    other = 65.0 if wanted > now else 5.0
    if wanted == now or other == wanted:
        return
    added = tempering_water(volume, now, wanted, other)
    assert (volume * now + added * other) / (volume + added) == pytest.approx(wanted)


def test_rounding_never_falls_below_what_is_needed():
    assert resolved(49.6, 1.0, least=49.6) == 50.0
    assert resolved(12.34, 0.1) == 12.3


STEPS = (
    ClockStep(
        "develop",
        900,
        Agitation(30, 10, 60),
        (StripTime("A", 300), StripTime("B", 420), StripTime("C", 600), StripTime("D", 900)),
        develops=True,
    ),
    ClockStep("stop", 30, Agitation(continuous=True)),
    ClockStep("fix", 300, Agitation(30, 10, 60), may_pause=True),
)


def event(at, what, value=None, strip=""):
    return ClockEvent(float(at), what, value, strip)


def test_four_strips_are_pulled_at_their_times():
    start = (event(1000, RunEventType.START),)
    clock = DarkroomClock(STEPS, start)
    before = clock.at(1290)
    assert before.elapsed_s == 290
    pulls = [a for a in before.coming if a.kind is DueActionKind.PULL]
    assert [(a.strip, a.at) for a in pulls] == [("A", 300), ("B", 420), ("C", 600), ("D", 900)]
    assert not before.moving
    assert clock.at(1305).moving
    pulled = [
        event(1302, RunEventType.PULL, strip="A"),
        event(1421, RunEventType.PULL, strip="B"),
        event(1600, RunEventType.PULL, strip="C"),
        event(1903, RunEventType.NEXT),
    ]
    done = DarkroomClock(STEPS, (*start, *pulled))
    assert [(d.strip, round(d.minutes * 60)) for d in done.developments(2000)] == [
        ("A", 302),
        ("B", 421),
        ("C", 600),
        ("D", 903),
    ]
    assert done.at(1910).step == 1


def test_a_noted_temperature_retimes_what_is_left():
    """A bath that cools from 38 to 36.5: the clock asks for longer, and both are worth the same."""
    step = (ClockStep("develop", 195, Agitation(continuous=True), (StripTime("A", 195),), True),)
    events = (
        event(0, RunEventType.START),
        event(0, RunEventType.TEMPERATURE, 37.8),
        event(100, RunEventType.TEMPERATURE, 36.8),
    )
    clock = DarkroomClock(step, events, 37.8, 2.2)
    end = clock.acts_of(0)[-1].at
    assert 200 < end < 215
    assert clock.restated_s(0, end) == pytest.approx(195, rel=1e-4)
    ended = DarkroomClock(step, (*events, event(end, RunEventType.STOP)), 37.8, 2.2)
    (got,) = ended.developments(end)
    warmth = effective_c(got.minutes, got.restated_min, 37.8, 2.2)
    assert 36.8 < warmth < 37.8
    assert restated_time(got.minutes, warmth, 37.8, 2.2) == pytest.approx(195 / 60, rel=0.005)


def test_a_pause_stops_the_clock_and_a_stop_ends_it():
    events = [
        event(0, RunEventType.START),
        event(900, RunEventType.NEXT),
        event(930, RunEventType.NEXT),
        event(1000, RunEventType.PAUSE),
    ]
    clock = DarkroomClock(STEPS, tuple(events))
    assert clock.at(5000).elapsed_s == 70
    assert clock.at(5000).paused
    events.append(event(5000, RunEventType.RESUME))
    assert DarkroomClock(STEPS, tuple(events)).at(5010).elapsed_s == 80
    events.append(event(5020, RunEventType.STOP))
    assert DarkroomClock(STEPS, tuple(events)).at(9000).elapsed_s == 90


def test_a_stand_asks_for_hands_only_at_its_moments():
    stand = ClockStep("develop", 7200, agitation_of("first 60 s, then 10 s at 60 min"), (), True)
    acts = DarkroomClock((stand,), (event(0, RunEventType.START),)).acts_of(0)
    assert acts == (
        DueAction(0.0, DueActionKind.AGITATE),
        DueAction(60.0, DueActionKind.REST),
        DueAction(3600.0, DueActionKind.AGITATE),
        DueAction(3610.0, DueActionKind.REST),
        DueAction(7200.0, DueActionKind.DONE),
    )


@pytest.mark.parametrize(
    ("ratios", "verdict", "close"),
    [
        ((), RuleVerdict.UNTRIED, 0),
        ((1.0, 1.05, 0.96, 1.02, 0.93), RuleVerdict.HOLDS, 5),
        ((1.0, 1.05, 0.96), RuleVerdict.ROUGH, 3),
        ((1.0, 1.2, 0.8, 1.1, 1.0), RuleVerdict.ROUGH, 3),
        ((1.0, 1.0, 1.0, 1.0, 1.4), RuleVerdict.FAILS, 4),
    ],
)
def test_a_rule_is_judged_by_its_trials(ratios, verdict, close):
    score = score_of(tuple(Trial(8.0 * r, 8.0) for r in ratios))
    assert (score.verdict, score.close) == (verdict, close)


def test_rules_say_what_they_say():
    assert predicted_minutes(RuleFormula.FACTOR, 0.25, 40) == 10.0
    assert predicted_minutes(RuleFormula.SHARE, 0.5, 2, 8.0) == pytest.approx(18.0)
    assert predicted_minutes(RuleFormula.DEGREE, 0.1, 2, 10.0) == pytest.approx(8.1)
    with pytest.raises(ValueError, match="impossible time"):
        predicted_minutes(RuleFormula.FACTOR, 0.25, 0)


def test_a_fixer_is_judged_by_a_scrap():
    assert check_fixer(30, 25) == FixerCheck(False, 60)
    assert check_fixer(50, 25).spent
    assert check_fixer(40, None) == FixerCheck(None, 80)
    assert check_fixer(30, 25, clouds=True) == FixerCheck(True, 60), "it clears, and holds silver"
    assert check_fixer(None, None, clouds=False) == FixerCheck(False, None)
    with pytest.raises(ValueError, match="more than 0 s"):
        check_fixer(0, 25)

"""Whether a bath still develops, and whether a process is where it was."""

from dataclasses import replace

import numpy as np
import pytest

from vadrin.core.process.clip_verdict import (
    ClipVerdict,
    SeenThrough,
    clip_of_densities,
    clip_seen_through,
)
from vadrin.core.process.control_limits import (
    Control,
    ControlFigure,
    ControlReading,
    control_chart,
    likely_causes,
)


def test_the_time_a_weak_bath_needs_is_within_its_range():
    rng, told, held, width, alike = np.random.default_rng(3), 0, 0, [], []
    for _ in range(300):
        along, rate, most = rng.uniform(0.8, 2.0), rng.uniform(0.5, 1.15), rng.uniform(1.2, 2.4)
        good = 0.25 + most * (1 - np.exp(-along))
        clip = 0.25 + most * (1 - np.exp(-along * rate))
        answer = clip_of_densities(
            clip + rng.normal(0, 0.02), good + rng.normal(0, 0.02), 0.25, 0.02, 0.02
        )
        if answer.low is None:
            assert answer.why
            continue
        told += 1
        held += answer.low <= 1 / rate <= answer.high
        width.append(answer.high / answer.low)
        if abs(1 / rate - 1) < 0.05:
            alike.append(answer.verdict in (ClipVerdict.GO, ClipVerdict.UNSURE))
    assert told > 280
    assert np.mean(alike) > 0.85
    assert held >= 0.93 * told
    assert np.median(width) < 1.6, "and is still of use"


@pytest.mark.parametrize(
    ("clip", "verdict"),
    [(1.60, "go"), (1.10, "develop longer"), (1.95, "develop less"), (0.45, "do not use it")],
)
def test_a_clip_is_judged_beside_the_good_piece(clip, verdict):
    assert clip_of_densities(clip, 1.62, 0.24).verdict.value == verdict


def test_a_coarse_wedge_says_look_again_and_nothing_is_made_of_an_unfogged_piece():
    assert clip_of_densities(1.40, 1.62, 0.24, 0.15, 0.02).verdict is ClipVerdict.UNSURE
    with pytest.raises(ValueError, match="was not fogged"):
        clip_of_densities(0.3, 0.4, 0.24)


def test_print_behind_a_clip_gives_no_number():
    for looks in SeenThrough:
        answer = clip_seen_through(looks)
        assert answer.factor is None
        assert (answer.verdict is ClipVerdict.GO) == (looks is SeenThrough.SAME)


def strips_at(*contrast, references=1):
    return tuple(
        ControlReading(f"run {i}", 0.22, 0.50, 0.50 + c, i < references)
        for i, c in enumerate(contrast)
    )


def standing_of(strips, figure=ControlFigure.CONTRAST):
    return next(lane for lane in control_chart(strips) if lane.figure is figure).standing


def test_a_run_beyond_the_usual_limit_is_out_and_one_within_is_not():
    standing = standing_of(strips_at(0.80, 0.87, 0.89, 0.72, 0.71))
    assert standing == (Control.REFERENCE, Control.IN, Control.OUT, Control.IN, Control.OUT)


@pytest.mark.parametrize(
    ("figure", "field", "usual", "limit"),
    [(ControlFigure.FOG, "fog", 0.22, 0.03), (ControlFigure.LOW, "low", 0.50, 0.06)],
)
def test_fog_and_the_thin_patch_have_limits_of_their_own_size(figure, field, usual, limit):
    off = (0.0, 0.8 * limit, 1.2 * limit, -0.8 * limit, -1.2 * limit)
    # A figure over the fog moves with it: the other patches stay where they are.
    runs = [
        replace(one, **{field: usual + o})
        for one, o in zip(strips_at(*[0.8] * 5), off, strict=True)
    ]
    if figure is ControlFigure.FOG:
        runs = [replace(one, low=0.28 + one.fog, high=1.08 + one.fog) for one in runs]
    standing = standing_of(tuple(runs), figure)
    assert standing == (Control.REFERENCE, Control.IN, Control.OUT, Control.IN, Control.OUT)


def test_a_level_kept_to_one_side_is_a_drift_though_within_limits():
    standing = standing_of(strips_at(0.80, *[0.82] * 7))
    assert standing[1:6] == (Control.IN,) * 5
    assert standing[6:] == (Control.DRIFTS,) * 2
    back = standing_of(strips_at(0.80, *[0.82, 0.82, 0.79] * 3))
    assert Control.DRIFTS not in back


def test_enough_references_give_limits_of_their_own():
    quiet = strips_at(0.80, 0.805, 0.795, 0.80, 0.80, 0.84, references=5)
    lane = next(x for x in control_chart(quiet) if x.figure is ControlFigure.CONTRAST)
    assert lane.own_limit
    assert lane.limit == pytest.approx(0.02), "no narrower than readings are worth"
    assert lane.standing[-1] is Control.OUT
    assert control_chart(()) == ()


def test_causes_follow_the_way_it_went():
    assert "too warm" in likely_causes(1.4, 0.6, 0.0)[0]
    assert "spent" in likely_causes(-0.2, -1.3, 0.0)[0]
    assert "fog" in likely_causes(0.0, 0.0, 1.5)[0]
    assert likely_causes(0.5, -0.5, 0.9) == ()

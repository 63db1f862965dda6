"""What an eye says: the light box, the wedge, verdicts, each as sure as it really is."""

import numpy as np
import pytest

from tools import eyes
from vadrin.core.curves import metrics
from vadrin.core.judging.eye_answers import EyeVerdict, SeenFrame, Viewing
from vadrin.core.judging.films_by_eye import stops_faster
from vadrin.core.judging.light_box import LightBox
from vadrin.core.judging.verdicts import FAULTS, SCALES, fault_named, share_of
from vadrin.core.results.analysis import analyse
from vadrin.core.results.analysis_result import Settings
from vadrin.core.simulation.film import curve_at, densities, expose_and_develop, invent_film

K = 8.125
STOP = 0.30103
BRACKET = np.log10(K / 125) + STOP * np.arange(-6.0, 6.0)


def box_of(x=BRACKET, viewing=Viewing.SIDE_BY_SIDE):
    return LightBox(x, viewing, np.random.default_rng(1), K)


def an_eye(rng):
    """Net density first told, and its noise."""
    return max(0.012, rng.normal(0.045, 0.012)), rng.uniform(0.004, 0.014)


def judged_film(seed, box, eye=None):
    """A film judged by one made-up eye until nothing more is asked: answers, and the truth."""
    rng = np.random.default_rng(seed)
    film, minutes = invent_film(rng), rng.uniform(6, 12)
    curve = curve_at(film, minutes)
    threshold, noise = eye or an_eye(rng)
    answers = ()
    while (wanted := box.next_frame(answers, blanks=True)) is not None:
        blank = np.isnan(wanted)
        net = 0.0 if blank else densities(film, minutes, np.array([wanted]))[0] - float(curve.fog)
        told = EyeVerdict.YES if net + rng.normal(0, noise) > threshold else EyeVerdict.NO
        answers += (SeenFrame(None if blank else wanted, told),)
    return answers, K / 16 / 10 ** float(metrics.speed_point(curve, 0.10))


def test_the_light_boxs_range_holds_the_ei_in_few_questions():
    box = box_of()
    held, half, asked = [], [], []
    for seed in range(60):
        answers, truth = judged_film(seed, box)
        index = box.result(answers).zone_ei
        held.append(index.low <= truth <= index.high)
        half.append(0.5 * np.log2(index.high / index.low))
        asked.append(len(answers))
    assert np.mean(held) >= 0.9
    assert np.median(half) < 1.3
    assert max(asked) <= 8
    assert all(any(a.log_h is None for a in judged_film(s, box)[0]) for s in range(3)), "a check"


@pytest.mark.parametrize(
    ("condition", "least"),
    [("steady", 0.9), ("slips 3 of 100", 0.9), ("glare", 0.9), ("one inverted", 0.85)],
)
def test_an_eye_that_slips_misleads_seldom_and_never_mostly_in_silence(condition, least):
    rows = [eyes.judged(n, condition) for n in range(24)]
    given = [r for r in rows if r[0] is not None]
    assert np.mean([r[0] for r in given]) >= least
    assert sum(not r[0] and not r[3] for r in given) <= 2, "missed, and nothing said"
    if condition == "one inverted":
        assert sum(r[3] for r in given) >= 8, "contradictions are said"


def test_one_eye_tells_films_apart_more_surely_than_two_would():
    box, held, narrower = box_of(), [], []
    for seed in range(40):
        eye = an_eye(np.random.default_rng(seed))
        judged = [judged_film(100 + 2 * seed + k, box, eye) for k in (0, 1)]
        (told, truth), (reference_told, reference_truth) = judged
        apart = stops_faster(box, told, box, reference_told)
        if apart.value is None:
            continue
        held.append(apart.low <= np.log2(truth / reference_truth) <= apart.high)
        alone = [box.result(t).zone_ei for t, _ in judged]
        by_two = np.hypot(*(np.log2(i.high / i.low) for i in alone))
        narrower.append((apart.high - apart.low) / by_two)
    assert len(held) > 30
    assert np.mean(held) >= 0.9
    assert np.median(narrower) < 0.95
    open_end = stops_faster(box, told, box, (SeenFrame(float(BRACKET[11]), EyeVerdict.NO),))
    assert "looks like the blank" in open_end.why


def test_every_answer_narrows_what_is_expected():
    box = box_of()
    answers, _ = judged_film(4, box)
    seen = box.result(answers[:-1]).zone_ei
    span = np.log2(seen.high / seen.low)
    assert box.expected_range(answers[:-1]) < span


def test_blanks_that_are_told_make_the_range_wider():
    box = box_of()
    answers, _ = judged_film(2, box)
    calm = box.result(answers).zone_ei
    nervous = box.result((*answers, *[SeenFrame(None, EyeVerdict.YES)] * 2))
    assert nervous.false_alarms == 2
    wide = nervous.zone_ei
    assert np.log(wide.high / wide.low) > np.log(calm.high / calm.low)


@pytest.mark.parametrize(
    ("places", "told", "why"),
    [
        ((0, 5), EyeVerdict.YES, "begin with less"),
        ((4,), EyeVerdict.YES, "ask for a thinner one"),
        ((11,), EyeVerdict.NO, "looks like the blank"),
        ((), EyeVerdict.NO, "no frame was judged"),
    ],
)
def test_where_the_bracket_does_not_hold_the_point_nothing_is_said(places, told, why):
    answers = tuple(SeenFrame(float(BRACKET[p]), told) for p in places)
    assert why in box_of().result(answers).zone_ei.why


def test_two_exposures_are_no_bracket():
    with pytest.raises(ValueError, match="three exposures"):
        box_of(BRACKET[:2])


def test_a_wedge_tells_what_a_densitometer_does_less_surely():
    held, widths, sure = [], [], []
    for seed in range(24):
        rng = np.random.default_rng(seed)
        film = invent_film(rng)
        x = np.log10(K / 125) + STOP * np.arange(-5, 5.1, 0.5)
        strip = expose_and_develop(film, "A", x, 8.0, rng)
        low = np.floor(np.array([r.density for r in strip.readings]) / 0.15) * 0.15
        eye = tuple(
            type(r)(r.frame, r.log_h, d + 0.075, 0.15 / 12**0.5)
            for r, d in zip(strip.readings, low, strict=True)
        )
        by_eye = analyse((type(strip)("A", 8.0, 20.0, eye),), Settings(draws=100)).strips[0]
        truth = float(metrics.zone_ei(metrics.speed_point(curve_at(film, 8.0))))
        held.append(by_eye.zone_ei.low <= truth <= by_eye.zone_ei.high)
        widths.append(np.log2(by_eye.zone_ei.high / by_eye.zone_ei.low))
        read = analyse((strip,), Settings(draws=100)).strips[0].zone_ei
        sure.append(np.log2(read.high / read.low))
    assert np.mean(held) >= 0.9
    assert np.median(widths) > 2 * np.median(sure)
    assert np.median(widths) < 3.0


def test_shares_have_wilsons_range():
    share = share_of(11, 24)
    assert (round(share.low, 2), round(share.high, 2)) == (0.28, 0.65)
    assert share_of(0, 5).low == 0.0
    with pytest.raises(ValueError, match="at least one"):
        share_of(1, 0)


def test_scales_have_a_key_for_every_answer_and_faults_a_remedy():
    keys = [key for scale in SCALES for key in scale.keys]
    assert len(set(keys)) == len(keys)
    assert all(len(s.keys) == len(s.answers) for s in SCALES)
    for fault in FAULTS:
        assert fault_named(fault.name) is fault
        assert fault.causes
        assert fault.change
    assert fault_named("drag top edge").name == "drag from the perforations"
    assert fault_named("fog").name == "fog from an edge"
    assert fault_named("elephants") is None

"""Sums that stand alone, each beside a value worked out by hand or from its definition."""

from dataclasses import replace

import numpy as np
import pytest

from oracles.closed_form import STOP, ClosedForm
from vadrin.core.checks.setting_checks import stained
from vadrin.core.exposure.arithmetic import marked_ei
from vadrin.core.exposure.corrections import Corrections, stops_of
from vadrin.core.exposure.long_exposure_pairs import LongFrame, long_exposure_law
from vadrin.core.fitting.fit import fit_strips
from vadrin.core.fitting.problem import relative_noise
from vadrin.core.frames import FrameRole
from vadrin.core.materials.colour import stain
from vadrin.core.materials.spectral import luminance_of_lightness
from vadrin.core.planning.layout import lay_out_plan
from vadrin.core.planning.plan_request import PlanRequest
from vadrin.core.planning.test_options import options_from_plain
from vadrin.core.planning.test_types import all_types
from vadrin.core.process.agitation import Agitation
from vadrin.core.process.clip_verdict import ClipVerdict, clip_of_densities
from vadrin.core.process.clock_records import ClockEvent, ClockStep, RunEventType, StripTime
from vadrin.core.process.control_limits import likely_causes
from vadrin.core.process.darkroom_clock import DarkroomClock
from vadrin.core.process.makers_table import MakersLine, makers_minutes, makers_times
from vadrin.core.process.recipe import cylinder_step, scale_step
from vadrin.core.readings import Reading, StripReadings
from vadrin.core.results.analysis import MOST_STRIPS, analyse
from vadrin.core.results.analysis_result import Settings
from vadrin.core.results.strip_figures import NOT_STRAIGHT
from vadrin.core.scanning.calibration import calibrated
from vadrin.core.scanning.film_bands import film_bands
from vadrin.core.scanning.grain import rms_granularity


def request(kind, **asked):
    plain = {
        "kind": kind,
        "exposure_index": 100.0,
        "first": -3.0,
        "last": 3.0,
        "step": 1.0,
        "blanks": 1,
        "times": (8.0,),
    }
    return PlanRequest(**{**plain, **asked})


@pytest.mark.parametrize(
    ("given", "lost"),
    [
        (Corrections(bellows_extension=100), 0.0),
        (Corrections(focal_length=50), 0.0),
        (Corrections(focal_length=50, bellows_extension=50), 2.0),
        (Corrections(filter_factor=4), 2.0),
        (Corrections(f_stop=5.6), 0.0),
        (Corrections(marked_s=1 / 60), 0.0),
    ],
)
def test_half_of_what_a_correction_needs_corrects_nothing(given, lost):
    assert stops_of(given) == pytest.approx(lost)


@pytest.mark.parametrize(
    ("volume", "step"), [(5, 0.1), (9.9, 0.1), (10, 0.5), (49, 0.5), (50, 1), (249, 1), (250, 5)]
)
def test_a_cylinder_resolves_what_it_is_marked_in(volume, step):
    assert cylinder_step(volume) == step


def test_a_scale_resolves_finer_for_less():
    assert scale_step(0.5) < scale_step(50.0)


@pytest.mark.parametrize(
    ("lightness", "share"), [(0, 0.0), (4, 0.0044282), (8, 0.0088565), (50, 0.1841865), (100, 1.0)]
)
def test_luminance_of_lightness_is_that_of_the_standard(lightness, share):
    assert luminance_of_lightness(lightness) == pytest.approx(share, abs=1e-6)


def test_stain_is_what_paper_sees_over_what_the_eye_sees():
    visual, blue = np.array([0.5, 1.0]), np.array([0.6, 1.3])
    assert stain(visual, blue) == pytest.approx([0.1, 0.3])
    assert "0.30 denser to paper" in stained(visual, blue)[0].sentence
    assert stained(blue, visual) == [], "yellow film is no stain"


def test_a_makers_table_lengthens_with_the_push():
    lines = (MakersLine(14.0, 2.0), MakersLine(8.0), MakersLine(10.0, exposure_index=200.0))
    table = makers_times(lines, 100.0)
    assert table == ((0.0, 8.0), (1.0, 10.0), (2.0, 14.0))
    assert makers_minutes(table, 0.5) == pytest.approx(np.sqrt(80.0))
    assert makers_minutes(table, 1.5) == pytest.approx(np.sqrt(140.0))
    assert [makers_minutes(table, stops) for stops in (-1.0, 3.0)] == [None, None]


@pytest.mark.parametrize(("growth", "low", "high"), [(0.0, 0.0, 0.6), (3.0, 1.0, 12.0)])
def test_noise_that_grows_with_density_is_told_from_noise_that_does_not(growth, low, high):
    """Readings err by 0.004 on the base and by so much more, per density, above it."""
    rng, film, strips = np.random.default_rng(4), ClosedForm(), []
    for strip in film.strips((4.5, 6.5, 9.0, 12.5, 17.5)):
        rows = tuple(
            Reading(
                r.frame,
                r.log_h,
                r.density + 0.004 * (1 + growth * r.density) * rng.standard_normal(),
            )
            for r in strip.readings
            for _ in range(3)
        )
        strips.append(StripReadings(strip.label, strip.time_min, strip.temperature_c, rows))
    assert low <= fit_strips(tuple(strips)).scales.growth <= high


def test_what_is_noted_later_says_nothing_of_an_earlier_step():
    steps = (
        ClockStep("develop", 300, Agitation(30, 10, 60), (StripTime("A", 300),), develops=True),
        ClockStep("stop", 30, Agitation(continuous=True)),
        ClockStep("fix", 300, Agitation(30, 10, 60)),
    )
    events = [(0, RunEventType.START, None), (300, RunEventType.NEXT, None)]
    fixing = [(330, RunEventType.NEXT, None), (340, RunEventType.TEMPERATURE, 30.0)]
    begun = [(310, RunEventType.TEMPERATURE, 26.0)]
    made = tuple(ClockEvent(float(at), what, c) for at, what, c in sorted(events + fixing + begun))
    (got,) = DarkroomClock(steps, made).developments(400.0)
    assert got.restated_min == pytest.approx(got.minutes), "the developer was at its reference"


@pytest.mark.parametrize("kind", [k for k, t in all_types().items() if t.needs_blank])
def test_one_blank_is_enough(kind):
    strips = lay_out_plan(request(kind))
    assert any(f.role is FrameRole.BLANK for s in strips for f in s.frames)


def test_a_mixed_roll_runs_from_two_stops_under_the_box_to_three_over():
    strips = lay_out_plan(request("mixed roll"))
    told = sorted({f.exposure_index for f in strips[0].frames if f.exposure_index})
    assert told == pytest.approx([25, 50, 100, 200, 400, 800], rel=0.03)


def test_two_developers_repeat_a_frame_on_each_strip():
    strips = lay_out_plan(request("two developers", repeat_first=True, times=(8.0, 8.0)))
    checks = [sum(f.role is FrameRole.CHECK for f in s.frames) for s in strips]
    assert len(checks) >= 2
    assert set(checks) == {1}


def test_a_curve_that_still_steepens_has_no_gamma_yet():
    film = ClosedForm()
    (strip,) = film.strips((8.0,))
    short = tuple(r for r in strip.readings if r.log_h is None or r.log_h < film.x_m(8.0) + STOP)
    made = analyse((StripReadings("A", 8.0, 20.0, short),), Settings(draws=0)).strips[0]
    assert made.gamma.why == NOT_STRAIGHT
    whole = analyse((strip,), Settings(draws=0)).strips[0]
    assert whole.gamma.present


def test_grain_is_the_scatter_through_the_opening_and_wants_pixels_fine_enough():
    rng = np.random.default_rng(2)
    steps = np.linspace(0.1, 2.0, 12)
    scale = calibrated(60000 * 10.0**-steps, steps)
    per_inch, side = 4800.0, 8
    even = np.repeat(np.repeat(0.6 + 0.01 * rng.standard_normal((40, 40)), side, 0), side, 1)
    assert rms_granularity(60000 * 10.0**-even, scale, per_inch) == pytest.approx(10.0, rel=0.1)
    assert rms_granularity(60000 * 10.0**-even, scale, 300.0) is None, (
        "a pixel larger than the opening"
    )
    assert rms_granularity(60000 * 10.0 ** -even[:16, :16], scale, per_inch) is None, (
        "too few spots"
    )


def test_dials_name_eis_whole_from_six_up():
    assert [marked_ei(e) for e in (3.15, 5.04, 6.35, 8.0)] == [3.2, 5, 6, 8]


def test_lines_of_one_push_are_one_and_the_one_nearest_the_reference_speaks():
    third_by_ei = MakersLine(7.0, exposure_index=125.0, temperature_c=24.0)
    third = MakersLine(10.0, stops=0.3, temperature_c=20.0)
    normal = MakersLine(8.0)
    for lines in ((third, third_by_ei, normal), (third_by_ei, third, normal)):
        times = makers_times(lines, 100.0)
        assert [minutes for _, minutes in times] == [8.0, 10.0]
        assert [stops for stops, _ in times] == pytest.approx([0.0, 1 / 3], abs=0.04)


def test_two_frames_are_enough_to_tell_a_time():
    frames = (LongFrame(4.0, 4.0, 0.60), LongFrame(4.0, 8.0, 0.80))
    law = long_exposure_law(0.70, frames, 0.001, np.random.default_rng(4))
    needed = law.pairs[0].needed_s
    assert needed.known() == pytest.approx(4 * 2**0.5, rel=0.01)
    alone = long_exposure_law(0.70, frames[:1], 0.001, np.random.default_rng(4))
    assert not alone.pairs[0].needed_s.present


def test_a_clip_denser_than_the_good_one_has_a_range_even_if_read_exactly():
    answer = clip_of_densities(1.1, 1.0, 0.1, clip_sd=1e-9, good_sd=1e-9)
    assert answer.verdict is ClipVerdict.SHORTER
    assert answer.low * 1.02 < answer.factor < answer.high / 1.02, "how a bath goes is not known"
    outdone = clip_of_densities(1.3, 1.0, 0.1, clip_sd=1e-9, good_sd=1e-9)
    assert (outdone.verdict, outdone.factor) == (ClipVerdict.SHORTER, None)
    assert "too much denser for a factor" in outdone.why


def test_fog_under_its_aim_alone_is_not_the_bath():
    assert likely_causes(0.0, 0.0, -2.0) == (
        "another batch of strips, or another zero of the densitometer",
    )
    assert len(likely_causes(2.0, 2.0, -2.0)) == 1


def test_noise_is_told_at_a_density_of_one():
    assert relative_noise(np.array([0.0, 1.0, 2.0]), 0.5) == pytest.approx([1 / 1.5, 1.0, 2 / 1.5])


def test_options_are_of_one_sort():
    with pytest.raises(ValueError, match="no known sort"):
        options_from_plain({"pushes": {"stops": [1.0]}, "lights": {}})
    with pytest.raises(ValueError, match="no known sort"):
        options_from_plain([("pushes", {"stops": [1.0]})])


def test_bands_of_film_leave_each_other_half_the_light_between_them():
    picture = np.full((300, 400), 1000.0)
    picture[40:130, 20:380] = picture[136:226, 20:380] = 100.0
    first, second = film_bands(picture, with_wedge=False).strips
    assert first[1] <= 133 <= second[0], "none sees the other"
    assert (first[0], second[1]) == (40 - 3, 226 + 3)


def test_more_strips_than_any_test_has_are_refused_in_words():
    shape = ClosedForm()
    few = shape.strips(tuple(4.0 + 0.5 * n for n in range(4)))
    many = tuple(replace(few[n % 4], label=f"S{n}") for n in range(MOST_STRIPS + 1))
    answer = analyse(many, Settings(draws=0))
    assert not answer.finding.zone_ei.present
    assert f"more than {MOST_STRIPS} strips of one film" in answer.finding.zone_ei.why

"""Whatever is typed is understood or refused with words; nothing else ever comes of it."""

import math

import pytest
from hypothesis import HealthCheck, assume, given, settings
from hypothesis import strategies as st

from vadrin.app.display.quantities import minutes_text
from vadrin.app.document.test_loading import load_test
from vadrin.app.entry.densities import density_typed, temperature_typed
from vadrin.app.entry.exposures import (
    aperture_typed,
    exposure_index_typed,
    exposure_indexes_typed,
    otherwise_typed,
)
from vadrin.app.entry.film_supply import (
    film_supply_text,
    film_supply_typed,
    name_typed,
    names_typed,
)
from vadrin.app.entry.numbers import number_typed, numbers_typed
from vadrin.app.entry.reciprocity_entry import reciprocity_typed
from vadrin.app.entry.roll_line import roll_typed
from vadrin.app.entry.times import day_typed, minutes_typed, seconds_typed, times_typed
from vadrin.app.expose.exposing import light_now, mark_frame, note_light, rescale_rest
from vadrin.app.expose.frame_counter import counter_remedies, frames_wound
from vadrin.app.expose.script import script_rows
from vadrin.app.expose.ticked_script import tick_script
from vadrin.app.loaded.frame_order import next_to_expose
from vadrin.app.plan.camera_settings import limits_of
from vadrin.app.plan.plan_edit import PlanEdit, apply_plan
from vadrin.app.plan.starting_tests import start_kind
from vadrin.app.results.method_rows import method_typed
from vadrin.app.results.target_words import (
    target_typed,
    target_value_stepped,
    target_value_text,
    target_value_typed,
)
from vadrin.core.exposure.arithmetic import stops_text
from vadrin.core.exposure.shutter_dial import exact_shutter, shutter_name
from vadrin.core.frames import FrameState
from vadrin.core.planning.plan_request import FilmSupply, FilmUnit
from vadrin.core.results.criteria import MEASURES
from vadrin.errors import EditRefusedError, EntryError
from vadrin.notebook.records import Camera, Exposure, Lens

ONE_FILE = [HealthCheck.function_scoped_fixture]
READERS = (
    number_typed,
    minutes_typed,
    times_typed,
    numbers_typed,
    seconds_typed,
    reciprocity_typed,
    otherwise_typed,
    roll_typed,
    film_supply_typed,
    aperture_typed,
    names_typed,
    name_typed,
    density_typed,
    temperature_typed,
    exposure_index_typed,
    day_typed,
    method_typed,
    target_typed,
)
TYPED = st.one_of(
    st.text(max_size=30),
    st.text("0123456789.,:;/+-−^ tsf½⅓ at min from frames m cine after", max_size=24),
)


@given(words=TYPED)
@settings(max_examples=200, deadline=None)
@pytest.mark.parametrize("read", READERS)
def test_any_words_are_understood_or_refused(read, words):
    refusal, made = "", None
    try:
        made = read(words)
    except EntryError as error:
        refusal = str(error)
    assert len(refusal) > 5 or not refusal
    nothing = made is None and not refusal
    assert not nothing or read in (reciprocity_typed, film_supply_typed)
    if isinstance(made, float):
        assert math.isfinite(made)


@given(thirds=st.integers(-40, 40), halves=st.integers(-25, 25))
def test_stops_are_typed_as_they_are_written(thirds, halves):
    for stops in (thirds / 3, halves / 2):
        assert number_typed(stops_text(stops, signed=True)) == pytest.approx(stops, abs=1e-6)


@given(amount=st.integers(1, 1000), unit=st.sampled_from(FilmUnit), taken=st.integers(0, 40))
def test_film_is_typed_as_it_is_written(amount, unit, taken):
    supply = FilmSupply(float(amount), unit, taken)
    assert film_supply_typed(film_supply_text(supply)) == supply


@given(name=st.sampled_from(sorted(MEASURES)), steps=st.lists(st.sampled_from([1, -1]), max_size=9))
def test_a_target_is_stepped_within_its_reach_and_typed_as_shown(name, steps):
    measure = MEASURES[name]
    assert target_typed(measure.name) == (name, measure.usual)
    shown = target_value_text(name, measure.usual)
    for way in steps:
        shown = target_value_stepped(name, shown, way)
    moved = measure.usual + measure.step * sum(steps)
    if measure.lowest <= moved <= measure.highest:
        assert target_value_typed(name, shown) == pytest.approx(moved, rel=1e-3)
    with pytest.raises(EntryError, match=f"try {measure.usual:g}"):
        target_value_typed(name, f"{measure.highest + 1:g}")


@given(seconds=st.integers(30, 35_000))
def test_times_are_typed_as_they_are_written(seconds):
    shown = minutes_text(seconds / 60, exact=True)
    assert minutes_typed(shown) == pytest.approx(seconds / 60, abs=1 / 120)


@given(
    seconds=st.one_of(
        st.integers(-78, 66).map(lambda sixths: 2.0 ** (sixths / 6)), st.floats(1 / 8000, 2000.0)
    )
)
def test_a_shutter_name_leads_back_to_its_time(seconds):
    shown = shutter_name(seconds)
    typed = seconds_typed(shown)
    again = typed if "(" in shown else exact_shutter(typed)
    # A fiftieth of a stop, and what rounding to whole seconds adds from 100 s on.
    assert math.log2(again / exact_shutter(seconds)) == pytest.approx(0.0, abs=0.028)


def test_every_dial_is_named_as_it_is_engraved():
    whole = [shutter_name(2.0**-n) for n in range(11)]
    assert whole == [
        "1 s",
        "½ s",
        "1/4",
        "1/8",
        "1/15",
        "1/30",
        "1/60",
        "1/125",
        "1/250",
        "1/500",
        "1/1000",
    ]
    halves = [shutter_name(2.0 ** -(n + 0.5)).split(" (")[0] for n in range(3, 13)]
    assert halves == [
        "1/10",
        "1/20",
        "1/45",
        "1/90",
        "1/180",
        "1/350",
        "1/750",
        "1/1500",
        "1/3000",
        "1/6000",
    ]
    thirds = [shutter_name(2.0 ** -(n / 3)) for n in range(28, 33)]
    assert thirds == ["1/640", "1/800", "1/1000", "1/1250", "1/1600"]
    assert [shutter_name(s) for s in (16.0, 32.0, 64.0, 300.0)] == ["15 s", "30 s", "64 s", "300 s"]
    assert shutter_name(2.0**-4.5) == "1/20 (0.0442 s)" != shutter_name(2.0 ** -(13 / 3))
    assert exact_shutter(1 / 750) == 2.0**-9.5
    assert exact_shutter(1 / 48) == 1 / 48


@given(
    first=st.integers(-9, 0),
    count=st.integers(3, 16),
    step=st.sampled_from([0.5, 1.0, 2.0]),
    blanks=st.integers(0, 5),
    doubled=st.integers(1, 3),
    skipped=st.integers(1, 3),
    index=st.sampled_from([None, 50, 400, 1600]),
)
def test_a_roll_in_a_line_is_read_as_it_was_shot(
    first, count, step, blanks, doubled, skipped, index
):
    last = first + step * (count - 1)
    line = f"{count} frames, {first:g} to {last:+g}, frame {doubled} doubled, {skipped} skipped"
    line += f", {blanks} blank first" if blanks else ""
    line += f" at EI {index}" if index else ""
    roll = roll_typed(line.replace("-", "−"))
    assert (roll.first, roll.last, roll.blanks) == (first, last, blanks)
    assert roll.step == pytest.approx(step)
    assert roll.exposure_index == index
    assert set(roll.states) == {(doubled, FrameState.DOUBLED), (skipped, FrameState.SKIPPED)}


@pytest.fixture
def script(notebook):
    """A plan of two strips on a camera with whole stops."""
    with notebook.change("kit"):
        notebook.add(Camera(name="Quayside 35", slowest=1.0, fastest=1 / 500))
        notebook.add(Lens(name="Lugger 50", widest=2.8, smallest=16.0, aperture_step=1.0))
    test = start_kind(notebook, "time")
    apply_plan(
        notebook,
        PlanEdit(
            test, (6.0, 9.0), "Merrow Pan 125", "Sable", "1+1", "M3", "Quayside 35", "Lugger 50"
        ),
        "plan",
    )
    return load_test(notebook, test.id)


TICKS = st.sampled_from(["skipped", "doubled", "ticked"])


@given(
    told=st.dictionaries(st.tuples(st.sampled_from("AB"), st.integers(1, 14)), TICKS),
    rest=st.booleans(),
)
@settings(max_examples=25, deadline=None, suppress_health_check=ONE_FILE)
def test_a_ticked_sheet_gives_every_frame_its_state(notebook, script, told, rest):
    assume(told or rest)
    parts = [f"{s}{n} {'' if how == 'ticked' else how}" for (s, n), how in told.items()]
    line = "; ".join([*parts, "all"] if rest else parts)
    assert sum(bool(row[0]) for row in script_rows(notebook, script)) == 30
    entered = tick_script(notebook, script, line)
    assert entered == (30 if rest else len(told))
    states = {
        "skipped": FrameState.SKIPPED,
        "doubled": FrameState.DOUBLED,
        "ticked": FrameState.EXPOSED,
    }
    fresh = load_test(notebook, script.test.id)
    usual = FrameState.EXPOSED if rest else FrameState.PLANNED
    for strip, frame in fresh.shots():
        how = told.get((strip.strip.label, int(frame.number)), "")
        assert frame.frame.state == states.get(how, usual)
    notebook.undo()
    assert load_test(notebook, script.test.id) == script


@pytest.mark.parametrize(
    ("line", "stops", "seconds"),
    [
        ("A5 at +1,5", 1.5, None),
        ("A 5 at −½", -0.5, None),
        ("a5 with 1/60", None, 1 / 60),
        ("strip A 5 at 0,5 s, 6 skipped", None, 0.5),
        ("A5 at f/5,6 1/30; 6", None, 1 / 30),
    ],
)
def test_what_was_set_instead_takes_a_decimal_comma(notebook, script, line, stops, seconds):
    tick_script(notebook, script, line)
    frame = load_test(notebook, script.test.id).shots()[4][1].frame
    (made,) = notebook.all(Exposure, frame_id=frame.id)
    if stops is not None:
        assert (frame.stops, made.stops) == (stops, stops)
    else:
        assert made.seconds == pytest.approx(seconds, rel=0.05)


@pytest.mark.parametrize(
    "line",
    [
        "A31",
        "A0",
        "A5-3",
        "five",
        "A5 at noon",
        "A4 at f/banana",
        "A1, soon",
        "A5 at 1/0",
        "5",
        "C1",
        "A5 at 1/60 +2",
    ],
)
def test_a_sheet_that_is_not_understood_changes_nothing(notebook, script, line):
    with pytest.raises(EditRefusedError):
        tick_script(notebook, script, line)
    assert load_test(notebook, script.test.id) == script


@pytest.mark.parametrize("done", [1, 4, 13, 20])
@pytest.mark.parametrize("apart", [1, -1])
def test_every_way_to_mend_a_counter_makes_camera_and_script_agree(notebook, script, done, apart):
    for _ in range(done):
        place = next_to_expose(load_test(notebook, script.test.id))
        mark_frame(notebook, place[1].frame, FrameState.EXPOSED)
    before = load_test(notebook, script.test.id)
    says = frames_wound(before) + apart
    remedies = counter_remedies(before, says)
    assert remedies
    for remedy in remedies:
        remedy.act(notebook)
        after = load_test(notebook, script.test.id)
        assert frames_wound(after) == says, remedy.words
        assert counter_remedies(after, says) == []
        turns = [f.frame.turn for _, f in after.shots()]
        assert len(set(turns)) == len(turns)
        for strip in after.strips:
            places = [f.frame.position for f in strip.frames]
            assert len(set(places)) == len(places)
        while load_test(notebook, script.test.id) != before:
            notebook.undo()


@given(now=st.sampled_from([1 / 60, 1 / 45, 1 / 15, 1 / 8, 1 / 125]), done=st.integers(0, 12))
@settings(max_examples=15, deadline=None, suppress_health_check=ONE_FILE)
def test_light_that_moved_is_made_good_by_marks_of_the_camera(notebook, script, now, done):
    for _ in range(done):
        place = next_to_expose(load_test(notebook, script.test.id))
        mark_frame(notebook, place[1].frame, FrameState.EXPOSED)
    half = load_test(notebook, script.test.id)
    moved = note_light(notebook, half, now)
    assert light_now(notebook, half) == pytest.approx(moved, abs=1e-3)
    rescale_rest(notebook, half)
    after = load_test(notebook, script.test.id)
    limits = limits_of(notebook, after.test)
    for (_, old), (_, new) in zip(half.shots(), after.shots(), strict=True):
        if old.frame.state == FrameState.EXPOSED or new.frame.wanted_stops is None:
            assert new.frame == old.frame
            continue
        assert new.frame.seconds in limits.shutters
        assert new.frame.aperture in limits.apertures
        light = math.log2(new.frame.seconds / new.frame.aperture**2)
        start = math.log2(exact_shutter(1 / 30) / 2.0**5) - moved
        assert new.frame.stops == pytest.approx(light - start, abs=0.02)
    while notebook.undo_label() != "plan":
        notebook.undo()


@pytest.mark.parametrize("words", ["50-400", "EI 50 to 400", "50 – 400", "iso 50 to iso 400"])
def test_eis_from_one_to_another_are_a_stop_apart(words):
    assert exposure_indexes_typed(words) == (50, 100, 200, 400)
    assert exposure_indexes_typed("400-100") == (400, 200, 100)
    assert exposure_indexes_typed("64-500") == (64, 125, 250, 500)
    assert exposure_indexes_typed("100-150") == (100,)

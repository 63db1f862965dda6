"""Decisions kept through files, merges and undo; doubts that never accuse a film that is right."""

import json
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from oracles.closed_form import ClosedForm
from tests.notebooks import fill_from_json, merged, new_test
from tests.states import state_of
from vadrin.app.decisions.darkroom_card import card_of
from vadrin.app.decisions.decision import choose_push_rule, decide
from vadrin.app.decisions.decision_basis import changes_since_decision
from vadrin.app.document.analysis_input import readings_of, settings_of
from vadrin.app.document.state import State
from vadrin.app.document.test_loading import load_test
from vadrin.app.expose.meter_words import dial_words, meter_says, meter_words, strip_index
from vadrin.app.expose.roll_entry import enter_roll
from vadrin.app.expose.wrong_setting import wrong_setting_of, wrong_setting_words
from vadrin.app.plan.plan_edit import PlanEdit, apply_plan
from vadrin.app.plan.starting_tests import start_kind
from vadrin.app.read.entering_readings import add_reading
from vadrin.app.read.reading_doubts import reading_doubt
from vadrin.core.exposure.shutter_dial import exact_shutter
from vadrin.core.results.analysis import analyse
from vadrin.core.results.hold_rule import HoldRule
from vadrin.notebook.json_file import notebook_json
from vadrin.notebook.records import Camera, Finding, Frame, LightMeter, Reading, Strip, Test
from vadrin.notebook.store import Notebook

ONE_FILE = [HealthCheck.function_scoped_fixture]
TIMES = (5.0, 8.0, 12.0, 17.0)


def read_truly(book, loaded, film, noise=0.0, rng=None):
    """Give every frame the density it has, with the noise of an instrument."""
    with book.change("read"):
        for strip in loaded.strips:
            for frame in strip.frames:
                x = frame.log_h(loaded.test.meter_constant)
                off = 0.0 if rng is None else noise * rng.standard_normal()
                add_reading(book, frame, round(max(0.0, film.density(x, strip.minutes) + off), 3))
    return load_test(book, loaded.test.id)


@pytest.fixture
def decided(notebook):
    """A notebook with one decided test."""
    test = new_test(notebook, "Merrow Pan 125", "Sable", "1+1", 100.0, TIMES)
    loaded = read_truly(notebook, load_test(notebook, test.id), ClosedForm())
    analysis = analyse(readings_of(loaded), settings_of(loaded))
    decide(notebook, state_of(loaded, analysis), when="2026-10-29T19:20:00+00:00")
    return notebook, load_test(notebook, test.id), analysis


def test_card_and_rule_go_through_json_and_a_merge(decided, tmp_path):
    book, loaded, analysis = decided
    choose_push_rule(book, loaded.test, HoldRule.MIDTONE)
    text = notebook_json(book)
    path = tmp_path / "all.json"
    path.write_text(text, encoding="utf-8")
    for name, fill in (("from json", fill_from_json), ("merged", None)):
        fresh = Notebook(tmp_path / f"{name}.vadrin")
        if fill is None:
            merged(fresh, book.everything())
        else:
            fill(fresh, path)
        (test,), (finding,) = fresh.all(Test), fresh.all(Finding)
        assert test.push_rule is HoldRule.MIDTONE
        assert finding.card == loaded.findings[0].card
        there = load_test(fresh, test.id)
        assert card_of(state_of(there, analysis)).status == "decided 2026-10-29"
        fresh.close()


def test_an_export_of_the_format_before_has_the_usual_rule(decided, tmp_path):
    book, _, _ = decided
    old = json.loads(notebook_json(book))
    old["format"] = 4
    for row in old["records"]["test"]:
        del row["push_rule"]
    for row in old["records"]["finding"]:
        del row["card"]
    path = tmp_path / "old.json"
    path.write_text(json.dumps(old), encoding="utf-8")
    fresh = Notebook(tmp_path / "fresh.vadrin")
    fill_from_json(fresh, path)
    assert fresh.all(Test)[0].push_rule is HoldRule.HIGHLIGHT
    loaded = load_test(fresh, fresh.all(Test)[0].id)
    assert changes_since_decision(loaded) is None
    fresh.close()


def test_a_basis_from_before_rules_were_kept_is_not_called_changed(decided):
    _, loaded, _ = decided
    basis = json.loads(loaded.findings[0].basis)
    del basis["push_rule"]
    old = replace(loaded, findings=(replace(loaded.findings[0], basis=json.dumps(basis)),))
    assert changes_since_decision(old) is None
    other = replace(old, test=replace(old.test, school="standard"))
    assert changes_since_decision(other).changes == ("the EI method changed",)


def test_what_changed_in_a_run_is_said_in_minutes_and_degrees(decided):
    book, loaded, _ = decided
    first = loaded.strips[0].strip
    with book.change("mend"):
        book.put(replace(first, time_min=8 + 1 / 6, temperature_c=21.5))
    assert changes_since_decision(load_test(book, loaded.test.id)).changes == (
        "strip A's time went from 5:00 min to 8:10 min",
        "strip A's temperature went from not noted to 21.5 °C",
    )


def test_choosing_a_rule_is_one_edit_that_can_be_undone(decided):
    book, loaded, _ = decided
    choose_push_rule(book, loaded.test, HoldRule.MIDTONE)
    assert book.undo_label() == "change the rule of pushes"
    book.undo()
    assert load_test(book, loaded.test.id) == loaded


class TestAWrongSetting:
    @pytest.mark.parametrize("stops", [-1, 0, 1, 2])
    def test_its_stops_and_time_follow_the_finding(self, decided, stops):
        book, loaded, analysis = decided
        found = loaded.findings[0]
        index = found.exposure_index * 2.0**stops
        test = enter_roll(book, "Merrow Pan 125", "Sable", "1+1", f"24 frames at EI {index:.2f}")
        wrong = wrong_setting_of(book, test)
        if not stops:
            assert wrong is None
            return
        assert wrong.stops == stops
        row = next(p for p in analysis.push if p.stops == stops).hold_highlight
        if row.time_min.value is not None:
            assert wrong.minutes == pytest.approx(row.time_min.value)
            assert wrong.basis == "measured, highlight density kept"
        else:
            assert wrong.basis.startswith("a rule of thumb, not measured; that rule: ")
            assert " within 25 %" in wrong.basis, "its score stands beside it"
        assert (wrong.minutes > found.time_min) == (stops > 0)

    def test_the_mid_tone_rule_names_its_own_time(self, decided):
        book, loaded, analysis = decided
        choose_push_rule(book, loaded.test, HoldRule.MIDTONE)
        index = loaded.findings[0].exposure_index * 2
        test = enter_roll(book, "Merrow Pan 125", "Sable", "1+1", f"24 frames at EI {index:.2f}")
        wanted = next(p for p in analysis.push if p.stops == 1).hold_midtone.time_min.value
        wrong = wrong_setting_of(book, test)
        assert (wrong.basis, wrong.minutes) == (
            "measured, mid-tone density kept",
            pytest.approx(wanted),
        )

    def test_nothing_is_said_of_a_film_that_was_never_found(self, notebook):
        test = enter_roll(notebook, "Kelda Pan 200", "Tarn", "1+9", "36 frames at EI 800")
        assert wrong_setting_of(notebook, test) is None
        loaded = load_test(notebook, test.id)
        assert wrong_setting_words(notebook, loaded) == ""
        assert loaded.strips[0].strip.planned_min is None, "no time is made up"

    def test_once_developed_it_is_told_no_more(self, decided):
        book, loaded, _ = decided
        test = enter_roll(book, "Merrow Pan 125", "Sable", "1+1", "24 frames at EI 800")
        roll = load_test(book, test.id)
        assert "is a push of" in wrong_setting_words(book, roll)
        with book.change("develop"):
            (strip,) = book.all(Strip, test_id=test.id)
            book.put(replace(strip, time_min=14.0))
        assert wrong_setting_words(book, load_test(book, test.id)) == ""
        assert wrong_setting_words(book, loaded) == ""


@given(
    index=st.sampled_from([25.0, 100.0, 400.0, 1600.0, 6400.0, 12800.0]),
    low=st.sampled_from([3.0, 25.0]),
    high=st.sampled_from([400.0, 3200.0]),
    reach=st.sampled_from([0.0, 2.0]),
)
@settings(max_examples=25, deadline=None, suppress_health_check=ONE_FILE)
def test_a_dial_is_mentioned_exactly_where_it_ends(notebook, index, low, high, reach):
    with notebook.change("kit"):
        camera = notebook.add(
            Camera(
                name="any",
                slowest=1.0,
                fastest=1 / 1000,
                dial_low=low,
                dial_high=high,
                compensation=reach,
            )
        )
    test = replace(start_kind(notebook, "speed"), exposure_index=index, camera_id=camera.id)
    apply_plan(notebook, PlanEdit(test, (8.0,), "Merrow Pan 125", "Sable", "1+1"), "plan")
    loaded = load_test(notebook, test.id)
    said = dial_words(notebook, loaded, strip_index(loaded, loaded.strips[0]))
    assert bool(said) == (not low <= index <= high)
    if said:
        beyond = abs(np.log2(index / (high if index > high else low)))
        assert ("compensation" in said) == bool(reach)
        assert ("by hand" in said) == (beyond > reach + 0.05)
        assert said in meter_words(notebook, loaded, loaded.strips[0])


def test_a_meter_of_its_own_stands_for_a_camera_without_a_dial(notebook):
    with notebook.change("kit"):
        meter = notebook.add(LightMeter(name="Harbour meter", dial_low=3.0, dial_high=800.0))
    test = replace(start_kind(notebook, "speed"), exposure_index=1600.0, meter_id=meter.id)
    apply_plan(notebook, PlanEdit(test, (8.0,), "Merrow Pan 125", "Sable", "1+1"), "plan")
    loaded = load_test(notebook, test.id)
    said = dial_words(notebook, loaded, 1600.0)
    assert said.endswith("set 800, and give 1 stop less by hand than the meter then says")
    assert meter_words(notebook, loaded, loaded.strips[0]).endswith(
        "it should say 1/15 at f/5.6 (M), and you give 1/30 at f/5.6."
    )
    low = dial_words(notebook, loaded, 1.5)
    assert low.endswith("give 1 stop more by hand than the meter then says")


@given(third=st.integers(-9, 12))
@settings(max_examples=20, deadline=None, suppress_health_check=ONE_FILE)
def test_what_the_meter_says_follows_its_ei(notebook, third):
    test = start_kind(notebook, "speed")
    loaded = load_test(notebook, test.id)
    index = test.exposure_index * 2.0 ** (third / 3)
    shutter, aperture = meter_says(loaded, index).split(" at ")
    seconds = exact_shutter(test.metered_seconds) / 2.0 ** (third / 3)
    marked = (
        1 / float(shutter[2:]) if "/" in shutter else float(shutter.split()[0].replace("½", ".5"))
    )
    assert exact_shutter(marked) == pytest.approx(seconds, rel=0.02)
    assert aperture == "f/5.6"


@given(seed=st.integers(0, 10_000), contrast=st.floats(0.5, 1.1), fog=st.floats(0.08, 0.6))
@settings(max_examples=8, deadline=None, suppress_health_check=ONE_FILE)
def test_a_film_that_is_right_is_never_questioned(notebook, seed, contrast, fog):
    rng = np.random.default_rng(seed)
    test = new_test(notebook, f"Film {seed}", "Sable", "1+1", 100.0, (6.0, 11.0))
    film = replace(ClosedForm(), contrast=contrast, fog=fog)
    loaded = read_truly(notebook, load_test(notebook, test.id), film, 0.006, rng)
    doubts = [reading_doubt(State(loaded), f) for _, f in loaded.frames()]
    assert [d for d in doubts if d] == []
    analysis = analyse(readings_of(loaded), settings_of(loaded))
    assert not [w for w in analysis.diagnostics if w.key == "questionable blank"]


@given(place=st.integers(3, 12), drop=st.floats(0.15, 0.24))
@settings(max_examples=8, deadline=None, suppress_health_check=ONE_FILE)
def test_a_frame_thinner_than_the_blank_always_is(notebook, place, drop):
    test = new_test(notebook, f"Thin {place} {drop}", "Sable", "1+1", 100.0, (8.0,))
    film = replace(ClosedForm(), fog=0.3)
    loaded = read_truly(notebook, load_test(notebook, test.id), film)
    frame = loaded.strips[0].frames[place].frame
    with notebook.change("misread"):
        (reading,) = notebook.all(Reading, frame_id=frame.id)
        notebook.put(replace(reading, density=round(0.3 - drop, 3)))
    now = load_test(notebook, test.id)
    assert "Thinner than the blank" in reading_doubt(State(now), now.strips[0].frames[place])
    assert notebook.get(Frame, frame.id) == frame

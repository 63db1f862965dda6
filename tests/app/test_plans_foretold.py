"""What a plan is said to tell: whose film it counts on, which answers, what else would do."""

import json
import math
import shutil
from dataclasses import replace

import pytest

from tests.states import state_of
from vadrin.app.descriptions import descriptions
from vadrin.app.document.analysis_input import readings_of, settings_of
from vadrin.app.document.test_loading import load_test
from vadrin.app.plan.drafting import has_bracket
from vadrin.app.plan.expected_curves import (
    PriorFinding,
    drawn_at_once,
    expected_film,
    expected_strips,
    prior_finding,
)
from vadrin.app.plan.plan_edit import PlanEdit, apply_plan
from vadrin.app.plan.plan_forecast import forecast_input, forecast_plan, with_bracket
from vadrin.app.plan.smallest_plan import smallest_plan
from vadrin.app.plan.starting_tests import start_kind
from vadrin.app.results.rating import AS_DEVELOPED, rating_of
from vadrin.app.shelf.shelf_index import shelf_lines
from vadrin.core.curves import metrics
from vadrin.core.planning.film_prior import prior_curve
from vadrin.core.planning.test_types import Foretold, type_of
from vadrin.core.results.analysis import analyse
from vadrin.notebook.records import Finding
from vadrin.notebook.store import Notebook


@pytest.fixture(scope="module")
def demo(demo_path):
    book = Notebook(demo_path)
    yield book
    book.close()


def sheet_of(book, film):
    line = next(x for x in shelf_lines(book) if x.film.startswith(film))
    return load_test(book, line.test_id)


def planned(book, kind, times=(), **changes):
    """A new plan of a kind, changed, and its sheet."""
    test = start_kind(book, kind)
    usual = tuple(s.strip.planned_min or 8.0 for s in load_test(book, test.id).strips)
    request = PlanEdit(replace(test, **changes), times or usual, "Merrow Pan 125", "Sable", "1+1")
    apply_plan(book, request, "change")
    return load_test(book, test.id)


TYPICAL = expected_film(125.0, None)


@pytest.mark.parametrize("kind", [p.key for p in descriptions()])
def test_every_kind_says_what_it_will_tell_or_that_it_cannot(notebook, kind):
    told = forecast_plan(forecast_input(planned(notebook, kind), TYPICAL))
    if type_of(kind).foretold is Foretold.NOTHING:
        assert (told.answers, told.variants, told.forecast) == ((), (), None)
        assert "no expected range" in told.basis or "No expected range" in told.basis
        assert ("old film" in told.basis) == (kind == "rescue")
        return
    names = [line.name for line in told.answers]
    assert names[0] == "EI"
    wants = {
        "speed": [],
        "time": ["time", "pull 1", "push 1", "push 2"],
        "push": ["time", "push 1", "push 2"],
        "colour": ["time", "push 1", "push 2"],
        "compare": ["EI difference from the reference"],
        "two developers": ["EI difference from the reference"],
    }
    assert names[1:] == wants[kind]
    assert all(line.shown != "none" or line.why for line in told.answers)
    assert "typical film" in told.basis


def test_what_a_frame_less_or_a_strip_more_does_is_told_rightly(notebook):
    loaded = planned(notebook, "time", last_stop=3.0, first_stop=-4.0)
    question = forecast_input(loaded, TYPICAL)
    whole = forecast_plan(question)
    thin, dense, more = whole.variants
    shorter = forecast_plan(with_bracket(question, loaded, -4.0, 2.0))
    assert dense.shown in (f"EI {shorter.answers[0].shown.removesuffix(' stop')}", "no EI")
    longer = replace(question.strips[-1], time_min=float(more.name.split()[-2].split(":")[0]) + 0.5)
    assert more.name.startswith("with one more strip")
    again = forecast_plan(replace(question, strips=(*question.strips, longer)))
    assert again.forecast.ei_spread < whole.forecast.ei_spread
    assert thin.name == "without the thinnest frame of each strip"
    assert forecast_plan(with_bracket(question, loaded, -3.0, 3.0)).forecast.ei_spread is None
    assert thin.shown == "no EI", "no frame would be as thin as the speed point"


def test_the_best_known_curves_are_counted_on(demo):
    loaded = sheet_of(demo, "Merrow")
    other = replace(loaded, test=replace(loaded.test, id=0))
    found = prior_finding(demo, other)
    assert (found.zone_ei, found.day) == (pytest.approx(75.7, rel=0.05), "2026-10-29")
    own = expected_film(125.0, found)
    assert own.basis == "this film's own curves of 2026-10-29"
    assert own.measured == pytest.approx((4.5, 17.5), rel=0.01)
    assert own.beyond(25.0)
    assert not own.beyond(9.0)
    measured = analyse(readings_of(loaded), settings_of(loaded, draws=0))
    for strip in expected_strips(loaded, own):
        mine = next(s for s in measured.strips if s.label == strip.label)
        assert strip.log_h_m.value == pytest.approx(mine.log_h_m.value, abs=0.03)
    told = forecast_plan(forecast_input(loaded, own))
    assert told.forecast.time_min.value == pytest.approx(found.minutes, rel=0.03)
    assert prior_finding(demo, loaded) is None, "a test does not foretell itself"


@pytest.mark.parametrize(
    ("question", "kind", "basis"),
    [
        ("", "average_gradient", "this film as it was found on 3 May"),
        ("not json", "average_gradient", "this film as it was found on 3 May"),
        ('{"strips": {}}', "average_gradient", "this film as it was found on 3 May"),
        ("", "zone8", "a typical film of this EI, assumed"),
        ("", AS_DEVELOPED, "a typical film of this EI, assumed"),
    ],
)
def test_a_finding_without_its_readings_still_moves_the_typical_film(question, kind, basis):
    found = PriorFinding(64.0, 9.0, kind, 0.58, "3 May", question)
    film = expected_film(125.0, found)
    assert film.basis == basis
    assert not drawn_at_once(found)
    if "found" in basis:
        curve = prior_curve(film.prior, 9.0)
        x_m = metrics.speed_point(curve)
        assert float(metrics.zone_ei(x_m)) == pytest.approx(64.0, rel=0.03)
        assert float(metrics.average_gradient(curve, x_m)) == pytest.approx(0.58, abs=0.01)


def test_readings_of_other_materials_do_not_speak_for_the_film(demo):
    loaded = sheet_of(demo, "Merrow")
    question = json.loads(loaded.findings[-1].basis)
    for label in "BCDE":
        question["strips"][label]["material"] = "stock 9"
    found = PriorFinding(80.0, 7.5, "average_gradient", 0.58, "today", json.dumps(question))
    assert expected_film(125.0, found).basis.startswith("this film as it was found"), (
        "one strip of its own tells no law"
    )


def test_the_smallest_plan_can_be_taken_and_keeps_its_word(notebook):
    loaded = planned(notebook, "time")
    found = smallest_plan(loaded, TYPICAL, 0.25)
    request = PlanEdit(loaded.test, (6.0, 8.0), "Merrow Pan 125", "Sable", "1+1")
    taken = found.taken(request)
    apply_plan(notebook, taken, "take it")
    fresh = load_test(notebook, loaded.test.id)
    told = forecast_plan(forecast_input(fresh, expected_film(taken.test.exposure_index, None)))
    assert 1.96 * told.forecast.ei_spread < 0.30
    assert f"{found.layout.frames} frames do" in found.sentence
    none = smallest_plan(loaded, TYPICAL, 0.02)
    assert none.layout is None
    assert none.taken(request) is request


def test_an_answer_is_that_of_the_kind(demo):
    one = sheet_of(demo, "Ostrel")
    analysis = analyse(readings_of(one), settings_of(one))
    asks_time = rating_of(state_of(one, analysis))
    assert not asks_time.ready
    assert asks_time.index.value == pytest.approx(320, rel=0.15)
    speed = replace(one, test=replace(one.test, kind="speed"))
    asks_index = rating_of(state_of(speed, analysis))
    assert (asks_index.ready, asks_index.target_kind) == (True, AS_DEVELOPED)
    assert asks_index.time_min.value == pytest.approx(8.0)
    standard = replace(analysis, settings=replace(analysis.settings, method="standard"))
    assert math.log2(
        rating_of(state_of(speed, standard)).index.value / asks_index.index.value
    ) == pytest.approx(0.655, abs=0.01)
    whole = sheet_of(demo, "Merrow")
    found = rating_of(state_of(whole, analyse(readings_of(whole), settings_of(whole))))
    assert (found.ready, found.target_kind) == (True, "average_gradient")


def test_the_newest_finding_with_a_time_stands_behind_a_plan(demo_path, tmp_path):
    demo = Notebook(shutil.copy(demo_path, tmp_path / "demo.vadrin"))
    loaded = sheet_of(demo, "Merrow")
    other = replace(loaded, test=replace(loaded.test, id=0))
    told = ((50.0, 0.0, "zone8", 75.7), (50.0, 8.0, AS_DEVELOPED, 75.7), (64.0, 9.0, "zone8", 64.0))
    for index, minutes, kind, counts in told:
        with demo.change("decide"):
            demo.add(
                Finding(
                    test_id=loaded.test.id,
                    decided_at="2026-11-02T10:00:00+00:00",
                    exposure_index=index,
                    time_min=minutes,
                    target_kind=kind,
                )
            )
        assert prior_finding(demo, other).zone_ei == pytest.approx(counts, rel=0.01)
    demo.undo()
    assert prior_finding(demo, other).zone_ei == pytest.approx(75.7, rel=0.01)
    demo.close()


def test_a_strip_of_another_film_does_not_answer_for_the_reference(demo):
    """Of a comparison only the other's strip is read: there is no EI of this film yet."""
    one = sheet_of(demo, "Ostrel")
    other = replace(one.strips[0], strip=replace(one.strips[0].strip, stock_id=99, position=1))
    loaded = replace(one, test=replace(one.test, kind="compare"), strips=(other,))
    answer = rating_of(state_of(loaded, analyse(readings_of(loaded), settings_of(loaded))))
    assert not answer.ready
    assert "read the reference" in answer.index.why


@pytest.mark.parametrize("kind", [p.key for p in descriptions()])
def test_only_a_bracket_on_film_is_dragged(notebook, kind):
    told = {
        "time",
        "speed",
        "push",
        "rescue",
        "compare",
        "colour",
        "reversal",
        "two developers",
        "cine",
    }
    assert has_bracket(start_kind(notebook, kind)) == (kind in told)

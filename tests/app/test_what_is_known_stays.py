"""Finding, advice and card in every state of a test: what is known stays, nothing is made up."""

from dataclasses import replace
from functools import cache

import pytest

from oracles.closed_form import ClosedForm
from tests.notebooks import new_test, parsed
from tests.states import state_of
from vadrin.app.decisions.darkroom_card import NOT_DECIDED, card_document, card_of, decided_card
from vadrin.app.decisions.decision import choose_target, decide
from vadrin.app.document.analysis_input import readings_of, settings_of
from vadrin.app.document.state import State
from vadrin.app.document.test_loading import load_test
from vadrin.app.plan.plan_edit import PlanEdit, apply_plan
from vadrin.app.plan.starting_tests import start_kind
from vadrin.app.process.development import develop_strip, strip_line
from vadrin.app.read.entering_readings import add_reading
from vadrin.app.read.reading_doubts import reading_doubt
from vadrin.app.results.headline import headline_of
from vadrin.app.results.next_act import mended, next_act
from vadrin.app.shelf.shelf_index import shelf_details
from vadrin.core.frames import FrameState
from vadrin.core.restated_time import usual_reference
from vadrin.core.results.analysis import analyse
from vadrin.core.results.hold_rule import HoldRule
from vadrin.errors import FormatError
from vadrin.formats.readings.readings_table import strips_of
from vadrin.notebook.records import Frame, Process, Strip

FILM = ClosedForm()

answer = cache(analyse)


def worked_out(loaded):
    return answer(readings_of(loaded), settings_of(loaded))


def shoot(book, test, times, developed=0, read=0, warm=20.0):
    """Expose all frames of a test, develop and read some of its strips truly."""
    strips = book.all(Strip, test_id=test.id)
    with book.change("shoot"):
        for place, strip in enumerate(strips):
            for frame in book.all(Frame, strip_id=strip.id):
                book.put(replace(frame, state=FrameState.EXPOSED))
            if place < developed:
                develop_strip(book, strip, times[place], warm)
    loaded = load_test(book, test.id)
    for strip in loaded.strips[:read]:
        fill(book, loaded, strip)
    return load_test(book, test.id)


def fill(book, loaded, strip):
    with book.change("read"):
        for frame in strip.frames:
            x = frame.log_h(loaded.test.meter_constant)
            add_reading(book, frame, round(FILM.density(x, strip.minutes), 3))


@pytest.fixture
def strips_of_film(notebook):
    def make(times, developed=None, read=None, warm=20.0, target=0.58):
        test = new_test(notebook, "Merrow Pan 125", "Sable", "1+1", 100.0, times)
        choose_target(notebook, test, "average_gradient", target)
        count = len(times)
        return shoot(
            notebook,
            test,
            times,
            count if developed is None else developed,
            count if read is None else read,
            warm,
        )

    return make


def test_the_ei_stays_in_sight_as_data_arrive(strips_of_film):
    one = strips_of_film((8.0,))
    assert headline_of(state_of(one, worked_out(one))).index.startswith("EI ")
    three = strips_of_film((4.0, 5.0, 6.0), target=0.95)
    headline = headline_of(state_of(three, worked_out(three)))
    assert headline.index.startswith("EI ")
    assert "as strip C was developed, 6:00 min" in headline.index_note
    assert all(f"{label} " in headline.index_note for label in "ABC")
    assert "not tested: longer than 6 min" in headline.index_note
    assert headline.time == "", "the EI is that strip's; no time is made up for the target"


@pytest.mark.parametrize(
    ("developed", "read", "act"),
    [
        (4, 1, "Read strip B: it was developed 8:00 min and waits."),
        (4, 2, "Read strip C: it was developed 12:00 min and waits."),
        (2, 2, "Develop strip C, planned for 12:00 min."),
    ],
)
def test_advice_names_what_lies_on_the_bench(strips_of_film, developed, read, act):
    loaded = strips_of_film((5.0, 8.0, 12.0, 17.0), developed, read)
    analysis = worked_out(loaded)
    assert next_act(state_of(loaded, analysis)) == act
    asked = [w for w in mended(state_of(loaded, analysis)) if w.key in ("one time", "two times")]
    assert asked
    assert all(w.remedy == act for w in asked), "no warning asks for a strip that is there"


def test_a_half_read_strip_is_read_on_before_another_is_asked_for(notebook, strips_of_film):
    loaded = strips_of_film((6.0, 9.0), read=1)
    with notebook.change("half"):
        for frame in loaded.strips[1].frames[:9]:
            x = frame.log_h(loaded.test.meter_constant)
            add_reading(notebook, frame, round(FILM.density(x, 9.0), 3))
    now = load_test(notebook, loaded.test.id)
    left = len(now.strips[1].frames) - 9
    assert next_act(state_of(now, worked_out(now))) == f"Read the other {left} frames of strip B."


def test_with_nothing_left_on_the_bench_a_new_strip_is_asked_for(strips_of_film):
    loaded = strips_of_film((6.0, 9.0))
    assert "Develop a third strip" in next_act(state_of(loaded, worked_out(loaded)))


class TestACardShowsItsDecision:
    @pytest.fixture
    def decided(self, notebook, strips_of_film):
        loaded = strips_of_film((5.0, 8.0, 12.0))
        before = card_of(state_of(loaded, worked_out(loaded)))
        decide(notebook, state_of(loaded, worked_out(loaded)), when="2026-10-29T19:20:00+00:00")
        return notebook, before, load_test(notebook, loaded.test.id)

    def test_before_it_says_that_nothing_is_decided(self, decided):
        _, before, _ = decided
        assert before.status == NOT_DECIDED
        assert card_document(before, "A6").startswith(b"%PDF")

    def test_after_it_is_what_was_decided_whatever_is_changed(self, decided):
        book, before, loaded = decided
        kept = card_of(state_of(loaded, worked_out(loaded)))
        assert kept == replace(before, status="decided 2026-10-29")
        choose_target(book, loaded.test, "average_gradient", 0.72)
        changed = load_test(book, loaded.test.id)
        analysis = worked_out(changed)
        assert analysis.finding.time_min.value > loaded.findings[-1].time_min * 1.1
        assert card_of(state_of(changed, analysis)) == kept

    def test_the_shelf_says_what_was_changed(self, decided):
        book, _, loaded = decided
        detail = shelf_details(book, [loaded.test.id])[loaded.test.id]
        assert detail.changed == ""
        choose_target(book, loaded.test, "average_gradient", 0.72)
        detail = shelf_details(book, [loaded.test.id])[loaded.test.id]
        assert detail.changed == "since it was decided: the target changed"
        strip = loaded.strips[1]
        choose_target(book, loaded.test, "average_gradient", 0.58)
        add_reading(book, strip.frames[3], 1.9)
        detail = shelf_details(book, [loaded.test.id])[loaded.test.id]
        assert "1 frame differs on strip B" in detail.changed

    def test_the_rule_of_pushes_is_part_of_it(self, decided):
        book, before, loaded = decided
        assert before.rule == "highlight density"
        with book.change("rule"):
            book.put(replace(loaded.test, push_rule=HoldRule.MIDTONE))
        changed = load_test(book, loaded.test.id)
        assert card_of(state_of(changed, worked_out(changed))).rule == "highlight density", (
            "as decided"
        )
        detail = shelf_details(book, [loaded.test.id])[loaded.test.id]
        assert "the rule of pushes changed" in detail.changed

    @pytest.mark.parametrize(
        "kept", ["{", "[]", "null", '{"rows": 3}', '{"film": "x", "rows": []}']
    )
    def test_a_card_that_was_tampered_with_breaks_nothing(self, decided, kept):
        _, before, loaded = decided
        odd = replace(loaded, findings=(replace(loaded.findings[0], card=kept),))
        assert decided_card(odd, before) == replace(before, status="decided 2026-10-29")

    def test_one_from_before_cards_were_kept_claims_no_more_than_it_knows(self, decided):
        _, before, loaded = decided
        old = replace(loaded, findings=(replace(loaded.findings[0], card=""),))
        assert decided_card(old, before) == replace(before, status="decided 2026-10-29")
        target = replace(old.test, target_value=0.72)
        changed = replace(old, test=target)
        card = decided_card(changed, before)
        assert (card.exposure_index, card.time) == (before.exposure_index, before.time)
        assert card.rows == ()
        assert "changed since" in card.basis


@pytest.mark.parametrize(
    ("temperatures", "reference"),
    [
        ((), 20.0),
        ((None, None), 20.0),
        ((20.0, 24.0), 20.0),
        ((13.0,), 20.0),
        ((27.5,), 20.0),
        ((37.8, 37.8, 38.0), 37.8),
        ((29.0, 30.0), 29.5),
        ((38.0, 21.0), 20.0),
    ],
)
def test_times_are_restated_at_a_temperature_near_those_of_the_baths(temperatures, reference):
    assert usual_reference(temperatures) == reference


def test_a_warm_process_is_restated_at_its_own_temperature(notebook, strips_of_film):
    with notebook.change("process"):
        warm = notebook.add(Process(name="warm", temperature_c=37.8))
    loaded = strips_of_film((3.0, 3.5, 4.5), warm=37.8)
    for process_id in (None, warm.id):
        with notebook.change("as in"):
            notebook.put(replace(loaded.test, process_id=process_id))
        now = load_test(notebook, loaded.test.id)
        analysis = worked_out(now)
        assert [s.restated_min for s in analysis.strips] == [3.0, 3.5, 4.5]
        assert strip_line(now.strips[0].strip, 37.8).restated == "3:00"
        assert "20 °C" not in headline_of(state_of(now, analysis)).time_note
        assert not [w for w in analysis.diagnostics if w.key == "temperature"]


def test_a_table_of_a_warm_process_is_not_restated_at_20_degrees():
    rows = [
        f"{label},{i},{time},37.8,{x:.2f},{FILM.density(x, time):.3f}"
        for label, time in (("A", 3.0), ("B", 4.0))
        for i, x in enumerate((-3.0, -2.5, -2.0, -1.5, -1.0, -0.5, 0.0))
    ]
    table = parsed("strip,frame,time_min,temperature_c,log_h,density\n" + "\n".join(rows))
    assert [s.restated_min for s in analyse(strips_of(table)).strips] == [3.0, 4.0]


class TestReadingsThatCannotBeRight:
    """Nothing is thinner than base plus fog; full light gives the most."""

    @pytest.fixture
    def half(self, notebook, strips_of_film):
        loaded = strips_of_film((8.0,), read=0)

        def read(*pairs):
            for place, density in pairs:
                add_reading(
                    notebook, load_test(notebook, loaded.test.id).strips[0].frames[place], density
                )
            now = load_test(notebook, loaded.test.id)
            return reading_doubt(State(now), now.strips[0].frames[pairs[-1][0]])

        return read

    @pytest.mark.parametrize(
        ("pairs", "words"),
        [
            (((0, 0.26), (6, 0.02)), "Thinner than the blank, frame 1 (blank), at 0.26?"),
            (((0, 0.26), (1, 1.19)), "Frame 1 (blank) reads 0.26: blanks of a strip are alike."),
            (((7, 0.60), (0, 0.95)), "A blank, and denser than frame 8 (−1) at 0.60"),
            (((0, 1.19),), "base plus fog is seldom above 1"),
        ],
    )
    def test_it_is_questioned_at_once(self, half, pairs, words):
        assert words in half(*pairs)

    @pytest.mark.parametrize(
        "pairs", [((0, 0.26), (1, 0.28)), ((0, 0.26), (2, 0.25)), ((0, 0.26), (6, 0.31))]
    )
    def test_what_may_be_is_not_questioned(self, half, pairs):
        assert half(*pairs) == ""

    def test_a_fogged_piece_is_the_densest(self, notebook):
        test = start_kind(notebook, "rescue")
        apply_plan(notebook, PlanEdit(test, (8.0,), "Merrow Pan 125", "Sable", "1+1"), "plan")
        loaded = load_test(notebook, test.id)
        frames = loaded.strips[0].frames
        for place, density in ((0, 0.3), (len(frames) - 3, 1.6), (len(frames) - 1, 0.2)):
            add_reading(notebook, frames[place], density)
        now = load_test(notebook, loaded.test.id)
        last = now.strips[0].frames[-1]
        assert "Full light, and thinner than" in reading_doubt(State(now), last)
        add_reading(notebook, now.strips[0].frames[1], 2.0)
        now = load_test(notebook, loaded.test.id)
        assert "blanks of a strip are alike" in reading_doubt(State(now), now.strips[0].frames[1])

    def test_a_film_that_is_right_is_not_accused(self, strips_of_film):
        analysis = worked_out(strips_of_film((5.0, 8.0, 12.0)))
        assert not [w for w in analysis.diagnostics if w.key == "questionable blank"]

    def test_blanks_that_disagree_are_named_by_the_analysis(self, notebook, strips_of_film):
        loaded = strips_of_film((5.0, 8.0, 12.0))
        add_reading(notebook, loaded.strips[1].frames[0], 1.9)
        now = load_test(notebook, loaded.test.id)
        (warning,) = [w for w in worked_out(now).diagnostics if w.key == "questionable blank"]
        assert (warning.strip, "1" in warning.frames) == ("B", True)


class TestUnsaidStops:
    HEAD = "strip,frame,ei,stops,density\n"

    def test_a_row_called_blank_is_one(self):
        table = parsed(self.HEAD + "A,b1,100,,0.22\nA,blank 2,100,,0.23\nA,3,100,-2,0.6\n")
        assert [r.exposure(8.125) is None for r in table.rows] == [True, True, False]
        assert table.problems == ()

    def test_any_other_is_asked_about(self):
        table = parsed(self.HEAD + "A,4,100,,0.22\nA,5,100,0,0.7\n")
        (problem,) = table.problems
        assert (problem.row, problem.column) == (2, "stops")
        assert "0 for its own exposure" in problem.sentence()
        assert [r.density for r in table.rows] == [0.7]

    def test_eis_alone_are_exposures_by_the_meter(self):
        table = parsed("strip,frame,ei,density\nA,1,100,0.6\nA,2,50,0.8\n")
        assert table.problems == ()
        assert all(r.exposure(8.125) is not None for r in table.rows)

    @pytest.mark.parametrize("density", ["-1", "-0.2", "11", "nan"])
    def test_a_density_outside_what_is_asked_is_a_problem(self, density):
        table = parsed(f"strip,frame,log_h,density\nA,1,-2,{density}\nA,2,-1,0.5\n")
        assert [p.column for p in table.problems] == ["density"]

    def test_a_table_of_nothing_is_refused(self):
        with pytest.raises(FormatError, match="no readings"):
            parsed("strip,frame,log_h,density\n")

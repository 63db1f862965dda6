"""Answers of services that stand alone, each beside what was worked out beforehand."""

from dataclasses import replace
from io import BytesIO

import numpy as np
import pytest
from PIL import Image

from tests.app.test_kind_answers import PLAIN, Bench
from tests.states import state_of
from vadrin.app.curves.curve_lines import index_ticks
from vadrin.app.decisions.decision import decide
from vadrin.app.display.marks import marked_ei
from vadrin.app.findings.kept_report import KeptBasis, KeptPush, KeptReport
from vadrin.app.findings.latest_finding import LatestFinding
from vadrin.app.plan.plan_edit import PlanEdit
from vadrin.app.plan.plan_words import WORDS
from vadrin.app.results.next_act import next_act
from vadrin.app.scans.kept_scans import preview_of
from vadrin.app.test_types.colour_push.colours import _said as colours_said
from vadrin.app.test_types.data_sheet import data_sheet_answer
from vadrin.core.figure import Figure
from vadrin.core.planning.test_types import type_of
from vadrin.core.results.hold_rule import HoldRule
from vadrin.core.results.next_step import Act, NextStep
from vadrin.errors import EntryError
from vadrin.notebook.records import Frame, MakerTime, Reading, Strip, Test


def pushes(*known):
    """Pushes of a finding: stops, minutes and stops of shadow lost."""
    rule = HoldRule.HIGHLIGHT.value
    return tuple(
        KeptPush(stops, {rule: Figure(*minutes)}, {rule: Figure(lost)})
        for stops, minutes, lost in known
    )


def test_between_two_pushes_time_goes_by_ratio_and_shadow_by_difference():
    found = LatestFinding(
        100.0, 8.0, HoldRule.HIGHLIGHT, pushes((0.0, (8.0, 7.5, 8.5), 0.0), (2.0, (18.0,), 1.5))
    )
    half = found.minutes(1.0, HoldRule.HIGHLIGHT.value)
    assert half.value == pytest.approx(12.0)
    assert (half.low, half.high) == (None, None), "of one end no range is known"
    assert found.shadow_lost(1.0).value == pytest.approx(0.75)
    assert found.minutes(0.0, HoldRule.HIGHLIGHT.value) == Figure(8.0, 7.5, 8.5)
    assert not found.minutes(2.5, HoldRule.HIGHLIGHT.value).present
    assert not found.minutes(1.0, "makers_table").present


@pytest.mark.parametrize(
    "text",
    ["", "[]", "null", "3", '{"push": 4}', '{"strips": [1]}', '{"answer": {"says": 4}}', "{"],
)
def test_a_report_of_no_known_form_is_empty_and_breaks_nothing(text):
    report = KeptReport.from_json(text)
    assert (report.strips, report.pushes, report.answer) == ({}, (), None)
    assert not report.time_min.present
    assert KeptBasis.from_json(text) is None


def test_what_a_report_holds_is_read_as_it_was_written():
    text = (
        '{"strips": {"A": {"time_min": 8, "zone_ei": {"value": 80, "low": 70, "high": 90},'
        ' "gamma": {"value": null, "why": "no"}}}, "finding": {"target": {"kind": "gamma",'
        ' "value": 0.6}, "time_min": {"value": 7.5}}, "push": [{"stops": 1, "hold_highlight":'
        ' {"time_min": {"value": 9}, "shadow_loss_stops": {"value": 0.8}}}, "odd"],'
        ' "answer": {"says": "so", "figures": {"best_ei": 50, "words": "none"}}}'
    )
    report = KeptReport.from_json(text)
    assert report.strips["A"].figure("zone_ei") == Figure(80.0, 70.0, 90.0)
    assert report.strips["A"].figure("gamma").value is None
    (push,) = report.pushes
    assert (push.minutes["hold_highlight"].value, push.shadow_lost["hold_highlight"].value) == (
        9.0,
        0.8,
    )
    assert (report.target_kind, report.target_value, report.time_min.value) == ("gamma", 0.6, 7.5)
    assert report.answer.figures == {"best_ei": Figure(50.0)}


def test_ei_marks_stand_four_stops_under_the_meter():
    (at, name) = next(t for t in index_ticks(-3.0, 1.0, 8.125) if t[1] == "100")
    assert (at, name) == (pytest.approx(np.log10(8.125 / 16 / 100)), "100")


def test_a_preview_keeps_white_white_and_half_as_an_eye_sees_it():
    shown = np.asarray(Image.open(BytesIO(preview_of(np.array([[0.0, 0.2177, 1.0]] * 8)))))
    assert shown[0, -1] >= 253
    assert shown[0, 0] <= 4
    assert 88 < int(shown[0, 1]) < 168


@pytest.mark.parametrize(
    ("stops", "words"), [(None, "usable to 1 stop of push."), (2.0, "salvageable to 2 stops.")]
)
def test_colour_says_how_far_it_can_be_salvaged_only_where_it_was_judged(stops, words):
    said = colours_said([], 1.0, stops)[1]
    assert said.endswith(words)
    assert ("salvageable" in said) is (stops is not None)


@pytest.fixture
def compared(notebook):
    """Two developers over the same exposures: strips of two times, so no single one."""
    bench = Bench(notebook, "compare", compared_names=("Tarn 1+9",), times=(8.0,))
    for strip in bench.book.all(Strip, test_id=bench.test.id):
        with bench.book.change("another time"):
            bench.book.put(replace(strip, time_min=8.0 + strip.position))
    bench.read(lambda s, f: PLAIN.density(bench.at(f), s.minutes))
    return bench


def test_a_decision_over_several_times_names_none(compared):
    kind = type_of("compare")
    assert kind.compares_materials
    found = decide(compared.book, state_of(compared.loaded, compared.analysis))
    assert found.time_min == 0.0
    assert found.exposure_index > 0
    with compared.book.change("the same time"):
        for strip in compared.book.all(Strip, test_id=compared.test.id):
            compared.book.put(replace(strip, time_min=8.0))
    again = decide(compared.book, state_of(compared.loaded, compared.analysis))
    assert again.time_min == 8.0


def test_a_sheet_that_was_traced_shows_its_curves(notebook):
    bench = Bench(notebook, "data sheet", times=(8.0, 10.0))
    with notebook.change("traced"):
        for strip in notebook.all(Strip, test_id=bench.test.id):
            for place, x in enumerate(np.linspace(-3.0, 0.5, 8)):
                frame = notebook.add(
                    Frame(strip_id=strip.id, position=90 + place, name=f"{place}", log_h=float(x))
                )
                dense = PLAIN.density(x, strip.planned_min)
                notebook.add(Reading(frame_id=frame.id, density=round(dense, 3)))
    plot = bench.answer.plot
    assert plot is not None
    assert len(plot.series) == len(bench.loaded.strips)
    assert all(len(each.points) > 5 for each in plot.series)


def test_the_firmest_act_is_named_only_where_it_is_worth_it(notebook):
    bench = Bench(notebook, "time", times=(5.0, 7.0, 10.0, 14.0), step=0.5)
    bench.read(lambda s, f: PLAIN.density(bench.at(f), s.minutes), noise=0.004)
    loaded, analysis = bench.loaded, replace(bench.analysis, diagnostics=())
    again = NextStep(Act.REPEAT_FRAME, "B", "7", None, None, 0.3)
    for steps, words in (
        ((), "Check it on paper"),
        ((replace(again, narrowing=0.01),), "Check it on paper"),
        ((again,), "Read strip B, frame 7 again"),
    ):
        told = next_act(state_of(loaded, replace(analysis, next_steps=steps, push=())))
        assert told.startswith(words)


def test_a_plan_steps_its_time_by_half_a_minute_and_takes_one_strip():
    word = WORDS["time"]
    assert [word.step("8", way) for way in (1, -1)] == ["8:30", "7:30"]
    assert word.step("0:30", -1) == "0:30"
    plan = PlanEdit(Test(), (6.0, 8.0), "Kelda Pan", "Sable", "1+1")
    assert WORDS["strips"].edit(plan, "1").times == (6.0,)
    assert WORDS["strips"].edit(plan, "3").times == (6.0, 8.0, 11.0)
    with pytest.raises(EntryError, match="a test has 1 to"):
        WORDS["strips"].edit(plan, "0")


def test_the_eis_a_maker_prints_times_for_are_what_people_use(notebook):
    bench = Bench(notebook, "data sheet", index=100.0, times=(8.0,))
    test = bench.test
    with notebook.change("the maker's times"):
        for stops, minutes in ((-1.0, 6.0), (0.0, 8.0), (2.0, 14.0)):
            line = MakerTime(
                stock_id=test.stock_id, developer_id=test.developer_id, stops=stops,
                time_min=minutes,
            )  # fmt: skip
            notebook.add(line)
    rows = {row[0]: row[1:] for row in data_sheet_answer(state_of(bench.loaded)).table.rows}
    box = bench.loaded.stock.box_speed
    shown, said = rows["EIs it has times for"]
    assert shown == ", ".join(f"{marked_ei(box * 2.0**s):g}" for s in (-1, 0, 2))
    assert "no speed" in said

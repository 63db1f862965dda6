"""A result is worded once: column, table, card, terminal and report say the same of a push."""

import json
import re
from dataclasses import replace

import pytest

from tests.states import state_of
from vadrin.app.decisions.darkroom_card import card_of
from vadrin.app.display.quantities import minutes_text, shadow_detail_text
from vadrin.app.display.verdict_words import shadow_words
from vadrin.app.document.analysis_input import readings_of, settings_of
from vadrin.app.document.test_loading import load_test
from vadrin.app.results.headline import headline_of
from vadrin.app.results.method_rows import method_lines
from vadrin.app.results.metric_rows import SHOWN_FIGURES, strip_cell, strip_heading
from vadrin.app.results.push_rows import NOT_TESTED, RULE_NAMES, push_lines
from vadrin.app.results.report import report_of
from vadrin.app.shelf.shelf_index import shelf_lines
from vadrin.commands.terminal_tables import tables_of
from vadrin.core.figure import Figure
from vadrin.core.results.analysis import analyse
from vadrin.core.results.hold_rule import HoldRule
from vadrin.core.results.push import ShadowVerdict, shadow_verdict
from vadrin.notebook.store import Notebook


@pytest.fixture(scope="module")
def told(demo_path):
    """The whole demo test: its sheet, its analysis, and its report as a file holds it."""
    book = Notebook(demo_path)
    line = next(x for x in shelf_lines(book) if x.film.startswith("Merrow"))
    loaded = load_test(book, line.test_id)
    analysis = analyse(readings_of(loaded), settings_of(loaded))
    yield loaded, analysis, json.loads(json.dumps(report_of(analysis, "demo")))
    book.close()


def worded(minutes):
    return NOT_TESTED if minutes is None else minutes_text(minutes)


def times_by(analysis, rule):
    return [worded(p.by(rule).time_min.value) for p in analysis.push]


def times_in(report, row):
    return [worded(push[row]["time_min"].get("value")) for push in report["push"]]


def test_the_two_rules_are_apart_enough_to_be_told_from_each_other(told):
    _, analysis, _ = told
    held = [times_by(analysis, rule) for rule in (HoldRule.HIGHLIGHT, HoldRule.MIDTONE)]
    for push, high, mid in zip(analysis.push, *held, strict=True):
        assert (high == mid) == (push.stops == 0), "else a swap could not be seen"


def ruled(loaded, rule):
    return replace(loaded, test=replace(loaded.test, push_rule=rule), findings=())


@pytest.mark.parametrize("rule", HoldRule)
def test_the_tests_own_rule_is_named_wherever_one_time_is(told, rule):
    loaded, analysis = ruled(told[0], rule), told[1]
    wanted = times_by(analysis, rule)
    assert [line.time.shown for line in push_lines(analysis, rule)] == wanted
    headline = headline_of(state_of(loaded, analysis))
    assert [line.time.shown for line in headline.pushes] == wanted
    assert headline.push_rule == RULE_NAMES[rule]
    card = card_of(state_of(loaded, analysis))
    assert ([row.time for row in card.rows], card.rule) == (wanted, RULE_NAMES[rule])


def test_the_terminal_and_the_report_name_the_rule_of_each_time(told):
    _, analysis, report = told
    wanted = times_by(analysis, HoldRule.HIGHLIGHT)
    assert times_in(report, "hold_highlight") == wanted
    lines = [x for x in tables_of(analysis) if re.match(r"(push|pull) \d|normal", x)]
    assert [re.search(r"EI \d+ +(\d+:\d\d)", line)[1] for line in lines] == wanted
    assert f"pushes, {RULE_NAMES[HoldRule.HIGHLIGHT]}:" in tables_of(analysis)


def test_the_mid_tone_held_time_stands_beside_it_in_table_and_report(told):
    _, analysis, report = told
    wanted = times_by(analysis, HoldRule.MIDTONE)
    assert [line.by_rule[HoldRule.MIDTONE].shown for line in push_lines(analysis)] == wanted
    assert times_in(report, "hold_midtone") == wanted


def test_what_a_push_loses_is_said_alike(told):
    loaded, analysis = ruled(told[0], HoldRule.HIGHLIGHT), told[1]
    for line, row, push in zip(
        push_lines(analysis), card_of(state_of(loaded, analysis)).rows, analysis.push, strict=True
    ):
        loss = push.by(HoldRule.HIGHLIGHT).shadow_loss_stops.known()
        assert line.loss == row.shadow == shadow_detail_text(loss)
        assert line.verdict == shadow_verdict(loss)
        assert row.verdict == shadow_words(line.verdict)
        assert line.grave == shadow_verdict(loss).grave
        assert line.normal == row.normal == (push.stops == 0)
        assert (line.rule_of_thumb is None) == (push.stops == 0)


def test_bold_and_red_come_from_fields_and_not_from_words(told):
    _, analysis, _ = told
    odd = replace(analysis.push[1], stops=1.0)
    lines = push_lines(replace(analysis, push=(odd, replace(odd, stops=0.0))))
    assert [line.normal for line in lines] == [False, True]
    assert {v.grave for v in ShadowVerdict} == {True, False}
    chosen = [line for line in method_lines(analysis) if line.chosen]
    assert len(chosen) == 1
    assert chosen[0].time == minutes_text(analysis.finding.time_min.known())


def test_what_was_not_tested_says_why_and_is_never_a_number(told):
    loaded, analysis, _ = told
    first = analysis.push[-1]
    why = "longer than 17.5 min; run a strip for more"
    missing = {rule: replace(first.by(rule), time_min=Figure(None, why=why)) for rule in HoldRule}
    hidden = replace(
        first, hold_highlight=missing[HoldRule.HIGHLIGHT], hold_midtone=missing[HoldRule.MIDTONE]
    )
    changed = replace(analysis, push=(*analysis.push[:-1], hidden))
    line = push_lines(changed)[-1]
    assert (line.time.shown, line.time.why, line.tested) == ("not tested", why, False)
    assert (line.loss, line.verdict) == ("", None), "none is a loss; not tested is no loss known"
    assert card_of(state_of(replace(loaded, findings=()), changed)).rows[-1].time == "not tested"
    assert why in "\n".join(tables_of(changed))


def test_strips_are_headed_and_measured_alike_on_screen_and_terminal(told):
    _, analysis, report = told
    text = "\n".join(tables_of(analysis))
    for strip in analysis.strips:
        assert strip_heading(strip).startswith(f"{strip.label}, ")
        for shown in SHOWN_FIGURES:
            cell = strip_cell(strip, shown)
            assert cell.shown != "—" or cell.why
            if shown.key in ("zone_ei", "average_gradient"):
                assert cell.with_spread in text
        assert report["strips"][strip.label]["zone_ei"]["value"] == pytest.approx(
            strip.zone_ei.known()
        )

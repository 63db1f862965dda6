"""Pictures of a test that lie beside another test's: a pushed roll, old film, a maker's sheet."""

from __future__ import annotations

from dataclasses import replace
from math import log2

from vadrin.app.document.state import State
from vadrin.app.document.test_loading import load_test
from vadrin.app.entry.reciprocity_entry import reciprocity_typed
from vadrin.app.findings.kept_report import PUSH_RULES
from vadrin.app.findings.latest_finding import LatestFinding, latest_finding
from vadrin.app.pictures.exposed import Exposed, exposed_of
from vadrin.app.pictures.grade_pictures import on_grades
from vadrin.app.results.push_rows import PUSH_RULE_NAMES
from vadrin.core.exposure.arithmetic import nearest_third
from vadrin.core.exposure.reciprocity import corrected_time, stops_lost
from vadrin.core.planning.test_types.data_sheet import DataSheet
from vadrin.core.planning.test_types.long_exposures import LongExposures
from vadrin.core.planning.test_types.paper import PaperTest
from vadrin.core.planning.test_types.rescue import Rescue
from vadrin.core.planning.test_types.wrong_setting import WrongSetting
from vadrin.notebook.store import Notebook

Shown = tuple[tuple[State, Exposed], ...]
"""Pictures, each with the test whose curves it is of."""
_BESIDE = (Rescue.key, DataSheet.key)
_LONG_S = 60.0
_APART = 1.02
"""Ratio of times under which two rules give one picture."""


def shown_pictures(notebook: Notebook, state: State) -> Shown:
    """The pictures of a test, and what it is laid beside."""
    own = tuple((state, exposed) for exposed in exposed_of(state))
    kind = state.loaded.test.kind
    if kind == PaperTest.key:
        return on_grades(notebook, state)
    if kind not in (*_BESIDE, WrongSetting.key, LongExposures.key):
        return own
    found = latest_finding(notebook, state.loaded.test)
    other = load_test(notebook, found.test_id) if found is not None else None
    if found is None or other is None:
        return own
    if kind == WrongSetting.key:
        return tuple((State(other), each) for each in _by_rules(state, found))
    if kind == LongExposures.key:
        return tuple((State(other), each) for each in _long(state, found))
    fresh = Exposed(found.exposure_index, found.time_min, name="as you found it")
    if kind == Rescue.key:
        fresh = replace(fresh, name="fresh film")
        old = tuple((s, replace(e, name=f"this film, {e.name}")) for s, e in own)
        return ((State(other), fresh), *old)
    normal = tuple((s, replace(e, name="the maker's")) for s, e in own if e.normal) or own[:1]
    return (*normal, (State(other), fresh))


def _long(state: State, found: LatestFinding) -> list[Exposed]:
    """A minute by the meter, lengthened by the film's kept law and not; none without a law."""
    law = reciprocity_typed(state.loaded.stock.reciprocity)
    if law is None:
        return []
    needed = corrected_time(law, _LONG_S)
    index = found.exposure_index * 2.0 ** stops_lost(law, _LONG_S)
    return [
        Exposed(
            found.exposure_index,
            found.time_min,
            name=f"{_LONG_S:g} s by the meter, given {needed:.0f} s",
            normal=True,
        ),
        Exposed(index, found.time_min, name=f"given {_LONG_S:g} s, as if at"),
    ]


def _by_rules(state: State, found: LatestFinding) -> list[Exposed]:
    """The whole roll as each rule would develop it, the rule one works by framed."""
    index = state.loaded.test.exposure_index
    stops = nearest_third(log2(index / found.exposure_index))
    made: list[Exposed] = []
    for rule in sorted(PUSH_RULES, key=lambda rule: rule != found.rule.value):
        minutes = found.minutes(stops, rule).value
        same = [e for e in made if e.minutes and minutes and _alike(e.minutes, minutes)]
        if minutes is not None and not same:
            name, own = PUSH_RULE_NAMES[rule], rule == found.rule.value
            made.append(Exposed(index, minutes, name=name, normal=own))
    return made


def _alike(one: float, other: float) -> bool:
    return max(one / other, other / one) < _APART

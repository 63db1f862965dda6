"""Every kind of test is one object; what hangs on it is used wherever it matters."""

import re
import subprocess
import sys
from pathlib import Path

import pytest

import vadrin
from vadrin.app.descriptions import description_of, descriptions
from vadrin.app.descriptions.description import PlanSentence
from vadrin.app.plan.plan_words import WORDS
from vadrin.core.frames import FrameRole
from vadrin.core.planning import test_types as room
from vadrin.core.planning.layout import lay_out_plan
from vadrin.core.planning.plan_request import PlanRequest
from vadrin.core.planning.test_types import Asks, Foretold, all_types, type_of
from vadrin.core.readings import Reading, StripReadings
from vadrin.core.results.analysis_result import Settings
from vadrin.core.results.criteria import MEASURES, Target
from vadrin.core.results.rating_method import METHODS, RATING_METHODS
from vadrin.errors import PlanError

SOURCE = Path(vadrin.__file__).parents[1]


def request_of(page, **changes):
    asked = {
        "kind": page.key,
        "exposure_index": 100.0,
        "first": page.first,
        "last": page.last,
        "step": page.step,
        "blanks": 2,
        "times": page.times,
        "options": page.options_to_begin,
    }
    return PlanRequest(**{**asked, **changes})


def test_every_kind_has_one_page_in_the_same_order():
    assert [page.key for page in descriptions()] == list(all_types())
    assert len(descriptions()) == 16
    assert all(
        page.question.endswith("?") and page.sentence.endswith(".") for page in descriptions()
    )


@pytest.mark.parametrize("page", descriptions(), ids=lambda page: page.key)
def test_a_kind_lays_out_what_it_says_it_needs(page):
    strips = lay_out_plan(request_of(page, repeat_first=True))
    roles = [f.role for s in strips for f in s.frames]
    assert (FrameRole.CHECK in roles) == page.kind.repeats_first
    if page.kind.needs_blank:
        with pytest.raises(PlanError, match="blank"):
            lay_out_plan(request_of(page, blanks=0))
    assert (PlanSentence.OWN in page.sentences[1:]) == bool(page.own_sentence)
    assert set(re.findall(r"\{(\w+)\}", page.own_sentence)) == set(page.own_words)
    assert not set(page.own_words) & set(WORDS), "a word of every plan has that key"
    assert isinstance(page.options_to_begin, type(page.kind.options))


def test_a_type_is_known_once(monkeypatch):
    assert type_of("nothing of the kind") is None
    assert description_of("nothing of the kind").key == "time"
    monkeypatch.setattr(room, "NAMES", (*room.NAMES, "speed"))
    with pytest.raises(ValueError, match="speed"):
        type_of("time")


_ANSWERS = """
import importlib, os, sys
import numpy, scipy.optimize, scipy.stats
for module in sys.argv[1:]:
    if os.fork() == 0:
        importlib.import_module(module)
        from vadrin.app.descriptions import answers_itself
        from vadrin.core.planning.test_types import all_types
        print(len(all_types()), sum(map(answers_itself, all_types())), module, flush=True)
        os._exit(0)
    os.wait()
"""
_SERVICES = sorted(
    ".".join(path.relative_to(SOURCE).with_suffix("").parts)
    for path in (SOURCE / "vadrin" / "app").rglob("*.py")
    if path.name != "__init__.py"
)


def test_every_type_answers_whatever_was_imported_alone():
    """A fresh program each, but for the numerical packages."""
    alone = _SERVICES[:: max(1, len(_SERVICES) // 6)]
    done = subprocess.run(
        [sys.executable, "-c", _ANSWERS, *alone], capture_output=True, text=True, check=True
    )
    assert done.stdout.splitlines() == [f"16 13 {module}" for module in alone]


def test_kinds_that_ask_for_a_time_foretell_one():
    for key in all_types():
        kind = type_of(key)
        if kind.foretold is Foretold.NOTHING:
            assert kind.not_foretold.endswith(".")
        if kind.foretold is Foretold.EI_AND_TIMES:
            assert kind.asks is not Asks.OTHER


@pytest.mark.parametrize("key", sorted(all_types()))
def test_every_kind_works_its_readings_out(key):
    readings = tuple(
        Reading(
            str(n), None if n == 0 else -3.0 + 0.3 * n, 0.2 + (0.0 if n < 3 else 0.15 * (n - 3))
        )
        for n in range(13)
    )
    strip = StripReadings("A", 8.0, 20.0, readings)
    answer = type_of(key).analyse((strip,), Settings(draws=8))
    assert [s.label for s in answer.strips] == ["A"]
    assert answer.strips[0].zone_ei.present


@pytest.mark.parametrize("key", MEASURES)
def test_a_measure_of_contrast_holds_all_that_is_known_of_it(key):
    measure = MEASURES[key]
    assert measure.key == key
    assert measure.lowest <= measure.usual <= measure.highest
    assert measure.pattern.format(measure.usual) != measure.pattern
    assert (Target(key, measure.usual).span > 0) is not measure.given
    with pytest.raises(ValueError, match="no such target"):
        Target("sharpness").measure  # noqa: B018


def test_only_some_methods_rate_and_each_says_what_it_asks():
    assert {s.key for s in METHODS.values() if s.rates_by} == set(RATING_METHODS)
    assert all(s.asks.endswith(".") for s in METHODS.values())
    # With k = 8.125 the standard's EI lies lg2(0.8 * 16 / 8.125) above that of Zone I.
    assert METHODS["standard"].stops_above_zone_ei() == pytest.approx(0.6558, abs=1e-3)
    assert METHODS["shadow"].stops_above_zone_ei() == 0.0


def test_the_first_of_films_compared_is_the_reference():
    strips = type_of("compare").lay_out(request_of(description_of("compare"), others=2))
    assert [s.note for s in strips] == ["the reference", "another", "another"]

"""What is typed into the newer fields is taken, or refused in words; never anything else."""

import random
import string
from contextlib import suppress
from itertools import pairwise

import pytest

from tests.notebooks import new_test
from vadrin.app.descriptions import description_of, descriptions
from vadrin.app.document.test_loading import load_test
from vadrin.app.plan.drafting import plan_request_of
from vadrin.app.plan.plan_edit import plan_edit_of
from vadrin.app.plan.plan_words import WORDS
from vadrin.app.printing.print_setups import present_room
from vadrin.app.printing.print_strips import next_strip, step_words, strip_typed
from vadrin.app.read.patch_entry import patch_typed
from vadrin.app.read.sheet_pictures import sheet_picture_typed
from vadrin.app.results.method_rows import method_typed
from vadrin.app.scans.scan_calibration import bracket_typed
from vadrin.core.planning.layout import lay_out_plan
from vadrin.core.planning.test_options import IndexSeries, options_from_json, options_to_json
from vadrin.errors import EntryError, PlanError

PIECES = (
    "",
    " ",
    "-",
    "−",
    "½",
    "1",
    "0",
    "9999999",
    "1e400",
    "nan",
    "inf",
    "red",
    "looks",
    "/",
    "EI",
    "stop",
    "s",
    "°",
    ",",
    ".",
    "1,5",
    "1/0",
    "\t",
    "é",
    "漢",
    "\u202e",
    "none",
    "lamp",
    "'",
    '"',
    "--",
    "0x10",
    "+",
    "*",
)


def nonsense(seed, count=120):
    """Words put together of what one may type, paste or lean on."""
    made = random.Random(seed)
    for _ in range(count):
        parts = [made.choice(PIECES) for _ in range(made.randint(1, 5))]
        if made.random() < 0.2:
            parts.append("".join(made.choices(string.printable, k=made.randint(1, 40))))
        yield made.choice(("", " ")).join(parts)


def tried(take, words):
    """What was made of some words, or the refusal."""
    try:
        return take(words), ""
    except EntryError as error:
        return None, str(error)


@pytest.mark.parametrize(
    "take",
    [patch_typed, sheet_picture_typed, bracket_typed, method_typed],
    ids=lambda take: take.__name__,
)
def test_a_line_is_taken_or_refused_in_words(take):
    refusals = [tried(take, words)[1] for words in nonsense(1)]
    assert sum(bool(why) for why in refusals) > 30
    assert all(why == why.strip() and "Traceback" not in why for why in refusals)


@pytest.mark.parametrize("name", ["first section", "step", "sections", "covering", "purpose"])
def test_a_strip_of_paper_stays_one_that_can_be_made(notebook, name):
    test = new_test(notebook, "Kelda Pan 200", "Sable", "1+1", kind="speed", times=(8.0,))
    asked = next_strip(present_room(notebook, load_test(notebook, test.id)))
    for words in nonsense(2):
        made, why = tried(lambda typed, before=asked: strip_typed(before, name, typed), words)
        assert made is not None or why.strip()
        asked = made or asked
        totals = asked.exposures.totals()
        assert all(b > a > 0 for a, b in pairwise(totals))
        assert totals[-1] <= 3600
        assert step_words(asked.exposures)


def _own_words():
    return [f"{page.key}/{name}" for page in descriptions() for name in page.own_words]


@pytest.mark.parametrize("key", [*_own_words(), "ei", "step", "times"])
def test_a_word_of_a_plan_leaves_a_plan(notebook, key):
    kind, _, name = key.rpartition("/")
    test = new_test(notebook, "Kelda Pan 200", "Sable", "1+1", kind=kind or "speed", times=(8.0,))
    loaded = load_test(notebook, test.id)
    plan = plan_edit_of(notebook, loaded)
    word = description_of(kind).own_words[name] if kind else WORDS[name]
    for words in nonsense(3, 80):
        changed, why = tried(lambda typed: word.edit(plan, typed), words)
        if changed is None:
            assert why.strip()
            continue
        assert changed.times
        assert all(0 < t < 10_000 for t in changed.times)
        kept = options_from_json(options_to_json(changed.test.options))
        assert kept == changed.test.options, "it is in the file as it was typed"
        with suppress(PlanError):  # too many frames, or none: refused in words
            assert lay_out_plan(plan_request_of(notebook, changed.test, changed.times))
        assert isinstance(word.shown(loaded, changed), str)


def test_a_series_is_stepped_and_typed_back(notebook):
    test = new_test(notebook, "Kelda Pan 200", "Sable", "1+1", kind="speed", times=(8.0,))
    loaded = load_test(notebook, test.id)
    plan, word = plan_edit_of(notebook, loaded), description_of("speed").own_words["series"]
    shown = word.shown(loaded, plan)
    assert shown == "none"
    for wanted in ("100", "100, 125", "100, 125, 160"):
        shown = word.step(shown, 1)
        assert shown == wanted
        plan = word.edit(plan, shown)
        assert word.shown(loaded, plan) == wanted
    assert word.step(word.step("100, 125", -1), -1) == "none"
    assert word.edit(plan, "none").test.options == IndexSeries()
    assert word.edit(plan, "400 50 100").test.options == IndexSeries((50.0, 100.0, 400.0))
    for twice in ("100 100", " ".join(str(100 + n) for n in range(13))):
        with pytest.raises(EntryError, match="each once"):
            word.edit(plan, twice)

"""The house's figures: what is held at nought is nought, and would be seen if it were not."""

import ast
import importlib.util
import re
import sys
from pathlib import Path

import pytest

from vadrin.app.curves.preloading import ANSWERS, COLOURS, NUMERICS, STORAGE, preload
from vadrin.core.wording import counted

ROOT = Path(__file__).parents[2]


def loaded(name):
    spec = importlib.util.spec_from_file_location(name, ROOT / "tools" / f"{name}.py")
    made = importlib.util.module_from_spec(spec)
    spec.loader.exec_module(made)
    return made


@pytest.fixture(scope="module")
def tool():
    return loaded("house_figures")


@pytest.fixture(scope="module")
def sentences():
    return loaded("sentences")


def test_every_sentence_stands_on_its_page(sentences):
    written = sentences.page()
    for said in (
        "- What do you want to know?",
        "- Strip {label} has no blank frame:",
        "- taken: on to the next frame",
        "- {path.name} is damaged or is no",
    ):
        assert said in written


def test_what_is_said_is_told_from_what_is_not(sentences):
    source = (
        'def style_sheet():\n    return "QLabel { color: red }"\n'
        'def page(n: "a kind of hint") -> "some text":\n'
        '    """What it does."""\n'
        '    row.setProperty("tone of it", n)\n'
        '    say("one thing")\n'
        '    say(f"it took {n:.1f} s")\n'
        '    say("Decide", "key")\n'
        '    ask("SELECT a FROM b")\n'
    )
    assert sentences.sentences_in(source) == ["one thing", "it took {n:.1f} s", "Decide"]


def test_things_are_counted_by_one_rule(sentences):
    """No sentence can say 1 strips: what is counted goes through `counted`."""
    loose = re.compile(
        r"\{(?!counted\()[^{}]*[a-z)\]][^{}]*\} "
        r"(strips|frames|readings|tests|cells|samples|columns|rows|blanks|rolls)\b"
    )
    told = sentences.by_station(ROOT)
    said = [w for rooms in told.values() for words in rooms.values() for w in words]
    assert len(said) > 800
    known = {"{name} strips, one curve each"}
    assert [w for w in said if loose.search(w) and w not in known and "_STRIPS" not in w] == []
    assert loose.search("{len(rows)} readings")
    assert not loose.search("a test has at most {MOST} strips")


@pytest.mark.parametrize(
    ("count", "noun", "words"),
    [
        (1, "strip", "1 strip"),
        (0, "strip", "0 strips"),
        (2, "batch", "2 batches"),
        (3, "lens", "3 lenses"),
        (4, "process", "4 processes"),
        (1, "lens", "1 lens"),
    ],
)
def test_counts_are_worded_rightly(count, noun, words):
    assert counted(count, noun) == words


def test_no_circles_no_names_used_twice_and_nothing_uncalled(tool):
    trees = tool.sources(ROOT)
    assert tool.circles(trees) == 0
    assert tool.file_names_used_twice(ROOT) == []
    assert tool.without_caller(ROOT, trees) == []


def test_what_is_wrong_with_a_house_is_seen(tool, tmp_path):
    rooms = tmp_path / "src" / "vadrin"
    for room in ("kitchen", "cellar"):
        (rooms / room).mkdir(parents=True)
        (rooms / room / "__init__.py").write_text("")
    (rooms / "kitchen" / "stove.py").write_text(
        "from vadrin.cellar.coal import fetch\n\ndef heat():\n    return fetch()\n"
    )
    (rooms / "cellar" / "coal.py").write_text(
        "from vadrin.kitchen import stove\n\ndef fetch():\n    return stove.heat()\n\n"
        "def forgotten():\n" + "    x = 1\n" * 40
    )
    (rooms / "cellar" / "stove.py").write_text("def heat():\n    return 1\n")
    (tmp_path / "tests").mkdir()
    (tmp_path / "tests" / "test_it.py").write_text("def test_it():\n    assert True\n")
    told = tool.figures(tmp_path)
    assert int(told["circles of imports, of modules and rooms"]) >= 1
    assert told["file names used twice"] == "1 stove.py"
    assert told["public names defined twice"] == "1 heat"
    assert told["functions over 30 lines"] == "1"
    assert told["functions without a caller"] == "1 vadrin.cellar.coal.forgotten"
    assert told["share of tests, every line counted"] == f"{100 * 2 / 54:.1f} %"


def test_an_import_inside_a_function_has_a_reason(tool):
    late = loaded("late_imports")
    trees = tool.sources(ROOT)
    assert late.needless(trees) == []
    planted = "def shown():\n    {}\n"
    room = "vadrin.ui.frame.header"
    for inside, wanted in (
        ("from vadrin.core.wording import counted", 1),
        ("import numpy", 0),
        ("from vadrin.core.results.analysis import analyse", 0),
        ("from vadrin.ui.frame.window import Window", 0),
    ):
        found = late.needless({**trees, room: ast.parse(planted.format(inside))})
        assert len(found) == wanted, inside


def test_what_is_loaded_ahead_is_there():
    for names in (STORAGE, NUMERICS, ANSWERS, COLOURS):
        preload(names)
        assert set(names) <= set(sys.modules)


def test_nothing_watches_the_whole_program():
    """A filter on the program meets widgets being deleted: see `input_watch`."""
    filters = {
        path.name
        for path in (ROOT / "src").rglob("*.py")
        if "installEventFilter(" in path.read_text(encoding="utf-8")
    }
    assert filters == {"input_watch.py"}, "on one widget, made by Python"


def test_words_are_drawn_as_the_region_writes_them():
    """A painter alone would leave points where commas are written."""
    drawn = [p.name for p in (ROOT / "src/vadrin/ui").rglob("*.py") if ".drawText" in p.read_text()]
    assert drawn == ["regional.py"]

"""The house's figures: what is held at nought is nought, and would be seen if it were not."""

import importlib.util
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[2]


@pytest.fixture(scope="module")
def tool():
    spec = importlib.util.spec_from_file_location("figures", ROOT / "tools" / "house_figures.py")
    made = importlib.util.module_from_spec(spec)
    spec.loader.exec_module(made)
    return made


def test_no_circles_no_names_used_twice_and_nothing_uncalled(tool):
    told = tool.figures(ROOT)
    assert told["circles of imports, of modules and rooms"] == "0"
    assert told["file names used twice"] == "0"
    assert told["functions without a caller"] == "0"


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

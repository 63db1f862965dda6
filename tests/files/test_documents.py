"""The documents say what is so: paths exist, names are defined, pictures and keys are there."""

import ast
import builtins
import importlib
import re
from pathlib import Path

import pytest

from vadrin.app.document.stations import STATIONS
from vadrin.notebook.columns import columns_of, table_name
from vadrin.notebook.inspection import SCHEMA_VERSION
from vadrin.notebook.records import RECORDS

ROOT = Path(__file__).parents[2]
DOCUMENTS = [ROOT / "README.md", ROOT / "CONTRIBUTING.md", *sorted(ROOT.glob("docs/**/*.md"))]
SOURCE = "\n".join(p.read_text(encoding="utf-8") for p in sorted(ROOT.glob("src/**/*.py")))


def text_of(name):
    return (ROOT / name).read_text(encoding="utf-8")


@pytest.mark.parametrize("path", DOCUMENTS, ids=lambda p: p.name)
def test_every_path_a_document_names_exists(path):
    text = path.read_text(encoding="utf-8")
    for target in re.findall(r"\]\(([^)#]+)\)", text):
        assert (path.parent / target).exists(), target
    for named in re.findall(
        r"`((?:src|core|app|ui|notebook|commands|tests|tools|docs)/[\w./]+)`", text
    ):
        places = (ROOT / named, ROOT / "src" / "vadrin" / named)
        assert any(p.exists() for p in places), named


def test_functions_said_to_wait_for_a_station_exist_and_wait():
    rows = text_of("docs/architecture.md").split("waiting for their station")[1]
    named = re.findall(r"`(core\.[\w.]+)`", rows)
    assert named
    for whole in named:
        module, _, name = whole.rpartition(".")
        assert callable(getattr(importlib.import_module(f"vadrin.{module}"), name))


def test_the_glossary_names_what_is_in_the_code():
    cells = [
        line.split("|")[4]
        for line in text_of("docs/glossary.md").splitlines()
        if line.count("|") == 5
    ]
    names = {n for cell in cells for n in re.findall(r"`(\w+)`", cell)}
    assert len(names) > 50
    missing = sorted(n for n in names if not re.search(rf"\b{n}\b", SOURCE))
    assert not missing


def test_the_format_page_names_every_table_and_column():
    text = text_of("docs/notebook-format.md")
    assert f"now {SCHEMA_VERSION}" in text
    assert f'"format": {SCHEMA_VERSION}' in text
    for kind in RECORDS:
        assert f"`{table_name(kind)}`" in text
    linked = ("id", "name", "note")
    for column in columns_of(next(k for k in RECORDS if k.__name__ == "Test")):
        if column.name not in linked and not column.name.endswith("_id"):
            assert f"`{column.name}`" in text, column.name


def test_every_main_view_has_its_picture_and_the_readme_shows_it():
    shown = text_of("README.md")
    pictures = sorted((ROOT / "docs" / "screenshots").glob("*.png"))
    assert 10 <= len(pictures) < 20
    assert {p.stem for p in pictures} >= {*STATIONS, "shelf", "cupboard", "question"}
    for picture in pictures:
        assert f"docs/screenshots/{picture.name}" in shown or picture.stem == "curves"


def test_no_registry_is_named_anywhere():
    for path in (*ROOT.glob("requirements*"), ROOT / "vadrin", ROOT / ".ci" / "run", *DOCUMENTS):
        text = path.read_text(encoding="utf-8")
        assert "index-url" not in text or "--no-emit-index-url" in text, path
        assert "://pypi" not in text, path
        if path.name.startswith("requirements"):
            assert "find-links" not in text, path


def _known_names():
    """Every name that code of the program defines, takes or uses."""
    known = set(dir(builtins)) | {"numpy", "scipy", "sqlite3", "Decimal"}
    for path in ROOT.glob("src/**/*.py"):
        known.add(path.stem)
        known |= {part for part in path.relative_to(ROOT / "src").parts if "." not in part}
        for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
            for field in ("name", "id", "attr", "arg", "module"):
                named = getattr(node, field, None)
                if isinstance(named, str):
                    known |= set(named.split("."))
            if isinstance(node, ast.Constant) and isinstance(node.value, str):
                # Columns of tables and keys of reports are named as they are written.
                known |= set(re.findall(r"\w+", node.value)) if len(node.value) < 60 else set()
    return known


def _docstrings(path):
    kinds = ast.Module | ast.ClassDef | ast.FunctionDef
    for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
        if isinstance(node, kinds):
            yield ast.get_docstring(node) or ""


def test_every_name_in_backquotes_exists():
    known, missing = _known_names(), []
    for path in sorted(ROOT.glob("src/**/*.py")):
        for words in _docstrings(path):
            for named in re.findall(r"(?<!`)`([A-Za-z_][\w.]*)`(?!`)", words):
                missing += [f"{path.name}: {named}" for n in named.split(".") if n not in known]
    assert not missing


def test_the_parameters_a_docstring_names_are_taken():
    """A name in a Parameters section belongs to the function, or to what its class is made of."""
    missing = []
    for path in sorted(ROOT.glob("src/**/*.py")):
        for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
            if isinstance(node, ast.FunctionDef):
                missing += [f"{path.name}: {node.name}: {n}" for n in _said_and_not_taken(node)]
    assert not missing


def _said_and_not_taken(function):
    words = ast.get_docstring(function) or ""
    section = re.search(r"Parameters\n-+\n(.*?)(?:\n\n?\w+\n-+\n|\Z)", words, re.S)
    said = re.findall(r"^(\w[\w, *]*?) : ", section[1], re.M) if section else []
    a = function.args
    taken = {x.arg for x in (*a.posonlyargs, *a.args, *a.kwonlyargs, a.vararg, a.kwarg) if x}
    return [n for line in said for n in re.split(r", ?", line) if n not in taken]

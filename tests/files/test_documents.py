"""The documents say what is so: paths exist, names are defined, pictures and keys are there."""

import importlib
import re
from pathlib import Path

import pytest

from vadrin.app.document.workbench import STATIONS
from vadrin.notebook.columns import columns_of, table_name
from vadrin.notebook.file import SCHEMA_VERSION
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

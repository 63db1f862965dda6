"""What comes in many is declared once, and all that is said of it follows from there."""

import ast
import os
import re
import subprocess
import sys
import tomllib
from dataclasses import replace
from pathlib import Path

import pytest

from vadrin.app.descriptions import descriptions
from vadrin.app.document import stations
from vadrin.app.library.forms import FORMS, MAY_BE_EMPTY
from vadrin.app.read.export_readings import readings_filter
from vadrin.formats.readings import file_formats
from vadrin.formats.readings.any_file import read_readings, write_readings
from vadrin.formats.readings.readings_table import ReadingsTable, TableRow
from vadrin.notebook.columns import columns_of
from vadrin.ui.stations import make_station

ROOT = Path(__file__).parents[2]
TABLE = ReadingsTable("slip", (TableRow(2, "A", "1", 0.21, 8.0, log_h=-1.5),))


def offered():
    return re.findall(r"\*(\.\w+)", readings_filter())


def test_every_kind_of_file_that_is_offered_is_written_and_read_again(tmp_path):
    assert {".csv", ".ti2", ".cie", ".xlsx"} <= set(offered())
    for suffix in offered():
        path = tmp_path / f"readings{suffix}"
        write_readings(TABLE, path)
        back = read_readings(path)
        assert [r.density for r in back.rows] == [0.21], suffix


def test_a_kind_of_file_is_added_by_its_declaration_alone(tmp_path, monkeypatch):
    plain = file_formats.FORMATS[-1]
    slips = replace(
        plain,
        name="slips",
        suffixes=(".slip",),
        recognised=lambda data: data.startswith(b"slip "),
        read=lambda path, data, match: plain.read(path, data.removeprefix(b"slip "), match),
        content=lambda table, suffix: f"slip {plain.content(table, '.csv')}",
        told_by_name=True,
    )
    monkeypatch.setattr(file_formats, "FORMATS", (slips, *file_formats.FORMATS))
    assert ".slip" in offered()
    write_readings(TABLE, tmp_path / "a.slip")
    assert (tmp_path / "a.slip").read_bytes().startswith(b"slip strip,")
    (tmp_path / "a.slip").rename(tmp_path / "without a name")
    assert [r.density for r in read_readings(tmp_path / "without a name").rows] == [0.21]


def test_stations_have_keys_of_their_own_and_lead_to_each_other():
    keys = [place.key for place in stations.PLACES if place.key]
    assert len(set(keys)) == len(keys)
    names = [place.name for place in stations.PLACES]
    assert all(place.goes_on in (*names, "") for place in stations.PLACES)
    assert stations.key_to("cupboard") == "Ctrl+9"
    with pytest.raises(KeyError):
        make_station("attic", None)


def test_no_sentence_names_a_station_s_key_by_itself():
    declared = ROOT / "src/vadrin/app/document/stations.py"
    for path in (ROOT / "src").rglob("*.py"):
        if path != declared:
            assert not re.search(r"Ctrl\+[0-9]", path.read_text(encoding="utf-8")), path


def test_an_installed_wheel_asks_for_what_the_pins_are_made_from():
    project = tomllib.loads((ROOT / "pyproject.toml").read_text(encoding="utf-8"))
    assert project["tool"]["setuptools"]["dynamic"]["dependencies"]["file"] == ["requirements.in"]
    asked = (ROOT / "requirements.in").read_text(encoding="utf-8").lower().split()
    names = {re.split(r"[>=<]", word)[0] for word in asked}
    packages = {"PIL": "pillow", "serial": "pyserial", "odf": "odfpy"}
    used = set()
    for path in (ROOT / "src").rglob("*.py"):
        for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
            named = [a.name for a in node.names] if isinstance(node, ast.Import) else []
            named += [node.module or ""] if isinstance(node, ast.ImportFrom) else []
            roots = {name.split(".")[0] for name in named}
            used |= {packages.get(name, name).lower() for name in roots}
    assert {"coloraide", "numpy"} <= used & names
    third_party = used - set(sys.stdlib_module_names) - {"vadrin", "__future__"}
    assert third_party <= names, "imported, and not asked for"


def test_a_figure_is_added_by_its_declaration_alone():
    """One more line in the table of figures is worked out, reported, and shown on both screens."""
    code = (
        "from dataclasses import replace\n"
        "from vadrin.core.results import strip_figures as declared\n"
        "dip = declared.StripFigure('dip', lambda c: 2.0 * c.x_m, name='the dip', places=2)\n"
        "declared.STRIP_FIGURES = (*declared.STRIP_FIGURES, replace(dip, rank=99))\n"
        "from vadrin.app.results.metric_rows import SHOWN_FIGURES, strip_cell\n"
        "from vadrin.app.results.report import report_of\n"
        "from vadrin.core.results.analysis import Settings, analyse\n"
        "from oracles.closed_form import ClosedForm\n"
        "made = analyse(ClosedForm().strips((8.0,)), Settings())\n"
        "strip = made.strips[0]\n"
        "told = report_of(made, 'x')['strips']['A']['dip']\n"
        "assert abs(told['value'] - 2 * strip.log_h_m.value) < 1e-9 and told['low'] is not None\n"
        "print(SHOWN_FIGURES[-1].name, strip_cell(strip, SHOWN_FIGURES[-1]).shown)\n"
    )
    environment = {**os.environ, "PYTHONPATH": f"{ROOT}{os.pathsep}{ROOT / 'src'}"}
    done = subprocess.run(
        [sys.executable, "-c", code], capture_output=True, text=True, env=environment, check=True
    )
    assert done.stdout.startswith("the dip −")


def test_what_a_form_lets_be_emptied_the_file_lets_be_empty():
    for kind, fields in FORMS.values():
        kept = {column.name: column for column in columns_of(kind)}
        for field in fields:
            if field.kind not in MAY_BE_EMPTY and field.name in kept:
                assert field.optional == kept[field.name].optional, (kind.__name__, field.name)


def test_a_fresh_plan_stays_within_what_film_stands():
    for description in descriptions():
        assert -14.0 <= description.first < description.last <= 14.0, description.key
        assert all(1.0 <= minutes <= 60.0 for minutes in description.times), description.key

"""What is seen goes out: a plot as a picture of lines, the shelf and the films as tables."""

import csv
import xml.etree.ElementTree as ET

import openpyxl
import pytest
from PyQt6.QtGui import QGuiApplication, QImage
from PyQt6.QtWidgets import QFileDialog

from tests.window.pages import pdf_words, settle, words_of

SVG = "{http://www.w3.org/2000/svg}"


def act(window, action, path):
    """Do what the menu does, and answer its question for a file."""
    next(a for a in window.actions_everywhere if a.id == action).act()
    (dialog,) = [d for d in window.findChildren(QFileDialog) if d.isVisible()]
    dialog.fileSelected.emit(str(path))
    dialog.close()


@pytest.fixture
def curves(qtbot, demo):
    window = demo("Merrow Pan 125", "curves")
    settle(qtbot, window)
    return window


def test_a_plot_is_saved_with_its_lines_its_words_and_its_typeface(curves, tmp_path):
    for name in ("plot.svg", "plot.pdf", "plot.png"):
        act(curves, "plot.save", tmp_path / name)
    drawn = ET.parse(tmp_path / "plot.svg").getroot()
    assert len(drawn.findall(f".//{SVG}path")) + len(drawn.findall(f".//{SVG}polyline")) > 5
    words = " ".join(t.text or "" for t in drawn.iter(f"{SVG}text"))
    assert "stops from the meter reading" in words
    assert not list(drawn.iter(f"{SVG}image")), "vectors stay vectors"
    assert "Merrow Pan 125" in drawn.find(f"{SVG}title").text
    faces = [style.text for style in drawn.findall(f".//{SVG}style")]
    assert all("font/ttf;base64" in face for face in faces)
    used = {g.get("font-weight") for g in drawn.iter() if g.get("font-weight")}
    assert len(used) > 1, "names of curves are heavier"
    assert all(any(f"font-weight: {weight};" in face for face in faces) for weight in used)
    assert "stops from the meter reading" in pdf_words(tmp_path / "plot.pdf")[1]
    assert b"/FontFile2" in (tmp_path / "plot.pdf").read_bytes(), "its typeface goes with it"
    picture = QImage(str(tmp_path / "plot.png"))
    assert picture.width() > 1500
    assert len({picture.pixel(x, y) for x in range(0, 1500, 7) for y in range(0, 900, 7)}) > 5


def test_a_plot_is_copied_as_a_picture_and_a_page_without_one_says_so(curves, tmp_path):
    copy = next(a for a in curves.actions_everywhere if a.id == "plot.copy")
    copy.act()
    assert QGuiApplication.clipboard().image().width() > 1500
    assert "on the clipboard" in words_of(curves.header)
    curves.bench.go("expose")
    curves.updates.flush()
    copy.act()
    assert "There is no plot on this page" in words_of(curves.header)


def test_shelf_and_films_go_out_as_tables_with_heads(curves, tmp_path):
    act(curves, "shelf.table", tmp_path / "shelf.csv")
    with (tmp_path / "shelf.csv").open(encoding="utf-8", newline="") as file:
        heads, *rows = csv.reader(file)
    assert heads[:2] == ["Film", "Test"]
    assert len(rows) == 6
    assert any(row[0].startswith("Merrow Pan 125") for row in rows)
    act(curves, "films.table", tmp_path / "films.xlsx")
    sheet = openpyxl.load_workbook(tmp_path / "films.xlsx").active
    lines = list(sheet.iter_rows(values_only=True))
    assert lines[0][0] == "Film"
    assert any("Merrow Pan 125" in str(line[0]) for line in lines[1:])
    act(curves, "shelf.table", tmp_path / "shelf.doc")
    assert "end the name in one of .csv, .xlsx, .ods" in words_of(curves.banner)

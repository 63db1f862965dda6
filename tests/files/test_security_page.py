"""The page about safety says the limits the program really has."""

import re
from pathlib import Path

from vadrin.formats.pictures.picture_reader import MOST_PIXELS, MOST_UNPACKED
from vadrin.formats.readings.csv_table import LARGEST_FILE, MOST_CELLS, MOST_CSV_ROWS
from vadrin.formats.readings.json_table import _MOST_ROWS
from vadrin.formats.readings.spreadsheet_reader import MOST_SHEET_CELLS, MOST_SHEET_ROWS
from vadrin.formats.readings.xlsx_guard import MOST_COLUMNS
from vadrin.formats.readings.zip_guard import LARGEST_SHEET_FILE
from vadrin.instruments.line_format import LONGEST_LINE
from vadrin.notebook.connection import LONGEST_VALUE
from vadrin.notebook.json_file import LARGEST

ROOT = Path(__file__).parents[2]
MB = 1_000_000


def test_every_limit_on_the_page_is_that_of_the_code():
    page = (ROOT / "SECURITY.md").read_text("utf-8")
    rows = re.findall(r"^\| ([^|]+) \| ([^|]+) \| `", page, re.MULTILINE)
    said = {what: [int(n) for n in re.findall(r"\d+", most)] for what, most in rows}
    assert said == {
        "CSV and text tables": [LARGEST_FILE // MB, MOST_CSV_ROWS, MOST_CELLS],
        "spreadsheets (XLSX, ODS)": [
            LARGEST_SHEET_FILE // MB,
            MOST_SHEET_ROWS,
            MOST_COLUMNS,
            MOST_SHEET_CELLS,
        ],
        "readings as JSON": [_MOST_ROWS],
        "pictures": [MOST_PIXELS // MB, MOST_UNPACKED // MB],
        "a notebook as JSON": [LARGEST // MB],
        "a value in a notebook": [LONGEST_VALUE // 2**20],
        "a line of an instrument": [LONGEST_LINE],
    }


def test_every_pin_has_hashes_and_names_no_place_to_fetch_from():
    for name in ("requirements.txt", "requirements-dev.txt"):
        text = (ROOT / name).read_text("utf-8")
        pins = re.findall(r"^([a-zA-Z0-9_.\[\]-]+)==\S+(.*?)(?=^\S|\Z)", text, re.M | re.S)
        assert len(pins) > 10
        assert [pin for pin, rest in pins if "--hash=sha256:" not in rest] == []
        assert not re.search(r"https?://|--index-url|--find-links", text)

"""What Expose puts on paper beside the notebook: the script to tick, labels for cassettes."""

from __future__ import annotations

from pathlib import Path

from vadrin.app.display.marks import aperture_mark, shutter_name
from vadrin.app.expose.cassette_labels import labels_of
from vadrin.app.expose.script import script_rows
from vadrin.app.expose.wrong_setting import roll_at_wrong_setting
from vadrin.app.sheets.test_sheet import TestSheet
from vadrin.formats.reports.script_pdf import ScriptSheet, label_pdf, script_pdf
from vadrin.formats.whole_file import safe_name, write_whole
from vadrin.notebook.store import Notebook


def write_script(folder: Path, notebook: Notebook, sheet: TestSheet, pocket: bool) -> Path:
    """Write the script as PDF, A4 or folded.

    Raises
    ------
    OSError
        If it cannot be written.
    """
    t, n = shutter_name(sheet.test.metered_seconds), aperture_mark(sheet.test.aperture)
    lines = (
        f"{sheet.process}. EI {sheet.test.exposure_index:g} on the meter, {sheet.test.subject}.",
        f"The plan counts on {t} at {n}. Meter at the start ______ and at the end ______",
        "Tick what was taken; write beside it what went otherwise. Bold: turn something. "
        "Numbers count from the first frame of the strip.",
    )
    paper = ScriptSheet(f"{sheet.title}: script", lines, tuple(script_rows(notebook, sheet)))
    name = f"script {sheet.title}{' pocket' if pocket else ''}"
    target = folder / safe_name(name, ".pdf")
    write_whole(target, script_pdf(paper, pocket))
    return target


def write_labels(folder: Path, notebook: Notebook, sheet: TestSheet) -> Path:
    """Write a label for every roll as PDF.

    Raises
    ------
    OSError
        If it cannot be written.
    """
    target = folder / safe_name(f"labels {sheet.title}", ".pdf")
    write_whole(target, label_pdf(labels_of(sheet, roll_at_wrong_setting(notebook, sheet))))
    return target

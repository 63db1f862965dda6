"""What Expose puts on paper beside the notebook: the script to tick, labels for cassettes."""

from __future__ import annotations

from pathlib import Path

from vadrin.app.display.marks import aperture_mark, shutter_name
from vadrin.app.display.region import local_all
from vadrin.app.expose.cassette_labels import labels_of
from vadrin.app.expose.script import script_rows
from vadrin.app.expose.wrong_setting import roll_at_wrong_setting
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.formats.reports.script_pdf import Script, label_pdf, script_pdf
from vadrin.formats.whole_file import safe_name, write_whole
from vadrin.notebook.store import Notebook


def write_script(folder: Path, notebook: Notebook, loaded: LoadedTest, pocket: bool) -> Path:
    """Write the script as PDF, A4 or folded.

    Raises
    ------
    OSError
        If it cannot be written.
    """
    t, n = shutter_name(loaded.test.metered_seconds), aperture_mark(loaded.test.aperture)
    lines = (
        f"{loaded.process}. EI {loaded.test.exposure_index:g} on the meter, {loaded.test.subject}.",
        f"The plan counts on {t} at {n}. Meter at the start ______ and at the end ______",
        "Tick what was taken; write beside it what went otherwise. Bold: turn something. "
        "Numbers count from the first frame of the strip.",
    )
    paper = Script(f"{loaded.title}: script", lines, tuple(script_rows(notebook, loaded)))
    name = f"script {loaded.title}{' pocket' if pocket else ''}"
    target = folder / safe_name(name, ".pdf")
    write_whole(target, script_pdf(local_all(paper), pocket))
    return target


def write_labels(folder: Path, notebook: Notebook, loaded: LoadedTest) -> Path:
    """Write a label for every roll as PDF.

    Raises
    ------
    OSError
        If it cannot be written.
    """
    target = folder / safe_name(f"labels {loaded.title}", ".pdf")
    write_whole(
        target, label_pdf(local_all(labels_of(loaded, roll_at_wrong_setting(notebook, loaded))))
    )
    return target

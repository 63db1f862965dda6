"""A practice film in a notebook of its own, to be decided on before its envelope is opened."""

from __future__ import annotations

import secrets
from dataclasses import replace
from itertools import count
from pathlib import Path

from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.practice.envelope_words import Committed, envelope_lines
from vadrin.app.practice.practice_folder import open_envelope, write_practice
from vadrin.app.practice.practice_place import READINGS
from vadrin.app.read.import_readings import import_table
from vadrin.core.results.analysis import analyse
from vadrin.core.results.criteria import Target
from vadrin.core.simulation.practice_level import Level
from vadrin.errors import EntryError
from vadrin.formats.readings.any_file import read_readings
from vadrin.formats.readings.readings_table import strips_of
from vadrin.notebook.store import Notebook

_MOST_SEED = 1_000_000


def begin_practice(place: Path, level: Level = Level.USUAL, seed: int | None = None) -> Path:
    """A film nobody knows, exposed, developed and read, in a notebook of its own.

    Parameters
    ----------
    place : Path
        Practice films lie here, each in a folder.
    level : Level
    seed : int, optional
        Which film; any where none is named.

    Returns
    -------
    Path
        Of the notebook; its envelope lies beside it.

    Raises
    ------
    FormatError
        If it cannot be written.
    """
    number = next(n for n in count(1) if not (place / f"film {n}").exists())
    folder = place / f"film {number}"
    write_practice(folder, secrets.randbelow(_MOST_SEED) if seed is None else seed, level)
    path = folder / f"practice {number}.vadrin"
    book = Notebook(path)
    try:
        table = read_readings(folder / READINGS)
        import_table(book, replace(table, source=f"Practice film {number}.csv"))
    finally:
        book.close()
    return path


def envelope_told(notebook: Path, loaded: LoadedTest | None) -> list[str]:
    """What the envelope of a practice film says of it, and of who decided on it.

    Raises
    ------
    EntryError
        If nothing was decided yet, since opened before it would teach nothing; or for another
        contrast than the envelope's.
    FormatError
        If the envelope was changed.
    """
    if loaded is None or not loaded.findings:
        raise EntryError("decide on it first, at Finding: the envelope is opened once you have")
    last = loaded.findings[-1]
    if Target(last.target_kind, last.target_value) != Target():
        raise EntryError("it is for average gradient 0.58: choose that at Finding, and decide")
    mine = Committed(last.exposure_index or None, last.time_min or None)
    truth = open_envelope(notebook.parent)
    told = analyse(strips_of(read_readings(notebook.parent / READINGS)))
    return envelope_lines(truth, mine, told)

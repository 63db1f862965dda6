"""Where practice films lie, and how one is recognised; the window asks before it needs numbers."""

from __future__ import annotations

from pathlib import Path

from platformdirs import user_data_path

READINGS, TRUTH = "readings.csv", "truth.json"
"""Files of a practice film: what a tester has of it, and the envelope."""
FILM, COMMITTED, OPENED = "film.json", "committed.json", "opened.json"
"""Of one that is shot and developed in its notebook: what is on the film, sealed; what its tester
committed to; and what came of it."""


def practice_place() -> Path:
    """Where practice films lie, each in a folder of its own."""
    return user_data_path("vadrin") / "practice"


def is_practice(notebook: Path) -> bool:
    """Whether a notebook is that of a practice film, with its envelope and film beside it."""
    return (notebook.parent / TRUTH).is_file() and (notebook.parent / FILM).is_file()


def is_opened(notebook: Path) -> bool:
    """Whether the envelope of a practice film was opened."""
    return (notebook.parent / OPENED).is_file()

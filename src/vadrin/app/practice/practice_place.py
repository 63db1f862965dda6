"""Where practice films lie, and how one is recognised; the window asks before it needs numbers."""

from __future__ import annotations

from pathlib import Path

from platformdirs import user_data_path

READINGS, TRUTH = "readings.csv", "truth.json"
"""Files of a practice film: what a tester has of it, and the envelope."""


def practice_place() -> Path:
    """Where practice films lie, each in a folder of its own."""
    return user_data_path("vadrin") / "practice"


def is_practice(notebook: Path) -> bool:
    """Whether an envelope lies beside a notebook."""
    return (notebook.parent / TRUTH).is_file() and (notebook.parent / READINGS).is_file()

"""Where a value comes from that a finding rests on."""

from __future__ import annotations

from enum import StrEnum


class Origin(StrEnum):
    """How a condition of a test came to be known; told apart wherever it has a consequence."""

    UNKNOWN = ""
    """Written down before origins were kept."""
    PLANNED = "planned"
    """Meant to be so; nobody said that it was."""
    TOLD = "told"
    """Typed by somebody."""
    DONE = "done"
    """Kept by the program's own clock while it was done."""
    MEASURED = "measured"
    """Read off an instrument."""
    ASSUMED = "assumed"
    """What is usual stands in for it."""

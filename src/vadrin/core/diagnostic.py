"""What the program warns of, as data: severity, sentence, remedy, the frames meant."""

from __future__ import annotations

from dataclasses import dataclass
from enum import Enum


class Severity(Enum):
    """How much a warning matters."""

    NOTE = "note"
    CAUTION = "caution"
    SERIOUS = "serious"


@dataclass(frozen=True)
class Diagnostic:
    """One trap seen in a test.

    Attributes
    ----------
    key : str
        Stable name of the trap.
    severity : Severity
    sentence : str
        What is wrong, in one sentence.
    remedy : str
        What to do about it, in one sentence.
    strip : str
        The strip it concerns; empty for the whole test.
    frames : tuple of str
    """

    key: str
    severity: Severity
    sentence: str
    remedy: str
    strip: str = ""
    frames: tuple[str, ...] = ()

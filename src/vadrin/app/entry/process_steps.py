"""Steps of a process as people type them: ``develop, stop 1:00, fix 5, wash 10:00 at 20 °C``."""

from __future__ import annotations

import re
from dataclasses import dataclass

from vadrin.app.entry.durations import duration_s
from vadrin.app.entry.lists import surely_parted
from vadrin.app.entry.numbers import number_typed
from vadrin.core.process.recipe import LEAST_C, MOST_C
from vadrin.core.wording import counted
from vadrin.errors import EntryError

_LIKE = "develop, stop 1:00, fix 5:00, wash 10:00"
_STEP = re.compile(r"(?P<name>[^\d]*[^\d\s])(?:\s+(?P<time>\d.*?))?", re.DOTALL)
_WARMTH = re.compile(r"\s+at\s+(\S+?)\s*(?:°\s*)?c?$", re.IGNORECASE)
_MOST_STEPS, _LONGEST_S = 20, 604_800.0


@dataclass(frozen=True)
class TypedStep:
    """One step: its name, its seconds (0 for the one that takes the test's own time), its bath."""

    name: str
    seconds: float
    temperature_c: float | None = None


def steps_typed(words: str) -> tuple[TypedStep, ...]:
    """The steps of a process in their order; the developer is the one without a time.

    Raises
    ------
    EntryError
        In words, if a piece is no step, or not exactly one of them goes without a time.
    """
    made = tuple(_step(piece) for piece in surely_parted(words))
    if not 1 <= len(made) <= _MOST_STEPS:
        raise EntryError(f"a process has 1 to {_MOST_STEPS} steps, such as {_LIKE}")
    timeless = [step.name for step in made if not step.seconds]
    if len(timeless) != 1:
        said = f"{counted(len(timeless), 'step')} without a time" if timeless else "all have a time"
        raise EntryError(
            f"{said}: only the developer goes without, since the test times it, as in {_LIKE}"
        )
    return made


def _step(piece: str) -> TypedStep:
    warmth = _WARMTH.search(piece)
    bare = piece[: warmth.start()] if warmth else piece
    found = _STEP.fullmatch(bare.strip())
    if not found:
        raise EntryError(f"“{piece}” is no step; type steps such as {_LIKE}")
    seconds = duration_s(found["time"], 60.0, "6:30") if found["time"] else 0.0
    if found["time"] and not 0 < seconds <= _LONGEST_S:
        raise EntryError(f"“{piece}”: a step lasts above 0 and up to a week")
    celsius = number_typed(warmth[1], "38") if warmth else None
    if celsius is not None and not LEAST_C <= celsius <= MOST_C:
        raise EntryError(f"“{piece}”: a bath lies between {LEAST_C:g} and {MOST_C:g} °C")
    name = found["name"].strip()
    return TypedStep(name[0].upper() + name[1:], seconds, celsius)

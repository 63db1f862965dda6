"""What a tester commits to before the envelope is opened, each with the range they are sure of."""

from __future__ import annotations

import json
import re
from collections.abc import Callable
from dataclasses import asdict, dataclass
from pathlib import Path
from typing import Any

from vadrin.app.entry.exposures import exposure_index_typed
from vadrin.app.entry.times import minutes_typed
from vadrin.app.practice.practice_place import COMMITTED, is_opened
from vadrin.errors import EditRefusedError, EntryError, FormatError
from vadrin.formats.whole_file import write_whole

_APART = re.compile(r"\s*(?:\bto\b|–|—|-)\s*")
_LONGEST = 50_000


@dataclass(frozen=True)
class Belief:
    """A figure, and the range its tester is nine in ten sure of; None where nothing was said."""

    value: float | None = None
    low: float | None = None
    high: float | None = None

    def holds(self, true: float | None) -> bool | None:
        """Whether the range holds the truth; None where there is no range, or no truth."""
        if true is None or self.low is None or self.high is None:
            return None
        return self.low <= true <= self.high


@dataclass(frozen=True)
class Commitment:
    """What a tester says of a practice film.

    Attributes
    ----------
    index, time_min, push_min : Belief
        The EI, the time, and the time of a push of one stop.
    went_wrong : str
        In their own words.
    """

    index: Belief = Belief()
    time_min: Belief = Belief()
    push_min: Belief = Belief()
    went_wrong: str = ""

    def believing(self, name: str, belief: Belief) -> Commitment:
        """The same with another belief under a name of `READERS`."""
        beliefs = {each: getattr(self, each) for each in READERS} | {name: belief}
        return Commitment(**beliefs, went_wrong=self.went_wrong)

    @property
    def complete(self) -> bool:
        """Whether there is an EI or a time to hold against the truth."""
        return self.index.value is not None or self.time_min.value is not None


def belief_range_typed(words: str, before: Belief, read: Callable[[str], float]) -> Belief:
    """A belief with the range that was typed: ``64 to 100``; empty takes it back.

    Raises
    ------
    EntryError
    """
    plain = words.strip()
    if plain in ("", "—", "not set"):
        return Belief(before.value)
    parts = _APART.split(plain)
    if len(parts) != 2:
        raise EntryError("type both ends, such as 64 to 100")
    low, high = sorted(read(part) for part in parts)
    if before.value is not None and not low <= before.value <= high:
        raise EntryError("the range holds your own figure")
    return Belief(before.value, low, high)


def belief_typed(words: str, before: Belief, read: Callable[[str], float]) -> Belief:
    """A belief whose figure was typed; a range that does not hold it goes.

    Raises
    ------
    EntryError
    """
    plain = words.strip()
    if plain in ("", "—", "not set"):
        return Belief()
    value = read(plain)
    held = before.low is not None and before.high is not None and before.low <= value <= before.high
    return Belief(value, before.low, before.high) if held else Belief(value)


READERS: dict[str, Callable[[str], float]] = {
    "index": exposure_index_typed,
    "time_min": minutes_typed,
    "push_min": minutes_typed,
}
"""How each figure is typed."""


def _belief_kept(told: dict[str, Any]) -> Belief:
    ends = (told.get(name) for name in ("value", "low", "high"))
    return Belief(*(None if end is None else float(end) for end in ends))


def commitment_of(notebook: Path) -> Commitment:
    """What was said so far of the practice film of a notebook.

    Raises
    ------
    FormatError
        If the file was hurt.
    """
    path = notebook.parent / COMMITTED
    try:
        told: Any = json.loads(path.read_text("utf-8")[:_LONGEST]) if path.is_file() else {}
        beliefs = {name: _belief_kept(told.get(name, {})) for name in READERS}
        return Commitment(**beliefs, went_wrong=str(told.get("went_wrong", "")))
    except (OSError, ValueError, TypeError, AttributeError) as error:
        raise FormatError(f"{path}: damaged; remove it and commit again") from error


def commit(notebook: Path, said: Commitment) -> None:
    """Write down what is said; after the envelope is opened nothing is taken any more.

    Raises
    ------
    EditRefusedError
        If the envelope is open.
    FormatError
        If it cannot be written.
    """
    if is_opened(notebook):
        raise EditRefusedError("The envelope is open: what you said stands")
    try:
        write_whole(notebook.parent / COMMITTED, json.dumps(asdict(said), indent=1) + "\n")
    except OSError as error:
        raise FormatError(f"{notebook.parent}: cannot be written; free the disk") from error

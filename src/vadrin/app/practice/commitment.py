"""What a tester commits to before the envelope is opened, each with the range they are sure of."""

from __future__ import annotations

import json
import re
from collections.abc import Callable
from dataclasses import asdict, dataclass, field, replace
from pathlib import Path
from typing import Any

from vadrin.app.practice.practice_place import COMMITTED, is_opened
from vadrin.app.practice.practice_questions import QUESTIONS
from vadrin.errors import EditRefusedError, EntryError, FormatError
from vadrin.formats.whole_file import write_whole

_APART = re.compile(r"\s*(?:\bto\b|–|—|-)\s*")
_LONGEST = 50_000
_BESIDE = ("push_min",)
"""Not enough by themselves to open an envelope."""


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
    beliefs : dict of str to Belief
        By the keys of their questions.
    went_wrong : str
        In their own words.
    """

    beliefs: dict[str, Belief] = field(default_factory=dict)
    went_wrong: str = ""

    def of(self, key: str) -> Belief:
        """What is believed of a figure; nothing where nothing was said."""
        return self.beliefs.get(key, Belief())

    def believing(self, key: str, belief: Belief) -> Commitment:
        """The same with another belief."""
        return replace(self, beliefs={**self.beliefs, key: belief})

    @property
    def complete(self) -> bool:
        """Whether there is anything to hold against the truth."""
        return any(self.of(key).value is not None for key in QUESTIONS if key not in _BESIDE)


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
        beliefs = {key: _belief_kept(told.get(key, {})) for key in QUESTIONS}
        return Commitment(beliefs, str(told.get("went_wrong", "")))
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
    told: dict[str, Any] = {key: asdict(belief) for key, belief in said.beliefs.items()}
    told["went_wrong"] = said.went_wrong
    try:
        write_whole(notebook.parent / COMMITTED, json.dumps(told, indent=1) + "\n")
    except OSError as error:
        raise FormatError(f"{notebook.parent}: cannot be written; free the disk") from error

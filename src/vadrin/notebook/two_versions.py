"""Two versions of one test, each edited by somebody: brought together, field by field.

What one side alone wrote is kept; where both wrote the same field, one value stays and the other
is said. Nothing is asked of who is first: either order gives the same test.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator
from dataclasses import MISSING, dataclass, fields
from enum import Enum
from typing import Any, TypeVar

from vadrin.notebook.records import (
    Attachment,
    DarkroomRun,
    Exposure,
    Finding,
    Frame,
    Judgement,
    Note,
    PrintSetup,
    PrintStrip,
    Reading,
    Record,
    RunEvent,
    Strip,
    Workprint,
)

R = TypeVar("R")
IDENTITY: dict[type[Any], tuple[str, ...]] = {
    Strip: ("label",),
    Frame: ("position",),
    Exposure: ("position", "exposed_at"),
    Reading: ("position", "channel", "read_at"),
    Judgement: ("asked", "position", "place", "judged_at"),
    Finding: ("decided_at",),
    Note: ("written_at", "words"),
    Attachment: ("name", "added_at"),
    DarkroomRun: ("started_at",),
    RunEvent: ("what", "strip", "happened_at"),
    PrintSetup: (),
    PrintStrip: ("purpose", "position", "made_at"),
    Workprint: ("made_at",),
}
"""What makes two records of one owner the same; those of other kinds are the same as a whole. With
nothing named, the first is the first."""
_PLANNED = ("role", "log_h", "exposure_index", "stops")
"""What a frame was planned to be."""
_ALIKE = 0.5
"""Share of the frames that must have been planned alike for two strips to be one."""
_WHEN = (
    "created_at",
    "exposed_at",
    "read_at",
    "judged_at",
    "decided_at",
    "written_at",
    "added_at",
    "started_at",
    "happened_at",
    "made_at",
    "taken_at",
)


@dataclass(frozen=True)
class Conflict:
    """One field that two people wrote differently.

    Attributes
    ----------
    where : str
        Test, strip, frame, in words.
    field : str
    kept, other : str
    """

    where: str
    field: str
    kept: str
    other: str

    def __str__(self) -> str:
        """The conflict as a sentence."""
        return f"{self.where}, {self.field}: {self.kept} is kept, the other copy says {self.other}"


def paired(kind: type[Any], mine: Iterable[R], theirs: Iterable[R]) -> Iterator[tuple[R | None, R]]:
    """Each record of theirs with the one of mine that is the same; None where there is none."""
    names = IDENTITY.get(kind, ())
    known: dict[tuple[Any, ...], R] = {}
    for record, key in _numbered(mine, names):
        known[key] = record
    for record, key in _numbered(theirs, names):
        yield known.get(key), record


def _numbered(records: Iterable[R], names: tuple[str, ...]) -> Iterator[tuple[R, tuple[Any, ...]]]:
    """Records with what makes them the same, counted where several are alike in it."""
    met: Counter[tuple[Any, ...]] = Counter()
    for record in records:
        key = tuple(getattr(record, name) for name in names)
        yield record, (*key, met[key])
        met[key] += 1


def planned_alike(mine: list[Frame], theirs: list[Frame]) -> bool:
    """Whether frames of two strips of one name were planned as one strip, so that they are one."""
    ours = {f.position: tuple(getattr(f, n) for n in _PLANNED) for f in mine}
    both = [f for f in theirs if f.position in ours]
    alike = sum(ours[f.position] == tuple(getattr(f, n) for n in _PLANNED) for f in both)
    return not both or alike >= _ALIKE * len(both)


def _unsaid(kind: type[Any]) -> dict[str, Any]:
    """What fields of a record hold until somebody says something."""
    return {f.name: f.default for f in fields(kind) if f.default is not MISSING}


def chosen(kind: type[Any], name: str, mine: Any, theirs: Any, mine_later: bool | None) -> bool:
    """Whether the value of mine stays: what was said before what was not, then what came later.

    Parameters
    ----------
    kind : type
    name : str
    mine, theirs : object
        Values that differ.
    mine_later : bool or None
        Whether mine was worked at later; None where that is not known.
    """
    nothing = _unsaid(kind).get(name)
    if theirs == nothing:
        return True
    if mine == nothing:
        return False
    return (repr(mine) > repr(theirs)) if mine_later is None else mine_later


def is_conflict(kind: type[Any], name: str, mine: Any, theirs: Any) -> bool:
    """Whether both sides said something, and not the same."""
    nothing = _unsaid(kind).get(name)
    return mine != theirs and nothing not in (mine, theirs)


def last_moment(records: Iterable[Record]) -> str:
    """When something was last done to any of some records; empty where none says."""
    return max((m for r in records for n in _WHEN if (m := getattr(r, n, ""))), default="")


_PLACES: dict[type[Any], str] = {Strip: "label", DarkroomRun: "started_at", Finding: "decided_at"}


def place_words(record: Record) -> str:
    """What a record is called among those of its owner."""
    kind = type(record).__name__
    name = "".join(f" {c.lower()}" if c.isupper() else c for c in kind).strip()
    if isinstance(record, Frame):
        return f"frame {record.position + 1}"
    return f"{name} {getattr(record, _PLACES[type(record)])}" if type(record) in _PLACES else name


def said(value: Any) -> str:
    """A value in words."""
    if value is None or value == "":
        return "nothing"
    if isinstance(value, Enum):
        return str(value.value)
    if isinstance(value, bool):
        return "yes" if value else "no"
    return f"{value:g}" if isinstance(value, float) else str(value)[:80]

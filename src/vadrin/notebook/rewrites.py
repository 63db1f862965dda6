"""Notes down which rows are written over or removed, as they are."""

from __future__ import annotations

import hashlib
from dataclasses import dataclass, replace
from datetime import UTC, datetime
from typing import TYPE_CHECKING, Any
from uuid import uuid4

from vadrin.notebook.columns import columns_of, table_name
from vadrin.notebook.record_reader import RecordReader
from vadrin.notebook.records import Record
from vadrin.notebook.records.history import HISTORY, Rewrite, WritingSession

if TYPE_CHECKING:
    from vadrin.notebook.record_writer import RecordWriter


def digest_of(record: Record) -> str:
    """What a row says of itself, whatever its id and those of others are."""
    own = [
        getattr(record, c.name)
        for c in columns_of(type(record))
        if c.name not in ("id", "taken_from") and c.parent is None
    ]
    return hashlib.sha256(repr(own).encode()).hexdigest()[:16]


class RewriteLog:
    """The rewrites of one open notebook, written with the edits they are of.

    Parameters
    ----------
    reader : RecordReader
    """

    def __init__(self, reader: RecordReader) -> None:
        self._reader = reader
        self._session = WritingSession()
        self._waiting: dict[tuple[str, int], Rewrite] = {}
        self._added = False

    def added(self) -> None:
        """A row is new: no other copy has it, so that it alone needs no note."""
        self._added = True

    def overwritten(self, kind: type[Any], row: int) -> None:
        """A row is written over, or is there again."""
        if kind not in HISTORY:
            self._note(Rewrite(kind=table_name(kind), row=row))

    def removed(self, record: Record) -> None:
        """A row is taken away."""
        if type(record) in HISTORY:
            return
        told = Rewrite(kind=table_name(type(record)), row=record.id, removed=True)
        self._note(replace(told, was=digest_of(record)))

    def _note(self, rewrite: Rewrite) -> None:
        self._waiting[rewrite.kind, rewrite.row] = rewrite

    def _is_waiting(self, rewrite: Rewrite) -> bool:
        return (rewrite.kind, rewrite.row) in self._waiting

    def write(self, writer: RecordWriter) -> None:
        """Write what was noted with the change that is about to be committed."""
        if not self._waiting and not self._added:
            return
        session = replace(self._session, edits=self._session.edits + 1)
        if session.id:
            writer.update(session)
        else:
            session = replace(session, uid=uuid4().hex, began_at=_now())
            session = replace(session, id=writer.insert(session))
        rows = sorted({row for _, row in self._waiting})
        before = [r.id for r in self._reader.all_of(Rewrite, "row", rows) if self._is_waiting(r)]
        # All at once: a plan writes all its frames over with every step of a word.
        writer.delete(Rewrite, before)
        top = writer.largest_id(Rewrite)
        waiting = enumerate(self._waiting.values(), start=top + 1)
        uid, edit = session.uid, session.edits
        made = [replace(r, id=number, session=uid, edit=edit) for number, r in waiting]
        if made:
            writer.insert_many(made)
        self._session, self._added = session, False
        self._waiting.clear()

    def forget(self) -> None:
        """The change did not come about; the session may be one that was noted with it."""
        self._waiting.clear()
        self._added = False
        self._session = next(
            iter(self._reader.all(WritingSession, {"uid": self._session.uid})), WritingSession()
        )


def _now() -> str:
    return datetime.now(UTC).isoformat(timespec="seconds")


@dataclass(frozen=True)
class History:
    """What one copy of a notebook wrote over and removed.

    Attributes
    ----------
    sessions : dict of str to WritingSession
        With how many changes of each it holds.
    rewrites : dict
        The last rewrite of a row, by its table and id.
    """

    sessions: dict[str, WritingSession]
    rewrites: dict[tuple[str, int], Rewrite]

    def after(self, other: History, rewrite: Rewrite | None) -> bool:
        """Whether a rewrite came about after the two copies parted; never where they have no
        opening in common: nobody can tell then what an older program did to either."""
        if rewrite is None or not self.sessions.keys() & other.sessions.keys():
            return False
        known = other.sessions.get(rewrite.session)
        return known is None or rewrite.edit > known.edits

    def changed(self, record: Record, other: History) -> bool:
        """Whether a row was written over since the two copies parted."""
        return self.after(other, self.rewrites.get((table_name(type(record)), record.id)))

    def gone_since(self, other: History) -> frozenset[tuple[str, str]]:
        """Rows that were taken away since the two copies parted: table and digest."""
        return frozenset(
            (r.kind, r.was) for r in self.rewrites.values() if r.removed and self.after(other, r)
        )


def one_lineage(ours: History, theirs: History) -> bool:
    """Whether two notebooks began as one: the sessions of both begin with the same."""
    first, other = (next(iter(each.sessions), None) for each in (ours, theirs))
    return first is not None and first == other


def history_in(records: dict[Any, list[Any]]) -> History:
    """The history among the records of a notebook; empty for a file that has none."""
    return History(
        {s.uid: s for s in records.get(WritingSession, [])},
        {(r.kind, r.row): r for r in records.get(Rewrite, [])},
    )

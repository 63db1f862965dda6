"""Taking another notebook in: kit known by name is not doubled, nor is a test known by its uid.

A test that both have, and that somebody edited in each, becomes one with the work of both.
"""

from __future__ import annotations

from collections.abc import Generator
from dataclasses import dataclass, replace
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

from vadrin.core.wording import counted
from vadrin.errors import NotebookError
from vadrin.notebook.backups import copy_whole
from vadrin.notebook.columns import table_name
from vadrin.notebook.inspection import inspect
from vadrin.notebook.json_file import Everything
from vadrin.notebook.record_tree import BRANCHES, KEYS, NOT_CONTENT, OF_TESTS, RecordTree
from vadrin.notebook.records import PARENTS, RECORDS, Attachment, Frame, Note, Stock, Strip, Test
from vadrin.notebook.records.history import WritingSession
from vadrin.notebook.rewrites import History, digest_of, history_in, one_lineage
from vadrin.notebook.store import Notebook
from vadrin.notebook.two_versions import (
    IDENTITY,
    Conflict,
    chosen,
    is_conflict,
    last_moment,
    paired,
    place_words,
    planned_alike,
    said,
)


@dataclass(frozen=True)
class MergeReport:
    """What a merge brought, in counts.

    Attributes
    ----------
    new_tests, known_tests : int
    joined_tests : int
        That both had, and that were edited in theirs.
    differing_tests : int
        That were planned otherwise there, and came in beside ours.
    new_kit : int
    conflicts : tuple of Conflict
        Fields that both sides wrote.
    """

    new_tests: int
    known_tests: int
    differing_tests: int
    new_kit: int
    joined_tests: int = 0
    conflicts: tuple[Conflict, ...] = ()

    def sentence(self) -> str:
        """The report in words."""
        words = [counted(self.new_tests, "new test"), f"{self.known_tests} known already"]
        if self.joined_tests:
            words.append(f"{self.joined_tests} with the work of both")
        if self.differing_tests:
            words.append(f"{self.differing_tests} planned otherwise there, set beside ours")
        told = f"{', '.join(words)}; film and kit: {self.new_kit} new."
        if self.conflicts:
            told += f" {counted(len(self.conflicts), 'field')} said differently."
        return told


Removed = frozenset[tuple[str, str]]


def _gone(records: list[Any], removed: Removed, past: History, other: History) -> bool:
    """Whether the other side took away a record and all that belongs to it, none of which was
    added or written over on its own side."""
    return all(
        (table_name(type(each)), digest_of(each)) in removed and not past.changed(each, other)
        for each in records
    )


class _Merging:
    """One merge at work: which of their ids became which of ours."""

    def __init__(self, notebook: Notebook, theirs: Everything, name: str) -> None:
        self._book, self._theirs = notebook, theirs
        self._our_tree, self._tree = RecordTree(notebook.everything()), RecordTree(theirs)
        self._ids: dict[tuple[type[Any], int], int] = {}
        self.new_kit = 0
        self.conflicts: list[Conflict] = []
        self._our_past, self._past = history_in(notebook.history()), history_in(theirs)
        self._we_removed = self._our_past.gone_since(self._past)
        self._they_removed = self._past.gone_since(self._our_past)
        ours, those = self._our_tree.last_moment(), self._tree.last_moment()
        self._ours_later = None if ours == those else ours > those
        # A copy of one's own notebook holds one's own tests.
        self._from = "" if one_lineage(self._our_past, self._past) else name

    def _linked(self, record: Any, **changes: Any) -> Any:
        """A record of theirs with its links turned to ours, unwritten."""
        for name, parent in PARENTS.get(type(record), ()):
            target = getattr(record, name)
            if target is not None:
                changes.setdefault(name, self._ids.get((parent, target)))
        return replace(record, id=0, **changes)

    def kit(self, of_tests: bool) -> None:
        """Bring in what is not known by name: what points at tests once those are in."""
        for kind in RECORDS:
            if kind not in KEYS or (kind in OF_TESTS) is not of_tests:
                continue
            known = {self._our_tree.key(r): r for r in self._book.all(kind)}
            for record in self._theirs.get(kind, []):
                key = self._tree.key(record)
                if key not in known:
                    known[key] = self._book.add(self._linked(record))
                    self.new_kit += 1
                else:
                    mine = known[key]
                    self._fields(mine, record, f"{place_words(mine)} {key[0]}", self._ours_later)
                self._ids[kind, record.id] = known[key].id

    def papers_of_stocks(self) -> None:
        """Bring in what is kept with their stocks: data sheets, pictures."""
        ours = {(a.stock_id, a.name, a.data) for a in self._book.all(Attachment)}
        for kept in self._theirs.get(Attachment, []):
            if not isinstance(kept, Attachment) or kept.stock_id is None or kept.test_id:
                continue
            fresh = self._linked(kept)
            if (fresh.stock_id, fresh.name, fresh.data) not in ours:
                self._book.add(fresh)

    def tests(self) -> Generator[tuple[int, int], None, dict[str, int]]:
        """Bring in the tests that are not here yet, and what is new of those that are, telling
        how many of how many are done."""
        ours = {t.uid: t for t in self._book.all(Test)}
        counts = dict.fromkeys(("new", "known", "joined", "differing"), 0)
        tests: list[Any] = sorted(self._theirs.get(Test, []), key=lambda t: t.id)
        for done, test in enumerate(tests):
            yield done, len(tests)
            digest = self._tree.signature(test)
            uid = test.uid or digest
            mine = ours.get(uid)
            if mine is None and self._we_took_away(test):
                counts["known"] += 1
            elif mine is None:
                self._grow(test, uid=uid, taken_from=test.taken_from or self._from)
                counts["new"] += 1
            elif self._our_tree.signature(mine) == digest or digest in ours:
                self._ids[Test, test.id] = mine.id
                counts["known"] += 1
            elif self._one_plan(mine, test):
                counts["joined" if self._join(mine, test) else "known"] += 1
            else:
                self._grow(test, uid=digest, taken_from=test.taken_from or self._from)
                counts["differing"] += 1
        there = {t.uid for t in tests}
        for uid, mine in ours.items():
            if uid not in there and self._they_took_away(mine):
                self._book.remove(mine)
        return counts

    def _one_plan(self, mine: Test, theirs: Test) -> bool:
        """Whether two versions of a test are of the same frames, as far as both have them."""
        strips = (t.children(r, Strip, "test_id") for t, r in self._sides(mine, theirs))
        return all(
            own is None
            or planned_alike(
                *(t.children(r, Frame, "strip_id") for t, r in self._sides(own, strip))
            )
            for own, strip in paired(Strip, *strips)
        )

    def _sides(
        self, mine: Any, theirs: Any
    ) -> tuple[tuple[RecordTree, Any], tuple[RecordTree, Any]]:
        return (self._our_tree, mine), (self._tree, theirs)

    def _join(self, mine: Test, theirs: Test) -> bool:
        """Bring the work on a test that both have together; whether theirs brought anything."""
        before, begun = len(self.conflicts), self._book.written
        moments = [last_moment(tree.all_of(each)) for tree, each in self._sides(mine, theirs)]
        later = None if moments[0] == moments[1] else moments[0] > moments[1]
        stock = self._book.get(Stock, mine.stock_id)
        name = f"{stock.name if stock else 'test'}, test of {mine.created_at[:10]}"
        self._join_records(mine, theirs, name, later)
        met = self.conflicts[before:]
        if met:
            words = "Two copies said different things. " + ". ".join(str(c) for c in met) + "."
            note = Note(test_id=mine.id, written_at=max(moments), words=words)
            known = self._book.all(Note, test_id=mine.id)
            if not any((n.written_at, n.words) == (note.written_at, words) for n in known):
                self._book.add(note)
        return self._book.written > begun

    def _join_records(self, mine: Any, theirs: Any, where: str, later: bool | None) -> None:
        """Take over what is new of a record and of all that belongs to it."""
        self._ids[type(theirs), theirs.id] = mine.id
        self._fields(mine, theirs, where, later)
        for child, link in BRANCHES.get(type(mine), ()):
            ours, those = (t.children(r, child, link) for t, r in self._sides(mine, theirs))
            if child not in IDENTITY:
                known = [self._our_tree.content(each) for each in ours]
                new = [each for each in those if self._tree.content(each) not in known]
                self._book.add_all([self._linked(each) for each in new])
                continue
            met = set()
            for own, each in paired(child, ours, those):
                if own is not None:
                    met.add(own.id)
                    self._join_records(own, each, f"{where}, {place_words(own)}", later)
                elif not self._we_took_away(each):
                    self._grow(each)
            for own in ours:
                if own.id not in met and self._they_took_away(own):
                    self._book.remove(own)

    def _we_took_away(self, theirs: Any) -> bool:
        return _gone(self._tree.all_of(theirs), self._we_removed, self._past, self._our_past)

    def _they_took_away(self, mine: Any) -> bool:
        return _gone(self._our_tree.all_of(mine), self._they_removed, self._our_past, self._past)

    def _fields(self, mine: Any, theirs: Any, where: str, later: bool | None) -> None:
        """Take over the fields that theirs say and mine do not, or that were said later."""
        kind, taken = type(mine), dict[str, Any]()
        ours, past = self._our_past, self._past
        sides = ours.changed(mine, past), past.changed(theirs, ours)
        same = IDENTITY.get(kind) or KEYS.get(kind, ())
        turned = self._linked(theirs)
        for name, value in vars(mine).items():
            other = getattr(turned, name)
            if name in NOT_CONTENT or name in same or value == other:
                continue
            alone = sides[0] != sides[1]
            stays = sides[0] if alone else chosen(kind, name, value, other, later)
            if not alone and is_conflict(kind, name, value, other):
                kept, left = (value, other) if stays else (other, value)
                shown = (said(self._named(kind, name, v)) for v in (kept, left))
                self.conflicts.append(Conflict(where, name.replace("_", " "), *shown))
            if not stays:
                taken[name] = other
        if taken:
            self._book.put(replace(mine, **taken))

    def _named(self, kind: type[Any], name: str, value: Any) -> Any:
        """What a link points at, by its name."""
        parent = dict(PARENTS.get(kind, ())).get(name)
        linked = self._book.get(parent, value) if parent and value is not None else None
        return getattr(linked, "name", value) if linked is not None else value

    def _grow(self, record: Any, **changes: Any) -> None:
        """Write a record of theirs and all that belongs to it."""
        written = self._book.add(self._linked(record, **changes))
        self._ids[type(record), record.id] = written.id
        for child, link in BRANCHES.get(type(record), ()):
            children = self._tree.children(record, child, link)
            if child in BRANCHES:
                for each in children:
                    self._grow(each)
            else:
                self._book.add_all([self._linked(c) for c in children])


def everything_of(path: Path) -> Everything:
    """All records of a notebook file that is left as it is, whatever its format.

    Raises
    ------
    NotebookError
        If it cannot be opened.
    """
    if not path.exists():
        raise NotebookError(f"{path.name} is not there; check the path.")
    inspect(path)
    with TemporaryDirectory() as folder:
        copy = Path(folder) / "copy.vadrin"
        copy_whole(path, copy)
        notebook = Notebook(copy)
        try:
            everything: Everything = notebook.everything()
            return everything | notebook.history()
        finally:
            notebook.close()


def _know_sessions(notebook: Notebook, theirs: Everything) -> None:
    """From now on their changes are among ours."""
    known = {s.uid: s for s in notebook.all(WritingSession)}
    for session in history_in(theirs).sessions.values():
        mine = known.get(session.uid)
        if mine is None:
            notebook.add(replace(session, id=0))
        elif session.edits > mine.edits:
            notebook.put(replace(mine, edits=session.edits))


def merge(
    notebook: Notebook, theirs: Everything, label: str, name: str
) -> Generator[tuple[int, int], None, MergeReport]:
    """Take another notebook's records in, as one edit, a test a step.

    Parameters
    ----------
    notebook : Notebook
    theirs : dict
        Everything of the other notebook.
    label : str
        Names the edit for undo.
    name : str
        Of the other notebook: whose a test was that comes from somebody else.

    Yields
    ------
    tuple of int
        How many of how many tests are done. Closing the generator early takes nothing in.
    """
    with notebook.change(label):
        merging = _Merging(notebook, theirs, name)
        merging.kit(of_tests=False)
        counts = yield from merging.tests()
        merging.kit(of_tests=True)
        merging.papers_of_stocks()
        _know_sessions(notebook, theirs)
        notebook.refuse_faults()
    return MergeReport(
        counts["new"],
        counts["known"],
        counts["differing"],
        merging.new_kit,
        counts["joined"],
        tuple(merging.conflicts),
    )

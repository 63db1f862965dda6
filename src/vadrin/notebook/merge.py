"""Taking another notebook in: kit known by name is not doubled, nor is a test known by its uid."""

from __future__ import annotations

import hashlib
from collections.abc import Generator
from dataclasses import dataclass, replace
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

from vadrin.core.wording import counted
from vadrin.errors import NotebookError
from vadrin.notebook.backups import copy_whole
from vadrin.notebook.inspection import inspect
from vadrin.notebook.json_file import Everything
from vadrin.notebook.records import (
    PARENTS,
    RECORDS,
    Attachment,
    Batch,
    Bottle,
    Camera,
    ColumnMatching,
    ControlStrip,
    DarkroomRun,
    Developer,
    Enlarger,
    Exposure,
    Finding,
    Frame,
    Instrument,
    Judgement,
    Lens,
    LightMeter,
    MakerTime,
    MeterReading,
    Note,
    Paper,
    PaperGrade,
    PrintSetup,
    PrintStrip,
    Process,
    ProcessStep,
    Reading,
    Record,
    Rule,
    RuleTrial,
    RunEvent,
    ShutterTime,
    Stock,
    Strip,
    Test,
    Workprint,
)
from vadrin.notebook.store import Notebook

_KEYS: dict[type[Any], tuple[str, ...]] = {
    Stock: ("name", "kind"),
    Batch: ("stock_id", "name"),
    Developer: ("name", "dilution", "role"),
    Bottle: ("developer_id", "name", "mixed_at"),
    Process: ("name", "developer_id"),
    ProcessStep: ("process_id", "position", "name"),
    Paper: ("name", "grade"),
    Camera: ("name",),
    ShutterTime: ("camera_id", "marked", "measured", "measured_at"),
    Lens: ("name",),
    Rule: ("name", "formula", "amount"),
    RuleTrial: ("rule_id", "predicted_at", "given", "predicted_min"),
    LightMeter: ("name",),
    Instrument: ("name",),
    ColumnMatching: ("headers",),
    MakerTime: ("stock_id", "developer_id", "stops", "exposure_index", "temperature_c", "time_min"),
    ControlStrip: ("process_id", "batch", "read_at", "fog", "low", "high"),
    Enlarger: ("name", "lens"),
    PaperGrade: ("paper_id", "grade"),
}
"""What makes two records of kit the same."""
_OF_TESTS = (RuleTrial, ControlStrip)
"""Kit that may point at a test or at one of its runs."""

_BRANCHES: dict[type[Any], tuple[tuple[type[Any], str], ...]] = {
    Test: (
        (Strip, "test_id"),
        (MeterReading, "test_id"),
        (Finding, "test_id"),
        (Note, "test_id"),
        (Attachment, "test_id"),
        (DarkroomRun, "test_id"),
        (PrintSetup, "test_id"),
    ),
    PrintSetup: ((PrintStrip, "setup_id"), (Workprint, "setup_id")),
    DarkroomRun: ((RunEvent, "run_id"),),
    Strip: ((Frame, "strip_id"), (Judgement, "strip_id")),
    Frame: ((Exposure, "frame_id"), (Reading, "frame_id"), (Judgement, "frame_id")),
}
_NOT_CONTENT = ("id", "uid", "like_id", "test_id", "strip_id", "frame_id", "run_id", "setup_id")
"""Fields that say where a record lies, and nothing of what it holds."""


@dataclass(frozen=True)
class MergeReport:
    """What a merge brought, in counts; `differing` tests came in beside ours."""

    new_tests: int
    known_tests: int
    differing_tests: int
    new_kit: int

    def sentence(self) -> str:
        """The report in words."""
        words = [counted(self.new_tests, "new test"), f"{self.known_tests} known already"]
        if self.differing_tests:
            words.append(f"{self.differing_tests} that differ from ours, set beside them")
        return f"{', '.join(words)}; film and kit: {self.new_kit} new."


class _Tree:
    """Records of one notebook by what they belong to."""

    def __init__(self, everything: Everything) -> None:
        self._by_owner: dict[tuple[type[Any], str], dict[int, list[Any]]] = {}
        self._everything = everything
        for branches in _BRANCHES.values():
            for child, link in branches:
                groups: dict[int, list[Any]] = {}
                for record in everything.get(child, []):
                    groups.setdefault(getattr(record, link), []).append(record)
                self._by_owner[child, link] = groups
        self._kit = {k: {r.id: r for r in everything.get(k, [])} for k in _KEYS}

    def children(self, record: Record, child: type[Any], link: str) -> list[Any]:
        """What belongs to a record."""
        return self._by_owner[child, link].get(record.id, [])

    def key(self, record: Record) -> tuple[Any, ...]:
        """What makes a record of kit the same as another, links followed."""
        links = dict(PARENTS.get(type(record), ()))
        values: list[Any] = []
        for name in _KEYS[type(record)]:
            value = getattr(record, name)
            if name in links and value is not None:
                owner = self._kit[links[name]].get(value)
                value = self.key(owner) if owner else None
            values.append(value.strip().lower() if isinstance(value, str) else value)
        return tuple(values)

    def signature(self, test: Test) -> str:
        """A digest of a test and all that belongs to it, whatever its ids are."""
        return hashlib.sha256(repr(self._content(test)).encode()).hexdigest()[:16]

    def _content(self, record: Record) -> tuple[Any, ...]:
        links = dict(PARENTS.get(type(record), ()))
        values: list[Any] = []
        for name, value in vars(record).items():
            if name in _NOT_CONTENT:
                continue
            if name in links and value is not None:
                owner = self._kit[links[name]].get(value)
                value = self.key(owner) if owner else None
            values.append(value)
        branches = _BRANCHES.get(type(record), ())
        parts = [[self._content(c) for c in self.children(record, *b)] for b in branches]
        return (*values, parts)


class _Merging:
    """One merge at work: which of their ids became which of ours."""

    def __init__(self, notebook: Notebook, theirs: Everything) -> None:
        self._book, self._theirs = notebook, theirs
        self._our_tree, self._tree = _Tree(notebook.everything()), _Tree(theirs)
        self._ids: dict[tuple[type[Any], int], int] = {}
        self.new_kit = 0

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
            if kind not in _KEYS or (kind in _OF_TESTS) is not of_tests:
                continue
            known = {self._our_tree.key(r): r.id for r in self._book.all(kind)}
            for record in self._theirs.get(kind, []):
                key = self._tree.key(record)
                if key not in known:
                    known[key] = self._book.add(self._linked(record)).id
                    self.new_kit += 1
                self._ids[kind, record.id] = known[key]

    def papers_of_stocks(self) -> None:
        """Bring in what is kept with their stocks: data sheets, pictures."""
        ours = {(a.stock_id, a.name, a.data) for a in self._book.all(Attachment)}
        for kept in self._theirs.get(Attachment, []):
            if not isinstance(kept, Attachment) or kept.stock_id is None or kept.test_id:
                continue
            fresh = self._linked(kept)
            if (fresh.stock_id, fresh.name, fresh.data) not in ours:
                self._book.add(fresh)

    def tests(self) -> Generator[tuple[int, int], None, tuple[int, int, int]]:
        """Bring in the tests that are not here yet, telling how many of how many are done."""
        ours = {t.uid: t for t in self._book.all(Test)}
        counts = [0, 0, 0]
        tests: list[Any] = sorted(self._theirs.get(Test, []), key=lambda t: t.id)
        for done, test in enumerate(tests):
            yield done, len(tests)
            digest = self._tree.signature(test)
            uid = test.uid or digest
            mine = ours.get(uid)
            if mine is None:
                self._grow(test, uid=uid)
                counts[0] += 1
            elif self._our_tree.signature(mine) == digest or digest in ours:
                self._ids[Test, test.id] = mine.id
                counts[1] += 1
            else:
                self._grow(test, uid=digest)
                counts[2] += 1
        return counts[0], counts[1], counts[2]

    def _grow(self, record: Any, **changes: Any) -> None:
        """Write a record of theirs and all that belongs to it."""
        written = self._book.add(self._linked(record, **changes))
        self._ids[type(record), record.id] = written.id
        for child, link in _BRANCHES.get(type(record), ()):
            children = self._tree.children(record, child, link)
            if child in _BRANCHES:
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
            return notebook.everything()
        finally:
            notebook.close()


def merge(
    notebook: Notebook, theirs: Everything, label: str
) -> Generator[tuple[int, int], None, MergeReport]:
    """Take another notebook's records in, as one edit, a test a step.

    Parameters
    ----------
    notebook : Notebook
    theirs : dict
        Everything of the other notebook.
    label : str
        Names the edit for undo.

    Yields
    ------
    tuple of int
        How many of how many tests are done. Closing the generator early takes nothing in.
    """
    with notebook.change(label):
        merging = _Merging(notebook, theirs)
        merging.kit(of_tests=False)
        new, known, differing = yield from merging.tests()
        merging.kit(of_tests=True)
        merging.papers_of_stocks()
        notebook.refuse_faults()
    return MergeReport(new, known, differing, merging.new_kit)

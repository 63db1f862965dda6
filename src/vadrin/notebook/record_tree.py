"""Records of one notebook as trees: what belongs to what, and what makes two of them the same."""

from __future__ import annotations

import hashlib
from typing import Any

from vadrin.notebook.json_file import Everything
from vadrin.notebook.records import (
    PARENTS,
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
from vadrin.notebook.two_versions import last_moment

KEYS: dict[type[Any], tuple[str, ...]] = {
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
OF_TESTS = (RuleTrial, ControlStrip)
"""Kit that may point at a test or at one of its runs."""

BRANCHES: dict[type[Any], tuple[tuple[type[Any], str], ...]] = {
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
_BRANCHED_KINDS: set[type[Any]] = {
    Test,
    *(child for branches in BRANCHES.values() for child, _ in branches),
}
NOT_CONTENT = (
    "id",
    "uid",
    "like_id",
    "test_id",
    "strip_id",
    "frame_id",
    "run_id",
    "setup_id",
    "taken_from",
)
"""Fields that say where a record lies or came from, and nothing of what it holds."""


class RecordTree:
    """Records of one notebook by what they belong to."""

    def __init__(self, everything: Everything) -> None:
        self._by_owner: dict[tuple[type[Any], str], dict[int, list[Any]]] = {}
        self._everything = everything
        for branches in BRANCHES.values():
            for child, link in branches:
                groups: dict[int, list[Any]] = {}
                for record in everything.get(child, []):
                    groups.setdefault(getattr(record, link), []).append(record)
                self._by_owner[child, link] = groups
        self._kit = {k: {r.id: r for r in everything.get(k, [])} for k in KEYS}

    def children(self, record: Record, child: type[Any], link: str) -> list[Any]:
        """What belongs to a record."""
        return self._by_owner[child, link].get(record.id, [])

    def key(self, record: Record) -> tuple[Any, ...]:
        """What makes a record of kit the same as another, links followed."""
        links = dict(PARENTS.get(type(record), ()))
        values: list[Any] = []
        for name in KEYS[type(record)]:
            value = getattr(record, name)
            if name in links and value is not None:
                owner = self._kit[links[name]].get(value)
                value = self.key(owner) if owner else None
            values.append(value.strip().lower() if isinstance(value, str) else value)
        return tuple(values)

    def signature(self, test: Test) -> str:
        """A digest of a test and all that belongs to it, whatever its ids are."""
        return hashlib.sha256(repr(self.content(test)).encode()).hexdigest()[:16]

    def all_of(self, record: Record) -> list[Record]:
        """A record and all that belongs to it."""
        found = [record]
        for child, link in BRANCHES.get(type(record), ()):
            for each in self.children(record, child, link):
                found += self.all_of(each)
        return found

    def last_moment(self) -> str:
        """When something was last done to any test."""
        return last_moment(r for kind in _BRANCHED_KINDS for r in self._everything.get(kind, []))

    def content(self, record: Record) -> tuple[Any, ...]:
        """What a record holds, and all that belongs to it, whatever their ids are."""
        links = dict(PARENTS.get(type(record), ()))
        values: list[Any] = []
        for name, value in vars(record).items():
            if name in NOT_CONTENT:
                continue
            if name in links and value is not None:
                owner = self._kit[links[name]].get(value)
                value = self.key(owner) if owner else None
            values.append(value)
        branches = BRANCHES.get(type(record), ())
        parts = [[self.content(c) for c in self.children(record, *b)] for b in branches]
        return (*values, parts)

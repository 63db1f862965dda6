"""What an edit is made of, what goes away together, and why an edit can be refused."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any

from vadrin.notebook.records.all_records import (
    Attachment,
    Exposure,
    Finding,
    Frame,
    MeterReading,
    Note,
    Reading,
    Record,
    Strip,
)
from vadrin.notebook.records.kit import Batch, Bottle, ShutterTime

OWNED = {
    (Batch, "stock_id"), (Bottle, "developer_id"), (ShutterTime, "camera_id"),
    (Strip, "test_id"), (Frame, "strip_id"), (Exposure, "frame_id"),
    (MeterReading, "test_id"), (Reading, "frame_id"), (Finding, "test_id"),
    (Note, "test_id"), (Attachment, "test_id"), (Attachment, "stock_id"),
}  # fmt: skip
"""What goes away together with the record it points at; other links are only let loose."""


class ReadOnlyError(Exception):
    """An edit in a notebook that is open for reading only; the text says why."""


class InUseError(Exception):
    """A record that others need cannot be removed."""


@dataclass(frozen=True)
class Step:
    """One row before and after a change; None where it did not exist."""

    kind: type[Any]
    before: Record | None
    after: Record | None


@dataclass
class Change:
    """A named edit of any number of rows, which can be undone as one."""

    label: str
    steps: list[Step] = field(default_factory=list)

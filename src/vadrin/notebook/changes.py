"""What an edit is made of."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any

from vadrin.notebook.records import Record


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

"""Who wrote last: what tells two copies of a notebook apart that were both edited.

It is no part of what a notebook holds, and never leaves it in an export.
"""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class WritingSession:
    """One opening of the notebook in which something was written.

    `edits` counts those changes, so that a copy made meanwhile is told from what came later.
    """

    id: int = 0
    uid: str = ""
    began_at: str = ""
    edits: int = 0


@dataclass(frozen=True)
class Rewrite:
    """The last time a row was written over, or that it was removed.

    `kind` and `row` say which, `session` and `edit` when; `was` is a digest of a removed row.
    """

    id: int = 0
    kind: str = ""
    row: int = 0
    session: str = ""
    edit: int = 0
    removed: bool = False
    was: str = ""


HISTORY = (WritingSession, Rewrite)

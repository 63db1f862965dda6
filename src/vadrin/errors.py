"""Every error Vadrin raises on purpose; the text is words for the person, never a trace.

::

    VadrinError
    ├── EntryError          what was typed cannot be taken (a ValueError)
    │   ├── PlanError       a plan that cannot be, with what would help
    │   └── EditRefusedError  an edit that would lose something, with the way round
    │       └── StaleAnswerError  an answer that is not of the test as it is now
    ├── FormatError         a file that cannot be read or written
    │   └── UnmatchedColumnsError  a whole table whose columns go by other names
    ├── NotebookError       a notebook that cannot be opened
    │   └── NotebookHeldError  somebody else has it open for writing
    ├── StorageError        the open notebook's file refuses to be read or written
    ├── ReadOnlyError       an edit in a notebook open for reading only
    ├── RecordInUseError    a record that others need
    ├── StoppedError        the person stopped long work
    └── UsageError          bad use of the command line
"""

from __future__ import annotations

import re
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from vadrin.formats.readings.column_matching import RawTable

_LONG_QUOTE = re.compile(r"“([^”]{60})[^”]{20,}”")
"""What was typed, where a refusal would repeat more of it than can be read."""


class VadrinError(Exception):
    """The base of them all."""


class EntryError(VadrinError, ValueError):
    """Words typed that cannot be taken; the text says why, in terms of the field.

    Of long words it says the beginning.
    """

    def __init__(self, words: str = "", *more: object) -> None:
        super().__init__(_LONG_QUOTE.sub(r"“\1 …”", words), *more)


class PlanError(EntryError):
    """A plan that cannot be; the text says why and what would help."""


class EditRefusedError(EntryError):
    """An edit that would lose something; the text says what, and the way round."""


class StaleAnswerError(EditRefusedError):
    """What is to be decided, printed or written rests on an answer to another question."""


class FormatError(VadrinError):
    """A file that cannot be read at all; the text names the place and the remedy."""


class UnmatchedColumnsError(FormatError):
    """A table that is whole but whose columns go by other names.

    Attributes
    ----------
    raw : RawTable
        For a person to match.
    """

    def __init__(self, words: str, raw: RawTable) -> None:
        super().__init__(words)
        self.raw = raw


class NotebookError(VadrinError):
    """A notebook that cannot be opened; the text says why and what to do.

    Attributes
    ----------
    damaged : bool
        Whether something may be recovered from it.
    """

    def __init__(self, words: str, damaged: bool = False) -> None:
        super().__init__(words)
        self.damaged = damaged


class FaultyRecordsError(NotebookError):
    """Records that no notebook may hold.

    Attributes
    ----------
    rows : frozenset of (str, int)
        Their tables and ids.
    """

    def __init__(self, words: str, rows: frozenset[tuple[str, int]]) -> None:
        super().__init__(words)
        self.rows = rows


class NotebookHeldError(NotebookError):
    """Somebody else has the notebook open for writing; the text says who and since when."""


class StorageError(VadrinError):
    """The open notebook's file refuses to be read or written; the text is its reason."""


class ReadOnlyError(VadrinError):
    """An edit in a notebook that is open for reading only; the text says why."""


class RecordInUseError(VadrinError):
    """A record that others need cannot be removed."""


class StoppedError(VadrinError):
    """The person stopped long work."""


class UsageError(VadrinError):
    """Bad use or bad input of a command, in one line."""

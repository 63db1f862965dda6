"""Whole notebooks and files: copies, exports, another notebook taken in, a damaged one revived."""

from __future__ import annotations

from collections.abc import Callable, Generator
from pathlib import Path
from typing import TYPE_CHECKING

from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.formats.whole_file import write_whole
from vadrin.notebook.backups import backups_of
from vadrin.notebook.inspection import Inspection
from vadrin.notebook.json_file import notebook_json, records_of_json
from vadrin.notebook.merge import everything_of, merge
from vadrin.notebook.records import Attachment
from vadrin.notebook.recovery import recover, recovered_words
from vadrin.notebook.store import Notebook

if TYPE_CHECKING:
    from vadrin.notebook.json_file import Everything
    from vadrin.notebook.merge import MergeReport

# Formats and rarely used parts of the notebook are imported where they are needed: the window
# does not wait for them.

JSON_SUFFIX = ".json"
_LOOK_AGAIN_S = 0.05


def takes_long(path: Path) -> bool:
    """Whether a notebook is so large that looking through it takes more than a moment."""
    return Inspection.takes_long(path)


def looked_through(path: Path, ask: Callable[[], None]) -> Inspection:
    """Look through a notebook, wherever nobody waits; what is wrong is said when it is opened.

    Parameters
    ----------
    path : Path
    ask : callable
        Called often meanwhile; what it raises stops the waiting.
    """
    inspection = Inspection(path)
    while not inspection.over(_LOOK_AGAIN_S):
        ask()
    return inspection


def records_of_file(path: Path) -> Everything:
    """All records of a notebook or of a JSON export, to be taken in.

    Raises
    ------
    NotebookError
        If it cannot be read.
    """
    return records_of_json(path) if path.suffix == JSON_SUFFIX else everything_of(path)


def take_in(
    notebook: Notebook, theirs: Everything, name: str
) -> Generator[tuple[int, int], None, MergeReport]:
    """Take another notebook's records in, a test a step; what is known is not doubled."""
    return merge(notebook, theirs, f"taking in {name}", name)


def newest_backup(path: Path) -> Path | None:
    """The newest backup of a notebook, if there is any."""
    kept = backups_of(path)
    return kept[0] if kept else None


def _free_name(path: Path, word: str) -> Path:
    """A name beside a file that nothing has yet."""
    number = 1
    while True:
        tail = f" {number}" if number > 1 else ""
        target = path.with_name(f"{path.stem} {word}{tail}.vadrin")
        if not target.exists():
            return target
        number += 1


def copy_of_backup(path: Path, backup: Path) -> Path:
    """Write a backup beside the damaged notebook it is of.

    Raises
    ------
    OSError
    """
    target = _free_name(path, "from backup")
    write_whole(target, backup.read_bytes())
    return target


def recovered_copy(path: Path) -> tuple[Path, str]:
    """Write what can be read of a damaged notebook beside it, and say what that was.

    Raises
    ------
    NotebookError, OSError
    """
    target = _free_name(path, "recovered")
    found = recovered_words(recover(path, target))
    return target, f"Recovered into {target.name}: {found}."


def write_json(notebook: Notebook, path: Path) -> None:
    """Write a whole notebook as JSON.

    Raises
    ------
    OSError
    """
    write_whole(path, notebook_json(notebook))


def write_bytes(path: Path, contents: bytes) -> None:
    """Write a file that was made elsewhere, whole or not at all.

    Raises
    ------
    OSError
    """
    write_whole(path, contents)


def write_kept(kept: Attachment, path: Path) -> None:
    """Write a file kept with a test out again.

    Raises
    ------
    OSError
    """
    write_whole(path, kept.data)


KeptFile = Attachment
"""A file kept with a test, as the screen knows it."""

_TEXT_KINDS = ("text/", "application/json")
_MOST_LETTERS = 200_000


def seen_as_text(kept: KeptFile) -> str | None:
    """What a kept text file says, its end cut where it is long; None for anything else."""
    if not kept.media_type.startswith(_TEXT_KINDS):
        return None
    words = kept.data[: 4 * _MOST_LETTERS].decode("utf-8", errors="replace")
    return words if len(words) <= _MOST_LETTERS else f"{words[:_MOST_LETTERS]}\n…"


def attachments_of(notebook: Notebook, loaded: LoadedTest | None) -> list[Attachment]:
    """The files kept with a test."""
    return notebook.all(Attachment, test_id=loaded.test.id) if loaded else []

"""``vadrin merge A B -o C``: two notebooks in a third, nothing doubled and nothing lost."""

from __future__ import annotations

from pathlib import Path

from vadrin.errors import UsageError, VadrinError
from vadrin.notebook.backups import copy_whole
from vadrin.notebook.inspection import inspect
from vadrin.notebook.json_file import Everything
from vadrin.notebook.merge import MergeReport, everything_of, merge
from vadrin.notebook.store import Notebook


def run_merge(first: Path, second: Path, target: Path) -> int:
    """Write the third notebook and say what came in; the other two are only read.

    Raises
    ------
    UsageError
        If one of them is no notebook, or something stands at the third already.
    """
    for each in (first, second):
        if not each.is_file():
            raise UsageError(f"{each}: no such file; check the path")
    if target.exists() or target.suffix != ".vadrin":
        raise UsageError(f"{target}: name a new notebook that ends in .vadrin")
    try:
        inspect(first)
        theirs = everything_of(second)
        target.parent.mkdir(parents=True, exist_ok=True)
        copy_whole(first, target)
        report = _merged(target, theirs, second)
        print(f"{target}: {report.sentence()}")
        for conflict in report.conflicts:
            print(f"  {conflict}")
    except (VadrinError, OSError) as error:
        target.unlink(missing_ok=True)
        raise UsageError(str(error)) from error
    return 0


def _merged(target: Path, theirs: Everything, second: Path) -> MergeReport:
    book = Notebook(target)
    steps = merge(book, theirs, f"merge {second.name}", second.name)
    try:
        while True:
            next(steps)
    except StopIteration as end:
        report: MergeReport = end.value
        return report
    finally:
        book.close()

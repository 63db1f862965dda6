"""``vadrin recover DAMAGED COPY``: every record that can still be read, in a new notebook."""

from __future__ import annotations

import sys
from pathlib import Path

from vadrin.errors import NotebookError, UsageError
from vadrin.notebook.recovery import recover, recovered_words


def run_recover(damaged: Path, copy: Path) -> int:
    """Write the copy and say what is in it; the damaged file is only read."""
    if not damaged.is_file():
        raise UsageError(f"{damaged}: no such file; check the path")
    try:
        counts = recover(damaged, copy)
    except (NotebookError, OSError) as error:
        raise UsageError(str(error)) from error
    print(f"{copy}: {recovered_words(counts)}", file=sys.stderr)
    return 0

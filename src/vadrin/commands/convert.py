"""``vadrin convert IN OUT``: readings from one kind of file to another."""

from __future__ import annotations

import sys
from pathlib import Path

from vadrin.core.wording import counted
from vadrin.errors import FormatError, UsageError
from vadrin.formats.readings.any_file import read_readings, write_readings


def run_convert(source: Path, target: Path) -> int:
    """Convert all of a file, or nothing of it."""
    try:
        table = read_readings(source)
        if table.problems:
            raise UsageError(f"{source.name}, {table.problems[0].sentence()}")
        write_readings(table, target)
    except FormatError as error:
        raise UsageError(str(error)) from error
    if table.left_out:
        print(table.left_out_words, file=sys.stderr)
    print(f"{target}: {counted(len(table.rows), 'reading')}", file=sys.stderr)
    return 0

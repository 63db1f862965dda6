"""Writes the demo notebook that ships with the program: ``python -m tools.demo.demo_file``."""

import shutil
import sqlite3
from contextlib import closing
from pathlib import Path

from tools.demo.demo_notebook import make_demo
from vadrin.notebook.backups import folder_of
from vadrin.notebook.columns import table_name
from vadrin.notebook.records.history import HISTORY


def main() -> None:
    """Make it anew where the program looks for it."""
    target = Path(__file__).parents[2] / "src" / "vadrin" / "app" / "demo" / "demo.vadrin"
    target.unlink(missing_ok=True)
    make_demo(target)
    # Nobody's machine is named in what ships.
    with closing(sqlite3.connect(target)) as connection, connection:
        for kind in HISTORY:
            connection.execute(f"DELETE FROM {table_name(kind)}")
    # What ships is the notebook alone, not the copies kept of it while it was made.
    shutil.rmtree(folder_of(target), ignore_errors=True)


if __name__ == "__main__":
    main()

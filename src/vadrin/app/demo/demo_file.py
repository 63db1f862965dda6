"""Writes the demo notebook that ships with the program: ``python -m vadrin.app.demo.demo_file``."""

import shutil
from pathlib import Path

from vadrin.app.demo.demo_notebook import make_demo
from vadrin.notebook.backups import folder_of


def main() -> None:
    """Make it anew beside this module."""
    target = Path(__file__).with_name("demo.vadrin")
    target.unlink(missing_ok=True)
    make_demo(target)
    # What ships is the notebook alone, not the copies kept of it while it was made.
    shutil.rmtree(folder_of(target), ignore_errors=True)


if __name__ == "__main__":
    main()

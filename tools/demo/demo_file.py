"""Writes the demo notebook that ships with the program: ``python -m tools.demo.demo_file``."""

import shutil
from pathlib import Path

from tools.demo.demo_notebook import make_demo
from vadrin.notebook.backups import folder_of


def main() -> None:
    """Make it anew where the program looks for it."""
    target = Path(__file__).parents[2] / "src" / "vadrin" / "app" / "demo" / "demo.vadrin"
    target.unlink(missing_ok=True)
    make_demo(target)
    # What ships is the notebook alone, not the copies kept of it while it was made.
    shutil.rmtree(folder_of(target), ignore_errors=True)


if __name__ == "__main__":
    main()

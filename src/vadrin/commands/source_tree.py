"""Commands for whoever works on the program: they lie beside the source, not in the package."""

import importlib
import sys
from pathlib import Path

from vadrin.errors import UsageError

_ROOT = Path(__file__).resolve().parents[3]


def run_tool(name: str, *given: object) -> int:
    """Run ``tools/NAME`` of the source tree this program was started from, with what it is given.

    Raises
    ------
    UsageError
        Where the program was installed without its source tree.
    """
    if not any((_ROOT / "tools").glob(f"{name}*")):
        raise UsageError(f"vadrin {name} needs the source tree; run ./vadrin {name} there")
    sys.path.insert(0, str(_ROOT))
    tool = importlib.import_module(f"tools.{name}")
    return int(tool.run(*given))

"""Writes the manual page that ships with the program: ``python tools/manual.py``.

It is made from the command line's own parsers by argparse-manpage, which is needed for this and
nothing else: install it into an environment beside the program's own.
"""

from __future__ import annotations

import sys
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
sys.path[:0] = [str(ROOT / "src")]

from vadrin import __version__  # noqa: E402
from vadrin.commands.parsers import command_parser  # noqa: E402

PAGE = ROOT / "src" / "vadrin" / "desktop" / "vadrin.1"
_WINDOW = (
    ".SH THE WINDOW\n"
    "Without a command the window opens: on the notebook that is named (a file that ends in "
    "\\.vadrin), on the last one, or, with demo, on a fresh demo notebook. The commands need no "
    "screen."
)
_EXITS = ".SH EXIT STATUS\n0 if done, 2 for words that mean nothing or files that cannot be read."


def main() -> int:
    """Write the page."""
    try:
        from argparse_manpage.manpage import Manpage
    except ModuleNotFoundError:
        print("argparse-manpage is missing; see the head of this file", file=sys.stderr)
        return 2
    parser = command_parser()
    about = {
        "short_description": "find a film's exposure index and its development times",
        "manual_title": "Vadrin",
        "project_name": "vadrin",
        "version": __version__,
    }
    parser.man_short_description = about["short_description"]  # type: ignore[attr-defined]
    page = str(Manpage(parser, format="pretty", _data=about))
    PAGE.write_text(f"{page.rstrip()}\n{_WINDOW}\n{_EXITS}\n", encoding="utf-8")
    return 0


if __name__ == "__main__":
    sys.exit(main())

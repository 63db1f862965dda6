"""``vadrin register``: notebooks open from the file manager, for this user alone."""

from __future__ import annotations

import os
import re
import shutil
import subprocess
import sys
from pathlib import Path

from vadrin.errors import UsageError
from vadrin.formats.whole_file import write_whole

_MIME = """<?xml version="1.0" encoding="UTF-8"?>
<mime-info xmlns="http://www.freedesktop.org/standards/shared-mime-info">
  <mime-type type="application/x-vadrin">
    <comment>Vadrin notebook</comment>
    <glob pattern="*.vadrin"/>
  </mime-type>
</mime-info>
"""
_ENTRY = """[Desktop Entry]
Type=Application
Name=Vadrin
Comment=Find a film's exposure index and its development times
Exec={program} --in-window %f
Terminal=false
Categories=Science;Photography;
MimeType=application/x-vadrin;
"""


def _quoted(word: str) -> str:
    """A word of a command as a desktop entry has it: quoted as in a shell, then as a string.

    Source: Desktop Entry Specification 1.5, "The Exec key" and "Possible value types".
    """
    inside = re.sub(r'(["`$\\])', r"\\\1", word.replace("%", "%%"))
    return '"' + inside.replace("\\", "\\\\") + '"'


def run_register() -> int:
    """Write the two files the desktop looks for, and tell it where its tools are there."""
    data = Path(os.environ.get("XDG_DATA_HOME") or Path.home() / ".local" / "share")
    program = Path(__file__).resolve().parents[3] / "vadrin"
    written = {
        data / "mime" / "packages" / "vadrin.xml": _MIME,
        data / "applications" / "vadrin.desktop": _ENTRY.format(program=_quoted(str(program))),
    }
    for path, text in written.items():
        try:
            path.parent.mkdir(parents=True, exist_ok=True)
            write_whole(path, text)
        except OSError as error:
            reason = (error.strerror or "cannot be written").lower()
            raise UsageError(f"{path}: {reason}; check the folder") from error
    for tool, folder in (
        ("update-mime-database", "mime"),
        ("update-desktop-database", "applications"),
    ):
        if shutil.which(tool):
            subprocess.run([tool, str(data / folder)], check=False, capture_output=True)
    print(f"notebooks open from the file manager now ({data})", file=sys.stderr)
    return 0

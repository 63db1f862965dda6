"""``vadrin register``: the program among the desktop's own, for this user alone; ``unregister``
takes it all back."""

from __future__ import annotations

import os
import re
import shutil
import subprocess
import sys
from collections.abc import Iterator
from contextlib import contextmanager
from importlib.resources import files
from pathlib import Path

import shtab

from vadrin.commands.parsers import command_parser
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
Icon=vadrin
StartupWMClass=vadrin
Terminal=false
Categories=Science;Photography;
MimeType=application/x-vadrin;
Actions=demo;

[Desktop Action demo]
Name=Open the demo notebook
Exec={program} --in-window --demo
"""
_COMPLETIONS = {
    "bash": "bash-completion/completions/vadrin",
    "zsh": "zsh/site-functions/_vadrin",
    "fish": "fish/vendor_completions.d/vadrin.fish",
}
"""Where each shell looks for what completes the words of a command."""
_ICON_SIZES = (16, 24, 32, 48, 64, 128, 256, 512)


def _quoted(word: str) -> str:
    """A word of a command as a desktop entry has it: quoted as in a shell, then as a string.

    Source: Desktop Entry Specification 1.5, "The Exec key" and "Possible value types".
    """
    inside = re.sub(r'(["`$\\])', r"\\\1", word.replace("%", "%%"))
    return '"' + inside.replace("\\", "\\\\") + '"'


def program_path() -> Path:
    """What starts this very program: the script of an installation, or of a source tree.

    Raises
    ------
    UsageError
        If neither is there.
    """
    in_the_tree = Path(__file__).resolve().parents[3] / "vadrin"
    installed = Path(sys.executable).with_name("vadrin")
    found = next(
        (p for p in (in_the_tree, installed) if p.is_file() and os.access(p, os.X_OK)), None
    )
    if found is None:
        raise UsageError(f"no program to register at {installed}; install it, or run ./vadrin")
    return found


def _data_folder() -> Path:
    return Path(os.environ.get("XDG_DATA_HOME") or Path.home() / ".local" / "share")


def _files(data: Path) -> dict[Path, bytes]:
    """Everything that is written, by its place."""
    program = _quoted(str(program_path()))
    made = {
        data / "mime" / "packages" / "vadrin.xml": _MIME.encode(),
        data / "applications" / "vadrin.desktop": _ENTRY.format(program=program).encode(),
    }
    icons, theme = files("vadrin") / "icons", data / "icons" / "hicolor"
    made[theme / "scalable" / "apps" / "vadrin.svg"] = (icons / "vadrin.svg").read_bytes()
    shipped = files("vadrin") / "desktop"
    made[data / "metainfo" / "vadrin.metainfo.xml"] = (shipped / "vadrin.metainfo.xml").read_bytes()
    made[data / "man" / "man1" / "vadrin.1"] = (shipped / "vadrin.1").read_bytes()
    for shell, folder in _COMPLETIONS.items():
        made[data / folder] = completion_for(shell).encode()
    for size in _ICON_SIZES:
        place = theme / f"{size}x{size}" / "apps" / "vadrin.png"
        made[place] = (icons / f"vadrin-{size}.png").read_bytes()
    return made


def completion_for(shell: str) -> str:
    """What completes the program's commands and options in a shell, from their own parser."""
    return str(shtab.complete(command_parser(), shell))


def _tell_the_desktop(data: Path) -> None:
    """Its tools make lists of what lies there, where they are installed."""
    for tool, folder in (
        ("update-mime-database", "mime"),
        ("update-desktop-database", "applications"),
    ):
        if shutil.which(tool) and (data / folder).is_dir():
            subprocess.run([tool, str(data / folder)], check=False, capture_output=True)


@contextmanager
def _told_by_name(path: Path) -> Iterator[None]:
    """What fails with a file is said with its name."""
    try:
        yield
    except OSError as error:
        reason = (error.strerror or "cannot be changed").lower()
        raise UsageError(f"{path}: {reason}; check the folder") from error


def run_register() -> int:
    """Write what the desktop looks for, and tell it where its tools are there."""
    data = _data_folder()
    for path, content in _files(data).items():
        with _told_by_name(path):
            path.parent.mkdir(parents=True, exist_ok=True)
            write_whole(path, content)
    _tell_the_desktop(data)
    print(f"notebooks open from the file manager now ({data})", file=sys.stderr)
    return 0


def run_unregister() -> int:
    """Take away what `run_register` wrote, and nothing else."""
    data = _data_folder()
    for path in _files(data):
        with _told_by_name(path):
            path.unlink(missing_ok=True)
    _tell_the_desktop(data)
    print(f"nothing of it is registered any more ({data})", file=sys.stderr)
    return 0

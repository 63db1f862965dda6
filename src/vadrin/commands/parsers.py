"""What the command line takes: the words of every command, for reading them and for telling of
them."""

from __future__ import annotations

import argparse
from pathlib import Path

from vadrin import __version__
from vadrin.app.practice.practice_questions import KINDS
from vadrin.core.simulation.practice_level import Level
from vadrin.errors import UsageError

COMMANDS = (
    "analyse",
    "convert",
    "practice",
    "snapshot",
    "bench",
    "register",
    "unregister",
    "recover",
    "merge",
)


class Parser(argparse.ArgumentParser):
    """A parser whose refusals are one line."""

    def error(self, message: str) -> None:  # type: ignore[override]
        raise UsageError(f"{self.prog}: {message}; see --help")


def command_parser() -> argparse.ArgumentParser:
    """The commands that need no window."""
    parser = Parser(prog="vadrin", description="Find a film's EI and its development times.")
    parser.add_argument("--version", action="version", version=__version__)
    commands = parser.add_subparsers(dest="command", parser_class=Parser)
    analyse = commands.add_parser("analyse", help="work out a table of readings")
    analyse.add_argument("readings", type=Path, help="CSV, XLSX, ODS, CGATS or JSON")
    analyse.add_argument("--json", action="store_true", help="a report in place of the tables")
    analyse.add_argument(
        "--target", default="average_gradient=0.58", help="the contrast or time that is wanted"
    )
    analyse.add_argument("--push", default="-1,0,1,2", help="pushes and pulls in stops")
    analyse.add_argument(
        "--meter-constant", type=float, default=8.125, help="of the light meter, in lux seconds"
    )
    analyse.add_argument("--out", type=Path, help="the file it is written to")
    convert = commands.add_parser("convert", help="readings from one kind of file to another")
    convert.add_argument("source", type=Path, metavar="IN", help="the readings there are")
    convert.add_argument("target", type=Path, metavar="OUT", help="the file to write, by its end")
    practice = commands.add_parser(
        "practice", help="a film nobody knows: in the window, or read, as files with --out"
    )
    practice.add_argument("--seed", type=int, metavar="N", help="which film: a number")
    practice.add_argument("--out", type=Path, metavar="DIR", help="write it, read, to a folder")
    levels = [level.value for level in Level]
    practice.add_argument("--level", choices=levels, default="usual", help="how much goes wrong")
    practice.add_argument(
        "--type", choices=tuple(KINDS), default="time", help="what it is asked in the window"
    )
    practice.add_argument("--json", action="store_true", help="readings as JSON, too")
    practice.add_argument("--open", type=Path, metavar="DIR", help="open the envelope of a film")
    practice.add_argument("--ei", type=float, help="the EI you decided on")
    practice.add_argument("--time", metavar="M:SS", help="the time you decided on")
    commands.add_parser("register", help="open notebooks from the file manager")
    commands.add_parser("unregister", help="take back what register wrote")
    recover = commands.add_parser("recover", help="save what a damaged notebook still holds")
    recover.add_argument("damaged", type=Path, help="it is not changed")
    recover.add_argument("copy", type=Path, help="the new notebook")
    merge = commands.add_parser("merge", help="two notebooks in a third, nothing doubled")
    merge.add_argument("first", type=Path, metavar="A", help="it is not changed")
    merge.add_argument("second", type=Path, metavar="B", help="it is not changed")
    merge.add_argument(
        "-o", "--out", type=Path, required=True, metavar="C", help="the new notebook"
    )
    snapshot = commands.add_parser("snapshot", help="every main view as PNG")
    snapshot.add_argument("folder", type=Path)
    snapshot.add_argument("names", nargs="*", metavar="NAME", help="only these pictures")
    commands.add_parser("bench", help="the benchmark table")
    return parser


def window_parser() -> argparse.ArgumentParser:
    """The window, and what it is opened on."""
    parser = Parser(
        prog="vadrin",
        description="Find a film's EI and its development times.",
        epilog=f"Commands without a window: {', '.join(COMMANDS)}; each has --help.",
    )
    parser.add_argument("notebook", nargs="?", type=Path, help="a *.vadrin file, or demo")
    parser.add_argument("--in-window", action="store_true", help="show refusals in a window")
    parser.add_argument("--demo", action="store_true", help="open a fresh demo notebook")
    parser.add_argument("--version", action="version", version=__version__)
    return parser

"""The command line: the application, and the commands that need no screen."""

from __future__ import annotations

import io
import os
import sys
import traceback
from collections.abc import Sequence
from contextlib import suppress
from difflib import get_close_matches
from pathlib import Path

from vadrin.commands.parsers import COMMANDS, command_parser, window_parser
from vadrin.errors import UsageError, VadrinError


def _joined(arguments: Sequence[str]) -> list[str]:
    """Join ``--push -1,0`` into one word, since argparse takes -1 for an option."""
    words: list[str] = []
    for word in arguments:
        if words and words[-1] in ("--push", "--target"):
            words[-1] += f"={word}"
        else:
            words.append(word)
    return words


def _run(arguments: list[str]) -> int:
    if arguments[:1] == ["demo"]:
        arguments = ["--demo", *arguments[1:]]
    if arguments and arguments[0] in COMMANDS:
        options = command_parser().parse_args(_joined(arguments))
        if options.command == "analyse":
            from vadrin.commands.analyse import run_analyse

            return run_analyse(options)
        if options.command == "convert":
            from vadrin.commands.convert import run_convert

            return run_convert(options.source, options.target)
        if options.command == "practice" and options.out is None and options.open is None:
            from vadrin.commands.desktop import run_practice_window

            return run_practice_window(options.level, options.type, options.seed)
        if options.command == "practice":
            from vadrin.commands.practice import run_practice_command

            return run_practice_command(options)
        if options.command == "recover":
            from vadrin.commands.recover import run_recover

            return run_recover(options.damaged, options.copy)
        if options.command == "merge":
            from vadrin.commands.merge_notebooks import run_merge

            return run_merge(options.first, options.second, options.out)
        if options.command in ("register", "unregister"):
            from vadrin.commands.register import run_register, run_unregister

            return run_register() if options.command == "register" else run_unregister()
        from vadrin.commands.source_tree import run_tool

        given = (options.folder, options.names) if options.command == "snapshot" else ()
        return run_tool(options.command, *given)
    from vadrin.commands.desktop import run_window

    options = window_parser().parse_args(arguments)
    if options.notebook is not None:
        _meant(options.notebook)
    return run_window(options.notebook, options.demo, options.in_window)


def _meant(notebook: Path) -> None:
    """Refuse a word that is neither a command nor a notebook: none is made of a slip of the hand.

    Raises
    ------
    UsageError
        With the likeliest command, or with what is wrong about a name.
    """
    shown = str(notebook).encode("utf-8", "backslashreplace").decode()
    if shown != str(notebook):
        raise UsageError(f"{shown}: a name that is no text; rename the file first")
    try:
        notebook.resolve()
    except (RuntimeError, OSError) as error:
        raise UsageError(
            f"{notebook}: a link that leads back to itself; name the notebook itself"
        ) from error
    if notebook.exists() or notebook.suffix == ".vadrin":
        return
    like = get_close_matches(notebook.name, (*COMMANDS, "demo"), n=1)
    likely = f"was vadrin {like[0]} meant?" if like else "a new notebook's name ends in .vadrin"
    raise UsageError(f"{notebook}: no command and no notebook; {likely}")


def main(arguments: Sequence[str] | None = None) -> int:
    """Run one command line.

    Returns
    -------
    int
        0 done, 2 bad use or bad input.
    """
    _say_odd_names()
    try:
        done = _run(list(sys.argv[1:] if arguments is None else arguments))
        sys.stdout.flush()
        return done
    except BrokenPipeError:
        # Whoever read the output had enough.
        _drop_the_rest()
        return 0
    except UsageError as error:
        return _refused(str(error))
    except KeyboardInterrupt:
        return _refused("stopped")
    except (VadrinError, OSError, MemoryError) as error:
        return _refused(_reason(error))
    except Exception as error:
        return _refused(_fault(error))


def _say_odd_names() -> None:
    """File names need not be Unicode: what can't be printed is printed as its code."""
    for stream in (sys.stdout, sys.stderr):
        if isinstance(stream, io.TextIOWrapper):
            stream.reconfigure(errors="backslashreplace")


def _reason(error: Exception) -> str:
    if isinstance(error, OSError):
        place = f"{error.filename}: " if error.filename else ""
        return f"{place}{(error.strerror or str(error)).lower()}; check the place and the disk"
    if isinstance(error, MemoryError):
        return "not enough memory for this; close other programs or split the file"
    return str(error)


def _fault(error: Exception) -> str:
    from vadrin.commands.desktop import keep_details

    log = keep_details("".join(traceback.format_exception(error)))
    return f"something went wrong ({type(error).__name__}); nothing was changed. Details: {log}"


def _refused(words: str) -> int:
    """Say it in one line, whatever a file is called."""
    with suppress(OSError, ValueError):
        print(words.replace("\n", "\\n").replace("\r", "\\r"), file=sys.stderr)
    try:
        sys.stdout.flush()
    except (OSError, ValueError):
        _drop_the_rest()
    return 2


def _drop_the_rest() -> None:
    """What could not be written: Python would try once more at exit, and complain."""
    with suppress(OSError, ValueError):
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())

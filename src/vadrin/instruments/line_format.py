"""What an instrument says in a line of text, told by one example."""

from __future__ import annotations

import re
from dataclasses import dataclass

from vadrin.core.channels import Channel

LONGEST_LINE = 200
_PLAIN_NUMBER = r"[-+]?\d+(?:[.,]\d+)?"
_NUMBER = r"(?<!\d)(?<!\d[.,])[-+]?\d++(?:[.,]\d++)?+(?!\d|[.,]\d)"
"""A whole number, never a part of one; it gives nothing back, so that matching is linear."""
_MARKED = re.compile(r"\{\s*([-+]?\d+(?:[.,]\d+)?)\s*\}|\[(\w+)\]")
_LETTERS = {
    "v": "visual",
    "r": "red",
    "c": "red",
    "g": "green",
    "m": "green",
    "b": "blue",
    "y": "blue",
    "u": "uv",
}
"""A channel, or the colour of the dye it looks at, by its first letter."""


@dataclass(frozen=True)
class LineReading:
    """A number of a line, and the channel where the line names one."""

    value: float
    channel: Channel | None = None


class LineFormat:
    """Takes the number out of lines like an example.

    Parameters
    ----------
    example : str
        A line of the instrument's with the number in braces, and the channel in square brackets
        where there is one: ``T= {20.4} C``, ``[V] D {1.23}``.

    Raises
    ------
    ValueError
        If no number is marked, or several are.
    """

    def __init__(self, example: str) -> None:
        marks = list(_MARKED.finditer(example))
        if sum(m[1] is not None for m in marks) != 1 or len(marks) > 2:
            raise ValueError("put the number of the line in braces, once: T= {20.4} C")
        pattern, at = "", 0
        for mark in marks:
            pattern += _around(example[at : mark.start()])
            pattern += (
                rf"(?P<number>{_NUMBER})" if mark[1] is not None else r"(?P<channel>[^\W\d_]++)"
            )
            at = mark.end()
        self._pattern = re.compile(rf"\s*+{pattern}{_around(example[at:])}\s*+", re.IGNORECASE)

    def read(self, line: str) -> LineReading | None:
        """What a line says; None for one that is not like the example."""
        if len(line) > LONGEST_LINE:
            # Cut short it would end in the middle of something.
            return None
        found = self._pattern.fullmatch(line.strip("\r\n\x00"))
        if found is None:
            return None
        said = found.groupdict().get("channel")
        name = _LETTERS.get(said[:1].lower()) if said else None
        value = float(found["number"].replace(",", "."))
        return LineReading(value, Channel(name) if name else None)


def _around(words: str) -> str:
    """A pattern for what stands beside the number: its own words, any numbers, any spaces.

    Spaces between two numbers must be there: one number after another is not a longer one.
    """
    pieces = re.split(rf"({_PLAIN_NUMBER}|\s+)", words)
    return "".join(
        _NUMBER if re.fullmatch(_PLAIN_NUMBER, p) else r"\s*+" if p.isspace() else re.escape(p)
        for p in pieces
        if p
    )

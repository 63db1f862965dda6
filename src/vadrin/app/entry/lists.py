"""Lists of quantities as people type them, parted into the words of one quantity each."""

from __future__ import annotations

import re
from itertools import pairwise

from vadrin.errors import EntryError

_HARD = re.compile(
    r"\s*;\s*|\s*,\s+and\s+|\s*,(?=\s|$)\s*|\s+and\s+|\s+[/|+]\s+|\s*[\t\n]\s*", re.IGNORECASE
)
"""What parts two quantities and stands inside none."""
_BEFORE_A_NUMBER = re.compile(r"\s+(?=[-+−–]?[\d.½⅓⅔¼¾⅙⅚⅛])(?!\d\s*/\s*\d)")
_TWO_BARE = re.compile(r"[-+−–]?[\d.,:½⅓⅔¼¾⅙⅚⅛]+\s+[\d.,:]+")
_UNIT = re.compile(r"[a-z'′\"″]+\.?$", re.IGNORECASE)
_DECIMALS = ("0", "5", "25", "50", "75")
"""What stands behind a decimal comma, where nothing but commas parts a list."""


def surely_parted(words: str) -> list[str]:
    """The pieces between what parts two quantities and stands inside none; else one."""
    return [piece for piece in _HARD.split(words.strip()) if piece]


def parted(words: str, what: str) -> list[str]:
    """The pieces of a list: ``6, 8,5 and 11:30``, ``6½; 8``, ``6 8 11 min``, ``6,8,11``.

    Commas, semicolons and words part before spaces do, so that ``6 1/2, 8`` are two; a comma
    inside a word is a decimal comma, unless there is no space at all.

    Parameters
    ----------
    words : str
    what : str
        One of them in words, for the question: ``time``.

    Raises
    ------
    EntryError
        Where it may be read in two ways.
    """
    plain = words.strip()
    pieces = surely_parted(plain)
    if len(pieces) > 1 or _HARD.search(plain):
        for piece in pieces:
            if _TWO_BARE.fullmatch(piece):
                raise _asked(piece, what)
        return pieces
    if re.search(r"\s", plain):
        return _by_spaces(plain, what)
    pieces = plain.split(",")
    if len(pieces) == 2:
        raise EntryError(
            f"“{plain}”: two {what}s, or one? Put a space after the comma for two, or write "
            f"{plain.replace(',', '.')} for one"
        )
    if len(pieces) % 2 == 0 and all(piece in _DECIMALS for piece in pieces[1::2]):
        raise _asked(plain, what)
    return [piece for piece in pieces if piece]


def _by_spaces(plain: str, what: str) -> list[str]:
    pieces = _BEFORE_A_NUMBER.split(plain)
    units = [found[0].rstrip(".") if (found := _UNIT.search(p)) else "" for p in pieces]
    mixed = len(set(units) - {""}) > 1
    # A unit holds for what stands before it: 6 8 11 min. In 6 min 30 it is open what the 30 is.
    if mixed or any(one and not then for one, then in pairwise(units)):
        raise _asked(plain, what)
    return pieces


def _asked(plain: str, what: str) -> EntryError:
    return EntryError(f"“{plain}”: one {what}, or several? Part them by a comma and a space")

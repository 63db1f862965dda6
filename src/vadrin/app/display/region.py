"""Decimals and days as a region writes them; everything inside the program is in points and ISO."""

from __future__ import annotations

import re
from dataclasses import dataclass, fields, is_dataclass, replace
from datetime import date
from typing import Any, TypeVar

# Not in the names of files, versions or addresses, nor where an aperture is engraved as f/5.6.
_BEFORE, _AFTER = r"(?<![\w/.,\\])(?<![^\W\d]-)", r"(?!\w*\.\w|\d|_)"
_DECIMAL = re.compile(rf"{_BEFORE}(\d+)\.(\d+){_AFTER}")
_BARE_DECIMAL = re.compile(rf"{_BEFORE}\.(\d+){_AFTER}")
_DAY = re.compile(r"(?<![\w/.,\\-])(\d{4})-(\d\d)-(\d\d)(?![\w-]|\.\w)")
_BEGINS_AS_NUMBER = re.compile(r"[-+±−]?\s*\.?\d")


@dataclass(frozen=True)
class Region:
    """How a region writes numbers and days.

    Attributes
    ----------
    decimal_comma : bool
    day : str
        A date's form for ``strftime``; empty for ISO 8601.
    american : bool
        Whether it measures in US fluid ounces and degrees Fahrenheit.
    """

    decimal_comma: bool = False
    day: str = ""
    american: bool = False

    def words(self, plain: str) -> str:
        """Words of the program as they are shown: numbers and days in the region's way.

        Names of files are left as they are. Done twice, nothing more changes.
        """
        if self.decimal_comma:
            plain = _BARE_DECIMAL.sub(r",\1", _DECIMAL.sub(r"\1,\2", plain))
        return _DAY.sub(self._day, plain) if self.day else plain

    def typed(self, plain: str) -> str:
        """What stands in a field: a number in the region's way, a name or a day as it is kept.

        Days stay ISO where they are typed, for they are read back.
        """
        numeric = self.decimal_comma and _BEGINS_AS_NUMBER.match(plain)
        return replace(self, day="").words(plain) if numeric else plain

    def _day(self, found: re.Match[str]) -> str:
        try:
            return date(int(found[1]), int(found[2]), int(found[3])).strftime(self.day)
        except ValueError:
            return found[0]


PLAIN = Region()
"""Points and ISO 8601, where no region is set."""
_PARTS = {"d": "%d", "M": "%m", "y": "%Y"}


def region_of(decimal_point: str, short_date: str, american: bool = False) -> Region:
    """The region of a platform's decimal point, its short form of a date, and its units.

    Parameters
    ----------
    decimal_point : str
    short_date : str
        With runs of d, M and y, such as ``dd.MM.yy``; the year is always written whole.
    american : bool
        Whether it measures in US units.
    """
    form = re.sub(r"d+|M+|y+", lambda run: _PARTS[run[0][0]], short_date)
    # A month's name is of another language than the program's words.
    named = "MMM" in short_date or re.search(r"(?<!%)[A-Za-z]", form)
    known = not named and all(part in form for part in _PARTS.values())
    return Region(decimal_point == ",", form if known and form != "%Y-%m-%d" else "", american)


_here = PLAIN
_Any = TypeVar("_Any")


def set_region(region: Region) -> None:
    """Choose how numbers and days are shown from here on."""
    global _here
    _here = region


def region_here() -> Region:
    """How numbers and days are shown."""
    return _here


def local(words: str) -> str:
    """Words as they are shown here."""
    return _here.words(words)


def local_typed(words: str) -> str:
    """What the program puts into a field, as it is shown here."""
    return _here.typed(words)


def local_all(printed: _Any) -> _Any:
    """What goes on paper, records and rows of words, as it is shown here."""
    return printed if _here == PLAIN else _localised(printed)


def _localised(printed: Any) -> Any:
    if isinstance(printed, str):
        return local(printed)
    if type(printed) in (list, tuple):
        return type(printed)(map(_localised, printed))
    if is_dataclass(printed) and not isinstance(printed, type):
        parts = {f.name: _localised(getattr(printed, f.name)) for f in fields(printed) if f.init}
        return replace(printed, **parts)
    return printed

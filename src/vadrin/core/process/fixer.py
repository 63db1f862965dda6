"""Whether a fixer still does: by how long a scrap takes to clear, and by a drop that clouds."""

from __future__ import annotations

from dataclasses import dataclass

_SPENT = 2.0
"""Times the fresh clearing time at which it is discarded."""
_FIX_TIMES = 2.0
"""Least fixing time, as a multiple of the clearing time."""


@dataclass(frozen=True)
class FixerCheck:
    """What a scrap says.

    Attributes
    ----------
    spent : bool or None
        Whether it is to be discarded; None where neither way tells.
    fix_s : float or None
        Least seconds to fix for; None where no scrap was tried.
    """

    spent: bool | None
    fix_s: float | None


def check_fixer(
    clearing_s: float | None, fresh_s: float | None, clouds: bool | None = None
) -> FixerCheck:
    """Judge a fixer.

    Parameters
    ----------
    clearing_s, fresh_s : float or None
        Seconds in which a scrap cleared now, and when the bottle was mixed.
    clouds : bool or None
        Whether a drop of test solution clouded it: it holds too much silver then, however fast it
        clears. None where that was not tried.

    Raises
    ------
    ValueError
        For no time.
    """
    if any(seconds is not None and seconds <= 0 for seconds in (clearing_s, fresh_s)):
        raise ValueError("a scrap takes more than 0 s to clear")
    slow = None
    if clearing_s is not None and fresh_s is not None:
        slow = clearing_s >= _SPENT * fresh_s
    told = [way for way in (slow, clouds) if way is not None]
    fix_s = None if clearing_s is None else _FIX_TIMES * clearing_s
    return FixerCheck(any(told) if told else None, fix_s)

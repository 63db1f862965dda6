"""Whether a fixer still does, by how long a scrap of film takes to clear in it."""

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
        Whether it is to be discarded; None where its fresh time was never noted.
    fix_s : float
        Least seconds to fix for.
    """

    spent: bool | None
    fix_s: float


def check_fixer(clearing_s: float, fresh_s: float | None) -> FixerCheck:
    """Judge a fixer.

    Parameters
    ----------
    clearing_s, fresh_s : float
        Seconds in which a scrap cleared now, and when the bottle was mixed.

    Raises
    ------
    ValueError
        For no time.
    """
    if clearing_s <= 0 or (fresh_s is not None and fresh_s <= 0):
        raise ValueError("a scrap takes more than 0 s to clear")
    spent = None if fresh_s is None else clearing_s >= _SPENT * fresh_s
    return FixerCheck(spent, _FIX_TIMES * clearing_s)

"""What tries of a bottle of fixer or bleach say, each with its day."""

from __future__ import annotations

from vadrin.app.display.words import date_text
from vadrin.core.process.fixer import FixerCheck, check_fixer
from vadrin.notebook.records import Bottle
from vadrin.notebook.records.kit import DROPS

_CLOUDS = DROPS[1]
TRIED = ("fixer", "bleach")
"""Chemistry that is tried by a scrap."""


def is_spent(bottle: Bottle) -> bool:
    """Whether a try says that it is to be discarded."""
    return bool(_check_of(bottle).spent)


def tried_words(bottle: Bottle, role: str) -> str:
    """What was tried of a bottle and what follows; empty where nothing was."""
    check, said = _check_of(bottle), []
    if bottle.clearing_s:
        bleach = role == "bleach"
        how = "a drop bleaches a fully exposed scrap" if bleach else "clears a scrap"
        took = f"{how} in {bottle.clearing_s:g} s{_on(bottle.clearing_at)}"
        if not check.spent and check.fix_s is not None:
            took += f": {'bleach' if bleach else 'fix'} for {check.fix_s:g} s at least"
        said.append(took)
    if bottle.drop_test and role != "bleach":
        said.append(f"a drop of test solution {bottle.drop_test}{_on(bottle.drop_at)}")
    words = "; ".join(said)
    return f"exhausted: discard under local rules ({words})" if check.spent else words


def _check_of(bottle: Bottle) -> FixerCheck:
    clouds = bottle.drop_test == _CLOUDS if bottle.drop_test else None
    return check_fixer(bottle.clearing_s or None, bottle.fresh_clearing_s or None, clouds)


def _on(day: str) -> str:
    return f" on {date_text(day)}" if day else ", on a day nobody noted"

"""How a tester does over many practice films: how often ranges hold, and which way they err."""

from __future__ import annotations

import json
from collections.abc import Iterable
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from vadrin.app.practice.practice_place import OPENED
from vadrin.core.wording import counted

_LONGEST = 200_000
_MEANT = 0.9
"""How often a range is meant to hold."""
_ENOUGH = 5
"""Films from which something is said of a habit."""
_BIAS = 0.15
"""Stops of the EI on one side, on the mean, that are a habit."""


@dataclass(frozen=True)
class OpenedEnvelope:
    """One opened envelope.

    Attributes
    ----------
    film, day, kind, level, way : str
    index_off, time_off : float or None
        Of the tester: stops of the EI, share of the time.
    held : tuple of bool
        Whether each of their ranges held.
    traps, caught : int
        How many things went wrong, and how many of them the tester noticed.
    """

    film: str
    day: str
    kind: str
    level: str
    way: str
    index_off: float | None
    time_off: float | None
    held: tuple[bool, ...]
    traps: int
    caught: int


def practised_films(place: Path) -> tuple[OpenedEnvelope, ...]:
    """Every opened envelope, the oldest first; one that is hurt is passed over."""
    made = []
    for path in sorted(place.glob(f"film */{OPENED}")):
        try:
            told = json.loads(path.read_text("utf-8")[:_LONGEST])
            made.append(_of(path.parent.name, told))
        except (OSError, ValueError, KeyError, TypeError, AttributeError):
            continue
    return tuple(sorted(made, key=lambda one: one.day))


def _of(name: str, told: dict[str, Any]) -> OpenedEnvelope:
    rows = {str(row["name"]): row for row in told["rows"]}
    held = tuple(bool(r["mine_held"]) for r in rows.values() if r["mine_held"] is not None)
    return OpenedEnvelope(
        name,
        str(told["opened_at"]),
        str(told["kind"]),
        str(told["level"]),
        str(told["way"]),
        _number(rows.get("EI", {}).get("mine_off")),
        _number(rows.get("time", {}).get("mine_off")),
        held,
        len(told["traps"]),
        sum(bool(t[2]) for t in told["traps"]),
    )


def _number(value: Any) -> float | None:
    return None if value is None else float(value)


def score_sentences(films: Iterable[OpenedEnvelope]) -> list[str]:
    """What the films say of their tester, and what to practise next."""
    films = tuple(films)
    if not films:
        return ["No envelope was opened yet. Ranges are held against the truth once one was."]
    held = [h for film in films for h in film.held]
    said = []
    if held:
        said.append(
            f"{sum(held)} of {counted(len(held), 'range')} held the truth; "
            "nine of ten were meant to."
        )
    for way in dict.fromkeys(f.way for f in films):
        off = [f.index_off for f in films if f.way == way and f.index_off is not None]
        if off:
            mean = sum(off) / len(off)
            side = "high" if mean > 0 else "low"
            said.append(
                f"By {way}: the EI {abs(mean):.2f} stop {side} on the mean of "
                f"{counted(len(off), 'film')}."
            )
    traps, caught = sum(f.traps for f in films), sum(f.caught for f in films)
    if traps:
        said.append(f"You noticed {caught} of {counted(traps, 'thing')} that went wrong.")
    said.append(_next(films, held, traps, caught))
    return said


def _next(films: tuple[OpenedEnvelope, ...], held: list[bool], traps: int, caught: int) -> str:
    """What would teach most."""
    if len(held) >= _ENOUGH and sum(held) < (_MEANT - 0.15) * len(held):
        return "Next: say wider ranges, until nine of ten hold."
    off = [f.index_off for f in films if f.index_off is not None]
    if len(off) >= _ENOUGH and abs(sum(off) / len(off)) > _BIAS:
        way = "higher" if sum(off) > 0 else "lower"
        return f"Next: your EIs are {way} than the truth; find out at which step of the reading."
    if traps and caught * 2 < traps:
        return "Next: before committing, read the warnings and repeat one frame of each strip."
    if all(f.level == "first" for f in films):
        return "Next: a film of the plain level."
    if all(f.level in ("plain", "first") for f in films):
        return "Next: a film of the usual level."
    if all(f.way == "readings" for f in films):
        return "Next: the same by the light box, without the densitometer."
    return "Next: a hard one."

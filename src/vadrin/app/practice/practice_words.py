"""Levels and kinds of practice films by their names, and what of the envelope may be known."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

from vadrin.app.display.words import capital
from vadrin.app.practice.practice_place import OPENED, TRUTH
from vadrin.app.practice.practice_questions import Question, material_of, questions_of
from vadrin.core.simulation.practice_level import Level

LEVELS: dict[str, Level] = {
    "first hour": Level.FIRST,
    "plain": Level.PLAIN,
    "usual": Level.USUAL,
    "hard": Level.HARD,
    "as it comes": Level.ANY,
}
"""Levels by the names they are chosen by, the easiest first."""
LEVEL_SENTENCES = {
    "first hour": "Nothing goes wrong, and every step is explained.",
    "plain": "Nothing goes wrong.",
    "usual": "Two small things go wrong that a careful tester notices.",
    "hard": "The light drifts, the counter slips, a strip is not what was noted.",
    "as it comes": "Anything may go wrong, or nothing.",
}
_LONGEST = 200_000


def _outside(notebook: Path) -> dict[str, Any]:
    """What stands on the envelope of a practice film; nothing where it is gone or hurt."""
    try:
        told = json.loads((notebook.parent / TRUTH).read_text("utf-8")[:_LONGEST])
    except (OSError, ValueError):
        return {}
    return told if isinstance(told, dict) else {}


def outside_of(notebook: Path) -> tuple[str, str]:
    """What stands on the envelope: the level's name, and the digest of what is inside."""
    told = _outside(notebook)
    name = next((name for name, each in LEVELS.items() if each.value == told.get("level")), "")
    return (name, str(told.get("sha256", ""))[:16]) if name else ("", "")


def questions_on(notebook: Path) -> tuple[Question, ...]:
    """What a practice film is asked, by the type of test that stands on its envelope."""
    return questions_of(str(_outside(notebook).get("kind", "time")))


def heading_on(notebook: Path) -> str:
    """What is asked of a sealed envelope."""
    return f"What is this {material_of(str(_outside(notebook).get('kind', 'time')))}?"


def opened_envelope(notebook: Path) -> dict[str, Any] | None:
    """What came of an opened envelope, as it was kept; None before that, or where it was hurt."""
    try:
        told = json.loads((notebook.parent / OPENED).read_text("utf-8")[:_LONGEST])
    except (OSError, ValueError):
        return None
    if not isinstance(told, dict):
        return None
    lists = all(isinstance(told.get(name), list) for name in ("table", "sentences", "traps"))
    rows = lists and all(isinstance(row, list) for row in told["table"])
    traps = lists and all(isinstance(t, list) and len(t) == 3 for t in told["traps"])
    return told if rows and traps and "film" in told else None


def trap_sentence(words: str, by_program: bool, by_tester: bool) -> str:
    """What went wrong, and who noticed."""
    who = [n for n, did in (("the program", by_program), ("you", by_tester)) if did]
    seen = f"noticed by {' and '.join(who)}" if who else "noticed by nobody"
    return f"{capital(str(words))}: {seen}."


def level_to_begin(place: Path) -> str:
    """The level that is offered: the first hour, until a practice film was begun."""
    return "usual" if place.is_dir() and any(place.iterdir()) else "first hour"

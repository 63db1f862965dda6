"""What a film makes of long exposures, as it is typed and kept with the stock."""

from __future__ import annotations

import re

from vadrin.app.entry.numbers import number_typed, pairs_typed
from vadrin.core.exposure.reciprocity import Reciprocity, corrected_time
from vadrin.errors import EntryError
from vadrin.notebook.records import Stock

HINT = "t^1.3, or +0.15 t^1.4, or pairs of seconds such as 1: 1.5, 10: 25, 100: 500"


def reciprocity_typed(words: str) -> Reciprocity | None:
    """Read a law; None for an empty one.

    ``t^p`` is a power, ``+a t^p`` adds to the metered time, pairs are a table of metered and
    corrected seconds; ``from 4 s`` at the end says up to when nothing is added.

    Raises
    ------
    EntryError
        With words for the person who typed it.
    """
    plain = words.strip().lower().replace("×", " ")
    if not plain or plain.startswith(("nothing", "none")):
        return None
    start = re.search(r"\s+from\s+(\S+?)\s*s?$", plain)
    threshold = number_typed(start[1]) if start else 1.0
    if start:
        plain = plain[: start.start()]
    if ":" in plain:
        return _checked(_table(plain, threshold))
    found = re.fullmatch(r"(?:\+\s*([\d.,]+)\s*)?t\s*\^\s*([\d.,]+)", plain)
    if not found:
        raise EntryError(f"type what long exposures take as {HINT}")
    exponent = number_typed(found[2])
    if found[1] is None:
        return _checked(Reciprocity("power", 0.0, exponent, threshold))
    return _checked(Reciprocity("additive", number_typed(found[1]), exponent, threshold))


def reciprocity_words(words: str) -> str:
    """A typed law as it is kept; empty for none.

    Raises
    ------
    EntryError
        As `reciprocity_typed`.
    """
    return words.strip() if reciprocity_typed(words) else ""


def _table(plain: str, threshold: float) -> Reciprocity:
    rows = pairs_typed(plain, HINT)
    shorter = [f"{m:g} s to {n:g} s" for m, n in rows if n < m]
    if shorter:
        raise EntryError(f"that would shorten an exposure: {shorter[0]}")
    if sorted(rows) != rows or len({m for m, _ in rows}) != len(rows):
        raise EntryError("the metered seconds of the pairs rise from one to the next")
    first = rows[0][0]
    start = min(threshold, first * 0.5) if rows[0][1] > first * 1.001 else first
    table = tuple(r for r in rows if r[0] > start)
    if not table:
        raise EntryError("one pair at least is longer than where it begins")
    return Reciprocity("table", threshold_s=start, table=table)


def _checked(reciprocity: Reciprocity) -> Reciprocity:
    """A law that never takes light away, and never asks for hours out of minutes."""
    if reciprocity.form != "table" and not 1 < reciprocity.exponent <= 3:
        raise EntryError("the power of t lies above 1 and up to 3")
    if not 0 < reciprocity.threshold_s <= 100:
        raise EntryError("it begins between 0 and 100 s")
    times = [
        reciprocity.threshold_s * 1.2,
        10 * reciprocity.threshold_s,
        *(m for m, _ in reciprocity.table),
    ]
    needed = [corrected_time(reciprocity, t) for t in times]
    if any(not t * 0.999 <= n <= t * 64 for t, n in zip(times, needed, strict=True)):
        raise EntryError("this correction would shorten or unreasonably lengthen exposures")
    return reciprocity


def reciprocity_of(stock: Stock) -> Reciprocity | None:
    """The law of a stock; None where none is known, or what a file holds cannot be read."""
    try:
        return reciprocity_typed(stock.reciprocity)
    except ValueError:
        return None

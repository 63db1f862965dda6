"""Film as people name it: how much there is, and the names set beside a reference."""

from __future__ import annotations

import re

from vadrin.core.planning.plan_request import FilmSupply, FilmUnit
from vadrin.errors import EntryError

FILM_HINT = "36 frames, 10 sheets, 5 m or 30 m cine"
AS_MUCH = "as much as it takes"


def film_supply_typed(words: str) -> FilmSupply | None:
    """An amount of film: ``36 frames``, ``10 sheets``, ``5 m``, ``36 frames after 14``.

    Returns
    -------
    FilmSupply or None
        None for as much as it takes.

    Raises
    ------
    EntryError
        If the words are no amount of film.
    """
    plain = words.strip().lower().replace(",", ".")
    if not plain or plain.startswith("as much"):
        return None
    amount, _, after = plain.partition(" after ")
    found = re.fullmatch(r"(\d+(?:\.\d+)?)\s*([a-z ]*)", amount.strip())
    unit = _unit(found[2].strip()) if found else None
    if found is None or unit is None:
        raise EntryError(f"film comes as {FILM_HINT}")
    if not 0 < float(found[1]) <= 1000:
        raise EntryError(f"that is no amount of film; {FILM_HINT}")
    if after.strip() and not after.strip().isdecimal():
        raise EntryError("say after how many frames, such as 36 frames after 14")
    return FilmSupply(float(found[1]), unit, int(after) if after.strip() else 0)


def _unit(word: str) -> FilmUnit | None:
    if not word or word.startswith(("frame", "exp", "shot")):
        return FilmUnit.FRAMES
    if word.startswith("sheet"):
        return FilmUnit.SHEETS
    if word.startswith("m"):
        return FilmUnit.CINE_METRES if "cine" in word else FilmUnit.METRES
    return None


def film_supply_text(film: FilmSupply | None) -> str:
    """An amount of film as it is typed."""
    if film is None:
        return AS_MUCH
    unit = {FilmUnit.METRES: "m", FilmUnit.CINE_METRES: "m cine"}.get(film.unit, str(film.unit))
    return f"{film.amount:g} {unit}" + (f" after {film.taken}" if film.taken else "")


def names_typed(words: str) -> tuple[str, ...]:
    """Names with commas, semicolons or ``and`` between them."""
    pieces = re.split(r";|,\s+|\s+and\s+", words)
    return tuple(p.strip() for p in pieces if p.strip())


def name_typed(words: str) -> str:
    """A name that must not be empty.

    Raises
    ------
    EntryError
    """
    if not words.strip():
        raise EntryError("it needs a name")
    return words.strip()

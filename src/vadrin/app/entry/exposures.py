"""Exposures as people type them: EI, stops, aperture, and what was set instead."""

from __future__ import annotations

from vadrin.app.entry.numbers import number_typed, number_within
from vadrin.app.entry.times import seconds_typed
from vadrin.errors import EntryError

OTHERWISE_HINT = "type a shutter (1/60, 2 s), an aperture (f/8) or stops (+2)"


def exposure_index_typed(words: str) -> float:
    """An exposure index: ``400``, ``EI 400``.

    Raises
    ------
    EntryError
    """
    plain = words.strip().lower().removeprefix("ei").removeprefix("iso")
    return number_within(plain, 0.1, 100_000, "an EI lies between 0.1 and 100000", "100")


def stops_typed(words: str, low: float, high: float, refusal: str) -> float:
    """An offset in stops: ``-6``, ``+1½``, ``2 stops``.

    Raises
    ------
    EntryError
    """
    plain = words.strip().lower().removesuffix("stops").removesuffix("stop")
    return number_within(plain, low, high, refusal, "−3 or +1½")


def aperture_typed(words: str) -> float:
    """An f-number: ``8``, ``f/8``, ``f8``.

    Raises
    ------
    EntryError
    """
    plain = words.strip().lower().removeprefix("f").removeprefix("/")
    return number_within(plain, 0.7, 128, "an aperture lies between f/0.7 and f/128", "f/8")


def otherwise_typed(words: str) -> dict[str, float]:
    """What was set instead: ``1/60``, ``f/8``, or an offset such as ``+2`` or ``−1½``.

    Raises
    ------
    EntryError
    """
    plain = words.strip().lower()
    if plain.startswith("f"):
        return {"aperture": aperture_typed(plain)}
    if plain.startswith("1/") or plain.endswith("s"):
        return {"seconds": seconds_typed(plain)}
    if plain[:1] and plain[0] in "+-−0":
        return {"stops": number_typed(plain.removeprefix("+"), "+2")}
    raise EntryError(f"“{words}”: {OTHERWISE_HINT}")

"""Exposures as people type them: EI, stops, aperture, and what was set instead."""

from __future__ import annotations

import re
from math import log2

from vadrin.app.entry.lists import surely_parted
from vadrin.app.entry.numbers import number_typed, number_within, numbers_typed, ungrouped, within
from vadrin.app.entry.times import seconds_typed
from vadrin.core.exposure.arithmetic import exact_ei, marked_ei
from vadrin.core.limits import APERTURE, EXPOSURE_INDEX
from vadrin.errors import EntryError

_MOST_PUSHED = 6
OTHERWISE_HINT = "type a shutter (1/60, 2 s), an aperture (f/8), both, or stops (+2)"


_NAMED_INDEX = re.compile(r"^(?:e\.?\s?i\.?|iso)\s*:?\s*|\s*(?:ei|iso)$")
"""An EI with its name before or after it; a speed may have its degrees behind a stroke."""
_NAME = re.compile(r"\b(?:ei|iso)\b\s*:?\s*")
_REACH = re.compile(r"(?:ei|iso)?\s*([\d., ]*\d)\s*(?:-|–|−|to)\s*(?:ei|iso)?\s*(\d[\d., ]*)")
"""Two EIs with what lies between them: ``EI 50 to 400``."""
_LAST_COUNTS = 0.05
"""Stops by which the last of a row may fall short of the end that was typed."""


def exposure_index_typed(words: str) -> float:
    """An exposure index: ``400``, ``EI 400``, ``1,600``, ``1 600``.

    Raises
    ------
    EntryError
    """
    plain = _NAMED_INDEX.sub("", words.strip().lower()).strip()
    plain = ungrouped(re.sub(r"/\d{1,2}\s*°$", "", plain))
    return within(plain, EXPOSURE_INDEX)


def exposure_indexes_typed(words: str) -> tuple[float, ...]:
    """Several EIs: ``25, 50, 100``, ``800; 1,600``, ``100 and 200``; in whole stops ``50-400``.

    Raises
    ------
    EntryError
        Where commas without a space may part EIs or the thousands of one.
    """
    plain = words.strip().lower()
    reach = _REACH.fullmatch(plain)
    if reach is not None:
        return _in_whole_stops(exposure_index_typed(reach[1]), exposure_index_typed(reach[2]))
    grouped = ungrouped(plain)
    # 100 200 are two: no EI is as high as one of both would be.
    if grouped != plain and ("," in plain or "." in plain or float(grouped) <= EXPOSURE_INDEX.high):
        raise EntryError(
            f"“{plain}”: one EI, or several? Put a comma and a space between two EIs, and "
            "nothing between the thousands of one"
        )
    pieces = _eis(_NAME.sub("", plain).strip())
    indexes = tuple(exposure_index_typed(piece) for piece in pieces if piece)
    if not indexes:
        raise EntryError("type at least one EI, such as 100, 200, 400")
    return indexes


def _in_whole_stops(first: float, last: float) -> tuple[float, ...]:
    """The marks from one EI to another, a stop apart."""
    stops = log2(exact_ei(last) / exact_ei(first))
    count = int(abs(stops) + _LAST_COUNTS)
    way = 1 if stops >= 0 else -1
    return tuple(float(marked_ei(exact_ei(first) * 2.0 ** (way * n))) for n in range(count + 1))


def _eis(plain: str) -> list[str]:
    """The pieces of several; a space inside one parts its thousands."""
    pieces = surely_parted(plain)
    if len(pieces) > 1:
        return pieces
    return plain.split() if re.search(r"\s", plain) else plain.split(",")


def stops_typed(words: str, low: float, high: float, refusal: str) -> float:
    """An offset in stops: ``-6``, ``+1½``, ``2 stops``.

    Raises
    ------
    EntryError
    """
    plain = re.sub(r"\s*(?:stops?|ev)$", "", words.strip().lower())
    return number_within(plain, low, high, refusal, "−3 or +1½")


def pushes_typed(words: str) -> tuple[float, ...]:
    """Pushes of several strips in stops; below 0 a strip is pulled.

    Raises
    ------
    EntryError
        If they are no numbers, or none that a film is developed for.
    """
    stops = numbers_typed(words, like="0, 1, 2")
    if not all(-_MOST_PUSHED <= s <= _MOST_PUSHED for s in stops):
        raise EntryError(
            f"a film is pushed or pulled by up to {_MOST_PUSHED} stops, such as 0, 1, 2"
        )
    return stops


def aperture_typed(words: str) -> float:
    """An f-number: ``8``, ``f/8``, ``f8``.

    Raises
    ------
    EntryError
    """
    plain = re.sub(r"^(?:f\s*[/:]?|1\s*:)\s*", "", words.strip().lower())
    return within(plain, APERTURE)


_PARTS = re.compile(
    r"(?P<aperture>f\s*/?\s*[\d.,]+)"
    r"|(?P<seconds>1/[\d.,]+(?:\s*s\b)?|½\s*s?\b|[\d.,]+\s*s(?:ec\w*)?\b)"
    r"|(?P<stops>[-+−][\d.,]*[½⅓⅔⅙⅚]?|\b0\b)(?:\s*stops?\b)?"
)


def otherwise_typed(words: str) -> dict[str, float]:
    """What was set instead: ``1/60``, ``f/8``, both in any order, or an offset such as ``+1½``.

    Raises
    ------
    EntryError
    """
    plain = words.strip().lower()
    found = [(m.lastgroup or "", m[m.lastgroup or 0]) for m in _PARTS.finditer(plain)]
    left = _PARTS.sub("", plain).replace("at", "").strip(" ,;@")
    names = [name for name, _ in found]
    if left or not found or len(set(names)) < len(names):
        raise EntryError(f"“{words}”: {OTHERWISE_HINT}")
    if "stops" in names and len(names) > 1:
        raise EntryError(f"“{words}”: say what was set, or the stops it came to, not both")
    return {name: _part_typed(name, part.rstrip(",")) for name, part in found}


def _part_typed(name: str, words: str) -> float:
    if name == "aperture":
        return aperture_typed(words.replace(" ", ""))
    return seconds_typed(words) if name == "seconds" else number_typed(words, "+2")

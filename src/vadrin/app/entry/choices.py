"""One of a few words, as people type it: its beginning will do, or another word for it."""

from __future__ import annotations

from collections.abc import Iterable

from vadrin.errors import EntryError

_ALSO = {
    "developers": ("chemistry", "chemicals", "soups", "baths"),
    "stocks": ("films", "film", "emulsions"),
    "batches": ("rolls of another date", "emulsion numbers"),
    "whole stops": ("1", "1 stop", "one", "one stop", "full stops", "stops"),
    "half stops": ("½", "1/2", "0.5", "0,5", "halves", "a half"),
    "thirds": ("⅓", "1/3", "0.33", "third stops", "a third"),
    "one strip after the other": ("in order", "sequential", "as they come"),
    "each strip back to front": ("back to front", "mirrored", "backwards", "there and back"),
    "in pairs on twin cameras": ("pairs", "twins", "twin cameras", "interleaved"),
    "repeated at the end": ("yes", "repeat", "again", "once more"),
    "not repeated": ("no", "none", "never"),
    "shutter": ("time", "times", "speed"),
    "aperture": ("f", "f-number", "f-stop", "stop", "diaphragm", "iris"),
    "shadow": ("zone", "zones", "zone i"),
    "standard": ("iso", "box"),
    "highlight density": ("highlight held", "highlights", "lights"),
    "mid-tone density": ("mid-tone held", "midtone", "mid tone", "midtones", "grey", "middle"),
    "average gradient": ("g", "g-bar", "mean gradient", "slope"),
    "contrast index": ("ci",),
    "gamma": ("straight line", "γ"),
}
"""Other words people use for a choice; they count only where it is among those offered."""


def choice_typed(words: str, choices: Iterable[str], anywhere: bool = False) -> str:
    """The one choice that begins with the words, in either case, or is called so.

    Parameters
    ----------
    words : str
    choices : iterable of str
    anywhere : bool
        Whether a part of a choice will do too.

    Raises
    ------
    EntryError
        Listing the choices.
    """
    known, plain = list(choices), words.strip().lower()
    found = [c for c in known if c.lower() == plain]
    found = found or [c for c in known if plain in _ALSO.get(c.lower(), ())]
    found = found or [c for c in known if plain and c.lower().startswith(plain)]
    if not found and anywhere:
        found = [c for c in known if plain and plain in c.lower()]
    if len(found) != 1:
        raise EntryError(f"“{words.strip()}”: one of {', '.join(known)}")
    return found[0]

"""One of a few words, as people type it: its beginning will do."""

from __future__ import annotations

from collections.abc import Iterable

from vadrin.errors import EntryError


def choice_typed(words: str, choices: Iterable[str], anywhere: bool = False) -> str:
    """The one choice that begins with the words, in either case.

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
    whole = [c for c in known if c.lower() == plain]
    found = whole or [c for c in known if plain and c.lower().startswith(plain)]
    if not found and anywhere:
        found = [c for c in known if plain and plain in c.lower()]
    if len(found) != 1:
        raise EntryError(f"one of: {', '.join(known)}")
    return found[0]

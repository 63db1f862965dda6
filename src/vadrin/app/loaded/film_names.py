"""What the strips of a comparison are called."""

from __future__ import annotations

from vadrin.app.loaded.loaded_test import LoadedStrip, LoadedTest


def film_name(loaded: LoadedTest, strip: LoadedStrip) -> str:
    """What a strip is called: its film or its chemistry, never its letter."""
    if strip.other:
        return strip.other
    return f"{loaded.stock.name}{f' {loaded.batch.name}' if loaded.batch else ''}"

"""What a person said once and need not say again, by its name, kept where the desktop says."""

from __future__ import annotations

import json
from contextlib import suppress
from pathlib import Path

from platformdirs import user_config_path

_MOST_BYTES = 10_000


def _file() -> Path:
    return user_config_path("vadrin") / "preferences.json"


def _all() -> dict[str, bool]:
    try:
        with _file().open(encoding="utf-8") as kept:
            told = json.loads(kept.read(_MOST_BYTES))
    except (OSError, ValueError):
        return {}
    named = told.items() if isinstance(told, dict) else ()
    return {name: said for name, said in named if isinstance(said, bool)}


def preference(name: str) -> bool | None:
    """Yes or no, as it was said last; None where it was never said."""
    return _all().get(name)


def keep_preference(name: str, said: bool) -> None:
    """Keep it; where it cannot be written, it is let be."""
    with suppress(OSError):
        _file().parent.mkdir(parents=True, exist_ok=True)
        _file().write_text(json.dumps({**_all(), name: said}), encoding="utf-8")

"""Whether a person wants no estimates from other tests; said once, kept with their choices."""

from __future__ import annotations

import json
from contextlib import suppress
from pathlib import Path

from platformdirs import user_config_path


def _file() -> Path:
    return user_config_path("vadrin") / "estimates.json"


def estimates_left_out() -> bool:
    """Whether they are left out of every answer."""
    try:
        return bool(json.loads(_file().read_text(encoding="utf-8")) == {"left_out": True})
    except (OSError, ValueError):
        return False


def leave_estimates_out(left_out: bool) -> None:
    """Keep it; where it cannot be written, it is let be."""
    with suppress(OSError):
        _file().parent.mkdir(parents=True, exist_ok=True)
        _file().write_text(json.dumps({"left_out": left_out}), encoding="utf-8")

"""What a person chose of the window: its type, look and place, kept where the desktop says."""

from __future__ import annotations

import json
from contextlib import suppress
from dataclasses import asdict, dataclass
from math import isfinite
from pathlib import Path

from platformdirs import user_config_path

_SMALLEST, _LARGEST = 1.0, 2.0
_WIDEST = 20_000


@dataclass(frozen=True)
class Choices:
    """What was chosen last.

    Attributes
    ----------
    scale : float
        Of the type, 1 to 2.
    look : str
        Name of a look; empty for the usual one.
    place : tuple of int
        Left, top, width and height of the window; empty for the usual place.
    whole_screen : bool
        Whether it filled the screen.
    """

    scale: float = 1.0
    look: str = ""
    place: tuple[int, ...] = ()
    whole_screen: bool = False


def _file() -> Path:
    return user_config_path("vadrin") / "choices.json"


def choices_kept() -> Choices:
    """What was chosen last; the usual where nothing is kept, or something else stands there."""
    try:
        told = json.loads(_file().read_text(encoding="utf-8"))
        scale, place = float(told["scale"]), tuple(int(v) for v in told["place"])
        look, whole = str(told["look"]), told["whole_screen"] is True
    except (OSError, ValueError, TypeError, KeyError, OverflowError):
        return Choices()
    if not isfinite(scale) or len(place) not in (0, 4) or any(abs(v) > _WIDEST for v in place):
        return Choices()
    return Choices(min(max(scale, _SMALLEST), _LARGEST), look, place, whole)


def keep_choices(choices: Choices) -> None:
    """Keep what was chosen; where it cannot be written, it is let be."""
    with suppress(OSError):
        _file().parent.mkdir(parents=True, exist_ok=True)
        _file().write_text(json.dumps(asdict(choices)), encoding="utf-8")

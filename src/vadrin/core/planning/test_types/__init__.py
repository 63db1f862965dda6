"""The types of test that people do: one file each, and one of the same name in each layer above.

Nothing is registered by being imported. `NAMES` is the one list; whoever asks for a type by its
key gets it, whatever was loaded before.
"""

from __future__ import annotations

from functools import cache
from importlib import import_module

from vadrin.core.planning.test_types.test_type import Asks, Foretold, Metering, TestType

NAMES: tuple[str, ...] = (
    "development_time",
    "speed",
    "push",
    "mixed_roll",
    "rescue",
    "compare",
    "two_developers",
    "clip",
    "long_exposures",
    "colour_push",
    "reversal",
    "paper",
    "cine",
    "process_control",
    "wrong_setting",
    "data_sheet",
)
"""Names of their files, in the order testers need them."""

__all__ = ["NAMES", "Asks", "Foretold", "Metering", "TestType", "all_types", "name_of", "type_of"]


@cache
def _made(names: tuple[str, ...]) -> dict[str, tuple[str, TestType]]:
    """Every type by its key, with the name of its file.

    Raises
    ------
    ValueError
        If a key is empty, or two types have one key.
    """
    known: dict[str, tuple[str, TestType]] = {}
    for name in names:
        made = import_module(f"{__name__}.{name}").TYPE
        if not made.key or made.key in known:
            raise ValueError(f"{name}: the key “{made.key}” is empty or taken")
        known[made.key] = (name, made)
    return known


def all_types() -> dict[str, TestType]:
    """Every type by its key, in the order testers need them."""
    return {key: made for key, (_, made) in _made(NAMES).items()}


def type_of(key: str) -> TestType | None:
    """The type with a key; None for one this program does not know."""
    known = _made(NAMES).get(key)
    return known[1] if known else None


def name_of(key: str) -> str | None:
    """The name of the file a type has in each layer; None for one this program does not know."""
    known = _made(NAMES).get(key)
    return known[0] if known else None
